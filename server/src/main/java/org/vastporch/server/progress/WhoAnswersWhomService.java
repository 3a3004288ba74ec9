package org.vastporch.server.progress;

import static java.util.stream.Collectors.groupingBy;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.calendar.Term;
import org.vastporch.core.progress.NextToAnswer;
import org.vastporch.core.progress.WhoAnswersWhom;
import org.vastporch.core.progress.WhoAnswersWhom.Edge;
import org.vastporch.core.progress.WhoAnswersWhom.Voice;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.http.Csv;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.progress.WhoAnswersWhomStore.Said;
import org.vastporch.server.progress.WhoAnswersWhomStore.Written;
import org.vastporch.server.reading.ToAnswerService;

/** Who comments on whom in a class, for those who mark. */
@Service
public class WhoAnswersWhomService {

    /** How the students stand. */
    public enum By {
        /** By group, in each the most answered first. */
        GROUP,
        /** Those who answer each other stand together. */
        TOGETHER
    }

    /**
     * @param term null for the one that is now
     * @param fromWeek index into its weeks; null for all of them
     */
    public record Range(
            @Nullable Integer term,
            @Nullable Integer fromWeek,
            @Nullable Integer toWeek) {}

    /**
     * @param answeredBy how many classmates commented on a post of theirs
     * @param answeredBack how many of those they commented on too
     */
    public record VoiceLine(
            long studentId,
            long place,
            String name,
            @Optionally String group,
            int given,
            int received,
            int answeredBy,
            int answeredBack,
            int posts,
            boolean neverAnswered) {}

    /** Comments of one student on another's posts: both by their places in the order, from 0. */
    public record Thread(int from, int to, int comments) {}

    /**
     * A post that no classmate has answered.
     *
     * @param wanted whether it is put up for an answer
     * @param answerable whether classmates could answer it
     */
    public record SilentPost(long postId, String title, Instant at, boolean wanted, boolean answerable) {}

    /**
     * @param posts the newest of those that nobody answered
     * @param more how many others there are
     */
    public record SilentStudent(long place, String name, boolean neverAnswered, List<SilentPost> posts, int more) {}

    /** Two who answer nobody but each other. */
    public record PairNames(String one, String other, int comments) {}

    public record OneGroupName(String name, String group, int comments) {}

    /**
     * @param threads whoever answers whom, at least once
     * @param bothWays how many of the threads have one the other way
     * @param topThree who was answered most
     * @param topShare how many comments went to them, of all
     * @param inequality of the comments received, by Gini: from 0 (all got as many) to nearly 1
     */
    public record AnsweringView(
            By by,
            List<VoiceLine> students,
            List<Thread> threads,
            int comments,
            int bothWays,
            List<String> topThree,
            int topShare,
            double inequality,
            WhoAnswersWhom.Spread spread,
            List<PairNames> pairs,
            List<OneGroupName> onlyOneGroup,
            List<SilentStudent> silent) {}

    private record Seen(WhoAnswersWhom graph, Names names, List<Written> posts, Set<Long> answered) {}

    private static final int MOST_SILENT = 3;

    private final WhoAnswersWhomStore store;
    private final ClassService classes;
    private final PeopleService people;
    private final AccessService access;
    private final ToAnswerService toAnswer;

    WhoAnswersWhomService(
            WhoAnswersWhomStore store,
            ClassService classes,
            PeopleService people,
            AccessService access,
            ToAnswerService toAnswer) {
        this.store = store;
        this.classes = classes;
        this.people = people;
        this.access = access;
        this.toAnswer = toAnswer;
    }

    public AnsweringView whoAnswersWhom(Viewer viewer, long classId, By by, Range range) {
        Seen seen = seen(viewer, classId, range);
        WhoAnswersWhom graph = seen.graph();
        Names names = seen.names();
        List<Long> order = by == By.TOGETHER
                ? graph.together()
                : graph.byGroup(students(classId, names), Comparator.naturalOrder());
        Map<Long, Integer> at = new HashMap<>();
        for (int i = 0; i < order.size(); i++) at.put(order.get(i), i);
        Map<Long, Voice> voices =
                graph.voices().stream().collect(Collectors.toMap(Voice::student, Function.identity()));
        return new AnsweringView(
                by,
                order.stream().map(s -> line(voices.get(s), names)).toList(),
                graph.edges().stream()
                        .map(e -> new Thread(at.get(e.from()), at.get(e.to()), e.comments()))
                        .toList(),
                graph.comments(),
                graph.bothWays(),
                graph.topThree().stream().map(names::of).toList(),
                graph.topShare(),
                graph.gini(),
                graph.spread(),
                graph.pairs().stream()
                        .map(p -> new PairNames(names.of(p.one()), names.of(p.other()), p.comments()))
                        .toList(),
                graph.onlyOneGroup().stream()
                        .map(o -> new OneGroupName(names.of(o.student()), o.group(), o.comments()))
                        .toList(),
                silent(classId, seen));
    }

    /** A row and a column for each student: how many comments the one gave to the other. */
    public String csv(Viewer viewer, long classId, By by, Range range) {
        AnsweringView view = whoAnswersWhom(viewer, classId, by, range);
        List<List<?>> rows = new ArrayList<>();
        List<Object> head = new ArrayList<>(List.of("From", "Group"));
        for (VoiceLine to : view.students()) head.add(to.name());
        head.addAll(List.of("Given", "Received", "Answered by", "Answered back", "Posts"));
        rows.add(head);
        Map<Integer, List<Thread>> from = view.threads().stream().collect(groupingBy(Thread::from));
        for (int i = 0; i < view.students().size(); i++) {
            VoiceLine of = view.students().get(i);
            List<Object> row = new ArrayList<>(List.of(of.name(), of.group() == null ? "" : of.group()));
            for (int j = 0; j < view.students().size(); j++) row.add("");
            for (Thread thread : from.getOrDefault(i, List.of())) row.set(2 + thread.to(), thread.comments());
            row.addAll(List.of(of.given(), of.received(), of.answeredBy(), of.answeredBack(), of.posts()));
            rows.add(row);
        }
        return Csv.table(rows);
    }

    /** What a student gave and got in a week; whoever asks has seen to the right to do so. */
    Voice voice(long classId, Term.Week week, long student) {
        return seen(people.namesForReaders(classId), classId, week.start(), week.end()).graph().voices().stream()
                .filter(v -> v.student() == student)
                .findFirst()
                .orElseThrow(Problem::missing);
    }

    private Seen seen(Viewer viewer, long classId, Range range) {
        access.require(viewer, Act.MARK, classId);
        Term.Week[] weeks = weeks(classId, range);
        return seen(people.names(viewer, classId), classId, weeks[0].start(), weeks[1].end());
    }

    private Seen seen(Names names, long classId, Instant from, Instant to) {
        List<WhoAnswersWhom.Student> students = students(classId, names);
        Set<Long> here = students.stream().map(WhoAnswersWhom.Student::id).collect(Collectors.toSet());
        List<Said> said = store.comments(classId, from, to);
        Set<Long> answered = new HashSet<>();
        List<Edge> edges = new ArrayList<>();
        for (Said one : said) {
            if (here.contains(one.from())) answered.add(one.postId());
            if (!one.at().isBefore(from) && one.at().isBefore(to)) edges.add(new Edge(one.from(), one.to(), 1));
        }
        List<Written> posts = store.posts(classId, from, to);
        return new Seen(
                WhoAnswersWhom.of(
                        students,
                        edges,
                        posts.stream()
                                .map(p -> new WhoAnswersWhom.Post(p.authorId(), answered.contains(p.postId())))
                                .toList()),
                names,
                posts.stream().filter(p -> here.contains(p.authorId())).toList(),
                answered);
    }

    /** The first and the last week that are asked for. */
    private Term.Week[] weeks(long classId, Range range) {
        ClassService.ClassRecord in = classes.get(classId);
        Term term = range.term() == null ? in.term() : in.terms().get(range.term());
        List<Term.Week> weeks = term.weeks();
        int last = weeks.size() - 1;
        int from = range.fromWeek() == null ? 0 : Math.max(0, Math.min(range.fromWeek(), last));
        int to = range.fromWeek() == null
                ? last
                : range.toWeek() == null ? from : Math.max(from, Math.min(range.toWeek(), last));
        return new Term.Week[] {weeks.get(from), weeks.get(to)};
    }

    private List<WhoAnswersWhom.Student> students(long classId, Names names) {
        return people.students(classId).stream()
                .map(s -> new WhoAnswersWhom.Student(s, names.groupOf(s)))
                .toList();
    }

    private List<SilentStudent> silent(long classId, Seen seen) {
        Map<Long, List<Written>> unanswered = seen.posts().stream()
                .filter(p -> !seen.answered().contains(p.postId()))
                .collect(groupingBy(Written::authorId));
        Map<Long, PostFacts> facts = access.posts(unanswered.values().stream()
                .flatMap(posts -> posts.stream().limit(MOST_SILENT))
                .map(Written::postId)
                .toList());
        Map<Long, Instant> wanted = toAnswer.wanted(classId);
        return seen.graph().voices().stream()
                .filter(v -> v.unanswered() > 0)
                .sorted(Comparator.comparing(Voice::isNeverAnswered).reversed().thenComparing(Voice::received))
                .map(v -> {
                    List<Written> of = unanswered.get(v.student());
                    return new SilentStudent(
                            seen.names().placeOf(v.student()),
                            seen.names().of(v.student()),
                            v.isNeverAnswered(),
                            of.stream()
                                    .limit(MOST_SILENT)
                                    .map(p -> new SilentPost(
                                            p.postId(),
                                            p.title(),
                                            p.at(),
                                            wanted.containsKey(p.postId()),
                                            isAnswerable(facts.get(p.postId()))))
                                    .toList(),
                            Math.max(0, of.size() - MOST_SILENT));
                })
                .toList();
    }

    private static boolean isAnswerable(@Nullable PostFacts post) {
        return post != null && NextToAnswer.unanswerable(post, true).isEmpty();
    }

    private static VoiceLine line(Voice voice, Names names) {
        return new VoiceLine(
                voice.student(),
                names.placeOf(voice.student()),
                names.of(voice.student()),
                names.groupOf(voice.student()),
                voice.given(),
                voice.received(),
                voice.answeredBy(),
                voice.answeredBack(),
                voice.posts(),
                voice.isNeverAnswered());
    }
}

package org.vastporch.server.marking;

import java.math.BigDecimal;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.marking.Trend;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.core.reviews.Apart;
import org.vastporch.core.rubrics.Fraction;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.marking.MarkingStore.Mark;
import org.vastporch.server.marking.PaperService.MarkView;
import org.vastporch.server.marking.PaperService.Score;
import org.vastporch.server.marking.PaperService.SeenPost;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.writing.Posts;

/** What a student sees of marks: the own ones, once they are released. */
@Service
public class FeedbackService {

    /**
     * A post that was marked, under the title that it had.
     *
     * @param notes how many were written beside its words, if it is the viewer's own
     */
    public record MarkedPost(long postId, String title, int notes) {}

    /** The next level of a criterion, and what a text on it shows. */
    public record Next(String criterion, String level, String descriptor) {}

    /** Why a score changed after it was shown. */
    public record ScoreChanged(Instant at, String reason) {}

    /**
     * @param next what to try next: the next level of each criterion that is not at its top
     * @param words how many were exchanged about it with the staff
     * @param again whether the viewer may hand it in again
     * @param recordings what was spoken or filmed
     * @param own how the student saw it; left out if they have not said
     * @param apart how far that lies from the marks, where both say something
     * @param ownShare how much of the score the own marks are, in per cent
     * @param changed left out if it stands as it was shown
     */
    public record Feedback(
            long promptId,
            String prompt,
            List<MarkedPost> posts,
            Rubric rubric,
            List<MarkView> marks,
            String word,
            Score score,
            int daysLate,
            String marker,
            Instant releasedAt,
            List<Next> next,
            int words,
            boolean again,
            List<RecordingService.Recording> recordings,
            @Optionally OwnViewService.Own own,
            List<Apart> apart,
            int ownShare,
            int peersShare,
            @Optionally ScoreChanged changed) {}

    /** @param level the highest level that the points reach */
    public record Reached(String prompt, BigDecimal points, BigDecimal highest, String level) {}

    /** One criterion over the prompts in which it stands by its name, the one due first comes first. */
    public record CriterionOverTime(String criterion, Trend trend, List<Reached> reached) {}

    /** @param steps how many levels the student saw themselves above what the marker gave; below 0 if below it */
    public record Judged(String prompt, int steps) {}

    /**
     * How one's own view of one criterion compares with the marker's, over the prompts in which it stands by its name.
     *
     * @param nearer whether the two get nearer to each other: UP if they do
     */
    public record JudgementOverTime(String criterion, Trend nearer, List<Judged> judged) {}

    /**
     * A paper of which the student can say how they see it.
     *
     * @param marksWait whether its marks are there and are shown once that is said
     */
    public record ToSay(long promptId, String prompt, boolean marksWait) {}

    /** A paper that so many classmates have reviewed. */
    public record ReviewedPaper(long promptId, String prompt, int reviews) {}

    /**
     * @param studentId whose marks they are
     * @param toSay those that wait for marks first
     * @param reviewed the prompt that was due last first
     * @param papers the prompt that was due last first
     * @param judgement the own views against the marks
     */
    public record FeedbackView(
            long studentId,
            List<ToSay> toSay,
            List<ReviewedPaper> reviewed,
            List<Feedback> papers,
            List<CriterionOverTime> overTime,
            List<JudgementOverTime> judgement) {}

    private final MarkingStore store;
    private final PaperNoteStore notes;
    private final RecordingStore recordings;
    private final ScoreEventStore history;
    private final MarkingDesk desk;
    private final PromptService prompts;
    private final Posts posts;
    private final PeopleService people;
    private final AccessService access;

    FeedbackService(
            MarkingStore store,
            PaperNoteStore notes,
            RecordingStore recordings,
            ScoreEventStore history,
            MarkingDesk desk,
            PromptService prompts,
            Posts posts,
            PeopleService people,
            AccessService access) {
        this.store = store;
        this.notes = notes;
        this.recordings = recordings;
        this.history = history;
        this.desk = desk;
        this.prompts = prompts;
        this.posts = posts;
        this.people = people;
        this.access = access;
    }

    /** The viewer's own released marks in a class, the prompt that was due last first. */
    public FeedbackView feedback(Viewer viewer, long classId) {
        access.require(viewer, Act.READ_CLASS, classId);
        Names names = people.names(viewer, classId);
        List<Prompt> all = prompts.all(classId);
        Map<Long, List<MarkingDesk.Paper>> papers = desk.papers(classId, all, List.of(viewer.personId()));
        List<MarkingDesk.Paper> released = all.stream()
                .map(prompt -> papers.get(prompt.id()).get(0))
                .filter(paper -> paper.isShown() && paper.score() != null)
                .toList();
        List<Long> ids = released.stream().map(paper -> paper.prompt().id()).toList();
        Map<Long, List<Mark>> marks =
                store.marksOfStudent(ids, viewer.personId()).stream().collect(Collectors.groupingBy(Mark::promptId));
        Map<Long, ScoreChanged> changes = new HashMap<>();
        history.changesOf(ids, viewer.personId()).forEach(c -> changes.put(c.promptId(), c.change()));
        Map<Long, String> titles = titles(viewer, released);
        Map<Long, Integer> words = store.wordsAbout(ids, viewer.personId());
        Map<Long, Map<Long, Integer>> noted = notes.numbers(ids, viewer.personId());
        Map<Long, List<RecordingService.Recording>> spoken = recordings.of(ids, viewer.personId()).stream()
                .collect(Collectors.groupingBy(
                        RecordingStore.Row::promptId,
                        Collectors.mapping(r -> RecordingService.view(r, names), Collectors.toList())));
        List<Feedback> found = released.stream()
                .map(paper -> feedback(
                        paper,
                        marks.getOrDefault(paper.prompt().id(), List.of()),
                        titles,
                        noted.getOrDefault(paper.prompt().id(), Map.of()),
                        words.getOrDefault(paper.prompt().id(), 0),
                        spoken.getOrDefault(paper.prompt().id(), List.of()),
                        changes.get(paper.prompt().id()),
                        names))
                .toList();
        List<ToSay> toSay = all.stream()
                .filter(prompts::isOpen)
                .map(prompt -> papers.get(prompt.id()).get(0))
                .filter(OwnViewService::canSay)
                .map(paper -> new ToSay(paper.prompt().id(), paper.prompt().title(), paper.awaitsOwn()))
                .sorted(Comparator.comparing(ToSay::marksWait).reversed())
                .toList();
        List<ReviewedPaper> reviewed = all.stream()
                .map(prompt -> papers.get(prompt.id()).get(0))
                .filter(paper -> !paper.peers().isEmpty())
                .map(paper -> new ReviewedPaper(
                        paper.prompt().id(),
                        paper.prompt().title(),
                        paper.peers().size()))
                .toList();
        return new FeedbackView(viewer.personId(), toSay, reviewed, found, overTime(released), judgement(released));
    }

    /** Whether a student sees the marks of a paper. */
    public boolean isShown(long promptId, long studentId) {
        Prompt prompt = prompts.get(promptId);
        return desk.papers(prompt.classId(), List.of(prompt), List.of(studentId)).get(promptId).stream()
                .allMatch(MarkingDesk.Paper::isShown);
    }

    /** What was marked: the viewer's own posts, and those of their group that they may read. */
    private Map<Long, String> titles(Viewer viewer, List<MarkingDesk.Paper> released) {
        Map<Long, String> titles = posts.titles(released.stream()
                .flatMap(paper -> paper.read().stream().map(SeenPost::post))
                .toList());
        Set<Long> others =
                posts.titlesOfOthers(titles.keySet(), viewer.personId()).keySet();
        Set<Long> readable = others.isEmpty() ? Set.of() : access.readable(viewer, others);
        titles.keySet().removeIf(id -> others.contains(id) && !readable.contains(id));
        return titles;
    }

    /** @param released the prompt that was due last first */
    private static List<CriterionOverTime> overTime(List<MarkingDesk.Paper> released) {
        Map<String, List<Reached>> reached = new LinkedHashMap<>();
        for (int i = released.size() - 1; i >= 0; i--) {
            MarkingDesk.Paper paper = released.get(i);
            for (Rubric.Criterion criterion : paper.prompt().rubric().criteria())
                paper.marks().stream()
                        .filter(m -> m.criterion().equals(criterion.id()) && m.points() != null)
                        .forEach(m -> reached.computeIfAbsent(criterion.name(), name -> new ArrayList<>())
                                .add(new Reached(
                                        paper.prompt().title(),
                                        m.points(),
                                        criterion.highest(),
                                        criterion.reached(m.points()).name())));
        }
        List<CriterionOverTime> lines = new ArrayList<>();
        reached.forEach((name, of) -> lines.add(new CriterionOverTime(
                name,
                Trend.of(of.stream()
                        .map(r -> Fraction.of(r.points()).dividedBy(Fraction.of(r.highest())))
                        .toList()),
                of)));
        return lines;
    }

    /** @param released the prompt that was due last first */
    private static List<JudgementOverTime> judgement(List<MarkingDesk.Paper> released) {
        Map<String, List<Fraction>> nearness = new LinkedHashMap<>();
        Map<String, List<Judged>> judged = new HashMap<>();
        for (int i = released.size() - 1; i >= 0; i--)
            for (Apart apart : released.get(i).ownApart()) {
                nearness.computeIfAbsent(apart.name(), name -> new ArrayList<>())
                        .add(apart.nearness());
                judged.computeIfAbsent(apart.name(), name -> new ArrayList<>())
                        .add(new Judged(released.get(i).prompt().title(), apart.steps()));
            }
        return nearness.entrySet().stream()
                .map(e -> new JudgementOverTime(e.getKey(), Trend.of(e.getValue()), judged.get(e.getKey())))
                .toList();
    }

    private static Feedback feedback(
            MarkingDesk.Paper paper,
            List<Mark> marks,
            Map<Long, String> titles,
            Map<Long, Integer> noted,
            int words,
            List<RecordingService.Recording> recordings,
            @Nullable ScoreChanged changed,
            Names names) {
        Prompt prompt = paper.prompt();
        return new Feedback(
                prompt.id(),
                prompt.title(),
                paper.read().stream()
                        .filter(post -> titles.containsKey(post.post()))
                        .map(post -> new MarkedPost(
                                post.post(), titles.get(post.post()), noted.getOrDefault(post.post(), 0)))
                        .toList(),
                prompt.rubric(),
                PaperService.views(marks.stream()
                        .filter(m -> prompt.rubric().find(m.criterion()).isPresent())
                        .toList()),
                paper.marking().word(),
                PaperService.view(prompt, paper.score()),
                paper.daysLate(),
                names.of(paper.marking().answering()),
                paper.marking().releasedAt(),
                next(prompt.rubric(), marks),
                words,
                paper.allowance().again(),
                recordings,
                OwnViewService.said(paper),
                paper.ownApart(),
                prompt.reviews().selfShare(),
                prompt.reviews().peers() == null || paper.peers().isEmpty()
                        ? 0
                        : prompt.reviews().peers().share(),
                changed);
    }

    private static List<Next> next(Rubric rubric, List<Mark> marks) {
        List<Next> next = new ArrayList<>();
        for (Rubric.Criterion criterion : rubric.criteria())
            marks.stream()
                    .filter(m -> m.criterion().equals(criterion.id()) && m.points() != null)
                    .findFirst()
                    .flatMap(m -> criterion.above(m.points()))
                    .ifPresent(level -> next.add(new Next(criterion.id(), level.name(), level.descriptor())));
        return next;
    }
}

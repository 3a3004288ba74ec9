package org.vastporch.server.marking;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.math.BigDecimal;
import java.time.Clock;
import java.time.Duration;
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
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.calendar.Term;
import org.vastporch.core.comments.CommentsAsked;
import org.vastporch.core.marking.Allowance;
import org.vastporch.core.marking.Deadline;
import org.vastporch.core.marking.Marks;
import org.vastporch.core.marking.Members;
import org.vastporch.core.marking.PaperScore;
import org.vastporch.core.marking.PaperState;
import org.vastporch.core.peers.PeerMarks;
import org.vastporch.core.prompts.Peers;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.core.prompts.Reviews;
import org.vastporch.core.reviews.Apart;
import org.vastporch.core.reviews.ReviewKind;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.comments.GivenCommentService;
import org.vastporch.server.log.ClassChanges;
import org.vastporch.server.marking.MarkingStore.Mark;
import org.vastporch.server.marking.MarkingStore.Marking;
import org.vastporch.server.marking.PaperService.SeenPost;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PaperMembers;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.reviews.PaperReviews;
import org.vastporch.server.reviews.PaperReviews.Reading;
import org.vastporch.server.writing.Posts;
import org.vastporch.server.writing.Posts.Handed;

/**
 * The papers of prompts, where each stands, from narrow rows: no text is read, and the number of statements does not
 * grow with prompts or students. How many lie on the desk of a class is asked for by every open page of its staff, so
 * that is counted anew only when something has happened there or a prompt is over.
 */
@Component
public class MarkingDesk {

    /** @param missing how many students handed in nothing in time */
    public record Pile(long promptId, String title, Instant due, int toMark, int toTakeOver, int missing) {

        /** How many wait for somebody; what an assistant has marked waits for teachers alone. */
        public int waiting(boolean teaches) {
            return toMark + (teaches ? toTakeOver : 0);
        }
    }

    /**
     * @param members who hands it in together, where a group does
     * @param posts those that count, in the order in which they came
     * @param comments how many were given that count, where it needs some to be ready; 0 where it does not
     * @param read the versions that the marker read, in the order of their numbers
     * @param marks what was given, or does not count, for criteria of the rubric as it is now; without remarks
     * @param own how its student sees it; null while they have said nothing
     * @param peers how classmates do, as far as that counts
     * @param daysLate of what was read, once it is marked: a mark never moves to a text that its marker did not see
     */
    record Paper(
            Prompt prompt,
            long studentId,
            Members members,
            List<Handed> posts,
            int comments,
            @Nullable Marking marking,
            List<SeenPost> read,
            List<Mark> marks,
            @Nullable Reading own,
            List<Reading> peers,
            Allowance allowance,
            PaperState state,
            int daysLate) {

        /** Names the paper as it stands now. */
        PaperService.Seen seen() {
            return PaperService.Seen.of(
                    posts.stream()
                            .map(p -> new SeenPost(p.postId(), p.version()))
                            .toList(),
                    prompt.answers().isCommentsAlone() ? comments : 0,
                    marking);
        }

        /** Its posts as whoever reads it now has them. */
        List<PaperReviews.Read> asRead() {
            return seen().posts().stream()
                    .map(p -> new PaperReviews.Read(p.post(), p.version()))
                    .toList();
        }

        /** The same for who must not know what was given to it. */
        Paper asIfUnmarked() {
            boolean isMarked =
                    state == PaperState.BEING_MARKED || state == PaperState.MARKED || state == PaperState.RELEASED;
            return new Paper(
                    prompt,
                    studentId,
                    members,
                    posts,
                    comments,
                    null,
                    List.of(),
                    List.of(),
                    own,
                    peers,
                    allowance,
                    isMarked ? PaperState.HANDED_IN : state,
                    daysLate);
        }

        /** Whether nothing came that could be marked. */
        boolean isEmpty() {
            return posts.isEmpty() && seen().comments() == 0;
        }

        /** Whether all of it is given by an assistant, and a teacher has still to take it over. */
        boolean isToTakeOver() {
            return state == PaperState.BEING_MARKED
                    && marks.size() >= prompt.rubric().criteria().size();
        }

        /** The students to whom is given what is given to this paper, in the order of their numbers. */
        List<Long> markedWith() {
            return members.markedWith(studentId);
        }

        /** The score as people read it. */
        @Nullable
        BigDecimal shown() {
            PaperScore score = score();
            return score == null ? null : score.score().rounded(prompt.places());
        }

        /** Whether the marks were shown, and were not taken back. */
        boolean isReleased() {
            return marking != null && marking.releasedAt() != null;
        }

        /** Whether its student sees the marks. */
        boolean isShown() {
            return isReleased() && !allowance.letOff() && !marking.awaitsOwn();
        }

        /** Whether it is another text, or one more, than its marker read. */
        boolean isChangedSinceMarked() {
            return marking != null && (!read.equals(seen().posts()) || marking.commentsRead() != seen().comments());
        }

        /** Null without a rubric, or while nothing is given. */
        @Nullable
        PaperScore score() {
            return prompt.rubric() == null || marks.isEmpty() ? null : scoreOf(prompt, marks, shares(), daysLate);
        }

        /** The same with other points for one criterion of the rubric; of a paper that is as its marker read it. */
        PaperScore scoreIf(String criterion, BigDecimal points) {
            List<Mark> others = new ArrayList<>(
                    marks.stream().filter(m -> !m.criterion().equals(criterion)).toList());
            others.add(new Mark(prompt.id(), studentId, criterion, points, false, ""));
            return scoreOf(prompt, others, shares(), daysLate);
        }

        /** Whether the marks are shown once the student has said how they see it. */
        boolean awaitsOwn() {
            return isReleased() && !allowance.letOff() && marking.awaitsOwn();
        }

        /** How far the own view, once it is finished, lies from what was given. */
        List<Apart> ownApart() {
            if (prompt.rubric() == null || own == null || !own.review().isFinished()) return List.of();
            return Apart.of(
                    prompt.rubric(),
                    own.marks(),
                    Marks.of(marks.stream().map(Mark::given).toList()));
        }

        /** What readings besides the marker's are of the score. */
        private List<PaperScore.Share> shares() {
            List<PaperScore.Share> shares = new ArrayList<>();
            int self = prompt.reviews().selfShare();
            if (self > 0 && own != null && own.review().isFinished())
                shares.add(new PaperScore.Share(self, own.marks().points()));
            Peers asked = prompt.reviews().peers();
            if (asked != null && asked.share() > 0 && !peers.isEmpty())
                shares.add(new PaperScore.Share(asked.share(), peerMedian()));
            return shares;
        }

        /** What classmates gave together, by criterion. */
        Map<String, BigDecimal> peerMedian() {
            return PeerMarks.median(peers.stream().map(Reading::marks).toList());
        }
    }

    /**
     * A paper, and those that stand as it does: of everybody who handed it in together and is not marked apart.
     *
     * @param papers the paper among them
     */
    record Alike(Paper paper, List<Paper> papers) {

        /** Those to whom is given what is given to the paper. */
        List<Long> students() {
            return papers.stream().map(Paper::studentId).toList();
        }
    }

    private record Counted(long change, Instant until, List<Pile> piles) {}

    private record Key(long promptId, long studentId) {}

    private static final int MOST_CLASSES = 5_000;

    private final Cache<Long, Counted> counted =
            Caffeine.newBuilder().maximumSize(MOST_CLASSES).build();
    private final MarkingStore store;
    private final PaperReviews reviews;
    private final PromptService prompts;
    private final Posts posts;
    private final PeopleService people;
    private final ClassService classes;
    private final GivenCommentService comments;
    private final PaperMembers members;
    private final ClassChanges changes;
    private final Duration kept;
    private final Clock clock;

    MarkingDesk(
            MarkingStore store,
            PaperReviews reviews,
            PromptService prompts,
            Posts posts,
            PeopleService people,
            ClassService classes,
            GivenCommentService comments,
            PaperMembers members,
            ClassChanges changes,
            @Value("${vastporch.counts.kept:PT1M}") Duration kept,
            Clock clock) {
        this.store = store;
        this.reviews = reviews;
        this.prompts = prompts;
        this.posts = posts;
        this.people = people;
        this.classes = classes;
        this.comments = comments;
        this.members = members;
        this.changes = changes;
        this.kept = kept;
        this.clock = clock;
    }

    /** What lies on the desk of a class, the prompt that was due last first; for those who mark there. */
    public List<Pile> of(long classId) {
        long change = changes.of(classId);
        Instant now = clock.instant();
        Counted known = counted.getIfPresent(classId);
        if (known == null || known.change() != change || !now.isBefore(known.until())) {
            known = count(classId, change, now);
            counted.put(classId, known);
        }
        return known.piles();
    }

    private Counted count(long classId, long change, Instant now) {
        List<Prompt> all = prompts.all(classId);
        List<Prompt> due = all.stream()
                .filter(p -> p.rubric() != null && !now.isBefore(p.due()))
                .toList();
        Map<Long, List<Paper>> papers = papers(classId, due, people.students(classId), false);
        List<Pile> piles = new ArrayList<>();
        Set<Instant> ends = new HashSet<>();
        for (Prompt prompt : all) {
            ends.add(prompt.due());
            ends.add(prompt.deadline(Allowance.NONE).end().plusMillis(1));
        }
        for (Prompt prompt : due) {
            List<Paper> of = once(papers.get(prompt.id()));
            for (Paper paper : of)
                ends.add(prompt.deadline(paper.allowance()).end().plusMillis(1));
            int toTakeOver = (int) of.stream().filter(Paper::isToTakeOver).count();
            int toMark = (int) of.stream().filter(p -> p.state().isToMark()).count() - toTakeOver;
            int missing = (int)
                    of.stream().filter(p -> p.state() == PaperState.MISSING).count();
            if (toMark + toTakeOver > 0)
                piles.add(new Pile(prompt.id(), prompt.title(), prompt.due(), toMark, toTakeOver, missing));
        }
        Instant until = now.plus(kept);
        for (Instant end : ends) if (end.isAfter(now) && end.isBefore(until)) until = end;
        return new Counted(change, until, List.copyOf(piles));
    }

    /** What several have together is there once, for the first of them who is not let off. */
    static List<Paper> once(List<Paper> papers) {
        List<Paper> once = new ArrayList<>();
        Set<Long> there = new HashSet<>();
        for (Paper paper : papers) {
            boolean letOff = paper.allowance().letOff();
            if (!letOff && there.contains(paper.studentId())) continue;
            if (!letOff) there.addAll(paper.markedWith());
            once.add(paper);
        }
        return once;
    }

    /** The paper with its rows locked, so that nobody hands in or marks until the transaction ends. */
    Alike lock(Prompt prompt, long studentId) {
        Members together = members.of(prompt);
        posts.lockHandedIn(prompt.id(), together.authors(studentId));
        store.lock(prompt.id(), together.markedWith(studentId));
        List<Paper> papers = papers(prompt.classId(), List.of(prompt), together.markedWith(studentId))
                .get(prompt.id());
        Paper paper = papers.stream()
                .filter(p -> p.studentId() == studentId)
                .findFirst()
                .orElseThrow();
        return new Alike(
                paper,
                papers.stream()
                        .filter(p -> p == paper || !p.allowance().letOff())
                        .toList());
    }

    /** The papers of the students of a class for some of its prompts, by prompt, in the order of the students. */
    Map<Long, List<Paper>> papers(long classId, List<Prompt> of) {
        return papers(classId, of, people.students(classId));
    }

    /** The same for somebody who marks: what they read blind, and have not finished, is as if nothing was given. */
    Map<Long, List<Paper>> papers(Viewer viewer, long classId, List<Prompt> of) {
        Set<PaperReviews.Paper> blind = reviews.blindOf(viewer.personId());
        Map<Long, List<Paper>> papers = papers(classId, of);
        if (blind.isEmpty()) return papers;
        Map<Long, List<Paper>> seen = new HashMap<>();
        papers.forEach((prompt, lines) -> seen.put(
                prompt,
                lines.stream()
                        .map(p -> blind.contains(new PaperReviews.Paper(prompt, p.studentId())) ? p.asIfUnmarked() : p)
                        .toList()));
        return seen;
    }

    /** The papers of some students for some prompts of their class, by prompt, in the order of the students. */
    Map<Long, List<Paper>> papers(long classId, List<Prompt> of, List<Long> students) {
        return papers(classId, of, students, true);
    }

    /** @param whole whether lateness and what was read are told; without, only where each stands */
    private Map<Long, List<Paper>> papers(long classId, List<Prompt> of, List<Long> students, boolean whole) {
        if (of.isEmpty()) return Map.of();
        List<Long> ids = of.stream().map(Prompt::id).toList();
        Map<Key, List<Handed>> handed =
                by(whole ? posts.handed(ids) : posts.handedFirst(ids), p -> new Key(p.promptId(), p.authorId()));
        Map<Key, List<Marking>> markings = by(store.ofPrompts(ids), m -> new Key(m.promptId(), m.studentId()));
        Map<Key, List<MarkingStore.Read>> read =
                by(whole ? store.read(ids) : List.of(), r -> new Key(r.promptId(), r.studentId()));
        Map<Key, List<Mark>> given = by(store.given(ids), m -> new Key(m.promptId(), m.studentId()));
        List<Prompt> asking = of.stream()
                .filter(p -> p.reviews().self() != Reviews.Self.NOT_ASKED)
                .toList();
        Map<PaperReviews.Paper, List<Reading>> own = asking.isEmpty() ? Map.of() : reviews.of(asking, ReviewKind.SELF);
        List<Prompt> amongPeers =
                of.stream().filter(p -> p.reviews().peers() != null).toList();
        Map<PaperReviews.Paper, List<Reading>> peers =
                amongPeers.isEmpty() ? Map.of() : reviews.of(amongPeers, ReviewKind.PEER);
        Map<Long, Map<Long, Allowance>> allowances = prompts.allowances(ids);
        Map<Long, Map<Long, List<CommentsAsked.Given>>> comments = this.comments.given(
                of.stream().filter(p -> p.answers().needsComments()).toList());
        Map<Long, Members> members = this.members.of(classId, of);
        ClassService.ClassRecord inClass = classes.get(classId);
        Map<Long, List<Paper>> papers = new HashMap<>();
        for (Prompt prompt : of) {
            Members together = members.getOrDefault(prompt.id(), Members.ALONE);
            List<Paper> lines = new ArrayList<>();
            for (long student : students) {
                Key key = new Key(prompt.id(), student);
                lines.add(paper(
                        inClass.term(),
                        inClass.rules().takeOver(),
                        prompt,
                        student,
                        together,
                        together.authors(student).stream()
                                .flatMap(
                                        author -> handed.getOrDefault(new Key(prompt.id(), author), List.of()).stream())
                                .sorted(Comparator.comparing(Handed::at).thenComparing(Handed::postId))
                                .toList(),
                        comments.getOrDefault(prompt.id(), Map.of()).getOrDefault(student, List.of()),
                        markings.getOrDefault(key, List.of()).stream()
                                .findFirst()
                                .orElse(null),
                        read.getOrDefault(key, List.of()),
                        given.getOrDefault(key, List.of()),
                        own.getOrDefault(new PaperReviews.Paper(prompt.id(), student), List.of()).stream()
                                .findFirst()
                                .orElse(null),
                        together.authors(student).stream()
                                .flatMap(author ->
                                        peers
                                                .getOrDefault(new PaperReviews.Paper(prompt.id(), author), List.of())
                                                .stream())
                                .toList(),
                        allowances.getOrDefault(prompt.id(), Map.of()).getOrDefault(student, Allowance.NONE)));
            }
            papers.put(prompt.id(), lines);
        }
        return papers;
    }

    private Paper paper(
            Term term,
            boolean takeOver,
            Prompt prompt,
            long student,
            Members members,
            List<Handed> handed,
            List<CommentsAsked.Given> given,
            @Nullable Marking marking,
            List<MarkingStore.Read> read,
            List<Mark> points,
            @Nullable Reading own,
            List<Reading> peers,
            Allowance allowance) {
        Deadline deadline = prompt.deadline(allowance);
        List<Handed> counted = PaperState.counted(
                handed.stream()
                        .map(p -> p.by(allowance.againUntil(deadline.end())))
                        .toList(),
                prompt.answers().posts());
        CommentsAsked asked = prompt.commentsAsked(allowance);
        int comments = asked.counted(given);
        List<Mark> marks = prompt.rubric() == null
                ? List.of()
                : points.stream()
                        .filter(m -> prompt.rubric().find(m.criterion()).isPresent())
                        .toList();
        PaperState.Facts facts = new PaperState.Facts(
                counted.stream().map(Handed::state).toList(),
                prompt.answers().posts(),
                prompt.answers().needsComments()
                        ? new PaperState.Comments(comments, asked.number())
                        : PaperState.Comments.NONE,
                marks.size(),
                prompt.rubric() == null ? 0 : prompt.rubric().criteria().size(),
                takeOver && marking != null && marking.isOfAssistant(),
                marking != null && marking.releasedAt() != null,
                allowance.letOff());
        return new Paper(
                prompt,
                student,
                members,
                counted,
                comments,
                marking,
                read.stream()
                        .map(MarkingStore.Read::post)
                        .sorted(Comparator.comparing(SeenPost::post))
                        .toList(),
                marks,
                own,
                peers,
                allowance,
                PaperState.of(facts, deadline.isOver(clock.instant())),
                deadline.daysLate(
                        term,
                        read.isEmpty()
                                ? counted.stream().map(Handed::at).toList()
                                : read.stream().map(r -> readAt(r, counted)).toList()));
    }

    /**
     * When what was read counts as handed in; a post that is gone since, or stands in another version, by its first
     * time.
     */
    private static Instant readAt(MarkingStore.Read read, List<Handed> counted) {
        return counted.stream()
                .filter(p -> p.postId() == read.post().post()
                        && p.version() == read.post().version())
                .map(Handed::at)
                .findFirst()
                .orElse(read.handedInAt());
    }

    /** What marks come to, with so many days of lateness; of a prompt with a rubric. */
    static PaperScore scoreOf(Prompt prompt, List<Mark> marks, List<PaperScore.Share> shares, int daysLate) {
        Map<String, BigDecimal> points = new HashMap<>();
        Set<String> notCounted = new HashSet<>();
        for (Mark mark : marks) {
            if (mark.points() != null) points.put(mark.criterion(), mark.points());
            if (mark.notCounted()) notCounted.add(mark.criterion());
        }
        return PaperScore.of(prompt.rubric(), prompt.points(), prompt.late(), points, notCounted, shares, daysLate);
    }

    private static <T> Map<Key, List<T>> by(List<T> rows, Function<T, Key> key) {
        return rows.stream().collect(Collectors.groupingBy(key));
    }
}

package org.vastporch.server.marking;

import java.math.BigDecimal;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.calendar.Term;
import org.vastporch.core.feeds.Excerpt;
import org.vastporch.core.marking.PaperState;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.core.rubrics.RubricScore;
import org.vastporch.core.text.TextFacts;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.comments.CommentService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.ClassChanges;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.marking.MarkingStore.Mark;
import org.vastporch.server.marking.MarkingStore.Marking;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.prompts.PromptService.PromptRecord;
import org.vastporch.server.writing.Posts;
import org.vastporch.server.writing.Posts.HandedIn;

/** Marking posts against a rubric. All sums come from the core. */
@Service
public class MarkingService {

    /**
     * @param toMark whether it lies on the desk
     * @param seen names the paper as it stands; left out where nothing was handed in
     */
    public record StripView(
            long studentId,
            String name,
            String initials,
            PaperState standing,
            boolean toMark,
            boolean late,
            @Optionally Seen seen) {}

    /**
     * A paper as its marker had it before them; every call that marks names it, and is refused if it stands otherwise
     * by then.
     *
     * @param post the post that was read
     * @param version the version of it
     * @param rev the state of the marking; 0 while there is none
     */
    public record Seen(long post, int version, int rev) {}

    public record SeenPaper(long student, Seen seen) {}

    /** @param changed whose papers were not released, since they stand otherwise than they were seen */
    public record Released(int released, List<String> changed) {}

    public record Strip(
            long promptId,
            String title,
            Instant due,
            int marked,
            int handedIn,
            int toRelease,
            boolean hasRubric,
            List<StripView> students) {}

    public record MarkView(int criterion, @Optionally BigDecimal points, String remark) {}

    /** @param points the score after lateness, rounded for show; {@code before} without lateness */
    public record Score(
            BigDecimal points,
            BigDecimal before,
            BigDecimal outOf,
            boolean provisional,
            int open,
            BigDecimal percentLost) {}

    /** What the program counted in a post. */
    public record Evidence(
            int words, int tags, int links, int pictures, int described, int comments, int commentsAsked) {}

    /**
     * @param gathered whether it came in from an outside blog
     * @param excerpt left out if its text is whole
     * @param version the version that is to be marked, and is shown
     * @param rev the state of the marking; 0 while there is none
     * @param marker who marked last
     * @param markedOn the version on which the marks were given, if that is an earlier one
     */
    public record Paper(
            long promptId,
            long studentId,
            String student,
            @Optionally String group,
            @Optionally Long postId,
            String title,
            String html,
            @Optionally Instant handedInAt,
            boolean gathered,
            @Optionally Excerpt excerpt,
            PaperState standing,
            int daysLate,
            long graceMinutes,
            @Optionally Rubric rubric,
            List<MarkView> marks,
            String word,
            @Optionally Score score,
            @Optionally Evidence evidence,
            int version,
            int rev,
            @Optionally String marker,
            @Optionally Integer markedOn) {}

    /** What a student sees of a mark once it is released. */
    public record Feedback(
            long promptId,
            String prompt,
            long postId,
            String title,
            Rubric rubric,
            List<MarkView> marks,
            String word,
            Score score,
            int daysLate,
            String marker,
            Instant releasedAt) {}

    private final MarkingStore store;
    private final MarkingDesk desk;
    private final ClassChanges changes;
    private final PromptService prompts;
    private final Posts posts;
    private final CommentService comments;
    private final ClassService classes;
    private final PeopleService people;
    private final AccessService access;
    private final EventStore events;
    private final Clock clock;

    MarkingService(
            MarkingStore store,
            MarkingDesk desk,
            ClassChanges changes,
            PromptService prompts,
            Posts posts,
            CommentService comments,
            ClassService classes,
            PeopleService people,
            AccessService access,
            EventStore events,
            Clock clock) {
        this.store = store;
        this.desk = desk;
        this.changes = changes;
        this.prompts = prompts;
        this.posts = posts;
        this.comments = comments;
        this.classes = classes;
        this.people = people;
        this.access = access;
        this.events = events;
        this.clock = clock;
    }

    /** All students of the class with where each stands. */
    public Strip strip(Viewer viewer, long promptId) {
        PromptRecord prompt = requireMarking(viewer, promptId);
        Names names = people.names(viewer, prompt.classId());
        Term term = classes.get(prompt.classId()).term();
        List<MarkingDesk.Paper> papers =
                desk.papers(prompt.classId(), List.of(prompt)).get(promptId);
        List<StripView> students = papers.stream()
                .map(p -> new StripView(
                        p.studentId(),
                        names.of(p.studentId()),
                        initials(names.of(p.studentId())),
                        p.state(),
                        p.state().isToMark(),
                        p.post() != null && term.daysLate(p.post().at(), prompt.due(), prompt.grace()) > 0,
                        p.post() == null
                                ? null
                                : seen(p.post().postId(), p.post().version(), p.marking())))
                .toList();
        return new Strip(
                promptId,
                prompt.title(),
                prompt.due(),
                (int) papers.stream().filter(p -> p.state().isMarked()).count(),
                (int) papers.stream().filter(p -> p.post() != null).count(),
                (int) papers.stream()
                        .filter(p -> p.state() == PaperState.MARKED)
                        .count(),
                prompt.rubric() != null,
                students);
    }

    public Paper paper(Viewer viewer, long promptId, long studentId) {
        PromptRecord prompt = requireMarking(viewer, promptId);
        requireStudent(prompt, studentId);
        Names names = people.names(viewer, prompt.classId());
        Optional<HandedIn> post = posts.handedIn(promptId, studentId);
        Optional<Marking> marking = store.find(promptId, studentId);
        Map<Integer, Mark> marks = store.marks(promptId, studentId);
        PaperState standing = PaperState.of(
                facts(prompt, post.orElse(null), marking.orElse(null), marks),
                !Term.isOnTime(clock.instant(), prompt.due(), prompt.grace()));
        if (post.isEmpty())
            return new Paper(
                    promptId,
                    studentId,
                    names.of(studentId),
                    names.groupOf(studentId),
                    null,
                    "",
                    "",
                    null,
                    false,
                    null,
                    standing,
                    0,
                    prompt.grace().toMinutes(),
                    prompt.rubric(),
                    List.of(),
                    "",
                    null,
                    null,
                    0,
                    0,
                    null,
                    null);
        HandedIn p = post.get();
        int late = daysLate(prompt, p);
        return new Paper(
                promptId,
                studentId,
                names.of(studentId),
                names.groupOf(studentId),
                p.postId(),
                p.title(),
                p.html(),
                p.at(),
                p.gathered(),
                p.excerpt(),
                standing,
                late,
                prompt.grace().toMinutes(),
                prompt.rubric(),
                views(marks),
                marking.map(Marking::word).orElse(""),
                score(prompt, marks, late),
                evidence(prompt, p),
                p.version(),
                marking.map(Marking::rev).orElse(0),
                marking.map(m -> names.of(m.markerId())).orElse(null),
                marking.filter(m -> m.postId() != p.postId() || m.version() != p.version())
                        .map(Marking::version)
                        .orElse(null));
    }

    /**
     * Gives points for one criterion, or takes them away.
     *
     * @param seen the paper as the marker had it before them
     * @param points null to take the points away
     */
    @Transactional
    public Paper mark(
            Viewer viewer,
            long promptId,
            long studentId,
            Seen seen,
            int criterion,
            @Nullable BigDecimal points,
            String remark) {
        PromptRecord prompt = requireMarking(viewer, promptId);
        Rubric rubric = prompt.rubric();
        if (rubric == null || criterion < 0 || criterion >= rubric.criteria().size()) throw Problem.missing();
        Rubric.Criterion of = rubric.criteria().get(criterion);
        if (points != null && !of.allows(points))
            throw Problem.invalid(
                    "points",
                    "points-outside",
                    "\"" + of.name() + "\" goes from " + of.lowest() + " to " + of.highest() + ".");
        if (remark.length() > 4000)
            throw Problem.invalid(
                    "remark", "remark-too-long", "A comment on a criterion has at most 4,000 characters.");
        begin(viewer, prompt, studentId, seen);
        store.setMark(promptId, studentId, new Mark(criterion, points, remark.strip()));
        return paper(viewer, promptId, studentId);
    }

    @Transactional
    public Paper word(Viewer viewer, long promptId, long studentId, Seen seen, String word) {
        PromptRecord prompt = requireMarking(viewer, promptId);
        if (word.length() > 10_000)
            throw Problem.invalid("word", "word-too-long", "This comment has more than 10,000 characters.");
        begin(viewer, prompt, studentId, seen);
        store.setWord(promptId, studentId, word.strip());
        return paper(viewer, promptId, studentId);
    }

    /** Shows finished marks to their students: those that stand as they were seen. */
    @Transactional
    public Released release(Viewer viewer, long promptId, List<SeenPaper> papers) {
        PromptRecord prompt = requireMarking(viewer, promptId);
        access.require(viewer, Act.MANAGE_CLASS, prompt.classId());
        Names names = people.names(viewer, prompt.classId());
        int released = 0;
        List<String> changed = new ArrayList<>();
        for (SeenPaper paper :
                papers.stream().sorted(Comparator.comparing(SeenPaper::student)).toList()) {
            requireStudent(prompt, paper.student());
            Optional<HandedIn> post = posts.lockHandedIn(promptId, paper.student());
            Optional<Marking> marking = store.lock(promptId, paper.student());
            if (marking.isEmpty()
                    || !facts(prompt, post.orElse(null), marking.get(), store.marks(promptId, paper.student()))
                            .isFinished()
                    || !paper.seen().equals(seen(post.orElse(null), marking.get()))) {
                changed.add(names.of(paper.student()));
            } else if (marking.get().releasedAt() == null) {
                store.release(promptId, paper.student(), clock.instant());
                events.add(prompt.classId(), "score-released", paper.student(), viewer.personId());
                released++;
            }
        }
        return new Released(released, changed);
    }

    /** The viewer's own released marks in a class, the newest first. */
    public List<Feedback> feedback(Viewer viewer, long classId) {
        access.require(viewer, Act.READ_CLASS, classId);
        Names names = people.names(viewer, classId);
        List<Feedback> found = new ArrayList<>();
        for (PromptRecord prompt : prompts.all(classId)) {
            Optional<Marking> marking =
                    store.find(prompt.id(), viewer.personId()).filter(m -> m.releasedAt() != null);
            if (marking.isEmpty() || prompt.rubric() == null) continue;
            Marking m = marking.get();
            HandedIn post = posts.marked(m.postId(), m.version()).orElseThrow();
            Map<Integer, Mark> marks = store.marks(prompt.id(), viewer.personId());
            int late = daysLate(prompt, post);
            found.add(new Feedback(
                    prompt.id(),
                    prompt.title(),
                    m.postId(),
                    post.title(),
                    prompt.rubric(),
                    views(marks),
                    m.word(),
                    score(prompt, marks, late),
                    late,
                    names.of(m.markerId()),
                    m.releasedAt()));
        }
        return found;
    }

    /**
     * Makes sure that a paper stands as its marker had it before them, with its rows locked, and begins its marking or
     * goes on with it.
     */
    private void begin(Viewer viewer, PromptRecord prompt, long studentId, Seen seen) {
        requireStudent(prompt, studentId);
        HandedIn post = posts.lockHandedIn(prompt.id(), studentId)
                .orElseThrow(() -> Problem.stale(
                        "nothing-handed-in", "Nothing was handed in here yet, so there is nothing to mark."));
        Optional<Marking> marking = store.lock(prompt.id(), studentId);
        if (!seen.equals(seen(post, marking.orElse(null))))
            throw outdated(viewer, prompt, studentId, seen, post, marking);
        changes.note(prompt.classId());
        if (marking.isPresent())
            store.touch(prompt.id(), studentId, post.postId(), post.version(), viewer.personId(), clock.instant());
        else store.begin(prompt.id(), studentId, post.postId(), post.version(), viewer.personId(), clock.instant());
    }

    /**
     * Two markers, or a marker and a student who hands in again, do not write over each other: the refusal carries what
     * stands there now.
     */
    private Problem outdated(
            Viewer viewer, PromptRecord prompt, long studentId, Seen seen, HandedIn post, Optional<Marking> marking) {
        Names names = people.names(viewer, prompt.classId());
        String sentence = seen.post() != post.postId() || seen.version() != post.version()
                ? names.of(studentId)
                        + " has handed in again since you opened this. What you gave was for the "
                        + "earlier text, and was not kept."
                : marking.map(m -> names.of(m.markerId())).orElse("Somebody")
                        + " has marked here since you opened this. Nothing was written over.";
        return Problem.stale("marked-meanwhile", sentence).with("paper", paper(viewer, prompt.id(), studentId));
    }

    private static @Nullable Seen seen(@Nullable HandedIn post, @Nullable Marking marking) {
        return post == null ? null : seen(post.postId(), post.version(), marking);
    }

    private static Seen seen(long post, int version, @Nullable Marking marking) {
        return new Seen(post, version, marking == null ? 0 : marking.rev());
    }

    private PromptRecord requireMarking(Viewer viewer, long promptId) {
        PromptRecord prompt = prompts.get(promptId);
        access.require(viewer, Act.MARK, prompt.classId());
        return prompt;
    }

    private void requireStudent(PromptRecord prompt, long studentId) {
        if (!people.students(prompt.classId()).contains(studentId)) throw Problem.missing();
    }

    private static PaperState.Facts facts(
            PromptRecord prompt, @Nullable HandedIn post, @Nullable Marking marking, Map<Integer, Mark> marks) {
        return new PaperState.Facts(
                post == null ? null : post.state(),
                (int) marks.values().stream().filter(m -> m.points() != null).count(),
                prompt.rubric() == null ? 0 : prompt.rubric().criteria().size(),
                marking != null && marking.releasedAt() != null);
    }

    private @Nullable Score score(PromptRecord prompt, Map<Integer, Mark> marks, int daysLate) {
        if (prompt.rubric() == null) return null;
        Map<Integer, BigDecimal> given = new HashMap<>();
        marks.forEach((criterion, mark) -> {
            if (mark.points() != null) given.put(criterion, mark.points());
        });
        RubricScore full = RubricScore.of(prompt.rubric(), prompt.points(), given, Set.of());
        RubricScore late = prompt.late().apply(full, daysLate);
        BigDecimal lost = daysLate > 0
                ? prompt.late().shareLost(daysLate).movePointRight(2).stripTrailingZeros()
                : BigDecimal.ZERO;
        return new Score(
                late.rounded(prompt.places()),
                full.rounded(prompt.places()),
                prompt.points(),
                full.provisional(),
                full.open(),
                new BigDecimal(lost.toPlainString()));
    }

    private Evidence evidence(PromptRecord prompt, HandedIn post) {
        TextFacts facts = post.facts();
        return new Evidence(
                // Of a beginning nobody knows how long the whole is.
                post.excerpt() == Excerpt.BEGINNING ? 0 : facts.words(),
                post.tags().size(),
                facts.links(),
                facts.pictures(),
                facts.described(),
                comments.given(post.authorId(), prompt),
                prompt.asked().comments());
    }

    private int daysLate(PromptRecord prompt, HandedIn post) {
        return classes.get(prompt.classId()).term().daysLate(post.at(), prompt.due(), prompt.grace());
    }

    private static List<MarkView> views(Map<Integer, Mark> marks) {
        return marks.values().stream()
                .map(m -> new MarkView(m.criterion(), m.points(), m.remark()))
                .toList();
    }

    private static String initials(String name) {
        StringBuilder initials = new StringBuilder();
        for (String part : name.split("[ ]"))
            if (!part.isEmpty() && initials.length() < 3) initials.appendCodePoint(part.codePointAt(0));
        return initials.toString();
    }
}

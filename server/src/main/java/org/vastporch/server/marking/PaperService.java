package org.vastporch.server.marking;

import java.math.BigDecimal;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.calendar.Term;
import org.vastporch.core.comments.CommentsAsked;
import org.vastporch.core.feeds.Excerpt;
import org.vastporch.core.marking.BlindOrder;
import org.vastporch.core.marking.Deadline;
import org.vastporch.core.marking.Marks;
import org.vastporch.core.marking.PaperScore;
import org.vastporch.core.marking.PaperState;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.core.reviews.Apart;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.comments.GivenCommentService;
import org.vastporch.server.comments.GivenCommentService.GivenComment;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.marking.MarkingStore.Mark;
import org.vastporch.server.marking.MarkingStore.Marking;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.writing.Posts;
import org.vastporch.server.writing.Posts.Handed;
import org.vastporch.server.writing.Posts.HandedIn;

/** Papers as those who mark see them: where each stands, its posts, what is given. All sums come from the core. */
@Service
public class PaperService {

    /** A post in the version that a marker had before them. */
    public record SeenPost(long post, int version) {}

    /**
     * A paper as its marker had it before them; every call that marks names it, and is refused if it stands otherwise
     * by then.
     *
     * @param posts those that count, in the order of their numbers
     * @param comments how many were given, where they are the whole task; 0 otherwise
     * @param rev the state of the marking; 0 while there is none
     */
    public record Seen(List<SeenPost> posts, int comments, int rev) {

        static Seen of(List<SeenPost> posts, int comments, @Nullable Marking marking) {
            return new Seen(
                    posts.stream().sorted(Comparator.comparing(SeenPost::post)).toList(),
                    comments,
                    marking == null ? 0 : marking.rev());
        }
    }

    /**
     * @param toMark whether it lies on the desk
     * @param ownDate whether it has a date of its own
     * @param changed whether it changed since it was marked
     * @param toTakeOver whether an assistant has given all of it and a teacher has still to take it over
     * @param given the criteria that have points, or do not count
     */
    public record StripView(
            long studentId,
            String name,
            String initials,
            PaperState standing,
            boolean toMark,
            boolean late,
            boolean ownDate,
            boolean changed,
            boolean toTakeOver,
            List<String> given,
            Seen seen) {}

    /** @param apart how many second readings lie too far from the first marks */
    public record Strip(
            long promptId,
            String title,
            Instant due,
            int marked,
            int handedIn,
            int toRelease,
            int toTakeOver,
            int apart,
            boolean hasRubric,
            List<StripView> students) {}

    /** @param level the highest level that the points reach */
    public record EarlierMark(String prompt, BigDecimal points, BigDecimal highest, String level, String remark) {}

    public record MarkView(String criterion, @Optionally BigDecimal points, boolean notCounted, String remark) {}

    /** @param points the score after lateness, rounded for show; {@code before} without lateness */
    public record Score(
            BigDecimal points,
            BigDecimal before,
            BigDecimal outOf,
            boolean provisional,
            int open,
            BigDecimal percentLost) {}

    /**
     * What the score would be with another level for one criterion, so that it can be shown with the press of a key.
     */
    public record ScoreIf(String criterion, BigDecimal points, Score score) {}

    /**
     * A post of a paper, in the version that is to be marked.
     *
     * @param by who wrote it, where several hand in together
     * @param word what its author said with it; left out if nothing was said
     * @param gathered whether it came in from an outside blog
     * @param excerpt left out if its text is whole
     * @param markedOn the version on which the marks were given, if that is an earlier one
     * @param newer what its author handed in again unasked, after the time; it counts only if it is taken
     * @param taken the version that was taken so
     * @param notes what markers wrote beside its words
     */
    public record PaperPost(
            long postId,
            int version,
            @Optionally String by,
            String title,
            String html,
            Instant handedInAt,
            int daysLate,
            boolean gathered,
            @Optionally Excerpt excerpt,
            @Optionally Integer markedOn,
            @Optionally Newer newer,
            @Optionally Integer taken,
            @Optionally String word,
            List<PaperNoteService.PaperNote> notes) {}

    public record Hand(long studentId, String name) {}

    /**
     * Who hands in a paper together.
     *
     * @param name of their group; left out for who hands in alone
     * @param members of the paper
     * @param alike those of them who have the same marks
     */
    public record Together(@Optionally String name, List<Hand> members, List<Long> alike) {}

    /**
     * A comment that the student gave to somebody for the prompt.
     *
     * @param counts whether it came in time and is long enough
     */
    public record PaperComment(long postId, String post, Instant at, String html, boolean counts) {}

    /** A version that was handed in again, unasked and after the time. */
    public record Newer(int version, String title, String html) {}

    /**
     * What stands given for a paper. Each step of a marker is answered with it, never with the text again.
     *
     * @param changed whether the paper changed since it was marked
     * @param marker who marked last
     * @param assistant whose marks these are, if a teacher has taken them over, or has still to
     * @param takenOverBy the teacher who did, and when
     * @param toTakeOver whether they do not count before that
     * @param scores what the score would be, by criterion and level; empty where a step would be for another text
     */
    public record Standing(
            PaperState standing,
            List<MarkView> marks,
            String word,
            @Optionally Score score,
            List<ScoreIf> scores,
            Seen seen,
            boolean changed,
            @Optionally String marker,
            @Optionally String assistant,
            @Optionally String takenOverBy,
            @Optionally Instant takenOverAt,
            boolean toTakeOver,
            @Optionally Instant releasedAt,
            List<Apart> apart) {}

    /** What so many classmates gave together, the median by criterion. */
    public record PeerMedian(int reviews, List<MarkView> marks) {

        static @Nullable PeerMedian of(MarkingDesk.Paper paper) {
            if (paper.peers().isEmpty()) return null;
            return new PeerMedian(paper.peers().size(), OwnViewService.views(Marks.ofPoints(paper.peerMedian())));
        }
    }

    /**
     * @param ownDue a date of the student's own
     * @param together who hands it in together; left out where each hands in alone
     * @param comments those that the student gave to others for the prompt
     * @param askedPosts how many posts the prompt asks for
     * @param recordings what was spoken or filmed as feedback
     * @param own how its student sees it, once they have said so
     * @param peers what classmates gave together, as far as that counts; left out while nothing does
     * @param seconds what others gave who read it a second time
     */
    public record Paper(
            long promptId,
            long studentId,
            String student,
            @Optionally String group,
            @Optionally Together together,
            List<PaperPost> posts,
            List<PaperComment> comments,
            int askedPosts,
            int daysLate,
            long graceMinutes,
            @Optionally Instant ownDue,
            @Optionally Rubric rubric,
            @Optionally PaperEvidence evidence,
            List<RecordingService.Recording> recordings,
            @Optionally OwnViewService.Own own,
            @Optionally PeerMedian peers,
            List<SecondReadingService.SecondLine> seconds,
            Standing given) {}

    private final MarkingStore store;
    private final PaperNoteStore notes;
    private final RecordingStore recordings;
    private final MarkingDesk desk;
    private final SecondReadings seconds;
    private final PromptService prompts;
    private final Posts posts;
    private final GivenCommentService comments;
    private final ClassService classes;
    private final PeopleService people;
    private final AccessService access;

    PaperService(
            MarkingStore store,
            PaperNoteStore notes,
            RecordingStore recordings,
            MarkingDesk desk,
            SecondReadings seconds,
            PromptService prompts,
            Posts posts,
            GivenCommentService comments,
            ClassService classes,
            PeopleService people,
            AccessService access) {
        this.store = store;
        this.notes = notes;
        this.recordings = recordings;
        this.desk = desk;
        this.seconds = seconds;
        this.prompts = prompts;
        this.posts = posts;
        this.comments = comments;
        this.classes = classes;
        this.people = people;
        this.access = access;
    }

    /** All students of the class with where each stands. */
    public Strip strip(Viewer viewer, long promptId) {
        return strip(viewer, promptId, false);
    }

    /** @param blind whether numbers stand in place of the names, in an order that is not theirs */
    public Strip strip(Viewer viewer, long promptId, boolean blind) {
        Prompt prompt = requireMarking(viewer, promptId);
        Names names = people.names(viewer, prompt.classId());
        List<MarkingDesk.Paper> papers =
                MarkingDesk.once(desk.papers(prompt.classId(), List.of(prompt)).get(promptId));
        Map<Long, String> groups = groups(prompt);
        boolean teaches = access.allows(viewer, Act.MANAGE_CLASS, prompt.classId());
        if (prompt.answers().byGroups())
            papers = papers.stream()
                    .sorted(Comparator.comparing(p -> named(p, names, groups)))
                    .toList();
        List<MarkingDesk.Paper> inOrder = blind ? BlindOrder.of(papers, promptId) : papers;
        List<StripView> students = inOrder.stream()
                .map(p -> new StripView(
                        p.studentId(),
                        blind ? "Paper " + (inOrder.indexOf(p) + 1) : named(p, names, groups),
                        blind ? "" + (inOrder.indexOf(p) + 1) : initials(named(p, names, groups)),
                        p.state(),
                        p.state().isToMark() && (teaches || !p.isToTakeOver()),
                        p.daysLate() > 0,
                        p.allowance().due() != null,
                        p.isChangedSinceMarked(),
                        p.isToTakeOver(),
                        p.marks().stream().map(Mark::criterion).toList(),
                        p.seen()))
                .toList();
        return new Strip(
                promptId,
                prompt.title(),
                prompt.due(),
                (int) papers.stream().filter(p -> p.state().isMarked()).count(),
                (int) papers.stream().filter(p -> !p.isEmpty()).count(),
                (int) papers.stream()
                        .filter(p -> p.state() == PaperState.MARKED)
                        .count(),
                (int) papers.stream().filter(MarkingDesk.Paper::isToTakeOver).count(),
                seconds.comingBack(prompt, names),
                prompt.rubric() != null,
                students);
    }

    public Paper paper(Viewer viewer, long promptId, long studentId) {
        Prompt prompt = requireMarking(viewer, promptId);
        requireStudent(prompt, studentId);
        if (seconds.isKeptFrom(viewer, prompt, studentId))
            throw Problem.stale(
                    "read-blind", "You were asked to read this paper without seeing the first marks. Do that first.");
        Names names = people.names(viewer, prompt.classId());
        MarkingDesk.Paper paper = onDesk(prompt, studentId);
        List<HandedIn> texts = posts.texts(paper.posts());
        Map<Long, Handed> handed = paper.posts().stream().collect(Collectors.toMap(Handed::postId, p -> p));
        Map<Long, String> words = posts.handInWords(handed.keySet());
        Map<Long, List<PaperNoteService.PaperNote>> noted = notes.of(List.of(promptId), handed.keySet()).stream()
                .collect(Collectors.groupingBy(
                        PaperNoteStore.Note::postId,
                        Collectors.mapping(n -> PaperNoteService.view(viewer, n, names), Collectors.toList())));
        Deadline deadline = prompt.deadline(paper.allowance());
        Term term = classes.get(prompt.classId()).term();
        return new Paper(
                promptId,
                studentId,
                names.of(studentId),
                names.groupOf(studentId),
                together(paper, names),
                texts.stream()
                        .map(p -> new PaperPost(
                                p.postId(),
                                p.version(),
                                prompt.answers().byGroups() ? names.of(p.authorId()) : null,
                                p.title(),
                                p.html(),
                                p.at(),
                                deadline.daysLate(term, List.of(p.at())),
                                p.gathered(),
                                p.excerpt(),
                                paper.read().stream()
                                        .filter(r -> r.post() == p.postId() && r.version() != p.version())
                                        .map(SeenPost::version)
                                        .findFirst()
                                        .orElse(null),
                                newer(handed.get(p.postId())),
                                handed.get(p.postId()).taken(),
                                words.get(p.postId()),
                                noted.getOrDefault(p.postId(), List.of())))
                        .toList(),
                comments(prompt, paper),
                prompt.answers().posts(),
                paper.daysLate(),
                prompt.grace().toMinutes(),
                paper.allowance().due(),
                prompt.rubric(),
                paper.isEmpty()
                        ? null
                        : PaperEvidence.of(prompt, texts, comments.given(studentId, prompt), paper.daysLate()),
                recordings.of(List.of(promptId), studentId).stream()
                        .map(r -> RecordingService.view(r, names))
                        .toList(),
                OwnViewService.said(paper),
                PeerMedian.of(paper),
                seconds.ofPaper(paper, names),
                standing(paper, names));
    }

    /**
     * What the student was given before on the criteria of a prompt that have the same names, by criterion; the prompt
     * that was due last first.
     */
    public Map<String, List<EarlierMark>> earlier(Viewer viewer, long promptId, long studentId) {
        Prompt prompt = requireMarking(viewer, promptId);
        requireStudent(prompt, studentId);
        if (prompt.rubric() == null) return Map.of();
        Map<Long, Prompt> before = prompts.all(prompt.classId()).stream()
                .filter(p -> p.rubric() != null && p.due().isBefore(prompt.due()))
                .collect(Collectors.toMap(Prompt::id, p -> p));
        List<Mark> marks = store.marksOfStudent(before.keySet(), studentId).stream()
                .filter(m -> m.points() != null)
                .sorted(Comparator.comparing(
                        m -> before.get(m.promptId()).due(),
                        Comparator.<Instant>naturalOrder().reversed()))
                .toList();
        Map<String, List<EarlierMark>> earlier = new LinkedHashMap<>();
        for (Rubric.Criterion criterion : prompt.rubric().criteria()) {
            List<EarlierMark> of = new ArrayList<>();
            for (Mark mark : marks)
                before.get(mark.promptId())
                        .rubric()
                        .find(mark.criterion())
                        .filter(c -> c.name().equals(criterion.name()))
                        .ifPresent(c -> of.add(new EarlierMark(
                                before.get(mark.promptId()).title(),
                                mark.points(),
                                c.highest(),
                                c.reached(mark.points()).name(),
                                mark.remark())));
            earlier.put(criterion.id(), of);
        }
        return earlier;
    }

    /** The names of the groups of a class, for a prompt that groups answer. */
    private Map<Long, String> groups(Prompt prompt) {
        return prompt.answers().byGroups()
                ? people.groups(prompt.classId()).stream()
                        .collect(Collectors.toMap(PeopleService.Group::id, PeopleService.Group::name))
                : Map.of();
    }

    private @Nullable Together together(MarkingDesk.Paper paper, Names names) {
        Prompt prompt = paper.prompt();
        if (!prompt.answers().byGroups()) return null;
        List<Long> authors = paper.members().authors(paper.studentId());
        Long group = paper.members().group(paper.studentId());
        return new Together(
                group == null ? null : groups(prompt).get(group),
                authors.stream().map(id -> new Hand(id, names.of(id))).toList(),
                paper.markedWith());
    }

    /** A group by its name, as far as it is marked together; anybody else by theirs. */
    private static String named(MarkingDesk.Paper paper, Names names, Map<Long, String> groups) {
        List<Long> alike = paper.markedWith();
        if (alike.size() == 1) return names.of(paper.studentId());
        return groups.getOrDefault(
                paper.members().group(paper.studentId()),
                alike.stream().map(names::of).collect(Collectors.joining(", ")));
    }

    private List<PaperComment> comments(Prompt prompt, MarkingDesk.Paper paper) {
        List<GivenComment> given = comments.textsGiven(paper.studentId(), prompt);
        Map<Long, String> titles =
                posts.titles(given.stream().map(GivenComment::postId).collect(Collectors.toSet()));
        CommentsAsked asked = prompt.commentsAsked(paper.allowance());
        return given.stream()
                .map(c -> new PaperComment(
                        c.postId(),
                        titles.getOrDefault(c.postId(), ""),
                        c.given().at(),
                        c.html(),
                        asked.counts(c.given())))
                .toList();
    }

    private @Nullable Newer newer(Handed post) {
        if (post.newer() == null) return null;
        HandedIn text = posts.text(post.postId(), post.newer()).orElseThrow();
        return new Newer(text.version(), text.title(), text.html());
    }

    MarkingDesk.Paper onDesk(Prompt prompt, long studentId) {
        return desk.papers(prompt.classId(), List.of(prompt), List.of(studentId))
                .get(prompt.id())
                .get(0);
    }

    /**
     * Two markers, or a marker and a student who hands in again, do not write over each other: the refusal carries what
     * stands there now.
     */
    Problem outdated(Viewer viewer, MarkingDesk.Paper paper, Seen seen) {
        Prompt prompt = paper.prompt();
        Names names = people.names(viewer, prompt.classId());
        boolean again = !seen.posts().equals(paper.seen().posts())
                || seen.comments() != paper.seen().comments();
        String sentence = again
                ? names.of(paper.studentId())
                        + " has handed in again since you opened this. What you gave was for the "
                        + "earlier text, and was not kept."
                : (paper.marking() == null
                                ? "Somebody"
                                : names.of(paper.marking().markerId()))
                        + " has marked here since you opened this. Nothing was written over.";
        return Problem.stale("marked-meanwhile", sentence).with("paper", paper(viewer, prompt.id(), paper.studentId()));
    }

    Standing standing(MarkingDesk.Paper paper, Names names) {
        Marking marking = paper.marking();
        PaperScore score = paper.score();
        List<Mark> marks =
                marking == null ? List.of() : store.marks(paper.prompt().id(), paper.studentId());
        return new Standing(
                paper.state(),
                views(marks),
                marking == null ? "" : marking.word(),
                paper.prompt().rubric() == null || paper.isEmpty()
                        ? null
                        : view(
                                paper.prompt(),
                                score != null
                                        ? score
                                        : MarkingDesk.scoreOf(paper.prompt(), List.of(), List.of(), paper.daysLate())),
                scores(paper),
                paper.seen(),
                paper.isChangedSinceMarked(),
                marking == null ? null : names.of(marking.markerId()),
                marking == null || marking.assistantId() == null ? null : names.of(marking.assistantId()),
                marking == null || marking.takenOverBy() == null ? null : names.of(marking.takenOverBy()),
                marking == null ? null : marking.takenOverAt(),
                paper.isToTakeOver(),
                marking == null ? null : marking.releasedAt(),
                paper.ownApart());
    }

    private static List<ScoreIf> scores(MarkingDesk.Paper paper) {
        Prompt prompt = paper.prompt();
        if (prompt.rubric() == null || paper.isEmpty() || paper.isChangedSinceMarked()) return List.of();
        return prompt.rubric().criteria().stream()
                .flatMap(c -> c.levels().stream()
                        .map(level -> new ScoreIf(
                                c.id(), level.points(), view(prompt, paper.scoreIf(c.id(), level.points())))))
                .toList();
    }

    /** The prompt, for who may mark its papers. */
    Prompt requireMarking(Viewer viewer, long promptId) {
        Prompt prompt = prompts.get(promptId);
        access.require(viewer, Act.MARK, prompt.classId());
        return prompt;
    }

    void requireStudent(Prompt prompt, long studentId) {
        if (!people.students(prompt.classId()).contains(studentId)) throw Problem.missing();
    }

    static Score view(Prompt prompt, PaperScore score) {
        BigDecimal lost = score.shareLost().movePointRight(2).stripTrailingZeros();
        return new Score(
                score.score().rounded(prompt.places()),
                score.before().rounded(prompt.places()),
                prompt.points(),
                score.before().provisional(),
                score.before().open(),
                new BigDecimal(lost.toPlainString()));
    }

    static List<MarkView> views(List<Mark> marks) {
        return marks.stream()
                .map(m -> new MarkView(m.criterion(), m.points(), m.notCounted(), m.remark()))
                .toList();
    }

    private static String initials(String name) {
        StringBuilder initials = new StringBuilder();
        for (String part : name.split("[ ]"))
            if (!part.isEmpty() && initials.length() < 3) initials.appendCodePoint(part.codePointAt(0));
        return initials.toString();
    }
}

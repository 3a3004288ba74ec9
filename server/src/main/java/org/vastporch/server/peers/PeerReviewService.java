package org.vastporch.server.peers;

import java.math.BigDecimal;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.AccessEngine;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.marking.Marks;
import org.vastporch.core.moderation.Author;
import org.vastporch.core.moderation.Course;
import org.vastporch.core.moderation.Hold;
import org.vastporch.core.moderation.State;
import org.vastporch.core.moderation.TextToReview;
import org.vastporch.core.peers.PeerMarks;
import org.vastporch.core.peers.PeerReading;
import org.vastporch.core.peers.WarmUp;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.core.reviews.ReviewKind;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.core.text.TextFacts;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.ClassChanges;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.marking.HandedPapers;
import org.vastporch.server.marking.OwnViewService;
import org.vastporch.server.marking.OwnViewService.JudgedPost;
import org.vastporch.server.marking.OwnViewService.Own;
import org.vastporch.server.marking.PaperService.MarkView;
import org.vastporch.server.moderation.PileItem;
import org.vastporch.server.moderation.ReviewService;
import org.vastporch.server.peers.PeerReviewStore.Row;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.reviews.PaperReviews;
import org.vastporch.server.reviews.PaperReviews.Reading;
import org.vastporch.server.writing.Posts;

/** Reviews by classmates, for who gives them and for whose papers they are about. */
@Service
public class PeerReviewService {

    /** A question with what was answered; empty for nothing yet. */
    public record Answered(String question, String answer) {}

    /**
     * A review that the viewer gives.
     *
     * @param author left out where that is kept from who reviews
     * @param rubric as far as it is judged
     * @param posts the paper, as long as the review is open
     * @param waits whether it waits for somebody to look at its words
     * @param note what its reader was told when it came back; left out if it did not
     * @param share how much of the score all reviews of a paper are, in per cent
     * @param looked whether somebody looks at its words before its author gets them
     * @param helped what its author says it helped with; left out if they said nothing
     * @param next another review that the viewer has still to give
     * @param warmUp papers that come first; left out where there are none
     */
    public record PeerReviewPage(
            long id,
            long promptId,
            String title,
            @Optionally String author,
            Instant due,
            Rubric rubric,
            List<JudgedPost> posts,
            Own own,
            List<Answered> answers,
            PeerReading.Answer can,
            PeerReading.Stage stage,
            @Optionally String note,
            int share,
            boolean looked,
            boolean namesReviewer,
            @Optionally String helped,
            @Optionally Long next,
            @Optionally WarmUpService.WarmUpFirst warmUp) {}

    /**
     * A review that the viewer was asked for.
     *
     * @param author left out where that is kept from who reviews
     * @param warmUp papers that come first; left out where there are none
     */
    public record ReviewToGive(
            long id,
            long promptId,
            String title,
            @Optionally String author,
            Instant due,
            PeerReading.Stage stage,
            boolean open,
            boolean late,
            @Optionally WarmUpService.WarmUpFirst warmUp) {}

    /**
     * A review of a paper of the viewer's.
     *
     * @param reviewer left out where that is kept from authors
     * @param helped what the viewer says it helped with; left out if nothing was said
     */
    public record ReceivedReview(
            long id,
            @Optionally String reviewer,
            List<MarkView> marks,
            List<Answered> answers,
            String word,
            @Optionally String helped) {}

    /**
     * What classmates say of a paper.
     *
     * @param median by criterion, of all that are there
     * @param answered whether the viewer can say what helped
     */
    public record ReceivedReviews(
            long promptId,
            String title,
            Rubric rubric,
            List<MarkView> median,
            List<ReceivedReview> reviews,
            int share,
            boolean answered) {}

    private static final int LONGEST_HELPED = 1_000;

    private final PeerReviewStore store;
    private final PeerRounds rounds;
    private final WarmUpService warmUps;
    private final PaperReviews reviews;
    private final HandedPapers papers;
    private final ReviewService looking;
    private final PromptService prompts;
    private final Posts posts;
    private final PeopleService people;
    private final AccessService access;
    private final ClassChanges changes;
    private final EventStore events;
    private final Clock clock;

    PeerReviewService(
            PeerReviewStore store,
            PeerRounds rounds,
            WarmUpService warmUps,
            PaperReviews reviews,
            HandedPapers papers,
            ReviewService looking,
            PromptService prompts,
            Posts posts,
            PeopleService people,
            AccessService access,
            ClassChanges changes,
            EventStore events,
            Clock clock) {
        this.store = store;
        this.rounds = rounds;
        this.warmUps = warmUps;
        this.reviews = reviews;
        this.papers = papers;
        this.looking = looking;
        this.prompts = prompts;
        this.posts = posts;
        this.people = people;
        this.access = access;
        this.changes = changes;
        this.events = events;
        this.clock = clock;
    }

    /** What the viewer reads for others in a class, what is open and due first comes first. */
    @Transactional(readOnly = true)
    public List<ReviewToGive> toGive(Viewer viewer, long classId) {
        access.require(viewer, Act.READ_CLASS, classId);
        List<Row> rows = store.ofReader(viewer.personId(), classId);
        if (rows.isEmpty()) return List.of();
        Map<Long, Prompt> of =
                prompts.byId(rows.stream().map(Row::promptId).distinct().toList());
        Map<Long, WarmUp.Progress> warm = new HashMap<>();
        for (Prompt prompt : of.values())
            if (isAsked(prompt)) warm.put(prompt.id(), warmUps.progress(prompt, viewer.personId()));
        Names names = people.names(viewer, classId);
        Instant now = clock.instant();
        List<ReviewToGive> lines = new ArrayList<>();
        for (Row row : rows) {
            Prompt prompt = of.get(row.promptId());
            if (!isAsked(prompt)) continue;
            Instant due = prompt.reviews().peers().due();
            lines.add(new ReviewToGive(
                    row.id(),
                    row.promptId(),
                    prompt.title(),
                    author(prompt, row, names),
                    due,
                    PeerReading.stage(row.state(), row.isBegun()),
                    !row.isSent() && !prompt.reviews().peers().isOver(now),
                    !row.isSent() && now.isAfter(due),
                    WarmUpService.first(warm.get(prompt.id()))));
        }
        lines.sort(Comparator.comparing((ReviewToGive l) -> !l.open())
                .thenComparing(ReviewToGive::due)
                .thenComparing(ReviewToGive::id));
        return lines;
    }

    private static boolean isAsked(Prompt prompt) {
        return prompt.reviews().peers() != null && prompt.rubric() != null;
    }

    private static @Nullable String author(Prompt prompt, Row row, Names names) {
        return prompt.reviews().peers().authorsKept() ? null : names.of(row.studentId());
    }

    /** A review that was given to the viewer, with the paper as long as it is open. */
    @Transactional(readOnly = true)
    public PeerReviewPage page(Viewer viewer, long id) {
        Row row = mine(viewer, store.find(id).orElseThrow(Problem::missing));
        Prompt prompt = asked(row);
        List<Long> there = row.isOpen() ? rounds.readable(viewer, prompt, row.studentId()) : List.of();
        WarmUp.Progress warm = warmUps.progress(prompt, row.readerId());
        PeerReading.Facts facts = facts(prompt, row, there, warm, true);
        Reading reading = reviews.find(prompt, row.studentId(), row.readerId(), ReviewKind.PEER);
        Names names = people.names(viewer, row.classId());
        List<Answered> answers = answers(prompt, row);
        return new PeerReviewPage(
                id,
                prompt.id(),
                prompt.title(),
                author(prompt, row, names),
                prompt.reviews().peers().due(),
                prompt.reviews().peers().asked(prompt.rubric()),
                PeerReading.reads(facts)
                        ? posts.live(there).stream()
                                .map(p -> new JudgedPost(
                                        prompt.reviews().peers().authorsKept() ? null : p.postId(),
                                        p.title(),
                                        p.html()))
                                .toList()
                        : List.of(),
                OwnViewService.view(reading),
                answers,
                PeerReading.give(facts),
                PeerReading.stage(row.state(), row.isBegun()),
                row.state() == State.RETURNED ? note(id, names) : null,
                prompt.reviews().peers().share(),
                willWait(row),
                !prompt.reviews().peers().reviewersKept(),
                row.helped(),
                store.ofReader(viewer.personId(), row.classId()).stream()
                        .filter(r -> r.id() != id && r.promptId() == prompt.id() && !r.isSent())
                        .map(Row::id)
                        .findFirst()
                        .orElse(null),
                WarmUpService.first(warm));
    }

    private @Nullable String note(long id, Names names) {
        return looking.history(PeerReviewPile.SUBJECT, id, names).stream()
                .map(PileItem.Past::note)
                .findFirst()
                .orElse(null);
    }

    private boolean willWait(Row row) {
        Author author = looking.author(row.classId(), row.readerId());
        return Course.wouldWait(looking.ofComments(row.classId(), author, null).policy(), false);
    }

    /** Gives points and a word on one criterion. */
    @Transactional
    public Own mark(Viewer viewer, long id, int rev, String criterion, @Nullable BigDecimal points, String remark) {
        Open open = open(viewer, id, rev);
        Rubric asked = open.prompt().reviews().peers().asked(open.prompt().rubric());
        asked.find(criterion).orElseThrow(Problem::missing);
        Marks marks =
                open.reading().marks().with(open.prompt().rubric(), new Marks.Mark(criterion, points, false, remark));
        return keep(viewer, open, marks, open.row().word());
    }

    /** Says something about the whole. */
    @Transactional
    public Own word(Viewer viewer, long id, int rev, String word) {
        String words = Marks.word(word);
        Open open = open(viewer, id, rev);
        return keep(viewer, open, open.reading().marks(), words);
    }

    /** Answers a question, by its number from 0. */
    @Transactional
    public Own answer(Viewer viewer, long id, int rev, int no, String answer) {
        String words = PeerReading.answer(answer);
        Open open = open(viewer, id, rev);
        List<String> questions = open.prompt().reviews().peers().questions();
        if (no < 0 || no >= questions.size()) throw Problem.missing();
        store.setAnswer(id, no, new PeerReviewStore.Answer(questions.get(no), words), clock.instant());
        return given(open);
    }

    private Own keep(Viewer viewer, Open open, Marks marks, String word) {
        reviews.keep(
                open.prompt(),
                open.reading(),
                marks,
                word,
                posts.live(open.there()).stream()
                        .map(p -> new PaperReviews.Read(p.postId(), p.version()))
                        .toList());
        return given(open);
    }

    private Own given(Open open) {
        Row row = open.row();
        return OwnViewService.view(reviews.find(open.prompt(), row.studentId(), row.readerId(), ReviewKind.PEER));
    }

    /** Sends a review: it waits or goes to its author, as a comment of its reader's would. */
    @Transactional
    public PeerReviewPage send(Viewer viewer, long id, int rev) {
        Open open = open(viewer, id, rev);
        Prompt prompt = open.prompt();
        Row row = open.row();
        List<Answered> answers = answers(prompt, row);
        PeerReading.requireWhole(
                prompt.reviews().peers().asked(prompt.rubric()),
                open.reading().marks(),
                answers.stream().map(Answered::answer).toList());
        Author author = looking.author(row.classId(), row.readerId());
        String plain = TextFacts.of(PeerReviewPile.html(prompt, open.reading().marks(), answers, row.word()))
                .plain();
        List<Hold> holds = looking.holds(row.classId(), row.readerId(), author, TextToReview.newComment(plain));
        Course after = row.course()
                .handedIn(
                        null,
                        new Course.Circumstances(
                                clock.instant(),
                                looking.ofComments(row.classId(), author, null).policy(),
                                !holds.isEmpty(),
                                false,
                                false))
                .orElseThrow();
        papers.notingScores(prompt, () -> store.settle(id, after));
        looking.setHolds(PeerReviewPile.SUBJECT, id, holds);
        changes.note(row.classId());
        events.add(row.classId(), "review-sent", id, viewer.personId());
        return page(viewer, id);
    }

    /** A review that its reader may go on with, its row locked. */
    private record Open(Row row, Prompt prompt, Reading reading, List<Long> there) {}

    private Open open(Viewer viewer, long id, int rev) {
        Problem.unlessAllowed(AccessEngine.own(viewer));
        Row row = mine(viewer, store.lock(id).orElseThrow(Problem::missing));
        Prompt prompt = asked(row);
        List<Long> there = row.isOpen() ? rounds.readable(viewer, prompt, row.studentId()) : List.of();
        Reading reading = reviews.find(prompt, row.studentId(), row.readerId(), ReviewKind.PEER);
        WarmUp.Progress warm = warmUps.progress(prompt, row.readerId());
        switch (PeerReading.give(facts(prompt, row, there, warm, row.rev() == rev))) {
            case ALLOWED -> {}
            case SENT -> throw Problem.stale("review-sent", "You have sent this review. It stays as it is.");
            case ENDED -> throw Problem.stale("review-ended", "This review is not asked of you any more.");
            case PAPER_GONE ->
                throw Problem.stale("paper-gone", "Its author has taken this paper back. You need not review it.");
            case WARM_UP_FIRST ->
                throw Problem.stale("warm-up-first", "Judge the papers to warm up on first; then this one is yours.");
            case OUTDATED ->
                throw Problem.stale("review-changed", "You have changed this somewhere else since.")
                        .with("own", OwnViewService.view(reading));
        }
        return new Open(row, prompt, reading, there);
    }

    private PeerReading.Facts facts(Prompt prompt, Row row, List<Long> there, WarmUp.Progress warm, boolean isAsSeen) {
        return new PeerReading.Facts(
                row.state(),
                !row.isOpen(),
                prompt.reviews().peers().isOver(clock.instant()),
                !there.isEmpty(),
                warm.isOver() || row.isBegun(),
                isAsSeen);
    }

    /** The review, if it was given to the viewer, who is still a student of the class. */
    private Row mine(Viewer viewer, Row row) {
        access.require(viewer, Act.READ_CLASS, row.classId());
        boolean isStudent = people.students(row.classId()).contains(viewer.personId());
        if (!isStudent || row.readerId() != viewer.personId()) throw Problem.missing();
        return row;
    }

    private Prompt asked(Row row) {
        Prompt prompt = prompts.get(row.promptId());
        if (!isAsked(prompt)) throw Problem.missing();
        return prompt;
    }

    /** What is asked now, with what was answered; of what was sent what was asked then. */
    private List<Answered> answers(Prompt prompt, Row row) {
        List<PeerReviewStore.Answer> given = store.answers(List.of(row.id())).getOrDefault(row.id(), List.of());
        if (row.isSent()) return answered(given);
        return prompt.reviews().peers().questions().stream()
                .map(question -> new Answered(
                        question,
                        given.stream()
                                .filter(a -> a.question().equals(question))
                                .map(PeerReviewStore.Answer::answer)
                                .findFirst()
                                .orElse("")))
                .toList();
    }

    static List<Answered> answered(List<PeerReviewStore.Answer> given) {
        return given.stream().map(a -> new Answered(a.question(), a.answer())).toList();
    }

    /** What classmates say of the viewer's paper for a prompt, as far as they sent it and it is up. */
    @Transactional(readOnly = true)
    public ReceivedReviews ofMine(Viewer viewer, long promptId) {
        Prompt prompt = prompts.forMember(viewer, promptId);
        if (!isAsked(prompt) || !people.students(prompt.classId()).contains(viewer.personId())) throw Problem.missing();
        return received(
                viewer, prompt, viewer.personId(), !prompt.reviews().peers().reviewersKept());
    }

    /** The same of a student's paper, for those who mark. */
    @Transactional(readOnly = true)
    public ReceivedReviews ofPaper(Viewer viewer, long promptId, long studentId) {
        Prompt prompt = prompts.get(promptId);
        access.require(viewer, Act.MARK, prompt.classId());
        if (!isAsked(prompt) || !people.students(prompt.classId()).contains(studentId)) throw Problem.missing();
        return received(viewer, prompt, studentId, true);
    }

    private ReceivedReviews received(Viewer viewer, Prompt prompt, long studentId, boolean named) {
        List<Row> rows = store.up(prompt.id(), papers.of(prompt, studentId).together());
        Map<Long, Marks> marks = reviews.marks(List.of(prompt.id()), ReviewKind.PEER);
        Map<Long, List<PeerReviewStore.Answer>> answers =
                store.answers(rows.stream().map(Row::id).toList());
        Names names = people.names(viewer, prompt.classId());
        Map<String, BigDecimal> median = PeerMarks.median(
                rows.stream().map(r -> marks.getOrDefault(r.id(), Marks.NONE)).toList());
        return new ReceivedReviews(
                prompt.id(),
                prompt.title(),
                prompt.reviews().peers().asked(prompt.rubric()),
                OwnViewService.views(Marks.ofPoints(median)),
                rows.stream()
                        .map(r -> new ReceivedReview(
                                r.id(),
                                named ? names.of(r.readerId()) : null,
                                OwnViewService.views(marks.getOrDefault(r.id(), Marks.NONE)),
                                answered(answers.getOrDefault(r.id(), List.of())),
                                r.word(),
                                r.helped()))
                        .toList(),
                prompt.reviews().peers().share(),
                prompt.reviews().peers().answered());
    }

    /**
     * The author of a paper says what a review helped with, or takes that back.
     *
     * @param why empty to take it back
     */
    @Transactional
    public ReceivedReviews helped(Viewer viewer, long id, boolean helped, String why) {
        Problem.unlessAllowed(AccessEngine.own(viewer));
        Row row = store.lock(id).orElseThrow(Problem::missing);
        if (!isAuthor(viewer, row) || !asked(row).reviews().peers().answered()) throw Problem.missing();
        if (why.strip().length() > LONGEST_HELPED)
            throw Problem.invalid("why", "too-long", "Say it in at most 1,000 characters.");
        store.setHelped(id, helped ? why.strip() : null, clock.instant());
        events.add(row.classId(), "review-helped", id, viewer.personId());
        return ofMine(viewer, row.promptId());
    }

    /** Whether the viewer reads a review as an author of its paper. */
    boolean isAuthor(Viewer viewer, Row row) {
        return PeerReading.counts(row.state())
                && access.allows(viewer, Act.READ_CLASS, row.classId())
                && people.students(row.classId()).contains(viewer.personId())
                && papers.of(prompts.get(row.promptId()), viewer.personId())
                        .together()
                        .contains(row.studentId());
    }
}

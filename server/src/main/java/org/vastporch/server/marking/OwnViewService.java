package org.vastporch.server.marking;

import java.math.BigDecimal;
import java.util.Comparator;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.marking.Marks;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.core.prompts.Reviews;
import org.vastporch.core.reviews.OwnView;
import org.vastporch.core.reviews.ReviewKind;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.ClassChanges;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.marking.PaperService.MarkView;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.reviews.PaperReviews;
import org.vastporch.server.reviews.PaperReviews.Reading;
import org.vastporch.server.writing.Posts;

/** How students see papers of their own, by the steps by which these are marked. */
@Service
public class OwnViewService {

    /**
     * A post as somebody judges it.
     *
     * @param postId left out where it would lead to its author, whose name is kept back
     */
    public record JudgedPost(@Optionally Long postId, String title, String html) {}

    /**
     * What the viewer gave so far.
     *
     * @param rev its state; a step names it
     * @param finished whether all criteria have points
     */
    public record Own(int rev, List<MarkView> marks, String word, boolean finished) {}

    /**
     * A paper of the viewer's with how they see it.
     *
     * @param can whether a step can be given now, and if not, why
     * @param first whether the marks are shown only once it is finished
     * @param before whether it is asked for before anything is handed in, and nothing is
     * @param share how much of the score it is, in per cent
     */
    public record OwnViewPage(
            long promptId,
            String title,
            Rubric rubric,
            List<JudgedPost> posts,
            Own own,
            OwnView.Answer can,
            boolean first,
            boolean before,
            int share) {}

    private final MarkingDesk desk;
    private final MarkingStore store;
    private final ScoreWatch scores;
    private final PaperReviews reviews;
    private final PromptService prompts;
    private final Posts posts;
    private final PeopleService people;
    private final AccessService access;
    private final ClassChanges changes;
    private final EventStore events;

    OwnViewService(
            MarkingDesk desk,
            MarkingStore store,
            ScoreWatch scores,
            PaperReviews reviews,
            PromptService prompts,
            Posts posts,
            PeopleService people,
            AccessService access,
            ClassChanges changes,
            EventStore events) {
        this.desk = desk;
        this.store = store;
        this.scores = scores;
        this.reviews = reviews;
        this.prompts = prompts;
        this.posts = posts;
        this.people = people;
        this.access = access;
        this.changes = changes;
        this.events = events;
    }

    @Transactional(readOnly = true)
    public OwnViewPage page(Viewer viewer, long promptId) {
        Prompt prompt = asked(viewer, promptId);
        MarkingDesk.Paper paper = desk.papers(prompt.classId(), List.of(prompt), List.of(viewer.personId()))
                .get(promptId)
                .get(0);
        Reading own = reviews
                .of(List.of(prompt), ReviewKind.SELF)
                .getOrDefault(new PaperReviews.Paper(promptId, viewer.personId()), List.of())
                .stream()
                .findFirst()
                .orElse(null);
        return new OwnViewPage(
                promptId,
                prompt.title(),
                prompt.rubric(),
                posts.texts(paper.posts()).stream()
                        .filter(p -> p.authorId() == viewer.personId()
                                || !access.readable(viewer, List.of(p.postId())).isEmpty())
                        .map(p -> new JudgedPost(p.postId(), p.title(), p.html()))
                        .toList(),
                own == null ? new Own(0, List.of(), "", false) : view(own),
                OwnView.give(facts(paper, true)),
                prompt.reviews().self() == Reviews.Self.FIRST,
                prompt.reviews().self() == Reviews.Self.BEFORE && paper.isEmpty(),
                prompt.reviews().selfShare());
    }

    /** Gives points and a word on one criterion. */
    @Transactional
    public Own mark(
            Viewer viewer, long promptId, int rev, String criterion, @Nullable BigDecimal points, String remark) {
        Prompt prompt = asked(viewer, promptId);
        prompt.rubric().find(criterion).orElseThrow(Problem::missing);
        MarkingDesk.Paper paper = desk.lock(prompt, viewer.personId()).paper();
        Reading own = own(viewer, prompt, paper, rev);
        Marks marks = own.marks().with(prompt.rubric(), new Marks.Mark(criterion, points, false, remark));
        return keep(viewer, paper, own, marks, own.review().word());
    }

    /** Says something about the whole. */
    @Transactional
    public Own word(Viewer viewer, long promptId, int rev, String word) {
        Prompt prompt = asked(viewer, promptId);
        String words = Marks.word(word);
        MarkingDesk.Paper paper = desk.lock(prompt, viewer.personId()).paper();
        Reading own = own(viewer, prompt, paper, rev);
        return keep(viewer, paper, own, own.marks(), words);
    }

    private Reading own(Viewer viewer, Prompt prompt, MarkingDesk.Paper paper, int rev) {
        Reading own = reviews.lock(prompt, viewer.personId(), viewer.personId(), ReviewKind.SELF);
        boolean isAsSeen = own.review().rev() == rev;
        switch (OwnView.give(facts(paper, isAsSeen))) {
            case ALLOWED -> {}
            case NOT_ASKED -> throw Problem.missing();
            case LET_OFF -> throw Problem.stale("let-off", "Nothing of this is asked of you.");
            case MARKS_SHOWN ->
                throw Problem.stale(
                        "marks-shown", "You have seen the marks for this. How you saw it before stays as it is.");
            case NOTHING_HANDED_IN ->
                throw Problem.stale("nothing-handed-in", "Hand it in first; then you can say how you see it.");
            case OUTDATED ->
                throw Problem.stale("own-view-changed", "You have changed this somewhere else since.")
                        .with("own", view(own));
        }
        return own;
    }

    private Own keep(Viewer viewer, MarkingDesk.Paper paper, Reading own, Marks marks, String word) {
        Prompt prompt = paper.prompt();
        Reading kept = reviews.keep(prompt, own, marks, word, paper.asRead());
        if (kept.review().isFinished()) {
            store.setOwnSaid(prompt.id(), viewer.personId());
            noteShare(viewer, paper);
        }
        changes.note(prompt.classId());
        events.add(prompt.classId(), "own-view-given", viewer.personId(), viewer.personId());
        return view(kept);
    }

    /** A score that waited for the own view may be another one with it: its history says so. */
    private void noteShare(Viewer viewer, MarkingDesk.Paper was) {
        Prompt prompt = was.prompt();
        if (!was.awaitsOwn() || prompt.reviews().selfShare() == 0) return;
        MarkingDesk.Paper is = desk.papers(prompt.classId(), List.of(prompt), List.of(was.studentId()))
                .get(prompt.id())
                .get(0);
        scores.note(
                viewer,
                is,
                ScoreEventStore.Kind.CHANGED,
                "Your own view came in; it is " + prompt.reviews().selfShare() + " % of the score.",
                was.shown(),
                is.shown());
    }

    private static OwnView.Facts facts(MarkingDesk.Paper paper, boolean isAsSeen) {
        return new OwnView.Facts(
                paper.prompt().reviews().self(),
                paper.allowance().letOff(),
                paper.isEmpty(),
                paper.isShown(),
                isAsSeen);
    }

    /** The prompt, for a student of its class who is asked how they see it. */
    private Prompt asked(Viewer viewer, long promptId) {
        Prompt prompt = prompts.forMember(viewer, promptId);
        access.require(viewer, Act.READ_CLASS, prompt.classId());
        if (prompt.rubric() == null
                || prompt.reviews().self() == Reviews.Self.NOT_ASKED
                || !people.students(prompt.classId()).contains(viewer.personId())) throw Problem.missing();
        return prompt;
    }

    public static Own view(Reading own) {
        return new Own(
                own.review().rev(),
                views(own.marks()),
                own.review().word(),
                own.review().isFinished());
    }

    /** Whether the student can say how they see a paper, and has not done so yet. */
    static boolean canSay(MarkingDesk.Paper paper) {
        return paper.prompt().rubric() != null
                && said(paper) == null
                && !paper.isEmpty()
                && OwnView.give(facts(paper, true)) == OwnView.Answer.ALLOWED;
    }

    /** What a student has said of a paper, once it is finished; for the student and those who mark. */
    static @Nullable Own said(MarkingDesk.Paper paper) {
        return paper.own() == null || !paper.own().review().isFinished() ? null : view(paper.own());
    }

    /** What was given, in the order of the criteria's identities. */
    public static List<MarkView> views(Marks marks) {
        return marks.given().values().stream()
                .map(m -> new MarkView(m.criterion(), m.points(), m.notCounted(), m.remark()))
                .sorted(Comparator.comparing(MarkView::criterion))
                .toList();
    }
}

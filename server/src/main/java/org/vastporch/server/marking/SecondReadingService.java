package org.vastporch.server.marking;

import java.math.BigDecimal;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Role;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.agreement.Comparison;
import org.vastporch.core.marking.Marks;
import org.vastporch.core.marking.MarksTable;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.core.reviews.Apart;
import org.vastporch.core.reviews.ReviewKind;
import org.vastporch.core.reviews.SecondReading;
import org.vastporch.core.reviews.SecondReading.Which;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.ClassChanges;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.marking.OwnViewService.JudgedPost;
import org.vastporch.server.marking.OwnViewService.Own;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.reviews.PaperReviews;
import org.vastporch.server.reviews.PaperReviews.Read;
import org.vastporch.server.reviews.PaperReviews.Reading;
import org.vastporch.server.reviews.PaperReviews.Review;
import org.vastporch.server.writing.Posts;

/** Papers that a colleague reads a second time, and what counts where the two are apart. */
@Service
public class SecondReadingService {

    /**
     * @param student one paper alone; left out for those that {@code which} chooses
     * @param every n of "every n-th"
     * @param blind whether the first marks are kept from the reader until theirs are given
     */
    public record WantedReadings(
            long reader,
            @Optionally Long student,
            @Optionally Which which,
            @Optionally Integer every,
            boolean blind) {}

    /** @param asked how many papers were asked for that were not before */
    public record SecondsAsked(int asked) {}

    public record Colleague(long id, String name) {}

    /** What counts of two readings. */
    public record SettledView(@Optionally String by, Instant at, boolean takesSecond, String reason) {}

    /**
     * A second reading.
     *
     * @param rev its state; who settles it names it
     * @param begun whether anything was given
     * @param given what its reader gave, once it is finished
     * @param apart how far that lies from the first
     * @param comesBack whether that is more than the class lets pass, and nobody has settled it
     */
    public record SecondLine(
            long studentId,
            String student,
            long readerId,
            String reader,
            boolean blind,
            int rev,
            boolean begun,
            boolean finished,
            @Optionally Own given,
            List<Apart> apart,
            boolean comesBack,
            @Optionally SettledView settled) {}

    /** @param colleagues who may be asked */
    public record SecondReadingsView(List<Colleague> colleagues, List<SecondLine> lines) {}

    /** What a marker reads a second time for one prompt. */
    public record AskedOfMe(long promptId, String title, List<ToRead> papers) {}

    public record ToRead(long studentId, String name, boolean finished) {}

    /**
     * A paper as its second reader has it.
     *
     * @param first what the marker gave; left out while it is kept from the reader
     * @param can whether a step can be given, and if not, why
     * @param next the next paper to read, if there is one
     */
    public record SecondPage(
            long promptId,
            String title,
            String name,
            Rubric rubric,
            List<JudgedPost> posts,
            Own own,
            @Optionally Own first,
            List<Apart> apart,
            boolean blind,
            SecondReading.Answer can,
            @Optionally Long next) {}

    private static final int LONGEST_REASON = 1_000;

    private final MarkingDesk desk;
    private final MarkingStore store;
    private final SecondReadings seconds;
    private final MarkingService marking;
    private final PaperService papers;
    private final PaperReviews reviews;
    private final PromptService prompts;
    private final Posts posts;
    private final PeopleService people;
    private final AccessService access;
    private final ClassChanges changes;
    private final EventStore events;

    SecondReadingService(
            MarkingDesk desk,
            MarkingStore store,
            SecondReadings seconds,
            MarkingService marking,
            PaperService papers,
            PaperReviews reviews,
            PromptService prompts,
            Posts posts,
            PeopleService people,
            AccessService access,
            ClassChanges changes,
            EventStore events) {
        this.desk = desk;
        this.store = store;
        this.seconds = seconds;
        this.marking = marking;
        this.papers = papers;
        this.reviews = reviews;
        this.prompts = prompts;
        this.posts = posts;
        this.people = people;
        this.access = access;
        this.changes = changes;
        this.events = events;
    }

    /** Asks a colleague for second readings; a paper that they marked themselves is left out. */
    @Transactional
    public SecondsAsked ask(Viewer viewer, long promptId, WantedReadings wanted) {
        // Two who ask for the same at once follow each other.
        prompts.lock(promptId);
        Prompt prompt = managed(viewer, promptId);
        if (colleagues(viewer, prompt).stream().noneMatch(c -> c.id() == wanted.reader()))
            throw Problem.invalid("reader", "reader-unknown", "Choose somebody who marks in this class.");
        List<MarkingDesk.Paper> there =
                MarkingDesk.once(desk.papers(prompt.classId(), List.of(prompt)).get(promptId)).stream()
                        .filter(p -> !p.isEmpty() && !p.allowance().letOff())
                        .filter(p -> p.marking() == null || p.marking().markerId() != wanted.reader())
                        .toList();
        Set<Long> chosen = Set.copyOf(
                wanted.student() != null
                        ? List.of(wanted.student())
                        : SecondReading.chosen(
                                there.stream()
                                        .map(SecondReadingService::candidate)
                                        .toList(),
                                wanted.which() == null ? Which.ALL : wanted.which(),
                                wanted.every() == null ? 1 : wanted.every(),
                                promptId));
        int asked = 0;
        for (MarkingDesk.Paper paper : there)
            if (chosen.contains(paper.studentId())
                    && reviews.ask(viewer.personId(), prompt, paper.studentId(), wanted.reader(), wanted.blind()))
                asked++;
        if (asked > 0) {
            changes.note(prompt.classId());
            events.add(prompt.classId(), "second-reading-asked", promptId, viewer.personId());
        }
        return new SecondsAsked(asked);
    }

    private static SecondReading.Candidate candidate(MarkingDesk.Paper paper) {
        Rubric rubric = paper.prompt().rubric();
        Marks marks = SecondReadings.given(paper);
        boolean isBetween = marks.points().entrySet().stream()
                .anyMatch(e -> rubric.find(e.getKey()).orElseThrow().levels().stream()
                        .noneMatch(l -> l.points().compareTo(e.getValue()) == 0));
        return new SecondReading.Candidate(
                paper.studentId(), Comparison.meanStep(rubric, marks).orElse(null), isBetween);
    }

    /** Takes back what was asked of somebody who has not begun. */
    @Transactional
    public void takeBack(Viewer viewer, long promptId, long studentId, long readerId) {
        Prompt prompt = managed(viewer, promptId);
        Review review =
                reviews.lock(prompt, studentId, readerId, ReviewKind.SECOND).review();
        if (review.id() == 0) return;
        if (!reviews.takeBack(review)) throw Problem.stale("reading-begun", "This paper is being read already.");
        changes.note(prompt.classId());
        events.add(prompt.classId(), "second-reading-taken-back", promptId, viewer.personId());
    }

    /** The second readings of a prompt, those that come back first. */
    public SecondReadingsView ofPrompt(Viewer viewer, long promptId) {
        Prompt prompt = managed(viewer, promptId);
        Names names = people.names(viewer, prompt.classId());
        Map<PaperReviews.Paper, List<Reading>> of = reviews.of(List.of(prompt), ReviewKind.SECOND);
        SecondReadings.Firsts firsts = seconds.firsts(prompt);
        List<SecondLine> lines = new ArrayList<>();
        of.values()
                .forEach(
                        readings -> readings.forEach(second -> lines.add(seconds.line(prompt, firsts, second, names))));
        lines.sort(Comparator.comparing((SecondLine l) -> !l.comesBack()).thenComparing(SecondLine::student));
        return new SecondReadingsView(colleagues(viewer, prompt), lines);
    }

    /** What the viewer reads a second time in a class. */
    public List<AskedOfMe> askedOf(Viewer viewer, long classId) {
        access.require(viewer, Act.MARK, classId);
        List<Prompt> of = prompts.byId(reviews.askedOf(viewer.personId())).values().stream()
                .filter(p -> p.classId() == classId && p.rubric() != null)
                .sorted(Comparator.comparing(Prompt::due))
                .toList();
        if (of.isEmpty()) return List.of();
        Names names = people.names(viewer, classId);
        Map<PaperReviews.Paper, List<Reading>> readings = reviews.of(of, ReviewKind.SECOND);
        return of.stream()
                .map(prompt -> new AskedOfMe(prompt.id(), prompt.title(), toRead(viewer, prompt, readings, names)))
                .toList();
    }

    private static List<ToRead> toRead(
            Viewer viewer, Prompt prompt, Map<PaperReviews.Paper, List<Reading>> readings, Names names) {
        return readings.entrySet().stream()
                .filter(e -> e.getKey().promptId() == prompt.id())
                .flatMap(e -> e.getValue().stream())
                .filter(r -> r.review().readerId() == viewer.personId())
                .map(r -> new ToRead(
                        r.review().studentId(),
                        names.of(r.review().studentId()),
                        r.review().isFinished()))
                .sorted(Comparator.comparing(ToRead::finished).thenComparing(ToRead::name))
                .toList();
    }

    /** A paper that was asked of the viewer. */
    @Transactional(readOnly = true)
    public SecondPage page(Viewer viewer, long promptId, long studentId) {
        Prompt prompt = papers.requireMarking(viewer, promptId);
        papers.requireStudent(prompt, studentId);
        Reading own = reviews.find(prompt, studentId, viewer.personId(), ReviewKind.SECOND);
        if (prompt.rubric() == null || own.review().id() == 0) throw Problem.missing();
        MarkingDesk.Paper paper = papers.onDesk(prompt, studentId);
        Review review = own.review();
        boolean showsFirst = !review.isBlind() || review.isFinished();
        Names names = people.names(viewer, prompt.classId());
        Marks first = seconds.firsts(prompt).of(studentId);
        return new SecondPage(
                promptId,
                prompt.title(),
                names.of(studentId),
                prompt.rubric(),
                posts.texts(paper.posts()).stream()
                        .map(p -> new JudgedPost(p.postId(), p.title(), p.html()))
                        .toList(),
                OwnViewService.view(own),
                showsFirst
                        ? new Own(
                                0,
                                OwnViewService.views(first),
                                "",
                                !first.points().isEmpty())
                        : null,
                showsFirst && review.isFinished() ? Apart.of(prompt.rubric(), own.marks(), first) : List.of(),
                review.isBlind(),
                SecondReading.give(facts(paper, review, true)),
                toRead(viewer, prompt, reviews.of(List.of(prompt), ReviewKind.SECOND), names).stream()
                        .filter(r -> !r.finished() && r.studentId() != studentId)
                        .map(ToRead::studentId)
                        .findFirst()
                        .orElse(null));
    }

    /** Gives points and a word on one criterion. */
    @Transactional
    public Own mark(
            Viewer viewer,
            long promptId,
            long studentId,
            int rev,
            String criterion,
            @Nullable BigDecimal points,
            String remark) {
        Prompt prompt = papers.requireMarking(viewer, promptId);
        asked(viewer, prompt, studentId);
        prompt.rubric().find(criterion).orElseThrow(Problem::missing);
        MarkingDesk.Paper paper = desk.lock(prompt, studentId).paper();
        Reading own = lock(viewer, paper, rev);
        Marks marks = own.marks().with(prompt.rubric(), new Marks.Mark(criterion, points, false, remark));
        return keep(viewer, paper, own, marks, own.review().word());
    }

    /** Says something about the whole. */
    @Transactional
    public Own word(Viewer viewer, long promptId, long studentId, int rev, String word) {
        Prompt prompt = papers.requireMarking(viewer, promptId);
        asked(viewer, prompt, studentId);
        String words = Marks.word(word);
        MarkingDesk.Paper paper = desk.lock(prompt, studentId).paper();
        Reading own = lock(viewer, paper, rev);
        return keep(viewer, paper, own, own.marks(), words);
    }

    private Own keep(Viewer viewer, MarkingDesk.Paper paper, Reading own, Marks marks, String word) {
        Prompt prompt = paper.prompt();
        Reading kept = reviews.keep(prompt, own, marks, word, paper.asRead());
        changes.note(prompt.classId());
        events.add(prompt.classId(), "second-reading-given", paper.studentId(), viewer.personId());
        return OwnViewService.view(kept);
    }

    private Reading asked(Viewer viewer, Prompt prompt, long studentId) {
        if (prompt.rubric() == null) throw Problem.missing();
        Reading own = reviews.lock(prompt, studentId, viewer.personId(), ReviewKind.SECOND);
        if (own.review().id() == 0) throw Problem.missing();
        return own;
    }

    private Reading lock(Viewer viewer, MarkingDesk.Paper paper, int rev) {
        Reading own = asked(viewer, paper.prompt(), paper.studentId());
        switch (SecondReading.give(facts(paper, own.review(), own.review().rev() == rev))) {
            case ALLOWED -> {}
            case NOTHING_HANDED_IN -> throw Problem.stale("nothing-handed-in", "Nothing is handed in here any more.");
            case DONE_BLIND ->
                throw Problem.stale(
                        "done-blind", "You have seen the first marks by now, so your own reading stays as it is.");
            case SETTLED ->
                throw Problem.stale("settled", "A teacher has settled what counts here. Both readings are kept.");
            case OUTDATED ->
                throw Problem.stale("reading-changed", "You have changed this somewhere else since.")
                        .with("own", OwnViewService.view(own));
        }
        return own;
    }

    private static SecondReading.Facts facts(MarkingDesk.Paper paper, Review review, boolean isAsSeen) {
        return new SecondReading.Facts(
                paper.isEmpty(), review.isBlind(), review.isFinished(), review.settled() != null, isAsSeen);
    }

    /**
     * Sets which of two readings counts.
     *
     * @param seen the paper as whoever settles it had it before them
     * @param rev the second reading as they had it before them
     */
    @Transactional
    public SecondReadingsView settle(
            Viewer viewer,
            long promptId,
            long studentId,
            PaperService.Seen seen,
            long readerId,
            int rev,
            boolean takesSecond,
            String reason) {
        Prompt prompt = managed(viewer, promptId);
        papers.requireStudent(prompt, studentId);
        if (reason.isBlank())
            throw MarkingService.noReason("Say why; both readers see it, and the student if a shown score changes.");
        if (reason.length() > LONGEST_REASON)
            throw Problem.invalid("reason", "reason-too-long", "A reason has at most 1,000 characters.");
        MarkingDesk.Paper paper = desk.lock(prompt, studentId).paper();
        if (!seen.equals(paper.seen())) throw papers.outdated(viewer, paper, seen);
        Reading second = reviews.lock(prompt, studentId, readerId, ReviewKind.SECOND);
        if (!second.review().isFinished()) throw Problem.missing();
        if (second.review().settled() != null) throw Problem.stale("settled", "Somebody has settled this already.");
        if (second.review().rev() != rev)
            throw Problem.stale(
                    "reading-changed", "The second reading has changed since you opened this. Nothing was settled.");
        if (takesSecond) takeSecond(viewer, paper, second.marks(), reason);
        reviews.settle(second.review(), viewer.personId(), takesSecond, reason.strip());
        changes.note(prompt.classId());
        events.add(prompt.classId(), "second-reading-settled", studentId, viewer.personId());
        return ofPrompt(viewer, promptId);
    }

    private void takeSecond(Viewer viewer, MarkingDesk.Paper paper, Marks second, String reason) {
        Prompt prompt = paper.prompt();
        if (paper.marking() == null)
            throw Problem.stale("no-first-marks", "There are no first marks yet, so there is nothing to settle.");
        Marks first = Marks.of(store.marks(prompt.id(), paper.studentId()).stream()
                .map(MarkingStore.Mark::given)
                .toList());
        reviews.keepFirst(
                prompt,
                paper.studentId(),
                paper.marking().answering(),
                first,
                paper.marking().word(),
                paper.read().stream().map(p -> new Read(p.post(), p.version())).toList());
        List<MarksTable.Mark> said = second.points().entrySet().stream()
                .map(e -> new MarksTable.Mark(e.getKey(), e.getValue(), false, null))
                .toList();
        marking.markWhole(viewer, prompt.id(), paper.studentId(), paper.seen(), said, null, reason);
    }

    private Prompt managed(Viewer viewer, long promptId) {
        Prompt prompt = papers.requireMarking(viewer, promptId);
        access.require(viewer, Act.MANAGE_CLASS, prompt.classId());
        if (prompt.rubric() == null) throw Problem.missing();
        return prompt;
    }

    /** Those who mark in a class. */
    private List<Colleague> colleagues(Viewer viewer, Prompt prompt) {
        return people.members(viewer, prompt.classId()).stream()
                .filter(m -> m.leftAt() == null)
                .filter(m -> Optional.of(m.role())
                        .filter(r -> r == Role.LEAD || r == Role.CO_TEACHER || r == Role.ASSISTANT)
                        .isPresent())
                .map(m -> new Colleague(m.id(), m.name()))
                .collect(Collectors.toList());
    }
}

package org.vastporch.server.marking;

import java.math.BigDecimal;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.marking.MarkingRules;
import org.vastporch.core.marking.Marks;
import org.vastporch.core.marking.MarksTable;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.ClassChanges;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.marking.MarkingStore.Mark;
import org.vastporch.server.marking.MarkingStore.Marking;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.writing.Posts;

/** Marking papers against a rubric, step by step. All sums come from the core. */
@Service
public class MarkingService {

    /** @param reason why a score that its student has seen changes; empty before */
    public record Given(@Nullable BigDecimal points, boolean notCounted, String remark, String reason) {}

    private static final int LONGEST_REASON = 1_000;

    private final MarkingStore store;
    private final ScoreWatch scores;
    private final PhraseService phrases;
    private final MarkingDesk desk;
    private final PaperService papers;
    private final ClassChanges changes;
    private final ClassService classes;
    private final AccessService access;
    private final Posts posts;
    private final PeopleService people;
    private final EventStore events;
    private final Clock clock;

    MarkingService(
            MarkingStore store,
            ScoreWatch scores,
            PhraseService phrases,
            MarkingDesk desk,
            PaperService papers,
            ClassChanges changes,
            ClassService classes,
            AccessService access,
            Posts posts,
            PeopleService people,
            EventStore events,
            Clock clock) {
        this.store = store;
        this.scores = scores;
        this.phrases = phrases;
        this.desk = desk;
        this.papers = papers;
        this.changes = changes;
        this.classes = classes;
        this.access = access;
        this.posts = posts;
        this.people = people;
        this.events = events;
        this.clock = clock;
    }

    /**
     * Takes what was handed in again after the time: that is marked then, and late. Or leaves it again.
     *
     * @param seen the paper as the marker had it before them
     */
    @Transactional
    public PaperService.Paper take(
            Viewer viewer,
            long promptId,
            long studentId,
            PaperService.Seen seen,
            long post,
            int version,
            boolean taken) {
        Prompt prompt = papers.requireMarking(viewer, promptId);
        papers.requireStudent(prompt, studentId);
        MarkingDesk.Paper paper = desk.lock(prompt, studentId).paper();
        if (!seen.equals(paper.seen())) throw papers.outdated(viewer, paper, seen);
        if (paper.posts().stream().noneMatch(p -> p.postId() == post)) throw Problem.missing();
        posts.take(post, version, taken);
        changes.note(prompt.classId());
        events.add(prompt.classId(), taken ? "handed-again-taken" : "handed-again-left", post, viewer.personId());
        return papers.paper(viewer, promptId, studentId);
    }

    /**
     * Gives points for one criterion, or takes them away.
     *
     * @param seen the paper as the marker had it before them
     */
    @Transactional
    public PaperService.Standing mark(
            Viewer viewer, long promptId, long studentId, PaperService.Seen seen, String criterion, Given given) {
        Prompt prompt = papers.requireMarking(viewer, promptId);
        Rubric rubric = prompt.rubric();
        if (rubric == null) throw Problem.missing();
        Rubric.Criterion of = rubric.find(criterion).orElseThrow(Problem::missing);
        MarkingDesk.Alike before = begin(viewer, prompt, studentId, seen, given.reason());
        Marks were = marks(promptId, studentId);
        Marks.Mark mark = new Marks.Mark(criterion, given.points(), given.notCounted(), given.remark());
        keep(before, were.with(rubric, mark), List.of(criterion));
        boolean isNew = !mark.remark().isEmpty()
                && were.of(criterion)
                        .filter(m -> m.remark().equals(mark.remark()))
                        .isEmpty();
        if (isNew)
            phrases.learn(
                    viewer,
                    of.name(),
                    mark.points() == null ? "" : of.reached(mark.points()).name(),
                    mark.remark());
        return changed(viewer, before, given.reason());
    }

    /**
     * Gives what a table says about one paper, all of it or nothing.
     *
     * @param word null to leave the one that stands there
     */
    @Transactional
    public void markWhole(
            Viewer viewer,
            long promptId,
            long studentId,
            PaperService.Seen seen,
            List<MarksTable.Mark> said,
            @Nullable String word,
            String reason) {
        Prompt prompt = papers.requireMarking(viewer, promptId);
        Rubric rubric = prompt.rubric();
        if (rubric == null) throw Problem.missing();
        for (MarksTable.Mark mark : said) rubric.find(mark.criterion()).orElseThrow(Problem::missing);
        MarkingDesk.Alike before = begin(viewer, prompt, studentId, seen, reason);
        keep(
                before,
                marks(promptId, studentId).with(rubric, said),
                said.stream().map(MarksTable.Mark::criterion).toList());
        if (word != null) for (long student : before.students()) store.setWord(promptId, student, Marks.word(word));
        changed(viewer, before, reason);
    }

    private Marks marks(long promptId, long studentId) {
        return Marks.of(
                store.marks(promptId, studentId).stream().map(Mark::given).toList());
    }

    /** Gives all who handed in together what was given to one, for some criteria. */
    private void keep(MarkingDesk.Alike alike, Marks marks, List<String> criteria) {
        for (long student : alike.students())
            for (String criterion : criteria)
                store.setMark(Mark.of(
                        alike.paper().prompt().id(),
                        student,
                        marks.of(criterion).orElseThrow()));
    }

    /** @param reason why the word changes, once its student has seen it; empty before */
    @Transactional
    public PaperService.Standing word(
            Viewer viewer, long promptId, long studentId, PaperService.Seen seen, String word, String reason) {
        Prompt prompt = papers.requireMarking(viewer, promptId);
        String words = Marks.word(word);
        MarkingDesk.Alike before = begin(viewer, prompt, studentId, seen, reason);
        for (long student : before.students()) store.setWord(promptId, student, words);
        Marking was = before.paper().marking();
        if (was == null || !was.word().equals(words)) phrases.learn(viewer, "", "", words);
        return changed(viewer, before, reason);
    }

    /**
     * Makes sure that a paper stands as its marker had it before them, with its rows locked, and begins its marking or
     * goes on with it.
     *
     * @return the paper as it was
     */
    private MarkingDesk.Alike begin(
            Viewer viewer, Prompt prompt, long studentId, PaperService.Seen seen, String reason) {
        papers.requireStudent(prompt, studentId);
        MarkingDesk.Alike alike = desk.lock(prompt, studentId);
        MarkingDesk.Paper paper = alike.paper();
        boolean assists = !access.allows(viewer, Act.MANAGE_CLASS, prompt.classId());
        MarkingRules.Facts facts = new MarkingRules.Facts(
                paper.allowance().letOff(),
                paper.isEmpty(),
                seen.equals(paper.seen()),
                alike.papers().stream().anyMatch(MarkingDesk.Paper::isReleased),
                assists,
                classes.get(prompt.classId()).rules().takeOver());
        requireShort(reason);
        switch (MarkingRules.mark(facts, !reason.isBlank())) {
            case ALLOWED -> {}
            case LET_OFF -> throw Problem.stale("let-off", "This student was let off, so there is nothing to mark.");
            case NOTHING_HANDED_IN ->
                throw Problem.stale(
                        "nothing-handed-in", "Nothing was handed in here yet, so there is nothing to mark.");
            case OUTDATED -> throw papers.outdated(viewer, paper, seen);
            case TEACHERS_ALONE ->
                throw Problem.stale(
                        "released-already", "The student has seen this score. Only a teacher changes it now.");
            case SAY_WHY ->
                throw noReason("The student has seen this score. Say why it changes; the student reads it.");
        }
        Instant now = clock.instant();
        for (MarkingDesk.Paper of : alike.papers()) {
            if (of.marking() != null) store.touch(prompt.id(), of.studentId(), viewer.personId(), assists, now);
            else store.begin(prompt.id(), of.studentId(), viewer.personId(), assists, now);
            store.setRead(prompt.id(), of.studentId(), seen);
        }
        changes.note(prompt.classId());
        return alike;
    }

    /** Notes what a step changed of a score that its student has seen, and says how the paper stands after it. */
    private PaperService.Standing changed(Viewer viewer, MarkingDesk.Alike before, String reason) {
        Prompt prompt = before.paper().prompt();
        List<MarkingDesk.Paper> after = desk.papers(prompt.classId(), List.of(prompt), before.students())
                .get(prompt.id());
        for (int i = 0; i < after.size(); i++) {
            MarkingDesk.Paper was = before.papers().get(i);
            if (!was.isReleased()) continue;
            scores.note(
                    viewer,
                    after.get(i),
                    ScoreEventStore.Kind.CHANGED,
                    reason,
                    was.shown(),
                    after.get(i).shown());
            events.add(prompt.classId(), "score-changed", was.studentId(), viewer.personId());
        }
        return papers.standing(
                after.get(before.papers().indexOf(before.paper())), people.names(viewer, prompt.classId()));
    }

    static Problem noReason(String sentence) {
        return Problem.invalid("reason", "reason-missing", sentence);
    }

    static void requireShort(String reason) {
        if (reason.length() > LONGEST_REASON)
            throw Problem.invalid("reason", "reason-too-long", "A reason has at most 1,000 characters.");
    }
}

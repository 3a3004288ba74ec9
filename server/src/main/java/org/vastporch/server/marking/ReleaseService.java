package org.vastporch.server.marking;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.function.BiFunction;
import java.util.function.ToIntFunction;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.marking.MarkingRules;
import org.vastporch.core.marking.PaperState;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.ClassChanges;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;

/** Showing finished marks to their students, taking them back, and what happened to a score. */
@Service
public class ReleaseService {

    public record SeenPaper(long student, PaperService.Seen seen) {}

    /** @param changed whose papers were not released, since they stand otherwise than they were seen */
    public record Released(int released, List<String> changed) {}

    /** @param changed whose papers were not taken over, since they stand otherwise than they were seen */
    public record TakenOver(int takenOver, List<String> changed) {}

    private final MarkingStore store;
    private final ScoreEventStore history;
    private final ScoreWatch scores;
    private final MarkingDesk desk;
    private final PaperService papers;
    private final ClassChanges changes;
    private final PeopleService people;
    private final AccessService access;
    private final EventStore events;
    private final Clock clock;

    ReleaseService(
            MarkingStore store,
            ScoreEventStore history,
            ScoreWatch scores,
            MarkingDesk desk,
            PaperService papers,
            ClassChanges changes,
            PeopleService people,
            AccessService access,
            EventStore events,
            Clock clock) {
        this.store = store;
        this.history = history;
        this.scores = scores;
        this.desk = desk;
        this.papers = papers;
        this.changes = changes;
        this.people = people;
        this.access = access;
        this.events = events;
        this.clock = clock;
    }

    /** Shows finished marks to their students: those that stand as they were seen. */
    @Transactional
    public Released release(Viewer viewer, long promptId, List<SeenPaper> wantedPapers) {
        Prompt prompt = papers.requireMarking(viewer, promptId);
        access.require(viewer, Act.MANAGE_CLASS, prompt.classId());
        Count count = each(
                viewer,
                prompt,
                wantedPapers,
                (paper, isAsSeen) -> MarkingRules.release(paper.state(), isAsSeen),
                alike -> show(viewer, alike));
        return new Released(count.done(), count.changed());
    }

    /**
     * Makes an assistant's marks count: of those papers that stand as they were seen. From then on a teacher answers
     * for them.
     */
    @Transactional
    public TakenOver takeOver(Viewer viewer, long promptId, List<SeenPaper> wantedPapers) {
        Prompt prompt = papers.requireMarking(viewer, promptId);
        access.require(viewer, Act.MANAGE_CLASS, prompt.classId());
        Count count = each(
                viewer,
                prompt,
                wantedPapers,
                (paper, isAsSeen) -> MarkingRules.takeOver(paper.isToTakeOver(), isAsSeen),
                alike -> takeOver(viewer, alike));
        return new TakenOver(count.done(), count.changed());
    }

    /** @param changed the names of those whose papers were left */
    private record Count(int done, List<String> changed) {}

    /** Does one thing for several papers, each decided with its rows locked, in the order of the students' numbers. */
    private Count each(
            Viewer viewer,
            Prompt prompt,
            List<SeenPaper> wantedPapers,
            BiFunction<MarkingDesk.Paper, Boolean, MarkingRules.OneOfMany> rule,
            ToIntFunction<MarkingDesk.Alike> doing) {
        Names names = people.names(viewer, prompt.classId());
        int done = 0;
        List<String> changed = new ArrayList<>();
        for (SeenPaper wanted : wantedPapers.stream()
                .sorted(Comparator.comparing(SeenPaper::student))
                .toList()) {
            papers.requireStudent(prompt, wanted.student());
            MarkingDesk.Alike alike = desk.lock(prompt, wanted.student());
            switch (rule.apply(alike.paper(), wanted.seen().equals(alike.paper().seen()))) {
                case DO -> done += doing.applyAsInt(alike);
                case DONE_ALREADY -> {}
                case LEFT -> changed.add(names.of(wanted.student()));
            }
        }
        changes.note(prompt.classId());
        return new Count(done, changed);
    }

    /** @return 1 paper, however many handed it in together */
    private int takeOver(Viewer viewer, MarkingDesk.Alike alike) {
        for (MarkingDesk.Paper of : alike.papers()) {
            Prompt prompt = of.prompt();
            store.takeOver(prompt.id(), of.studentId(), viewer.personId(), clock.instant());
            events.add(prompt.classId(), "marks-taken-over", of.studentId(), viewer.personId());
        }
        return 1;
    }

    /** Shows all finished marks of a prompt as they stand, for somebody who said before that it should be done now. */
    @Transactional
    public void releaseFinished(Viewer viewer, long promptId) {
        Prompt prompt = papers.requireMarking(viewer, promptId);
        access.require(viewer, Act.MANAGE_CLASS, prompt.classId());
        for (MarkingDesk.Paper paper :
                desk.papers(prompt.classId(), List.of(prompt)).get(promptId))
            if (paper.state() == PaperState.MARKED) show(viewer, desk.lock(prompt, paper.studentId()));
        changes.note(prompt.classId());
    }

    /** @return how many students see their marks now */
    private int show(Viewer viewer, MarkingDesk.Alike alike) {
        int shown = 0;
        for (MarkingDesk.Paper of : alike.papers()) {
            if (of.state() != PaperState.MARKED) continue;
            Prompt prompt = of.prompt();
            store.setReleased(prompt.id(), of.studentId(), clock.instant());
            scores.note(viewer, of, ScoreEventStore.Kind.RELEASED, "", null, of.shown());
            events.add(prompt.classId(), "score-released", of.studentId(), viewer.personId());
            shown++;
        }
        return shown;
    }

    /**
     * Takes a released score back: the student does not see it any more.
     *
     * @param reason needed after the first hour
     */
    @Transactional
    public PaperService.Standing takeBack(
            Viewer viewer, long promptId, long studentId, PaperService.Seen seen, String reason) {
        Prompt prompt = papers.requireMarking(viewer, promptId);
        access.require(viewer, Act.MANAGE_CLASS, prompt.classId());
        papers.requireStudent(prompt, studentId);
        MarkingDesk.Alike alike = desk.lock(prompt, studentId);
        MarkingDesk.Paper paper = alike.paper();
        if (!seen.equals(paper.seen())) throw papers.outdated(viewer, paper, seen);
        Instant releasedAt = paper.marking() == null ? null : paper.marking().releasedAt();
        if (releasedAt == null) throw Problem.stale("not-released", "This score is not released.");
        MarkingService.requireShort(reason);
        if (MarkingRules.takeBackNeedsReason(releasedAt, clock.instant()) && reason.isBlank())
            throw MarkingService.noReason("It was released more than an hour ago. Say why you take it back.");
        for (MarkingDesk.Paper of : alike.papers()) {
            if (of.marking() == null || of.marking().releasedAt() == null) continue;
            store.setReleased(promptId, of.studentId(), null);
            scores.note(viewer, of, ScoreEventStore.Kind.TAKEN_BACK, reason, of.shown(), null);
            events.add(prompt.classId(), "score-taken-back", of.studentId(), viewer.personId());
        }
        changes.note(prompt.classId());
        return papers.standing(papers.onDesk(prompt, studentId), people.names(viewer, prompt.classId()));
    }

    /** What happened to a score, the last first; for those who mark. */
    public List<ScoreEventStore.ScoreLine> history(Viewer viewer, long promptId, long studentId) {
        Prompt prompt = papers.requireMarking(viewer, promptId);
        papers.requireStudent(prompt, studentId);
        Names names = people.names(viewer, prompt.classId());
        return history.of(promptId, studentId).stream()
                .map(e -> e.line(e.byId() == null ? "" : names.of(e.byId())))
                .toList();
    }
}

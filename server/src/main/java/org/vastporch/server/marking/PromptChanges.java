package org.vastporch.server.marking;

import java.math.BigDecimal;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.marking.Allowance;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.core.prompts.PromptEffects;
import org.vastporch.core.prompts.Reviews;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PaperMembers;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.prompts.PromptService.WantedPrompt;

/** Prompts that are changed after they were set: what changes for whom is said before it is kept. */
@Service
public class PromptChanges {

    /** @param shown whether the student has seen the score */
    public record ScoreChange(
            String student,
            @Optionally BigDecimal before,
            @Optionally BigDecimal after,
            boolean shown) {}

    /** A criterion that goes, and how many marks are kept for it but count no more. */
    public record MarksAside(String criterion, int marks) {}

    /**
     * @param becomeLate who is late by the change, and was on time
     * @param becomeOnTime who was late, and is on time by the change
     * @param toldDate how many students could read the date that was
     * @param needsReason whether a score changes that its student has seen
     */
    public record Effects(
            List<String> becomeLate,
            List<String> becomeOnTime,
            List<ScoreChange> scores,
            List<MarksAside> aside,
            int toldDate,
            boolean needsReason) {

        static Effects of(PromptEffects effects, Names names) {
            return new Effects(
                    effects.becomeLate().stream().map(names::of).toList(),
                    effects.becomeOnTime().stream().map(names::of).toList(),
                    effects.scores().stream()
                            .map(s -> new ScoreChange(names.of(s.student()), s.before(), s.after(), s.shown()))
                            .toList(),
                    effects.aside().stream()
                            .map(a -> new MarksAside(a.criterion(), a.marks()))
                            .toList(),
                    effects.toldDate(),
                    effects.needsReason());
        }
    }

    /**
     * A date of one student's own, in the class's time of day, or that nothing is asked of them.
     *
     * @param due left out for the prompt's
     * @param reason why a score changes that the student has seen
     */
    public record WantedAllowance(
            @Optionally LocalDateTime due,
            boolean letOff,
            boolean again,
            @Optionally String reason) {}

    /**
     * What a student is allowed, in the class's time of day.
     *
     * @param due left out for the prompt's
     * @param everybody when it is due for the others
     */
    public record AllowanceView(
            @Optionally LocalDateTime due, boolean letOff, boolean again, LocalDateTime everybody) {}

    private final MarkingDesk desk;
    private final MarkingStore store;
    private final ScoreWatch scores;
    private final PromptService prompts;
    private final PaperMembers members;
    private final PeopleService people;
    private final AccessService access;

    PromptChanges(
            MarkingDesk desk,
            MarkingStore store,
            ScoreWatch scores,
            PromptService prompts,
            PaperMembers members,
            PeopleService people,
            AccessService access) {
        this.desk = desk;
        this.store = store;
        this.scores = scores;
        this.prompts = prompts;
        this.members = members;
        this.people = people;
        this.access = access;
    }

    /** A prompt before a change, and after it. */
    private record Change(Prompt before, Prompt after) {}

    /**
     * What a change would change.
     *
     * @param following whether those that follow in its series change with it
     */
    public Effects look(Viewer viewer, long promptId, WantedPrompt wanted, boolean following) {
        Prompt before = prompts.get(promptId);
        access.require(viewer, Act.MANAGE_CLASS, before.classId());
        return Effects.of(effects(changes(before, wanted, following)), people.names(viewer, before.classId()));
    }

    /** What becomes of a prompt, and of those that follow it. */
    private List<Change> changes(Prompt before, WantedPrompt wanted, boolean following) {
        List<Change> changes = new ArrayList<>(List.of(new Change(before, prompts.wanted(before, wanted))));
        if (following)
            for (Prompt next : prompts.following(before))
                changes.add(new Change(next, prompts.wanted(next, before, wanted)));
        return changes;
    }

    /**
     * Changes a prompt.
     *
     * @param rev its state as whoever changes it saw it
     * @param reason why scores change that students have seen; empty if none does
     * @param following whether those that follow in its series change with it
     */
    @Transactional
    public void change(Viewer viewer, long promptId, int rev, WantedPrompt wanted, String reason, boolean following) {
        Prompt before = prompts.lock(promptId);
        access.require(viewer, Act.MANAGE_CLASS, before.classId());
        if (before.rev() != rev)
            throw Problem.stale(
                    "prompt-changed", "Somebody has changed this prompt since you opened it. Yours was not kept.");
        if (following) prompts.following(before).forEach(p -> prompts.lock(p.id()));
        List<Change> all = changes(before, wanted, following);
        if (effects(all).needsReason()) requireReason(reason);
        for (Change change : all)
            scores.noting(viewer, change.after().id(), reason, () -> {
                prompts.change(viewer, change.after());
                members.dueMoved(change.after());
                if (change.after().reviews().self() != Reviews.Self.FIRST)
                    store.setOwnSaid(change.after().id());
                return change;
            });
    }

    /** What a student is allowed. */
    public AllowanceView allowance(Viewer viewer, long promptId, long studentId) {
        Prompt prompt = prompts.get(promptId);
        access.require(viewer, Act.MANAGE_CLASS, prompt.classId());
        if (!people.students(prompt.classId()).contains(studentId)) throw Problem.missing();
        Allowance allowance = prompts.allowance(promptId, studentId);
        return new AllowanceView(
                allowance.due() == null ? null : prompts.timeIn(prompt.classId(), allowance.due()),
                allowance.letOff(),
                allowance.again(),
                prompts.timeIn(prompt.classId(), prompt.due()));
    }

    /** Gives a student, or the group that hands in with them, an own date, lets them off, or takes both back. */
    @Transactional
    public void allow(Viewer viewer, long promptId, long studentId, WantedAllowance wanted) {
        Prompt prompt = prompts.lock(promptId);
        access.require(viewer, Act.MANAGE_CLASS, prompt.classId());
        if (!people.students(prompt.classId()).contains(studentId)) throw Problem.missing();
        Allowance allowance = new Allowance(
                wanted.due() == null ? null : prompts.momentIn(prompt.classId(), wanted.due()),
                wanted.letOff(),
                wanted.again());
        if (allowance.due() != null && !allowance.due().isAfter(prompt.opens()))
            throw Problem.invalid("due", "due-before-opening", "It must be due after it opens.");
        String reason = Objects.requireNonNullElse(wanted.reason(), "");
        scores.noting(viewer, promptId, reason.isBlank() ? said(allowance) : reason, () -> {
            for (long student : members.of(prompt).markedWith(studentId))
                prompts.allow(viewer, prompt, student, allowance);
            return allowance;
        });
    }

    /** What is told of a score that changes by it, if its marker says nothing else. */
    private static String said(Allowance allowance) {
        if (allowance.letOff()) return "You were let off.";
        if (allowance.again() && allowance.due() == null) return "You were allowed to hand in again.";
        return allowance.due() == null
                ? "The date of everybody counts for you again."
                : "You were given a date of your own.";
    }

    /** What changes of prompts of one class change together. */
    private PromptEffects effects(List<Change> changes) {
        long classId = changes.get(0).before().classId();
        Map<Long, List<MarkingDesk.Paper>> were =
                desk.papers(classId, changes.stream().map(Change::before).toList());
        Map<Long, List<MarkingDesk.Paper>> are =
                desk.papers(classId, changes.stream().map(Change::after).toList());
        return changes.stream()
                .map(c -> PromptEffects.of(
                        c.after().movesDatesOf(c.before()),
                        c.before().rubric(),
                        c.after().rubric(),
                        papers(were.get(c.before().id())),
                        papers(are.get(c.before().id()))))
                .reduce(PromptEffects.NONE, PromptEffects::and);
    }

    private static List<PromptEffects.Paper> papers(List<MarkingDesk.Paper> papers) {
        return papers.stream()
                .map(p -> new PromptEffects.Paper(
                        p.studentId(),
                        p.daysLate(),
                        p.shown(),
                        p.isShown(),
                        p.marks().stream().map(MarkingStore.Mark::criterion).collect(Collectors.toSet())))
                .toList();
    }

    private static void requireReason(String reason) {
        if (reason.isBlank())
            throw Problem.invalid(
                    "reason",
                    "reason-missing",
                    "Scores change that students have seen. Say why; they read it beside their score.");
        if (reason.length() > 1_000)
            throw Problem.invalid("reason", "reason-too-long", "A reason has at most 1,000 characters.");
    }
}

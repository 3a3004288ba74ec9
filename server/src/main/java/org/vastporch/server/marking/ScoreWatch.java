package org.vastporch.server.marking;

import java.math.BigDecimal;
import java.time.Clock;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.writing.ScoresKept;

/** Notes what becomes of scores that students have seen when a rule, a date or a time changes. */
@Component
class ScoreWatch implements ScoresKept {

    private final MarkingDesk desk;
    private final ScoreEventStore history;
    private final PromptService prompts;
    private final EventStore events;
    private final Clock clock;

    ScoreWatch(MarkingDesk desk, ScoreEventStore history, PromptService prompts, EventStore events, Clock clock) {
        this.desk = desk;
        this.history = history;
        this.prompts = prompts;
        this.events = events;
        this.clock = clock;
    }

    @Override
    public <T> T noting(Viewer viewer, long promptId, String reason, Supplier<T> change) {
        return noting(viewer.personId(), promptId, reason, change);
    }

    /**
     * The same of something that nobody's name may stand beside.
     *
     * @param by null for nobody
     */
    <T> T noting(@Nullable Long by, long promptId, String reason, Supplier<T> change) {
        Map<Long, BigDecimal> before = shown(prompts.get(promptId));
        T done = change.get();
        Prompt prompt = prompts.get(promptId);
        Map<Long, BigDecimal> after = shown(prompt);
        before.forEach((student, score) -> {
            BigDecimal now = after.get(student);
            if (Objects.equals(score, now)) return;
            note(by, promptId, student, ScoreEventStore.Kind.CHANGED, reason, score, now);
            events.add(prompt.classId(), "score-changed", student, by);
        });
        return done;
    }

    /** Notes what happened to the score of one paper. */
    void note(
            Viewer viewer,
            MarkingDesk.Paper paper,
            ScoreEventStore.Kind kind,
            String reason,
            @Nullable BigDecimal before,
            @Nullable BigDecimal after) {
        note(viewer.personId(), paper.prompt().id(), paper.studentId(), kind, reason, before, after);
    }

    private void note(
            @Nullable Long by,
            long promptId,
            long studentId,
            ScoreEventStore.Kind kind,
            String reason,
            @Nullable BigDecimal before,
            @Nullable BigDecimal after) {
        history.add(
                promptId,
                studentId,
                new ScoreEventStore.Happened(kind, clock.instant(), by, reason.strip(), before, after));
    }

    private Map<Long, BigDecimal> shown(Prompt prompt) {
        Map<Long, BigDecimal> shown = new LinkedHashMap<>();
        for (MarkingDesk.Paper paper :
                desk.papers(prompt.classId(), List.of(prompt)).get(prompt.id()))
            if (paper.isShown() && paper.shown() != null) shown.put(paper.studentId(), paper.shown());
        return shown;
    }
}

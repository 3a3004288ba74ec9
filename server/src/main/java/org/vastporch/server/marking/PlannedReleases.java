package org.vastporch.server.marking;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.marking.PlannedReleaseStore.Planned;
import org.vastporch.server.prompts.PromptService;

/** Marks that are shown at a time that was said before: all papers of a prompt that are finished by then. */
@Service
public class PlannedReleases {

    /**
     * @param at in the class's time of day; left out if nothing is planned
     * @param rev names what is planned; 0 for nothing
     */
    public record PlannedRelease(@Optionally LocalDateTime at, int rev) {}

    private static final Logger LOG = LoggerFactory.getLogger(PlannedReleases.class);
    private static final Duration FARTHEST = Duration.ofDays(366);
    private static final Duration AFTER_A_FAILURE = Duration.ofMinutes(10);

    private final PlannedReleaseStore store;
    private final ReleaseService releases;
    private final PromptService prompts;
    private final AccessService access;
    private final EventStore events;
    private final TransactionTemplate whole;
    private final Clock clock;
    private final Map<Long, Instant> failed = new ConcurrentHashMap<>();

    PlannedReleases(
            PlannedReleaseStore store,
            ReleaseService releases,
            PromptService prompts,
            AccessService access,
            EventStore events,
            TransactionTemplate whole,
            Clock clock) {
        this.store = store;
        this.releases = releases;
        this.prompts = prompts;
        this.access = access;
        this.events = events;
        this.whole = whole;
        this.clock = clock;
    }

    public PlannedRelease of(Viewer viewer, long promptId) {
        Prompt prompt = prompts.get(promptId);
        access.require(viewer, Act.MARK, prompt.classId());
        return view(prompt, store.find(promptId).orElse(null));
    }

    /**
     * Says when the finished marks of a prompt are shown, or that they are not by themselves.
     *
     * @param wanted when; and what was planned before, as it was seen
     */
    @Transactional
    public PlannedRelease plan(Viewer viewer, long promptId, PlannedRelease wanted) {
        Prompt prompt = prompts.lock(promptId);
        access.require(viewer, Act.MANAGE_CLASS, prompt.classId());
        Planned before = store.lock(promptId).orElse(null);
        if (wanted.rev() != (before == null ? 0 : before.rev()))
            throw Problem.stale("planned-meanwhile", "Somebody has changed this since you opened it.")
                    .with("planned", view(prompt, before));
        if (wanted.at() == null) {
            store.remove(promptId);
            events.add(prompt.classId(), "release-unplanned", promptId, viewer.personId());
            return view(prompt, null);
        }
        Instant at = prompts.momentIn(prompt.classId(), wanted.at());
        Instant now = clock.instant();
        if (!at.isAfter(now))
            throw Problem.invalid(
                    "at", "time-over", "This moment is over. Release the marks now, or say a later time.");
        if (at.isAfter(now.plus(FARTHEST)))
            throw Problem.invalid("at", "time-too-far", "Say a time within a year from now.");
        Planned planned = new Planned(promptId, at, viewer.personId(), before == null ? 1 : before.rev() + 1);
        store.set(planned);
        events.add(prompt.classId(), "release-planned", promptId, viewer.personId());
        return view(prompt, planned);
    }

    /** Shows what was to be shown by now. One prompt that fails holds up no other, and is tried again after a while. */
    @Scheduled(fixedDelayString = "${vastporch.releases.every:PT15S}")
    public void releaseWhatIsDue() {
        Instant now = clock.instant();
        for (long promptId : store.due(now)) {
            if (now.isBefore(failed.getOrDefault(promptId, now))) continue;
            try {
                whole.executeWithoutResult(transaction -> release(promptId));
                failed.remove(promptId);
            } catch (RuntimeException e) {
                failed.put(promptId, now.plus(AFTER_A_FAILURE));
                LOG.error("The marks of prompt {} could not be released at their time", promptId, e);
            }
        }
    }

    private void release(long promptId) {
        Planned planned = store.lock(promptId).orElse(null);
        if (planned == null || planned.at().isAfter(clock.instant())) return;
        store.remove(promptId);
        Viewer viewer = access.viewer(planned.byId());
        // Who may not release any more releases nothing, however long ago it was said.
        if (access.allows(viewer, Act.MANAGE_CLASS, prompts.get(promptId).classId()))
            releases.releaseFinished(viewer, promptId);
    }

    private PlannedRelease view(Prompt prompt, @Nullable Planned planned) {
        return planned == null
                ? new PlannedRelease(null, 0)
                : new PlannedRelease(prompts.timeIn(prompt.classId(), planned.at()), planned.rev());
    }
}

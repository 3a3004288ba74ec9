package org.vastporch.server.peers;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.Map;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/** Looks after rounds of peer review. One that fails holds up no other, and is tried again after a while. */
@Component
class PeerClock {

    private static final Logger LOG = LoggerFactory.getLogger(PeerClock.class);
    private static final Duration AFTER_A_FAILURE = Duration.ofMinutes(5);

    private final PeerReviewStore store;
    private final PeerRoundService rounds;
    private final Map<Long, Instant> failed = new HashMap<>();
    private final Clock clock;

    PeerClock(PeerReviewStore store, PeerRoundService rounds, Clock clock) {
        this.store = store;
        this.rounds = rounds;
        this.clock = clock;
    }

    @Scheduled(fixedDelayString = "${vastporch.peers.every:PT15S}")
    public void tick() {
        Instant now = clock.instant();
        for (long promptId : store.running(now)) {
            if (now.isBefore(failed.getOrDefault(promptId, now))) continue;
            try {
                rounds.tick(promptId);
                failed.remove(promptId);
            } catch (RuntimeException e) {
                failed.put(promptId, now.plus(AFTER_A_FAILURE));
                LOG.error("The peer review of prompt {} could not be looked after", promptId, e);
            }
        }
    }
}

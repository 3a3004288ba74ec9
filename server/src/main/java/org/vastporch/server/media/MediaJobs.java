package org.vastporch.server.media;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Gives the room of files back that nothing shows any more. */
@Component
public class MediaJobs {

    /** So long somebody may still take a decision back, or find a picture again that was cut out of a draft. */
    static final Duration KEPT = Duration.ofDays(30);

    private static final Duration ON_ITS_WAY = Duration.ofDays(1);

    private final MediaStore store;
    private final Clock clock;

    MediaJobs(MediaStore store, Clock clock) {
        this.store = store;
        this.clock = clock;
    }

    @Scheduled(initialDelay = 60_000, fixedDelay = 3_600_000)
    @Transactional
    public void dropUnused() {
        Instant now = clock.instant();
        store.dropUnused(now.minus(KEPT), now.minus(ON_ITS_WAY));
    }
}

package org.vastporch.server.writing;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/** What happens to posts by itself. The rows say what is due, so a restart forgets nothing. */
@Component
public class PostJobs {

    static final Duration BIN = Duration.ofDays(30);
    private static final Logger log = LoggerFactory.getLogger(PostJobs.class);

    private final PostStore store;
    private final PostService posts;
    private final Clock clock;

    PostJobs(PostStore store, PostService posts, Clock clock) {
        this.store = store;
        this.posts = posts;
        this.clock = clock;
    }

    @Scheduled(fixedDelay = 1_000)
    void publishWhatIsDue() {
        for (long id : store.due(clock.instant())) {
            try {
                posts.publishDue(id);
            } catch (RuntimeException e) {
                log.warn("Post {} could not be published; it is tried again", id, e);
            }
        }
    }

    @Scheduled(fixedDelay = 3_600_000)
    public void emptyTheBin() {
        Instant now = clock.instant();
        int emptied = store.empty(now.minus(BIN), now);
        if (emptied > 0) log.info("{} posts that lay in the bin for 30 days were thrown away", emptied);
    }
}

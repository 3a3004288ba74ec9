package org.vastporch.server.http;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import io.github.bucket4j.Bucket;
import java.time.Duration;

/**
 * How often somebody may do a thing that could be overdone: so many times an hour for each person, or for each network
 * address of visitors.
 */
public final class Allowance {

    private static final int MOST_KEYS = 20_000;
    private static final Duration HOUR = Duration.ofHours(1);

    private final int anHour;
    /** Kept under hashes, and for an hour: a bucket that nobody took from for so long is full. */
    private final Cache<String, Bucket> buckets =
            Caffeine.newBuilder().maximumSize(MOST_KEYS).expireAfterAccess(HOUR).build();

    public Allowance(int anHour) {
        this.anHour = anHour;
    }

    /** Takes one from what is left; false if nothing is. */
    public boolean take(String who) {
        return buckets.get(Tokens.hash(who), w -> Bucket.builder()
                        .addLimit(limit -> limit.capacity(anHour).refillGreedy(anHour, HOUR))
                        .build())
                .tryConsume(1);
    }
}

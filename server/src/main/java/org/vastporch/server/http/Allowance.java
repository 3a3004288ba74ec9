package org.vastporch.server.http;

import io.github.bucket4j.Bucket;
import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.Map;

/** How often somebody may do a thing that could be overdone: so many times an hour for each person, or for each network address of visitors. */
public final class Allowance {

    private static final int MOST_KEYS = 20_000;

    private final int anHour;
    private final Map<String, Bucket> buckets = new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<String, Bucket> eldest) {
            return size() > MOST_KEYS;
        }
    };

    public Allowance(int anHour) {
        this.anHour = anHour;
    }

    /** Takes one from what is left; false if nothing is. */
    public synchronized boolean take(String who) {
        return buckets.computeIfAbsent(who, w -> Bucket.builder().addLimit(limit -> limit.capacity(anHour).refillGreedy(anHour, Duration.ofHours(1))).build()).tryConsume(1);
    }
}

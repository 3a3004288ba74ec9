package org.vastporch.server.comments;

import io.github.bucket4j.Bucket;
import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.Map;

/** How much visitors without an account may write: a few comments an hour from one network address. */
final class VisitorLimit {

    private static final int AN_HOUR = 6;
    private static final int MOST_KEYS = 20_000;

    private final Map<String, Bucket> buckets = new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<String, Bucket> eldest) {
            return size() > MOST_KEYS;
        }
    };

    synchronized boolean mayComment(String address) {
        return buckets.computeIfAbsent(address, a -> Bucket.builder().addLimit(limit -> limit.capacity(AN_HOUR).refillGreedy(AN_HOUR, Duration.ofHours(1))).build()).tryConsume(1);
    }
}

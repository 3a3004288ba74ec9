package org.vastporch.server.session;

import io.github.bucket4j.Bucket;
import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.Map;

/**
 * Counts failures by key and says when it is enough for now. A whole class signs in from one address, so only failures count.
 * The keys least used are forgotten when there are too many.
 */
final class Throttle {

    private static final int MOST_KEYS = 20_000;

    private final int failures;
    private final Duration within;
    private final Map<String, Bucket> buckets = new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<String, Bucket> eldest) {
            return size() > MOST_KEYS;
        }
    };

    Throttle(int failures, Duration within) {
        this.failures = failures;
        this.within = within;
    }

    synchronized boolean isOpen(String key) {
        Bucket bucket = buckets.get(key);
        return bucket == null || bucket.getAvailableTokens() > 0;
    }

    synchronized void failed(String key) {
        buckets.computeIfAbsent(key, k -> Bucket.builder()
            .addLimit(limit -> limit.capacity(failures).refillGreedy(failures, within)).build()).tryConsume(1);
    }

    synchronized void succeeded(String key) {
        buckets.remove(key);
    }
}

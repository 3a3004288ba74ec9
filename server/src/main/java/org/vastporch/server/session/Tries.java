package org.vastporch.server.session;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.util.concurrent.Semaphore;
import java.util.concurrent.atomic.AtomicInteger;
import org.springframework.stereotype.Component;
import org.vastporch.core.people.Guessing;
import org.vastporch.server.http.Problem;
import org.vastporch.server.http.Tokens;

/**
 * Counts tries at passwords and codes that did not work, and lets the next one wait as the core says. A try counts from
 * its beginning, so that many at once do not count as one. What is counted is kept under hashes, for half an hour, and
 * for so many keys at most.
 */
@Component
class Tries {

    private static final int MOST_KEYS = 50_000;
    private static final Duration KEPT = Duration.ofMinutes(30);
    /** So many may wait at once; more would take the threads of those who do not have to. */
    private static final int MOST_WAITING = 40;

    private final Cache<String, AtomicInteger> failed =
            Caffeine.newBuilder().maximumSize(MOST_KEYS).expireAfterWrite(KEPT).build();
    /** How often the keeper has let an account begin anew; it is part of the account's keys. */
    private final Cache<String, Integer> lifted =
            Caffeine.newBuilder().maximumSize(MOST_KEYS).expireAfterWrite(KEPT).build();

    private final Semaphore waiting = new Semaphore(MOST_WAITING);
    private final Pause pause;

    Tries(Pause pause) {
        this.pause = pause;
    }

    /** A try at the password of an account; closed by {@link #right} if it worked. */
    final class OfPassword {
        private final String[] keys;

        private OfPassword(String account, String address, String device) {
            Integer anew = lifted.getIfPresent(hash("account", account));
            String of = account + (anew == null ? "" : " " + anew);
            keys = new String[] {
                hash("together", of, address), hash("account", of), hash("address", address), hash("device", of, device)
            };
        }

        /** It was not looked at, so it says nothing of who tried. */
        void notLookedAt() {
            for (String key : keys) minus(key);
        }

        /** It worked: what was counted against the two together is forgotten, and it is no try that failed. */
        void right() {
            failed.invalidate(keys[0]);
            failed.invalidate(keys[3]);
            minus(keys[1]);
            minus(keys[2]);
        }
    }

    /**
     * Begins a try at a password; returns when it may be answered.
     *
     * @param known whether the account signed in on this device before
     * @throws Problem if too many others wait already
     */
    OfPassword password(String account, String address, String device, boolean known) {
        OfPassword tried = new OfPassword(account, address, device);
        Guessing.Failed before =
                new Guessing.Failed(plus(tried.keys[0]), plus(tried.keys[1]), plus(tried.keys[2]), plus(tried.keys[3]));
        pause(Guessing.beforePassword(before, known));
        return tried;
    }

    /** Lets an account begin anew. */
    void lift(String account) {
        lifted.asMap().merge(hash("account", account), 1, Integer::sum);
    }

    /** Waits before a code or one-time address is looked at. */
    void beforeCode(String address) {
        pause(Guessing.beforeCode(count(hash("code", address))));
    }

    void wrongCode(String address) {
        plus(hash("code", address));
    }

    /** Counts one more and tells how many there were before. */
    private int plus(String key) {
        return failed.get(key, k -> new AtomicInteger()).getAndIncrement();
    }

    private void minus(String key) {
        AtomicInteger count = failed.getIfPresent(key);
        if (count != null) count.updateAndGet(n -> Math.max(0, n - 1));
    }

    private int count(String key) {
        AtomicInteger count = failed.getIfPresent(key);
        return count == null ? 0 : count.get();
    }

    private static String hash(String... parts) {
        return Tokens.hash(String.join("\n", parts));
    }

    private void pause(Duration wait) {
        if (wait.isZero()) return;
        if (!waiting.tryAcquire())
            throw Problem.tooMany("Very many are trying at this moment. Please try again in a minute.")
                    .retryAfter(Duration.ofMinutes(1));
        try {
            pause.last(wait);
        } finally {
            waiting.release();
        }
    }
}

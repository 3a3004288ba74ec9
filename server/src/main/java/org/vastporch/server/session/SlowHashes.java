package org.vastporch.server.session;

import java.time.Duration;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Component;
import org.vastporch.server.http.Problem;

/**
 * Compares passwords, which is slow on purpose. Half of the processors do that at most: when a whole school signs in,
 * those who are in already read and write on.
 */
@Component
class SlowHashes {

    private static final int LINE = 100;
    private static final int PATIENCE_SECONDS = 10;
    private static final Duration COME_BACK = Duration.ofSeconds(30);

    private final PasswordEncoder passwords;
    private final Semaphore inLine = new Semaphore(LINE);
    private final Semaphore working =
            new Semaphore(Math.max(1, Runtime.getRuntime().availableProcessors() / 2), true);

    SlowHashes(PasswordEncoder passwords) {
        this.passwords = passwords;
    }

    /** @throws Problem if more wait already than get their turn in time */
    boolean matches(String typed, String hash) {
        if (!inLine.tryAcquire()) throw busy();
        try {
            if (!working.tryAcquire(PATIENCE_SECONDS, TimeUnit.SECONDS)) throw busy();
            try {
                return passwords.matches(typed, hash);
            } finally {
                working.release();
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw busy();
        } finally {
            inLine.release();
        }
    }

    private static Problem busy() {
        return Problem.tooMany("Very many people sign in at this moment. Please try again in half a minute.")
                .retryAfter(COME_BACK);
    }
}

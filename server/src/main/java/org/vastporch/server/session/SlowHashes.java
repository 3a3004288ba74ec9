package org.vastporch.server.session;

import java.time.Duration;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Component;
import org.vastporch.server.http.InTurn;
import org.vastporch.server.http.Problem;

/**
 * Compares passwords, which is slow on purpose. Half of the processors do that at most: when a whole school signs in,
 * those who are in already read and write on.
 */
@Component
class SlowHashes {

    private static final int MAY_WAIT = 100;
    private static final Duration PATIENCE = Duration.ofSeconds(10);
    private static final Duration COME_BACK = Duration.ofSeconds(30);
    private static final int HALF = Math.max(1, Runtime.getRuntime().availableProcessors() / 2);

    private final PasswordEncoder passwords;
    private final InTurn turns = new InTurn(HALF, MAY_WAIT, PATIENCE, SlowHashes::busy);

    SlowHashes(PasswordEncoder passwords) {
        this.passwords = passwords;
    }

    /** @throws Problem if more wait already than get their turn in time */
    boolean matches(String typed, String hash) {
        return turns.take(() -> passwords.matches(typed, hash));
    }

    private static Problem busy() {
        return Problem.tooMany("Very many people sign in at this moment. Please try again in half a minute.")
                .retryAfter(COME_BACK);
    }
}

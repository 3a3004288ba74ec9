package org.vastporch.core.people;

import java.time.Duration;

/**
 * How long an answer to a try at a password or code waits after tries that did not work. It comes later and later
 * instead of being refused: nobody locks somebody else out, and nobody who stands behind the address of a whole school
 * suffers for others by more than a few seconds.
 */
public final class Guessing {

    /** A few slips of the fingers are answered at once. */
    static final int FREE = 3;

    private static final Duration LONGEST = Duration.ofSeconds(30);

    /** So many tries from a device that signed in before are answered at once. */
    private static final int FREE_AT_HOME = 5;

    private Guessing() {}

    /**
     * Tries that did not work lately.
     *
     * @param together for this account from this network address
     * @param account for this account from anywhere
     * @param address from this network address for any account
     * @param device for this account from this device
     */
    public record Failed(int together, int account, int address, int device) {}

    /**
     * The wait before the next try at a password is answered.
     *
     * @param known whether this account signed in on this device before
     */
    public static Duration beforePassword(Failed failed, boolean known) {
        if (known && failed.device() < FREE_AT_HOME) return Duration.ZERO;
        Duration together = growing(failed.together(), FREE, LONGEST);
        return longest(together, steps(failed.account(), 30, 100), steps(failed.address(), 100, 300));
    }

    /**
     * The wait before the next try at a code or one-time address is answered.
     *
     * @param address tries from this network address that did not work lately; a class that mistypes its code stays
     *     below the first 30
     */
    public static Duration beforeCode(int address) {
        return growing(address, 30, Duration.ofSeconds(10));
    }

    /** A second after the free ones, twice as long after each further one. */
    private static Duration growing(int failed, int free, Duration most) {
        if (failed < free) return Duration.ZERO;
        Duration wait = Duration.ofSeconds(1L << Math.min(failed - free, 10));
        return wait.compareTo(most) < 0 ? wait : most;
    }

    private static Duration steps(int failed, int first, int second) {
        return failed < first ? Duration.ZERO : Duration.ofSeconds(failed < second ? 2 : 5);
    }

    private static Duration longest(Duration... waits) {
        Duration longest = Duration.ZERO;
        for (Duration wait : waits) if (wait.compareTo(longest) > 0) longest = wait;
        return longest;
    }
}

package org.vastporch.server;

import java.time.Duration;
import java.time.Instant;

/** How far the long proofs go: a seeded sample in a run of all tests, everything with {@code -Dporch.prove=MINUTES}. */
final class Proof {

    private static final long SEED = Long.getLong("porch.seed", 20261126L);

    private Proof() {}

    static boolean isWhole() {
        return Integer.getInteger("porch.prove", 0) > 0;
    }

    /** Rounds of each race. */
    static int rounds() {
        return isWhole() ? 1_000 : 4;
    }

    /** Whether a part of a long proof has taken its share of the minutes that were given. */
    static boolean isOver(Instant begun, int parts) {
        return isWhole()
                && Instant.now()
                        .isAfter(begun.plus(Duration.ofMinutes(Integer.getInteger("porch.prove"))
                                .dividedBy(parts)));
    }

    /** By which chance the sample is drawn; the same one plays a failure again. */
    static long seed() {
        return SEED;
    }

    static Progress progress(String what, int of) {
        return new Progress(what, of);
    }

    /** Says how far a long proof is, a few times. */
    static final class Progress {
        private final String what;
        private final int of;
        private int done;

        private Progress(String what, int of) {
            this.what = what;
            this.of = of;
            if (isWhole()) System.err.println("proof: " + what + ", " + of + " steps, seed " + SEED);
        }

        void step() {
            done++;
            if (isWhole() && done % Math.max(1, of / 10) == 0)
                System.err.println("proof: " + what + " " + done + " of " + of);
        }

        void end(String found) {
            if (isWhole()) System.err.println("proof: " + what + ", all done, " + found);
        }
    }
}

package org.vastporch.core.agreement;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;

/**
 * How far two sides agree on one criterion.
 *
 * @param pairs how many papers both gave a level for, at least {@value #FEWEST}
 * @param meanDifference how many levels the second side gives more than the first, on average; below 0 if it gives less
 * @param exact the share of pairs with the same level, 0 to 1
 * @param withinOne the share of pairs that are at most one level apart, 0 to 1
 * @param kappa empty where the levels of a side do not vary: then it says nothing
 */
public record Agreement(int pairs, double meanDifference, double exact, double withinOne, Optional<Kappa> kappa) {

    /** Of fewer pairs nothing is said. */
    public static final int FEWEST = 5;

    private static final int RESAMPLES = 2_000;
    /** From half a level on, a side is said to give more. */
    private static final double LEANS = 0.5;

    private static final double MOSTLY_EXACT = 0.5;
    private static final double NEARLY_ALL = 0.9;

    /**
     * The levels that two sides gave for one paper, counted from the lowest, 0.
     *
     * @param first of the side that the other is compared with
     */
    public record Pair(int first, int second) {}

    /**
     * Agreement beyond what the sides' own habits would bring about by chance: 1 if all pairs are the same, 0 if no
     * better than chance.
     *
     * @param low the lower end of a 95 % interval
     * @param high its upper end
     */
    public record Kappa(double value, double low, double high) {}

    /** What it comes to, in a word. */
    public enum Verdict {
        ALIKE,
        FIRST_GIVES_MORE,
        SECOND_GIVES_MORE,
        /** Neither side gives more, and yet they are often apart. */
        APART
    }

    /**
     * Compares two sides.
     *
     * @param seed of the resampling; the same one gives the same interval
     * @return empty for fewer than {@value #FEWEST} pairs
     */
    public static Optional<Agreement> of(List<Pair> pairs, long seed) {
        int n = pairs.size();
        if (n < FEWEST) return Optional.empty();
        int[] first = pairs.stream().mapToInt(Pair::first).toArray();
        int[] second = pairs.stream().mapToInt(Pair::second).toArray();
        int more = 0;
        int same = 0;
        int near = 0;
        for (int i = 0; i < n; i++) {
            int apart = second[i] - first[i];
            more += apart;
            if (apart == 0) same++;
            if (Math.abs(apart) <= 1) near++;
        }
        return Optional.of(new Agreement(
                n,
                (double) more / n,
                (double) same / n,
                (double) near / n,
                varies(first) && varies(second) ? Optional.of(interval(first, second, seed)) : Optional.empty()));
    }

    public Verdict verdict() {
        if (meanDifference >= LEANS) return Verdict.SECOND_GIVES_MORE;
        if (meanDifference <= -LEANS) return Verdict.FIRST_GIVES_MORE;
        return exact >= MOSTLY_EXACT && withinOne >= NEARLY_ALL ? Verdict.ALIKE : Verdict.APART;
    }

    private static boolean varies(int[] levels) {
        return Arrays.stream(levels).anyMatch(l -> l != levels[0]);
    }

    /**
     * Cohen, "Weighted kappa", Psychological Bulletin 70 (1968), with the squares of the distances as weights: one less
     * the mean square of the distances in the pairs over that between any two of both sides. The number of levels falls
     * out of it.
     *
     * @return NaN where both sides gave one and the same level alone
     */
    static double kappa(int[] first, int[] second) {
        int n = first.length;
        long inPairs = 0;
        long sumFirst = 0;
        long sumSecond = 0;
        long squares = 0;
        for (int i = 0; i < n; i++) {
            long apart = first[i] - second[i];
            inPairs += apart * apart;
            sumFirst += first[i];
            sumSecond += second[i];
            squares += (long) first[i] * first[i] + (long) second[i] * second[i];
        }
        // n times the squares, less twice the product of the sums: the squares of all n × n distances.
        long amongAll = n * squares - 2 * sumFirst * sumSecond;
        return amongAll == 0 ? Double.NaN : 1 - (double) n * inPairs / amongAll;
    }

    /** The interval between the 2.5th and the 97.5th of a hundred resamples, pairs drawn with putting back. */
    private static Kappa interval(int[] first, int[] second, long seed) {
        SplittableRandom random = new SplittableRandom(seed);
        int n = first.length;
        int[] a = new int[n];
        int[] b = new int[n];
        double[] drawn = new double[RESAMPLES];
        for (int r = 0; r < RESAMPLES; r++) {
            for (int i = 0; i < n; i++) {
                int of = random.nextInt(n);
                a[i] = first[of];
                b[i] = second[of];
            }
            drawn[r] = kappa(a, b);
        }
        double[] said =
                Arrays.stream(drawn).filter(k -> !Double.isNaN(k)).sorted().toArray();
        return new Kappa(
                kappa(first, second),
                said[(int) Math.floor(0.025 * (said.length - 1))],
                said[(int) Math.ceil(0.975 * (said.length - 1))]);
    }
}

package org.vastporch.core.marking;

import java.math.BigDecimal;
import java.util.List;
import org.vastporch.core.rubrics.Fraction;

/** Where one criterion goes over the papers of one student, in words that a child can be told. */
public enum Trend {
    /** Fewer than three papers: nothing is said. */
    TOO_FEW,
    UP,
    DOWN,
    STEADY;

    private static final int FEWEST = 3;
    /** A fifth of the points, about half a step of a stair: less than that is no change. */
    private static final Fraction LEAST = Fraction.of(new BigDecimal("0.2"));

    /**
     * The later half of the papers against the earlier half; of an odd number the one in the middle belongs to neither.
     *
     * @param shares of the highest points, 0 to 1, in the order of time
     */
    public static Trend of(List<Fraction> shares) {
        if (shares.size() < FEWEST) return TOO_FEW;
        int half = shares.size() / 2;
        Fraction change =
                mean(shares.subList(shares.size() - half, shares.size())).minus(mean(shares.subList(0, half)));
        if (change.compareTo(LEAST) >= 0) return UP;
        return Fraction.ZERO.minus(change).compareTo(LEAST) >= 0 ? DOWN : STEADY;
    }

    private static Fraction mean(List<Fraction> shares) {
        return shares.stream()
                .reduce(Fraction.ZERO, Fraction::plus)
                .dividedBy(Fraction.of(BigDecimal.valueOf(shares.size())));
    }
}

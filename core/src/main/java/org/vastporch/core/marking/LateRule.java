package org.vastporch.core.marking;

import java.math.BigDecimal;
import org.vastporch.core.Refusal;
import org.vastporch.core.rubrics.RubricScore;

/**
 * What lateness costs: with a score r and a loss of {@code min(cap, perDay × days)} it is {@code min(r, max(floor, r ×
 * (1 − loss)))}, all exact.
 *
 * @param perDay share lost for each started day, 0 to 1
 * @param cap the largest share that can be lost, 0 to 1
 * @param floor points below which lateness does not push a score
 */
public record LateRule(BigDecimal perDay, BigDecimal cap, BigDecimal floor) {

    public static final LateRule NONE = new LateRule(BigDecimal.ZERO, BigDecimal.ZERO, BigDecimal.ZERO);

    public LateRule {
        requireShare("latePercentPerDay", "A day late", perDay);
        requireShare("lateMostPercent", "The most that lateness takes", cap);
        if (floor.signum() < 0)
            throw new Refusal("lateFloor", "late-floor", "The floor must not be below 0, was " + floor);
    }

    /** The share lost after so many started days late (0 or more). */
    public BigDecimal shareLost(int days) {
        return perDay.multiply(BigDecimal.valueOf(days)).min(cap);
    }

    /** The score after lateness: never more than it was, and not less than the floor if it was more. */
    public RubricScore apply(RubricScore score, int days) {
        if (days <= 0) return score;
        return score.times(BigDecimal.ONE.subtract(shareLost(days)))
                .atLeast(floor)
                .atMost(score);
    }

    private static void requireShare(String field, String what, BigDecimal share) {
        if (share.signum() < 0 || share.compareTo(BigDecimal.ONE) > 0)
            throw new Refusal(field, "late-share", what + " must cost between 0 and 1 of the points, was " + share);
    }
}

package org.vastporch.core.rubrics;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.util.Map;
import java.util.Set;
import org.vastporch.core.Refusal;

/**
 * A score in exact arithmetic: {@code P × Σ w_c·(points_c / max_c) / Σ w_c} over the criteria given. Kept as a
 * fraction, since thirds have no decimal; rounded (half up) only for show.
 *
 * @param provisional whether a criterion that counts has no points yet
 * @param open how many such criteria there are
 */
public record RubricScore(BigInteger numerator, BigInteger denominator, boolean provisional, int open) {

    /**
     * @param outOf the prompt's points P, not below 0
     * @param given points by the identity of their criterion, each between its lowest and highest; those of criteria
     *     that are not in the rubric count nothing
     * @param notCounted identities of criteria that do not count for this student
     * @throws Refusal if points lie outside their criterion
     */
    public static RubricScore of(
            Rubric rubric, BigDecimal outOf, Map<String, BigDecimal> given, Set<String> notCounted) {
        Fraction sum = Fraction.ZERO;
        Fraction weights = Fraction.ZERO;
        int open = 0;
        for (Rubric.Criterion criterion : rubric.criteria()) {
            if (notCounted.contains(criterion.id())) continue;
            BigDecimal points = given.get(criterion.id());
            if (points == null) {
                open++;
                continue;
            }
            criterion.require(points);
            Fraction weight = Fraction.of(criterion.weight());
            sum = sum.plus(weight.times(Fraction.of(points)).dividedBy(Fraction.of(criterion.highest())));
            weights = weights.plus(weight);
        }
        Fraction score = weights.signum() == 0
                ? Fraction.ZERO
                : Fraction.of(outOf).times(sum).dividedBy(weights);
        return new RubricScore(score.n(), score.d(), open > 0, open);
    }

    public Fraction exact() {
        return new Fraction(numerator, denominator);
    }

    /** The score times an exact factor, such as what lateness leaves of it. */
    public RubricScore times(BigDecimal factor) {
        Fraction product = exact().times(Fraction.of(factor));
        return new RubricScore(product.n(), product.d(), provisional, open);
    }

    /** The larger of the score and a floor. */
    public RubricScore atLeast(BigDecimal floor) {
        Fraction low = Fraction.of(floor);
        RubricScore least = new RubricScore(low.n(), low.d(), provisional, open);
        return isLess(least) ? least : this;
    }

    /** The smaller of two scores. */
    public RubricScore atMost(RubricScore other) {
        return other.isLess(this) ? other : this;
    }

    private boolean isLess(RubricScore other) {
        return exact().compareTo(other.exact()) < 0;
    }

    /** The score for show, rounded half up to so many places (0 or more). */
    public BigDecimal rounded(int places) {
        return exact().rounded(places);
    }
}

package org.vastporch.core.marking;

import java.math.BigDecimal;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.vastporch.core.rubrics.Fraction;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.core.rubrics.RubricScore;

/**
 * What a paper scores, before lateness and after it.
 *
 * @param before by the rubric alone
 * @param score what lateness leaves of it
 * @param shareLost 0 to 1
 */
public record PaperScore(RubricScore before, RubricScore score, BigDecimal shareLost) {

    /**
     * What another reading than the marker's is of the score.
     *
     * @param percent 0 to 100; all of one paper are 100 at most
     * @param given points by the identity of their criterion; what it says nothing about is not in its part
     */
    public record Share(int percent, Map<String, BigDecimal> given) {}

    /**
     * @param outOf the points of the prompt, not below 0
     * @param given points by the identity of their criterion
     * @param notCounted identities of the criteria that do not count for this student
     * @param daysLate 0 or more
     */
    public static PaperScore of(
            Rubric rubric,
            BigDecimal outOf,
            LateRule late,
            Map<String, BigDecimal> given,
            Set<String> notCounted,
            int daysLate) {
        return of(rubric, outOf, late, given, notCounted, List.of(), daysLate);
    }

    /** @param shares of other readings that are there; the share of one that is not there goes to the marker's */
    public static PaperScore of(
            Rubric rubric,
            BigDecimal outOf,
            LateRule late,
            Map<String, BigDecimal> given,
            Set<String> notCounted,
            List<Share> shares,
            int daysLate) {
        RubricScore lead = RubricScore.of(rubric, outOf, given, notCounted);
        RubricScore before = shares.isEmpty() ? lead : shared(rubric, outOf, lead, notCounted, shares);
        return new PaperScore(
                before, late.apply(before, daysLate), daysLate > 0 ? late.shareLost(daysLate) : BigDecimal.ZERO);
    }

    private static RubricScore shared(
            Rubric rubric, BigDecimal outOf, RubricScore lead, Set<String> notCounted, List<Share> shares) {
        Fraction sum = Fraction.ZERO;
        int left = 100;
        for (Share share : shares) {
            Set<String> out = new HashSet<>(notCounted);
            for (Rubric.Criterion criterion : rubric.criteria())
                if (!share.given().containsKey(criterion.id())) out.add(criterion.id());
            if (rubric.criteria().stream().allMatch(c -> out.contains(c.id()))) continue;
            left -= share.percent();
            sum = sum.plus(
                    RubricScore.of(rubric, outOf, share.given(), out).exact().times(hundredths(share.percent())));
        }
        Fraction whole = lead.exact().times(hundredths(left)).plus(sum);
        return new RubricScore(whole.n(), whole.d(), lead.provisional(), lead.open());
    }

    private static Fraction hundredths(int percent) {
        return Fraction.of(BigDecimal.valueOf(percent, 2));
    }
}

package org.vastporch.core.marking;

import java.math.BigDecimal;
import java.util.Map;
import java.util.Set;
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
        RubricScore before = RubricScore.of(rubric, outOf, given, notCounted);
        return new PaperScore(
                before, late.apply(before, daysLate), daysLate > 0 ? late.shareLost(daysLate) : BigDecimal.ZERO);
    }
}

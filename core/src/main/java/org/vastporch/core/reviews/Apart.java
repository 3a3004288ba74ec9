package org.vastporch.core.reviews;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import org.vastporch.core.marking.Marks;
import org.vastporch.core.rubrics.Fraction;
import org.vastporch.core.rubrics.Rubric;

/**
 * How far two readings of one paper are apart on one criterion.
 *
 * @param criterion by its identity
 * @param name of the criterion
 * @param steps how many levels the first reading lies above the second; below 0 if it lies below it
 * @param most the most that it could be
 */
public record Apart(String criterion, String name, int steps, int most) {

    /** For each criterion for which both give points, in the order of the rubric. */
    public static List<Apart> of(Rubric rubric, Marks first, Marks second) {
        List<Apart> apart = new ArrayList<>();
        for (Rubric.Criterion criterion : rubric.criteria()) {
            BigDecimal one = points(first, criterion);
            BigDecimal other = points(second, criterion);
            if (one == null || other == null) continue;
            apart.add(new Apart(
                    criterion.id(),
                    criterion.name(),
                    criterion.step(one) - criterion.step(other),
                    criterion.levels().size() - 1));
        }
        return apart;
    }

    private static BigDecimal points(Marks marks, Rubric.Criterion criterion) {
        return marks.of(criterion.id()).map(Marks.Mark::points).orElse(null);
    }

    /** How near they are: 1 for the same level, 0 for as far apart as can be. */
    public Fraction nearness() {
        Fraction share =
                Fraction.of(BigDecimal.valueOf(Math.abs(steps))).dividedBy(Fraction.of(BigDecimal.valueOf(most)));
        return Fraction.of(BigDecimal.ONE).minus(share);
    }
}

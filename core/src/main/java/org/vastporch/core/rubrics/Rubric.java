package org.vastporch.core.rubrics;

import java.math.BigDecimal;
import java.util.List;
import org.vastporch.core.Refusal;

/**
 * A rubric: criteria by levels. An immutable value; a change makes another one.
 *
 * @param criteria one or more
 */
public record Rubric(List<Criterion> criteria) {

    /** One thing that is looked at. Levels rise from the lowest to the highest. */
    public record Criterion(String name, BigDecimal weight, List<Level> levels) {
        public Criterion {
            if (name.isBlank()) throw new Refusal("rubric", "criterion-name", "A criterion needs a name.");
            if (weight.signum() <= 0)
                throw new Refusal(
                        "rubric",
                        "criterion-weight",
                        "The weight of \"" + name + "\" must be more than 0, was " + weight);
            if (levels.size() < 2)
                throw new Refusal("rubric", "criterion-levels", "\"" + name + "\" needs at least two levels.");
            levels = List.copyOf(levels);
            for (int i = 1; i < levels.size(); i++)
                if (levels.get(i).points().compareTo(levels.get(i - 1).points()) <= 0)
                    throw new Refusal(
                            "rubric",
                            "levels-order",
                            "The levels of \"" + name + "\" must rise, but "
                                    + levels.get(i).points() + " follows "
                                    + levels.get(i - 1).points());
            if (levels.get(0).points().signum() < 0)
                throw new Refusal("rubric", "points-range", "Points of \"" + name + "\" must not be below 0");
        }

        public BigDecimal lowest() {
            return levels.get(0).points();
        }

        public BigDecimal highest() {
            return levels.get(levels.size() - 1).points();
        }

        /** Tells whether a marker may give these points: anything from the lowest level to the highest. */
        public boolean allows(BigDecimal points) {
            return points.compareTo(lowest()) >= 0 && points.compareTo(highest()) <= 0;
        }
    }

    /** @param descriptor what a text on this level shows; may be empty */
    public record Level(String name, BigDecimal points, String descriptor) {}

    public Rubric {
        if (criteria.isEmpty()) throw new Refusal("rubric", "rubric-empty", "A rubric needs at least one criterion.");
        criteria = List.copyOf(criteria);
    }
}

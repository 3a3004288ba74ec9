package org.vastporch.core.rubrics;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.vastporch.core.Refusal;

/**
 * A rubric: criteria by levels. An immutable value; a change makes another one.
 *
 * @param criteria 1 to 12, each with a name and an identity of its own; one that comes without an identity is given one
 */
public record Rubric(List<Criterion> criteria) {

    public static final int MOST_CRITERIA = 12;
    public static final int MOST_LEVELS = 8;
    private static final int LONGEST_NAME = 120;
    private static final int LONGEST_DESCRIPTOR = 2_000;
    private static final BigDecimal MOST = BigDecimal.valueOf(10_000);

    /**
     * One thing that is looked at.
     *
     * @param id what it is known by when the rubric has changed: marks are bound to it, not to a place or a name. Empty
     *     for one that has none yet
     * @param weight above 0, at most 10,000
     * @param levels 2 to 8, rising from the lowest to the highest
     * @param counted what the program counts for it, each thing once, in one order; empty for nothing
     */
    public record Criterion(String id, String name, BigDecimal weight, List<Level> levels, List<Measure> counted) {
        public Criterion {
            if (id == null) id = "";
            counted = counted == null
                    ? List.of()
                    : counted.stream()
                            .sorted(Comparator.comparing(Measure::what))
                            .toList();
            if (id.length() > 40)
                throw new Refusal("rubric", "criterion-id", "The identity of a criterion has at most 40 characters.");
            name = name.strip();
            if (name.isEmpty()) throw new Refusal("rubric", "criterion-name", "A criterion needs a name.");
            if (name.length() > LONGEST_NAME)
                throw new Refusal(
                        "rubric",
                        "criterion-name",
                        "The name of a criterion has at most " + LONGEST_NAME + " characters.");
            requireNumber("The weight of \"" + name + "\"", weight);
            if (weight.signum() <= 0)
                throw new Refusal(
                        "rubric",
                        "criterion-weight",
                        "The weight of \"" + name + "\" must be more than 0, was " + weight.toPlainString());
            if (levels.size() < 2)
                throw new Refusal("rubric", "criterion-levels", "\"" + name + "\" needs at least two levels.");
            if (levels.size() > MOST_LEVELS)
                throw new Refusal(
                        "rubric",
                        "criterion-levels",
                        "\"" + name + "\" has " + levels.size() + " levels; at most " + MOST_LEVELS
                                + " can be told apart.");
            levels = List.copyOf(levels);
            Set<String> names = new HashSet<>();
            for (Level level : levels) {
                requireNumber("Points of \"" + name + "\"", level.points());
                if (!level.name().isEmpty() && !names.add(level.name().toLowerCase(Locale.ROOT)))
                    throw new Refusal(
                            "rubric",
                            "level-name",
                            "Two levels of \"" + name + "\" are called \"" + level.name() + "\".");
            }
            for (int i = 1; i < levels.size(); i++)
                if (levels.get(i).points().compareTo(levels.get(i - 1).points()) <= 0)
                    throw new Refusal(
                            "rubric",
                            "levels-order",
                            "The levels of \"" + name + "\" must rise, but "
                                    + levels.get(i).points().toPlainString() + " follows "
                                    + levels.get(i - 1).points().toPlainString());
            if (levels.get(0).points().signum() < 0)
                throw new Refusal("rubric", "points-range", "Points of \"" + name + "\" must not be below 0");
            Set<Counted> things = EnumSet.noneOf(Counted.class);
            for (Measure measure : counted) {
                if (!things.add(measure.what()))
                    throw new Refusal(
                            "rubric",
                            "measure-twice",
                            "\"" + name + "\" counts " + measure.what().word() + " twice.");
                if (measure.atLeast().size() >= levels.size())
                    throw new Refusal(
                            "rubric",
                            "measure-levels",
                            "\"" + name + "\" has fewer levels than its "
                                    + measure.what().word() + " speak for.");
            }
        }

        /** A criterion for which nothing is counted. */
        public Criterion(String id, String name, BigDecimal weight, List<Level> levels) {
            this(id, name, weight, levels, List.of());
        }

        /**
         * The level for which the numbers speak: the highest that all of them reach. Only a person gives it.
         *
         * @param numbers what was counted; what is left out is not known
         * @return empty if no number speaks for a level, or one that does is not known
         */
        public Optional<Level> proposed(Map<Counted, Integer> numbers) {
            int lowest = Integer.MAX_VALUE;
            for (Measure measure : counted) {
                if (measure.atLeast().isEmpty()) continue;
                Integer number = numbers.get(measure.what());
                if (number == null) return Optional.empty();
                lowest = Math.min(lowest, measure.reached(number));
            }
            return lowest == Integer.MAX_VALUE ? Optional.empty() : Optional.of(levels.get(lowest));
        }

        public BigDecimal lowest() {
            return levels.get(0).points();
        }

        public BigDecimal highest() {
            return levels.get(levels.size() - 1).points();
        }

        /**
         * Makes sure that a marker may give these points: anything from the lowest level to the highest, with up to
         * four places.
         */
        public void require(BigDecimal points) {
            if (points.compareTo(lowest()) < 0 || points.compareTo(highest()) > 0)
                throw new Refusal(
                        "points",
                        "points-range",
                        "\"" + name + "\" goes from " + lowest().toPlainString() + " to "
                                + highest().toPlainString() + ", not " + points.toPlainString() + ".");
            if (points.stripTrailingZeros().scale() > 4)
                throw new Refusal(
                        "points",
                        "points-places",
                        "Points have at most four places after the point, unlike " + points.toPlainString() + ".");
        }

        /** The lowest of the levels that need more points; empty at the top. */
        public Optional<Level> above(BigDecimal points) {
            return levels.stream().filter(l -> l.points().compareTo(points) > 0).findFirst();
        }

        /** The highest level that points reach. */
        public Level reached(BigDecimal points) {
            return levels.get(step(points));
        }

        /** Where the highest level that points reach stands, from 0 for the lowest. */
        public int step(BigDecimal points) {
            int step = 0;
            for (int i = 1; i < levels.size(); i++) if (levels.get(i).points().compareTo(points) <= 0) step = i;
            return step;
        }

        private Criterion called(String id) {
            return new Criterion(id, name, weight, levels, counted);
        }
    }

    /** @param descriptor what a text on this level shows; may be empty */
    public record Level(String name, BigDecimal points, String descriptor) {
        public Level {
            name = name.strip();
            descriptor = descriptor.strip();
            if (name.length() > LONGEST_NAME)
                throw new Refusal(
                        "rubric", "level-name", "The name of a level has at most " + LONGEST_NAME + " characters.");
            if (descriptor.length() > LONGEST_DESCRIPTOR)
                throw new Refusal(
                        "rubric",
                        "level-descriptor",
                        "What a level shows is told in at most 2,000 characters; \"" + name + "\" has "
                                + descriptor.length() + ".");
        }
    }

    public Rubric {
        if (criteria.isEmpty()) throw new Refusal("rubric", "rubric-empty", "A rubric needs at least one criterion.");
        if (criteria.size() > MOST_CRITERIA)
            throw new Refusal(
                    "rubric",
                    "rubric-too-long",
                    "A rubric has at most " + MOST_CRITERIA + " criteria; this one has " + criteria.size() + ".");
        criteria = identified(criteria);
        Set<String> names = new HashSet<>();
        for (Criterion criterion : criteria)
            if (!names.add(criterion.name().toLowerCase(Locale.ROOT)))
                throw new Refusal("rubric", "criterion-name", "Two criteria are called \"" + criterion.name() + "\".");
    }

    public Optional<Criterion> find(String id) {
        return criteria.stream().filter(c -> c.id().equals(id)).findFirst();
    }

    /** Makes sure that something is left that counts. */
    public void requireCounting(Set<String> notCounted) {
        if (criteria.stream().allMatch(c -> notCounted.contains(c.id())))
            throw new Refusal(
                    "notCounted",
                    "nothing-counts",
                    "At least one criterion counts. To leave the whole paper out, let the student off.");
    }

    /** The sum of the highest points of all criteria: what a plain sum would be out of. */
    public BigDecimal highest() {
        return criteria.stream().map(Criterion::highest).reduce(BigDecimal.ZERO, BigDecimal::add);
    }

    private static List<Criterion> identified(List<Criterion> criteria) {
        Set<String> taken = new HashSet<>();
        for (Criterion criterion : criteria)
            if (!criterion.id().isEmpty() && !taken.add(criterion.id()))
                throw new Refusal("rubric", "criterion-id", "Two criteria have one identity: " + criterion.id());
        List<Criterion> identified = new ArrayList<>();
        int next = 1;
        for (Criterion criterion : criteria) {
            if (!criterion.id().isEmpty()) {
                identified.add(criterion);
                continue;
            }
            while (!taken.add("c" + next)) next++;
            identified.add(criterion.called("c" + next));
        }
        return List.copyOf(identified);
    }

    private static void requireNumber(String what, BigDecimal number) {
        if (number.abs().compareTo(MOST) > 0)
            throw new Refusal("rubric", "points-range", what + " must be at most 10,000.");
        if (number.stripTrailingZeros().scale() > 4)
            throw new Refusal("rubric", "points-places", what + " must have at most four places after the point.");
    }
}

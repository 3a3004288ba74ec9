package org.vastporch.core.marking;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.vastporch.core.rubrics.Fraction;
import org.vastporch.core.rubrics.Rubric;

/**
 * How a class stands in the criteria of its rubrics: how many reached which level, and in what it is strong or weak.
 */
public final class ClassPicture {

    /** Of fewer papers nothing is said about a class. */
    public static final int FEWEST = 5;

    /** What one paper was given for a criterion. */
    public record Given(Rubric.Criterion criterion, BigDecimal points) {}

    /**
     * One criterion of one prompt.
     *
     * @param reached how many papers reached each of its levels and not the next, the lowest first
     * @param mean share of the criterion's highest points, over all papers; 0 to 1
     */
    public record Spread(Rubric.Criterion criterion, List<Integer> reached, Fraction mean) {
        public int papers() {
            return reached.stream().mapToInt(Integer::intValue).sum();
        }
    }

    /** A criterion over several prompts, known by its name, with the mean share of all papers. */
    public record Strength(String criterion, int papers, Fraction mean) {}

    private ClassPicture() {}

    /** @param given for one prompt; criteria without any are left out */
    public static List<Spread> of(Rubric rubric, List<Given> given) {
        List<Spread> spreads = new ArrayList<>();
        for (Rubric.Criterion criterion : rubric.criteria()) {
            List<BigDecimal> points = given.stream()
                    .filter(g -> g.criterion().id().equals(criterion.id()))
                    .map(Given::points)
                    .toList();
            if (points.isEmpty()) continue;
            int[] reached = new int[criterion.levels().size()];
            for (BigDecimal p : points) reached[criterion.levels().indexOf(criterion.reached(p))]++;
            spreads.add(
                    new Spread(criterion, Arrays.stream(reached).boxed().toList(), mean(points, criterion.highest())));
        }
        return spreads;
    }

    /**
     * The criteria of a class over its prompts, the one in which it is strongest first; those of few papers are left
     * out.
     */
    public static List<Strength> strengths(List<Given> given) {
        Map<String, List<Given>> byName = new LinkedHashMap<>();
        for (Given g : given)
            byName.computeIfAbsent(g.criterion().name(), name -> new ArrayList<>())
                    .add(g);
        List<Strength> strengths = new ArrayList<>();
        byName.forEach((name, of) -> {
            if (of.size() < FEWEST) return;
            Fraction sum = Fraction.ZERO;
            for (Given g : of) sum = sum.plus(share(g.points(), g.criterion().highest()));
            strengths.add(new Strength(name, of.size(), sum.dividedBy(Fraction.of(BigDecimal.valueOf(of.size())))));
        });
        strengths.sort(Comparator.comparing(Strength::mean).reversed());
        return strengths;
    }

    private static Fraction mean(List<BigDecimal> points, BigDecimal highest) {
        BigDecimal sum = points.stream().reduce(BigDecimal.ZERO, BigDecimal::add);
        return share(sum, highest.multiply(BigDecimal.valueOf(points.size())));
    }

    /** A criterion whose highest level has no points gives nothing to share. */
    private static Fraction share(BigDecimal points, BigDecimal of) {
        return of.signum() == 0 ? Fraction.ZERO : Fraction.of(points).dividedBy(Fraction.of(of));
    }
}

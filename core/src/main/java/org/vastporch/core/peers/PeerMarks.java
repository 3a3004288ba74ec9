package org.vastporch.core.peers;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import org.vastporch.core.marking.Marks;
import org.vastporch.core.rubrics.Rubric;

/** What several classmates gave for one paper, together. */
public final class PeerMarks {

    private static final BigDecimal TWO = BigDecimal.valueOf(2);
    /** With fewer there is nobody to be far from. */
    private static final int FEWEST_OTHERS = 2;

    private static final double FAR = 1.5;

    private PeerMarks() {}

    /**
     * The median by criterion; of an even number the middle between the two in the middle, exactly.
     *
     * @return points by the identities of the criteria for which anybody gave some
     */
    public static Map<String, BigDecimal> median(Collection<Marks> given) {
        Map<String, List<BigDecimal>> by = new HashMap<>();
        for (Marks marks : given)
            marks.points().forEach((criterion, points) -> by.computeIfAbsent(criterion, c -> new ArrayList<>())
                    .add(points));
        Map<String, BigDecimal> medians = new HashMap<>();
        by.forEach((criterion, points) -> medians.put(criterion, median(points)));
        return medians;
    }

    private static BigDecimal median(List<BigDecimal> points) {
        List<BigDecimal> sorted = points.stream().sorted().toList();
        int middle = sorted.size() / 2;
        return sorted.size() % 2 == 1
                ? sorted.get(middle)
                : sorted.get(middle - 1).add(sorted.get(middle)).divide(TWO);
    }

    /**
     * How many steps a review lies from what all others gave for the paper: the mean, over the criteria, of its
     * distance from their median.
     *
     * @return empty with fewer than {@value #FEWEST_OTHERS} others, or nothing in common
     */
    public static OptionalDouble distance(Rubric rubric, Marks review, List<Marks> others) {
        if (others.size() < FEWEST_OTHERS) return OptionalDouble.empty();
        Map<String, BigDecimal> median = median(others);
        Map<String, BigDecimal> own = review.points();
        return rubric.criteria().stream()
                .filter(c -> own.containsKey(c.id()) && median.containsKey(c.id()))
                .mapToInt(c -> Math.abs(c.step(own.get(c.id())) - c.step(median.get(c.id()))))
                .average();
    }

    /** Whether a review lies so far from all others that a teacher should look at it. */
    public static boolean isFar(Rubric rubric, Marks review, List<Marks> others) {
        OptionalDouble distance = distance(rubric, review, others);
        return distance.isPresent() && distance.getAsDouble() >= FAR;
    }
}

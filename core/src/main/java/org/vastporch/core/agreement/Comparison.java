package org.vastporch.core.agreement;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.vastporch.core.marking.Marks;
import org.vastporch.core.rubrics.Rubric;

/**
 * Two sides' readings of the same papers, criterion by criterion.
 *
 * @param criteria in the order in which they stand in the rubrics
 * @param widest where the sides are furthest apart, at least two steps, the widest first
 */
public record Comparison(List<Criterion> criteria, List<Gap> widest) {

    /** What both sides gave for one paper by one rubric. */
    public record Both(long paper, Rubric rubric, Marks first, Marks second) {}

    /**
     * One criterion: of several prompts those that have one name and as many levels.
     *
     * @param levels how many it has
     * @param pairs one for each paper for which both give points
     * @param agreement empty for fewer than {@value Agreement#FEWEST} pairs
     */
    public record Criterion(String name, int levels, List<Agreement.Pair> pairs, Optional<Agreement> agreement) {}

    /** Where two readings of one paper lie apart on one criterion: levels counted from 0. */
    public record Gap(long paper, String criterion, int levels, int first, int second) {
        int wide() {
            return Math.abs(first - second);
        }
    }

    private static final int WORTH_TALKING = 2;
    private static final int MOST_GAPS = 12;

    private record Key(String name, int levels) {}

    /** @param seed of the intervals */
    public static Comparison of(List<Both> papers, long seed) {
        Map<Key, List<Agreement.Pair>> pairs = new LinkedHashMap<>();
        List<Gap> gaps = new ArrayList<>();
        for (Both paper : papers)
            for (Rubric.Criterion criterion : paper.rubric().criteria()) {
                List<Agreement.Pair> of = pairs.computeIfAbsent(
                        new Key(criterion.name(), criterion.levels().size()), key -> new ArrayList<>());
                Optional<BigDecimal> first = points(paper.first(), criterion);
                Optional<BigDecimal> second = points(paper.second(), criterion);
                if (first.isEmpty() || second.isEmpty()) continue;
                Gap gap = new Gap(
                        paper.paper(),
                        criterion.name(),
                        criterion.levels().size(),
                        criterion.step(first.get()),
                        criterion.step(second.get()));
                of.add(new Agreement.Pair(gap.first(), gap.second()));
                if (gap.wide() >= WORTH_TALKING) gaps.add(gap);
            }
        gaps.sort(Comparator.comparingInt(Gap::wide).reversed().thenComparingLong(Gap::paper));
        return new Comparison(
                pairs.entrySet().stream()
                        .map(e -> new Criterion(
                                e.getKey().name(),
                                e.getKey().levels(),
                                List.copyOf(e.getValue()),
                                Agreement.of(e.getValue(), seed)))
                        .toList(),
                gaps.stream().limit(MOST_GAPS).toList());
    }

    private static Optional<BigDecimal> points(Marks marks, Rubric.Criterion criterion) {
        return marks.of(criterion.id()).map(Marks.Mark::points);
    }

    /** The mean level of what was given, counted from 0; empty if nothing was. */
    public static Optional<Double> meanStep(Rubric rubric, Marks marks) {
        int sum = 0;
        int of = 0;
        for (Rubric.Criterion criterion : rubric.criteria()) {
            Optional<BigDecimal> points = points(marks, criterion);
            if (points.isEmpty()) continue;
            sum += criterion.step(points.get());
            of++;
        }
        return of == 0 ? Optional.empty() : Optional.of((double) sum / of);
    }
}

package org.vastporch.core.agreement;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.stream.Collectors;

/**
 * How a marker lies to all who read the same papers: below 0 is severe, above it lenient.
 *
 * @param marker by their number
 * @param readings how many of their readings somebody else read too
 * @param residual the mean of what they gave over the mean of all markers of that paper, in the unit of what is given
 * @param error the standard error of it; empty for a single reading
 */
public record Severity(long marker, int readings, double residual, OptionalDouble error) {

    /** With so many readings half of what a peer's residual says is believed. */
    private static final int HALF_BELIEVED = 4;

    /**
     * What somebody gave for a paper.
     *
     * @param given a share of what can be reached, or points of one scale for all
     * @param isPeer whether it is a classmate's review
     */
    public record Reading(long paper, long marker, double given, boolean isPeer) {}

    /**
     * Compares markers, the most severe first. A paper that one marker alone read says nothing of them.
     *
     * @return a line for each marker of whom something can be said
     */
    public static List<Severity> of(List<Reading> readings) {
        Map<Long, List<Reading>> papers = readings.stream()
                .collect(Collectors.groupingBy(Reading::paper, LinkedHashMap::new, Collectors.toList()));
        Map<Long, List<Double>> residuals = new LinkedHashMap<>();
        Map<Long, Boolean> peers = new LinkedHashMap<>();
        for (List<Reading> of : papers.values()) {
            if (of.stream().map(Reading::marker).distinct().count() < 2) continue;
            double mean = of.stream().mapToDouble(Reading::given).average().orElseThrow();
            for (Reading reading : of) {
                residuals
                        .computeIfAbsent(reading.marker(), m -> new ArrayList<>())
                        .add(reading.given() - mean);
                peers.merge(reading.marker(), reading.isPeer(), Boolean::logicalAnd);
            }
        }
        return residuals.entrySet().stream()
                .map(e -> of(e.getKey(), e.getValue(), peers.get(e.getKey())))
                .sorted(Comparator.comparingDouble(Severity::residual).thenComparingLong(Severity::marker))
                .toList();
    }

    /** @param isPeer whose residual is drawn towards 0, the more the fewer reviews there are */
    private static Severity of(long marker, List<Double> residuals, boolean isPeer) {
        int n = residuals.size();
        double mean = residuals.stream().mapToDouble(r -> r).average().orElseThrow();
        double believed = isPeer ? (double) n / (n + HALF_BELIEVED) : 1;
        double squares =
                residuals.stream().mapToDouble(r -> (r - mean) * (r - mean)).sum();
        return new Severity(
                marker,
                n,
                believed * mean,
                n < 2 ? OptionalDouble.empty() : OptionalDouble.of(believed * Math.sqrt(squares / (n - 1) / n)));
    }
}

package org.vastporch.core.progress;

import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;

/**
 * The weeks from a Monday on up to now, whatever the terms: what classes with terms of their own are held against each
 * other by.
 *
 * @param mondays of each, the earliest first, the last that of the running week
 */
public record LastWeeks(List<LocalDate> mondays) {

    /** So many of something at a moment. */
    public record Moment(Instant at, int count) {}

    /** @param many at least 1, the running week counted */
    public static LastWeeks until(LocalDate today, int many) {
        LocalDate last = today.with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY));
        return new LastWeeks(IntStream.range(0, many)
                .mapToObj(i -> last.minusWeeks(many - 1L - i))
                .toList());
    }

    /** The beginning of the first week, as clocks show it somewhere. */
    public Instant start(ZoneId zone) {
        return mondays.get(0).atStartOfDay(zone).toInstant();
    }

    /** How much of something lies in each week; what lies in none is left out. */
    public List<Integer> counts(ZoneId zone, List<Moment> moments) {
        int[] counts = new int[mondays.size()];
        for (Moment moment : moments) {
            LocalDate monday =
                    LocalDate.ofInstant(moment.at(), zone).with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY));
            int week = mondays.indexOf(monday);
            if (week >= 0) counts[week] += moment.count();
        }
        List<Integer> all = new ArrayList<>();
        for (int count : counts) all.add(count);
        return all;
    }
}

package org.vastporch.core.calendar;

import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.temporal.ChronoUnit;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.List;
import org.vastporch.core.Refusal;

/**
 * The one calendar of a class. Weeks run from Monday to Sunday in the class's time zone and are numbered from 1; a week
 * whose school days (Monday to Friday) all lie in breaks is a break: it has no number.
 *
 * @param first the first day of the term
 * @param last its last day, not before the first
 * @param breaks spells without school inside the term
 */
public record Term(LocalDate first, LocalDate last, List<Break> breaks, ZoneId zone) {

    /** A spell without school; both days are part of it. */
    public record Break(LocalDate from, LocalDate to) {
        public Break {
            if (to.isBefore(from))
                throw new Refusal(
                        "breaks", "break-order", "A break must not end before it begins: " + from + " to " + to);
        }

        boolean covers(LocalDate day) {
            return !day.isBefore(from) && !day.isAfter(to);
        }
    }

    /**
     * A week of the term.
     *
     * @param number from 1; 0 for a week of break
     * @param start its first moment
     * @param end the first moment of the next week
     */
    public record Week(int number, LocalDate monday, Instant start, Instant end) {
        public boolean isBreak() {
            return number == 0;
        }

        public boolean contains(Instant moment) {
            return !moment.isBefore(start) && moment.isBefore(end);
        }
    }

    public Term {
        if (last.isBefore(first))
            throw new Refusal(
                    "lastDay", "term-order", "A term must not end before it begins: " + first + " to " + last);
        if (first.plusYears(2).isBefore(last))
            throw new Refusal("lastDay", "term-too-long", "A term is at most two years long: " + first + " to " + last);
        breaks = List.copyOf(breaks);
    }

    /** All weeks in order, weeks of break among them. */
    public List<Week> weeks() {
        List<Week> weeks = new ArrayList<>();
        int number = 0;
        LocalDate monday = first.with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY));
        for (; !monday.isAfter(last); monday = monday.plusWeeks(1)) {
            boolean isBreak = isBreak(monday);
            if (!isBreak) number++;
            weeks.add(new Week(isBreak ? 0 : number, monday, startOf(monday), startOf(monday.plusWeeks(1))));
        }
        return weeks;
    }

    /** A stretch of days around now, for looking at what was written in it. */
    public enum Span {
        TODAY,
        WEEK,
        MONTH,
        YEAR
    }

    /** The days of a span on the clock of the class. A year is that of the calendar, a week begins on Monday. */
    public Between around(Span span, Instant now) {
        LocalDate today = dayOf(now);
        LocalDate from =
                switch (span) {
                    case TODAY -> today;
                    case WEEK -> today.with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY));
                    case MONTH -> today.withDayOfMonth(1);
                    case YEAR -> today.withDayOfYear(1);
                };
        LocalDate to =
                switch (span) {
                    case TODAY -> from.plusDays(1);
                    case WEEK -> from.plusWeeks(1);
                    case MONTH -> from.plusMonths(1);
                    case YEAR -> from.plusYears(1);
                };
        return new Between(startOf(from), startOf(to));
    }

    /** Moments from {@code start}, up to and without {@code end}. */
    public record Between(Instant start, Instant end) {}

    /** The first moment of a day; a day that begins with the change to summer time begins late. */
    public Instant startOf(LocalDate day) {
        return day.atStartOfDay(zone).toInstant();
    }

    /** The day that a moment falls on here. */
    public LocalDate dayOf(Instant moment) {
        return moment.atZone(zone).toLocalDate();
    }

    /**
     * The moment of a time of day here. Of a time that the change to summer time skips, the moment as long after the
     * change as it lies behind it; of one that comes twice, the first.
     */
    public Instant momentOf(LocalDateTime time) {
        return time.atZone(zone).toInstant();
    }

    /** What the clock here says at a moment. */
    public LocalDateTime timeOf(Instant moment) {
        return LocalDateTime.ofInstant(moment, zone);
    }

    /**
     * A week in which something happens again.
     *
     * @param later how many weeks after the first one
     * @param number of the week in the term
     */
    public record Repeat(long later, int number) {}

    /** The weeks of school from the one of a day on, to the end of the term; empty if that day is in no such week. */
    public List<Repeat> repeats(LocalDateTime from) {
        LocalDate monday = from.toLocalDate().with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY));
        List<Repeat> repeats = weeks().stream()
                .filter(week -> !week.isBreak() && !week.monday().isBefore(monday))
                .map(week -> new Repeat(ChronoUnit.WEEKS.between(monday, week.monday()), week.number()))
                .toList();
        return repeats.isEmpty() || repeats.get(0).later() > 0 ? List.of() : repeats;
    }

    /** Tells whether something handed in at a moment is on time: not after {@code due + grace}. */
    public static boolean isOnTime(Instant handedIn, Instant due, Duration grace) {
        return !handedIn.isAfter(due.plus(grace));
    }

    /**
     * Days late: the number of days started after {@code due + grace}, 0 if on time. A day ends at the same time of day
     * on the clock of the class, so that the nights of the summer time change make nobody earlier or later.
     */
    public int daysLate(Instant handedIn, Instant due, Duration grace) {
        if (isOnTime(handedIn, due, grace)) return 0;
        ZonedDateTime deadline = due.plus(grace).atZone(zone);
        int days = (int)
                Math.max(0, Duration.between(deadline, handedIn.atZone(zone)).toDays() - 1);
        while (deadline.plusDays(days).toInstant().isBefore(handedIn)) days++;
        return days;
    }

    private boolean isBreak(LocalDate monday) {
        for (int day = 0; day < 5; day++) {
            LocalDate schoolDay = monday.plusDays(day);
            if (breaks.stream().noneMatch(b -> b.covers(schoolDay))) return false;
        }
        return true;
    }
}

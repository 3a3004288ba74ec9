package org.vastporch.core.calendar;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class TermTest {

    private static final Term TERM = new Term(
            LocalDate.parse("2026-09-02"),
            LocalDate.parse("2026-12-11"),
            List.of(new Term.Break(LocalDate.parse("2026-10-24"), LocalDate.parse("2026-11-01"))),
            ZoneId.of("Europe/London"));

    @Test
    void numbersWeeksFromOneAndSkipsTheBreak() {
        assertEquals(
                List.of(1, 2, 3, 4, 5, 6, 7, 8, 0, 9, 10, 11, 12, 13, 14),
                TERM.weeks().stream().map(Term.Week::number).toList());
    }

    @Test
    void aWeekWithTheClockChangeHasAnHourMore() {
        Term.Week change = TERM.weeks().get(7);
        assertEquals(Duration.ofHours(7 * 24 + 1), Duration.between(change.start(), change.end()));
    }

    @Test
    void weeksFollowEachOtherWithoutGap() {
        var weeks = TERM.weeks();
        for (int i = 1; i < weeks.size(); i++)
            assertEquals(weeks.get(i - 1).end(), weeks.get(i).start());
    }

    @ParameterizedTest
    @CsvSource({
        "2026-09-02T08:00, 2026-09-02T07:00:00Z, 2026-09-02T08:00",
        "2026-12-01T08:00, 2026-12-01T08:00:00Z, 2026-12-01T08:00",
        "2026-10-25T01:30, 2026-10-25T00:30:00Z, 2026-10-25T01:30", // comes twice: the first
        "2027-03-28T01:30, 2027-03-28T01:30:00Z, 2027-03-28T02:30", // skipped
    })
    void aTimeOfDayIsThatOfTheClockHere(LocalDateTime typed, Instant moment, LocalDateTime shown) {
        assertEquals(moment, TERM.momentOf(typed));
        assertEquals(shown, TERM.timeOf(moment));
    }

    // Due Saturday 20:00 summer time, the night before the clocks go back; an hour of grace.
    @ParameterizedTest
    @CsvSource({
        "2026-10-24T20:00:00Z, 0", // 21:00 there: the end of grace itself is in time
        "2026-10-24T20:00:00.000001Z, 1",
        "2026-10-25T21:00:00Z, 1", // 21:00 winter time: 25 hours later, still the first day
        "2026-10-25T21:00:01Z, 2",
        "2026-11-24T21:00:00Z, 31",
    })
    void countsStartedDaysOnTheClockOfTheClass(Instant handedIn, int days) {
        assertEquals(days, TERM.daysLate(handedIn, Instant.parse("2026-10-24T19:00:00Z"), Duration.ofHours(1)));
    }

    /** A break of whole school weeks from Monday to Friday, and one that leaves a Friday. */
    @Test
    void aWeekIsABreakIfAllItsSchoolDaysLieInOne() {
        assertEquals(List.of(1, 0, 2), numbers("2026-09-14", "2026-09-18"));
        assertEquals(List.of(1, 2, 3), numbers("2026-09-14", "2026-09-17"));
        assertEquals(List.of(1, 2, 3), numbers("2026-09-15", "2026-09-18"));
    }

    private static List<Integer> numbers(String from, String to) {
        return new Term(
                        LocalDate.parse("2026-09-07"),
                        LocalDate.parse("2026-09-25"),
                        List.of(new Term.Break(LocalDate.parse(from), LocalDate.parse(to))),
                        ZoneId.of("Europe/London"))
                .weeks().stream().map(Term.Week::number).toList();
    }

    @Test
    void aWeekHoldsItsFirstMomentAndNotThatOfTheNext() {
        Term.Week week = TERM.weeks().get(0);
        assertTrue(week.contains(week.start()));
        assertTrue(week.contains(week.end().minusMillis(1)));
        assertFalse(week.contains(week.end()));
        assertFalse(week.contains(week.start().minusMillis(1)));
    }

    @ParameterizedTest
    @CsvSource({
        "TODAY, 2026-10-24T23:00:00Z, 2026-10-26T00:00:00Z", "WEEK, 2026-10-18T23:00:00Z, 2026-10-26T00:00:00Z",
        "MONTH, 2026-09-30T23:00:00Z, 2026-11-01T00:00:00Z", "YEAR, 2026-01-01T00:00:00Z, 2027-01-01T00:00:00Z"
    })
    void aSpanIsThatOfTheCalendarHere(Term.Span span, Instant start, Instant end) {
        Instant sunday = Instant.parse("2026-10-25T12:00:00Z");
        assertEquals(new Term.Between(start, end), TERM.around(span, sunday));
        assertEquals(LocalDate.parse("2026-10-25"), TERM.dayOf(Instant.parse("2026-10-24T23:00:00Z")));
    }

    @Test
    void happensAgainInEachWeekOfSchoolThatIsLeft() {
        // Due on a Sunday of week 7; week 8 is the last before the break.
        assertEquals(
                List.of(
                        new Term.Repeat(0, 7),
                        new Term.Repeat(1, 8),
                        new Term.Repeat(3, 9),
                        new Term.Repeat(4, 10),
                        new Term.Repeat(5, 11),
                        new Term.Repeat(6, 12),
                        new Term.Repeat(7, 13),
                        new Term.Repeat(8, 14)),
                TERM.repeats(LocalDateTime.parse("2026-10-18T20:00")));
        assertEquals(List.of(new Term.Repeat(0, 14)), TERM.repeats(LocalDateTime.parse("2026-12-07T00:00")));
        assertEquals(14, TERM.repeats(LocalDateTime.parse("2026-08-31T08:00")).size(), "the week in which it begins");
    }

    @Test
    void nothingHappensAgainFromADayWithoutSchool() {
        assertEquals(List.of(), TERM.repeats(LocalDateTime.parse("2026-10-29T20:00")), "in the break");
        assertEquals(List.of(), TERM.repeats(LocalDateTime.parse("2026-12-14T08:00")), "after the term");
        assertEquals(List.of(), TERM.repeats(LocalDateTime.parse("2026-08-30T08:00")), "before it");
    }

    @Test
    void theWeekOfABreakSaysSo() {
        assertEquals(
                List.of(8),
                IntStream.range(0, TERM.weeks().size())
                        .filter(w -> TERM.weeks().get(w).isBreak())
                        .boxed()
                        .toList());
    }
}

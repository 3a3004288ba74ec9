package org.vastporch.core.feeds;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.random.RandomGenerator;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The wait until a source is looked at again, to the minute: with chance held still, and at both its ends. */
class PaceTest {

    private static final Instant NOW = Instant.parse("2026-11-24T10:00:00Z");

    /** Chance that always gives the same: 0 the shortest wait, a half the plain one, nearly 1 the longest. */
    private static RandomGenerator chance(double always) {
        return new RandomGenerator() {
            @Override
            public long nextLong() {
                throw new AssertionError("only a share is asked for");
            }

            @Override
            public double nextDouble() {
                return always;
            }
        };
    }

    private static List<Instant> minutesAgo(int... minutes) {
        List<Instant> dates = new ArrayList<>();
        for (int m : minutes) dates.add(NOW.minus(Duration.ofMinutes(m)));
        return dates;
    }

    private static long plain(List<Instant> dates, int asked, int failures) {
        return Pace.next(dates, Duration.ofMinutes(asked), failures, chance(0.5))
                .toMinutes();
    }

    @Test
    void isHalfTheMedianGap() {
        assertEquals(60, plain(minutesAgo(0, 120), 0, 0));
        assertEquals(75, plain(minutesAgo(300, 0, 120), 0, 0), "gaps of 120 and 180, in whatever order they come");
        assertEquals(60, plain(minutesAgo(0, 100, 220, 1000), 0, 0), "gaps of 100, 120 and 780");
    }

    @Test
    void onlyTheNewestTenCount() {
        assertEquals(50, plain(minutesAgo(0, 100, 200, 300, 400, 500, 600, 700, 800, 900, 9_000, 19_000), 0, 0));
        int[] uneven = {0, 100, 200, 300, 400, 500, 1_500, 2_500, 3_500, 4_500, 5_500};
        assertEquals(50, plain(minutesAgo(uneven), 0, 0), "five gaps of 100 and four of 1,000; the fifth is too old");
    }

    @Test
    void staysBetweenAQuarterOfAnHourAndADay() {
        assertEquals(15, plain(minutesAgo(0, 29), 0, 0));
        assertEquals(15, plain(minutesAgo(0, 30), 0, 0));
        assertEquals(16, plain(minutesAgo(0, 32), 0, 0));
        assertEquals(1_440, plain(minutesAgo(0, 2_880), 0, 0));
        assertEquals(1_440, plain(minutesAgo(0, 9_000), 0, 0));
        assertEquals(720, plain(minutesAgo(0), 0, 0), "one entry tells no gap: half of the longest");
        assertEquals(720, plain(List.of(), 0, 0));
    }

    @ParameterizedTest
    @CsvSource({
        // a gap of two hours; asked, failures, minutes
        "59, 0, 60",
        "60, 0, 60",
        "61, 0, 61",
        "0, 1, 120",
        "0, 2, 240",
        "0, 4, 960",
        "0, 5, 1440",
        "0, 60, 1440",
        "1440, 1, 1440",
        "1441, 1, 1441",
        "3000, 9, 3000"
    })
    void waitsAsLongAsItIsAskedAndTwiceAsLongForEachFailureUpToADay(int asked, int failures, int minutes) {
        assertEquals(minutes, plain(minutesAgo(0, 120), asked, failures));
    }

    @Test
    void variesByATenthAndNeverUnderWhatIsAsked() {
        List<Instant> dates = minutesAgo(0, 400);
        assertEquals(180, Pace.next(dates, Duration.ZERO, 0, chance(0)).toMinutes());
        assertEquals(
                Duration.ofMinutes(220).toMillis(),
                Pace.next(dates, Duration.ZERO, 0, chance(1)).toMillis());
        assertEquals(
                200, Pace.next(dates, Duration.ofMinutes(200), 0, chance(0)).toMinutes());
        assertEquals(
                190, Pace.next(dates, Duration.ofMinutes(190), 0, chance(0)).toMinutes());
    }

    @ParameterizedTest
    @CsvSource({
        "410, 0, 0, true",
        "404, 10, 7, true",
        "404, 9, 7, false",
        "404, 10, 6, false",
        "404, 11, 8, true",
        "500, 99, 99, false",
        "200, 99, 99, false"
    })
    void aSourceIsGivenUpWhenItIsGoneOrNotFoundTenTimesOverAWeek(int status, int notFound, int days, boolean stopped) {
        assertEquals(stopped, Pace.isStopped(status, notFound, Duration.ofDays(days)));
    }

    @Test
    void aSourceIsLivelyForAFortnightAfterItsNewestEntry() {
        Instant fortnight = NOW.minus(Duration.ofDays(14));
        assertEquals(Health.LIVELY, Health.of(false, 0, fortnight, NOW));
        assertEquals(Health.QUIET, Health.of(false, 0, fortnight.minusMillis(1), NOW));
        assertEquals(Health.QUIET, Health.of(false, 0, null, NOW));
        assertEquals(Health.FALTERING, Health.of(false, 1, NOW, NOW));
        assertEquals(Health.STOPPED, Health.of(true, 1, NOW, NOW));
    }

    @ParameterizedTest
    @CsvSource({
        // hours between entries, minutes asked for, failures, hours from now until a prompt is due, why
        "4, 0, 0, 99, HABIT",
        "47, 0, 0, 99, HABIT",
        "48, 0, 0, 99, SELDOM",
        "4, 120, 0, 99, HABIT", // asks for no more than its own habit
        "4, 121, 0, 99, ASKED",
        "4, 0, 1, 1, FAILURES",
        "4, 0, 0, 24, DUE",
        "4, 0, 0, 25, HABIT",
        "4, 119, 0, 1, DUE",
        "4, 120, 0, 1, HABIT", // what the site asks for is as long as its habit
        "4, 121, 0, 1, ASKED", // a rush does not overrule it
        "4, 0, 0, -1, DUE", // within its grace
        "4, 0, 0, -3, HABIT"
    })
    void whatDecidesThePaceIsSaid(int gap, int asked, int failures, int due, Pace.Why why) {
        Instant now = Instant.parse("2026-11-20T12:00:00Z");
        List<Instant> published = new ArrayList<>();
        for (int i = 0; i < 5; i++) published.add(now.minus(Duration.ofHours((long) gap * i)));
        Pace.Rush rush = Pace.Rush.around(now.plus(Duration.ofHours(due)), Duration.ofHours(2));
        assertEquals(why, Pace.why(published, Duration.ofMinutes(asked), failures, List.of(rush), now));
    }
}

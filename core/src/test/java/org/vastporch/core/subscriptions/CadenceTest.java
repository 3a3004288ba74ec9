package org.vastporch.core.subscriptions;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class CadenceTest {

    private static final ZoneId LONDON = ZoneId.of("Europe/London");

    @ParameterizedTest
    @CsvSource({
        // cadence, the last mail, now, due: 2026-10-25 is the end of summer time, a Sunday
        "NEVER,   2026-01-01T00:00:00Z, 2026-11-01T00:00:00Z, false",
        "AT_ONCE, 2026-11-01T00:00:00Z, 2026-11-01T00:00:01Z, true",
        "DAILY,   2026-11-02T16:00:00Z, 2026-11-03T15:59:59Z, false",
        "DAILY,   2026-11-02T16:00:00Z, 2026-11-03T16:00:00Z, true",
        "DAILY,   2026-10-24T15:00:00Z, 2026-10-25T15:30:00Z, false",
        "DAILY,   2026-10-24T15:00:00Z, 2026-10-25T16:00:00Z, true",
        "WEEKLY,  2026-11-06T16:00:00Z, 2026-11-12T23:00:00Z, false",
        "WEEKLY,  2026-11-06T16:00:00Z, 2026-11-13T16:00:00Z, true",
        "WEEKLY,  2026-11-06T15:59:00Z, 2026-11-07T10:00:00Z, true",
    })
    void isDueWhenItsTimeHasCome(Cadence cadence, Instant last, Instant now, boolean due) {
        assertEquals(due, cadence.isDue(last, now, LONDON));
    }

    /**
     * Whoever looks every minute makes one mail a day and one a week, in every zone, over the changes of summer time.
     */
    @ParameterizedTest
    @CsvSource({"Europe/London", "America/Sao_Paulo", "Asia/Kolkata", "Australia/Lord_Howe", "Africa/Casablanca"})
    void oneMailADayAndOneAWeek(String zone) {
        Instant now = Instant.parse("2026-03-01T12:00:00Z");
        Instant daily = now;
        Instant weekly = now;
        int days = 0;
        int weeks = 0;
        for (Instant end = now.plus(Duration.ofDays(280)); now.isBefore(end); now = now.plus(Duration.ofMinutes(7))) {
            if (Cadence.DAILY.isDue(daily, now, ZoneId.of(zone))) {
                days++;
                daily = now;
            }
            if (Cadence.WEEKLY.isDue(weekly, now, ZoneId.of(zone))) {
                weeks++;
                weekly = now;
            }
        }
        assertTrue(Math.abs(days - 280) <= 1, "days " + days);
        assertEquals(40, weeks, "weeks");
    }

    @Test
    void nobodyIsWrittenToAgainWithinTheSameDay() {
        Instant four = Instant.parse("2026-11-03T16:00:00Z");
        for (int minute = 0; minute < 24 * 60; minute++)
            assertFalse(Cadence.DAILY.isDue(four, four.plus(Duration.ofMinutes(minute)), LONDON));
    }
}

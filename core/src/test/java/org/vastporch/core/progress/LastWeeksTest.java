package org.vastporch.core.progress;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.vastporch.core.progress.LastWeeks.Moment;

class LastWeeksTest {

    private static final ZoneId LONDON = ZoneId.of("Europe/London");
    private static final LastWeeks WEEKS = LastWeeks.until(LocalDate.of(2026, 11, 1), 3);

    private static Moment at(String moment, int count) {
        return new Moment(Instant.parse(moment), count);
    }

    @Test
    void theRunningWeekIsTheLast() {
        assertEquals(
                List.of(LocalDate.of(2026, 10, 12), LocalDate.of(2026, 10, 19), LocalDate.of(2026, 10, 26)),
                WEEKS.mondays());
        assertEquals(
                LocalDate.of(2026, 11, 2),
                LastWeeks.until(LocalDate.of(2026, 11, 2), 1).mondays().get(0));
        assertEquals(Instant.parse("2026-10-11T23:00:00Z"), WEEKS.start(LONDON), "still summer time");
    }

    /** Summer time ends in the night before the last Monday. */
    @Test
    void aWeekBeginsAtMidnightWhereTheClassIs() {
        List<Moment> moments = List.of(
                at("2026-10-11T22:59:00Z", 100),
                at("2026-10-11T23:00:00Z", 1),
                at("2026-10-18T23:30:00Z", 2),
                at("2026-10-25T23:59:00Z", 4),
                at("2026-10-26T00:00:00Z", 8),
                at("2026-11-02T00:00:00Z", 100));
        assertEquals(List.of(1, 6, 8), WEEKS.counts(LONDON, moments));
        assertEquals(List.of(1, 2, 12), WEEKS.counts(ZoneId.of("Europe/Athens"), moments.subList(1, 5)));
    }
}

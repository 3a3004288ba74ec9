package org.vastporch.core.marking;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.vastporch.core.calendar.Term;

class DeadlineTest {

    private static final Instant DUE = Instant.parse("2026-11-22T20:00:00Z");
    private static final Term TERM = new Term(
            LocalDate.parse("2026-09-07"), LocalDate.parse("2026-12-18"), List.of(), ZoneId.of("Europe/London"));

    @Test
    void isOverAfterItsLastMoment() {
        Deadline deadline = new Deadline(DUE, Duration.ofHours(24));
        assertFalse(deadline.isOver(deadline.end()));
        assertTrue(deadline.isOver(deadline.end().plusMillis(1)));
    }

    @Test
    void aPaperIsAsLateAsTheLatestOfItsPosts() {
        Deadline deadline = new Deadline(DUE, Duration.ZERO);
        assertEquals(0, deadline.daysLate(TERM, List.of()));
        assertEquals(0, deadline.daysLate(TERM, List.of(DUE)));
        assertEquals(1, deadline.daysLate(TERM, List.of(DUE.plusSeconds(1), DUE)));
        assertEquals(3, deadline.daysLate(TERM, List.of(DUE, DUE.plusSeconds(2 * 86_400 + 1), DUE.plusSeconds(1))));
    }

    @Test
    void anOwnDateStandsInPlaceOfThePromptsAndKeepsItsGrace() {
        Duration grace = Duration.ofHours(6);
        assertEquals(new Deadline(DUE, grace), Allowance.NONE.deadline(DUE, grace));
        assertEquals(DUE, new Allowance(null, true, false).deadline(DUE, grace).due());
        Instant own = DUE.plus(Duration.ofDays(3));
        assertEquals(
                own.plus(grace),
                new Allowance(own, false, false).deadline(DUE, grace).end());
        Instant earlier = DUE.minus(Duration.ofDays(3));
        assertEquals(
                earlier,
                new Allowance(earlier, false, false).deadline(DUE, grace).due());
    }
}

package org.vastporch.core.feeds;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Duration;
import java.time.Instant;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastporch.core.feeds.OutsideTime.Counts;

class OutsideTimeTest {

    private static final Instant TUESDAY = Instant.parse("2026-11-03T18:00:00Z");

    private static OutsideTime seenAfter(Duration after, Counts set) {
        return new OutsideTime(TUESDAY, TUESDAY.plus(after), set);
    }

    @ParameterizedTest
    @CsvSource({
        // seen so long after, nobody decided: believed, asked where it makes a difference
        "PT0S,          true,  false",
        "PT24H,         true,  false",
        "PT24H0.001S,   false, true",
        "P30D,          false, true"
    })
    void whatIsSeenWithinADayIsBelieved(Duration after, boolean soon, boolean asked) {
        OutsideTime time = seenAfter(after, null);
        assertEquals(soon, time.isSeenSoon());
        assertEquals(asked, time.isAsked(0, 2));
        assertFalse(time.isAsked(0, 0), "on time by both");
        assertFalse(time.isAsked(3, 3), "as late by both");
        assertEquals(Counts.SAYS, time.counts());
        assertEquals(TUESDAY, time.counted(), "what nobody has decided is not held against its author");
    }

    @Test
    void whatAPersonDecidedCounts() {
        OutsideTime seen = seenAfter(Duration.ofDays(3), Counts.FIRST_SEEN);
        assertEquals(TUESDAY.plus(Duration.ofDays(3)), seen.counted());
        assertFalse(seen.isAsked(0, 3));
        OutsideTime says = seenAfter(Duration.ofDays(3), Counts.SAYS);
        assertEquals(TUESDAY, says.counted());
        assertFalse(says.isAsked(0, 3));
    }
}

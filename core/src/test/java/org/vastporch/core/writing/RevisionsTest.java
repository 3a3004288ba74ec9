package org.vastporch.core.writing;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Duration;
import java.time.Instant;
import org.junit.jupiter.api.Test;

class RevisionsTest {

    private static final Instant BEGUN = Instant.parse("2026-10-25T00:30:00Z");

    private static boolean anew(Duration later, int before, int now) {
        return Revisions.beginsAnew(BEGUN, BEGUN.plus(later), before, now);
    }

    @Test
    void keepsWhatAWriterMightWantBack() {
        assertFalse(anew(Duration.ofMinutes(9), 200, 210), "going on");
        assertTrue(anew(Duration.ofMinutes(10), 200, 210), "a stretch of writing is over");
        assertTrue(anew(Duration.ofSeconds(1), 200, 90), "much would be lost");
        assertFalse(anew(Duration.ofSeconds(1), 200, 120), "shortened");
        assertFalse(anew(Duration.ofSeconds(1), 200, 100), "just half is left");
        assertTrue(anew(Duration.ofSeconds(1), 200, 99));
        assertTrue(anew(Duration.ofSeconds(1), 20, 9), "twenty words are worth keeping");
        assertFalse(anew(Duration.ofSeconds(1), 19, 0));
        assertFalse(anew(Duration.ofMinutes(10).minusMillis(1), 200, 210));
        assertFalse(anew(Duration.ofSeconds(1), 12, 0), "hardly begun");
        assertFalse(anew(Duration.ofHours(3), 0, 100), "nothing there yet");
    }
}

package org.vastporch.core.comments;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.vastporch.core.comments.CommentsAsked.Given;

class CommentsAskedTest {

    private static final Instant WEDNESDAY = Instant.parse("2026-11-25T20:00:00Z");
    private static final Instant SUNDAY = Instant.parse("2026-11-29T20:00:00Z");

    @Test
    void whatIsLongEnoughAndInTimeCounts() {
        CommentsAsked asked = new CommentsAsked(3, 10, WEDNESDAY);
        assertEquals(
                2,
                asked.counted(List.of(
                        new Given(WEDNESDAY, 10),
                        new Given(WEDNESDAY.minusSeconds(1), 11),
                        new Given(WEDNESDAY.minusSeconds(1), 9),
                        new Given(WEDNESDAY.plusSeconds(1), 40))));
        assertEquals(1, new CommentsAsked(3, 0, null).counted(List.of(new Given(SUNDAY, 0))));
        assertEquals(0, asked.counted(List.of()));
    }

    @Test
    void oneCanGiveThemUntilTheirTimeElseThatOfThePrompt() {
        assertTrue(new CommentsAsked(1, 0, WEDNESDAY).isOpen(WEDNESDAY.minusSeconds(1), SUNDAY));
        assertFalse(new CommentsAsked(1, 0, WEDNESDAY).isOpen(WEDNESDAY, SUNDAY));
        assertTrue(new CommentsAsked(1, 0, null).isOpen(WEDNESDAY, SUNDAY));
        assertFalse(new CommentsAsked(1, 0, null).isOpen(SUNDAY, SUNDAY));
        assertFalse(new CommentsAsked(0, 0, SUNDAY).isOpen(WEDNESDAY, SUNDAY), "none are asked for");
    }
}

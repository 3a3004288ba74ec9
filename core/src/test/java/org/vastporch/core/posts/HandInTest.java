package org.vastporch.core.posts;

import static org.junit.jupiter.api.Assertions.*;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.vastporch.core.Refusal;

class HandInTest {

    @Test
    void saysWhatIsMissingAndWhatMustBeThere() {
        var lines = HandIn.check(
                new HandIn.Asked(200, 1, 2, 1, 0, 2, 0),
                HandIn.Ruled.FREE,
                new HandIn.Has("Slugs", 236, 1, 0, 1, 1, 0, 1, 0));
        assertEquals(
                List.of(true, true, true, false, false, true, false),
                lines.stream().map(HandIn.Line::met).toList());
        assertTrue(HandIn.isReady(lines), "what a prompt asks for is said, not enforced");
        assertFalse(HandIn.isReady(
                HandIn.check(HandIn.Asked.NOTHING, HandIn.Ruled.FREE, new HandIn.Has(" ", 5, 0, 0, 0, 0, 0, 0, 0))));
        assertFalse(HandIn.isReady(
                HandIn.check(HandIn.Asked.NOTHING, HandIn.Ruled.FREE, new HandIn.Has("x", 0, 0, 0, 0, 0, 0, 0, 0))));
    }

    @Test
    void tidiesTags() {
        assertEquals(List.of("slugs", "Beet root"), Tags.tidy(List.of(" #slugs", "Slügs", "Beet  root", " ")));
        assertThrows(Refusal.class, () -> Tags.tidy(List.of("x".repeat(500))));
    }
}

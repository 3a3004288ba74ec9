package org.vastporch.core.margin;

import static org.junit.jupiter.api.Assertions.*;

import org.junit.jupiter.api.Test;
import org.vastporch.core.Refusal;

class PassageTest {

    @Test
    void isThereWithinOneParagraphOverBoldAndLinksToo() {
        String html = "<p>A <strong>big</strong> slug</p><p>and a frog &amp; a toad.</p>";
        assertTrue(new Passage("big slug", 0).isIn(html));
        assertTrue(new Passage("frog & a", 0).isIn(html));
        assertTrue(new Passage("slug", 4).isIn(html), "fewer than before: the last is meant");
        assertFalse(new Passage("slugand", 0).isIn(html));
        assertFalse(new Passage("slug and", 0).isIn(html));
        assertFalse(new Passage("newt", 0).isIn(html));
    }

    @Test
    void isOfSomeWordsAndNotTooMany() {
        assertThrows(Refusal.class, () -> new Passage(" ", 0));
        assertThrows(Refusal.class, () -> new Passage("x".repeat(2_001), 0));
        assertThrows(Refusal.class, () -> new Passage("x", -1));
        new Passage("x".repeat(2_000), 0);
    }
}

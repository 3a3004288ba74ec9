package org.vastporch.core.writing;

import static org.junit.jupiter.api.Assertions.*;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastporch.core.Refusal;
import org.vastporch.core.blogs.BlogRules;

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

    private static HandIn.Has has(int words, int pictures, int described) {
        return new HandIn.Has("Slugs", words, pictures, described, 0, 0, 0, 0, 0);
    }

    /** What nobody asks for is not on the list. */
    @Test
    void namesWhatIsAskedForAndNothingElse() {
        assertEquals(
                List.of(HandIn.Need.TITLE, HandIn.Need.WORDS),
                HandIn.check(HandIn.Asked.NOTHING, HandIn.Ruled.FREE, has(1, 0, 0)).stream()
                        .map(HandIn.Line::need)
                        .toList());
        assertEquals(
                List.of(
                        new HandIn.Line(HandIn.Need.TITLE, 1, 1, true),
                        new HandIn.Line(HandIn.Need.WORDS, 40, 50, false),
                        new HandIn.Line(HandIn.Need.PICTURES, 1, 1, false),
                        new HandIn.Line(HandIn.Need.PICTURES_DESCRIBED, 0, 1, false),
                        new HandIn.Line(HandIn.Need.TAGS, 0, 1, false),
                        new HandIn.Line(HandIn.Need.CATEGORY, 0, 1, false),
                        new HandIn.Line(HandIn.Need.LINKS, 0, 1, false),
                        new HandIn.Line(HandIn.Need.SOURCES, 0, 1, false),
                        new HandIn.Line(HandIn.Need.COMMENTS, 0, 1, false)),
                HandIn.check(new HandIn.Asked(50, 1, 1, 1, 1, 1, 1), HandIn.Ruled.FREE, has(40, 1, 0)));
    }

    @Test
    void aPictureAloneIsEnoughUnlessTheBlogWantsWords() {
        assertTrue(HandIn.isReady(HandIn.check(HandIn.Asked.NOTHING, HandIn.Ruled.FREE, has(0, 1, 0))));
        HandIn.Ruled fiveWords = new HandIn.Ruled(
                new BlogRules(
                        BlogRules.Window.ALWAYS,
                        BlogRules.Window.ALWAYS,
                        true,
                        40,
                        40,
                        5,
                        0,
                        2,
                        BlogRules.Period.DAY,
                        BlogRules.Closing.NEVER),
                1);
        assertFalse(HandIn.isReady(HandIn.check(HandIn.Asked.NOTHING, fiveWords, has(0, 1, 1))));
        assertFalse(HandIn.isReady(HandIn.check(HandIn.Asked.NOTHING, fiveWords, has(4, 0, 0))));
        assertTrue(HandIn.isReady(HandIn.check(HandIn.Asked.NOTHING, fiveWords, has(5, 0, 0))));
        assertEquals(
                new HandIn.Line(HandIn.Need.MOST_POSTS, 1, 2, true),
                HandIn.check(HandIn.Asked.NOTHING, fiveWords, has(5, 0, 0)).get(2));
    }

    @ParameterizedTest
    @CsvSource({
        "WORDS, 4, 5, false",
        "WORDS, 5, 5, true",
        "MOST_WORDS, 5, 5, true",
        "MOST_WORDS, 6, 5, false",
        "MOST_POSTS, 1, 2, true",
        "MOST_POSTS, 2, 2, false"
    })
    void aLineIsMet(HandIn.Need need, int has, int asked, boolean met) {
        assertEquals(met, new HandIn.Line(need, has, asked, true).met());
    }

    @Test
    void aTagHasAtMostFortyCharacters() {
        assertEquals(1, Tags.tidy(List.of("x".repeat(Tags.LONGEST))).size());
        assertThrows(Refusal.class, () -> Tags.tidy(List.of("x".repeat(Tags.LONGEST + 1))));
    }

    @Test
    void howItsAuthorSeesItIsSaidAndNoMust() {
        var lines = HandIn.check(HandIn.Asked.NOTHING, HandIn.Ruled.FREE, has(5, 0, 0));
        var open = HandIn.withOwnView(lines, false);
        assertEquals(lines.size() + 1, open.size());
        assertFalse(open.get(open.size() - 1).met());
        assertTrue(HandIn.isReady(open));
        assertTrue(HandIn.withOwnView(lines, true).get(lines.size()).met());
    }
}

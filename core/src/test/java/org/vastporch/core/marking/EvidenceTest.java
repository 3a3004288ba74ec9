package org.vastporch.core.marking;

import static org.junit.jupiter.api.Assertions.*;

import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.vastporch.core.rubrics.Counted;
import org.vastporch.core.text.TextFacts;

class EvidenceTest {

    private static Evidence.Text text(String html, boolean isWhole, boolean hasCategory, int works, String... tags) {
        return new Evidence.Text(TextFacts.of(html), isWhole, hasCategory, Set.of(tags), works);
    }

    private static final Evidence.Text ROOTS = text(
            "<h2>Roots</h2><p>Four words about roots, <a href=\"https://example.org/\">more</a></p>"
                    + "<p><img src=\"/a\" alt=\"A root\"><img src=\"/b\" alt=\"\"></p>",
            true,
            true,
            2,
            "soil",
            "roots");
    private static final Evidence.Text LEAVES = text("<p>Three more words</p>", true, false, 1, "soil", "leaves");

    @Test
    void addsUpWhatStandsInAllPosts() {
        assertEquals(
                Map.ofEntries(
                        Map.entry(Counted.WORDS, 9),
                        Map.entry(Counted.HEADINGS, 1),
                        Map.entry(Counted.PICTURES, 2),
                        Map.entry(Counted.DESCRIBED, 1),
                        Map.entry(Counted.SOUNDS, 0),
                        Map.entry(Counted.VIDEOS, 0),
                        Map.entry(Counted.LINKS, 1),
                        Map.entry(Counted.WORKS, 3),
                        Map.entry(Counted.TAGS, 3),
                        Map.entry(Counted.CATEGORY, 1),
                        Map.entry(Counted.COMMENTS, 4),
                        Map.entry(Counted.ON_TIME, 1)),
                Evidence.of(List.of(ROOTS, LEAVES), 4, 0).numbers());
    }

    @Test
    void ofABeginningNobodyKnowsHowLongTheWholeIs() {
        Evidence.Text beginning = text("<p>It begins</p><p><img src=\"/c\" alt=\"C\"></p>", false, false, 0);
        Map<Counted, Integer> numbers =
                Evidence.of(List.of(ROOTS, beginning), 0, 0).numbers();
        assertFalse(numbers.containsKey(Counted.WORDS));
        assertEquals(3, numbers.get(Counted.PICTURES), "what is there is counted");
    }

    @Test
    void aPaperIsOnTimeOrItIsNot() {
        for (int days : new int[] {0, 1, 30})
            assertEquals(
                    days == 0 ? 1 : 0,
                    Evidence.of(List.of(ROOTS), 0, days).numbers().get(Counted.ON_TIME));
    }

    @Test
    void withoutPostsOnlyCommentsAndTimeAreKnown() {
        assertEquals(
                Map.of(Counted.COMMENTS, 3, Counted.ON_TIME, 0),
                Evidence.of(List.of(), 3, 2).numbers());
    }
}

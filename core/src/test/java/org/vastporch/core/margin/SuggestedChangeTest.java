package org.vastporch.core.margin;

import static org.junit.jupiter.api.Assertions.*;

import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastporch.core.Refusal;

class SuggestedChangeTest {

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            ignoreLeadingAndTrailingWhitespace = true,
            value = {
                "slugs  | 0 | snails  | <p>The slugs and slugs.</p>                   | <p>The snails and slugs.</p>",
                "slugs  | 1 | snails  | <p>The slugs and</p><p>slugs.</p>             | <p>The slugs "
                        + "and</p><p>snails.</p>",
                "slugs  | 7 | snails  | <p>The slugs and slugs.</p>                   | <p>The slugs and snails.</p>",
                "big sl | 0 | small s | <p>A <strong>big</strong> slug</p>            | <p>A "
                        + "<strong>small s</strong>ug</p>",
                "a < b  | 0 | b > a   | <p>a &lt; b</p>                               | <p>b &gt; a</p>",
                "slugs  | 0 | ''      | <p>The slugs.</p>                             | <p>The .</p>",
                "aa     | 1 | b       | <p>aaaa aa</p>                                | <p>aab aa</p>",
                "aa     | 2 | b       | <p>aaaa aa</p>                                | <p>aaaa b</p>",
                "The    | 0 | A       | <p>The <em>slugs</em>.</p>                    | <p>A <em>slugs</em>.</p>",
                "ugs.   | 0 | ow.     | <p>The <em>sl</em>ugs.</p>                    | <p>The <em>sl</em>ow.</p>",
            })
    void isMadeWhereTheWordsStand(String quote, int nth, String replacement, String html, String after) {
        assertEquals(Optional.of(after), new SuggestedChange(quote, nth, replacement).in(html));
    }

    @Test
    void isNotMadeWhereTheyDoNotStandAnyMore() {
        assertEquals(Optional.empty(), new SuggestedChange("frogs", 0, "toads").in("<p>The slugs.</p>"));
        assertEquals(
                Optional.empty(),
                new SuggestedChange("one two", 0, "x").in("<p>one</p><p>two</p>"),
                "not across paragraphs");
        assertEquals(
                Optional.empty(),
                new SuggestedChange("onetwo", 0, "x").in("<p>one</p><p>two</p>"),
                "nor where two of them meet");
        assertEquals(
                Optional.of("<p>x<em></em></p>"), new SuggestedChange("one two", 0, "x").in("<p>one <em>two</em></p>"));
        assertEquals(Optional.empty(), new SuggestedChange("frogs", 3, "toads").in("<p>The slugs.</p>"));
        assertEquals(
                Optional.of("<p>&lt;script&gt;</p>"),
                new SuggestedChange("x", 0, "<script>").in("<p>x</p>"),
                "what is proposed is words, not HTML");
        assertThrows(Refusal.class, () -> new SuggestedChange(" ", 0, "x"));
        assertThrows(Refusal.class, () -> new SuggestedChange("x", -1, "x"));
    }
}

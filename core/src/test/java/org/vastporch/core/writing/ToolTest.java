package org.vastporch.core.writing;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;

import java.util.EnumSet;
import java.util.Set;
import org.jsoup.Jsoup;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

class ToolTest {

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "HEADING  | <h2>T</h2><p>x</p>                                   | <p>T</p><p>x</p>",
                "LIST     | <ul><li>a</li><li><p>b</p></li></ul>                 | <p>a</p><p>b</p>",
                "LINK     | <p><a href=\"https://x.example\">x</a></p>          | <p>x</p>",
                "QUOTE    | <blockquote><p>x</p></blockquote>                    | <p>x</p>",
                "PICTURE  | <figure><img src=\"/media/1\"></figure><p>x</p>     | <p>x</p>",
                "BOLD     | <p><strong><em>x</em></strong></p>                   | <p><em>x</em></p>",
            })
    void leavesOutWhatItsToolMakesAndKeepsTheWords(Tool without, String html, String kept) {
        Set<Tool> allowed = EnumSet.complementOf(EnumSet.of(without));
        assertEquals(kept, Tool.keepOnly(html, allowed));
        assertEquals(html, Tool.keepOnly(html, Tool.ALL));
    }

    /** Whatever is allowed, no word that was typed is lost with a tool for words. */
    @ParameterizedTest
    @EnumSource(
            value = Tool.class,
            names = {"PICTURE", "SOUND", "VIDEO", "DOCUMENT"},
            mode = EnumSource.Mode.EXCLUDE)
    void noWordIsLost(Tool only) {
        String html = "<h2>one</h2><ul><li>two "
                + "<strong>three</strong></li></ul><blockquote><p>four</p></blockquote><p "
                + "data-align=\"right\"><u>five</u> <s>six</s> <em>seven</em> <a "
                + "href=\"https://x.example\">eight</a></p>";
        String kept = Tool.keepOnly(html, EnumSet.of(only));
        assertEquals(
                "one two three four five six seven eight",
                Jsoup.parse(kept.replace("<", " <"))
                        .text()
                        .replaceAll("\\s+", " ")
                        .strip());
    }

    @Test
    void aLinkOfACardGoesWithTheCard() {
        String card = "<figure data-kind=\"card\"><a href=\"https://v.example/1\">A film</a></figure>";
        assertEquals(card, Tool.keepOnly(card, EnumSet.complementOf(EnumSet.of(Tool.LINK))));
        assertFalse(Tool.keepOnly(card, EnumSet.complementOf(EnumSet.of(Tool.VIDEO)))
                .contains("film"));
    }
}

package org.vastporch.core.text;

import static org.junit.jupiter.api.Assertions.*;

import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SearchableTest {

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "Ｗｒｅｎ ０７          | Wren 07",
                "i\u00addi\u200bot      | idiot",
                "Zoe\u0308 Łukasz ﬁsh  | Zoe Lukasz fish",
                "раypal                 | paypal",
                "an сосо drink          | an coco drink",
                "Москва и coco          | Москва и coco",
                "٣ и ७                  | 3 и 7",
                "a\u00a0b – c’s         | a b - c's",
                "👩\u200d🌾 x            | 👩🌾 x",
                "ı𝐝ⓘ🅾ᴛ                 | idiOt",
            })
    void looksAsAReaderSeesIt(String text, String copy) {
        assertEquals(copy, Searchable.of(text.translateEscapes()).cased());
    }

    @Test
    void everySignKnowsItsPlace() {
        String text = "so, i\u00addi\u0308o\u200dt\u0301! ﬁn";
        Searchable copy = Searchable.of(text);
        int at = copy.text().indexOf("idiot");
        assertEquals(
                "i\u00addi\u0308o\u200dt\u0301",
                text.substring(copy.start(at), copy.end(at + 5)),
                "with the marks on its last letter");
        int i = copy.text().indexOf("in");
        assertEquals("ﬁn", text.substring(copy.start(i), copy.end(i + 2)), "half a ligature is all of it");
        assertEquals(text.length(), copy.end(copy.text().length()));
    }

    /** Law: places only grow, a stretch is never empty or outside, and the two copies are of one length. */
    @Test
    void placesHoldOnAnyText() {
        Random random = new Random(11);
        int[] from = {
            0x20, 0x41, 0xAD, 0x300, 0x391, 0x410, 0x600, 0x900, 0x1100, 0x1D400, 0x2000, 0x1F1E6, 0x1F468, 0xD800,
            0xDC00, 0xFB00, 0xFDFA, 0xFE00, 0xFF01, 0xE0020
        };
        for (int n = 0; n < 4000; n++) {
            StringBuilder made = new StringBuilder();
            for (int k = random.nextInt(30); k >= 0; k--)
                made.appendCodePoint(from[random.nextInt(from.length)] + random.nextInt(40));
            String text = made.toString();
            Searchable copy = Searchable.of(text);
            assertEquals(copy.cased().length(), copy.text().length());
            for (int i = 0; i < copy.text().length(); i++) {
                assertTrue(copy.start(i) < copy.end(i + 1) && copy.end(i + 1) <= text.length(), text);
                if (i > 0) assertTrue(copy.start(i - 1) <= copy.start(i), text);
            }
        }
    }
}

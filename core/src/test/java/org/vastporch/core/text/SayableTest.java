package org.vastporch.core.text;

import static org.junit.jupiter.api.Assertions.*;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.vastporch.core.writing.Tags;

class SayableTest {

    @ParameterizedTest
    @ValueSource(strings = {"\ud83d", "\udc31", "\u0000", "\u0001", "\u000b", "\u001f", "\ufffe", "\uffff"})
    void leavesOutWhatNoFeedCanSay(String odd) {
        assertEquals("ab", Sayable.of("a" + odd + "b"));
        assertEquals("ab", OneLine.of("a" + odd + "b"));
        assertEquals(List.of("ab"), Tags.tidy(List.of("a" + odd + "b")));
        assertEquals("<p>ab</p>", Sanitiser.post("<p>a" + odd + "b</p>"));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "Eleven leaves\n\tand a\r\nhole",
                "\ud83c\udf31 bean",
                "Тихонова",
                "क्षेत्र",
                "a\u200db",
                "\ufffd",
                "\u007f\u0085"
            })
    void keepsEverythingElseAsItIs(String text) {
        assertSame(text, Sayable.of(text));
    }

    /** Whatever stands in a text: what is left is whole characters, and saying it once more changes nothing. */
    @Test
    void whatIsLeftIsWholeCharactersOnly() {
        Random random = new Random(7);
        for (int world = 0; world < 2_000; world++) {
            StringBuilder text = new StringBuilder();
            for (int i = random.nextInt(12); i > 0; i--)
                text.append(
                        random.nextBoolean()
                                ? (char) ('a' + random.nextInt(26))
                                : (char)
                                        (random.nextBoolean()
                                                ? 0xD800 + random.nextInt(0x800)
                                                : random.nextInt(0x10000)));
            String said = Sayable.of(text.toString());
            assertSame(said, Sayable.of(said));
            assertEquals(
                    said,
                    new String(said.getBytes(StandardCharsets.UTF_8), StandardCharsets.UTF_8),
                    "it survives being written");
            assertEquals(
                    text.chars().filter(c -> c >= 'a' && c <= 'z').count(),
                    said.chars().filter(c -> c >= 'a' && c <= 'z').count(),
                    "no letter is lost");
        }
    }
}

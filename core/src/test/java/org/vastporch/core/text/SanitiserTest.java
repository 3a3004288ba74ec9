package org.vastporch.core.text;

import static org.junit.jupiter.api.Assertions.*;

import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class SanitiserTest {

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "<p onclick=x style='color:red' class=a>Hi</p>                    | <p>Hi</p>",
                "<script>alert(1)</script><p>Hi</p>                               | <p>Hi</p>",
                "<p><a href=javascript:alert(1)>Hi</a></p>                        | <p>Hi</p>",
                "<p><b>x</b> <i>y</i></p><h1>T</h1>                               | "
                        + "<p><strong>x</strong> <em>y</em></p><h2>T</h2>",
                "<img src=/media/0a1b2c3d-11 alt='A bean' data-width=half onerror=x> | <img "
                        + "src=\"/media/0a1b2c3d-11\" alt=\"A bean\" data-width=\"half\">",
                "<p>x<img src=http://t.example/p.gif width=1 height=1></p>        | <p>x</p>",
                "<p><img src=http://t.example/p.png alt=Oars></p>                 | <p><a "
                        + "href=\"http://t.example/p.png\" rel=\"noopener nofollow ugc\">A picture kept "
                        + "elsewhere: Oars</a></p>",
                "<svg><script>1</script></svg><iframe src=x></iframe><p>ok</p>    | <p>ok</p>",
                "<img src=data:image/svg+xml;base64,AAAA><p>ok</p>                | <p>ok</p>",
                "<div>plain</div>                                                 | <p>plain</p>",
                "<p data-align=center style=x>a</p><p data-align=huge>b</p>       | <p "
                        + "data-align=\"center\">a</p><p>b</p>",
                "<figure data-kind=sound><a "
                        + "href=/media/files/0a1b2c3d-0000-4000-8000-0123456789ab/x.mp3 "
                        + "onclick=x>x</a></figure> | <figure data-kind=\"sound\"><a "
                        + "href=\"/media/files/0a1b2c3d-0000-4000-8000-0123456789ab\">x</a></figure>",
                "<p><a href=/media/files/../api data-file=evil>x</a></p>          | <p>x</p>",
                "<figure data-kind=evil><a href=https://v.example/1>A film</a></figure> | <figure><a "
                        + "href=\"https://v.example/1\" rel=\"noopener nofollow ugc\">A film</a></figure>",
                "<p>a<br>b</p>                                                    | <p>a<br>b</p>",
            })
    void keepsOnlyWhatMayStandInAPost(String dirty, String clean) {
        assertEquals(clean, Sanitiser.post(dirty));
        assertEquals(clean, Sanitiser.post(clean), "clean text stays as it is");
    }

    @Test
    void survivesDeepNesting() {
        String deep = "<div>".repeat(3000) + "end" + "</div>".repeat(3000);
        assertTrue(Sanitiser.post(deep).contains("end"));
    }

    /** Shapes on which the work would grow as the square of the text, or faster. */
    @ParameterizedTest
    @ValueSource(strings = {"<a>x", "<b>x</b>", "<p><b></p>", "<li><u>", "<i a>", "<!-- x -->", "<"})
    void keepsTheWordsOfWhatNobodyWrites(String piece) {
        StringBuilder text = new StringBuilder("<p>Eleven leaves");
        for (int i = 0; text.length() < 900_000; i++) text.append(piece.replace(" a", " a" + i));
        String clean = Sanitiser.post(text + "</p><p>and the end.</p>");
        assertTrue(TextFacts.of(clean).plain().startsWith("Eleven leaves"));
        assertTrue(clean.contains("and the end."), clean.substring(Math.max(0, clean.length() - 200)));
        assertEquals(clean, Sanitiser.post(clean));
    }

    @Test
    void aLongPostOfAPersonKeepsItsMarkUp() {
        String paragraph = "<p>I counted <strong>eleven</strong> <em>leaves</em> with <a "
                + "href=\"https://garden.example/holes\" rel=\"noopener nofollow ugc\">holes</a>.</p>";
        String whole = paragraph.repeat(2_000);
        assertEquals(whole, Sanitiser.post(whole));
    }

    @Test
    void plainCommentsKeepTheirLines() {
        assertEquals("<p>a &lt; b<br>c</p><p>d</p>", Sanitiser.commentFromPlain("a < b\nc\n\nd"));
    }

    @ParameterizedTest
    @CsvSource({
        "'One two-three O’Shaughn 41', 4",
        "'Тихонова Марина', 2",
        "'3.5 kg', 3",
        "'', 0",
        "'— … !', 0",
        "'naïve cafe\u0301', 2"
    })
    void countsWordsOfAnyScript(String text, int words) {
        assertEquals(words, TextFacts.countWords(text));
    }

    @Test
    void knowsWhatIsInAText() {
        TextFacts facts = TextFacts.of("<h2>Slugs</h2><p>I counted <a href=\"http://x.example\">eleven</a> "
                + "leaves.</p><figure><img src=\"/media/1\" alt=\"\"></figure><img src=\"/media/2\" "
                + "alt=\"x\">");
        assertEquals("Slugs\nI counted eleven leaves.", facts.plain());
        assertEquals(5, facts.words());
        TextFacts file = TextFacts.of("<p>Two words.</p><figure data-kind=\"document\"><a href=\"/media/files/1\">Bird "
                + "list.pdf</a><figcaption>Ours</figcaption></figure>");
        assertEquals(3, file.words(), "the name of a file is no word of its author's, a line under it is");
        assertEquals(0, file.links());
        assertTrue(file.plain().contains("Bird list"), "it is looked at all the same");
        assertEquals(2, facts.pictures());
        assertEquals(1, facts.described());
        assertEquals("/media/1", facts.firstPicture());
        assertEquals("Slugs I…", facts.firstLines(12));
    }

    @Test
    void showsWhatChangedByWords() {
        assertEquals(
                "We needed [-forty-][+fifty+] loads. It took ages.",
                shown("We needed forty loads. It took ages.", "We needed fifty loads. It took ages."));
        assertEquals(
                "Wait. [-It took ages-][+I timed ten loads+].",
                shown("Wait. It took ages.", "Wait. I timed ten loads."));
    }

    private static String shown(String before, String after) {
        return WordDiff.of(before, after).stream()
                .map(s -> switch (s.change()) {
                    case SAME -> s.text();
                    case ADDED -> "[+" + s.text() + "+]";
                    case REMOVED -> "[-" + s.text() + "-]";
                })
                .collect(Collectors.joining());
    }
}

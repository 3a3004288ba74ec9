package org.vastporch.core.text;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Element;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.vastporch.core.moderation.HoldRules;
import org.vastporch.core.text.WordDiff.Change;
import org.vastporch.core.text.WordDiff.Stretch;

/** Laws of the sanitiser and the difference, on generated texts. */
class TextLawsTest {

    private static final List<String> PIECES = List.of(
            "<p>",
            "</p>",
            "<b>",
            "</b>",
            "<script>",
            "</script>",
            "<img src=x onerror=alert(1)>",
            "<a href='javascript:alert(1)'>",
            "<a href=\"java\nscript:x\">",
            "</a>",
            "<svg/onload=x>",
            "<iframe srcdoc='<script>x</script>'>",
            "<style>*{}</style>",
            "<div style='background:url(x)'>",
            "</div>",
            "<math><mtext><style><img src=x onerror=x>",
            "<!--",
            "-->",
            "<table><td>",
            "&lt;script&gt;",
            "\u0000",
            "words",
            " ",
            "<p onclick=x",
            ">",
            "<img src='/media/0a1b2c3d'",
            " alt='\"><script>x</script>'>",
            "<noscript><p title=\"</noscript><img src=x onerror=x>\">",
            "<ul><li>",
            "<template><script>x</script></template>",
            "<base href=//x>",
            "<form action=x><input name=y>",
            "<object data=x>",
            "<h1>",
            "</h1>",
            "<a href=\"data:text/html,x\">");
    private static final List<String> ALLOWED = List.of(
            "p",
            "h2",
            "h3",
            "ul",
            "ol",
            "li",
            "blockquote",
            "a",
            "strong",
            "em",
            "u",
            "s",
            "br",
            "hr",
            "pre",
            "code",
            "figure",
            "figcaption",
            "img");

    @Test
    void nothingButTheAllowListGetsThroughAndCleanTextStaysClean() {
        Random random = new Random(23);
        for (int i = 0; i < 4000; i++) {
            StringBuilder dirty = new StringBuilder();
            for (int n = random.nextInt(14); n >= 0; n--) dirty.append(PIECES.get(random.nextInt(PIECES.size())));
            String clean = Sanitiser.post(dirty.toString());
            for (Element element : Jsoup.parseBodyFragment(clean).body().select("body > *, body > * *")) {
                assertTrue(ALLOWED.contains(element.tagName()), () -> dirty + " -> " + clean);
                element.attributes().forEach(a -> {
                    assertTrue(
                            List.of("href", "rel", "src", "alt", "data-width").contains(a.getKey()),
                            () -> dirty + " -> " + clean);
                    if (a.getKey().equals("href"))
                        assertTrue(a.getValue().matches("(?i)(https?://|mailto:).*"), () -> dirty + " -> " + clean);
                    if (a.getKey().equals("src"))
                        assertTrue(a.getValue().startsWith("/media/"), () -> dirty + " -> " + clean);
                });
            }
            assertEquals(clean, Sanitiser.post(clean), dirty::toString);
        }
    }

    @Test
    void theStretchesOfADifferenceGiveBothTexts() {
        Random random = new Random(29);
        List<String> words = List.of(
                "we", "needed", "forty", "loads", ".", " ", " ", "\n", "it", "took", "ages", "Łukasz", "41", "-",
                "ten");
        for (int i = 0; i < 2000; i++) {
            String before = text(random, words);
            String after = text(random, words);
            List<Stretch> stretches = WordDiff.of(before, after);
            assertEquals(after, joined(stretches, Change.REMOVED));
            assertEquals(before, joined(stretches, Change.ADDED));
        }
    }

    /**
     * Long texts are parted before they are compared; they still give both texts, and small changes are still seen as
     * small.
     */
    @Test
    void aLongTextIsComparedAsClosely() {
        Random random = new Random(37);
        for (int i = 0; i < 20; i++) {
            List<String> words = new ArrayList<>(
                    random.ints(6_000, 0, 900).mapToObj(n -> "word" + n).toList());
            String before = String.join(" ", words);
            int changes = random.nextInt(1, 30);
            for (int n = 0; n < changes; n++) words.set(random.nextInt(words.size()), "changed" + n);
            String after = String.join(" ", words);
            List<Stretch> stretches = WordDiff.of(before, after);
            assertEquals(after, joined(stretches, Change.REMOVED));
            assertEquals(before, joined(stretches, Change.ADDED));
            int added = stretches.stream()
                    .filter(s -> s.change() == Change.ADDED)
                    .mapToInt(s -> s.text().length())
                    .sum();
            assertTrue(added <= changes * 30, changes + " changed words are shown as " + added + " characters");
        }
    }

    /**
     * Somebody who approves a difference has seen all of the new version: the words, and each picture, file, link, tag
     * and title.
     */
    @Test
    void aRevisionLeavesOutNothingThatIsNew() {
        Random random = new Random(31);
        List<String> blocks = List.of(
                "<p>It rained.</p>",
                "<p>It <a href=\"https://a.example/1\">rained</a>.</p>",
                "<p>It <a href=\"https://b.example/2\">rained</a>.</p>",
                "<figure><img src=\"/media/0a1b2c3d\" alt=\"a bed\" data-width=\"half\"></figure>",
                "<figure><img src=\"/media/0a1b2c3d\" alt=\"a bed\"></figure>",
                "<figure><img src=\"/media/0a1b2c3d\" alt=\"my house\"></figure>",
                "<img src=\"/media/4e5f6a7b\" alt=\"\">",
                "<figure data-kind=\"card\"><a href=\"https://c.example/v\">Rain</a></figure>",
                "<figure data-kind=\"card\"><a href=\"https://d.example/v\">Rain</a></figure>");
        for (int i = 0; i < 2000; i++) {
            Revision.Side before = side(random, blocks);
            Revision.Side now = side(random, blocks);
            Revision revision = Revision.of(before, now);
            for (Element e : Jsoup.parseBodyFragment(now.html()).select("a[href], img")) {
                String what = e.nameIs("a") ? e.attr("href") : e.attr("src") + "\" alt=\"" + e.attr("alt");
                if (!before.html().contains(what))
                    assertTrue(revision.shown().contains(what), () -> before + " -> " + now + ": " + revision);
            }
            assertEquals(
                    now.title(),
                    revision.title().isEmpty() ? before.title() : joined(revision.title(), Change.REMOVED));
            for (String tag : now.besides())
                assertTrue(
                        before.besides().contains(tag) || revision.besides().contains(new Stretch(Change.ADDED, tag)));
            assertEquals(TextFacts.of(now.html()).plain(), joined(revision.words(), Change.REMOVED));
            assertEquals(
                    before.title().equals(now.title())
                            && Set.copyOf(before.besides()).equals(Set.copyOf(now.besides()))
                            && narrow(before).equals(narrow(now)),
                    revision.isEmpty(),
                    () -> before + " -> " + now + ": " + revision);
        }
    }

    private static Revision.Side side(Random random, List<String> blocks) {
        String html = random.ints(random.nextInt(4), 0, blocks.size())
                .mapToObj(blocks::get)
                .distinct()
                .sorted()
                .collect(Collectors.joining());
        return new Revision.Side(
                List.of("Rain", "Rain again").get(random.nextInt(2)),
                html,
                random.ints(random.nextInt(3), 0, 3)
                        .mapToObj(n -> "tag " + n)
                        .distinct()
                        .toList());
    }

    /** How wide a picture is changes nothing of what it shows. */
    private static String narrow(Revision.Side side) {
        return Stream.of(side.html().replace(" data-width=\"half\"", "").split("(?<=</p>|</figure>|alt=\"\">)"))
                .distinct()
                .collect(Collectors.joining());
    }

    @Test
    void aTextTooLongToCompareIsOneChangeBetweenWhatStayed() {
        String before = "Once. " + "seed ".repeat(9_000) + "The end.";
        String after = "Once. " + "leek ".repeat(9_000) + "The end.";
        List<Stretch> stretches = WordDiff.of(before, after);
        assertEquals(
                List.of(Change.SAME, Change.REMOVED, Change.ADDED, Change.SAME),
                stretches.stream().map(Stretch::change).toList());
        assertEquals(after, joined(stretches, Change.REMOVED));
        assertEquals(before, joined(stretches, Change.ADDED));
        assertEquals(" The end.", stretches.get(3).text());
    }

    /** A pattern that goes back and forth would take minutes for some of these; a person waits for each. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "a",
                "1",
                "0",
                "<",
                "<a",
                "<p",
                "<b>",
                "</b>",
                "@",
                "a@",
                "a.",
                "a-",
                "a@a.",
                "one ",
                "one-",
                "A a ",
                "1 A",
                "l o ",
                "-",
                ",",
                " ",
                "\n",
                "&",
                "&amp",
                "http://",
                "\u0301",
                "insta ",
                "call ",
                "Wren ",
                "@snipe ",
                "\uD83C\uDF31"
            })
    void noTextIsSlowToRead(String piece) {
        String text = piece.repeat(300_000 / piece.length()) + "x";
        HoldRules rules = new HoldRules(List.of("slug", "lo lo"), List.of("Wren Calloway", "a a"), true, true, 3);
        assertTimeoutPreemptively(Duration.ofSeconds(10), () -> {
            assertNotNull(Sanitiser.post(text));
            assertNotNull(Sanitiser.comment(Sanitiser.commentFromPlain(text)));
            assertTrue(TextFacts.countWords(text) <= text.length());
            assertNotNull(rules.findNew(text, piece));
            assertEquals(text, joined(WordDiff.of(piece + text.replace(piece, piece + "y"), text), Change.REMOVED));
        });
    }

    private static String text(Random random, List<String> words) {
        StringBuilder text = new StringBuilder();
        for (int n = random.nextInt(24); n > 0; n--) text.append(words.get(random.nextInt(words.size())));
        return text.toString();
    }

    private static String joined(List<Stretch> stretches, Change without) {
        return stretches.stream()
                .filter(s -> s.change() != without)
                .map(Stretch::text)
                .collect(Collectors.joining());
    }

    @Test
    void foldingKeepsPlaces() {
        String text = "Łódź naïve Ørsted ÀÉÎ ß 李 \uD83C\uDF31 e\u0301";
        assertEquals(text.length(), Folding.fold(text).length());
        assertTrue(Folding.fold(text).startsWith("lodz naive orsted aei"));
    }

    @Test
    void firstLinesLeaveFiguresOut() {
        TextFacts facts = TextFacts.of("<p>Before.</p><figure><img src=\"/media/1\" alt=\"Ring "
                + "900412\"><figcaption>Tuesday</figcaption></figure><p>After.</p>");
        assertEquals("Before. After.", facts.firstLines(80));
        assertTrue(facts.plain().contains("Tuesday"), "a caption is text that can be held");
        assertEquals(List.of("Ring 900412"), facts.alts());
    }
}

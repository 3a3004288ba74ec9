package org.vastporch.core.text;

import static org.junit.jupiter.api.Assertions.*;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Texts at the edges of what they are cut, folded and cleaned by. */
class TextEdgesTest {

    @ParameterizedTest
    @CsvSource({
        "'one two three', 13, 'one two three'",
        "'one two three', 12, 'one two…'",
        "'one two, three', 12, 'one two…'",
        "'one two three', 8, 'one two…'",
        "'one two three', 7, 'one tw…'",
        "'a bbbbbbbbbbbbbbbb', 10, 'a bbbbbbb…'",
        "'unbreakablylong', 10, 'unbreakab…'"
    })
    void theFirstLinesEndBetweenWordsWhereTheyCan(String text, int most, String cut) {
        assertEquals(cut, TextFacts.of("<p>" + text + "</p>").firstLines(most));
    }

    @Test
    void whatAPageHoldsIsCounted() {
        TextFacts facts = TextFacts.of("<h2>Slugs</h2><p>Look at <a href=\"https://a.example\">this</a> and"
                + " <a href=\"/media/files/12345678\">that</a>.</p>"
                + "<figure><img src=\"/media/11111111\" alt=\"A slug\"><figcaption>One</figcaption></figure>"
                + "<figure><img src=\"/media/22222222\" alt=\" \"></figure>"
                + "<figure data-kind=\"sound\"><a href=\"/media/files/87654321\">song.mp3</a></figure>"
                + "<p><a href=\"https://a.example\">again</a></p>");
        assertEquals(2, facts.pictures());
        assertEquals(1, facts.described());
        assertEquals(3, facts.links());
        assertEquals(List.of("https://a.example"), facts.addresses());
        assertEquals(List.of("Slugs"), facts.headings());
        assertEquals(List.of("/media/11111111", "/media/22222222", "/media/files/87654321"), facts.media());
        assertEquals("/media/11111111", facts.firstPicture());
        assertEquals(8, facts.words(), "Slugs Look at this and that One again");
    }

    @ParameterizedTest
    @CsvSource({
        "Łukasz, lukasz",
        "Größe, grosse",
        "Þórr, thorr",
        "ΑΘΗΝΑ, athina",
        "Марина, marina",
        "Щука, shchuka",
        "az09, az09",
        "`{/:, ''",
        "李, ''",
        "Zoë, zoe"
    })
    void everyScriptHasItsLatinLetters(String text, String latin) {
        assertEquals(latin, Latin.of(text));
    }

    @ParameterizedTest
    @CsvSource({"Łódź, lodz", "ØRE, ore", "Đak, dak", "ÉCOLE, ecole", "Abc\u007f, abc\u007f", "Ā, a", "𝒜, 𝒜"})
    void foldingTakesAccentsAndCapitalsOff(String text, String folded) {
        assertEquals(folded, Folding.fold(text));
    }

    @Test
    void aLineHasNothingThatTurnsOrBreaksIt() {
        for (int sign : new int[] {0x202A, 0x202C, 0x202E, 0x2066, 0x2067, 0x2069})
            assertEquals("ab", OneLine.of("a" + Character.toString(sign) + "b"), Integer.toHexString(sign));
        for (int sign : new int[] {0x2029 + 6, 0x2065 + 5, 0x200d})
            assertEquals(3, OneLine.of("a" + Character.toString(sign) + "b").length(), Integer.toHexString(sign));
        for (String blank : List.of("\n", "\t", "\u2028", "\u2029", "\u0085", "\r"))
            assertEquals("a b", OneLine.of(" a" + blank + "b "));
        assertEquals("ab", OneLine.of("a\u0000\u0007b"));
    }

    @ParameterizedTest
    @CsvSource({
        // Cyrillic letters that look Latin: in a word with Latin ones, alone in a Latin text, in a text of their own
        "'sl\u0443gs', slygs",
        "'a \u0430\u0441\u0435 of spades', 'a ace of spades'",
        "'\u043c\u043e\u0440\u0435', '\u043c\u043e\u0440\u0435'",
        "'\u043c\u043e\u0440\u0435 \u0441\u0435\u0430 \u043c\u043e\u0440\u0435', "
                + "'\u043c\u043e\u0440\u0435 \u0441\u0435\u0430 \u043c\u043e\u0440\u0435'",
        "'\u043c\u043e\u0440\u044b and then the \u0441\u0435\u0430', '\u043c\u043e\u0440\u044b and then the cea'"
    })
    void lettersThatLookLatinAreFoldedWhereTheyHideAWord(String text, String folded) {
        assertEquals(folded, Searchable.of(text).text());
    }

    @Test
    void everySignOfTheCopyKnowsItsPlace() {
        Searchable copy = Searchable.of("a\u200bb①c");
        assertEquals("ab1c", copy.text());
        assertEquals(List.of(0, 2, 3, 4), List.of(copy.start(0), copy.start(1), copy.start(2), copy.start(3)));
        assertEquals("(a)", Searchable.of("⒜").text());
        assertEquals("a-b.c d\ne", Searchable.of("a−b•c\u00a0d\u2028e").text());
    }

    @Test
    void tagsNestedDeeperThanAnybodyWritesBecomePlainWords() {
        String deep = "<blockquote>".repeat(2_000) + "words" + "</blockquote>".repeat(2_000);
        assertEquals("<p>words</p>", Sanitiser.post(deep).replaceAll("\\s+", ""));
        String shut = "<em>a</em>".repeat(3_000);
        assertTrue(Sanitiser.post("<p>" + shut + "</p>").contains("<em>a</em>"), "many side by side are no nest");
        String lines = "a<br>".repeat(3_000);
        assertTrue(Sanitiser.post("<p>" + lines + "</p>").contains("<br>"), "what has no end nests nothing");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "<div>words</div> | <p>words</p>",
                "<div><p>words</p></div> | <p>words</p>",
                "<div>loose <p>words</p></div> | loose <p>words</p>",
                "<section>words <b>bold</b></section> | <p>words <strong>bold</strong></p>",
                "<p></p><p>words</p><ul><li></li></ul> | <p>words</p>",
            })
    void otherTagsThatSayTheSameAreTakenForOurs(String html, String clean) {
        assertEquals(clean, Sanitiser.post(html));
    }

    @Test
    void whatIsNestedDeeperThanAPageShowsIsFlattened() {
        String clean = Sanitiser.post("<blockquote>".repeat(50) + "<p>x</p>" + "</blockquote>".repeat(50));
        assertEquals(50, clean.split("<blockquote>", -1).length - 1);
        clean = Sanitiser.post("<blockquote>".repeat(90) + "<p>x</p>" + "</blockquote>".repeat(90));
        int kept = clean.split("<blockquote>", -1).length - 1;
        assertTrue(kept > 50 && kept < 90, kept + " kept");
        assertEquals(clean, Sanitiser.post(clean));
    }

    @Test
    void differencesAreFoundWhereverTheyStand() {
        List<String> words = IntStream.range(0, 400).mapToObj(i -> "w" + i).toList();
        String before = String.join(" ", words);
        for (int at : new int[] {0, 1, 199, 398, 399}) {
            List<String> changed = new ArrayList<>(words);
            changed.set(at, "other");
            List<WordDiff.Stretch> pieces = WordDiff.of(before, String.join(" ", changed));
            assertEquals(
                    List.of("w" + at),
                    pieces.stream()
                            .filter(p -> p.change() == WordDiff.Change.REMOVED)
                            .map(p -> p.text().strip())
                            .toList());
            assertEquals(
                    List.of("other"),
                    pieces.stream()
                            .filter(p -> p.change() == WordDiff.Change.ADDED)
                            .map(p -> p.text().strip())
                            .toList());
        }
    }
}

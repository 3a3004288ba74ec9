package org.vastporch.core.sameness;

import static org.junit.jupiter.api.Assertions.*;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.vastporch.core.sameness.Sameness.Pair;

class SamenessTest {

    private final Random random = new Random(17);

    /** Words as a language has them: few that come often, many that come seldom. */
    private String words(int n) {
        return IntStream.range(0, n)
                .mapToObj(i -> "w" + (int) (2_000 * Math.pow(random.nextDouble(), 2)))
                .collect(Collectors.joining(" "));
    }

    private static Answer plain(long id, String text) {
        return new Answer(id, text, List.of());
    }

    private static List<Pair> pairs(Answer... answers) {
        return Sameness.among(List.of(answers), List.of()).pairs();
    }

    private static String at(String text, Passage p) {
        return text.substring(p.start(), p.end());
    }

    @Test
    void aPassageIsToldWithItsPlacesInBothTexts() {
        String one =
                "The loudspeaker says everything twice. Under it there is a hum that you only notice when the train "
                        + "stops it. I stood by the flower stall.";
        String other =
                "I went at six. Under it there is a hum, that you only notice when the train stops it! Then home.";
        Pair pair = pairs(plain(1, one), plain(2, other)).get(0);
        assertEquals(15, pair.sharedWords());
        Passage passage = pair.passages().get(0);
        assertEquals("Under it there is a hum that you only notice when the train stops it", at(one, passage));
        assertEquals(
                "Under it there is a hum, that you only notice when the train stops it",
                other.substring(passage.startThere(), passage.endThere()));
    }

    @ParameterizedTest
    @ValueSource(ints = {8, 9, 12, 20, 50, 100, 200})
    void aPlantedPassageIsAlwaysFoundWhole(int length) {
        for (int run = 0; run < 30; run++) {
            String passage = words(length);
            String one = words(random.nextInt(800)) + ". x1 " + passage + " y1 " + words(200);
            String other = words(random.nextInt(300)) + ". x2 " + disguised(passage) + " y2 " + words(700);
            List<Pair> found = pairs(plain(1, one), plain(2, other));
            assertEquals(1, found.size(), passage);
            assertTrue(found.get(0).sharedWords() >= length);
        }
    }

    /** Other capitals, accents on its vowels, other signs between its words. */
    private String disguised(String passage) {
        String[] words = passage.split(" ");
        StringBuilder text = new StringBuilder();
        for (String word : words) {
            String as = random.nextInt(3) == 0 ? word.toUpperCase(Locale.ROOT) : word.replace("w", "ẃ");
            text.append(as).append(random.nextBoolean() ? ", " : "  ");
        }
        return text.toString().strip();
    }

    @ParameterizedTest
    @ValueSource(ints = {40, 100, 200})
    void aChangedWordInSevenHidesNothing(int length) {
        int found = 0;
        for (int run = 0; run < 50; run++) {
            String[] passage = words(length).split(" ");
            String[] changed = passage.clone();
            for (int i = random.nextInt(7); i < changed.length; i += 7) changed[i] = "other" + i;
            String one = words(400) + " " + String.join(" ", passage) + " " + words(400);
            String other = words(400) + " " + String.join(" ", changed) + " " + words(400);
            found += pairs(plain(1, one), plain(2, other)).size();
        }
        assertEquals(50, found);
    }

    @Test
    void partsInAnotherOrderAreFoundEachForItself() {
        String a = words(30);
        String b = words(20);
        Pair pair = pairs(plain(1, a + " x " + b), plain(2, b + " y " + a)).get(0);
        assertEquals(
                List.of(30, 20), pair.passages().stream().map(Passage::words).toList());
        assertEquals(50, pair.sharedWords());
    }

    @Test
    void unrelatedTextsMakeNoPair() {
        List<Answer> texts = new ArrayList<>();
        for (int i = 0; i < 500; i++) texts.add(plain(i, words(400 + random.nextInt(800))));
        assertEquals(List.of(), Sameness.among(texts, List.of()).pairs());
    }

    /** The exact measures by sets of runs, for generated texts that share something. */
    @Test
    void jaccardAndContainmentAreExact() {
        for (int run = 0; run < 200; run++) {
            String shared = words(8 + random.nextInt(120));
            String one = words(random.nextInt(200)) + " a " + shared + " b " + words(random.nextInt(100));
            String other = words(random.nextInt(60)) + " c " + shared + " d " + words(random.nextInt(300));
            Pair pair = pairs(plain(1, one), plain(2, other)).get(0);
            Set<List<String>> ofOne = runs(one);
            Set<List<String>> ofOther = runs(other);
            Set<List<String>> both = new HashSet<>(ofOne);
            both.retainAll(ofOther);
            int either = ofOne.size() + ofOther.size() - both.size();
            assertEquals((double) both.size() / either, pair.jaccard(), 1e-12);
            assertEquals((double) both.size() / Math.min(ofOne.size(), ofOther.size()), pair.containment(), 1e-12);
        }
    }

    private static Set<List<String>> runs(String text) {
        String[] words = text.strip().split(" +");
        Set<List<String>> runs = new HashSet<>();
        for (int i = 0; i + 5 <= words.length; i++) runs.add(List.of(words).subList(i, i + 5));
        return runs;
    }

    @Test
    void theOrderOfTheTextsChangesNothingAndNoTwoPassagesOverlap() {
        for (int run = 0; run < 40; run++) {
            List<String> pieces = IntStream.range(0, 6)
                    .mapToObj(i -> words(6 + random.nextInt(20)))
                    .toList();
            List<Answer> texts = new ArrayList<>();
            for (int t = 0; t < 5; t++) {
                StringBuilder text = new StringBuilder();
                for (int k = 0; k < 6; k++)
                    text.append(random.nextBoolean() ? pieces.get(random.nextInt(6)) : words(12))
                            .append(". ");
                texts.add(plain(t, text.toString()));
            }
            List<Pair> found = Sameness.among(texts, List.of()).pairs();
            List<Answer> shuffled = new ArrayList<>(texts);
            Collections.shuffle(shuffled, random);
            assertEquals(found, Sameness.among(shuffled, List.of()).pairs());
            for (Pair pair : found) {
                assertApart(pair.passages().stream()
                        .map(p -> new int[] {p.start(), p.end()})
                        .toList());
                assertApart(pair.passages().stream()
                        .map(p -> new int[] {p.startThere(), p.endThere()})
                        .toList());
                assertEquals(
                        pair.sharedWords(),
                        pair.passages().stream().mapToInt(Passage::words).sum());
                for (Passage p : pair.passages())
                    assertEquals(
                            Words.of(at(texts.get((int) pair.first()).plain(), p))
                                    .folded(),
                            Words.of(texts.get((int) pair.second()).plain().substring(p.startThere(), p.endThere()))
                                    .folded());
            }
        }
    }

    private static void assertApart(List<int[]> spans) {
        List<int[]> inOrder = spans.stream().sorted((a, b) -> a[0] - b[0]).toList();
        for (int i = 1; i < inOrder.size(); i++) assertTrue(inOrder.get(i - 1)[1] <= inOrder.get(i)[0]);
    }

    @Test
    void starterTextsAndQuotationsAreLeftOut() {
        String starter = "On my walk I heard first of all the sound of something that I did not know";
        Answer one = Answer.of(1, "<p>" + starter + ".</p><p>Mine alone.</p>");
        Answer other = Answer.of(2, "<p>" + starter + "!</p><p>And mine.</p>");
        assertEquals(1, Sameness.among(List.of(one, other), List.of()).pairs().size());
        assertEquals(
                List.of(), Sameness.among(List.of(one, other), List.of(starter)).pairs());
        String poem = "the station is a room with the weather in it and nobody is at home there";
        for (String as :
                List.of("<blockquote><p>%s</p></blockquote>", "<p>He says “%s”, and so do I.</p>", "<p><q>%s</q></p>"))
            assertEquals(List.of(), pairs(Answer.of(1, as.formatted(poem)), Answer.of(2, "<p>" + poem + "</p>")), as);
    }

    @Test
    void whatAThirdOfTheClassSharesIsCommon() {
        String poem = words(40);
        List<Answer> texts = new ArrayList<>();
        for (int i = 0; i < 18; i++) texts.add(plain(i, words(200) + (i < 7 ? " " + poem : "") + " " + words(100)));
        Sameness.Found found = Sameness.among(texts, List.of());
        assertEquals(List.of(), found.pairs());
        assertEquals(36, found.commonRuns());
        List<Answer> fewer = texts.subList(2, 18);
        assertEquals(10, Sameness.among(fewer, List.of()).pairs().size(), "five of sixteen: every two of them");
    }

    @Test
    void scriptsWithoutBlanksAreComparedSignBySign() {
        String chinese = "我在六点钟的车站听见一种很低的声音";
        Pair pair = pairs(plain(1, "早上。" + chinese + "。"), plain(2, chinese + "，后来停了。"))
                .get(0);
        assertEquals(17, pair.sharedWords());
        assertEquals(
                1,
                pairs(plain(1, "ฉันได้ยินเสียงรถไฟที่สถานี"), plain(2, "ฉันได้ยินเสียงรถไฟที่สถานี"))
                        .size());
        assertEquals(
                1,
                pairs(
                                plain(1, "سمعت صوت القطار في المحطة عند الساعة السادسة مساء"),
                                plain(2, "سمعت صوت القطار في المحطة عند الساعة السادسة مساء"))
                        .size());
    }

    @Test
    void nothingIsSaidOfNothing() {
        assertEquals(List.of(), pairs());
        assertEquals(List.of(), pairs(plain(1, ""), plain(2, "")));
        assertEquals(List.of(), pairs(plain(1, "one"), plain(2, "one")));
        assertEquals(List.of(), pairs(plain(1, "🙂".repeat(90)), plain(2, "🙂".repeat(90))));
        assertEquals(List.of(), pairs(plain(1, "a b c d e f g"), plain(2, "a b c d e f g")), "seven words");
    }

    /** Texts that repeat themselves without end are compared in good time; the stretch of one run tells it. */
    @Test
    void aTextThatRepeatsItselfIsComparedToo() {
        String text = "round and round it goes ".repeat(20_000);
        Pair pair = pairs(plain(1, text), plain(2, text)).get(0);
        assertTrue(pair.sharedWords() > 50_000, () -> "" + pair.sharedWords());
    }

    @ParameterizedTest
    @CsvSource({
        "7, 7, false, true",
        "7, 7, true, false",
        "7, 3, false, true",
        "3, 7, true, true",
        "3, 3, false, false",
        "3, 4, false, false",
    })
    void whatIsToldOfAPrompt(long first, long second, boolean oneHand, boolean told) {
        assertEquals(told, Sameness.isTold(7, first, second, oneHand));
    }
}

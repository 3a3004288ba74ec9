package org.vastporch.core.moderation;

import static org.junit.jupiter.api.Assertions.*;

import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class HoldRulesTest {

    private static final HoldRules RULES = new HoldRules(
            List.of("idiot", "loser"), List.of("Ferris Nightingale", "Bożena Łukaszewicz"), true, true, 2);

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "Ring Ferris on 07700 900 412 before Friday.        | PHONE | 07700 900 412",
                "it is +44 7700.900.412 now                          | PHONE | +44 7700.900.412",
                "text me: 900412 after six                           | PHONE | 900412",
                "oh seven seven double oh nine oh oh four one two    | PHONE | oh seven seven double "
                        + "oh nine oh oh four one two",
                "write to wren.c@post.example please                 | EMAIL | wren.c@post.example",
                "wren (at) post (dot) example                        | EMAIL | wren (at) post (dot) example",
                "my insta is plotwren09                              | HANDLE | plotwren09",
                "I live at 14 Saltmarsh Lane by the shop             | STREET | 14 Saltmarsh Lane",
                "with bozena lukaszewicz from bed 4                  | FULL_NAME | bozena lukaszewicz",
                "you 1d10t really                                    | WORD | 1d10t",
                "such a l o s e r today                              | WORD | l o s e r",
                "see https://saltwort.example/frost for it           | LINK | https://saltwort.example/frost",
            })
    void findsThePlace(String text, Hold.Rule rule, String found) {
        List<Hold> holds = RULES.find(text);
        assertEquals(List.of(rule), holds.stream().map(Hold::rule).toList(), holds::toString);
        assertEquals(found, holds.get(0).found());
        assertEquals(found, text.substring(holds.get(0).start(), holds.get(0).end()));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "On 01.02.2026 we sowed 12 rows.", "It weighed 0.25 kg, then 0.31 kg.",
                        "The ISBN is 978-1-4028-9462-6.", "Four five six beans came up.",
                "We met at half past 10, in 2025-26.", "The flea market was closing.", "A glass of idiotic juice",
                        "Ferris helped, and so did Nightingale Wood.",
                "Our compost is 41 degrees and 2,000,000 worms live in it.", "Look at @ 5 pm"
            })
    void leavesHarmlessTextAlone(String text) {
        assertEquals(List.of(), RULES.find(text));
    }

    @Test
    void holdsOnlyWhatIsNewSinceTheApprovedVersion() {
        assertEquals(
                List.of("07700 900 412"),
                RULES.findNew("Write to a@b.example or 07700 900 412", "First: write to a@b.example").stream()
                        .map(Hold::found)
                        .toList());
    }

    /** Before the cap a text of "@abc " made 170,000 holds. */
    @Test
    void ofVeryManyPlacesFiftyAreMarked() {
        List<Hold> holds = RULES.find("@abc ".repeat(170_000));
        assertEquals(HoldRules.MOST + 1, holds.size());
        assertEquals(Hold.ofWhole(Hold.Rule.MORE, ""), holds.get(HoldRules.MOST));
        assertEquals(HoldRules.MOST, RULES.find("@abc ".repeat(HoldRules.MOST)).size());
    }

    @Test
    void whatIsNewIsFoundBehindAnyNumberOfApprovedPlaces() {
        StringBuilder approved = new StringBuilder();
        for (int i = 0; i < 300; i++) approved.append("@plot").append(i).append(' ');
        assertEquals(
                List.of("07700 900 412"),
                RULES.findNew(approved + "so ring 07700 900 412", approved.toString()).stream()
                        .map(Hold::found)
                        .toList());
    }

    /**
     * Lists are looked through by words that could stand in a text at all; none that a pattern finds may be missed by
     * that.
     */
    @Test
    void noDisguiseEscapesTheFirstLook() {
        Random chance = new Random(13);
        String signs = "oil0e3a4s5t71|!lx$@";
        String between = " .*_-\t\n";
        for (int round = 0; round < 20_000; round++) {
            StringBuilder word = new StringBuilder();
            for (int i = chance.nextInt(1, 7); i > 0; i--)
                word.append(
                        chance.nextInt(9) == 0
                                ? between.charAt(chance.nextInt(5))
                                : signs.charAt(chance.nextInt(signs.length())));
            StringBuilder text = new StringBuilder();
            boolean wide = chance.nextBoolean();
            for (char sign : word.toString().toCharArray()) {
                if (wide && text.length() > 0)
                    for (int i = chance.nextInt(1, 3); i > 0; i--)
                        text.append(between.charAt(chance.nextInt(between.length())));
                text.append(chance.nextBoolean() ? sign : signs.charAt(chance.nextInt(signs.length())));
            }
            if (WordList.pattern(word.toString()).matcher(text).find())
                assertTrue(
                        WordList.squeezed(text.toString()).contains(WordList.squeezed(word.toString())),
                        () -> word + " in " + text);
        }
    }

    private static final String PLAIN = "Beans";

    private static List<Hold.Rule> rules(TextToReview text, Author author) {
        return RULES.find(text, author).stream().map(Hold::rule).toList();
    }

    private static Author author(Author.Place place, int published) {
        return new Author(place, null, null, 0, published);
    }

    private static TextToReview post(int media, String approved) {
        return new TextToReview(true, PLAIN, approved, media, false);
    }

    @Test
    void picturesAndFirstPostsHoldTheWhole() {
        Author newcomer = author(Author.Place.MEMBER, 0);
        assertEquals(List.of(Hold.Rule.PICTURE, Hold.Rule.FIRST_POST), rules(post(1, null), newcomer));
        assertEquals(List.of(Hold.Rule.FIRST_POST), rules(post(0, null), author(Author.Place.MEMBER, 1)));
        assertEquals(List.of(), rules(post(0, null), author(Author.Place.MEMBER, 2)));
        assertEquals(List.of(), rules(post(0, "Leeks"), newcomer), "one that was approved before is no first post");
        assertEquals(List.of(), rules(TextToReview.newComment(PLAIN), newcomer), "a comment is no first post");
    }

    @Test
    void whoComesFromOutsideIsLookedAtFirst() {
        assertEquals(List.of(Hold.Rule.GUEST), rules(TextToReview.newComment(PLAIN), author(Author.Place.GUEST, 9)));
        assertEquals(List.of(Hold.Rule.GUEST), rules(TextToReview.newComment(PLAIN), Author.OUTSIDE));
        assertEquals(List.of(Hold.Rule.GUEST), rules(post(0, null), author(Author.Place.GUEST, 9)));
        assertEquals(
                List.of(),
                rules(post(0, null), author(Author.Place.NONE, 9)),
                "staff mend a post of somebody who has left: no guest wrote that");
    }

    @Test
    void nothingHoldsWhatStaffWriteAndAReportHoldsAllElse() {
        TextToReview reported = new TextToReview(true, "Call 07700 900 412", "Call", 1, true);
        assertEquals(List.of(), rules(reported, author(Author.Place.STAFF, 0)));
        assertEquals(
                List.of(Hold.Rule.PHONE, Hold.Rule.PICTURE, Hold.Rule.REPORT),
                rules(reported, author(Author.Place.MEMBER, 0)));
        assertEquals(
                List.of(Hold.Rule.REPORT),
                rules(new TextToReview(true, "Call 07700 900 412", "Call 07700 900 412", 0, true), Author.OUTSIDE),
                "what was approved with it holds it no more");
    }
}

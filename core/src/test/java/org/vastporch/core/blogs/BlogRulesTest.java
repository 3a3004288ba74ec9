package org.vastporch.core.blogs;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastporch.core.Refusal;
import org.vastporch.core.blogs.BlogRules.Period;
import org.vastporch.core.blogs.BlogRules.Window;
import org.vastporch.core.calendar.Term;
import org.vastporch.core.moderation.Policy;
import org.vastporch.core.writing.HandIn;

class BlogRulesTest {

    private static BlogRules rules(int fewest, int most, int posts, Period per) {
        return new BlogRules(
                Window.ALWAYS, Window.ALWAYS, true, 40, 40, fewest, most, posts, per, BlogRules.Closing.NEVER);
    }

    /** Sunday 25 October 2026 has 25 hours in London; the day and the week begin by the clock on the wall. */
    @ParameterizedTest
    @CsvSource({
        "DAY, 2026-10-25T23:30:00Z, 2026-10-24T23:00:00Z", "DAY, 2026-10-26T00:00:00Z, 2026-10-26T00:00:00Z",
        "WEEK, 2026-10-25T23:30:00Z, 2026-10-18T23:00:00Z", "WEEK, 2026-10-26T00:00:00Z, 2026-10-26T00:00:00Z",
        "TERM, 2026-10-26T00:00:00Z, 2026-09-06T23:00:00Z"
    })
    void aPeriodBeginsByTheCalendarOfTheClass(Period per, Instant now, Instant start) {
        Term term =
                new Term(LocalDate.of(2026, 9, 7), LocalDate.of(2026, 12, 18), List.of(), ZoneId.of("Europe/London"));
        assertEquals(start, rules(0, 0, 1, per).periodStart(term, now));
    }

    @ParameterizedTest
    @CsvSource({"2, 0, false", "3, 0, true", "6, 1, true", "7, 0, false", "4, 2, false"})
    void whatTheBlogDemandsMustBeMet(int words, int before, boolean ready) {
        HandIn.Ruled ruled = new HandIn.Ruled(rules(3, 6, 2, Period.WEEK), before);
        assertEquals(
                ready,
                HandIn.isReady(HandIn.check(
                        HandIn.Asked.NOTHING, ruled, new HandIn.Has("Slugs", words, 0, 0, 0, 0, 0, 0, 0))));
    }

    @Test
    void refusesRulesThatNobodyCanFollow() {
        assertEquals(
                "A post cannot have at least 9 and at most 5 words.",
                assertThrows(Refusal.class, () -> rules(9, 5, 0, Period.DAY)).getMessage());
        assertThrows(Refusal.class, () -> new Window(-2));
        assertThrows(
                Refusal.class,
                () -> new BlogSettings(
                        BlogSettings.Look.LINEN, false, true, 4, BlogSettings.Grouping.NONE, BlogRules.FREE));
    }

    @ParameterizedTest
    @CsvSource({
        "Plot log of Wren Castellane, plot-log-of-wren-castellane",
        "Bożena’s  Łąka!, bozena-s-laka",
        "«Привет», privet",
        "???, ''"
    })
    void addressesAreWrittenInPlainLetters(String title, String address) {
        assertEquals(address, Addresses.tidy(title));
    }

    @Test
    void anAddressThatWasGivenOnceIsNotGivenAgain() {
        assertEquals("news-3", Addresses.make("News", Set.of("news", "news-2")::contains));
        assertEquals("blog", Addresses.make("???", address -> false));
    }

    @Test
    void ownBlogsStayOwnAndCommonOnesCommon() {
        assertTrue(BlogKind.ONE_EACH.canBecome(BlogKind.JOURNAL));
        assertTrue(BlogKind.SHARED.canBecome(BlogKind.TEACHERS));
        assertFalse(BlogKind.SHARED.canBecome(BlogKind.ONE_EACH));
    }

    /** A title has room for a name, however long that is, and never ends in half a character. */
    @Test
    void aTitleIsFilledWithANameThatFits() {
        assertEquals("Log of Wren", TitlePattern.fill("Log of {name}", "Wren"));
        assertEquals("Wren and Wren", TitlePattern.fill("{name} and {name}", "Wren"));
        assertEquals("Our log", TitlePattern.fill("Our log", "Wren"));
        for (String name : List.of("Maximiliana ".repeat(30), "𝒲".repeat(200), "a𝒲".repeat(99)))
            for (String pattern : List.of("{name}", "Log of {name}", "x".repeat(114) + "{name}", "{name}".repeat(20))) {
                String title = TitlePattern.fill(pattern, name);
                assertTrue(title.length() <= TitlePattern.LONGEST, title);
                assertTrue(title.endsWith("…"), title);
                assertFalse(
                        title.chars()
                                                .filter(c -> Character.isSurrogate((char) c))
                                                .count()
                                        % 2
                                == 1,
                        title);
            }
    }

    @ParameterizedTest
    @CsvSource({
        // days, moment for all; when it is asked, whether comments are closed
        "0, '', 2027-11-01T00:00:00Z, false",
        "3, '', 2026-11-03T23:59:59Z, false",
        "3, '', 2026-11-04T00:00:00Z, true",
        "0, 2026-11-02T12:00:00Z, 2026-11-02T11:59:59Z, false",
        "0, 2026-11-02T12:00:00Z, 2026-11-02T12:00:00Z, true",
        "3, 2026-11-02T12:00:00Z, 2026-11-02T12:00:00Z, true",
        "1, 2026-12-02T12:00:00Z, 2026-11-02T00:00:00Z, true"
    })
    void commentsCloseAtTheEarlierOfTwoMoments(int days, String at, Instant now, boolean over) {
        assertEquals(over, new BlogRules.Closing(days, at).isOver(Instant.parse("2026-11-01T00:00:00Z"), now));
    }

    @Test
    void aBlogSaysWhenItsCommentsCloseAndNothingElseOfItChanges() {
        BlogSettings before = new BlogSettings(
                BlogSettings.Look.TIDE, true, false, 7, BlogSettings.Grouping.WEEK, rules(3, 9, 2, Period.DAY));
        Instant at = Instant.parse("2026-11-02T12:00:00Z");
        BlogSettings closing = before.closingCommentsAt(at);
        assertEquals(at.toString(), closing.rules().comments().at());
        assertEquals(before, closing.closingCommentsAt(null));
        assertEquals(
                BlogSettings.Look.SLATE,
                before.withLook(BlogSettings.Look.SLATE).look());
        assertEquals(before, before.withLook(BlogSettings.Look.SLATE).withLook(BlogSettings.Look.TIDE));
    }

    @Test
    void aBlogHasAPolicyOfItsOwnOrThatOfTheClass() {
        assertNull(BlogSettings.LookedAt.AS_CLASS.policy());
        assertEquals(Policy.BEFORE, BlogSettings.LookedAt.BEFORE.policy());
        assertEquals(Policy.NONE, BlogSettings.LookedAt.NONE.policy());
    }

    @Test
    void aCeilingCutsWhatIsWiderAndNothingElse() {
        for (Audience a : Audience.values())
            for (Audience ceiling : Audience.values()) {
                assertEquals(
                        Math.min(a.ordinal(), ceiling.ordinal()),
                        a.cutTo(ceiling).ordinal());
                assertEquals(a.ordinal() >= ceiling.ordinal(), a.reaches(ceiling));
            }
        assertEquals(Audience.MY_GROUP, BlogKind.GROUP.usual());
        assertEquals(Audience.MY_CLASS, BlogKind.GROUP.widest());
        for (BlogKind kind : BlogKind.values()) assertTrue(kind.widest().reaches(kind.usual()));
    }

    @Test
    void aTitleTakesAsMuchOfANameAsThereIsRoomFor() {
        assertTrue(TitlePattern.isPattern("Log of {name}"));
        assertFalse(TitlePattern.isPattern("Log of (name)"));
        assertEquals("Log of Wren", TitlePattern.fill("Log of {name}", "Wren"));
        assertEquals("Wren and Wren", TitlePattern.fill("{name} and {name}", "Wren"));
        assertEquals("News", TitlePattern.fill("News", "Wren"));
        assertEquals("x".repeat(TitlePattern.LONGEST), TitlePattern.fill("{name}", "x".repeat(TitlePattern.LONGEST)));
        String cut = TitlePattern.fill("Log of {name}", "x".repeat(200));
        assertEquals(TitlePattern.LONGEST, cut.length());
        assertTrue(cut.endsWith("x…"));
        String pairs = TitlePattern.fill("{name}", "\uD83D\uDC1F".repeat(100));
        assertFalse(Character.isHighSurrogate(pairs.charAt(pairs.length() - 2)), "no letter is cut in two");
    }

    @Test
    void anAddressIsShortAndEndsInNoDash() {
        assertEquals("log-of-wren", Addresses.tidy("Log of Wren!"));
        assertEquals("a".repeat(60), Addresses.tidy("a".repeat(60)));
        assertEquals("a".repeat(60), Addresses.tidy("a".repeat(61)));
        assertEquals("a".repeat(59), Addresses.tidy("a".repeat(59) + " bees"));
        assertEquals("blog-2", Addresses.make("!", "blog"::equals));
    }

    @ParameterizedTest
    @CsvSource({"-1, 5000, true", "0, 0, false", "30, 29, true", "30, 30, false"})
    void aWindowClosesAtItsLastMoment(int minutes, int after, boolean open) {
        Instant published = Instant.parse("2026-11-01T00:00:00Z");
        assertEquals(open, new Window(minutes).isOpen(published, published.plusSeconds(60L * after)));
    }
}

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
import org.vastporch.core.posts.HandIn;

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
}

package org.vastporch.core.feeds;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class FeedRulesTest {

    private static final Instant NOW = Instant.parse("2026-11-24T10:00:00Z");

    private static EntryIdentity.Entry entry(String guid, String link, String html) {
        return new EntryIdentity.Entry(guid, link, "Oars", html, null, null, List.of());
    }

    private static Duration next(int gapMinutes, int asked, int failures) {
        List<Instant> dates = new ArrayList<>();
        for (int i = 0; i < 12; i++) dates.add(NOW.minus(Duration.ofMinutes((long) gapMinutes * i)));
        return Pace.next(dates, Duration.ofMinutes(asked), failures, new Random(1));
    }

    @Test
    void anEntryIsKnownByIdThenLinkThenText() {
        assertEquals(
                EntryIdentity.keyOf(entry("x1", "http://a/1", "p")),
                EntryIdentity.keyOf(entry("x1", "http://a/2", "q")));
        assertEquals(
                EntryIdentity.keyOf(entry(null, "http://A.example/1/?utm_source=x#c", "p")),
                EntryIdentity.keyOf(entry(" ", "http://a.example/1", "q")));
        assertNotEquals(EntryIdentity.keyOf(entry(null, null, "p")), EntryIdentity.keyOf(entry(null, null, "q")));
    }

    @ParameterizedTest
    @CsvSource({
        "https://Rowlock.example:443/oars/?utm_medium=feed&id=3, https://rowlock.example/oars?id=3",
        "http://a.example, http://a.example",
        "http://a.example/x?fbclid=1, http://a.example/x",
        "http://a.example/X?a=1&b=2#top, http://a.example/X?a=1&b=2",
    })
    void linksLoseWhatTracks(String link, String clean) {
        assertEquals(clean, EntryIdentity.cleanLink(link));
    }

    @Test
    void aDateInTheFutureCountsAsFirstSeen() {
        var future = new EntryIdentity.Entry("1", null, "t", "h", NOW.plusSeconds(1), null, List.of());
        var updated = new EntryIdentity.Entry("1", null, "t", "h", null, NOW.minusSeconds(9), List.of());
        assertEquals(NOW, EntryIdentity.dateOf(future, NOW));
        assertEquals(NOW.minusSeconds(9), EntryIdentity.dateOf(updated, NOW));
    }

    @ParameterizedTest
    @CsvSource({
        // gap of entries, asked, failures, expected wait in minutes
        "240, 0, 0, 120",
        "4, 0, 0, 15",
        "90000, 0, 0, 1440",
        "240, 300, 0, 300",
        "240, 0, 2, 480",
        "240, 0, 9, 1440",
        "240, 3000, 1, 3000",
    })
    void thePaceFollowsTheSourceWithinTenPercent(int gap, int asked, int failures, int expected) {
        long minutes = next(gap, asked, failures).toMinutes();
        assertTrue(
                Math.abs(minutes - expected) <= expected * 0.1 + 1 || (failures > 0 && asked > 0 && minutes >= asked),
                minutes + " for " + expected);
        assertTrue(minutes >= asked);
    }

    @Test
    void goneIsStoppedAndNotFoundOnlyAfterTenTimesOverAWeek() {
        assertTrue(Pace.isStopped(410, 0, Duration.ZERO));
        assertFalse(Pace.isStopped(404, 10, Duration.ofDays(6)));
        assertTrue(Pace.isStopped(404, 10, Duration.ofDays(7)));
        assertFalse(Pace.isStopped(500, 99, Duration.ofDays(99)));
    }

    @Test
    void aKeyTellsByWhatAnEntryIsKnown() {
        assertEquals("id:x1", EntryIdentity.keyOf(entry(" x1 ", "http://a.example/1", "p")));
        assertEquals("link:http://a.example/1", EntryIdentity.keyOf(entry(null, "http://a.example/1", "p")));
        assertEquals(37, EntryIdentity.keyOf(entry(null, " ", "p")).length());
        String longest = "y".repeat(400);
        assertEquals("id:" + longest, EntryIdentity.keyOf(entry(longest, null, "p")));
        String longer = EntryIdentity.keyOf(entry(longest + "y", null, "p"));
        assertEquals(35, longer.length(), "a longer one is told by its hash");
        assertNotEquals(longer, EntryIdentity.keyOf(entry(longest + "z", null, "p")));
    }

    @Test
    void anEntryHasChangedWhenItsTitleOrTextHas() {
        String before = EntryIdentity.contentHash(entry("1", "http://a.example/1", "<p>Oars</p>"));
        assertEquals(before, EntryIdentity.contentHash(entry("2", "http://b.example", " <p>Oars</p>\n")));
        assertNotEquals(before, EntryIdentity.contentHash(entry("1", "http://a.example/1", "<p>Oars!</p>")));
        for (String same : List.of(
                "<p class=x>Oars</p>",
                "<div><p>Oars</p></div>".replace("div", "section"),
                "<p>\n  Oars\n</p>",
                "<P onclick=x()>Oars</P><script>1</script>"))
            assertEquals(before, EntryIdentity.contentHash(entry("1", "http://a.example/1", same)), same);
        String link = "<p><a href=\"http://a.example/x\">Oars</a></p>";
        assertEquals(
                EntryIdentity.contentHash(entry("1", null, link)),
                EntryIdentity.contentHash(entry("1", null, link.replace("/x", "/x?utm_source=f&amp;fbclid=1"))));
        assertNotEquals(
                EntryIdentity.contentHash(entry("1", null, link)),
                EntryIdentity.contentHash(entry("1", null, link.replace("/x", "/y"))));
        assertTrue(before.length() <= 40);
        EntryIdentity.Entry now = entry("1", null, "<p>Oars</p>");
        assertTrue(EntryIdentity.isSame(now, before));
        // What an earlier version kept: the text as it came.
        assertTrue(EntryIdentity.isSame(now, "bbfa067e065d756603779c7156694bd7"));
        assertFalse(EntryIdentity.isSame(entry("1", null, "<p>Oars!</p>"), "bbfa067e065d756603779c7156694bd7"));
    }

    @Test
    void whatIsPastedBecomesAnAddress() {
        assertEquals("https://rowlock.example/x", PastedAddress.normalise("  rowlock.example/x "));
        assertEquals("http://rowlock.example/f", PastedAddress.normalise("feed:http://rowlock.example/f"));
        assertEquals("https://rowlock.example/f", PastedAddress.normalise("feed://rowlock.example/f"));
        assertEquals("", PastedAddress.normalise("file:///etc/passwd"));
        assertEquals("", PastedAddress.normalise("not an address"));
    }

    @Test
    void aSiteThatAnnouncesNoFeedIsAskedAtTheUsualPlaces() {
        assertEquals(
                List.of("feed.xml", "rss.xml", "atom.xml", "index.xml", "feed", "feed/").stream()
                        .map(place -> "https://a.example/" + place)
                        .toList(),
                PastedAddress.guesses("https://a.example"));
        assertEquals(PastedAddress.guesses("https://a.example"), PastedAddress.guesses("https://a.example/"));
        List<String> below = PastedAddress.guesses("https://a.example/wren/oars");
        assertEquals("https://a.example/wren/oars/feed.xml", below.get(0));
        assertTrue(below.contains("https://a.example/wren/feed.xml"), below.toString());
        assertEquals(8, below.size());
        assertEquals(
                "https://a.example/wren/feed.xml",
                PastedAddress.guesses("https://a.example/wren/oars/edit").get(0),
                "where its author edits, the blog itself is asked");
    }
}

package org.vastporch.core.feeds;

import static org.junit.jupiter.api.Assertions.*;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.vastporch.core.feeds.EntryIdentity.Entry;
import org.vastporch.core.feeds.Excerpt.Look;

class ExcerptTest {

    private static final String LINK = "https://rowlock.example/2026/knots";
    private static final String BEGINNING = "<p>A bowline does not slip, and it does not jam either, which is why";

    private static Entry entry(String link, String html) {
        return new Entry("1", link, "Knots", html, null, null, List.of());
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "<p>Round the post and back [&hellip;]</p>                                                  | SURE",
                "<p>Round the post and back [...]</p>                                                       | SURE",
                "<p>Round the post and back (…) </p>                                                        | SURE",
                "<p>Round the post.</p><p><a href='https://rowlock.example/2026/knots'>Read more</a></p>    | SURE",
                "<p>Round. <a href='https://rowlock.example/2026/knots?utm_source=feed'>Continue »</a></p>  | SURE",
                "''                                                                                         | SURE",
                "<p> </p>                                                                                   | SURE",
                "<p>And then it rained…</p>                                                                 | LIKELY",
                "<p>And then it rained ...</p>                                                              | LIKELY",
                "<p>And then it rained.</p>                                                                 | WHOLE",
                "<p>[…] and then it rained.</p>                                                             | WHOLE",
                "<p><img src='https://rowlock.example/knot.png' alt=''></p>                                 | WHOLE",
                "<p>Round. <a href='https://other.example/knots'>Read more</a></p>                          | WHOLE",
                "<p><a href='https://rowlock.example/2026/knots'>Here</a> I wrote of knots.</p>             | WHOLE",
                "<p>Of <a href='https://rowlock.example/2026/knots'>all the knots that I can tie well</a></p> | WHOLE"
            })
    void aBeginningSaysSoOrLooksLikeIt(String html, Look look) {
        assertEquals(look, Excerpt.look(entry(LINK, html)));
        assertEquals(Look.WHOLE, Excerpt.look(entry(null, html)), "without a page there is no more to be had");
    }

    /** A feed may hold anything: a million dots that end with a word would take hours if each were a beginning. */
    @ParameterizedTest
    @ValueSource(strings = {".", "…", "[", "[...", "(… ", "[ "})
    @Timeout(20)
    void noTextIsLookedThroughAgainAndAgain(String sign) {
        Entry entry = entry(LINK, "<p>" + sign.repeat(1_000_000 / sign.length()) + "x</p>");
        assertEquals(Look.WHOLE, Excerpt.look(entry));
        assertEquals(Optional.empty(), Excerpt.whole(entry, entry.html()));
    }

    @Test
    void thePageHasToBeginAlikeAndGoOn() {
        String page = "<p>A bowline does not slip, and it does not jam either, which is why sailors like it.</p>";
        assertEquals(Optional.of(page), Excerpt.whole(entry(LINK, BEGINNING + " […]</p>"), page));
        String after = "<p>Monday, at the slip.</p>" + page;
        assertEquals(Optional.of(after), Excerpt.whole(entry(LINK, BEGINNING + "…</p>"), after), "a line above it");
        assertEquals(Optional.empty(), Excerpt.whole(entry(LINK, BEGINNING + "…</p>"), BEGINNING + "…</p>"));
        assertEquals(
                Optional.empty(),
                Excerpt.whole(entry(LINK, BEGINNING + "…</p>"), "<p>One has to sign in. " + "Please. ".repeat(40)));
        assertEquals(Optional.of(page), Excerpt.whole(entry(LINK, ""), page));
        assertEquals(Optional.empty(), Excerpt.whole(entry(LINK, ""), "<p> </p>"));
    }

    @Test
    void thePromiseAtItsEndIsNoPartOfTheText() {
        String promised = "<p>Round the post. <a href='" + LINK + "'>Read more</a></p>";
        assertEquals(
                Optional.of("<p>Round the post, twice.</p>"),
                Excerpt.whole(entry(LINK, promised), "<p>Round the post, twice.</p>"));
        assertEquals(
                Optional.of("<p>Round the post.</p>"),
                Excerpt.whole(entry(LINK, promised), "<p>Round the post.</p>"),
                "nothing was missing but the promise");
        assertEquals(Optional.empty(), Excerpt.whole(entry(LINK, promised), "<p>Round the</p>"));
    }
}

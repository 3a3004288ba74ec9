package org.vastporch.core.feeds;

import static org.junit.jupiter.api.Assertions.*;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.vastporch.core.feeds.PastedAddress.Kind;

/** Pages, and which feeds they announce in all the ways in which pages do. */
class WebPageTest {

    private static final String FEED = "<link rel=alternate type='application/rss+xml' href=/f.xml>";

    private static WebPage page(String address, String html) {
        return WebPage.read(html.getBytes(StandardCharsets.UTF_8), "text/html; charset=utf-8", address);
    }

    private static WebPage home(String html) {
        return page("http://a.example/blog/", html);
    }

    @Test
    void saysWhatItIs() {
        assertEquals(Kind.SITE_WITH_FEEDS, page("http://a.example/", FEED).kind());
        assertEquals(
                Kind.SINGLE_POST,
                page("http://a.example/oars", FEED + "<article>x</article>").kind());
        assertEquals(
                Kind.SITE_WITH_FEEDS,
                page("http://a.example", FEED + "<article>x</article>").kind());
        assertEquals(
                Kind.EDITING_ADDRESS, page("http://a.example/oars/edit", FEED).kind());
        assertEquals(
                Kind.SIGN_IN_PAGE,
                page("http://a.example/", FEED + "<input type=password>").kind());
        assertEquals(Kind.NO_FEED, page("http://a.example/", "<p>hello").kind());
        assertEquals(
                "Row & lock",
                page("http://a.example/", "<title>Row &amp; lock</title>").title());
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "<link rel='alternate' type='application/rss+xml' href='http://a.example/blog/f'>",
                "<LINK REL=ALTERNATE TYPE=APPLICATION/RSS+XML HREF=f>",
                "<link rel='alternate' type='application/atom+xml' href='f' />",
                "<link rel=\"home alternate\" type=\"application/atom+xml; charset=utf-8\" href=\"/blog/f\">",
                "<link rel='alternate' type='application/rdf+xml' href=f>",
                "<link rel='alternate' type='text/xml' href=f>",
                "<link rel='alternate' type='application/xml' href=f>",
                "<link rel='alternate' type='application/feed+json' href=f>",
                "<link rel='alternate' type='application/x.atom+xml' href=f>",
                "<link rel='alternate' type='application/x-rss+xml' href=f>",
                "<link rel='feed' href=f>",
                "<link rel='feed' type='text/html' href=f>",
                "<a rel='feed' href=f>all</a>",
                "<link rel='alternate' type='application/rss+xml' href='feed:http://a.example/blog/f'>",
                "<link rel='alternate' type='application/rss+xml' href='feed://a.example/blog/f'>",
                "<base href='/blog/x/'><link rel='alternate' type='application/rss+xml' href='../f'>",
                "<body><p>late</p><link rel=alternate type=application/rss+xml href=f></body>",
                "<link href='f\n' type=' application/rss+xml ' rel=' alternate '>"
            })
    void announcesAFeed(String html) {
        assertEquals(List.of("http://a.example/blog/f"), home(html).announced());
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "<link rel='stylesheet' type='text/xml' href=f>",
                "<link rel='alternate' type='text/html' hreflang=de href=f>",
                "<link rel='alternate' type='application/json' href=f>",
                "<link rel='alternate stylesheet' type='application/rss+xml' href=f>",
                "<link rel='alternate' type='application/rss+xml'>",
                "<link rel='alternate' type='application/rss+xml' href='javascript:x()'>",
                "<link rel='icon' type='application/rss+xml' href=f>",
                "<!-- <link rel='alternate' type='application/rss+xml' href=f> -->",
                "<pre>&lt;link rel='alternate' type='application/rss+xml' href=f></pre>"
            })
    void announcesNone(String html) {
        assertEquals(List.of(), home(html).announced());
    }

    @Test
    void thePostsComeBeforeTheCommentsAndEachOnce() {
        assertEquals(
                List.of("http://a.example/f", "http://a.example/g", "http://a.example/comments.xml"),
                home("<link rel=alternate type=application/rss+xml title='All comments' href=/comments.xml>"
                                + "<link rel=alternate type=application/rss+xml href=/f>"
                                + "<link rel=alternate type=application/atom+xml href=/f>"
                                + "<link rel=alternate type=application/atom+xml href=/g>")
                        .announced());
    }

    @Test
    void linksThatLookLikeFeedsComeBestFirst() {
        WebPage page =
                home("<a href=/about>About</a><a href=/subscribe>Subscribe by mail</a><a href='/food'>Feeding</a>"
                        + "<a href=http://else.example/rss.xml>RSS of somebody else</a><a href=/posts.rss>Posts</a>"
                        + "<a href=/all?format=atom>Feed</a><a href='feed:http://a.example/q'>Q</a>");
        assertEquals(
                List.of(
                        "http://a.example/q",
                        "http://a.example/all?format=atom",
                        "http://else.example/rss.xml",
                        "http://a.example/posts.rss",
                        "http://a.example/subscribe"),
                page.likely());
    }

    @ParameterizedTest
    @CsvSource({"windows-1251, Река", "UTF-16LE, Łódź", "iso-8859-2, Łódź", "UTF-8, Łódź"})
    void isReadInItsLetters(String letters, String title) {
        String html =
                "<meta charset=" + (letters.startsWith("UTF-16") ? "utf-8" : letters) + "><title>" + title + "</title>";
        byte[] bytes = html.getBytes(Charset.forName(letters));
        assertEquals(
                title,
                WebPage.read(bytes, "text/html; charset=" + letters, "http://a.example/")
                        .title());
        if (!letters.startsWith("UTF-16"))
            assertEquals(
                    title, WebPage.read(bytes, "text/html", "http://a.example/").title());
        assertEquals(
                title,
                WebPage.read(html.getBytes(StandardCharsets.UTF_8), "text/html; charset=utf-8", "http://a.example/")
                        .title());
        assertNotNull(WebPage.read(bytes, "text/html; charset=x-none", "http://a.example/")
                .title());
    }

    @Test
    void aPostThatNoFeedCarriesIsTakenFromItsPage() {
        String html =
                "<title>Rowlock</title><nav>x</nav><article><h1>Oars</h1><p>Ash.</p><img src=i.png><nav>next</nav></article>";
        WebPage.Article post = page("http://a.example/oars", html).article().orElseThrow();
        assertEquals("Oars", post.title());
        assertEquals(
                "<p>Ash.</p><img src=\"http://a.example/i.png\">", post.html().strip());
        assertEquals(
                "Rowlock",
                page("http://a.example/oars", "<title>Rowlock</title><article>Ash.</article>")
                        .article()
                        .orElseThrow()
                        .title());
        for (String home : List.of("http://a.example", "http://a.example/", "http://a.example/oars/edit"))
            assertTrue(page(home, html).article().isEmpty(), home);
        for (String other :
                List.of(html + "<input type=password>", html + html, "<p>Ash.</p>", "<article><h1>Oars</h1></article>"))
            assertTrue(page("http://a.example/oars", other).article().isEmpty(), other);
    }

    @Test
    void theLastingAddressIsTheOneThatThePageNames() {
        String at = "http://a.example/oars?ref=1";
        assertEquals(at, page(at, "<p>x").lasting());
        assertEquals(
                "http://a.example/oars",
                page(at, "<link rel=canonical href=/oars>").lasting());
        assertEquals(at, page(at, "<link rel=canonical href='http://['>").lasting());
    }

    /** Five megabytes of steps up took half an hour, and a page may be so long. */
    @Test
    void addressesWithoutEndAreNoneAndTakeNoTime() {
        String up = "../".repeat(1_500_000);
        assertTimeoutPreemptively(Duration.ofSeconds(20), () -> {
            WebPage page = home("<base href='" + up + "'><link rel=feed href='" + up
                    + "'><link rel=feed href=f><a href='" + up + "'>feed</a>");
            assertEquals(List.of("http://a.example/blog/f"), page.announced());
            assertEquals(List.of(), page.likely());
        });
    }

    @Test
    void whatStandsBehindAHundredThousandTagsIsNotRead() {
        String link = "<link rel=feed href=f>";
        assertEquals(
                List.of("http://a.example/blog/f"),
                home("<b>".repeat(90_000) + link).announced());
        assertEquals(List.of(), home("<b>".repeat(100_000) + link).announced());
    }
}

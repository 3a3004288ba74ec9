package org.vastporch.core.feeds;

import static org.junit.jupiter.api.Assertions.*;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;
import org.vastporch.core.feeds.EntryIdentity.Entry;

/**
 * Small feeds by kind of trouble, with what should be read of them. A file holds many: each begins with a line "####
 * what it is about", then says what is expected ("title: …", "1 link: …" of the first entry), then "----", then stands
 * as it would be sent. "{rss …}" and "{atom …}" stand for a feed around what is in them; "\x07" is that character.
 */
class FeedCorpusTest {

    private static final String ADDRESS = "http://site.example/feed.xml";
    private static final List<String> KINDS =
            List.of("families", "links", "encodings", "dates", "texts", "broken", "hostile", "no-feeds", "json");

    record Case(String kind, String name, Map<String, String> expected, Map<String, String> sent, byte[] body) {}

    @TestFactory
    Stream<DynamicTest> everyFeedIsReadAsItsReadersWould() {
        return cases().map(c -> DynamicTest.dynamicTest(c.kind() + ": " + c.name(), () -> assertReads(c)));
    }

    private static void assertReads(Case c) {
        Optional<Feed> read = FeedReader.read(
                c.body(), c.sent().getOrDefault("type", ""), c.sent().getOrDefault("address", ADDRESS));
        Map<String, String> found = new LinkedHashMap<>();
        c.expected()
                .keySet()
                .forEach(key -> found.put(key, read.map(f -> value(f, key)).orElse("no feed")));
        assertEquals(c.expected(), found);
    }

    private static @Nullable String value(Feed feed, String key) {
        Matcher of = Pattern.compile("(\\d+) (\\w+)").matcher(key);
        if (!of.matches())
            return switch (key) {
                case "title" -> feed.title();
                case "description" -> feed.description();
                case "site" -> feed.site();
                case "entries" -> String.valueOf(feed.entries().size());
                case "asked" -> feed.asked().toString();
                case "whole" -> String.valueOf(feed.wholeEntries().size());
                case "untidy" -> String.valueOf(feed.untidy());
                case "feed" -> "yes";
                default -> throw new IllegalArgumentException(key);
            };
        int no = Integer.parseInt(of.group(1));
        if (no > feed.entries().size()) return "no such entry";
        Entry entry = feed.entries().get(no - 1);
        return switch (of.group(2)) {
            case "title" -> entry.title();
            case "link" -> entry.link();
            case "guid" -> entry.guid() == null ? "none" : entry.guid();
            case "html" -> entry.html().strip();
            case "published" -> said(entry.published());
            case "updated" -> said(entry.updated());
            case "tags" -> String.join("|", entry.tags());
            default -> throw new IllegalArgumentException(key);
        };
    }

    private static String said(@Nullable Instant at) {
        return at == null ? "none" : at.toString();
    }

    /** Whatever bytes come: an answer, the same twice, within its limits. */
    @Test
    void brokenBytesOfAnyKindAreReadOrRefusedAndNeverAnExceptionTwiceTheSame() {
        Random random = new Random(15);
        List<Case> all = cases().toList();
        for (Case c : all)
            for (int round = 0; round < 12; round++) {
                byte[] bytes = c.body().clone();
                int changes = 1 + random.nextInt(6);
                for (int i = 0; i < changes && bytes.length > 0; i++) {
                    int at = random.nextInt(bytes.length);
                    switch (random.nextInt(3)) {
                        case 0 -> bytes[at] = (byte) random.nextInt(256);
                        case 1 -> bytes = Arrays.copyOf(bytes, at);
                        default ->
                            bytes = joined(
                                    Arrays.copyOf(bytes, at),
                                    all.get(random.nextInt(all.size())).body());
                    }
                }
                Optional<Feed> once = FeedReader.read(bytes, c.sent().getOrDefault("type", ""), ADDRESS);
                assertEquals(once, FeedReader.read(bytes, c.sent().getOrDefault("type", ""), ADDRESS));
                once.ifPresent(FeedCorpusTest::assertWithinLimits);
            }
    }

    private static void assertWithinLimits(Feed feed) {
        assertTrue(feed.entries().size() <= FeedReader.MOST_ENTRIES);
        assertTrue(feed.title().length() <= 300 && feed.description().length() <= 2_000);
        assertTrue(feed.asked().compareTo(Duration.ofDays(1)) <= 0);
        assertEquals(WebLink.of(feed.site()), feed.site());
        for (Entry entry : feed.entries()) {
            assertEquals(WebLink.of(entry.link()), entry.link(), "a link is one of the web, or none");
            assertTrue(entry.title().length() <= 200 && !entry.title().contains("\n"));
            assertTrue(entry.tags().size() <= 12);
        }
    }

    @Test
    void thereIsACaseForEachKindOfTrouble() {
        assertTrue(cases().count() >= 150, "small feeds: " + cases().count());
        for (String kind : KINDS)
            assertTrue(cases().filter(c -> c.kind().equals(kind)).count() >= 5, kind);
    }

    /** So many entries, so long a text, nested so deep: read as far as the limits go, in a moment. */
    @Test
    void whatIsTooMuchIsReadAsFarAsItIsAllowed() {
        String item = "<item><title>One</title><guid>%d</guid></item>";
        StringBuilder many = new StringBuilder("<rss><channel>");
        for (int i = 0; i < 25_000; i++) many.append(item.formatted(i));
        Feed feed = read(many + "</channel></rss>");
        assertEquals(500, feed.entries().size());
        assertEquals("499", feed.entries().get(499).guid());
        assertEquals(500, feed.wholeEntries().size(), "the last that counts is whole");
        Feed elements = read("<rss><channel><item><title>a</title></item><item><title>b</title>"
                + "<x/>".repeat(1_000_000) + "</item></channel></rss>");
        assertEquals(2, elements.entries().size());
        assertEquals(1, elements.wholeEntries().size());
        String json = "{\"version\":\"https://jsonfeed.org/version/1.1\",\"items\":[" + "{\"id\":1},".repeat(300_000)
                + "{}]}";
        assertEquals(500, read(json).entries().size());
        Feed huge = read("<rss><channel><item><description>" + "word ".repeat(900_000)
                + "</description></item></channel></rss>");
        assertEquals(400_000, huge.entries().get(0).html().length());
        Feed deep = read("<rss><channel><item><title>Deep</title><description>" + "<div>".repeat(50_000) + "x"
                + "</div>".repeat(50_000) + "</description></item></channel></rss>");
        assertEquals("Deep", deep.entries().get(0).title());
        String entities = "<!DOCTYPE rss [<!ENTITY a \"" + "x".repeat(200) + "\">]>";
        Feed grown = read(entities + "<rss><channel><title>" + "&a;".repeat(100_000) + "</title></channel></rss>");
        assertTrue(grown.title().startsWith("xxxx"));
    }

    private static Feed read(String text) {
        return FeedReader.read(text.getBytes(StandardCharsets.UTF_8), "", ADDRESS)
                .orElseThrow();
    }

    private static Stream<Case> cases() {
        return KINDS.stream().flatMap(kind -> cases(kind).stream());
    }

    private static List<Case> cases(String kind) {
        List<Case> cases = new ArrayList<>();
        try (InputStream in = FeedCorpusTest.class.getResourceAsStream("/feeds/" + kind + ".txt")) {
            String all = new String(in.readAllBytes(), StandardCharsets.UTF_8);
            for (String one : all.split("(?m)^#### ")) if (!one.isBlank()) cases.add(parsed(kind, one));
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
        return cases;
    }

    private static Case parsed(String kind, String text) {
        int head = text.indexOf('\n');
        int split = text.indexOf("\n----\n");
        Map<String, String> expected = new LinkedHashMap<>();
        Map<String, String> sent = new LinkedHashMap<>();
        for (String line : text.substring(head, split).strip().split("\n")) {
            if (line.equals("none")) line = "feed: no feed";
            String key = line.substring(0, line.indexOf(':'));
            String value = line.substring(line.indexOf(':') + 1).strip();
            if (key.startsWith("@")) sent.put(key.substring(1), value);
            else expected.put(key, unescaped(value));
        }
        String body = unescaped(around(text.substring(split + 6).stripTrailing()));
        Charset charset = Charset.forName(sent.getOrDefault("charset", "UTF-8"));
        return new Case(kind, text.substring(0, head), expected, sent, body.getBytes(charset));
    }

    private static String around(String body) {
        if (body.startsWith("{rss ") && body.endsWith("}"))
            return "<?xml version=\"1.0\"?><rss version=\"2.0\" xmlns:dc=\"http://purl.org/dc/elements/1.1/\" "
                    + "xmlns:content=\"http://purl.org/rss/1.0/modules/content/\" xmlns:atom=\"http://www.w3.org/2005/Atom\">"
                    + "<channel><title>Site</title><link>http://site.example/</link><item>"
                    + body.substring(5, body.length() - 1) + "</item></channel></rss>";
        if (body.startsWith("{atom ") && body.endsWith("}"))
            return "<?xml version=\"1.0\"?><feed xmlns=\"http://www.w3.org/2005/Atom\"><title>Site</title>"
                    + "<link href=\"http://site.example/\"/><id>urn:x</id><entry>"
                    + body.substring(6, body.length() - 1) + "</entry></feed>";
        return body;
    }

    private static String unescaped(String text) {
        return Pattern.compile("\\\\x([0-9a-fA-F]{2})|\\\\u([0-9a-fA-F]{4})|\\\\n")
                .matcher(text)
                .replaceAll(m -> Matcher.quoteReplacement(
                        m.group(1) != null
                                ? Character.toString(Integer.parseInt(m.group(1), 16))
                                : m.group(2) != null ? String.valueOf((char) Integer.parseInt(m.group(2), 16)) : "\n"));
    }

    private static byte[] joined(byte[] a, byte[] b) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.writeBytes(a);
        out.writeBytes(b);
        return out.toByteArray();
    }
}

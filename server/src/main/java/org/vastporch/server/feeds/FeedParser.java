package org.vastporch.server.feeds;

import com.rometools.rome.feed.synd.SyndCategory;
import com.rometools.rome.feed.synd.SyndContent;
import com.rometools.rome.feed.synd.SyndEntry;
import com.rometools.rome.feed.synd.SyndFeed;
import com.rometools.rome.io.FeedException;
import com.rometools.rome.io.SyndFeedInput;
import com.rometools.rome.io.XmlReader;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.Date;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.jsoup.Jsoup;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.feeds.EntryIdentity.Entry;
import org.vastporch.core.feeds.WebLink;

/** Reads RSS and Atom with a library and hands on what the core knows as entries. */
final class FeedParser {

    private static final int MOST_ENTRIES = 500;
    private static final int DEEPEST = 100;
    private static final int LONGEST_HTML = 400_000;
    private static final Pattern MAX_AGE = Pattern.compile("max-age=(\\d{1,8})");
    private static final Pattern TTL = Pattern.compile("<ttl>\\s*(\\d{1,6})\\s*</ttl>");

    /** @param asked the shortest wait between checks that the feed itself asks for */
    record Feed(String title, String description, String site, List<Entry> entries, Duration asked) {}

    private FeedParser() {}

    /** Tells whether bytes look like a feed at all. */
    static boolean looksLikeFeed(byte[] body) {
        String start = new String(body, 0, Math.min(body.length, 1500), StandardCharsets.ISO_8859_1).toLowerCase();
        return start.contains("<rss") || start.contains("<feed") || start.contains("<rdf:rdf");
    }

    /** @throws FeedException if it is no feed, or its XML is broken; document types are refused */
    static Feed parse(byte[] body, String contentType) throws FeedException {
        refuseDepth(body);
        SyndFeedInput input = new SyndFeedInput();
        input.setAllowDoctypes(false);
        SyndFeed feed;
        try (XmlReader reader =
                new XmlReader(new ByteArrayInputStream(body), contentType.isBlank() ? null : contentType, true)) {
            feed = input.build(reader);
        } catch (IOException | IllegalArgumentException e) {
            throw new FeedException("Not readable as a feed", e);
        }
        List<Entry> entries = feed.getEntries().stream()
                .limit(MOST_ENTRIES)
                .map(FeedParser::entry)
                .toList();
        return new Feed(
                plain(feed.getTitle(), 300),
                plain(feed.getDescription(), 2000),
                WebLink.of(feed.getLink()),
                entries,
                ttl(body));
    }

    /** Elements nested beyond all reason are refused before anything is built from them. */
    private static void refuseDepth(byte[] body) throws FeedException {
        XMLInputFactory factory = XMLInputFactory.newInstance();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        int depth = 0;
        try {
            XMLStreamReader reader = factory.createXMLStreamReader(new ByteArrayInputStream(body));
            while (reader.hasNext()) {
                int event = reader.next();
                if (event == XMLStreamConstants.START_ELEMENT && ++depth > DEEPEST)
                    throw new FeedException("Nested more than " + DEEPEST + " deep");
                if (event == XMLStreamConstants.END_ELEMENT) depth--;
            }
        } catch (XMLStreamException e) {
            // Broken further on: the library says so, after what could be read.
        }
    }

    /**
     * The longest of what an answer and a feed ask for, at most a day; null if none of them says anything.
     *
     * @param ttl what the feed asks for; null if there is none, as when nothing has changed
     */
    static @Nullable Duration asked(
            @Nullable String cacheControl, @Nullable String retryAfter, @Nullable Duration ttl) {
        if (cacheControl == null && retryAfter == null && ttl == null) return null;
        long seconds = ttl == null ? 0 : ttl.toSeconds();
        if (cacheControl != null) {
            Matcher age = MAX_AGE.matcher(cacheControl);
            if (age.find()) seconds = Math.max(seconds, Long.parseLong(age.group(1)));
        }
        if (retryAfter != null && retryAfter.matches("\\d{1,8}"))
            seconds = Math.max(seconds, Long.parseLong(retryAfter));
        return Duration.ofSeconds(Math.min(seconds, Duration.ofDays(1).toSeconds()));
    }

    private static Duration ttl(byte[] body) {
        Matcher ttl = TTL.matcher(new String(body, 0, Math.min(body.length, 4000), StandardCharsets.ISO_8859_1));
        return ttl.find() ? Duration.ofMinutes(Long.parseLong(ttl.group(1))) : Duration.ZERO;
    }

    private static Entry entry(SyndEntry e) {
        String html = e.getContents().stream()
                .map(SyndContent::getValue)
                .filter(v -> v != null && !v.isBlank())
                .findFirst()
                .or(() -> Optional.ofNullable(e.getDescription()).map(SyndContent::getValue))
                .orElse("");
        if (html.length() > LONGEST_HTML) html = html.substring(0, LONGEST_HTML);
        return new Entry(
                e.getUri(),
                WebLink.of(e.getLink()),
                plain(e.getTitle(), 200),
                html,
                instant(e.getPublishedDate()),
                instant(e.getUpdatedDate()),
                e.getCategories().stream()
                        .map(SyndCategory::getName)
                        .filter(n -> n != null && !n.isBlank() && n.length() <= 40)
                        .limit(12)
                        .toList());
    }

    private static @Nullable Instant instant(@Nullable Date date) {
        return date == null ? null : date.toInstant();
    }

    private static String plain(@Nullable String html, int most) {
        String text = html == null ? "" : Jsoup.parse(html).text().strip();
        return text.length() <= most ? text : text.substring(0, most - 1) + "…";
    }
}

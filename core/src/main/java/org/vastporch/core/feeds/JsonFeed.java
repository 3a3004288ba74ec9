package org.vastporch.core.feeds;

import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.jsoup.nodes.Entities;
import org.vastporch.core.feeds.EntryIdentity.Entry;
import tools.jackson.core.JacksonException;
import tools.jackson.core.json.JsonReadFeature;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Feeds in JSON (JSON Feed 1.0 and 1.1), with the slips that people who write JSON by hand make. */
final class JsonFeed {

    private static final JsonMapper READER = JsonMapper.builder()
            .enable(
                    JsonReadFeature.ALLOW_TRAILING_COMMA,
                    JsonReadFeature.ALLOW_JAVA_COMMENTS,
                    JsonReadFeature.ALLOW_SINGLE_QUOTES,
                    JsonReadFeature.ALLOW_UNESCAPED_CONTROL_CHARS,
                    JsonReadFeature.ALLOW_BACKSLASH_ESCAPING_ANY_CHARACTER)
            .build();

    private JsonFeed() {}

    static boolean looksLikeOne(String text) {
        return text.stripLeading().startsWith("{");
    }

    static Optional<Feed> read(FeedBytes.Text text, String address) {
        JsonNode feed;
        try {
            feed = READER.readTree(text.text());
        } catch (JacksonException e) {
            return Optional.empty();
        }
        JsonNode items = feed.path("items");
        if (!items.isArray() || !said(feed, "version").contains("jsonfeed.org")) return Optional.empty();
        String site = WebLink.of(said(feed, "home_page_url"), address);
        String around = site.isEmpty() ? address : site;
        List<Entry> entries = new ArrayList<>();
        for (JsonNode item : items) {
            if (entries.size() == FeedReader.MOST_ENTRIES) break;
            if (item.isObject()) entries.add(entry(item, around));
        }
        return Optional.of(new Feed(
                FeedText.plain(said(feed, "title"), 300),
                FeedText.plain(said(feed, "description"), 2_000),
                site,
                entries,
                Duration.ZERO,
                false,
                text.untidy()));
    }

    private static Entry entry(JsonNode item, String around) {
        String html = said(item, "content_html");
        String plain = Stream.of("content_text", "summary")
                .map(name -> said(item, name))
                .filter(s -> !s.isBlank())
                .findFirst()
                .orElse("");
        if (html.isBlank() && !plain.isBlank())
            html = "<p>"
                    + Entities.escape(plain.strip())
                            .replaceAll("\\R\\s*\\R", "</p><p>")
                            .replaceAll("\\R", "<br>") + "</p>";
        Set<String> tags = new LinkedHashSet<>();
        for (JsonNode tag : item.path("tags")) FeedReader.add(tags, tag.asString(""));
        String id = said(item, "id").strip();
        String link = Stream.of(said(item, "url"), said(item, "external_url"), id.matches("(?i)https?://.*") ? id : "")
                .filter(s -> !s.isBlank())
                .map(s -> WebLink.of(s, around))
                .filter(s -> !s.isEmpty())
                .findFirst()
                .orElse("");
        return new Entry(
                id.isEmpty() || id.length() > 2_000 ? null : id,
                link,
                FeedReader.title(said(item, "title")),
                FeedReader.cutHtml(FeedText.completed(html, around)),
                FeedDates.of(said(item, "date_published")).orElse(null),
                FeedDates.of(said(item, "date_modified")).orElse(null),
                List.copyOf(tags));
    }

    /** A text, or a number where a text belongs. */
    private static String said(JsonNode object, String name) {
        JsonNode value = object.path(name);
        return value.isString() || value.isNumber() ? value.asString() : "";
    }
}

package org.vastporch.core.feeds;

import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.jsoup.nodes.Entities;
import org.vastporch.core.feeds.EntryIdentity.Entry;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
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
        Map<String, String> said = new HashMap<>();
        List<JsonNode> items = new ArrayList<>();
        try (JsonParser parser = READER.createParser(text.text())) {
            if (!readTop(parser, said, items)) return Optional.empty();
        } catch (JacksonException e) {
            return Optional.empty();
        }
        if (!said.getOrDefault("version", "").contains("jsonfeed.org")) return Optional.empty();
        String site = WebLink.of(said.getOrDefault("home_page_url", ""), address);
        String around = site.isEmpty() ? address : site;
        return Optional.of(new Feed(
                FeedText.plain(said.getOrDefault("title", ""), 300),
                FeedText.plain(said.getOrDefault("description", ""), 2_000),
                site,
                items.stream().map(item -> entry(item, around)).toList(),
                Duration.ZERO,
                false,
                text.untidy()));
    }

    /**
     * Reads the texts at the top and the first entries; what else there is is passed by. False if there are no entries.
     */
    private static boolean readTop(JsonParser parser, Map<String, String> said, List<JsonNode> items) {
        boolean found = false;
        parser.nextToken();
        while (parser.nextToken() == JsonToken.PROPERTY_NAME) {
            String name = parser.currentName();
            JsonToken value = parser.nextToken();
            if (value == JsonToken.VALUE_STRING) said.put(name, parser.getString());
            if (name.equals("items") && value == JsonToken.START_ARRAY) {
                found = true;
                while (parser.nextToken() != JsonToken.END_ARRAY) {
                    boolean entry =
                            parser.currentToken() == JsonToken.START_OBJECT && items.size() < FeedReader.MOST_ENTRIES;
                    if (entry) items.add(parser.readValueAsTree());
                    else parser.skipChildren();
                }
            } else parser.skipChildren();
        }
        return found;
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

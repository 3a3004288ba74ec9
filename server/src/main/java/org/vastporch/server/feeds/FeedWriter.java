package org.vastporch.server.feeds;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;
import org.springframework.stereotype.Component;
import org.vastporch.core.text.Sayable;
import org.vastporch.server.feeds.FeedDocument.Item;
import org.vastporch.server.feeds.FeedDocument.Link;
import tools.jackson.databind.json.JsonMapper;

/** Writes feeds: RSS 2.0, Atom 1.0 (RFC 4287) and JSON Feed 1.1. Each text stands in them once. */
@Component
class FeedWriter {

    private static final String ATOM = "http://www.w3.org/2005/Atom";
    private static final String CORE = "http://purl.org/dc/elements/1.1/";
    private static final String HISTORY = "http://purl.org/syndication/history/1.0";

    private final JsonMapper json;

    FeedWriter(JsonMapper json) {
        this.json = json;
    }

    /** @param format rss, atom or json */
    byte[] write(FeedDocument feed, String format) {
        if (format.equals("json")) return json.writeValueAsBytes(json(feed));
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try {
            XMLStreamWriter out =
                    XMLOutputFactory.newInstance().createXMLStreamWriter(bytes, StandardCharsets.UTF_8.name());
            out.writeStartDocument("UTF-8", "1.0");
            if (format.equals("atom")) new Atom(out).write(feed);
            else new Rss(out).write(feed);
            out.writeEndDocument();
            out.close();
            return bytes.toByteArray();
        } catch (XMLStreamException e) {
            throw new IllegalStateException("A feed could not be written", e);
        }
    }

    private static void element(XMLStreamWriter out, String name, String text, String... attributes)
            throws XMLStreamException {
        out.writeStartElement(name);
        for (int i = 0; i < attributes.length; i += 2) out.writeAttribute(attributes[i], Sayable.of(attributes[i + 1]));
        out.writeCharacters(Sayable.of(text));
        out.writeEndElement();
    }

    private static void empty(XMLStreamWriter out, String name, String... attributes) throws XMLStreamException {
        out.writeEmptyElement(name);
        for (int i = 0; i < attributes.length; i += 2) out.writeAttribute(attributes[i], Sayable.of(attributes[i + 1]));
    }

    /** To the second: parts of it are more than some readers can read. */
    private static String time(Instant at) {
        return at.truncatedTo(ChronoUnit.SECONDS).toString();
    }

    private record Atom(XMLStreamWriter out) {
        void write(FeedDocument feed) throws XMLStreamException {
            out.writeStartElement("feed");
            out.writeDefaultNamespace(ATOM);
            if (feed.archive()) {
                out.writeNamespace("fh", HISTORY);
                empty(out, "fh:archive");
            }
            element(out, "id", feed.id());
            element(out, "title", feed.title());
            element(out, "subtitle", feed.says());
            element(out, "updated", time(feed.updated()));
            empty(out, "link", "rel", "alternate", "type", "text/html", "href", feed.page());
            empty(out, "link", "rel", "self", "type", "application/atom+xml", "href", feed.self());
            for (Link link : feed.links()) empty(out, "link", "rel", link.relation(), "href", link.address());
            for (Item item : feed.items()) write(item);
            out.writeEndElement();
        }

        private void write(Item item) throws XMLStreamException {
            out.writeStartElement("entry");
            element(out, "id", item.id());
            element(out, "title", item.title());
            empty(out, "link", "rel", "alternate", "type", "text/html", "href", item.address());
            element(out, "published", time(item.published()));
            element(out, "updated", time(item.updated()));
            out.writeStartElement("author");
            element(out, "name", item.author());
            out.writeEndElement();
            for (String tag : item.tags()) empty(out, "category", "term", tag);
            element(out, "content", item.html(), "type", "html");
            out.writeEndElement();
        }
    }

    private record Rss(XMLStreamWriter out) {
        void write(FeedDocument feed) throws XMLStreamException {
            out.writeStartElement("rss");
            out.writeAttribute("version", "2.0");
            out.writeNamespace("atom", ATOM);
            out.writeNamespace("dc", CORE);
            if (feed.archive()) out.writeNamespace("fh", HISTORY);
            out.writeStartElement("channel");
            if (feed.archive()) empty(out, "fh:archive");
            element(out, "title", feed.title());
            element(out, "link", feed.page());
            element(out, "description", feed.says());
            element(out, "lastBuildDate", mail(feed.updated()));
            empty(out, "atom:link", "rel", "self", "type", "application/rss+xml", "href", feed.self());
            for (Link link : feed.links()) empty(out, "atom:link", "rel", link.relation(), "href", link.address());
            for (Item item : feed.items()) write(item);
            out.writeEndElement();
            out.writeEndElement();
        }

        private void write(Item item) throws XMLStreamException {
            out.writeStartElement("item");
            element(out, "guid", item.id(), "isPermaLink", "false");
            element(out, "title", item.title());
            element(out, "link", item.address());
            element(out, "pubDate", mail(item.published()));
            element(out, "atom:updated", time(item.updated()));
            element(out, "dc:creator", item.author());
            for (String tag : item.tags()) element(out, "category", tag);
            element(out, "description", item.html());
            out.writeEndElement();
        }

        private static String mail(Instant at) {
            return DateTimeFormatter.RFC_1123_DATE_TIME.format(at.atOffset(ZoneOffset.UTC));
        }
    }

    private static Map<String, Object> json(FeedDocument feed) {
        Map<String, Object> out = new LinkedHashMap<>();
        out.put("version", "https://jsonfeed.org/version/1.1");
        out.put("title", Sayable.of(feed.title()));
        out.put("home_page_url", feed.page());
        out.put("feed_url", feed.self());
        out.put("description", Sayable.of(feed.says()));
        feed.links().stream()
                .filter(link -> link.relation().equals("next"))
                .forEach(link -> out.put("next_url", link.address()));
        out.put("items", feed.items().stream().map(FeedWriter::json).toList());
        return out;
    }

    private static Map<String, Object> json(Item item) {
        Map<String, Object> out = new LinkedHashMap<>();
        out.put("id", item.id());
        out.put("url", item.address());
        out.put("title", Sayable.of(item.title()));
        out.put("content_html", Sayable.of(item.html()));
        if (item.about() != null) out.put("summary", Sayable.of(item.about()));
        out.put("date_published", time(item.published()));
        out.put("date_modified", time(item.updated()));
        out.put("authors", List.of(Map.of("name", Sayable.of(item.author()))));
        out.put("tags", item.tags().stream().map(Sayable::of).toList());
        return out;
    }
}

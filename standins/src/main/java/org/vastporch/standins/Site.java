package org.vastporch.standins;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;

/** One outside blog of the stand-in host. */
final class Site {

    record Entry(String slug, String title, String html, List<String> tags, Instant published) {}

    final String name;
    final String title;
    final String about;
    /** Whether the home page announces the feed. */
    final boolean announces;

    private final List<Entry> entries = new CopyOnWriteArrayList<>();

    Site(String name, String title, String about, boolean announces) {
        this.name = name;
        this.title = title;
        this.about = about;
        this.announces = announces;
    }

    Site with(Instant now, double daysAgo, String title, String html, String... tags) {
        add(title, html, List.of(tags), now.minus(Duration.ofMinutes(Math.round(daysAgo * 24 * 60))));
        return this;
    }

    void add(String title, String html, List<String> tags, Instant at) {
        entries.add(new Entry(title.toLowerCase().replaceAll("[^a-z0-9]+", "-"), title, html, tags, at));
    }

    List<Entry> newestFirst() {
        List<Entry> sorted = new ArrayList<>(entries);
        sorted.sort((a, b) -> b.published().compareTo(a.published()));
        return sorted;
    }

    String rss(String base) {
        StringBuilder xml =
                new StringBuilder("<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<rss version=\"2.0\"><channel><title>"
                        + text(title) + "</title><link>" + base + "/" + name + "/</link><description>" + text(about)
                        + "</description>");
        for (Entry e : newestFirst()) {
            String link = base + "/" + name + "/" + e.slug();
            xml.append("<item><title>")
                    .append(text(e.title()))
                    .append("</title><link>")
                    .append(link)
                    .append("?utm_source=feed</link><guid>")
                    .append(link)
                    .append("</guid><pubDate>")
                    .append(DateTimeFormatter.RFC_1123_DATE_TIME.format(
                            e.published().atOffset(ZoneOffset.UTC)))
                    .append("</pubDate>");
            for (String tag : e.tags())
                xml.append("<category>").append(text(tag)).append("</category>");
            xml.append("<description>").append(text(e.html())).append("</description></item>");
        }
        return xml.append("</channel></rss>").toString();
    }

    String home(String base) {
        String head = announces
                ? "<link rel=\"alternate\" type=\"application/rss+xml\" title=\"" + text(title) + "\" href=\"" + base
                        + "/" + name + "/feed.xml\">"
                : "";
        StringBuilder html =
                new StringBuilder(page(title, head) + "<h1>" + text(title) + "</h1><p>" + text(about) + "</p>");
        for (Entry e : newestFirst())
            html.append("<article><h2><a href=\"/")
                    .append(name)
                    .append('/')
                    .append(e.slug())
                    .append("\">")
                    .append(text(e.title()))
                    .append("</a></h2>")
                    .append(e.html())
                    .append("</article>");
        return html.append("<form method=\"post\" action=\"/")
                .append(name)
                .append("/publish\"><h2>Publish an entry</h2><p><label>Title <input name=\"title\"></label></p>"
                        + "<p><label>Text <textarea "
                        + "name=\"text\"></textarea></label></p><p><button>Publish</button></p></form>")
                .toString();
    }

    String post(Entry e, String base) {
        String head = announces
                ? "<link rel=\"alternate\" type=\"application/rss+xml\" href=\"" + base + "/" + name + "/feed.xml\">"
                : "";
        return page(e.title(), head) + "<article><h1>" + text(e.title()) + "</h1>" + e.html() + "</article>";
    }

    static String page(String title, String head) {
        return "<!doctype html><html lang=\"en\"><head><meta charset=\"utf-8\"><title>" + text(title) + "</title>"
                + head
                + "<style>body{font:17px/1.6 Georgia,serif;max-width:42em;margin:3em auto;padding:0 "
                + "1em}</style></head><body>";
    }

    static String text(String raw) {
        return raw.replace("&", "&amp;")
                .replace("<", "&lt;")
                .replace(">", "&gt;")
                .replace("\"", "&quot;");
    }
}

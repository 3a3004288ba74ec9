package org.vastporch.standins;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;

/** One outside blog of the stand-in host. */
final class Site {

    record Entry(String slug, String title, String html, List<String> tags, Instant published) {}

    /** Somebody fetched the feed. */
    record Fetch(Instant at, String by, int status) {}

    private static final int KEPT = 6;
    private static final int WORDS_OF_BEGINNING = 14;

    final String name;
    final String title;
    final String about;
    /** Whether the home page announces the feed. */
    final boolean announces;

    private final List<Entry> entries = new CopyOnWriteArrayList<>();
    private final Set<String> takenAway = ConcurrentHashMap.newKeySet();
    private final Deque<Fetch> fetches = new ArrayDeque<>();
    private int fetchedInAll;
    private volatile Trouble trouble = Trouble.NONE;

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

    Trouble trouble() {
        return trouble;
    }

    void trouble(Trouble other) {
        trouble = other;
    }

    void add(String title, String html, List<String> tags, Instant at) {
        entries.add(new Entry(title.toLowerCase().replaceAll("[^a-z0-9]+", "-"), title, html, tags, at));
    }

    Optional<Entry> entry(String slug) {
        return entries.stream().filter(e -> e.slug().equals(slug)).findFirst();
    }

    void change(String slug, String html) {
        entries.replaceAll(
                e -> e.slug().equals(slug) ? new Entry(e.slug(), e.title(), html, e.tags(), e.published()) : e);
    }

    void takeAway(String slug) {
        if (entries.removeIf(e -> e.slug().equals(slug))) takenAway.add(slug);
    }

    boolean isTakenAway(String slug) {
        return takenAway.contains(slug);
    }

    synchronized void fetched(Fetch fetch) {
        fetchedInAll++;
        fetches.addFirst(fetch);
        if (fetches.size() > KEPT) fetches.removeLast();
    }

    synchronized int fetchedInAll() {
        return fetchedInAll;
    }

    synchronized List<Fetch> fetches() {
        return List.copyOf(fetches);
    }

    List<Entry> newestFirst() {
        List<Entry> sorted = new ArrayList<>(entries);
        sorted.sort((a, b) -> b.published().compareTo(a.published()));
        return sorted;
    }

    String rss(String base) {
        boolean untidy = trouble == Trouble.UNTIDY;
        StringBuilder xml = new StringBuilder(untidy ? "\n  " : "")
                .append("<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<rss version=\"2.0\"><channel><title>")
                .append(text(title))
                .append(untidy ? " & more &nbsp;" : "")
                .append("</title><link>" + base + "/" + name + "/</link><description>")
                .append(text(about))
                .append("</description>");
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
            xml.append("<description>")
                    .append(text(carriesBeginnings() ? beginning(e, link) : e.html()))
                    .append("</description></item>");
        }
        if (trouble == Trouble.HUGE)
            xml.append("<!-- ").append("x".repeat(9_000_000)).append(" -->");
        return xml.append(untidy ? "</chanel>" : "</channel></rss>").toString();
    }

    private boolean carriesBeginnings() {
        return trouble == Trouble.BEGINNINGS || trouble == Trouble.BEGINNINGS_OF_LOST_PAGES;
    }

    private static String beginning(Entry e, String link) {
        String[] words = e.html().replaceAll("<[^>]*>", " ").strip().split("\\s+");
        String first = String.join(" ", List.of(words).subList(0, Math.min(WORDS_OF_BEGINNING, words.length)));
        return "<p>" + first + " […] <a href=\"" + link + "\">Read on</a></p>";
    }

    String home(String base) {
        StringBuilder html = new StringBuilder(page(title, announced(base)) + "<header><h1>" + text(title) + "</h1><p>"
                + text(about) + "</p></header>");
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
        return html.append("<p class=\"foot\"><a href=\"/" + name + "/desk\">Its author's desk</a></p>")
                .toString();
    }

    String post(Entry e, String base) {
        return page(e.title(), announced(base)) + "<article><h1>" + text(e.title()) + "</h1>" + e.html()
                + "</article><p class=\"foot\"><a href=\"/" + name + "/\">" + text(title) + "</a></p>";
    }

    private String announced(String base) {
        return announces
                ? "<link rel=\"alternate\" type=\"application/rss+xml\" title=\"" + text(title) + "\" href=\"" + base
                        + "/" + name + "/feed.xml\">"
                : "";
    }

    static String page(String title, String head) {
        return "<!doctype html><html lang=\"en\"><head><meta charset=\"utf-8\"><meta name=\"viewport\" "
                + "content=\"width=device-width\"><title>" + text(title) + "</title>" + head
                + "<style>body{font:17px/1.6 Georgia,serif;max-width:42em;margin:3em auto;padding:0 1em;"
                + "color:#2b2b2b;background:#fdfdfb}h1,h2{line-height:1.25}a{color:#7a3b12}"
                + "input,textarea{font:inherit;width:100%;box-sizing:border-box;padding:.3em .5em}"
                + "input[type=radio]{width:auto;margin-right:.6em}button{font:inherit;padding:.3em 1em}"
                + ".foot,small{color:#666}label{display:block;margin:.4em 0}li{margin:.3em 0}"
                + "form.line{display:inline}form.line button{padding:.1em .6em}</style></head><body>";
    }

    static String text(String raw) {
        return raw.replace("&", "&amp;")
                .replace("<", "&lt;")
                .replace(">", "&gt;")
                .replace("\"", "&quot;");
    }
}

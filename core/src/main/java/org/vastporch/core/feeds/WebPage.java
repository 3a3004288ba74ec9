package org.vastporch.core.feeds;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.net.URI;
import java.nio.charset.Charset;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.feeds.PastedAddress.Kind;

/** A page of the web that is no feed: which feeds it announces or leads to, and the post that it shows. */
public final class WebPage {

    private static final Pattern CHARSET = Pattern.compile("(?i)charset\\s*=\\s*[\"']?([A-Za-z0-9._:-]+)");
    /**
     * Kinds of documents that feeds are sent as; XML of any kind is one where it is announced as the same page again.
     */
    private static final Pattern FEED_TYPE = Pattern.compile(
            "(?i)\\s*(application|text)/(x\\.|x-)?(rss|atom|rdf|rss\\+rdf|feed\\+json|xml)(\\+xml)?\\s*(;.*)?");

    private static final Pattern LOOKS_LIKE_FEED = Pattern.compile(
            "(?i).*(\\.(rss|atom|rdf)|(rss|atom|feed|index|index\\.rss)\\.(xml|json|rdf)|/(feed|feeds|rss|atom|rss2)/?"
                    + "|[?&](feed|format|type|alt)=(rss|rss2|atom|feed|xml).*)$");
    private static final Pattern SPEAKS_OF_FEED =
            Pattern.compile("(?i).*\\b(rss|atom|feeds?|syndication|syndicate|subscribe|xml)\\b.*");
    private static final int MOST_LINKS = 5_000;
    /** The tree of a page is many times as large as its text; behind so many tags nobody looks for a feed. */
    private static final int MOST_TAGS = 100_000;

    private final String address;
    private final Document page;
    /** What links are completed by. */
    private final String base;

    private WebPage(String address, Document page) {
        this.address = address;
        this.page = page;
        Element said = page.selectFirst("base[href]");
        String other = said == null ? "" : WebLink.of(said.attr("href"), address);
        this.base = other.isEmpty() ? address : other;
    }

    /**
     * @param contentType as the server says it; what the page itself says of its letters counts where that says nothing
     */
    public static WebPage read(byte[] body, String contentType, String address) {
        try {
            // It is told no address: completing links is ours, since its own way takes minutes for a link of "../".
            Document page = Jsoup.parse(new ByteArrayInputStream(body, 0, end(body)), charset(contentType), "");
            page.outputSettings().prettyPrint(false);
            return new WebPage(address, page);
        } catch (IOException e) {
            throw new IllegalStateException("Bytes that are there can be read", e);
        }
    }

    /**
     * Where the tags begin that are too many; in every encoding a page can have they begin with one and the same byte.
     */
    private static int end(byte[] body) {
        int tags = 0;
        for (int i = 0; i < body.length; i++) if (body[i] == '<' && ++tags > MOST_TAGS) return i;
        return body.length;
    }

    private static @Nullable String charset(String contentType) {
        Matcher said = CHARSET.matcher(contentType);
        try {
            return said.find() && Charset.isSupported(said.group(1)) ? said.group(1) : null;
        } catch (IllegalArgumentException e) {
            return null;
        }
    }

    public String title() {
        return FeedText.plain(page.title(), 300);
    }

    public Kind kind() {
        if (asksToSignIn()) return Kind.SIGN_IN_PAGE;
        if (PastedAddress.isEditing(address)) return Kind.EDITING_ADDRESS;
        if (announced().isEmpty()) return Kind.NO_FEED;
        boolean post = page.select("article").size() == 1 && !isHome();
        return post ? Kind.SINGLE_POST : Kind.SITE_WITH_FEEDS;
    }

    private boolean asksToSignIn() {
        return page.selectFirst("input[type=password]") != null;
    }

    private boolean isHome() {
        String path = URI.create(address).getPath();
        return path == null || path.matches("/?");
    }

    /** Addresses of the feeds that the page announces, in its order; those of comments come after the others. */
    public List<String> announced() {
        Set<String> feeds = new LinkedHashSet<>();
        Set<String> comments = new LinkedHashSet<>();
        for (Element link : page.select("link[rel][href], a[rel][href]").stream()
                .limit(MOST_LINKS)
                .toList()) {
            Set<String> relations =
                    Set.of(link.attr("rel").strip().toLowerCase(Locale.ROOT).split("\\s+", 20));
            boolean typed = FEED_TYPE.matcher(link.attr("type")).matches();
            if (relations.contains("stylesheet")
                    || !(relations.contains("feed") || relations.contains("alternate") && typed)) continue;
            String feed = addressOf(link);
            boolean ofComments =
                    (link.attr("title") + " " + feed).toLowerCase(Locale.ROOT).contains("comment");
            if (!feed.isEmpty()) (ofComments ? comments : feeds).add(feed);
        }
        feeds.addAll(comments);
        return List.copyOf(feeds);
    }

    /** Addresses of links on the page that look as if feeds were behind them, the likeliest first. */
    public List<String> likely() {
        record Likely(String address, int points) {}
        List<Likely> found = new ArrayList<>();
        String host = URI.create(address).getRawAuthority();
        for (Element link :
                page.select("a[href], area[href]").stream().limit(MOST_LINKS).toList()) {
            String to = addressOf(link);
            if (to.isEmpty() || to.equals(address)) continue;
            int points = 0;
            if (link.attr("href").strip().toLowerCase(Locale.ROOT).startsWith("feed:")) points += 8;
            if (FEED_TYPE.matcher(link.attr("type")).matches()) points += 8;
            if (LOOKS_LIKE_FEED.matcher(to).matches()) points += 4;
            if (SPEAKS_OF_FEED.matcher(link.text() + " " + link.attr("title")).matches()) points += 2;
            if (points > 0 && to.contains("//" + host)) points++;
            if (points > 2) found.add(new Likely(to, points));
        }
        return found.stream()
                .sorted(Comparator.comparing(Likely::points).reversed())
                .map(Likely::address)
                .distinct()
                .toList();
    }

    private String addressOf(Element link) {
        String said = link.attr("href").strip();
        String feed = said.replaceFirst("(?i)^feed:(//)?(?=https?:)", "").replaceFirst("(?i)^feed:(//)?", "http://");
        return feed.equals(said) ? WebLink.of(said, base) : WebLink.of(feed);
    }

    /** A post as it stands on a page of its own; its html is not cleaned yet. */
    public record Article(String title, String html) {}

    /**
     * The one post that the page shows, for posts that no feed carries any more. Empty for home pages, editing
     * addresses and pages behind a sign-in, and where there is none or more than one.
     */
    public Optional<Article> article() {
        if (isHome() || PastedAddress.isEditing(address) || asksToSignIn()) return Optional.empty();
        List<Element> articles = page.select("article");
        if (articles.size() != 1) return Optional.empty();
        Element article = articles.get(0).clone();
        Element heading = article.selectFirst("h1, h2");
        String title = heading == null ? title() : heading.text();
        if (heading != null) heading.remove();
        article.select("nav, footer, form, aside").remove();
        return article.text().isBlank()
                ? Optional.empty()
                : Optional.of(new Article(title, FeedText.completed(article.html(), base)));
    }

    /** The address that the page itself names as its lasting one, else the one at which it was found. */
    public String lasting() {
        Element link = page.selectFirst("link[rel=canonical][href]");
        String lasting = link == null ? "" : WebLink.of(link.attr("href"), base);
        return lasting.isEmpty() ? address : lasting;
    }
}

package org.vastporch.core.feeds;

import java.net.URI;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;

/** Says what a pasted address is, from the address and what stood there. */
public final class PastedAddress {

    /** What an address turned out to be. */
    public enum Kind {
        FEED,
        SITE_WITH_FEEDS,
        SINGLE_POST,
        EDITING_ADDRESS,
        SIGN_IN_PAGE,
        NO_FEED,
        NOT_FOUND
    }

    /** @param feeds addresses of the feeds that the page announces, in its order */
    public record Finding(Kind kind, String title, List<String> feeds) {}

    private static final List<String> USUAL_PLACES =
            List.of("feed.xml", "rss.xml", "atom.xml", "index.xml", "feed", "feed/");

    private PastedAddress() {}

    /** The address as a fetchable one: white space off, http or https before it. Empty text if it can be no address. */
    public static String normalise(String pasted) {
        String text = pasted.strip().replaceFirst("(?i)^feed:(//)?", "");
        return WebLink.of(text.matches("(?i)[a-z][a-z0-9+.-]*://.*") ? text : "https://" + text);
    }

    /** Tells whether an address is one at which its author edits or previews, by its words. */
    public static boolean isEditing(String address) {
        String low = address.toLowerCase(Locale.ROOT);
        return low.matches(
                ".*(/edit(or)?(/|\\?|#|$)|/preview(/|\\?|$)|[?&](action=edit|preview=true|edit=)|/admin/|/drafts?/).*");
    }

    /** Looks at a page that is no feed. */
    public static Finding ofPage(String address, String html) {
        Document page = Jsoup.parse(html, address);
        Set<String> feeds = new LinkedHashSet<>();
        for (Element link : page.select("link[rel~=(?i)\\balternate\\b][href]")) {
            String type = link.attr("type").toLowerCase(Locale.ROOT);
            if (type.contains("rss") || type.contains("atom") || type.contains("feed+json"))
                feeds.add(WebLink.of(link.absUrl("href")));
        }
        feeds.remove("");
        String title = page.title().strip();
        if (page.selectFirst("input[type=password]") != null)
            return new Finding(Kind.SIGN_IN_PAGE, title, List.copyOf(feeds));
        if (isEditing(address)) return new Finding(Kind.EDITING_ADDRESS, title, List.copyOf(feeds));
        if (feeds.isEmpty()) return new Finding(Kind.NO_FEED, title, List.of());
        boolean post = page.select("article").size() == 1
                && !URI.create(address).getPath().matches("/?");
        return new Finding(post ? Kind.SINGLE_POST : Kind.SITE_WITH_FEEDS, title, List.copyOf(feeds));
    }

    /** A post as it stands on a page of its own; its html is not cleaned yet. */
    public record Article(String title, String html) {}

    /**
     * The one post that a page shows, for posts that no feed carries any more. Empty for home pages, editing addresses
     * and pages behind a sign-in, and where there is none or more than one.
     */
    public static Optional<Article> article(String address, String html) {
        Document page = Jsoup.parse(html, address);
        String path = URI.create(address).getPath();
        if (path == null
                || path.matches("/?")
                || isEditing(address)
                || page.selectFirst("input[type=password]") != null) return Optional.empty();
        List<Element> articles = page.select("article");
        if (articles.size() != 1) return Optional.empty();
        Element article = articles.get(0);
        Element heading = article.selectFirst("h1, h2");
        String title = heading == null ? page.title().strip() : heading.text();
        if (heading != null) heading.remove();
        article.select("nav, footer, form, aside").remove();
        return article.text().isBlank() ? Optional.empty() : Optional.of(new Article(title, article.html()));
    }

    /** The address that a page itself names as its lasting one, else the one at which it was found. */
    public static String lasting(String address, String html) {
        Element link = Jsoup.parse(html, address).selectFirst("link[rel=canonical][href]");
        String lasting = link == null ? "" : WebLink.of(link.absUrl("href"));
        return lasting.isEmpty() ? address : lasting;
    }

    /** Addresses at which a site that announces no feed may have one, the likeliest first. */
    public static List<String> guesses(String address) {
        URI uri = URI.create(address);
        String path = uri.getPath() == null || uri.getPath().isEmpty() ? "/" : uri.getPath();
        String folder = path.substring(0, path.lastIndexOf('/') + 1);
        String base = uri.getScheme() + "://" + uri.getRawAuthority();
        Set<String> guesses = new LinkedHashSet<>();
        if (isEditing(address)) folder = "/" + path.split("/")[1] + "/";
        for (String place : USUAL_PLACES)
            guesses.add(base + (path.endsWith("/") || isEditing(address) ? folder : path + "/") + place);
        for (String place : USUAL_PLACES.subList(0, 3)) guesses.add(base + folder + place);
        return guesses.stream().limit(8).toList();
    }
}

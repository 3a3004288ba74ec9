package org.vastporch.core.feeds;

import static org.vastporch.core.feeds.FeedTree.name;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.jsoup.nodes.Element;
import org.jsoup.select.NodeFilter.FilterResult;
import org.jsoup.select.NodeTraversor;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.feeds.EntryIdentity.Entry;

/**
 * Reads feeds: RSS of all versions, Atom 0.3 and 1.0, JSON Feed 1.0 and 1.1, as tolerantly as people write them. One
 * way for all: bytes become text ({@link FeedBytes}), text a tree ({@link FeedTree}), and of each thing that is wanted
 * the first place is taken that says it. Nothing is fetched, and whatever the bytes, the answer is a feed or none.
 */
public final class FeedReader {

    public static final int MOST_ENTRIES = 500;
    private static final int MOST_TAGS = 12;
    private static final int LONGEST_TAG = 40;
    private static final int LONGEST_TITLE = 200;
    private static final int LONGEST_HTML = 400_000;
    private static final int LONGEST_GUID = 2_000;
    private static final Duration LONGEST_ASKED = Duration.ofDays(1);

    private static final Set<String> ITEMS = Set.of("item", "entry", "atom:entry");
    /** For each thing the names under which it may stand, the best first. */
    private static final String[] TITLES = {"title", "atom:title", "dc:title"};

    private static final String[] DESCRIPTIONS = {
        "description", "atom:subtitle", "subtitle", "atom:tagline", "tagline", "dc:description"
    };
    /** The whole text before its beginning. */
    private static final String[] TEXTS = {
        "content:encoded",
        "xhtml:body",
        "xhtml:div",
        "atom:content",
        "content",
        "body",
        "description",
        "atom:summary",
        "summary",
        "dc:description",
        "dcterms:abstract"
    };

    private static final String[] PUBLISHED = {
        "pubdate",
        "atom:published",
        "published",
        "dcterms:issued",
        "atom:issued",
        "issued",
        "dc:date",
        "dcterms:created",
        "atom:created",
        "created",
        "date"
    };
    private static final String[] UPDATED = {
        "atom:updated", "updated", "dcterms:modified", "atom:modified", "modified", "lastbuilddate"
    };

    /** An element with its children by their names. */
    private record Fields(Element of, Map<String, List<Element>> byName) {
        static Fields of(Element element) {
            Map<String, List<Element>> byName = new HashMap<>();
            for (Element child : element.children())
                byName.computeIfAbsent(name(child), name -> new ArrayList<>()).add(child);
            return new Fields(element, byName);
        }

        /** Those of some names, in the order of the names. */
        Stream<Element> all(String... names) {
            return Stream.of(names).flatMap(name -> byName.getOrDefault(name, List.of()).stream());
        }

        /** The first that says anything. */
        @Nullable
        Element first(String... names) {
            return all(names)
                    .filter(e -> !e.wholeText().isBlank() || e.childrenSize() > 0)
                    .findFirst()
                    .orElse(null);
        }
    }

    private FeedReader() {}

    /**
     * The feed in an answer.
     *
     * @param contentType as the server says it; empty if it does not
     * @param address at which the answer was found; links that leave out where they are are completed by it
     * @return empty if it is no feed
     */
    public static Optional<Feed> read(byte[] body, String contentType, String address) {
        FeedBytes.Text text = FeedBytes.read(body, contentType);
        if (JsonFeed.looksLikeOne(text.text())) return JsonFeed.read(text, address);
        FeedTree tree = FeedTree.of(text.text());
        if (tree == null) return Optional.empty();
        return read(tree, text.untidy() || tree.untidy(), address);
    }

    private static Optional<Feed> read(FeedTree tree, boolean untidy, String address) {
        Element root = tree.root();
        List<Element> items = items(root);
        Element at = root.children().stream()
                .filter(e -> name(e).equals("channel"))
                .findFirst()
                .orElse(root);
        Fields channel = Fields.of(at);
        if (items.isEmpty() && !isFeed(root, channel)) return Optional.empty();
        String site = site(channel, address);
        String around = site.isEmpty() ? address : site;
        return Optional.of(new Feed(
                FeedText.plain(channel.first(TITLES), 300),
                FeedText.plain(channel.first(DESCRIPTIONS), 2_000),
                site,
                items.stream()
                        .limit(MOST_ENTRIES)
                        .map(item -> entry(Fields.of(item), around))
                        .toList(),
                asked(channel),
                tree.cut(),
                untidy));
    }

    /** Other things are called feed and RDF too. */
    private static boolean isFeed(Element root, Fields channel) {
        if (name(root).matches("atom:feed|channel") || channel.of() != root) return true;
        return name(root).equals("feed") && channel.first("title", "id", "updated", "subtitle") != null;
    }

    /** Entries stand in the channel, beside it, or wherever somebody put them; not in one another. */
    private static List<Element> items(Element root) {
        List<Element> items = new ArrayList<>();
        NodeTraversor.filter(
                (node, depth) -> {
                    if (!(node instanceof Element element) || !ITEMS.contains(name(element)))
                        return FilterResult.CONTINUE;
                    items.add(element);
                    return items.size() == MOST_ENTRIES ? FilterResult.STOP : FilterResult.SKIP_ENTIRELY;
                },
                root);
        return items;
    }

    /** The address of the pages; where a feed gives its own for it, that is none. */
    private static String site(Fields channel, String address) {
        return Stream.concat(addresses(channel, "link", address), links(channel, address))
                .filter(link -> !link.isEmpty() && !isSame(link, address))
                .findFirst()
                .orElse("");
    }

    private static boolean isSame(String link, String address) {
        return !address.isEmpty() && EntryIdentity.cleanLink(link).equals(EntryIdentity.cleanLink(address));
    }

    private static Entry entry(Fields item, String around) {
        return new Entry(
                guid(item),
                link(item, around),
                FeedText.plain(item.first(TITLES), LONGEST_TITLE),
                cutHtml(html(item, around)),
                date(item, PUBLISHED),
                date(item, UPDATED),
                tags(item));
    }

    private static @Nullable String guid(Fields item) {
        return Stream.concat(
                        item.all("guid", "atom:id", "id", "dc:identifier").map(Element::wholeText),
                        Stream.of(item.of().attr("rdf:about")))
                .map(String::strip)
                .filter(id -> !id.isEmpty() && id.length() <= LONGEST_GUID)
                .findFirst()
                .orElse(null);
    }

    /** Of the places that may say the entry's address the first that says one. */
    private static String link(Fields item, String around) {
        return Stream.of(
                        item.all("other:origlink").map(e -> completed(e, e.wholeText(), around)),
                        addresses(item, "link", around),
                        links(item, around),
                        item.all("guid")
                                .filter(g -> !isNoLink(g) && isWhole(g.wholeText()))
                                .map(g -> WebLink.of(g.wholeText())),
                        Stream.of(WebLink.of(item.of().attr("rdf:about"))),
                        item.all("atom:id", "id")
                                .filter(id -> isWhole(id.wholeText()))
                                .map(id -> WebLink.of(id.wholeText())),
                        item.all("atom:content", "content")
                                .filter(c -> c.hasAttr("src"))
                                .map(c -> completed(c, c.attr("src"), around)))
                .flatMap(links -> links)
                .filter(link -> !link.isEmpty())
                .findFirst()
                .orElse("");
    }

    private static String completed(Element element, String said, String around) {
        return said.isBlank() ? "" : WebLink.of(said, FeedTree.base(element, around));
    }

    private static boolean isNoLink(Element guid) {
        return Stream.of("isPermaLink", "ispermalink")
                .anyMatch(name -> guid.attr(name).equalsIgnoreCase("false"));
    }

    private static boolean isWhole(String id) {
        return id.strip().matches("(?i)https?://.*");
    }

    /** Addresses that stand between tags, as RSS has them. */
    private static Stream<String> addresses(Fields element, String name, String around) {
        return element.all(name).filter(e -> !e.hasAttr("href")).map(e -> completed(e, e.wholeText(), around));
    }

    /** Addresses of pages that stand beside, as Atom has them; of other kinds after them. */
    private static Stream<String> links(Fields element, String around) {
        List<Element> found = element.all("atom:link", "link")
                .filter(e -> e.hasAttr("href") && isAlternate(e))
                .toList();
        return Stream.concat(
                        found.stream().filter(FeedReader::isPage),
                        found.stream().filter(e -> !isPage(e)))
                .map(e -> completed(e, e.attr("href"), around));
    }

    private static boolean isAlternate(Element link) {
        String rel = link.attr("rel").strip();
        return rel.isEmpty()
                || rel.equalsIgnoreCase("alternate")
                || rel.equalsIgnoreCase("http://www.iana.org/assignments/relation/alternate");
    }

    private static boolean isPage(Element link) {
        String type = link.attr("type").strip();
        return type.isEmpty() || type.toLowerCase(Locale.ROOT).contains("html");
    }

    private static String html(Fields item, String around) {
        return item.all(TEXTS)
                .map(e -> FeedText.html(e, true, FeedTree.base(e, around)))
                .filter(html -> !html.isBlank())
                .findFirst()
                .orElse("");
    }

    private static @Nullable Instant date(Fields item, String... names) {
        return item.all(names)
                .map(e -> FeedDates.of(e.wholeText()))
                .flatMap(Optional::stream)
                .findFirst()
                .orElse(null);
    }

    private static List<String> tags(Fields item) {
        Set<String> tags = new LinkedHashSet<>();
        for (Element category :
                item.all("category", "atom:category", "dc:subject").toList()) {
            String label = Stream.of(category.attr("label"), category.attr("term"), category.wholeText())
                    .filter(s -> !s.isBlank())
                    .findFirst()
                    .orElse("");
            add(tags, label);
        }
        return List.copyOf(tags);
    }

    static void add(Set<String> tags, String label) {
        String tag = FeedText.plain(label, LONGEST_TAG + 1);
        if (!tag.isEmpty() && tag.length() <= LONGEST_TAG && tags.size() < MOST_TAGS) tags.add(tag);
    }

    /** The wait that a feed asks for: RSS's ttl in minutes, or so many times in a period. */
    private static Duration asked(Fields channel) {
        long minutes = channel.all("ttl").map(FeedReader::number).findFirst().orElse(0L);
        String period = channel.all("sy:updateperiod")
                .map(e -> e.wholeText().strip().toLowerCase(Locale.ROOT))
                .findFirst()
                .orElse("");
        long frequency = Math.max(
                1,
                channel.all("sy:updatefrequency")
                        .map(FeedReader::number)
                        .findFirst()
                        .orElse(1L));
        long all =
                switch (period) {
                    case "hourly" -> 60;
                    case "daily" -> 24 * 60;
                    case "weekly" -> 7 * 24 * 60;
                    case "monthly" -> 30 * 24 * 60;
                    case "yearly" -> 365 * 24 * 60;
                    default -> 0;
                };
        long wish = Math.max(minutes, all / frequency);
        return Duration.ofMinutes(Math.min(wish, LONGEST_ASKED.toMinutes()));
    }

    private static long number(Element element) {
        String text = element.wholeText().strip();
        return text.matches("\\d{1,6}") ? Long.parseLong(text) : 0;
    }

    /** The limits of one text and one title, for other families. */
    static String cutHtml(String html) {
        return html.length() > LONGEST_HTML ? html.substring(0, LONGEST_HTML) : html;
    }

    static String title(String html) {
        return FeedText.plain(html, LONGEST_TITLE);
    }
}

package org.vastporch.core.feeds;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Attribute;
import org.jsoup.nodes.Element;
import org.jsoup.nodes.TextNode;
import org.jsoup.select.NodeTraversor;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.text.Sanitiser;

/** Tells when two entries of a source are the same one, and when one has changed. */
public final class EntryIdentity {

    private static final Set<String> TRACKING =
            Set.of("fbclid", "gclid", "mc_cid", "mc_eid", "igshid", "ref", "source", "share");

    /** Begins hashes of cleaned texts. */
    private static final String CLEAN = "c";

    private EntryIdentity() {}

    /** One entry as a feed gives it. Dates are null where the feed has none. */
    public record Entry(
            @Nullable String guid,
            @Nullable String link,
            String title,
            String html,
            @Nullable Instant published,
            @Nullable Instant updated,
            List<String> tags) {}

    /**
     * The key of an entry within its source: its own id; else its link without tracking; else a hash of title, date and
     * text.
     */
    public static String keyOf(Entry entry) {
        if (entry.guid() != null && !entry.guid().isBlank())
            return "id:" + shortened(entry.guid().strip());
        if (entry.link() != null && !entry.link().isBlank()) return "link:" + shortened(cleanLink(entry.link()));
        return "hash:" + hash(entry.title() + "\n" + entry.published() + "\n" + entry.html());
    }

    /**
     * What was kept of an entry.
     *
     * @param cleanLink as {@link #cleanLink} gives it; empty for none
     * @param contentHash as {@link #contentHash} gave it last
     */
    public record Known(String cleanLink, String contentHash) {}

    /**
     * The keys of all entries of one document, in its order. Entries that share an identity are told apart by their
     * links, and where these are the same too, by title and text. An entry keeps the key by which it was known before
     * others came that share its identity, and after they are gone: the same document read twice changes nothing.
     *
     * @param known what is kept under a key; empty if nothing is
     */
    public static List<String> keysOf(List<Entry> document, Function<String, Optional<Known>> known) {
        Map<String, Long> sharing =
                document.stream().collect(Collectors.groupingBy(EntryIdentity::keyOf, Collectors.counting()));
        Map<String, Long> sharingLinks =
                document.stream().collect(Collectors.groupingBy(EntryIdentity::keyWithLink, Collectors.counting()));
        List<String> keys = new ArrayList<>();
        for (Entry entry : document) {
            String plain = keyOf(entry);
            String withLink = keyWithLink(entry);
            String withText = keyWithText(entry);
            boolean sharesLink = sharingLinks.get(withLink) > 1;
            String before = keyBefore(entry);
            if (known.apply(withText).isPresent()) keys.add(withText);
            else if (isOnly(before, plain, sharing) && known.apply(before).isPresent()) keys.add(before);
            else if (isKnownAs(entry, known.apply(withLink), sharesLink)) keys.add(withLink);
            else if (sharing.get(plain) == 1 || isKnownAs(entry, known.apply(plain), sharesLink)) keys.add(plain);
            else keys.add(sharesLink ? withText : withLink);
        }
        return keys;
    }

    private static boolean isKnownAs(Entry entry, Optional<Known> known, boolean byText) {
        return known.isPresent()
                && known.get().cleanLink().equals(cleanLinkOf(entry))
                && (!byText || isSame(entry, known.get().contentHash()));
    }

    /** All keys under which entries of a document may be kept, whatever is known. */
    public static List<String> candidates(List<Entry> document) {
        return document.stream()
                .flatMap(entry -> Stream.of(keyOf(entry), keyWithLink(entry), keyWithText(entry), keyBefore(entry)))
                .filter(key -> !key.isEmpty())
                .distinct()
                .toList();
    }

    /** No other entry of the document may go by the key. */
    private static boolean isOnly(String before, String plain, Map<String, Long> sharing) {
        return !before.isEmpty() && !sharing.containsKey(before) && sharing.get(plain) == 1;
    }

    /** Entries without an id were kept under their link as if it were one; they keep that key. */
    private static String keyBefore(Entry entry) {
        boolean hasId = entry.guid() != null && !entry.guid().isBlank();
        return hasId || entry.link() == null || entry.link().isBlank()
                ? ""
                : "id:" + shortened(entry.link().strip());
    }

    private static String keyWithText(Entry entry) {
        return keyOf(entry) + "#" + hash(cleanLinkOf(entry) + "\n" + hash(asItCame(entry)));
    }

    private static String keyWithLink(Entry entry) {
        return keyOf(entry) + "#" + hash(cleanLinkOf(entry));
    }

    private static String cleanLinkOf(Entry entry) {
        return entry.link() == null || entry.link().isBlank() ? "" : cleanLink(entry.link());
    }

    /**
     * What decides whether an entry has changed: its title and what is left of its text once it is cleaned. Mark-up
     * that nobody sees, the order of attributes and what counts the readers of a link are no change.
     */
    public static String contentHash(Entry entry) {
        return CLEAN + hash(entry.title().strip() + "\n" + cleanText(entry.html()));
    }

    /**
     * Tells whether an entry is as it was.
     *
     * @param kept what {@link #contentHash} gave then, by this version or by one that took the text as it came
     */
    public static boolean isSame(Entry entry, String kept) {
        return kept.startsWith(CLEAN) ? kept.equals(contentHash(entry)) : kept.equals(hash(asItCame(entry)));
    }

    private static String asItCame(Entry entry) {
        return entry.title().strip() + "\n" + entry.html().strip();
    }

    private static String cleanText(String html) {
        StringBuilder text = new StringBuilder();
        NodeTraversor.traverse(
                (node, depth) -> {
                    if (node instanceof TextNode words)
                        text.append(words.getWholeText().replaceAll("\\s+", " "));
                    if (node instanceof Element element) {
                        text.append('<').append(element.tagName());
                        element.attributes().asList().stream()
                                .sorted(Comparator.comparing(Attribute::getKey))
                                .forEach(a -> text.append(' ')
                                        .append(a.getKey())
                                        .append('=')
                                        .append(a.getKey().equals("href") ? cleanLink(a.getValue()) : a.getValue()));
                        text.append('>');
                    }
                },
                Jsoup.parseBodyFragment(Sanitiser.post(html)).body());
        return text.toString().replace("> ", ">").replace(" <", "<").strip();
    }

    /**
     * The date under which an entry stands: published, else updated, else first seen. A date in the future counts as
     * first seen.
     */
    public static Instant dateOf(Entry entry, Instant firstSeen) {
        Instant said = entry.published() != null ? entry.published() : entry.updated();
        return said == null || said.isAfter(firstSeen) ? firstSeen : said;
    }

    /** A link without fragment, tracking parameters, default port and trailing slash; the host in lower case. */
    public static String cleanLink(String link) {
        String text = link.strip();
        int fragment = text.indexOf('#');
        if (fragment >= 0) text = text.substring(0, fragment);
        int question = text.indexOf('?');
        String query = question < 0 ? "" : text.substring(question + 1);
        String base = question < 0 ? text : text.substring(0, question);
        String kept = Arrays.stream(query.split("&"))
                .filter(p -> !p.isBlank() && !p.toLowerCase(Locale.ROOT).startsWith("utm_"))
                .filter(p -> !TRACKING.contains(p.split("=", 2)[0].toLowerCase(Locale.ROOT)))
                .collect(Collectors.joining("&"));
        int path = base.indexOf('/', base.indexOf("//") + 2);
        String host = (path < 0 ? base : base.substring(0, path))
                .toLowerCase(Locale.ROOT)
                .replaceFirst("^(http://[^/]*):80$", "$1")
                .replaceFirst("^(https://[^/]*):443$", "$1");
        String rest = path < 0 ? "" : base.substring(path).replaceFirst("/+$", "");
        return host + rest + (kept.isEmpty() ? "" : "?" + kept);
    }

    private static String shortened(String key) {
        return key.length() <= 400 ? key : hash(key);
    }

    private static String hash(String text) {
        try {
            byte[] digest = MessageDigest.getInstance("SHA-256").digest(text.getBytes(StandardCharsets.UTF_8));
            return HexFormat.of().formatHex(digest, 0, 16);
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("Every JDK has SHA-256", e);
        }
    }
}

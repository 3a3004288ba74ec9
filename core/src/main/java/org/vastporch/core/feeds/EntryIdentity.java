package org.vastporch.core.feeds;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/** Tells when two entries of a source are the same one, and when one has changed. */
public final class EntryIdentity {

    private static final Set<String> TRACKING =
            Set.of("fbclid", "gclid", "mc_cid", "mc_eid", "igshid", "ref", "source", "share");

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
            String withText = plain + "#" + hash(cleanLinkOf(entry) + "\n" + contentHash(entry));
            boolean sharesLink = sharingLinks.get(withLink) > 1;
            if (known.apply(withText).isPresent()) keys.add(withText);
            else if (isKnownAs(entry, known.apply(withLink), sharesLink)) keys.add(withLink);
            else if (sharing.get(plain) == 1 || isKnownAs(entry, known.apply(plain), sharesLink)) keys.add(plain);
            else keys.add(sharesLink ? withText : withLink);
        }
        return keys;
    }

    private static boolean isKnownAs(Entry entry, Optional<Known> known, boolean byText) {
        return known.isPresent()
                && known.get().cleanLink().equals(cleanLinkOf(entry))
                && (!byText || known.get().contentHash().equals(contentHash(entry)));
    }

    private static String keyWithLink(Entry entry) {
        return keyOf(entry) + "#" + hash(cleanLinkOf(entry));
    }

    private static String cleanLinkOf(Entry entry) {
        return entry.link() == null || entry.link().isBlank() ? "" : cleanLink(entry.link());
    }

    /** What decides whether an entry has changed: title and text, nothing that a server may alter by itself. */
    public static String contentHash(Entry entry) {
        return hash(entry.title().strip() + "\n" + entry.html().strip());
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

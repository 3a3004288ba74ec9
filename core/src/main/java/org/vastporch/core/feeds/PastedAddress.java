package org.vastporch.core.feeds;

import java.net.URI;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/**
 * What somebody may have meant by an address that was pasted. What stands there is a {@link Feed} or a {@link WebPage}.
 */
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

    private static final List<String> USUAL_PLACES =
            List.of("feed.xml", "rss.xml", "atom.xml", "index.xml", "feed", "feed/");

    private PastedAddress() {}

    /** The address as a fetchable one: white space off, http or https before it. Empty text if it can be no address. */
    public static String normalise(String pasted) {
        String text = pasted.strip().replaceFirst("(?i)^(feed|rss|webcal):(//)?", "");
        return WebLink.of(text.matches("(?i)[a-z][a-z0-9+.-]*://.*") ? text : "https://" + text);
    }

    /** Tells whether an address is one at which its author edits or previews, by its words. */
    public static boolean isEditing(String address) {
        String low = address.toLowerCase(Locale.ROOT);
        return low.matches(
                ".*(/edit(or)?(/|\\?|#|$)|/preview(/|\\?|$)|[?&](action=edit|preview=true|edit=)|/admin/|/drafts?/).*");
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

package org.vastporch.core.feeds;

import java.net.IDN;
import java.net.URI;
import java.net.URISyntaxException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** Addresses of pages, as feeds carry them and people paste them. What is none is no link. */
public final class WebLink {

    private static final Pattern WEB = Pattern.compile("(?i)(https?)://([^/?#\\\\]+)([^\\\\]*)", Pattern.DOTALL);
    private static final Pattern AUTHORITY = Pattern.compile("(\\[[0-9a-fA-F:.]+]|[^:@\\[\\]]+)(?::(\\d{1,5}))?");
    private static final Pattern SCHEME = Pattern.compile("[A-Za-z][A-Za-z0-9+.-]*:");
    private static final Pattern PARTS = Pattern.compile("(https?):(//[^/?#]*)([^?#]*).*");
    private static final String PLAIN = "-._~:/?@!$&'()*+,;=%";
    /** What is longer is no address, and is looked at no further. */
    private static final int LONGEST = 4_000;

    private WebLink() {}

    /**
     * An address of the web as it can be asked for: names of hosts in other scripts are written as the net writes them,
     * blanks and signs that no address has are encoded. Empty if it is none; names with a password in them are none.
     */
    public static String of(@Nullable String text) {
        if (text == null || text.length() > LONGEST) return "";
        Matcher web = WEB.matcher(text.strip());
        if (!web.matches()) return "";
        Matcher authority = AUTHORITY.matcher(web.group(2));
        if (!authority.matches()) return "";
        String host = host(authority.group(1));
        if (host.isEmpty()) return "";
        String port = authority.group(2);
        if (port != null && (Integer.parseInt(port) < 1 || Integer.parseInt(port) > 65_535)) return "";
        if (web.group(3).chars().anyMatch(Character::isISOControl)) return "";
        String address = web.group(1).toLowerCase(Locale.ROOT) + "://" + host + (port == null ? "" : ":" + port)
                + encoded(web.group(3));
        return isAddress(address) ? address : "";
    }

    /**
     * The same of a link as it stands in a document, which may leave out what the document's own address says (RFC
     * 3986, section 5).
     *
     * @param base the address of the document, as {@link #of(String)} gives it; empty if it has none
     */
    public static String of(@Nullable String text, String base) {
        if (text == null || text.length() > LONGEST) return "";
        String link = text.strip().replaceAll("[\\r\\n\\t]", "");
        if (SCHEME.matcher(link).lookingAt()) return of(link);
        if (base.isEmpty()) return link.startsWith("//") ? of("https:" + link) : "";
        Matcher parts = PARTS.matcher(base);
        if (!parts.matches()) return "";
        String path = parts.group(3).isEmpty() ? "/" : parts.group(3);
        String origin = parts.group(1) + ":" + parts.group(2);
        if (link.isEmpty()) return base;
        if (link.startsWith("//")) return of(parts.group(1) + ":" + link);
        if (link.startsWith("#")) return of(base.replaceFirst("#.*", "") + link);
        if (link.startsWith("?")) return of(origin + path + link);
        String whole = link.startsWith("/") ? link : path.substring(0, path.lastIndexOf('/') + 1) + link;
        int end = whole.length() - whole.replaceFirst("^[^?#]*", "").length();
        return of(origin + withoutDots(whole.substring(0, end)) + whole.substring(end));
    }

    /** Steps up and steps on the spot are taken; nothing is above the first folder. */
    private static String withoutDots(String path) {
        Deque<String> folders = new ArrayDeque<>();
        String[] steps = path.split("/", -1);
        for (int i = 1; i < steps.length; i++) {
            boolean last = i == steps.length - 1;
            if (steps[i].equals("..")) folders.pollLast();
            else if (!steps[i].equals(".")) folders.addLast(steps[i]);
            if (last && (steps[i].equals("..") || steps[i].equals("."))) folders.addLast("");
        }
        return "/" + String.join("/", folders);
    }

    private static boolean isAddress(String text) {
        try {
            return text.equals(new URI(text).toString());
        } catch (URISyntaxException e) {
            return false;
        }
    }

    private static String host(String name) {
        if (name.startsWith("[")) return name.toLowerCase(Locale.ROOT);
        try {
            String plain = IDN.toASCII(name.strip(), IDN.ALLOW_UNASSIGNED).toLowerCase(Locale.ROOT);
            return plain.matches("[a-z0-9_]([a-z0-9._-]{0,252})") && !plain.contains("..") ? plain : "";
        } catch (IllegalArgumentException e) {
            return "";
        }
    }

    private static String encoded(String rest) {
        StringBuilder out = new StringBuilder();
        rest.codePoints().forEach(sign -> {
            boolean plain = sign < 128 && (Character.isLetterOrDigit(sign) || PLAIN.indexOf(sign) >= 0);
            if (plain || sign == '#' && out.indexOf("#") < 0) out.appendCodePoint(sign);
            else
                for (byte b : Character.toString(sign).getBytes(StandardCharsets.UTF_8))
                    out.append(String.format("%%%02X", b));
        });
        return out.toString().replaceAll("%(?![0-9a-fA-F]{2})", "%25");
    }
}

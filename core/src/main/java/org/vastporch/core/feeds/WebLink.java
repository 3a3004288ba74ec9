package org.vastporch.core.feeds;

import java.net.IDN;
import java.net.URI;
import java.net.URISyntaxException;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** Addresses of pages, as feeds carry them and people paste them. What is none is no link. */
public final class WebLink {

    private static final Pattern WEB = Pattern.compile("(?i)(https?)://([^/?#\\\\]+)([^\\\\]*)", Pattern.DOTALL);
    private static final Pattern AUTHORITY = Pattern.compile("(\\[[0-9a-fA-F:.]+]|[^:@\\[\\]]+)(?::(\\d{1,5}))?");
    private static final String PLAIN = "-._~:/?@!$&'()*+,;=%";

    private WebLink() {}

    /**
     * An address of the web as it can be asked for: names of hosts in other scripts are written as the net writes them,
     * blanks and signs that no address has are encoded. Empty if it is none; names with a password in them are none.
     */
    public static String of(@Nullable String text) {
        if (text == null) return "";
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

package org.vastporch.core.feeds;

import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.text.Sayable;

/**
 * The bytes of a feed as text, whatever they are said to be. In this order: a byte order mark; what the document
 * declares; what the server says; what the bytes look like. What cannot be so is passed over, and what calls itself
 * Latin-1 is read as windows-1252, which has all of it and the quotation marks too.
 */
final class FeedBytes {

    /** @param untidy whether anything had to be passed over or taken out */
    record Text(String text, boolean untidy) {}

    private static final Charset WINDOWS = Charset.forName("windows-1252");
    private static final Pattern DECLARED = Pattern.compile(
            "^\\s*<\\?xml[^>]*?encoding\\s*=\\s*[\"']?\\s*([A-Za-z0-9._:-]+)", Pattern.CASE_INSENSITIVE);
    private static final Pattern IN_HEADER =
            Pattern.compile("charset\\s*=\\s*[\"']?\\s*([A-Za-z0-9._:-]+)", Pattern.CASE_INSENSITIVE);

    private FeedBytes() {}

    static Text read(byte[] body, String contentType) {
        Text text = decoded(body, contentType);
        String tidy = Sayable.of(text.text());
        return new Text(tidy, text.untidy() || tidy.length() != text.text().length());
    }

    private static Text decoded(byte[] body, String contentType) {
        Charset marked = marked(body);
        if (marked != null) {
            String text = new String(body, marked);
            return new Text(text.startsWith("\uFEFF") ? text.substring(1) : text, false);
        }
        String start = new String(body, 0, Math.min(body.length, 400), StandardCharsets.ISO_8859_1);
        Charset wide = wide(body);
        if (wide != null) return new Text(new String(body, wide), false);
        Charset declared = charset(DECLARED.matcher(start));
        Charset said = charset(IN_HEADER.matcher(contentType));
        for (Charset charset : new Charset[] {declared, said, StandardCharsets.UTF_8}) {
            if (charset == null) continue;
            boolean latin = charset.equals(WINDOWS);
            // Whoever says Latin-1 by habit and writes UTF-8 is found out: other bytes fall so by chance hardly ever.
            String utf = latin && hasHighBytes(body) ? strictly(body, StandardCharsets.UTF_8) : null;
            String text = utf != null ? utf : strictly(body, charset);
            if (text != null) return new Text(text, utf != null || declared != null && charset != declared);
        }
        return new Text(new String(body, WINDOWS), true);
    }

    private static @Nullable Charset marked(byte[] b) {
        if (begins(b, 0xEF, 0xBB, 0xBF)) return StandardCharsets.UTF_8;
        if (begins(b, 0xFF, 0xFE, 0, 0)) return Charset.forName("UTF-32LE");
        if (begins(b, 0, 0, 0xFE, 0xFF)) return Charset.forName("UTF-32BE");
        if (begins(b, 0xFF, 0xFE)) return StandardCharsets.UTF_16LE;
        if (begins(b, 0xFE, 0xFF)) return StandardCharsets.UTF_16BE;
        return null;
    }

    /** Letters of several bytes without a mark before them show it by the bytes of nothing in between. */
    private static @Nullable Charset wide(byte[] b) {
        if (begins(b, '<', 0, 0, 0)) return Charset.forName("UTF-32LE");
        if (begins(b, 0, 0, 0, '<')) return Charset.forName("UTF-32BE");
        if (begins(b, '<', 0)) return StandardCharsets.UTF_16LE;
        if (begins(b, 0, '<')) return StandardCharsets.UTF_16BE;
        return null;
    }

    private static boolean begins(byte[] b, int... signs) {
        if (b.length < signs.length) return false;
        for (int i = 0; i < signs.length; i++) if ((b[i] & 0xff) != signs[i]) return false;
        return true;
    }

    private static boolean hasHighBytes(byte[] body) {
        for (byte b : body) if (b < 0) return true;
        return false;
    }

    /**
     * Null for a name that is none, and for sets of letters that the bytes cannot be in, since they are read already.
     */
    private static @Nullable Charset charset(Matcher name) {
        if (!name.find()) return null;
        String said = name.group(1).toLowerCase(Locale.ROOT);
        if (said.matches("(iso-?8859-?1|latin-?1|us-?ascii|ascii|windows-?1252|cp-?1252|l1)")) return WINDOWS;
        if (said.matches("utf-?8")) return StandardCharsets.UTF_8;
        if (said.matches("(utf-?16|utf-?32|ucs|iso-10646).*")) return null;
        try {
            Charset charset = Charset.forName(said);
            return charset.canEncode() ? charset : null;
        } catch (IllegalArgumentException e) {
            return null;
        }
    }

    private static @Nullable String strictly(byte[] body, Charset charset) {
        if (charset.equals(WINDOWS)) return new String(body, WINDOWS);
        try {
            CharBuffer text = charset.newDecoder().decode(ByteBuffer.wrap(body));
            return text.toString();
        } catch (CharacterCodingException e) {
            return null;
        }
    }
}

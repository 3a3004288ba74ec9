package org.vastporch.server.print;

import java.awt.Color;
import java.awt.Font;
import java.awt.FontFormatException;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.font.FontRenderContext;
import java.awt.font.TextAttribute;
import java.awt.font.TextLayout;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.text.AttributedString;
import java.text.Bidi;
import java.util.Base64;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Stream;
import javax.imageio.ImageIO;
import org.jsoup.nodes.Entities;

/**
 * Names as their families write them, for print. The main font has the letters of Latin, Greek, Cyrillic; a text in any
 * other script is drawn, joined and in its own direction, and stands on the paper as a small picture with its words.
 */
public final class Lettering {

    static final String MAIN = "/org/apache/pdfbox/resources/ttf/LiberationSans-Regular.ttf";

    private static final List<String> OTHERS = Stream.concat(
                    Stream.of(
                                    "Arabic",
                                    "Hebrew",
                                    "Devanagari",
                                    "Bengali",
                                    "Gurmukhi",
                                    "Gujarati",
                                    "Tamil",
                                    "Telugu",
                                    "Kannada",
                                    "Malayalam",
                                    "Sinhala",
                                    "Thai",
                                    "Lao",
                                    "Khmer",
                                    "Myanmar",
                                    "Georgian",
                                    "Armenian",
                                    "Ethiopic")
                            .map(script -> "/fonts/NotoSans" + script + "-Regular.ttf"),
                    Stream.of("/fonts/DroidSansFallbackFull.ttf", "/fonts/NanumGothic-Regular.ttf"))
            .toList();

    /** Pixels to a point: 432 dots an inch, so that no printer shows them. */
    private static final float SHARPNESS = 6;

    private static final Color INK = new Color(0x22303a);
    private static final ConcurrentHashMap<String, Font> READ = new ConcurrentHashMap<>();

    private Lettering() {}

    /**
     * A text as HTML for print.
     *
     * @param points the height of the letters
     * @return the escaped text, or a picture of it where the main font lacks a letter or it runs from right to left;
     *     empty if no font has all of them
     */
    public static String html(String text, float points) {
        if (font(MAIN).canDisplayUpTo(text) < 0 && !Bidi.requiresBidi(text.toCharArray(), 0, text.length()))
            return Entities.escape(text);
        AttributedString letters = new AttributedString(text);
        for (int i = 0; i < text.length(); ) {
            int next = i + Character.charCount(text.codePointAt(i));
            Font font = fontFor(text.codePointAt(i));
            if (font == null) return "";
            letters.addAttribute(TextAttribute.FONT, font.deriveFont(points * SHARPNESS), i, next);
            i = next;
        }
        return picture(new TextLayout(letters.getIterator(), new FontRenderContext(null, true, true)), text);
    }

    private static Font fontFor(int letter) {
        if (font(MAIN).canDisplay(letter)) return font(MAIN);
        return OTHERS.stream()
                .map(Lettering::font)
                .filter(font -> font.canDisplay(letter))
                .findFirst()
                .orElse(null);
    }

    private static String picture(TextLayout layout, String text) {
        int width = (int) Math.ceil(layout.getAdvance()) + 2;
        int height = (int) Math.ceil(layout.getAscent() + layout.getDescent());
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_ARGB);
        Graphics2D pen = image.createGraphics();
        pen.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        pen.setColor(INK);
        layout.draw(pen, 1, layout.getAscent());
        pen.dispose();
        return String.format(
                Locale.ROOT,
                "<img alt='%s' style='height:%.1fpt;vertical-align:middle' src='data:image/png;base64,%s'/>",
                Entities.escape(text).replace("'", "&#39;"),
                height / SHARPNESS,
                png(image));
    }

    private static String png(BufferedImage image) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            ImageIO.write(image, "png", out);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return Base64.getEncoder().encodeToString(out.toByteArray());
    }

    private static Font font(String file) {
        return READ.computeIfAbsent(file, name -> {
            try (InputStream in = Lettering.class.getResourceAsStream(name)) {
                return Font.createFont(Font.TRUETYPE_FONT, Objects.requireNonNull(in, name));
            } catch (IOException | FontFormatException e) {
                throw new IllegalStateException("The font " + name + " cannot be read", e);
            }
        });
    }
}

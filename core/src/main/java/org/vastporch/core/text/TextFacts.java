package org.vastporch.core.text;

import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;
import org.jsoup.nodes.Node;
import org.jsoup.nodes.TextNode;

/**
 * What can be counted in a clean text.
 *
 * @param plain the text alone, one line break between blocks, captions among it
 * @param lead the text without figures, for first lines
 * @param alts the alternative texts of the pictures
 * @param words number of words: letters and digits of any script, apostrophes and hyphens inside
 * @param links number of links to other places, files kept here and cards not among them
 * @param pictures number of pictures
 * @param described how many of them have an alternative text
 * @param sounds number of sounds that can be played
 * @param videos number of videos, those that are kept elsewhere among them
 * @param firstPicture address of the first one; empty for none
 * @param media addresses of all pictures, sounds, videos and files, without doubles
 * @param addresses addresses outside to which links and cards lead, without doubles
 */
public record TextFacts(
        String plain,
        String lead,
        List<String> alts,
        int words,
        int links,
        int pictures,
        int described,
        int sounds,
        int videos,
        String firstPicture,
        List<String> headings,
        List<String> media,
        List<String> addresses) {

    /** A letter or digit that goes on no word: neither after another nor after one with an apostrophe or hyphen. */
    private static final Pattern WORD =
            Pattern.compile("(?<![\\p{L}\\p{N}\\p{M}]|[\\p{L}\\p{N}\\p{M}]['’\\-‐‑])[\\p{L}\\p{N}\\p{M}]");

    /** Reads clean HTML, as {@link Sanitiser} gives it. */
    public static TextFacts of(String html) {
        Document page = Jsoup.parseBodyFragment(html);
        String plain = plain(page);
        List<Element> pictures = page.select("img");
        List<String> media = page.select("img, figure[data-kind] a[href]").stream()
                .map(e -> e.hasAttr("src") ? e.attr("src") : e.attr("href"))
                .distinct()
                .toList();
        List<String> alts = pictures.stream()
                .map(img -> img.attr("alt"))
                .filter(alt -> !alt.isBlank())
                .toList();
        int links = page.select("a[href]:not(figure[data-kind] > a)").size();
        List<String> headings = page.select("h2, h3").eachText();
        List<String> addresses = page.select("a[href]").eachAttr("href").stream()
                .filter(href -> !href.startsWith("/"))
                .distinct()
                .toList();
        int sounds = page.select("figure[data-kind=sound]").size();
        int videos =
                page.select("figure[data-kind=video], figure[data-kind=card]").size();
        String firstPicture = pictures.isEmpty() ? "" : pictures.get(0).attr("src");
        // The name of a file is no word of its author's.
        page.select("figure[data-kind] > a").remove();
        int words = countWords(plain(page));
        page.select("figure").remove();
        return new TextFacts(
                plain,
                plain(page),
                alts,
                words,
                links,
                pictures.size(),
                alts.size(),
                sounds,
                videos,
                firstPicture,
                headings,
                media,
                addresses);
    }

    /** Counts the words of a plain text. */
    public static int countWords(String plain) {
        Matcher matcher = WORD.matcher(plain);
        int count = 0;
        while (matcher.find()) count++;
        return count;
    }

    /** The first lines: at most so many characters, cut between words, with … if something follows. */
    public String firstLines(int most) {
        String line = lead.replaceAll("\\s+", " ").strip();
        if (line.length() <= most) return line;
        int space = line.lastIndexOf(' ', most - 1);
        return line.substring(0, space > most / 2 ? space : most - 1).replaceFirst("[\\s,.;:–-]+$", "") + "…";
    }

    private static String plain(Document page) {
        StringBuilder text = new StringBuilder();
        page.body().traverse((node, depth) -> {
            if (node instanceof TextNode words) text.append(words.getWholeText());
            else if (isBreak(node) && text.length() > 0 && text.charAt(text.length() - 1) != '\n') text.append('\n');
        });
        return text.toString().replace('\u00a0', ' ').strip();
    }

    private static boolean isBreak(Node node) {
        return node instanceof Element element && (element.isBlock() || element.nameIs("br"));
    }
}

package org.vastporch.core.text;

import java.util.Locale;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;
import org.jsoup.nodes.Entities;
import org.jsoup.safety.Cleaner;
import org.jsoup.safety.Safelist;
import org.jsoup.select.Elements;

/**
 * The one sanitiser: what may stand in a post or comment. Used on the way in and again on the way out. Pictures come
 * only from our own media, so that no reader's browser ever calls another server; a picture from elsewhere becomes a
 * link to it.
 */
public final class Sanitiser {

    /** Deeper nesting than this is flattened: nobody writes so, but hostile feeds do. */
    private static final int DEEPEST = 60;

    private static final int MOST_ROUNDS = 8;
    private static final int UNREASONABLE = 400;
    /**
     * More tags than this, and more open ones above them all together, is nothing that a person wrote: the work on a
     * page grows faster than they do.
     */
    private static final int MOST_TAGS = 20_000;

    private static final int MOST_ABOVE = 400_000;
    private static final Pattern TAG = Pattern.compile("<(/?)([a-zA-Z][a-zA-Z0-9]*)[^<>]*>?|<[^<>]{0,2000}>");
    /** Tags that people leave open. */
    private static final Set<String> UNCLOSED = Set.of(
            "p", "li", "br", "img", "hr", "td", "tr", "th", "dt", "dd", "option", "input", "meta", "link", "source",
            "wbr", "col");

    private static final Pattern FILE = Pattern.compile("/media/files/([0-9a-f-]{36})(/[^/?#]*)?");
    /**
     * What a figure without a picture can be: a sound, a video or a document kept here, or a card that leads to a video
     * elsewhere.
     */
    private static final Set<String> KINDS = Set.of("sound", "video", "document", "card");

    private static final Set<String> SIDES = Set.of("center", "right");
    private static final Set<String> WIDTHS = Set.of("third", "half", "full");
    private static final Document.OutputSettings COMPACT = new Document.OutputSettings().prettyPrint(false);

    private static final Safelist POST = new Safelist()
            .addTags(
                    "p",
                    "h2",
                    "h3",
                    "ul",
                    "ol",
                    "li",
                    "blockquote",
                    "a",
                    "strong",
                    "em",
                    "u",
                    "s",
                    "br",
                    "hr",
                    "pre",
                    "code",
                    "figure",
                    "figcaption",
                    "img")
            .addAttributes("a", "href", "data-file")
            .addAttributes("figure", "data-kind")
            .addAttributes("p", "data-align")
            .addAttributes("h2", "data-align")
            .addAttributes("h3", "data-align")
            .addAttributes("img", "src", "alt", "data-width")
            .addProtocols("a", "href", "http", "https", "mailto");

    private static final Safelist COMMENT = new Safelist()
            .addTags("p", "a", "strong", "em", "br", "blockquote")
            .addAttributes("a", "href")
            .addProtocols("a", "href", "http", "https");

    private Sanitiser() {}

    /** The clean HTML of a post. Never null; empty if nothing allowed was left. */
    public static String post(String html) {
        return clean(html, POST, true);
    }

    /** The clean HTML of a comment. */
    public static String comment(String html) {
        return clean(html, COMMENT, false);
    }

    /** Plain text as the HTML of a comment: blank lines part paragraphs. */
    public static String commentFromPlain(String text) {
        StringBuilder html = new StringBuilder();
        for (String paragraph : text.strip().split("\\R\\s*\\R"))
            html.append("<p>")
                    .append(Entities.escape(paragraph.strip()).replaceAll("\\R", "<br>"))
                    .append("</p>");
        return comment(html.toString());
    }

    /**
     * Cleans until nothing changes any more: what a browser makes of broken nesting is then what was looked at here.
     */
    private static String clean(String html, Safelist allowed, boolean pictures) {
        String before =
                isUnreasonable(html) ? "<p>" + Entities.escape(TAG.matcher(html).replaceAll(" ")) + "</p>" : html;
        for (int round = 0; round < MOST_ROUNDS; round++) {
            String after = cleanOnce(before, allowed, pictures);
            if (after.equals(before)) return after;
            before = after;
        }
        return Entities.escape(Jsoup.parseBodyFragment(before).text());
    }

    /**
     * Tells whether tags are more, or nested deeper, than anybody writes, by counting alone: parsing such a text could
     * take minutes.
     */
    private static boolean isUnreasonable(String html) {
        int depth = 0;
        int above = 0;
        int tags = 0;
        Matcher tag = TAG.matcher(html);
        while (tag.find()) {
            above += depth;
            if (++tags > MOST_TAGS || above > MOST_ABOVE) return true;
            if (tag.group(2) == null || UNCLOSED.contains(tag.group(2).toLowerCase(Locale.ROOT))) continue;
            depth = tag.group(1).isEmpty() ? depth + 1 : Math.max(0, depth - 1);
            if (depth > UNREASONABLE) return true;
        }
        return false;
    }

    private static String cleanOnce(String html, Safelist allowed, boolean pictures) {
        Document dirty = Jsoup.parseBodyFragment(Sayable.of(html));
        dirty.select("script, style, template, noscript, iframe, object, embed, svg, math, head, title")
                .remove();
        flatten(dirty.body());
        rename(dirty);
        if (pictures) keepOwn(dirty);
        Document clean = new Cleaner(allowed).clean(dirty);
        clean.outputSettings(COMPACT);
        for (Element link : clean.select("a")) {
            if (link.hasAttr("data-file"))
                link.attr("href", "/media/files/" + link.attr("data-file")).removeAttr("data-file");
            else if (link.hasAttr("href")) link.attr("rel", "noopener nofollow ugc");
            else link.unwrap();
        }
        for (Elements empty = empties(clean); !empty.isEmpty(); empty = empties(clean)) empty.remove();
        return clean.body().html().strip();
    }

    private static Elements empties(Document page) {
        return page.select("p:empty, strong:empty, em:empty, u:empty, s:empty, li:empty, ul:empty, ol:empty, "
                + "h2:empty, h3:empty, blockquote:empty, figure:empty, a:empty");
    }

    /** Word processors and web pages say the same things with other tags. */
    private static void rename(Document page) {
        page.select("b").tagName("strong");
        page.select("i").tagName("em");
        page.select("h1").tagName("h2");
        page.select("h4, h5, h6").tagName("h3");
        page.select("del, strike").tagName("s");
        for (Element div : page.select("div, section, article")) if (isTextOnly(div)) div.tagName("p");
    }

    private static boolean isTextOnly(Element div) {
        return !div.ownText().isBlank()
                && div.select("> p, > div, > ul, > ol, > blockquote, > figure, > h2, > h3, > pre")
                        .isEmpty();
    }

    /** Links to files kept here get through the cleaner by their number alone; the address is made anew from it. */
    private static void keepOwn(Document page) {
        for (Element link : page.select("a")) {
            link.removeAttr("data-file");
            Matcher file = FILE.matcher(link.attr("href"));
            if (file.matches()) link.attr("data-file", file.group(1)).removeAttr("href");
        }
        for (Element figure : page.select("figure"))
            if (!KINDS.contains(figure.attr("data-kind"))) figure.removeAttr("data-kind");
        for (Element aligned : page.select("[data-align]"))
            if (!SIDES.contains(aligned.attr("data-align"))) aligned.removeAttr("data-align");
        keepOwnPictures(page);
    }

    private static void keepOwnPictures(Document page) {
        for (Element img : page.select("img")) {
            String src = img.attr("src");
            if (src.matches("/media/[0-9a-f-]{8,64}")) {
                if (!WIDTHS.contains(img.attr("data-width"))) img.removeAttr("data-width");
            } else if (isTracking(img) || !src.matches("(?i)https?://.*")) {
                img.remove();
            } else {
                String words = img.attr("alt").isBlank()
                        ? "A picture kept elsewhere"
                        : "A picture kept elsewhere: " + img.attr("alt").strip();
                img.replaceWith(new Element("a").attr("href", src).text(words));
            }
        }
    }

    private static boolean isTracking(Element img) {
        return img.attr("width").matches("[0-3](px)?") || img.attr("height").matches("[0-3](px)?");
    }

    private static void flatten(Element body) {
        for (Element deep : body.select("*")) {
            int depth = 0;
            for (Element up = deep.parent(); up != null && depth <= DEEPEST; up = up.parent()) depth++;
            if (depth > DEEPEST && deep.parent() != null) deep.unwrap();
        }
    }
}

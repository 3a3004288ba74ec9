package org.vastporch.core.feeds;

import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.Base64;
import java.util.Deque;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Attribute;
import org.jsoup.nodes.DataNode;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;
import org.jsoup.nodes.Entities;
import org.jsoup.nodes.Node;
import org.jsoup.nodes.TextNode;
import org.jsoup.parser.Tag;
import org.jsoup.select.NodeTraversor;
import org.jsoup.select.NodeVisitor;
import org.jspecify.annotations.Nullable;

/**
 * The texts in a feed: plain, as mark-up in the tree, as mark-up that was made plain once more (escaped), or packed; in
 * RSS nobody says which, in Atom people say it wrongly.
 */
final class FeedText {

    /** What a text that is mark-up has in it, and one about mark-up mostly has not. */
    private static final Pattern MARKED_UP = Pattern.compile(
            "</?(p|br|b|i|em|strong|a|div|span|ul|ol|li|h[1-6]|img|blockquote|code|pre|table|td|tr|sub|sup|font|u|s|small"
                    + "|hr|script|style|iframe|figure|cite|q|tt|center|abbr|del|ins)(\\s[^<>]*)?/?>"
                    + "|&(#\\d{2,6}|#x[0-9a-fA-F]{2,6}|[a-zA-Z]{2,8});",
            Pattern.CASE_INSENSITIVE);

    private static final Set<String> ADDRESSES = Set.of("href", "src", "cite", "poster");

    /** What is to be a line is looked at no further. */
    private static final int LONGEST_LINE = 20_000;

    private FeedText() {}

    /** A text of one line without mark-up, such as a title. */
    static String plain(@Nullable Element element, int most) {
        return element == null ? "" : plain(html(element, false, ""), most);
    }

    /** The words of some HTML, in one line. */
    static String plain(String whole, int most) {
        String html = whole.length() > LONGEST_LINE ? whole.substring(0, LONGEST_LINE) : whole;
        String text = MARKED_UP.matcher(html).find() || html.contains("<!")
                ? Jsoup.parseBodyFragment(html).text()
                : Entities.unescape(html);
        String line = text.replaceAll("[\\s\u00a0]+", " ").strip();
        if (line.length() <= most) return line;
        int end = Character.isHighSurrogate(line.charAt(most - 2)) ? most - 2 : most - 1;
        return line.substring(0, end) + "…";
    }

    /**
     * What an element says, as HTML that is not cleaned yet.
     *
     * @param paragraphs whether plain text becomes a paragraph
     * @param base by which its links are completed; empty to leave them
     */
    static String html(Element element, boolean paragraphs, String base) {
        String type = element.attr("type").strip().toLowerCase(Locale.ROOT).replaceFirst("\\s*;.*", "");
        String mode = element.attr("mode").strip().toLowerCase(Locale.ROOT);
        if (hasMarkup(element)) return completed(markup(element), base);
        String text = element.wholeText();
        boolean atom = FeedTree.name(element).startsWith("atom:");
        if (mode.equals("base64") || atom && isPacked(type)) {
            String unpacked = unpacked(text);
            if (unpacked == null) return "";
            text = unpacked;
        }
        boolean saidPlain = type.equals("text") || type.equals("text/plain") || atom && type.isEmpty();
        if (saidPlain && !MARKED_UP.matcher(text).find()) {
            String escaped = Entities.escape(text.strip());
            return paragraphs && !escaped.isEmpty()
                    ? "<p>" + escaped.replaceAll("\\R\\s*\\R", "</p><p>") + "</p>"
                    : escaped;
        }
        return completed(text, base);
    }

    private static boolean hasMarkup(Element element) {
        return element.childrenSize() > 0;
    }

    /** Other kinds of things than text are packed (RFC 4287, 4.1.3.3). */
    private static boolean isPacked(String type) {
        return type.contains("/") && !type.startsWith("text/") && !type.endsWith("xml") && !type.contains("html");
    }

    private static @Nullable String unpacked(String text) {
        try {
            String plain = new String(Base64.getMimeDecoder().decode(text.strip()), StandardCharsets.UTF_8);
            return plain.indexOf('\uFFFD') >= 0 ? null : plain;
        } catch (IllegalArgumentException e) {
            return null;
        }
    }

    /** Mark-up in the tree as HTML: in XML any element may be empty, and names may have prefixes. */
    private static String markup(Element element) {
        Document page = Document.createShell("");
        page.outputSettings().prettyPrint(false);
        Deque<Element> open = new ArrayDeque<>();
        open.push(page.body());
        NodeTraversor.traverse(
                new NodeVisitor() {
                    @Override
                    public void head(Node node, int depth) {
                        if (node == element) return;
                        if (node instanceof TextNode text) open.peek().appendChild(new TextNode(text.getWholeText()));
                        if (node instanceof DataNode data) open.peek().appendChild(new TextNode(data.getWholeData()));
                        if (node instanceof Element child) {
                            Element made = new Element(tag(child), "");
                            for (Attribute attribute : child.attributes())
                                if (!attribute.getKey().startsWith("xmlns"))
                                    made.attr(attribute.getKey(), attribute.getValue());
                            for (String name : ADDRESSES)
                                if (made.hasAttr(name)) {
                                    String base = FeedTree.base(child, "");
                                    if (!base.isEmpty()) made.attr(name, WebLink.of(made.attr(name), base));
                                }
                            open.peek().appendChild(made);
                            open.push(made);
                        }
                    }

                    @Override
                    public void tail(Node node, int depth) {
                        if (node instanceof Element && node != element) open.pop();
                    }
                },
                element);
        Element body = page.body();
        boolean wrapped = body.childNodes().stream()
                        .filter(n -> !(n instanceof TextNode text && text.isBlank()))
                        .count()
                == 1;
        Element only = wrapped ? body.firstElementChild() : null;
        return only != null && only.tagName().equals("div") ? only.html() : body.html();
    }

    private static Tag tag(Element element) {
        String name = element.tag().localName().toLowerCase(Locale.ROOT);
        // "x:" is a name with nothing behind its prefix.
        return Tag.valueOf(name.isBlank() ? "span" : name);
    }

    /** Links and pictures that leave out where they are get it; what is a whole address stays as it is. */
    static String completed(String html, String base) {
        if (base.isEmpty() || !html.contains("=")) return html;
        Document page = Jsoup.parseBodyFragment(html);
        page.outputSettings().prettyPrint(false);
        boolean changed = false;
        for (String name : ADDRESSES)
            for (Element element : page.body().select("[" + name + "]")) {
                String said = element.attr(name).strip();
                if (said.isEmpty() || said.matches("(?i)[a-z][a-z0-9+.-]*:.*")) continue;
                element.attr(name, WebLink.of(said, base));
                changed = true;
            }
        return changed ? page.body().html() : html;
    }
}

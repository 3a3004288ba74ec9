package org.vastporch.core.sameness;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;
import org.jsoup.nodes.Node;
import org.jsoup.nodes.TextNode;
import org.jsoup.select.NodeVisitor;

/**
 * A text that is compared with others.
 *
 * @param id by its number
 * @param plain its words, a line for each paragraph
 * @param quoted what its author shows as somebody else's words: not compared
 */
public record Answer(long id, String plain, List<Span> quoted) {

    /** A stretch of a plain text. */
    public record Span(int start, int end) {}

    private static final Set<String> QUOTES = Set.of("blockquote", "q");
    /** Words between quotation marks within one paragraph; longer than that nobody quotes inside a sentence. */
    private static final Pattern IN_MARKS =
            Pattern.compile("“[^”\\n]{1,400}”|„[^“”\\n]{1,400}[“”]|«[^»\\n]{1,400}»|\"[^\"\\n]{1,400}\"");

    public Answer {
        quoted = List.copyOf(quoted);
    }

    /** @param html clean, as it is kept */
    public static Answer of(long id, String html) {
        Document page = Jsoup.parseBodyFragment(html);
        // The name of a file is no word of its author's.
        page.select("figure[data-kind] > a").remove();
        Reading reading = new Reading();
        page.body().traverse(reading);
        String plain = reading.text.toString();
        List<Span> quoted = new ArrayList<>(reading.quoted);
        Matcher marks = IN_MARKS.matcher(plain);
        while (marks.find()) quoted.add(new Span(marks.start(), marks.end()));
        return new Answer(id, plain, quoted);
    }

    /** The plain text, and where quotations stand in it. */
    private static final class Reading implements NodeVisitor {

        private final StringBuilder text = new StringBuilder();
        private final List<Span> quoted = new ArrayList<>();
        private int within;
        private int from;

        @Override
        public void head(Node node, int depth) {
            if (node instanceof TextNode words) text.append(words.getWholeText().replace('\u00a0', ' '));
            if (!(node instanceof Element element)) return;
            if (element.isBlock() || element.nameIs("br")) breakLine();
            if (QUOTES.contains(element.normalName()) && within++ == 0) from = text.length();
        }

        @Override
        public void tail(Node node, int depth) {
            if (!(node instanceof Element element)) return;
            if (QUOTES.contains(element.normalName()) && --within == 0) quoted.add(new Span(from, text.length()));
            if (element.isBlock()) breakLine();
        }

        private void breakLine() {
            if (text.length() > 0 && text.charAt(text.length() - 1) != '\n') text.append('\n');
        }
    }
}

package org.vastporch.core.margin;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;
import org.jsoup.nodes.TextNode;
import org.vastporch.core.Refusal;

/**
 * Words in a text that somebody proposes to change. They are found by themselves, not by a place: the text may have
 * been written on since.
 *
 * @param quote the words as they stand in the text, within one paragraph
 * @param nth which occurrence of them, from 0
 * @param replacement what should stand there instead; empty to leave them out
 */
public record SuggestedChange(String quote, int nth, String replacement) {

    private static final int LONGEST = 2_000;

    public SuggestedChange {
        if (quote.isBlank())
            throw new Refusal("quote", "quote-missing", "Choose the words in the text that this is about.");
        if (quote.length() > LONGEST || replacement.length() > LONGEST)
            throw new Refusal(
                    "replacement", "change-too-long", "A change is about at most " + LONGEST + " characters.");
        if (nth < 0) throw new Refusal("nth", "number-range", "Occurrences are counted from 0, not " + nth);
    }

    private record Stretch(TextNode node, int start) {}

    /**
     * The clean HTML with the change made; bold, links and the like around the words stay.
     *
     * @return empty if the words do not stand there any more; if there are fewer of them than before, the last is meant
     */
    public Optional<String> in(String cleanHtml) {
        Document page = Jsoup.parseBodyFragment(cleanHtml);
        page.outputSettings(new Document.OutputSettings().prettyPrint(false));
        StringBuilder text = new StringBuilder();
        List<Stretch> stretches = new ArrayList<>();
        page.body().traverse((node, depth) -> {
            if (node instanceof TextNode words) {
                stretches.add(new Stretch(words, text.length()));
                text.append(words.getWholeText());
            } else if (node instanceof Element element && element.isBlock()) {
                text.append('\n');
            }
        });
        int at = place(text.toString());
        if (at < 0) return Optional.empty();
        int end = at + quote.length();
        boolean first = true;
        for (Stretch stretch : stretches) {
            String words = stretch.node().getWholeText();
            int from = Math.max(at, stretch.start()) - stretch.start();
            int to = Math.min(end, stretch.start() + words.length()) - stretch.start();
            if (from >= to) continue;
            stretch.node().text(words.substring(0, from) + (first ? replacement : "") + words.substring(to));
            first = false;
        }
        return Optional.of(page.body().html());
    }

    private int place(String text) {
        int at = text.indexOf(quote);
        for (int i = 0; i < nth && at >= 0; i++) {
            int next = text.indexOf(quote, at + quote.length());
            if (next < 0) return at;
            at = next;
        }
        return at;
    }
}

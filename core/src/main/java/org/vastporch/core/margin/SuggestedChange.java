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

    public SuggestedChange {
        new Passage(quote, nth);
        if (replacement.length() > Passage.LONGEST)
            throw new Refusal(
                    "replacement", "change-too-long", "A change has at most " + Passage.LONGEST + " characters.");
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
        int at = new Passage(quote, nth).place(text.toString());
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
}

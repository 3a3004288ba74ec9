package org.vastporch.core.margin;

import org.jsoup.Jsoup;
import org.jsoup.nodes.Element;
import org.jsoup.nodes.TextNode;
import org.vastporch.core.Refusal;

/**
 * Words in a text that somebody writes beside. They are found by themselves, not by a place: the text may have been
 * written on since.
 *
 * @param quote the words as they stand in the text, within one paragraph
 * @param nth which occurrence of them, from 0; if there are fewer by now, the last is meant
 */
public record Passage(String quote, int nth) {

    static final int LONGEST = 2_000;

    public Passage {
        if (quote.isBlank())
            throw new Refusal("quote", "quote-missing", "Choose the words in the text that this is about.");
        if (quote.length() > LONGEST)
            throw new Refusal(
                    "quote", "quote-too-long", "Choose fewer words: at most " + LONGEST + " characters are taken.");
        if (nth < 0) throw new Refusal("nth", "number-range", "Occurrences are counted from 0, not " + nth);
    }

    /** Whether the words stand in a text of clean HTML, within one paragraph. */
    public boolean isIn(String cleanHtml) {
        StringBuilder text = new StringBuilder();
        Jsoup.parseBodyFragment(cleanHtml).body().traverse((node, depth) -> {
            if (node instanceof TextNode words) text.append(words.getWholeText());
            else if (node instanceof Element element && element.isBlock()) text.append('\n');
        });
        return place(text.toString()) >= 0;
    }

    /** Where the words begin in a plain text; -1 if they do not stand there. */
    int place(String text) {
        int at = text.indexOf(quote);
        for (int i = 0; i < nth && at >= 0; i++) {
            int next = text.indexOf(quote, at + quote.length());
            if (next < 0) return at;
            at = next;
        }
        return at;
    }
}

package org.vastporch.core.feeds;

import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;
import org.vastporch.core.feeds.EntryIdentity.Entry;
import org.vastporch.core.text.Folding;

/** What is known of an entry whose feed carries only the beginning of its text. */
public enum Excerpt {
    /** The rest could not be had: it is an excerpt and says so. */
    BEGINNING,
    /** The text is that of its own page. */
    COMPLETED;

    /** How a beginning looks. */
    public enum Look {
        /** It says that there is more, or there is no text at all. */
        SURE,
        /** It ends with three dots, as a whole text may too. */
        LIKELY,
        WHOLE
    }

    /** So many words of a beginning have to stand in the page, one after the other, for that to be its text. */
    private static final int ALIKE = 12;

    private static final int LONGEST_PROMISE = 5;
    private static final int LONGEST_END = 40;
    private static final Pattern CUT =
            Pattern.compile("(?:\\[\\s*(?:…|\\.{3,})\\s*\\]|\\(\\s*(?:…|\\.{3,})\\s*\\))\\s*$");
    private static final Pattern DOTS = Pattern.compile("(?:…|\\.{3,})\\s*$");
    private static final Pattern NO_WORD = Pattern.compile("[^\\p{L}\\p{N}]+");

    /**
     * How the text of an entry looks; an entry without a page of its own is whole, since there is no more to be had.
     */
    public static Look look(Entry entry) {
        if (entry.link() == null || entry.link().isBlank()) return Look.WHOLE;
        Document text = Jsoup.parseBodyFragment(entry.html());
        if (text.text().isBlank() && text.select("img, audio, video, iframe").isEmpty()) return Look.SURE;
        boolean promised = takePromise(text, entry.link());
        String end = end(text.text());
        if (promised || CUT.matcher(end).find()) return Look.SURE;
        return DOTS.matcher(end).find() ? Look.LIKELY : Look.WHOLE;
    }

    /** The last signs of a text: whatever stands before them says nothing, and would be searched again and again. */
    private static String end(String text) {
        return text.substring(Math.max(0, text.length() - LONGEST_END));
    }

    /** Takes away a last link of a few words that leads to the entry's own page; tells whether there was one. */
    private static boolean takePromise(Document text, String own) {
        Element last = text.select("a[href]").last();
        if (last == null || !EntryIdentity.cleanLink(last.attr("href")).equals(EntryIdentity.cleanLink(own)))
            return false;
        String said = last.text().strip();
        if (said.split("\\s+").length > LONGEST_PROMISE || !text.text().strip().endsWith(said)) return false;
        last.remove();
        return true;
    }

    /**
     * The whole text of an entry, if its page shows one that begins as the entry does and goes on. Where the entry says
     * that there is more, the page may have just as much: nothing is missing then but the promise.
     *
     * @param page the text of its page
     */
    public static Optional<String> whole(Entry entry, String page) {
        Document text = Jsoup.parseBodyFragment(entry.html());
        takePromise(text, entry.link() == null ? "" : entry.link());
        List<String> beginning = words(text.text());
        List<String> all = words(Jsoup.parseBodyFragment(page).text());
        List<String> first = beginning.subList(0, Math.min(ALIKE, beginning.size()));
        int least = !all.isEmpty() && look(entry) == Look.SURE ? beginning.size() : beginning.size() + 1;
        boolean goesOn = all.size() >= least && Collections.indexOfSubList(all, first) >= 0;
        return goesOn ? Optional.of(page) : Optional.empty();
    }

    private static List<String> words(String text) {
        return NO_WORD.splitAsStream(Folding.fold(text))
                .filter(w -> !w.isEmpty())
                .toList();
    }
}

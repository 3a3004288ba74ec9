package org.vastporch.core.text;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Element;
import org.vastporch.core.text.WordDiff.Change;
import org.vastporch.core.text.WordDiff.Stretch;

/**
 * What is different between two versions of a text, for somebody who decides about it: nothing that goes up with it is
 * left out.
 *
 * @param title the title by words; empty if it stayed the same
 * @param words the text by words
 * @param shown clean HTML of the pictures, files, cards and links that are new or say something else now, in the order
 *     of the text
 * @param gone how many of those that were there are there no more, or say something else now
 * @param besides tags and works that came or went
 */
public record Revision(List<Stretch> title, List<Stretch> words, String shown, int gone, List<Stretch> besides) {

    /**
     * A version as it is compared; its HTML is clean. {@code besides} are its tags and works, each as readers see it.
     */
    public record Side(String title, String html, List<String> besides) {}

    private static final String SHOWN = "figure, img, a[href]";

    /** Compares two versions. */
    public static Revision of(Side before, Side now) {
        Set<String> old = shown(before.html());
        Set<String> fresh = shown(now.html());
        List<Stretch> besides = new ArrayList<>();
        for (String each : before.besides())
            if (!now.besides().contains(each)) besides.add(new Stretch(Change.REMOVED, each));
        for (String each : now.besides())
            if (!before.besides().contains(each)) besides.add(new Stretch(Change.ADDED, each));
        return new Revision(
                before.title().equals(now.title()) ? List.of() : WordDiff.of(before.title(), now.title()),
                WordDiff.of(
                        TextFacts.of(before.html()).plain(),
                        TextFacts.of(now.html()).plain()),
                fresh.stream().filter(each -> !old.contains(each)).collect(Collectors.joining()),
                (int) old.stream().filter(each -> !fresh.contains(each)).count(),
                List.copyOf(besides));
    }

    /** Whether the two say and show the same. */
    public boolean isEmpty() {
        return title.isEmpty()
                && words.stream().allMatch(s -> s.change() == Change.SAME)
                && shown.isEmpty()
                && gone == 0
                && besides.isEmpty();
    }

    /** What is shown in a text besides its words; how wide a picture is makes no other of it. */
    private static Set<String> shown(String html) {
        Set<String> shown = new LinkedHashSet<>();
        for (Element each : Jsoup.parseBodyFragment(html).select(SHOWN)) {
            if (!each.nameIs("figure") && each.closest("figure") != null) continue;
            each.select("img").removeAttr("data-width");
            shown.add(each.nameIs("figure") ? each.outerHtml() : "<p>" + each.outerHtml() + "</p>");
        }
        return shown;
    }
}

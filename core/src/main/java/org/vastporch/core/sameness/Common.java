package org.vastporch.core.sameness;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;

/**
 * Words in a row of one text that more than a third of the texts share: a poem that all quote.
 *
 * @param text whose
 * @param words as they are compared, five at least
 * @param texts how many have the five of them that most have
 * @param start where they begin in its plain text, and {@code end} the character after them
 */
public record Common(long text, List<String> words, int texts, int start, int end) {

    /** Each only once, the longest first: what is said within a longer one is not said again. */
    public static List<Common> once(Collection<Common> all) {
        List<Common> longestFirst = all.stream()
                .sorted(Comparator.comparingInt((Common c) -> c.words().size())
                        .reversed()
                        .thenComparingLong(Common::text)
                        .thenComparingInt(Common::start))
                .toList();
        LinkedHashSet<List<String>> said = new LinkedHashSet<>();
        List<Common> once = new ArrayList<>();
        for (Common common : longestFirst) {
            if (said.contains(common.words())
                    || said.stream().anyMatch(s -> Collections.indexOfSubList(s, common.words()) >= 0)) continue;
            said.add(common.words());
            once.add(common);
        }
        return once;
    }
}

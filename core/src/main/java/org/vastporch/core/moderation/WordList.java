package org.vastporch.core.moderation;

import java.util.BitSet;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.vastporch.core.text.Searchable;

/** Finds the words of a list as whole words: in a text as it looks, simple letter swaps (0 for o, 1 for l or i) and spaced letters seen through. */
final class WordList {

    private static final Map<Character, String> SWAPS = Map.of(
        'o', "[o0]", 'l', "[l1|]", 'i', "[i1!|]", 'e', "[e3]", 'a', "[a4@]", 's', "[s5$]", 't', "[t7]");

    private WordList() {}

    static void find(Finds finds, List<String> words) {
        for (String word : words) {
            String wanted = Searchable.of(word.strip()).text();
            if (!wanted.isBlank()) finds.add(Hold.Rule.WORD, pattern(wanted), finds.text(), new BitSet(), m -> true);
        }
    }

    private static Pattern pattern(String word) {
        StringBuilder tight = new StringBuilder();
        StringBuilder spaced = new StringBuilder();
        for (char c : word.toCharArray()) {
            String one = SWAPS.getOrDefault(c, Pattern.quote(String.valueOf(c)));
            tight.append(one);
            if (spaced.length() > 0) spaced.append("[\\s.*_-]{1,2}");
            spaced.append(one);
        }
        return Pattern.compile("(?<![\\p{L}\\p{N}])(?:" + tight + (word.length() > 2 ? "|" + spaced : "") + ")(?![\\p{L}\\p{N}])");
    }
}

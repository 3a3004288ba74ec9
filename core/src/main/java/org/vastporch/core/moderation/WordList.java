package org.vastporch.core.moderation;

import java.util.BitSet;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.vastporch.core.text.Searchable;

/**
 * Finds the words of a list as whole words: in a text as it looks, simple letter swaps (0 for o, 1 for l or i) and
 * spaced letters seen through.
 */
final class WordList {

    private static final Map<Character, String> SWAPS =
            Map.of('o', "[o0]", 'l', "[l1|]", 'i', "[i1!|]", 'e', "[e3]", 'a', "[a4@]", 's', "[s5$]", 't', "[t7]");

    private static final String BETWEEN = ".*_-";

    private WordList() {}

    static void find(Finds finds, List<String> words) {
        String squeezed = squeezed(finds.text());
        for (String word : words) {
            String wanted = Searchable.of(word.strip()).text();
            // Nearly no word of a list stands in a text: to see that costs a hundredth of looking for it in all its
            // disguises.
            if (!wanted.isBlank() && squeezed.contains(squeezed(wanted)))
                finds.add(Hold.Rule.WORD, pattern(wanted), finds.text(), new BitSet(), m -> true);
        }
    }

    /**
     * The text without what may stand between letters, and with one sign for all that are swapped for each other:
     * whatever a pattern finds stands in it.
     */
    static String squeezed(String text) {
        StringBuilder squeezed = new StringBuilder(text.length());
        for (int i = 0; i < text.length(); i++) {
            char sign = text.charAt(i);
            if (BETWEEN.indexOf(sign) >= 0 || Character.isWhitespace(sign)) continue;
            squeezed.append(
                    switch (sign) {
                        case '0' -> 'o';
                        case '1', '|', '!', 'l' -> 'i';
                        case '3' -> 'e';
                        case '4', '@' -> 'a';
                        case '5', '$' -> 's';
                        case '7' -> 't';
                        default -> sign;
                    });
        }
        return squeezed.toString();
    }

    static Pattern pattern(String word) {
        StringBuilder tight = new StringBuilder();
        StringBuilder spaced = new StringBuilder();
        for (char c : word.toCharArray()) {
            String one = SWAPS.getOrDefault(c, Pattern.quote(String.valueOf(c)));
            tight.append(one);
            if (spaced.length() > 0) spaced.append("[\\s" + BETWEEN + "]{1,2}");
            spaced.append(one);
        }
        return Pattern.compile(
                "(?<![\\p{L}\\p{N}])(?:" + tight + (word.length() > 2 ? "|" + spaced : "") + ")(?![\\p{L}\\p{N}])");
    }
}

package org.vastporch.core.sameness;

import java.lang.Character.UnicodeScript;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import org.vastporch.core.text.Searchable;

/**
 * The words of a text as they are compared. A word is letters and digits in a row, apostrophes and hyphens inside it
 * left out; in scripts that put no blanks between words every sign is one.
 *
 * @param folded in small letters, without accents
 * @param places where each stands in the text
 */
record Words(List<String> folded, List<Answer.Span> places) {

    private static final Set<UnicodeScript> WITHOUT_BLANKS = EnumSet.of(
            UnicodeScript.HAN,
            UnicodeScript.HIRAGANA,
            UnicodeScript.KATAKANA,
            UnicodeScript.THAI,
            UnicodeScript.LAO,
            UnicodeScript.KHMER,
            UnicodeScript.MYANMAR);

    private static final String INSIDE = "'’-‐‑";

    int size() {
        return folded.size();
    }

    static Words of(String plain) {
        Searchable text = Searchable.of(plain);
        String signs = text.text();
        List<String> folded = new ArrayList<>();
        List<Answer.Span> places = new ArrayList<>();
        StringBuilder word = new StringBuilder();
        int from = 0;
        for (int at = 0; at <= signs.length(); ) {
            int sign = at < signs.length() ? signs.codePointAt(at) : -1;
            boolean isAlone = sign >= 0 && WITHOUT_BLANKS.contains(UnicodeScript.of(sign));
            boolean goesOn = sign >= 0 && !isAlone && Character.isLetterOrDigit(sign);
            boolean isInside = sign >= 0 && word.length() > 0 && INSIDE.indexOf(sign) >= 0 && followsLetter(signs, at);
            if (goesOn) {
                if (word.length() == 0) from = at;
                word.appendCodePoint(sign);
            } else if (!isInside && word.length() > 0) {
                folded.add(word.toString());
                places.add(new Answer.Span(text.start(from), text.end(at)));
                word.setLength(0);
            }
            int next = at + (sign < 0 ? 1 : Character.charCount(sign));
            if (isAlone && Character.isLetterOrDigit(sign)) {
                folded.add(Character.toString(sign));
                places.add(new Answer.Span(text.start(at), text.end(next)));
            }
            at = next;
        }
        return new Words(folded, places);
    }

    private static boolean followsLetter(String signs, int at) {
        return at + 1 < signs.length() && Character.isLetterOrDigit(signs.codePointAt(at + 1));
    }
}

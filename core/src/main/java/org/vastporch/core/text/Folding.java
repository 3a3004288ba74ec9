package org.vastporch.core.text;

import java.text.Normalizer;

/**
 * Folds case and accents for comparing, one character for one: places found in the folded text are places in the
 * original.
 */
public final class Folding {

    private Folding() {}

    /** The text in lower case without accents, of exactly the same length. */
    public static String fold(String text) {
        StringBuilder folded = new StringBuilder(text.length());
        for (int i = 0; i < text.length(); i++) folded.append(fold(text.charAt(i)));
        return folded.toString();
    }

    private static char fold(char c) {
        if (c < 128) return Character.toLowerCase(c);
        switch (c) {
            case 'ł', 'Ł':
                return 'l';
            case 'ø', 'Ø':
                return 'o';
            case 'đ', 'Đ':
                return 'd';
            default:
        }
        if (Character.isSurrogate(c)) return c;
        char base = Normalizer.normalize(String.valueOf(c), Normalizer.Form.NFD).charAt(0);
        return Character.toLowerCase(base);
    }
}

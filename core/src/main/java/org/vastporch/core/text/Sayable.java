package org.vastporch.core.text;

/** Text that every format can say which a school gives out. */
public final class Sayable {

    private Sayable() {}

    /**
     * The text without the characters that XML 1.0 (second section) has no word for: halves of a character, most
     * control characters, U+FFFE and U+FFFF.
     */
    public static String of(String text) {
        if (text.codePoints().allMatch(Sayable::isSayable)) return text;
        StringBuilder left = new StringBuilder(text.length());
        text.codePoints().filter(Sayable::isSayable).forEach(left::appendCodePoint);
        return left.toString();
    }

    private static boolean isSayable(int sign) {
        return sign >= 0x20 && sign <= 0xD7FF
                || sign >= 0xE000 && sign <= 0xFFFD
                || sign >= 0x10000
                || sign == '\t'
                || sign == '\n'
                || sign == '\r';
    }
}

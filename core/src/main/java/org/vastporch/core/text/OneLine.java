package org.vastporch.core.text;

/** A name, a title or an address: text of one line, without signs that steer a screen or a mail. */
public final class OneLine {

    private OneLine() {}

    /**
     * The text on one line: ends of lines and tabs become blanks, control characters go, and there is no blank at an
     * end. Joiners that scripts and emoji need stay.
     */
    public static String of(String text) {
        StringBuilder line = new StringBuilder(text.length());
        Sayable.of(text).codePoints().forEach(sign -> {
            int type = Character.getType(sign);
            if (Character.isWhitespace(sign)
                    || type == Character.LINE_SEPARATOR
                    || type == Character.PARAGRAPH_SEPARATOR
                    || sign == 0x85) line.append(' ');
            else if (type != Character.CONTROL && !turns(sign)) line.appendCodePoint(sign);
        });
        return line.toString().strip();
    }

    /** Signs that turn the direction of what follows, so that it reads as something else. */
    private static boolean turns(int sign) {
        return sign >= 0x202A && sign <= 0x202E || sign >= 0x2066 && sign <= 0x2069;
    }
}

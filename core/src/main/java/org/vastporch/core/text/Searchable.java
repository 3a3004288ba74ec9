package org.vastporch.core.text;

import java.text.Normalizer;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;

/**
 * A text as it looks to a reader, made for searching: composed, full-width and fancy signs in their plain form, marks
 * off letters, signs that nobody sees left out, digits of all scripts as 0 to 9, dashes and quotes as on a keyboard,
 * and letters of other scripts that look Latin as Latin ones where they stand among such. Every character knows its
 * place in the text. Made in time linear in the length of the text.
 */
public final class Searchable {

    /**
     * Signs of other alphabets, and what they look like. Capitals and small letters each for themselves, since they
     * look like different ones in Greek.
     */
    private static final Map<Integer, Character> LOOKS = new HashMap<>();

    static {
        look("авекмнорстухѕіјԁԛԝһӏё", "abekmhopctyxsijdqwhle");
        look("АВЕКМНОРСТУХЅІЈԀԚԜҺӀЁ", "ABEKMHOPCTYXSIJDQWHIE");
        look("αβγειηκνορτυχω", "abyeinkvoptuxw");
        look("ΑΒΕΖΗΙΚΜΝΟΡΤΥΧ", "ABEZHIKMNOPTYX");
        look("օսհոցքզյ", "ouhngpqj");
    }

    /** Latin letters of another cut that no normal form makes plain. */
    private static final Map<Integer, Character> CUTS = new HashMap<>();

    static {
        cut("łøđħŧıȷɑɡɩʟɴʀᴀʙᴄᴅᴇꜰɢʜɪᴊᴋᴍᴏᴘꜱᴛᴜᴠᴡʏᴢ", "lodhtijagilnrabcdefghijkmopstuvwyz");
        cut("ŁØĐĦŦ", "LODHT");
        for (int i = 0; i < 26; i++)
            for (int row : new int[] {0x1F150, 0x1F170, 0x1F1E6}) CUTS.put(row + i, (char) ('A' + i));
    }

    /** A sign that makes more signs than this stays as it is; no letter does. */
    private static final int MOST_FROM_ONE = 4;

    private final String cased;
    private final String text;
    private final int[] places;
    private final int length;

    private Searchable(String cased, int[] places, int length) {
        this.cased = cased;
        this.text = lower(cased);
        this.places = places;
        this.length = length;
    }

    public static Searchable of(String original) {
        Making making = new Making(original.length());
        for (int at = 0; at < original.length(); ) {
            int sign = original.codePointAt(at);
            making.take(sign, at);
            at += Character.charCount(sign);
        }
        making.foldLookAlikes();
        return new Searchable(making.signs.toString(), making.places(), original.length());
    }

    /** In small letters. */
    public String text() {
        return text;
    }

    /** With capitals as they were; of the same length. */
    public String cased() {
        return cased;
    }

    /**
     * Where a stretch of the copy begins in the text.
     *
     * @param from the first character in the copy, 0-based
     */
    public int start(int from) {
        return from < places.length ? places[from] : length;
    }

    /**
     * Where a stretch of the copy ends in the text: after its last sign and what clings to that unseen.
     *
     * @param to the character after the last in the copy; more than 0
     */
    public int end(int to) {
        int next = to;
        while (next < places.length && places[next] == places[to - 1]) next++;
        return next < places.length ? places[next] : length;
    }

    private static String lower(String cased) {
        StringBuilder lower = new StringBuilder(cased.length());
        for (int i = 0; i < cased.length(); i++) lower.append(Character.toLowerCase(cased.charAt(i)));
        return lower.toString();
    }

    private static void look(String signs, String latin) {
        put(LOOKS, signs, latin);
    }

    private static void cut(String signs, String latin) {
        put(CUTS, signs, latin);
    }

    private static void put(Map<Integer, Character> into, String signs, String latin) {
        int[] all = signs.codePoints().toArray();
        for (int i = 0; i < all.length; i++) into.put(all[i], latin.charAt(i));
    }

    /** The copy while it is made. */
    private static final class Making {
        private final StringBuilder signs;
        private int[] places;
        private int latin;
        private int others;

        Making(int length) {
            signs = new StringBuilder(length);
            places = new int[length + 16];
        }

        void take(int sign, int at) {
            if (sign < 128) {
                if (sign >= ' ' || sign == '\n' || sign == '\t') add((char) sign, at);
                return;
            }
            Character cut = CUTS.get(sign);
            if (cut != null) {
                add(cut, at);
                return;
            }
            String plain = Normalizer.normalize(Character.toString(sign), Normalizer.Form.NFKD);
            if (plain.codePointCount(0, plain.length()) > MOST_FROM_ONE) plain = Character.toString(sign);
            plain.codePoints().forEach(part -> addPlain(part, at));
        }

        private void addPlain(int sign, int at) {
            if (isUnseen(sign)) return;
            Character cut = CUTS.get(sign);
            if (cut != null) {
                add(cut, at);
                return;
            }
            switch (Character.getType(sign)) {
                case Character.DECIMAL_DIGIT_NUMBER -> add((char) ('0' + Character.digit(sign, 10)), at);
                case Character.DASH_PUNCTUATION -> add('-', at);
                case Character.SPACE_SEPARATOR -> add(' ', at);
                case Character.LINE_SEPARATOR, Character.PARAGRAPH_SEPARATOR -> add('\n', at);
                default -> {
                    char plain =
                            switch (sign) {
                                case '’', '‘', 'ʼ', '´' -> '\'';
                                case '−' -> '-';
                                case '·', '•', '。', '．', '・' -> '.';
                                default -> 0;
                            };
                    if (plain != 0) add(plain, at);
                    else for (char part : Character.toChars(sign)) add(part, at);
                }
            }
        }

        /** Marks, and signs that take no room. */
        private static boolean isUnseen(int sign) {
            int type = Character.getType(sign);
            return type == Character.FORMAT
                    || type == Character.NON_SPACING_MARK
                    || type == Character.ENCLOSING_MARK
                    || type == Character.CONTROL
                    || sign == 0x115F
                    || sign == 0x1160
                    || sign == 0x3164
                    || sign == 0xFFA0;
        }

        private void add(char sign, int at) {
            if (signs.length() == places.length) places = Arrays.copyOf(places, places.length * 2);
            places[signs.length()] = at;
            signs.append(sign);
            if (isLatin(sign)) latin++;
            else if (Character.isLetter(sign)) others++;
        }

        int[] places() {
            return Arrays.copyOf(places, signs.length());
        }

        /**
         * Folds letters that look Latin in words that mix them with Latin ones, and in whole words of them where the
         * text is written in Latin letters.
         */
        void foldLookAlikes() {
            boolean mostlyLatin = latin >= others;
            for (int from = 0; from < signs.length(); ) {
                int to = from;
                boolean mixes = false;
                boolean allLook = true;
                while (to < signs.length() && Character.isLetterOrDigit(signs.charAt(to))) {
                    char sign = signs.charAt(to++);
                    if (isLatin(sign) || sign < 128) mixes |= isLatin(sign);
                    else allLook &= LOOKS.containsKey((int) sign);
                }
                if (mixes || allLook && mostlyLatin)
                    for (int i = from; i < to; i++) {
                        Character looks = LOOKS.get((int) signs.charAt(i));
                        if (looks != null) signs.setCharAt(i, looks);
                    }
                from = Math.max(to, from + 1);
            }
        }

        private static boolean isLatin(char sign) {
            return sign >= 'a' && sign <= 'z' || sign >= 'A' && sign <= 'Z';
        }
    }
}

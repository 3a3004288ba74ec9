package org.vastporch.core.text;

import java.util.regex.Pattern;

/** Words of people in a table that goes out, where a spreadsheet must not take them for a formula. */
public final class TableCell {

    /**
     * Blanks of any kind, signs of no width, marks of byte order, then what a formula begins with, full-width twins
     * included.
     */
    private static final Pattern FORMULA = Pattern.compile(
            "^[\\p{Z}\\p{Cntrl}\\p{Cf}\\s]*[=+\\-@\uFF1D\uFF0B\uFF0D\uFF20\u2212\uFE63\uFE62\uFE66\uFE6B].*",
            Pattern.DOTALL);
    /** A tab or a line end before the words is enough for some. */
    private static final Pattern LEADING_CONTROL = Pattern.compile("^[\\t\\r\\n].*", Pattern.DOTALL);

    private static final Pattern NUMBER = Pattern.compile("[+\\-\u2212]?\\d+([.,]\\d+)*\\s?%?");

    private TableCell() {}

    /**
     * The cell, with an apostrophe before it if it could be read as a formula. Plain text and numbers, negative ones
     * too, stay as they are.
     */
    public static String of(String words) {
        boolean formula = FORMULA.matcher(words).matches()
                || LEADING_CONTROL.matcher(words).matches();
        return formula && !NUMBER.matcher(words).matches() ? "'" + words : words;
    }

    /** What stood in a cell that was made safe for a spreadsheet, as it was before; any other cell as it is. */
    public static String back(String cell) {
        return cell.startsWith("'") && !of(cell.substring(1)).equals(cell.substring(1)) ? cell.substring(1) : cell;
    }
}

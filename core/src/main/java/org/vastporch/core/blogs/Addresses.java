package org.vastporch.core.blogs;

import java.util.function.Predicate;
import org.vastporch.core.text.Latin;

/** The short names by which blogs stand in an address: plain letters, digits and dashes. */
public final class Addresses {

    private static final int LONGEST = 60;

    private Addresses() {}

    /**
     * An address for a title, with a number if it was ever given before.
     *
     * @param isGiven tells whether an address belongs, or once belonged, to another blog of the class
     */
    public static String make(String title, Predicate<String> isGiven) {
        String base = tidy(title);
        if (base.isEmpty()) base = "blog";
        if (!isGiven.test(base)) return base;
        for (int number = 2; ; number++) if (!isGiven.test(base + "-" + number)) return base + "-" + number;
    }

    /** A text as an address: other letters written out, everything else a dash. Empty if nothing is left. */
    public static String tidy(String text) {
        StringBuilder out = new StringBuilder();
        for (String word : text.split("[^\\p{L}\\p{N}\\p{M}]+")) {
            String plain = Latin.of(word);
            if (!plain.isEmpty()) out.append(out.isEmpty() ? "" : "-").append(plain);
        }
        String address = out.length() > LONGEST ? out.substring(0, LONGEST) : out.toString();
        return address.endsWith("-") ? address.substring(0, address.length() - 1) : address;
    }
}

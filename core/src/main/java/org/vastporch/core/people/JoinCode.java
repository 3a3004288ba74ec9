package org.vastporch.core.people;

import java.time.Instant;
import java.util.Locale;
import java.util.random.RandomGenerator;
import org.jspecify.annotations.Nullable;

/**
 * A code by which people come into a class themselves.
 *
 * @param code  two groups of four letters and digits that are not mistaken for each other, such as "KRTM-4V7W"
 * @param until the first moment at which it no longer works; null for no end
 * @param left  how many may still come by it; null for no limit
 */
public record JoinCode(String code, @Nullable Instant until, @Nullable Integer left) {

    private static final String SIGNS = "BCDFGHJKMNPQRTVWXZ346789";
    private static final int HALF = 4;

    public JoinCode {
        if (left != null && left < 0) throw new IllegalArgumentException("The number of people who may come cannot be " + left);
    }

    /** A new code; more than 2^36 are possible. Give it a secure source of chance. */
    public static String make(RandomGenerator random) {
        StringBuilder code = new StringBuilder();
        for (int i = 0; i < 2 * HALF; i++) {
            if (i == HALF) code.append('-');
            code.append(SIGNS.charAt(random.nextInt(SIGNS.length())));
        }
        return code.toString();
    }

    /** A code as somebody typed it: small letters, blanks and a missing dash are forgiven. */
    public static String tidy(String typed) {
        String signs = typed.toUpperCase(Locale.ROOT).replaceAll("[^A-Z0-9]", "");
        return signs.length() <= HALF ? signs : signs.substring(0, HALF) + "-" + signs.substring(HALF);
    }

    /** Tells whether somebody may come by it at {@code now}. */
    public boolean isOpen(Instant now) {
        return (until == null || now.isBefore(until)) && (left == null || left > 0);
    }

    /** The same code after one more person came. */
    public JoinCode used() {
        return left == null ? this : new JoinCode(code, until, Math.max(0, left - 1));
    }
}

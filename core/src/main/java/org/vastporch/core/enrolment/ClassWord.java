package org.vastporch.core.enrolment;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Locale;
import java.util.random.RandomGenerator;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.people.FriendlyWords;

/**
 * Two short words by which students join a class by themselves.
 *
 * @param word the two, such as "candle meadow"
 * @param until the first moment at which it no longer works; null for no end
 * @param left how many may still come by it; null for no limit
 */
public record ClassWord(
        String word, @Nullable Instant until, @Nullable Integer left) {

    /** Longer than this nothing is that somebody could mean by it. */
    private static final int LONGEST = 60;

    public ClassWord {
        if (left != null && left < 0)
            throw new IllegalArgumentException("The number of people who may come cannot be " + left);
    }

    /** A new one; more than 2^20 are possible, so guessing has to be slowed down. Give it a secure source of chance. */
    public static String make(RandomGenerator random) {
        return FriendlyWords.make(2, random);
    }

    /**
     * A class word as somebody typed it: capitals, dashes, and a blank too many or too few are forgiven. Empty if it
     * cannot be one.
     */
    public static String tidy(String typed) {
        if (typed.length() > LONGEST) return "";
        String words = typed.toLowerCase(Locale.ROOT)
                .replaceAll("[^\\p{L}\\p{N}]+", " ")
                .strip();
        if (words.contains(" ")) return words;
        for (int i = 1; i < words.length(); i++)
            if (FriendlyWords.has(words.substring(0, i)) && FriendlyWords.has(words.substring(i)))
                return words.substring(0, i) + " " + words.substring(i);
        return words;
    }

    /** The moment at which it no longer works if it works up to the end of a day, on the clock of the class. */
    public static Instant endOf(LocalDate day, ZoneId zone) {
        return day.plusDays(1).atStartOfDay(zone).toInstant();
    }

    /** The last day on which it works, on the clock of the class; null for no end. */
    public @Nullable LocalDate lastDay(ZoneId zone) {
        return until == null ? null : until.minusNanos(1).atZone(zone).toLocalDate();
    }

    /** Tells whether somebody may come by it at {@code now}. */
    public boolean isOpen(Instant now) {
        return (until == null || now.isBefore(until)) && (left == null || left > 0);
    }

    /** The same word after one more person came. */
    public ClassWord used() {
        return left == null ? this : new ClassWord(word, until, Math.max(0, left - 1));
    }
}

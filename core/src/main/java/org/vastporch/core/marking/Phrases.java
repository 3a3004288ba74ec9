package org.vastporch.core.marking;

import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import org.vastporch.core.text.Folding;

/** What a marker has written before, and what of it is offered when they write again. */
public final class Phrases {

    /** Longer remarks are written for one student alone. */
    public static final int LONGEST = 500;
    /** So many of one marker are kept; those used least and longest ago go first. */
    public static final int MOST = 1_000;

    /**
     * @param criterion the name of the criterion about which it was written, folded; empty for the whole
     * @param level the level that was given with it last; empty for none
     */
    public record Phrase(long id, String criterion, String level, String text, int uses, Instant usedAt) {}

    private Phrases() {}

    /** Whether something is kept to be offered again. */
    public static boolean isKept(String text) {
        return !text.isBlank() && text.length() <= LONGEST;
    }

    /** A criterion as phrases know it: by its name, since the same one stands in many rubrics. */
    public static String about(String criterion) {
        return Folding.fold(criterion.strip());
    }

    /**
     * The phrases about a criterion: those written with the same level first, then the ones that are used most, then
     * the ones used last.
     *
     * @param criterion as {@link #about} gives it
     */
    public static List<Phrase> offered(List<Phrase> all, String criterion, String level, int most) {
        return all.stream()
                .filter(p -> p.criterion().equals(criterion))
                .sorted(Comparator.comparing((Phrase p) -> !p.level().equals(level))
                        .thenComparing(Comparator.comparingInt(Phrase::uses).reversed())
                        .thenComparing(Comparator.comparing(Phrase::usedAt).reversed())
                        .thenComparing(Phrase::id))
                .limit(most)
                .toList();
    }
}

package org.vastporch.core.writing;

import java.time.Duration;
import java.time.Instant;

/**
 * When a draft that is saved again and again begins a new version, so that an earlier one can be looked at and brought
 * back: every ten minutes of writing, and whenever a save would lose much of what was there.
 */
public final class Revisions {

    static final Duration STRETCH = Duration.ofMinutes(10);
    /** Fewer words than these are no loss worth a version of its own. */
    private static final int WORTH_KEEPING = 20;

    private Revisions() {}

    /**
     * Tells whether a save begins a new version instead of going on with the last one.
     *
     * @param begun when the last version was begun
     * @param wordsBefore words of the last version
     * @param wordsNow words of what is saved now
     */
    public static boolean beginsAnew(Instant begun, Instant now, int wordsBefore, int wordsNow) {
        if (wordsBefore == 0) return false;
        boolean loses = wordsBefore >= WORTH_KEEPING && wordsNow < wordsBefore / 2;
        return loses || !now.isBefore(begun.plus(STRETCH));
    }
}

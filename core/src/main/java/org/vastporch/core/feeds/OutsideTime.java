package org.vastporch.core.feeds;

import java.time.Duration;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * When a post from an outside blog counts as handed in: anybody can write any date into a feed, so the time that it
 * claims counts by itself only if it was seen here within a day; else a person decides.
 *
 * @param says the time that its feed claims
 * @param firstSeen when it was seen here first, not before {@code says}
 * @param set what a person decided; null if nobody did
 */
public record OutsideTime(
        Instant says, Instant firstSeen, @Nullable Counts set) {

    /** The two times that can count. */
    public enum Counts {
        SAYS,
        FIRST_SEEN
    }

    private static final Duration SOON = Duration.ofDays(1);

    /** Whether it was seen soon enough to be believed. */
    public boolean isSeenSoon() {
        return !firstSeen.isAfter(says.plus(SOON));
    }

    /** Which of the two counts now. What nobody has decided yet is not held against its author. */
    public Counts counts() {
        return set == null ? Counts.SAYS : set;
    }

    /** The time that counts now. */
    public Instant counted() {
        return counts() == Counts.SAYS ? says : firstSeen;
    }

    /**
     * Whether a person has to decide: not if it makes no difference.
     *
     * @param daysLateSays how many days late it is by the time that it says
     * @param daysLateSeen the same by the time when it was seen
     */
    public boolean isAsked(int daysLateSays, int daysLateSeen) {
        return set == null && !isSeenSoon() && daysLateSays != daysLateSeen;
    }
}

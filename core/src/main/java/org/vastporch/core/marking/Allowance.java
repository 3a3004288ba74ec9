package org.vastporch.core.marking;

import java.time.Duration;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * What one student is allowed for one prompt, unlike the others.
 *
 * @param due a date of the student's own, in place of the prompt's; null for the prompt's
 * @param letOff whether nothing is asked of the student
 * @param again whether the student may hand in again: what comes unasked after the time counts then in place of what
 *     was there, and as of its first time
 */
public record Allowance(@Nullable Instant due, boolean letOff, boolean again) {

    public static final Allowance NONE = new Allowance(null, false, false);

    /** Until when this student is on time. */
    public Deadline deadline(Instant due, Duration grace) {
        return new Deadline(this.due == null ? due : this.due, grace);
    }

    /**
     * Until when what is handed in again unasked counts by itself ({@link HandIns}).
     *
     * @param end the last moment that is on time
     */
    public Instant againUntil(Instant end) {
        return again ? Instant.MAX : end;
    }
}

package org.vastporch.core.marking;

import java.time.Duration;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * What one student is allowed for one prompt, unlike the others.
 *
 * @param due a date of the student's own, in place of the prompt's; null for the prompt's
 * @param letOff whether nothing is asked of the student
 */
public record Allowance(@Nullable Instant due, boolean letOff) {

    public static final Allowance NONE = new Allowance(null, false);

    /** Until when this student is on time. */
    public Deadline deadline(Instant due, Duration grace) {
        return new Deadline(this.due == null ? due : this.due, grace);
    }
}

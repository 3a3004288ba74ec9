package org.vastporch.core.comments;

import java.time.Instant;
import java.util.Collection;
import org.jspecify.annotations.Nullable;

/**
 * The comments that a prompt asks students to give to each other.
 *
 * @param number how many; 0 for none
 * @param words how many words a comment needs to count
 * @param due until when they count; null if they always do
 */
public record CommentsAsked(int number, int words, @Nullable Instant due) {

    /**
     * A comment on somebody else's post for the prompt.
     *
     * @param at when it was written: approving makes nobody late
     */
    public record Given(Instant at, int words) {}

    /** Whether it is long enough, and came in time. */
    public boolean counts(Given given) {
        return given.words() >= words && (due == null || !given.at().isAfter(due));
    }

    /** How many of the given ones count. */
    public int counted(Collection<Given> given) {
        return (int) given.stream().filter(this::counts).count();
    }

    /**
     * Whether a student can still give what is asked for.
     *
     * @param promptDue when the prompt itself is due; stands in where comments have no time of their own
     */
    public boolean isOpen(Instant now, Instant promptDue) {
        return number > 0 && now.isBefore(due == null ? promptDue : due);
    }
}

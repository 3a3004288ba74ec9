package org.vastporch.core.marking;

import java.time.Duration;
import java.time.Instant;
import java.util.Collection;
import org.vastporch.core.calendar.Term;

/**
 * Until when a paper is on time: due, and grace after it.
 *
 * @param due of the prompt, or of this student's own
 * @param grace not below 0
 */
public record Deadline(Instant due, Duration grace) {

    /** The last moment that is on time. */
    public Instant end() {
        return due.plus(grace);
    }

    public boolean isOver(Instant now) {
        return !Term.isOnTime(now, due, grace);
    }

    /**
     * How many days late a paper is: as many as the latest of the posts that count.
     *
     * @param handedIn when each of them was handed in; 0 days if there is none
     */
    public int daysLate(Term term, Collection<Instant> handedIn) {
        return handedIn.stream()
                .mapToInt(at -> term.daysLate(at, due, grace))
                .max()
                .orElse(0);
    }
}

package org.vastporch.core.moderation;

import java.time.Duration;
import java.util.List;
import java.util.Optional;

/** How long things usually take here, from handing in to a decision. */
public final class UsualWait {

    /** Fewer decisions say nothing about what is usual. */
    public static final int FEWEST = 5;

    private UsualWait() {}

    /**
     * The wait within which three of four texts were decided on.
     *
     * @param waits of the latest decisions, in any order
     * @return empty if there were fewer than {@link #FEWEST}
     */
    public static Optional<Duration> of(List<Duration> waits) {
        if (waits.size() < FEWEST) return Optional.empty();
        List<Duration> sorted = waits.stream().sorted().toList();
        return Optional.of(sorted.get((int) Math.ceil(sorted.size() * 0.75) - 1));
    }
}

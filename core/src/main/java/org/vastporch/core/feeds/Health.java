package org.vastporch.core.feeds;

import java.time.Duration;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

/** How an outside source does. */
public enum Health {
    LIVELY,
    QUIET,
    FALTERING,
    STOPPED;

    private static final Duration LIVELY_FOR = Duration.ofDays(14);

    /**
     * @param stopped whether it was given up
     * @param failures failed checks in a row
     * @param lastEntry date of its newest entry; null for none
     */
    public static Health of(boolean stopped, int failures, @Nullable Instant lastEntry, Instant now) {
        if (stopped) return STOPPED;
        if (failures > 0) return FALTERING;
        return lastEntry != null && !lastEntry.isBefore(now.minus(LIVELY_FOR)) ? LIVELY : QUIET;
    }
}

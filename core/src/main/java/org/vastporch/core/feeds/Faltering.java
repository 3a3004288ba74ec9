package org.vastporch.core.feeds;

import java.time.Duration;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * A source that cannot be read again and again. Whose it is and the staff are told once: not of every hiccup, and of
 * one that was given up at once.
 *
 * @param since the first of the failed checks in a row
 * @param told whether it is time that they know
 */
public record Faltering(Instant since, boolean told) {

    private static final Duration PATIENCE = Duration.ofDays(3);

    /**
     * How it falters after one more check; null if that could read it.
     *
     * @param before how it did until then; null if it did not
     * @param stopped whether it was given up
     */
    static @Nullable Faltering after(@Nullable Faltering before, boolean failed, boolean stopped, Instant now) {
        if (!failed) return null;
        Instant since = before == null ? now : before.since;
        boolean told = before != null && before.told || stopped || !now.isBefore(since.plus(PATIENCE));
        return new Faltering(since, told);
    }
}

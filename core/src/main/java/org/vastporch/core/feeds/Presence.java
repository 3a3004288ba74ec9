package org.vastporch.core.feeds;

import java.time.Duration;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * Whether the page of an outside post is still there. One that its site says not to have (404, 410) twice, a day apart,
 * is gone; a server that is out of order says nothing of it.
 *
 * @param missedAt when its site first said so, in a row; null if the page was there
 */
public record Presence(@Nullable Instant missedAt, boolean gone) {

    public static final Presence THERE = new Presence(null, false);

    private static final Duration APART = Duration.ofDays(1);
    private static final Duration ROUTINE = Duration.ofDays(30);

    /** @param status of the answer; 0 if none came */
    public Presence after(int status, Instant now) {
        if (status >= 200 && status < 400) return THERE;
        if (status != 404 && status != 410) return this;
        if (missedAt == null) return new Presence(now, false);
        return new Presence(missedAt, gone || !now.isBefore(missedAt.plus(APART)));
    }

    /** When it is looked at next: after a day where it was missed once, else as a matter of routine. */
    public Instant nextLook(Instant now) {
        return now.plus(missedAt != null && !gone ? APART : ROUTINE);
    }
}

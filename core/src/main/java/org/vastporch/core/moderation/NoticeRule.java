package org.vastporch.core.moderation;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalTime;
import java.time.ZoneId;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.subscriptions.Cadence;

/**
 * When somebody who approves is told by mail that something waits: as often as they want, outside their quiet hours.
 */
public record NoticeRule(Cadence cadence, QuietHours quiet) {

    /** The night, for whoever has set nothing else. */
    public static final QuietHours NIGHT = new QuietHours(LocalTime.of(18, 0), LocalTime.of(7, 0));

    /** A class that hands in together makes one mail, not thirty: the first of many waits so long for the others. */
    public static final Duration GATHERED = Duration.ofMinutes(10);

    /**
     * Whether it is time to look what has come.
     *
     * @param toldUpto up to when they were told
     * @param zone of the class
     */
    public boolean isTime(Instant toldUpto, Instant now, ZoneId zone) {
        return cadence.isDue(toldUpto, now, zone)
                && !quiet.holdAt(now.atZone(zone).toLocalTime());
    }

    /**
     * Whether what has come is to be told now; where it is not, it is asked again later.
     *
     * @param first since when the first of it waits; null if nothing has come
     */
    public boolean isComplete(@Nullable Instant first, Instant now) {
        return cadence != Cadence.AT_ONCE || first != null && !first.isAfter(now.minus(GATHERED));
    }
}

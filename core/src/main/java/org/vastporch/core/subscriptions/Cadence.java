package org.vastporch.core.subscriptions;

import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.temporal.TemporalAdjusters;

/** How often somebody wants to be written to. */
public enum Cadence {
    NEVER,
    AT_ONCE,
    DAILY,
    WEEKLY;

    /** When the mail of a day or week goes out, on the clock of the class: after lessons, on Fridays for the week. */
    public static final LocalTime AFTER_LESSONS = LocalTime.of(16, 0);

    /**
     * Tells whether a mail is due. A time of day that summer time skips counts as the first moment after; no day has
     * two mails.
     *
     * @param last when the last one was made
     */
    public boolean isDue(Instant last, Instant now, ZoneId zone) {
        return switch (this) {
            case NEVER -> false;
            case AT_ONCE -> true;
            case DAILY, WEEKLY -> last.isBefore(latestTime(now, zone));
        };
    }

    private Instant latestTime(Instant now, ZoneId zone) {
        ZonedDateTime time = now.atZone(zone).with(AFTER_LESSONS);
        if (this == WEEKLY) time = time.with(TemporalAdjusters.previousOrSame(DayOfWeek.FRIDAY));
        if (time.toInstant().isAfter(now)) time = this == WEEKLY ? time.minusWeeks(1) : time.minusDays(1);
        return time.toInstant();
    }
}

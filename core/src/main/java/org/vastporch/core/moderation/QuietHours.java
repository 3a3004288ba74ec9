package org.vastporch.core.moderation;

import java.time.LocalTime;

/**
 * The hours in which nobody is written to. They may go over midnight; equal ends mean that there are none.
 *
 * @param from the first minute of quiet
 * @param until the first minute after it
 */
public record QuietHours(LocalTime from, LocalTime until) {

    /** Whether it is quiet at a time of day. */
    public boolean holdAt(LocalTime time) {
        if (from.equals(until)) return false;
        boolean afterBegin = !time.isBefore(from);
        boolean beforeEnd = time.isBefore(until);
        return from.isBefore(until) ? afterBegin && beforeEnd : afterBegin || beforeEnd;
    }
}

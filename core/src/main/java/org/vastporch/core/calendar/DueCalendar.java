package org.vastporch.core.calendar;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.List;

/**
 * What is due, as a calendar that programs read (RFC 5545). Moments are written in UTC, so that they are right on both
 * sides of summer time wherever they are read. There are no alarms: those are the reader's.
 *
 * @param name of the calendar, as its reader's program shows it
 * @param entries in any order
 */
public record DueCalendar(String name, List<Entry> entries) {

    /**
     * Something that is due.
     *
     * @param uid the same as long as it is the same thing, and nobody else's
     * @param sequence raised whenever it changes
     * @param due the moment
     * @param title one line
     * @param more more about it; may have several lines, may be empty
     * @param link where it is read
     * @param cancelled whether it is asked no more
     */
    public record Entry(
            String uid, int sequence, Instant due, String title, String more, String link, boolean cancelled) {}

    private static final DateTimeFormatter UTC =
            DateTimeFormatter.ofPattern("yyyyMMdd'T'HHmmss'Z'").withZone(ZoneOffset.UTC);
    /** Octets of a line, its end left out (RFC 5545, 3.1). */
    private static final int LONGEST_LINE = 75;

    /** @param now when it is written */
    public String text(Instant now) {
        StringBuilder text = new StringBuilder();
        line(text, "BEGIN:VCALENDAR");
        line(text, "VERSION:2.0");
        line(text, "PRODID:-//Vast Porch//Due dates//EN");
        line(text, "METHOD:PUBLISH");
        line(text, "NAME:" + words(name));
        line(text, "X-WR-CALNAME:" + words(name));
        line(text, "REFRESH-INTERVAL;VALUE=DURATION:PT4H");
        for (Entry entry : entries) {
            line(text, "BEGIN:VEVENT");
            line(text, "UID:" + words(entry.uid()));
            line(text, "SEQUENCE:" + entry.sequence());
            line(text, "DTSTAMP:" + UTC.format(now));
            line(text, "DTSTART:" + UTC.format(entry.due()));
            line(text, "SUMMARY:" + words(entry.title()));
            if (!entry.more().isEmpty()) line(text, "DESCRIPTION:" + words(entry.more()));
            line(text, "URL:" + entry.link());
            line(text, "STATUS:" + (entry.cancelled() ? "CANCELLED" : "CONFIRMED"));
            // It takes no time: nobody is busy because something is due.
            line(text, "TRANSP:TRANSPARENT");
            line(text, "END:VEVENT");
        }
        line(text, "END:VCALENDAR");
        return text.toString();
    }

    /**
     * Words as a value: what means something to the format is written so that it does not; other signs of control go.
     */
    private static String words(String words) {
        return words.replaceAll("\\R", "\n")
                .replaceAll("[\\p{Cntrl}&&[^\n]]", " ")
                .replace("\\", "\\\\")
                .replace(";", "\\;")
                .replace(",", "\\,")
                .replace("\n", "\\n");
    }

    /** A line, folded where it is too long, never within a sign. */
    private static void line(StringBuilder text, String line) {
        int octets = 0;
        for (int at = 0; at < line.length(); ) {
            int sign = line.codePointAt(at);
            int more = Character.toString(sign).getBytes(StandardCharsets.UTF_8).length;
            if (octets + more > LONGEST_LINE) {
                text.append("\r\n ");
                octets = 1;
            }
            text.appendCodePoint(sign);
            octets += more;
            at += Character.charCount(sign);
        }
        text.append("\r\n");
    }
}

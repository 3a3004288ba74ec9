package org.vastporch.core.calendar;

import static org.junit.jupiter.api.Assertions.*;

import java.io.StringReader;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.temporal.Temporal;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import net.fortuna.ical4j.data.CalendarBuilder;
import net.fortuna.ical4j.model.Calendar;
import net.fortuna.ical4j.model.component.VEvent;
import net.fortuna.ical4j.model.property.DateProperty;
import org.junit.jupiter.api.Test;
import org.vastporch.core.calendar.DueCalendar.Entry;

class DueCalendarTest {

    private static final Instant NOW = Instant.parse("2026-10-20T09:00:00Z");

    private static Entry entry(String uid, String title, String more, String due) {
        return new Entry(uid, 3, Instant.parse(due), title, more, "http://school.example/classes/1/prompt/7", false);
    }

    private static Calendar read(DueCalendar calendar) throws Exception {
        return new CalendarBuilder().build(new StringReader(calendar.text(NOW)));
    }

    private static Instant start(VEvent event) {
        Temporal at = ((DateProperty<?>) event.getProperty("DTSTART").orElseThrow()).getDate();
        return at instanceof Instant moment
                ? moment
                : at instanceof ZonedDateTime zoned
                        ? zoned.toInstant()
                        : OffsetDateTime.from(at).toInstant();
    }

    @Test
    void asItIsWritten() {
        assertEquals(
                String.join(
                        "\r\n",
                        "BEGIN:VCALENDAR",
                        "VERSION:2.0",
                        "PRODID:-//Vast Porch//Due dates//EN",
                        "METHOD:PUBLISH",
                        "NAME:Plot to Plate",
                        "X-WR-CALNAME:Plot to Plate",
                        "REFRESH-INTERVAL;VALUE=DURATION:PT4H",
                        "BEGIN:VEVENT",
                        "UID:urn:uuid:1",
                        "SEQUENCE:3",
                        "DTSTAMP:20261020T090000Z",
                        "DTSTART:20261025T200000Z",
                        "SUMMARY:Week 4 log",
                        "DESCRIPTION:Beans\\, peas\\; and a \\\\ back\\nsecond line",
                        "URL:http://school.example/classes/1/prompt/7",
                        "STATUS:CONFIRMED",
                        "TRANSP:TRANSPARENT",
                        "END:VEVENT",
                        "END:VCALENDAR",
                        ""),
                new DueCalendar(
                                "Plot to Plate",
                                List.of(entry(
                                        "urn:uuid:1",
                                        "Week 4 log",
                                        "Beans, peas; and a \\ back\r\nsecond line",
                                        "2026-10-25T20:00:00Z")))
                        .text(NOW));
    }

    /**
     * 20:00 in London is 19:00 before the last Sunday of October, 20:00 from then on: in UTC nobody can get it wrong.
     */
    @Test
    void bothSidesOfTheEndOfSummerTime() throws Exception {
        Term term =
                new Term(LocalDate.of(2026, 10, 1), LocalDate.of(2026, 11, 30), List.of(), ZoneId.of("Europe/London"));
        Instant before = term.startOf(LocalDate.of(2026, 10, 24)).plusSeconds(20 * 3600);
        Instant after =
                LocalDate.of(2026, 10, 25).atTime(20, 0).atZone(term.zone()).toInstant();
        String text = new DueCalendar(
                        "c",
                        List.of(
                                new Entry("a", 0, before, "a", "", "http://x.example", false),
                                new Entry("b", 0, after, "b", "", "http://x.example", true)))
                .text(NOW);
        assertTrue(text.contains("DTSTART:20261024T190000Z"), text);
        assertTrue(text.contains("DTSTART:20261025T200000Z"), text);
        assertTrue(text.contains("STATUS:CANCELLED"), text);
    }

    /**
     * Whatever people write comes back as it was from a reader that is not ours; no line is too long, no sign is cut.
     */
    @Test
    void anotherReaderReadsItBack() throws Exception {
        String signs = "abc ,;:\"'\n\r\t=-@é\u0644\u05d0\u0939\u0e01\u4e2d\uD83C\uDF31\u0001 END:VEVENT";
        for (long seed = 0; seed < 300; seed++) {
            Random random = new Random(seed);
            List<Entry> entries = new ArrayList<>();
            for (int i = 0; i < 1 + random.nextInt(4); i++)
                entries.add(new Entry(
                        "urn:uuid:" + seed + "-" + i,
                        random.nextInt(40),
                        Instant.ofEpochSecond(1_750_000_000L + random.nextInt(80_000_000)),
                        words(random, signs, 1),
                        words(random, signs, 0),
                        "http://school.example/" + i,
                        random.nextBoolean()));
            DueCalendar calendar = new DueCalendar(words(random, signs, 1), entries);
            for (String line : calendar.text(NOW).split("\r\n"))
                assertTrue(line.getBytes(StandardCharsets.UTF_8).length <= 75, "seed " + seed + ": " + line);
            List<VEvent> events = read(calendar).getComponents("VEVENT");
            assertEquals(entries.size(), events.size(), "seed " + seed);
            for (int i = 0; i < entries.size(); i++) {
                Entry wanted = entries.get(i);
                VEvent event = events.get(i);
                assertEquals(
                        wanted.uid(), event.getProperty("UID").orElseThrow().getValue());
                assertEquals(
                        String.valueOf(wanted.sequence()),
                        event.getProperty("SEQUENCE").orElseThrow().getValue());
                assertEquals(wanted.due(), start(event), "seed " + seed);
                assertEquals(
                        plain(wanted.title()),
                        event.getProperty("SUMMARY").orElseThrow().getValue().stripTrailing());
                assertEquals(
                        plain(wanted.more()),
                        event.getProperty("DESCRIPTION")
                                .map(p -> p.getValue().stripTrailing())
                                .orElse(""),
                        "seed " + seed);
                assertEquals(
                        wanted.cancelled() ? "CANCELLED" : "CONFIRMED",
                        event.getProperty("STATUS").orElseThrow().getValue());
            }
        }
    }

    private static String words(Random random, String signs, int fewest) {
        int[] points = signs.codePoints().toArray();
        StringBuilder text = new StringBuilder("w");
        for (int i = fewest + random.nextInt(120); i > 0; i--)
            text.appendCodePoint(points[random.nextInt(points.length)]);
        return fewest == 0 && random.nextInt(4) == 0 ? "" : text.toString();
    }

    /** Every end of a line is one; other signs of control are blanks. Blanks at the end that reader leaves out. */
    private static String plain(String words) {
        return words.replaceAll("\\R", "\n")
                .replaceAll("[\\p{Cntrl}&&[^\n]]", " ")
                .stripTrailing();
    }
}

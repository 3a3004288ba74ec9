package org.vastporch.core.feeds;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.vastporch.core.calendar.Term;

class EntryWeeksTest {

    /** A Wednesday, two days before Friday; Auckland is half a day ahead. */
    private static final Instant NOW = Instant.parse("2026-11-25T10:00:00Z");

    private static Term in(String zone) {
        return new Term(LocalDate.parse("2026-09-01"), LocalDate.parse("2026-12-18"), List.of(), ZoneId.of(zone));
    }

    private static List<Integer> of(String zone, String... published) {
        return EntryWeeks.of(Stream.of(published).map(Instant::parse).toList(), in(zone), NOW);
    }

    @Test
    void thePresentWeekIsTheLastAndWeeksBeginOnMondayThere() {
        assertEquals(
                List.of(0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 2), of("UTC", "2026-11-23T00:00:00Z", "2026-11-25T09:00:00Z"));
        assertEquals(List.of(0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 1, 0), of("UTC", "2026-11-22T23:59:59Z"));
        assertEquals(
                List.of(0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 1),
                of("Pacific/Auckland", "2026-11-22T23:59:59Z"),
                "it is Monday there already");
    }

    @Test
    void theTwelfthWeekBackIsToldOfAndTheThirteenthIsNot() {
        Instant since = EntryWeeks.since(in("UTC"), NOW);
        assertEquals(Instant.parse("2026-09-07T00:00:00Z"), since);
        assertEquals(List.of(1, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0), of("UTC", since.toString()));
        assertEquals(
                List.of(0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0),
                of("UTC", since.minusMillis(1).toString()));
    }

    @Test
    void whatIsDatedAheadIsLeftOut() {
        assertEquals(12, of("UTC", "2026-11-30T00:00:00Z").size());
        assertEquals(0, of("UTC", "2026-11-30T00:00:00Z").get(11));
    }
}

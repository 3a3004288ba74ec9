package org.vastporch.core.feeds;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Dates in all the spellings in which feeds have them. */
class FeedDatesTest {

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "Thu, 05 Nov 2026 09:30:00 GMT | 2026-11-05T09:30:00Z",
                "Thu, 05 Nov 2026 09:30:00 +0100 | 2026-11-05T08:30:00Z",
                "Thu, 05 Nov 2026 09:30:00 -05:30 | 2026-11-05T15:00:00Z",
                "Thu 5 Nov 2026 09:30 EST | 2026-11-05T14:30:00Z",
                "5 Nov 26 09:30 PDT | 2026-11-05T16:30:00Z",
                "5 Nov 98 09:30 Z | 1998-11-05T09:30:00Z",
                "05 Nov 126 09:30:00 GMT | 2026-11-05T09:30:00Z",
                "Mon, 05 Nov 2026 09:30:00 GMT | 2026-11-05T09:30:00Z",
                "Thursday, 05 November 2026 09:30:00 GMT | 2026-11-05T09:30:00Z",
                "05-Nov-2026 09:30:00 | 2026-11-05T09:30:00Z",
                "Thu, 05 Nov 2026 | 2026-11-05T00:00:00Z",
                "Thu, 05 Nov 2026 09:30:00 | 2026-11-05T09:30:00Z",
                "Thu, 05 Nov 2026 09:30:00 GMT+0100 | 2026-11-05T08:30:00Z",
                "Thu, 05 Nov 2026 09:30:00 GMT (Greenwich) | 2026-11-05T09:30:00Z",
                "Thu, 05 Nov 2026 09:30:00 UTC | 2026-11-05T09:30:00Z",
                "Thu, 05 Nov 2026 9:30:00 pm CET | 2026-11-05T20:30:00Z",
                "Thu, 05 Nov 2026 12:05 AM | 2026-11-05T00:05:00Z",
                "Thu, 05 Nov 2026 12:05 p.m. | 2026-11-05T12:05:00Z",
                "Thu, 05 Nov 2026 09:30:00 Europe/Berlin | 2026-11-05T08:30:00Z",
                "Thu, 05 Nov 2026 09:30:00 America/New_York | 2026-11-05T14:30:00Z",
                "Thu, 05 Nov 2026 09:30:00 XYZ | 2026-11-05T09:30:00Z",
                "Thu, 05 Nov 2026 24:00:00 GMT | 2026-11-06T00:00:00Z",
                "Thu, 05 Nov 2026 23:59:60 GMT | 2026-11-05T23:59:59Z",
                "Do, 05 Nov 2026 09:30:00 +0100 | 2026-11-05T08:30:00Z",
                "Do., 5. November 2026, 09:30 | 2026-11-05T09:30:00Z",
                "5. Dezember 2026 | 2026-12-05T00:00:00Z",
                "Mi, 14 Okt 2026 10:00:00 MESZ | 2026-10-14T08:00:00Z",
                "mer., 05 août 2026 09:30:00 +0200 | 2026-08-05T07:30:00Z",
                "5 de noviembre de 2026 | 2026-11-05T00:00:00Z",
                "lun, 05 ene 2026 09:30:00 GMT | 2026-01-05T09:30:00Z",
                "November 5, 2026 9:30 am | 2026-11-05T09:30:00Z",
                "Thursday, November 5th, 2026 at 9:30 pm | 2026-11-05T21:30:00Z",
                "Nov. 5, 2026 | 2026-11-05T00:00:00Z",
                "Thu Nov  5 09:30:00 2026 | 2026-11-05T09:30:00Z",
                "Thu Nov 5 09:30:00 PST 2026 | 2026-11-05T17:30:00Z",
                "2026-11-05T09:30:00Z | 2026-11-05T09:30:00Z",
                "2026-11-05T09:30:00+01:00 | 2026-11-05T08:30:00Z",
                "2026-11-05T09:30:00+0100 | 2026-11-05T08:30:00Z",
                "2026-11-05T09:30:00+01 | 2026-11-05T08:30:00Z",
                "2026-11-05T09:30:00.123456789123Z | 2026-11-05T09:30:00Z",
                "2026-11-05T09:30:00,5Z | 2026-11-05T09:30:00Z",
                "2026-11-05t09:30z | 2026-11-05T09:30:00Z",
                "2026-11-05 09:30:00 | 2026-11-05T09:30:00Z",
                "2026-11-05 09:30:00 +0100 | 2026-11-05T08:30:00Z",
                "2026-11-05 09:30:00 UTC | 2026-11-05T09:30:00Z",
                "2026-11-05 T 09:30:00 Z | 2026-11-05T09:30:00Z",
                "2026-11-5 | 2026-11-05T00:00:00Z",
                "2026/11/05 09:30 | 2026-11-05T09:30:00Z",
                "2026.11.05 | 2026-11-05T00:00:00Z",
                "2026-11 | 2026-11-01T00:00:00Z",
                "2026 | 2026-01-01T00:00:00Z",
                "20261105 | 2026-11-05T00:00:00Z",
                "20261105T093000Z | 2026-11-05T09:30:00Z",
                "2026-11-05T0930Z | 2026-11-05T09:30:00Z",
                "2026-309 | 2026-11-05T00:00:00Z",
                "2026-W45-4 | 2026-11-05T00:00:00Z",
                "5.11.2026 09:30 | 2026-11-05T09:30:00Z",
                "05.11.26 | 2026-11-05T00:00:00Z",
                "11/05/2026 9:30 PM | 2026-11-05T21:30:00Z",
                "25/11/2026 | 2026-11-25T00:00:00Z",
                "1793871000 | 2026-11-05T09:30:00Z",
                "1793871000000 | 2026-11-05T09:30:00Z"
            })
    void areRead(String text, Instant at) {
        assertEquals(Optional.of(at), FeedDates.of(text));
        assertEquals(Optional.of(at), FeedDates.of("  \n" + text + "\n "));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "soon",
                "31 Feb 2026",
                "2026-13-01",
                "Thu, 05 Nov 2026 25:00:00 GMT",
                "Thu, 05 Nov 2026 09:61:00 GMT",
                "0000-00-00 00:00:00",
                "0001-01-01T00:00:00Z",
                "Thu, 01 Jan 1970 00:00:00 GMT",
                "30 Nevermonth 2026",
                "12345",
                "99999-01-01",
                "-1"
            })
    void whatIsNoneIsNone(String text) {
        assertEquals(Optional.empty(), FeedDates.of(text));
    }

    @Test
    void nothingIsNone() {
        assertEquals(Optional.empty(), FeedDates.of(null));
        assertEquals(Optional.empty(), FeedDates.of("5 Nov 2026" + " ".repeat(200)), "nobody writes so long a date");
    }

    /** What the two standards write comes back as it was, to the second. */
    @Test
    void everyMomentIsReadAsBothStandardsWriteIt() {
        Random random = new Random(822);
        DateTimeFormatter mail = DateTimeFormatter.ofPattern("EEE, dd MMM yyyy HH:mm:ss Z", Locale.ENGLISH);
        for (int i = 0; i < 2_000; i++) {
            OffsetDateTime at = Instant.ofEpochSecond(200_000 + (long) (random.nextDouble() * 3e9))
                    .atOffset(ZoneOffset.ofTotalSeconds((random.nextInt(49) - 24) * 1_800));
            assertEquals(
                    Optional.of(at.toInstant()),
                    FeedDates.of(at.toString().replaceFirst("(T..:..)([Z+-])", "$1:00$2")));
            assertEquals(Optional.of(at.toInstant()), FeedDates.of(mail.format(at)), mail.format(at));
        }
    }
}

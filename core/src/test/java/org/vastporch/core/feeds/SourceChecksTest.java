package org.vastporch.core.feeds;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.vastporch.core.feeds.SourceChecks.Answer;

/** A source from check to check. */
class SourceChecksTest {

    private static final Instant NOW = Instant.parse("2026-11-24T10:00:00Z");
    private static final String FEED = "https://a.example/feed.xml";

    private static SourceChecks after(SourceChecks before, Answer answer, Instant now) {
        return before.after(answer, List.of(), address -> false, List.of(), now, new Random(1));
    }

    private static Answer read(String etag) {
        return new Answer(200, etag, null, null, false, null, Duration.ZERO, null);
    }

    private static Answer moved(String to) {
        return new Answer(200, null, null, null, false, to, Duration.ZERO, null);
    }

    private static final Answer ABSENT =
            new Answer(404, null, null, null, false, null, null, "There is no page (404).");

    @Test
    void whatWasReadLastIsRememberedThroughFailures() {
        SourceChecks s = after(SourceChecks.begin(FEED, NOW), read("v1"), NOW);
        assertEquals("v1", s.etag());
        s = after(s, Answer.none("It does not answer."), NOW.plusSeconds(60));
        assertEquals("v1", s.etag());
        assertEquals(1, s.failures());
        assertEquals("It does not answer.", s.lastError());
        s = after(s, read("v2").failed("Its feed is broken."), NOW.plusSeconds(120));
        assertEquals("v1", s.etag(), "what could not be read is asked for again");
        assertEquals(2, s.failures());
        s = after(s, new Answer(304, null, null, null, false, null, null, null), NOW.plusSeconds(180));
        assertEquals("v1", s.etag());
        assertEquals(0, s.failures());
        assertNull(s.lastError());
    }

    @Test
    void whatItAskedIsRememberedWhileAnAnswerSaysNothingOfIt() {
        Answer hourly = new Answer(200, null, null, null, false, null, Duration.ofHours(1), null);
        SourceChecks s = after(SourceChecks.begin(FEED, NOW), hourly, NOW);
        assertEquals(
                Duration.ofHours(1),
                after(s, new Answer(304, null, null, null, false, null, null, null), NOW)
                        .asked());
        assertEquals(Duration.ZERO, after(s, read(null), NOW).asked());
        Answer years = new Answer(200, null, null, null, false, null, Duration.ofDays(900), null);
        assertEquals(Duration.ofDays(1), after(s, years, NOW).asked(), "a day at the most");
    }

    @Test
    void whatFaltersForThreeDaysIsToldOnceEachTime() {
        Answer none = Answer.none("It does not answer.");
        SourceChecks s = after(SourceChecks.begin(FEED, NOW), none, NOW);
        SourceChecks almost = after(s, none, NOW.plus(Duration.ofDays(3)).minusMillis(1));
        assertFalse(almost.isToTell(s));
        SourceChecks told = after(almost, none, NOW.plus(Duration.ofDays(3)));
        assertTrue(told.isToTell(almost));
        SourceChecks later = after(told, none, NOW.plus(Duration.ofDays(9)));
        assertFalse(later.isToTell(told), "once");
        Instant again = NOW.plus(Duration.ofDays(10));
        SourceChecks well = after(later, read("v"), again);
        assertFalse(well.isToTell(later));
        SourceChecks anew = after(well, none, again);
        assertFalse(anew.isToTell(well), "the days begin anew");
        assertTrue(after(anew, none, again.plus(Duration.ofDays(3))).isToTell(anew));
    }

    @Test
    void whatIsGivenUpIsToldAtOnce() {
        SourceChecks s = SourceChecks.begin(FEED, NOW);
        SourceChecks gone = after(s, new Answer(410, null, null, null, false, null, null, "Gone."), NOW);
        assertTrue(gone.isToTell(s));
        assertFalse(after(gone, new Answer(410, null, null, null, false, null, null, "Gone."), NOW)
                .isToTell(gone));
    }

    @Test
    void itMovesAfterThreeChecksThatSaySo() {
        SourceChecks s = SourceChecks.begin(FEED, NOW);
        s = after(after(s, moved("https://b.example/"), NOW), moved("https://b.example/"), NOW);
        assertEquals(FEED, s.feedAddress());
        assertEquals(FEED, after(s, moved("https://c.example/"), NOW).feedAddress(), "somewhere else now");
        assertEquals(
                FEED,
                after(after(s, read(null), NOW), moved("https://b.example/"), NOW)
                        .feedAddress());
        SourceChecks there = after(s, moved("https://b.example/"), NOW);
        assertEquals("https://b.example/", there.feedAddress());
        assertNull(there.movedTo());
        assertEquals(
                FEED,
                s.after(moved("https://b.example/"), List.of(), address -> true, List.of(), NOW, new Random(1))
                        .feedAddress(),
                "another source stands there");
    }

    @Test
    void itIsGivenUpWhenItIsGoneOrMissingForAWeek() {
        SourceChecks s = SourceChecks.begin(FEED, NOW);
        assertTrue(after(s, new Answer(410, null, null, null, false, null, null, "Gone."), NOW)
                .stopped());
        Instant at = NOW;
        for (int i = 1; i <= 9; i++, at = at.plus(Duration.ofDays(1))) s = after(s, ABSENT, at);
        assertFalse(s.stopped());
        assertEquals(NOW, s.notFoundSince());
        assertTrue(after(s, ABSENT, at).stopped());
        SourceChecks back = after(s, read(null), at);
        assertEquals(0, back.notFound());
        assertNull(back.notFoundSince());
    }

    /**
     * Law: whatever comes, the next check is later than asked for, and within a day and a tenth unless more is asked.
     */
    @Test
    void theNextCheckIsNeverTooSoonAndNeverNever() {
        Random random = new Random(3);
        SourceChecks s = SourceChecks.begin(FEED, NOW);
        for (int i = 0; i < 5_000; i++) {
            Instant now = s.nextCheck();
            Answer answer =
                    switch (random.nextInt(6)) {
                        case 0 -> Answer.none("x");
                        case 1 -> ABSENT;
                        case 2 -> moved("https://b.example/" + random.nextInt(2));
                        case 3 -> new Answer(304, null, null, null, false, null, null, null);
                        case 4 ->
                            new Answer(
                                    503, null, null, null, false, null, Duration.ofMinutes(random.nextInt(3_000)), "x");
                        default -> read("v" + i);
                    };
            List<Instant> dates = random.nextBoolean()
                    ? List.of()
                    : List.of(now, now.minus(Duration.ofMinutes(random.nextInt(90_000))));
            s = s.after(answer, dates, address -> false, List.of(), now, random);
            Duration wait = Duration.between(now, s.nextCheck());
            assertTrue(wait.compareTo(s.asked()) >= 0, wait + " " + s);
            assertTrue(wait.compareTo(Pace.SHORTEST.multipliedBy(9).dividedBy(10)) >= 0, wait + " " + s);
            assertTrue(wait.compareTo(Pace.LONGEST.multipliedBy(11).dividedBy(10)) <= 0, wait + " " + s);
            assertEquals(answer.error() != null, s.failures() > 0);
            assertEquals(answer.error(), s.lastError());
        }
    }

    /** Around a due time a source is looked at every quarter of an hour, if it allows that and answers. */
    @Test
    void whatIsDueIsLookedForOften() {
        Instant due = NOW.plus(Duration.ofDays(2));
        List<Pace.Rush> rushes = List.of(Pace.Rush.around(due, Duration.ofHours(12)));
        SourceChecks s = SourceChecks.begin(FEED, NOW);
        Instant at = NOW;
        int looks = 0;
        while (at.isBefore(due.plus(Duration.ofHours(12)))) {
            s = s.after(read("v"), List.of(), address -> false, rushes, at, new Random(looks++));
            assertFalse(s.nextCheck().isBefore(at.plus(Pace.SHORTEST)));
            at = s.nextCheck();
        }
        assertTrue(looks >= 36 * 4 - 4 && looks <= 36 * 4 + 3, "every 15 minutes of 36 hours: " + looks);
        Instant begin = due.minus(Duration.ofDays(1));
        Instant first = SourceChecks.begin(FEED, NOW)
                .after(read("v"), List.of(), address -> false, rushes, begin.minus(Duration.ofHours(2)), new Random(1))
                .nextCheck();
        assertFalse(first.isBefore(begin));
        assertTrue(first.isBefore(begin.plus(Duration.ofMinutes(6))));
        Answer slow = new Answer(200, null, null, null, false, null, Duration.ofHours(3), null);
        assertFalse(s.after(slow, List.of(), address -> false, rushes, due, new Random(1))
                .nextCheck()
                .isBefore(due.plus(Duration.ofHours(3))));
        assertTrue(s.after(Answer.none("x"), List.of(), address -> false, rushes, due, new Random(1))
                .nextCheck()
                .isAfter(due.plus(Duration.ofHours(12))));
    }
}

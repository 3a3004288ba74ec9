package org.vastporch.core.moderation;

import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.Instant;
import java.time.LocalTime;
import java.time.ZoneId;
import org.junit.jupiter.api.Test;
import org.vastporch.core.subscriptions.Cadence;

class NoticeRuleTest {

    private static final ZoneId LONDON = ZoneId.of("Europe/London");
    private static final Instant NOON = Instant.parse("2026-11-26T12:00:00Z");
    private static final Instant EVENING = Instant.parse("2026-11-26T18:00:00Z");
    private static final NoticeRule AT_ONCE = new NoticeRule(Cadence.AT_ONCE, NoticeRule.NIGHT);

    @Test
    void nobodyIsToldInTheQuietHoursOnTheClockOfTheClass() {
        assertTrue(AT_ONCE.isTime(NOON, NOON, LONDON));
        assertTrue(AT_ONCE.isTime(NOON, EVENING.minusSeconds(1), LONDON));
        assertFalse(AT_ONCE.isTime(NOON, EVENING, LONDON));
        assertFalse(AT_ONCE.isTime(NOON, NOON, ZoneId.of("Asia/Tokyo")), "it is evening there");
        assertFalse(new NoticeRule(Cadence.NEVER, NoticeRule.NIGHT).isTime(NOON, NOON, LONDON));
        NoticeRule daily = new NoticeRule(Cadence.DAILY, new QuietHours(LocalTime.MIDNIGHT, LocalTime.MIDNIGHT));
        assertTrue(daily.isTime(NOON, EVENING, LONDON));
        assertFalse(daily.isTime(EVENING, EVENING.plusSeconds(60), LONDON), "once a day");
    }

    @Test
    void theFirstOfManyWaitsForTheOthers() {
        assertFalse(AT_ONCE.isComplete(NOON, NOON));
        assertFalse(AT_ONCE.isComplete(NOON, NOON.plus(NoticeRule.GATHERED).minusMillis(1)));
        assertTrue(AT_ONCE.isComplete(NOON, NOON.plus(NoticeRule.GATHERED)));
        assertFalse(AT_ONCE.isComplete(null, NOON));
        // Once a day one is told at that hour, and begins anew with nothing too.
        assertTrue(new NoticeRule(Cadence.DAILY, NoticeRule.NIGHT).isComplete(null, NOON));
        assertTrue(new NoticeRule(Cadence.DAILY, NoticeRule.NIGHT).isComplete(NOON, NOON));
    }
}

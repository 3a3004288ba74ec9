package org.vastporch.core.feeds;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Duration;
import java.time.Instant;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class PresenceTest {

    private static final Instant NOW = Instant.parse("2026-11-27T10:00:00Z");
    private static final Instant TOMORROW = NOW.plus(Duration.ofDays(1));

    @ParameterizedTest
    @ValueSource(ints = {404, 410})
    void itIsGoneWhenItsSiteSaysSoTwiceADayApart(int status) {
        Presence once = Presence.THERE.after(status, NOW);
        assertFalse(once.gone());
        assertFalse(once.after(status, TOMORROW.minusMillis(1)).gone());
        assertTrue(once.after(status, TOMORROW).gone());
        assertTrue(
                once.after(status, TOMORROW.minusMillis(1))
                        .after(status, TOMORROW)
                        .gone(),
                "the first time counts");
        assertTrue(once.after(status, TOMORROW).after(status, TOMORROW).gone());
    }

    @ParameterizedTest
    @ValueSource(ints = {0, 401, 403, 429, 500, 503})
    void aServerThatIsOutOfOrderSaysNothing(int status) {
        assertEquals(Presence.THERE, Presence.THERE.after(status, NOW));
        Presence once = Presence.THERE.after(404, NOW);
        assertEquals(once, once.after(status, TOMORROW));
    }

    @ParameterizedTest
    @ValueSource(ints = {200, 204, 302, 304})
    void whatIsThereAgainIsThere(int status) {
        Presence gone = Presence.THERE.after(404, NOW).after(404, TOMORROW);
        assertEquals(Presence.THERE, gone.after(status, TOMORROW));
        assertFalse(gone.after(status, TOMORROW).after(404, TOMORROW).gone(), "and the days begin anew");
    }

    @Test
    void itIsLookedAtSoonWhenItWasMissedOnce() {
        Presence once = Presence.THERE.after(404, NOW);
        assertEquals(TOMORROW, once.nextLook(NOW));
        assertEquals(NOW.plus(Duration.ofDays(30)), Presence.THERE.nextLook(NOW));
        assertEquals(
                TOMORROW.plus(Duration.ofDays(30)), once.after(404, TOMORROW).nextLook(TOMORROW));
    }
}

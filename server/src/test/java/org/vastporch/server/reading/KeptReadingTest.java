package org.vastporch.server.reading;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.vastporch.server.log.ClassChanges;

/** When something is read anew. What is read is tried on the real server. */
class KeptReadingTest {

    private static final Instant NOON = Instant.parse("2026-11-20T12:00:00Z");

    private final ClassChanges changes = new ClassChanges();
    private @Nullable Instant door;
    private int read;
    private final KeptReading<Integer> kept =
            new KeptReading<>(changes, (id, now) -> Optional.ofNullable(door).filter(now::isBefore), value -> 1);

    private int get(long classId, String who, Instant now) {
        return kept.get(classId, who, now, () -> ++read);
    }

    @Test
    void isGivenOutAgainAsLongAsNothingHappens() {
        assertEquals(1, get(1, "wren", NOON));
        assertEquals(1, get(1, "wren", NOON.plusSeconds(299)));
        assertEquals(2, get(1, "wren", NOON.plus(Duration.ofMinutes(5))));
    }

    @Test
    void isNobodyElses() {
        assertEquals(1, get(1, "wren", NOON));
        assertEquals(2, get(1, "tunde", NOON));
        assertEquals(3, get(2, "wren", NOON));
        assertEquals(1, get(1, "wren", NOON));
    }

    @Test
    void endsWithWhatHappensInTheClassAndEverywhere() {
        get(1, "wren", NOON);
        changes.note(2);
        assertEquals(1, get(1, "wren", NOON));
        changes.note(1);
        assertEquals(2, get(1, "wren", NOON));
        changes.noteEverywhere();
        assertEquals(3, get(1, "wren", NOON));
    }

    @Test
    void whatHappensWhileItIsReadMakesItBeReadAgain() {
        kept.get(1, "wren", NOON, () -> {
            changes.note(1);
            return ++read;
        });
        assertEquals(2, get(1, "wren", NOON));
    }

    @Test
    void endsAtTheMomentAtWhichTheClockTurnsSomething() {
        door = NOON.plusSeconds(60);
        assertEquals(1, get(1, "wren", NOON));
        assertEquals(1, get(1, "wren", door.minusMillis(1)));
        assertEquals(2, get(1, "wren", door));
    }
}

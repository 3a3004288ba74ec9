package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.NullAndEmptySource;
import org.junit.jupiter.params.provider.ValueSource;
import org.vastporch.server.http.Cursor;
import org.vastporch.server.http.Problem;

class CursorTest {

    private record Place(float score, long at, String key) {}

    private static Optional<Place> read(String text) {
        return Cursor.read(
                text, parts -> new Place(Float.parseFloat(parts.get(0)), Long.parseLong(parts.get(1)), parts.get(2)));
    }

    @Test
    void whatWasMadeIsReadAgain() {
        Place place = new Place(1.5f, 1_764_158_400_000L, "post Zoë’s beans 🌱");
        assertEquals(
                place, read(Cursor.of(place.score(), place.at(), place.key())).orElseThrow());
        assertEquals(
                List.of("", "a", ""),
                Cursor.read(Cursor.of("", "a", ""), parts -> parts).orElseThrow(),
                "somebody without a family name");
    }

    @ParameterizedTest
    @NullAndEmptySource
    void theFirstPageHasNone(String text) {
        assertEquals(Optional.empty(), read(text));
    }

    @ParameterizedTest
    @ValueSource(strings = {"word", "%", "====", "MQ", "\ud800", "Li4vLi4v", "eAp5Cno", "MQphCnBvc3Q"})
    void whatWasNotMadeHereIsRefusedInWords(String text) {
        Problem problem = assertThrows(Problem.class, () -> read(text));
        assertEquals("cursor-unknown", problem.code());
    }

    /** Whatever somebody makes of a cursor: it is read as a place, or refused. */
    @Test
    void aCursorThatWasTamperedWithIsAPlaceOrRefused() {
        Random random = new Random(3);
        String made = Cursor.of(2.25f, 99, "post7");
        for (int n = 0; n < 5_000; n++) {
            StringBuilder other = new StringBuilder(made);
            for (int k = 1 + random.nextInt(3); k > 0; k--)
                other.setCharAt(random.nextInt(other.length()), (char) (33 + random.nextInt(94)));
            if (random.nextInt(4) == 0) other.append(made.repeat(random.nextInt(300)));
            try {
                read(other.toString()).ifPresent(place -> assertNotNull(place.key()));
            } catch (Problem e) {
                assertEquals("cursor-unknown", e.code());
            }
        }
    }
}

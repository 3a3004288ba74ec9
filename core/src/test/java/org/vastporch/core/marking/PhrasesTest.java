package org.vastporch.core.marking;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.vastporch.core.marking.Phrases.Phrase;

class PhrasesTest {

    private static final Instant NOW = Instant.parse("2026-11-27T10:00:00Z");

    private static Phrase phrase(long id, String criterion, String level, int uses, int minutesAgo) {
        return new Phrase(id, criterion, level, "Phrase " + id, uses, NOW.minusSeconds(60L * minutesAgo));
    }

    @Test
    void whatWasWrittenWithTheSameLevelComesFirstThenWhatIsUsedMostThenLast() {
        List<Phrase> all = List.of(
                phrase(1, "evidence", "told", 9, 1),
                phrase(2, "evidence", "shown", 1, 9),
                phrase(3, "evidence", "shown", 2, 9),
                phrase(4, "evidence", "shown", 2, 3),
                phrase(5, "reflection", "shown", 99, 1),
                phrase(6, "evidence", "shown", 2, 3));
        List<Long> ids = Phrases.offered(all, "evidence", "shown", 9).stream()
                .map(Phrase::id)
                .toList();
        assertEquals(List.of(4L, 6L, 3L, 2L, 1L), ids);
        assertEquals(2, Phrases.offered(all, "evidence", "shown", 2).size());
        assertEquals(List.of(), Phrases.offered(all, "", "", 9));
    }

    @Test
    void theSameCriterionInAnotherRubricIsKnownByItsName() {
        assertEquals(Phrases.about("Evidence"), Phrases.about(" evidence "));
        assertNotEquals(Phrases.about("Evidence"), Phrases.about("Reflection"));
    }

    @Test
    void whatIsLongIsWrittenForOneAlone() {
        assertTrue(Phrases.isKept("x".repeat(500)));
        assertFalse(Phrases.isKept("x".repeat(501)));
        assertFalse(Phrases.isKept(" \n"));
    }
}

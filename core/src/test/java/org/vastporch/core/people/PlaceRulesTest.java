package org.vastporch.core.people;

import static org.junit.jupiter.api.Assertions.assertDoesNotThrow;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.vastporch.core.Refusal;
import org.vastporch.core.access.Role;
import org.vastporch.core.people.PlaceRules.Eraser;
import org.vastporch.core.people.PlaceRules.Person;

class PlaceRulesTest {

    @Test
    void studentsStayStudentsAndAClassKeepsItsLead() {
        for (Role from : Role.values())
            for (Role to : Role.values()) {
                boolean student = from == Role.STUDENT || to == Role.STUDENT;
                boolean lead = from == Role.LEAD || to == Role.LEAD;
                if (student || lead)
                    assertEquals(
                            student ? "student-stays" : "lead-stays",
                            assertThrows(Refusal.class, () -> PlaceRules.checkRole(from, to))
                                    .code());
                else assertDoesNotThrow(() -> PlaceRules.checkRole(from, to));
            }
    }

    @Test
    void nobodyEndsTheirOwnPlaceNorThatOfTheLead() {
        assertEquals(
                "own-place",
                assertThrows(Refusal.class, () -> PlaceRules.checkEnd(Role.CO_TEACHER, true))
                        .code());
        assertEquals(
                "lead-stays",
                assertThrows(Refusal.class, () -> PlaceRules.checkEnd(Role.LEAD, false))
                        .code());
        assertDoesNotThrow(() -> PlaceRules.checkEnd(Role.STUDENT, false));
    }

    @Test
    void aPlaceIsTakenUpAgainWithinThirtyDaysOfItsEnd() {
        Instant ended = Instant.parse("2026-10-01T08:00:00Z");
        assertTrue(PlaceRules.canReturn(ended, ended.plus(Leaving.UNDO).minusMillis(1)));
        assertFalse(PlaceRules.canReturn(ended, ended.plus(Leaving.UNDO)));
        assertFalse(PlaceRules.canReturn(null, ended), "one that has not ended");
    }

    @Test
    void whoLeadsAllClassesOfAPersonErasesThemElseTheKeeperDoes() {
        assertEquals(Eraser.YOU, PlaceRules.eraser(student(true), false));
        assertEquals(Eraser.KEEPER, PlaceRules.eraser(student(false), false));
        assertEquals(Eraser.YOU, PlaceRules.eraser(student(false), true));
    }

    private static Person student(boolean allLed) {
        return new Person(false, false, List.of(Role.STUDENT, Role.GUEST), allLed);
    }

    @Test
    void whoDecidedOrMarkedIsErasedByNobody() {
        for (Role role : Role.values())
            assertEquals(
                    role == Role.STUDENT || role == Role.GUEST ? Eraser.YOU : Eraser.NOBODY,
                    PlaceRules.eraser(new Person(false, false, List.of(Role.STUDENT, role), true), true));
        assertEquals(Eraser.NOBODY, PlaceRules.eraser(new Person(true, false, List.of(), true), true));
        assertEquals(Eraser.NOBODY, PlaceRules.eraser(new Person(false, true, List.of(), true), true));
    }
}

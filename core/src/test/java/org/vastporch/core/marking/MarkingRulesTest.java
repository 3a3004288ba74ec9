package org.vastporch.core.marking;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Duration;
import java.time.Instant;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.vastporch.core.marking.MarkingRules.Answer;
import org.vastporch.core.marking.MarkingRules.Facts;
import org.vastporch.core.marking.MarkingRules.OneOfMany;

class MarkingRulesTest {

    @ParameterizedTest
    @CsvSource(textBlock = """
                    # let off, empty, as seen, released, assists, taken over, why,   answer
                    false,     false, true,    false,    false,   false,      false, ALLOWED
                    false,     false, true,    false,    true,    true,       false, ALLOWED
                    true,      true,  false,   true,     true,    true,       true,  LET_OFF
                    true,      false, true,    false,    false,   false,      true,  LET_OFF
                    false,     true,  false,   true,     false,   false,      true,  NOTHING_HANDED_IN
                    false,     false, false,   true,     false,   false,      true,  OUTDATED
                    false,     false, false,   false,    false,   false,      false, OUTDATED
                    false,     false, true,    true,     false,   true,       false, SAY_WHY
                    false,     false, true,    true,     false,   true,       true,  ALLOWED
                    false,     false, true,    true,     true,    false,      false, SAY_WHY
                    false,     false, true,    true,     true,    false,      true,  ALLOWED
                    false,     false, true,    true,     true,    true,       false, TEACHERS_ALONE
                    false,     false, true,    true,     true,    true,       true,  TEACHERS_ALONE
                    """)
    void aStepOnAPaper(
            boolean letOff,
            boolean empty,
            boolean asSeen,
            boolean released,
            boolean assists,
            boolean takenOver,
            boolean why,
            Answer answer) {
        assertEquals(answer, MarkingRules.mark(new Facts(letOff, empty, asSeen, released, assists, takenOver), why));
    }

    @Test
    void aReleaseIsTakenBackFreelyForAnHour() {
        Instant at = Instant.parse("2026-11-20T10:00:00Z");
        assertFalse(MarkingRules.takeBackNeedsReason(at, at));
        assertFalse(MarkingRules.takeBackNeedsReason(at, at.plus(Duration.ofHours(1))));
        assertTrue(MarkingRules.takeBackNeedsReason(
                at, at.plus(Duration.ofHours(1)).plusNanos(1_000)));
    }

    @ParameterizedTest
    @EnumSource(PaperState.class)
    void onlyWhatIsMarkedAndAsItWasSeenIsReleased(PaperState state) {
        OneOfMany answer =
                switch (state) {
                    case MARKED -> OneOfMany.DO;
                    case RELEASED -> OneOfMany.DONE_ALREADY;
                    default -> OneOfMany.LEFT;
                };
        assertEquals(answer, MarkingRules.release(state, true));
        assertEquals(OneOfMany.LEFT, MarkingRules.release(state, false));
    }

    @Test
    void onlyWhatWaitsForItAndIsAsItWasSeenIsTakenOver() {
        assertEquals(OneOfMany.DO, MarkingRules.takeOver(true, true));
        assertEquals(OneOfMany.LEFT, MarkingRules.takeOver(true, false));
        assertEquals(OneOfMany.LEFT, MarkingRules.takeOver(false, true));
    }
}

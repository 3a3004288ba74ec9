package org.vastporch.core.marking;

import static org.junit.jupiter.api.Assertions.*;

import java.util.Arrays;
import java.util.EnumSet;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.vastporch.core.moderation.State;

class PaperStateTest {

    @ParameterizedTest
    @CsvSource(nullValues = "-", textBlock = """
                    # post,     given, criteria, released, over,  state
                    -,              0,        3, false,    false, NOT_HANDED_IN
                    -,              0,        3, false,    true,  MISSING
                    -,              0,        3, true,     true,  MISSING
                    WAITING,        0,        3, false,    true,  WAITING
                    RETURNED,       0,        3, false,    true,  RETURNED
                    PUBLISHED,      0,        3, false,    false, HANDED_IN
                    DRAFT,          0,        3, false,    true,  HANDED_IN
                    HIDDEN,         0,        3, false,    true,  HANDED_IN
                    SCHEDULED,      0,        3, false,    true,  HANDED_IN
                    WAITING,        1,        3, false,    true,  BEING_MARKED
                    PUBLISHED,      2,        3, false,    true,  BEING_MARKED
                    RETURNED,       3,        3, false,    true,  MARKED
                    PUBLISHED,      3,        3, true,     true,  RELEASED
                    PUBLISHED,      1,        3, true,     true,  RELEASED
                    PUBLISHED,      0,        0, false,    true,  HANDED_IN
                    """)
    void standsWhereItsFactsPutIt(
            State post, int given, int criteria, boolean released, boolean over, PaperState state) {
        assertEquals(state, PaperState.of(new PaperState.Facts(post, given, criteria, released), over));
    }

    @Test
    void withoutARubricNothingIsEverFinished() {
        assertFalse(new PaperState.Facts(State.PUBLISHED, 0, 0, false).isFinished());
        assertTrue(new PaperState.Facts(State.PUBLISHED, 1, 1, false).isFinished());
    }

    @ParameterizedTest
    @EnumSource(PaperState.class)
    void whatIsToMarkIsNotMarked(PaperState state) {
        assertFalse(state.isToMark() && state.isMarked());
    }

    @Test
    void onTheDeskLiesWhatIsReadyOrBegun() {
        assertEquals(
                EnumSet.of(PaperState.HANDED_IN, PaperState.BEING_MARKED),
                Arrays.stream(PaperState.values()).filter(PaperState::isToMark).collect(Collectors.toSet()));
        assertEquals(
                EnumSet.of(PaperState.MARKED, PaperState.RELEASED),
                Arrays.stream(PaperState.values()).filter(PaperState::isMarked).collect(Collectors.toSet()));
    }
}

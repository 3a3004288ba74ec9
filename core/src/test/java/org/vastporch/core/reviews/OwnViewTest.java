package org.vastporch.core.reviews;

import static org.junit.jupiter.api.Assertions.assertEquals;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastporch.core.prompts.Reviews.Self;

class OwnViewTest {

    /** Asked; let off; nothing there; marks shown; as seen. */
    @ParameterizedTest
    @CsvSource({
        "ASKED, false, false, false, true, ALLOWED",
        "FIRST, false, false, false, true, ALLOWED",
        "NOT_ASKED, false, false, false, true, NOT_ASKED",
        "NOT_ASKED, true, true, true, false, NOT_ASKED",
        "ASKED, true, false, false, true, LET_OFF",
        "ASKED, true, true, true, false, LET_OFF",
        "ASKED, false, true, false, true, NOTHING_HANDED_IN",
        "ASKED, false, false, true, true, MARKS_SHOWN",
        "FIRST, false, false, true, true, MARKS_SHOWN",
        "ASKED, false, true, true, true, MARKS_SHOWN",
        "ASKED, false, false, false, false, OUTDATED",
        "ASKED, false, true, false, false, NOTHING_HANDED_IN",
        "BEFORE, false, true, false, true, ALLOWED",
        "BEFORE, false, false, false, true, ALLOWED",
        "BEFORE, false, true, false, false, OUTDATED",
        "BEFORE, false, true, true, true, MARKS_SHOWN",
        "BEFORE, true, true, false, true, LET_OFF",
    })
    void whoMaySay(
            Self asked, boolean letOff, boolean isEmpty, boolean isShown, boolean isAsSeen, OwnView.Answer answer) {
        assertEquals(answer, OwnView.give(new OwnView.Facts(asked, letOff, isEmpty, isShown, isAsSeen)));
    }
}

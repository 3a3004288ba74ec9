package org.vastporch.core.prompts;

import static org.junit.jupiter.api.Assertions.*;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastporch.core.Refusal;
import org.vastporch.core.prompts.Questions.Question;

class QuestionsTest {

    @ParameterizedTest
    @CsvSource(nullValues = "-", textBlock = """
                    # answer, for all, viewer, staff, read
                    -,        false,   1,      false, true
                    -,        false,   2,      false, false
                    -,        false,   9,      true,  true
                    Yes.,     false,   1,      false, true
                    Yes.,     false,   2,      false, false
                    Yes.,     true,    2,      false, true
                    Yes.,     true,    1,      false, true
                    """)
    void aClassmateReadsOnlyWhatWasAnsweredForAll(
            String answer, boolean forAll, long viewer, boolean staff, boolean read) {
        assertEquals(read, Questions.isRead(new Question(1, answer, forAll), viewer, staff));
    }

    @Test
    void whoAskedTakesItBackUntilItIsAnswered() {
        assertTrue(Questions.isRemovable(new Question(1, null, false), false));
        assertFalse(Questions.isRemovable(new Question(1, "Yes.", true), false));
        assertTrue(Questions.isRemovable(new Question(1, "Yes.", true), true));
    }

    @Test
    void aTextHasSomethingInItAndNotTooMuch() {
        assertEquals("How long?", Questions.text("question", "  How long? \n"));
        assertEquals(2_000, Questions.text("answer", "x".repeat(2_000)).length());
        assertEquals("question text-empty", refusal(() -> Questions.text("question", " \n ")));
        assertEquals("answer text-too-long", refusal(() -> Questions.text("answer", "x".repeat(2_001))));
        Questions.requireRoom(9);
        assertEquals("question too-many-questions", refusal(() -> Questions.requireRoom(10)));
    }

    private static String refusal(org.junit.jupiter.api.function.Executable what) {
        Refusal refusal = assertThrows(Refusal.class, what);
        return refusal.field() + " " + refusal.code();
    }
}

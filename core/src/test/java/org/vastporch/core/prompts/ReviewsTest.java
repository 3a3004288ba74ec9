package org.vastporch.core.prompts;

import static org.junit.jupiter.api.Assertions.*;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastporch.core.Refusal;
import org.vastporch.core.prompts.Reviews.Self;

class ReviewsTest {

    @ParameterizedTest
    @CsvSource({
        "NOT_ASKED, 0, false, false, ''",
        "NOT_ASKED, 0, false, true, ''",
        "NOT_ASKED, 1, true, false, selfShare share-of-nobody",
        "NOT_ASKED, -1, true, false, selfShare share-range",
        "ASKED, 0, true, false, ''",
        "ASKED, 100, true, false, ''",
        "ASKED, 101, true, false, selfShare share-range",
        "ASKED, 0, false, false, self no-rubric",
        "FIRST, 20, true, false, ''",
        "FIRST, 0, true, true, self rubric-hidden",
    })
    void whatAPromptCanAskFor(Self self, int share, boolean hasRubric, boolean hidden, String refused) {
        Reviews wanted = new Reviews(self, share);
        if (refused.isEmpty()) {
            assertSame(wanted, wanted.checked(hasRubric, hidden));
            return;
        }
        Refusal refusal = assertThrows(Refusal.class, () -> wanted.checked(hasRubric, hidden));
        assertEquals(refused, refusal.field() + " " + refusal.code());
    }
}

package org.vastporch.core.peers;

import static org.junit.jupiter.api.Assertions.*;

import java.math.BigDecimal;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.vastporch.core.Refusal;
import org.vastporch.core.marking.Marks;
import org.vastporch.core.moderation.State;
import org.vastporch.core.peers.PeerReading.Answer;
import org.vastporch.core.peers.PeerReading.Facts;
import org.vastporch.core.rubrics.Rubric;

class PeerReadingTest {

    private static final List<Rubric.Level> LEVELS =
            List.of(new Rubric.Level("low", BigDecimal.ZERO, ""), new Rubric.Level("high", BigDecimal.ONE, ""));
    private static final Rubric TWO = new Rubric(List.of(
            new Rubric.Criterion("a", "Evidence", BigDecimal.ONE, LEVELS),
            new Rubric.Criterion("b", "Voice", BigDecimal.ONE, LEVELS)));

    @ParameterizedTest
    @CsvSource({
        "DRAFT, false, false, true, true, true, ALLOWED, true",
        "RETURNED, false, false, true, true, true, ALLOWED, true",
        "DRAFT, false, false, true, true, false, OUTDATED, true",
        "DRAFT, true, false, true, true, true, ENDED, false",
        "DRAFT, false, true, true, true, true, ENDED, false",
        "DRAFT, false, false, false, true, true, PAPER_GONE, false",
        "DRAFT, false, false, true, false, true, WARM_UP_FIRST, false",
        "DRAFT, false, false, true, false, false, WARM_UP_FIRST, false",
        "DRAFT, false, false, false, false, true, PAPER_GONE, false",
        "WAITING, false, false, true, false, true, SENT, false",
        "WAITING, false, false, true, true, true, SENT, false",
        "PUBLISHED, false, true, false, true, false, SENT, false",
        "PUBLISHED, true, false, true, true, true, ENDED, false",
        "HIDDEN, false, false, true, true, true, SENT, false",
        "RETURNED, true, false, true, true, true, ENDED, false",
    })
    void aStepIsTakenWhileTheReviewIsItsReaders(
            State state,
            boolean ended,
            boolean over,
            boolean there,
            boolean warm,
            boolean seen,
            Answer answer,
            boolean readsThePaper) {
        Facts review = new Facts(state, ended, over, there, warm, seen);
        assertEquals(answer, PeerReading.give(review));
        assertEquals(readsThePaper, PeerReading.reads(review), "the right to the paper ends with the review");
    }

    @ParameterizedTest
    @CsvSource({
        "DRAFT, false, NOT_BEGUN",
        "DRAFT, true, BEGUN",
        "WAITING, true, WAITS",
        "RETURNED, true, RETURNED",
        "PUBLISHED, true, DONE",
        "HIDDEN, true, TAKEN_DOWN",
        "BINNED, true, TAKEN_DOWN",
    })
    void howFarItHasCome(State state, boolean isBegun, PeerReading.Stage stage) {
        assertEquals(stage, PeerReading.stage(state, isBegun));
    }

    @ParameterizedTest
    @EnumSource(State.class)
    void onlyWhatItsAuthorReadsCounts(State state) {
        assertEquals(state == State.PUBLISHED, PeerReading.counts(state));
    }

    @Test
    void onlyWhatIsWholeIsSent() {
        Marks.Mark one = new Marks.Mark("a", BigDecimal.ONE, false, "");
        Marks whole = Marks.of(List.of(one, new Marks.Mark("b", BigDecimal.ZERO, false, "")));
        PeerReading.requireWhole(TWO, whole, List.of("Yes."));
        assertEquals(
                "steps-missing",
                assertThrows(Refusal.class, () -> PeerReading.requireWhole(TWO, Marks.of(List.of(one)), List.of()))
                        .code());
        assertEquals(
                "answers-missing",
                assertThrows(Refusal.class, () -> PeerReading.requireWhole(TWO, whole, List.of("Yes.", "")))
                        .code());
    }

    @Test
    void anAnswerHasItsLength() {
        assertEquals("x".repeat(4000), PeerReading.answer("x".repeat(4000)));
        assertEquals("So.", PeerReading.answer(" So.\n"));
        assertThrows(Refusal.class, () -> PeerReading.answer("x".repeat(4001)));
    }
}

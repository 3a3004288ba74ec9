package org.vastporch.core.reviews;

import static org.junit.jupiter.api.Assertions.*;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastporch.core.Refusal;
import org.vastporch.core.reviews.SecondReading.Candidate;
import org.vastporch.core.reviews.SecondReading.Which;

class SecondReadingTest {

    private static List<Candidate> papers(int n) {
        return LongStream.rangeClosed(1, n)
                .mapToObj(p -> new Candidate(n + 1 - p, 2.0, false))
                .toList();
    }

    @Test
    void allAreReadInTheOrderOfTheirNumbers() {
        assertEquals(List.of(1L, 2L, 3L), SecondReading.chosen(papers(3), Which.ALL, 1, 7));
        assertEquals(List.of(), SecondReading.chosen(List.of(), Which.EVERY, 4, 7));
    }

    @Test
    void everyNthBeginsWhereTheSeedSaysAndLeavesOutNoneForGood() {
        Set<Long> ever = new HashSet<>();
        for (long seed = 0; seed < 60; seed++) {
            List<Long> chosen = SecondReading.chosen(papers(22), Which.EVERY, 4, seed);
            assertEquals(chosen, SecondReading.chosen(papers(22), Which.EVERY, 4, seed));
            assertTrue(chosen.size() == 5 || chosen.size() == 6);
            for (int i = 1; i < chosen.size(); i++) assertEquals(4, chosen.get(i) - chosen.get(i - 1));
            ever.addAll(chosen);
        }
        assertEquals(22, ever.size());
    }

    @ParameterizedTest
    @CsvSource({
        "1.5, false, true",
        "1.375, false, true",
        "1.37, false, false",
        "1.625, false, true",
        "1.63, false, false",
        "2.0, false, false",
        "2.0, true, true",
        "0.5, false, true",
    })
    void nearAnEdgeIsAboutHalfwayBetweenTwoSteps(double step, boolean isBetween, boolean chosen) {
        List<Candidate> one = List.of(new Candidate(9, step, isBetween));
        assertEquals(chosen ? List.of(9L) : List.of(), SecondReading.chosen(one, Which.NEAR_EDGE, 1, 0));
    }

    @Test
    void whatIsNotMarkedYetLiesAtNoEdge() {
        assertEquals(List.of(), SecondReading.chosen(List.of(new Candidate(9, null, false)), Which.NEAR_EDGE, 1, 0));
    }

    @ParameterizedTest
    @CsvSource({"0", "101", "-3"})
    void everyZerothIsNone(int every) {
        assertEquals(
                "every",
                assertThrows(Refusal.class, () -> SecondReading.chosen(papers(3), Which.EVERY, every, 0))
                        .field());
    }

    /** Nothing there; blind; finished; settled; as seen. */
    @ParameterizedTest
    @CsvSource({
        "false, false, false, false, true, ALLOWED",
        "false, false, true, false, true, ALLOWED",
        "false, true, false, false, true, ALLOWED",
        "false, true, true, false, true, DONE_BLIND",
        "false, true, true, true, true, SETTLED",
        "false, false, true, true, false, SETTLED",
        "true, false, false, false, false, NOTHING_HANDED_IN",
        "false, false, false, false, false, OUTDATED",
        "false, true, true, false, false, DONE_BLIND",
    })
    void whatItTakes(
            boolean isEmpty,
            boolean isBlind,
            boolean isFinished,
            boolean isSettled,
            boolean isAsSeen,
            SecondReading.Answer answer) {
        assertEquals(
                answer, SecondReading.give(new SecondReading.Facts(isEmpty, isBlind, isFinished, isSettled, isAsSeen)));
    }

    @ParameterizedTest
    @CsvSource({
        "0, 0, 0, false",
        "0, 1, 0, true",
        "1, -1, 1, false",
        "1, 1, -2, true",
        "1, 2, 0, true",
        "2, -2, 2, false"
    })
    void itComesBackIfAnyCriterionIsTooFarApart(int most, int one, int other, boolean back) {
        assertEquals(
                back,
                SecondReading.comesBack(List.of(new Apart("a", "A", one, 3), new Apart("b", "B", other, 3)), most));
        assertFalse(SecondReading.comesBack(List.of(), most));
    }
}

package org.vastporch.core.marking;

import static org.junit.jupiter.api.Assertions.*;

import java.math.BigDecimal;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.core.rubrics.Rubric.Criterion;
import org.vastporch.core.rubrics.Rubric.Level;

/** What readings besides the marker's are of a score. */
class PaperScoreTest {

    private static final BigDecimal TEN = BigDecimal.TEN;
    private static final Rubric RUBRIC = new Rubric(List.of(criterion("a", 3), criterion("b", 3)));

    private static Criterion criterion(String id, int highest) {
        return new Criterion(
                id,
                id,
                BigDecimal.ONE,
                List.of(
                        new Level("low", BigDecimal.ZERO, ""),
                        new Level("mid", BigDecimal.ONE, ""),
                        new Level("high", BigDecimal.valueOf(highest), "")));
    }

    private static Map<String, BigDecimal> points(String a, String b) {
        return Map.of("a", new BigDecimal(a), "b", new BigDecimal(b));
    }

    private static String score(Map<String, BigDecimal> lead, Set<String> out, PaperScore.Share... shares) {
        return PaperScore.of(RUBRIC, TEN, LateRule.NONE, lead, out, List.of(shares), 0)
                .before()
                .rounded(4)
                .stripTrailingZeros()
                .toPlainString();
    }

    @Test
    void sharesAreWeighedExactly() {
        // The marker gives all 10; the author 3 + 0 of 6, which is 5: a fifth of that and four fifths of 10.
        assertEquals("9", score(points("3", "3"), Set.of(), new PaperScore.Share(20, points("3", "0"))));
        // 1 + 0 of 6 is 5/3; 30 % of it and 70 % of 10 is 7.5.
        assertEquals("7.5", score(points("3", "3"), Set.of(), new PaperScore.Share(30, points("1", "0"))));
        // Two of them: 20 % of 5, 30 % of 5/3, half of 10.
        assertEquals(
                "6.5",
                score(
                        points("3", "3"),
                        Set.of(),
                        new PaperScore.Share(20, points("3", "0")),
                        new PaperScore.Share(30, points("1", "0"))));
        assertEquals("5", score(points("3", "3"), Set.of(), new PaperScore.Share(100, points("0", "3"))));
    }

    @Test
    void aShareThatIsNotThereGoesToTheMarker() {
        assertEquals("10", score(points("3", "3"), Set.of()));
        assertEquals("10", score(points("3", "3"), Set.of(), new PaperScore.Share(40, Map.of())));
        // What it says nothing of is not in its part: of criterion a alone it is 0.
        assertEquals("6", score(points("3", "3"), Set.of(), new PaperScore.Share(40, Map.of("a", BigDecimal.ZERO))));
    }

    @Test
    void whatDoesNotCountForAStudentCountsInNoShare() {
        // Of b alone: the marker all, the author nothing.
        assertEquals("5", score(points("0", "3"), Set.of("a"), new PaperScore.Share(50, points("3", "0"))));
        assertEquals(
                "10", score(points("0", "3"), Set.of("a"), new PaperScore.Share(50, Map.of("a", BigDecimal.ZERO))));
    }

    @Test
    void whatTheMarkerLeavesOpenIsStillOpen() {
        PaperScore half = PaperScore.of(
                RUBRIC,
                TEN,
                LateRule.NONE,
                Map.of("a", BigDecimal.valueOf(3)),
                Set.of(),
                List.of(new PaperScore.Share(50, points("0", "0"))),
                0);
        assertTrue(half.before().provisional());
        assertEquals(1, half.before().open());
        assertEquals(new BigDecimal("5.0"), half.before().rounded(1));
    }

    @Test
    void latenessTakesFromTheWhole() {
        LateRule tenth = new LateRule(new BigDecimal("0.1"), BigDecimal.ONE, BigDecimal.ZERO);
        PaperScore late = PaperScore.of(
                RUBRIC, TEN, tenth, points("3", "3"), Set.of(), List.of(new PaperScore.Share(20, points("3", "0"))), 2);
        assertEquals(new BigDecimal("9.0"), late.before().rounded(1));
        assertEquals(new BigDecimal("7.2"), late.score().rounded(1));
    }
}

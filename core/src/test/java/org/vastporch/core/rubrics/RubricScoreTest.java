package org.vastporch.core.rubrics;

import static org.junit.jupiter.api.Assertions.*;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.vastporch.core.Refusal;
import org.vastporch.core.marking.LateRule;
import org.vastporch.core.rubrics.Rubric.Criterion;
import org.vastporch.core.rubrics.Rubric.Level;

class RubricScoreTest {

    private static BigDecimal d(String text) {
        return new BigDecimal(text);
    }

    private static Criterion criterion(String name, String weight, String... points) {
        List<Level> levels = new ArrayList<>();
        for (String p : points) levels.add(new Level(p, d(p), ""));
        return new Criterion("", name, d(weight), levels);
    }

    private static final Rubric GARDEN = new Rubric(List.of(
            criterion("Observation", "2", "0", "2", "4", "6"),
            criterion("Evidence", "2", "0", "2", "4", "6"),
            criterion("Reflection", "1", "0", "1", "2", "3"),
            criterion("For readers", "1", "0", "1", "2", "3")));

    @Test
    void addsUpByWeightAndIsProvisionalWhileOneIsMissing() {
        RubricScore full = RubricScore.of(
                GARDEN, d("18"), Map.of("c1", d("6"), "c2", d("4"), "c3", d("2"), "c4", d("3")), Set.of());
        assertEquals(d("15.00"), full.rounded(2)); // 18 × (2·1 + 2·⅔ + 1·⅔ + 1·1) / 6
        assertFalse(full.provisional());
        RubricScore part = RubricScore.of(GARDEN, d("18"), Map.of("c1", d("6")), Set.of("c4"));
        assertEquals(2, part.open());
        assertEquals(d("18"), part.rounded(0));
    }

    @Test
    void neverRoundsOnTheWay() {
        Rubric thirds = new Rubric(List.of(
                criterion("A", "1", "0", "1", "3"),
                criterion("B", "1", "0", "1", "3"),
                criterion("C", "1", "0", "1", "3")));
        RubricScore third = RubricScore.of(thirds, d("9"), Map.of("c1", d("1"), "c2", d("1"), "c3", d("1")), Set.of());
        assertEquals(d("3"), third.rounded(0));
        assertEquals(1, third.denominator().intValue());
    }

    @Test
    void agreesWithThePlainSumWhereWeightsAreTheMaxima() {
        Random random = new Random(3);
        for (int i = 0; i < 500; i++) {
            List<Criterion> criteria = new ArrayList<>();
            Map<String, BigDecimal> given = new HashMap<>();
            int sum = 0;
            int most = 0;
            for (int c = 0; c <= random.nextInt(5); c++) {
                int max = 1 + random.nextInt(9);
                int points = random.nextInt(max + 1);
                criteria.add(criterion("c" + c, "" + max, "0", "" + max));
                given.put("c" + (c + 1), BigDecimal.valueOf(points));
                sum += points;
                most += max;
            }
            RubricScore score = RubricScore.of(new Rubric(criteria), BigDecimal.valueOf(most), given, Set.of());
            assertEquals(BigDecimal.valueOf(sum), score.rounded(0));
            assertEquals(1, score.denominator().intValue());
        }
    }

    @Test
    void refusesPointsOutsideACriterionAndBadRubrics() {
        var e = assertThrows(Refusal.class, () -> RubricScore.of(GARDEN, d("18"), Map.of("c1", d("7")), Set.of()));
        assertEquals("\"Observation\" goes from 0 to 6, not 7.", e.getMessage());
        assertThrows(Refusal.class, () -> criterion("x", "0", "0", "1"));
        assertThrows(Refusal.class, () -> criterion("x", "1", "2", "1"));
        assertThrows(Refusal.class, () -> new Rubric(List.of()));
    }

    /** A floor that was cut to whole points lifted ten thirds to three and a half. */
    @Test
    void aFloorOfHalfAPointLiftsNothing() {
        Rubric thirds = new Rubric(List.of(criterion("Thirds", "1", "0", "1", "3")));
        RubricScore third = RubricScore.of(thirds, d("10"), Map.of("c1", d("1")), Set.of());
        LateRule rule = new LateRule(d("0.1"), d("0.5"), d("3.5"));
        assertEquals(third, rule.apply(third, 1));
        assertEquals(d("3.33"), rule.apply(third, 1).rounded(2));
        RubricScore full = RubricScore.of(thirds, d("4"), Map.of("c1", d("3")), Set.of());
        assertEquals(d("3.60"), rule.apply(full, 1).rounded(2));
        assertEquals(d("3.50"), rule.apply(full, 2).rounded(2));
    }

    @Test
    void latenessTakesADayAtATimeUpToItsCapAndNotUnderTheFloor() {
        LateRule rule = new LateRule(d("0.05"), d("0.5"), d("8"));
        RubricScore full = RubricScore.of(
                GARDEN, d("18"), Map.of("c1", d("6"), "c2", d("6"), "c3", d("3"), "c4", d("3")), Set.of());
        assertEquals(d("18.00"), rule.apply(full, 0).rounded(2));
        assertEquals(d("17.10"), rule.apply(full, 1).rounded(2));
        assertEquals(d("9.00"), rule.apply(full, 30).rounded(2));
        RubricScore half = RubricScore.of(
                GARDEN, d("18"), Map.of("c1", d("2"), "c2", d("4"), "c3", d("2"), "c4", d("1")), Set.of());
        assertEquals(d("9.00"), half.rounded(2));
        assertEquals(d("8.00"), rule.apply(half, 30).rounded(2));
        RubricScore poor = RubricScore.of(
                GARDEN, d("18"), Map.of("c1", d("2"), "c2", d("2"), "c3", d("1"), "c4", d("1")), Set.of());
        assertEquals(d("6.00"), rule.apply(poor, 1).rounded(2), "what is under the floor is left alone");
        assertThrows(Refusal.class, () -> new LateRule(d("1.1"), d("1"), d("0")));
    }
}

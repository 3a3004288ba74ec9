package org.vastporch.core.reviews;

import static org.junit.jupiter.api.Assertions.*;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.vastporch.core.marking.Marks;
import org.vastporch.core.rubrics.Fraction;
import org.vastporch.core.rubrics.Rubric;

class ApartTest {

    private static Rubric.Criterion criterion(String id, String name, int... points) {
        List<Rubric.Level> levels = new ArrayList<>();
        for (int p : points) levels.add(new Rubric.Level("at " + p, BigDecimal.valueOf(p), ""));
        return new Rubric.Criterion(id, name, BigDecimal.ONE, levels);
    }

    private static final Rubric RUBRIC = new Rubric(List.of(
            criterion("obs", "Observation", 0, 2, 4, 6),
            criterion("ev", "Evidence", 0, 1, 5),
            criterion("refl", "Reflection", 1, 2)));

    private static Marks marks(Map<String, String> points) {
        return Marks.of(points.entrySet().stream()
                .map(e -> new Marks.Mark(e.getKey(), new BigDecimal(e.getValue()), false, ""))
                .toList());
    }

    @Test
    void stepsAreCountedNotPoints() {
        // From 1 to 5 points is one step of three, from 0 to 6 three of four.
        List<Apart> apart = Apart.of(
                RUBRIC,
                marks(Map.of("obs", "0", "ev", "5", "refl", "2")),
                marks(Map.of("obs", "6", "ev", "1", "refl", "2")));
        assertEquals(
                List.of(
                        new Apart("obs", "Observation", -3, 3),
                        new Apart("ev", "Evidence", 1, 2),
                        new Apart("refl", "Reflection", 0, 1)),
                apart);
        assertEquals(
                List.of(Fraction.ZERO, Fraction.of(new BigDecimal("0.5")), Fraction.of(BigDecimal.ONE)),
                apart.stream().map(Apart::nearness).toList());
    }

    @Test
    void pointsBetweenTwoLevelsStandOnTheLowerOne() {
        assertEquals(
                List.of(new Apart("obs", "Observation", 1, 3)),
                Apart.of(RUBRIC, marks(Map.of("obs", "4.5")), marks(Map.of("obs", "3.9999"))));
    }

    @Test
    void whatOneSideLeavesOpenSaysNothing() {
        Marks remarkAlone = Marks.of(List.of(new Marks.Mark("ev", null, false, "not sure")));
        assertEquals(List.of(), Apart.of(RUBRIC, remarkAlone, marks(Map.of("ev", "1", "obs", "2"))));
        assertEquals(List.of(), Apart.of(RUBRIC, marks(Map.of("ev", "1")), Marks.NONE));
        Marks notCounted = Marks.of(List.of(new Marks.Mark("ev", BigDecimal.ONE, true, "")));
        assertEquals(List.of(), Apart.of(RUBRIC, marks(Map.of("ev", "1")), notCounted));
    }
}

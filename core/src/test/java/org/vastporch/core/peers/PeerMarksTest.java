package org.vastporch.core.peers;

import static org.junit.jupiter.api.Assertions.*;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastporch.core.marking.Marks;
import org.vastporch.core.rubrics.Rubric;

class PeerMarksTest {

    private static final Rubric RUBRIC = new Rubric(List.of(criterion("a"), criterion("b")));

    private static Rubric.Criterion criterion(String id) {
        return new Rubric.Criterion(
                id,
                "Criterion " + id,
                BigDecimal.ONE,
                IntStream.range(0, 5)
                        .mapToObj(i -> new Rubric.Level("level " + i, BigDecimal.valueOf(i), ""))
                        .toList());
    }

    private static Marks marks(double a, double b) {
        return Marks.of(List.of(
                new Marks.Mark("a", BigDecimal.valueOf(a), false, ""),
                new Marks.Mark("b", BigDecimal.valueOf(b), false, "")));
    }

    @ParameterizedTest
    @CsvSource({"'1', 1", "'1 4', 2.5", "'0 4 4', 4", "'4 0 1', 1", "'1 2 3 4', 2.5", "'3 0 0 3', 1.5", "'2 2', 2"})
    void theMedianIsExact(String given, BigDecimal median) {
        List<Marks> all = Arrays.stream(given.split(" "))
                .map(p -> marks(Double.parseDouble(p), 0))
                .toList();
        assertEquals(0, median.compareTo(PeerMarks.median(all).get("a")));
    }

    @Test
    void whatNobodyGaveHasNone() {
        Marks one = Marks.of(List.of(new Marks.Mark("a", BigDecimal.ONE, false, "")));
        assertEquals(Map.of("a", BigDecimal.ONE), PeerMarks.median(List.of(one, Marks.NONE)));
        assertEquals(Map.of(), PeerMarks.median(List.of()));
    }

    /** Half of them give no more and half no less, whatever the order. */
    @Test
    void asManyLieAboveTheMedianAsBelow() {
        Random random = new Random(7);
        for (int round = 0; round < 500; round++) {
            List<Marks> all = new ArrayList<>();
            for (int i = 0; i <= random.nextInt(7); i++) all.add(marks(random.nextInt(5), random.nextInt(5)));
            BigDecimal median = PeerMarks.median(all).get("b");
            long above = all.stream()
                    .filter(m -> m.points().get("b").compareTo(median) > 0)
                    .count();
            long below = all.stream()
                    .filter(m -> m.points().get("b").compareTo(median) < 0)
                    .count();
            assertTrue(2 * above <= all.size() && 2 * below <= all.size());
        }
    }

    @Test
    void whoLiesFarFromAllOthersIsTold() {
        List<Marks> others = List.of(marks(3, 3), marks(4, 3), marks(3, 4));
        assertEquals(0, PeerMarks.distance(RUBRIC, marks(3, 3), others).getAsDouble());
        assertEquals(1.5, PeerMarks.distance(RUBRIC, marks(1, 2), others).getAsDouble());
        assertTrue(PeerMarks.isFar(RUBRIC, marks(1, 2), others));
        assertFalse(PeerMarks.isFar(RUBRIC, marks(2, 2), others));
    }

    @Test
    void nobodyIsFarFromOneOther() {
        assertTrue(PeerMarks.distance(RUBRIC, marks(0, 0), List.of(marks(4, 4))).isEmpty());
        assertFalse(PeerMarks.isFar(RUBRIC, marks(0, 0), List.of(marks(4, 4))));
        assertTrue(PeerMarks.isFar(RUBRIC, marks(0, 0), List.of(marks(4, 4), marks(4, 4))));
        assertTrue(PeerMarks.distance(RUBRIC, Marks.NONE, List.of(marks(4, 4), marks(4, 4)))
                .isEmpty());
    }
}

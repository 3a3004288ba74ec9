package org.vastporch.core.rubrics;

import static org.junit.jupiter.api.Assertions.*;

import java.math.BigDecimal;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastporch.core.Refusal;
import org.vastporch.core.rubrics.Rubric.Criterion;
import org.vastporch.core.rubrics.Rubric.Level;

class MeasureTest {

    private static final List<Level> LEVELS = List.of(level("none", 0), level("some", 2), level("all", 4));

    private static Level level(String name, int points) {
        return new Level(name, BigDecimal.valueOf(points), "");
    }

    private static Criterion counting(Measure... measures) {
        return new Criterion("", "Evidence", BigDecimal.ONE, LEVELS, List.of(measures));
    }

    @ParameterizedTest
    @CsvSource(nullValues = "-", delimiter = '|', textBlock = """
        # words | pictures | proposed
        0       | 0        | none
        49      | 5        | none
        50      | 0        | none
        50      | 1        | some
        100     | 1        | some
        99      | 2        | some
        100     | 2        | all
        -       | 2        | -
        100     | -        | -
        """)
    void proposesTheHighestLevelThatAllNumbersReach(Integer words, Integer pictures, String proposed) {
        Criterion criterion = counting(
                new Measure(Counted.WORDS, List.of(50, 100)),
                new Measure(Counted.PICTURES, List.of(1, 2)),
                new Measure(Counted.LINKS, List.of()));
        Map<Counted, Integer> numbers = new EnumMap<>(Counted.class);
        if (words != null) numbers.put(Counted.WORDS, words);
        if (pictures != null) numbers.put(Counted.PICTURES, pictures);
        assertEquals(Optional.ofNullable(proposed), criterion.proposed(numbers).map(Level::name));
    }

    @Test
    void whereNothingSpeaksForALevelNoneIsProposed() {
        assertEquals(Optional.empty(), counting().proposed(Map.of(Counted.WORDS, 500)));
        assertEquals(
                Optional.empty(),
                counting(new Measure(Counted.WORDS, List.of())).proposed(Map.of(Counted.WORDS, 500)));
        assertEquals(
                "some",
                counting(new Measure(Counted.WORDS, List.of(50)))
                        .proposed(Map.of(Counted.WORDS, 5_000))
                        .orElseThrow()
                        .name(),
                "nothing speaks for the highest");
    }

    /** More of anything never proposes less. */
    @Test
    void moreNeverProposesLess() {
        Random random = new Random(16);
        for (int i = 0; i < 2_000; i++) {
            int first = random.nextInt(20);
            Criterion criterion = counting(
                    new Measure(Counted.WORDS, List.of(first, first + 1 + random.nextInt(20))),
                    new Measure(Counted.TAGS, List.of(random.nextInt(4))));
            int words = random.nextInt(50);
            int tags = random.nextInt(5);
            BigDecimal fewer = points(criterion, words, tags);
            assertTrue(fewer.compareTo(points(criterion, words + random.nextInt(9), tags + random.nextInt(2))) <= 0);
        }
    }

    private static BigDecimal points(Criterion criterion, int words, int tags) {
        return criterion
                .proposed(Map.of(Counted.WORDS, words, Counted.TAGS, tags))
                .orElseThrow()
                .points();
    }

    @Test
    void whatCannotBeCountedSoIsRefused() {
        assertThrows(Refusal.class, () -> new Measure(Counted.WORDS, List.of(5, 5)));
        assertThrows(Refusal.class, () -> new Measure(Counted.WORDS, List.of(-1)));
        assertThrows(Refusal.class, () -> new Measure(null, List.of()));
        Measure words = new Measure(Counted.WORDS, List.of(1, 2));
        assertThrows(Refusal.class, () -> counting(words, words));
        assertThrows(Refusal.class, () -> counting(new Measure(Counted.WORDS, List.of(1, 2, 3))));
    }
}

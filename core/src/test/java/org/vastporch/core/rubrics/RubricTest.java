package org.vastporch.core.rubrics;

import static org.junit.jupiter.api.Assertions.*;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastporch.core.Refusal;
import org.vastporch.core.rubrics.Rubric.Criterion;
import org.vastporch.core.rubrics.Rubric.Level;

class RubricTest {

    private static Level level(String name, String points) {
        return new Level(name, new BigDecimal(points), "");
    }

    private static Criterion criterion(String id, String name) {
        return new Criterion(id, name, BigDecimal.ONE, List.of(level("low", "0"), level("high", "3")));
    }

    private static List<String> ids(Criterion... criteria) {
        return new Rubric(List.of(criteria))
                .criteria().stream().map(Criterion::id).toList();
    }

    @Test
    void whoHasNoIdentityIsGivenOneThatIsFree() {
        assertEquals(List.of("c1", "c2"), ids(criterion("", "A"), criterion("", "B")));
        assertEquals(List.of("c2", "c1", "c3"), ids(criterion("c2", "A"), criterion("", "B"), criterion("", "C")));
        assertEquals(List.of("x", "c1"), ids(criterion("x", "A"), criterion("", "B")));
        assertEquals("criterion-id", refused(() -> ids(criterion("x", "A"), criterion("x", "B"))));
    }

    @Test
    void namesAreTaken() {
        assertEquals("criterion-name", refused(() -> ids(criterion("", "Voice"), criterion("", " voice "))));
        assertEquals(
                "level-name",
                refused(() ->
                        new Criterion("", "A", BigDecimal.ONE, List.of(level("good", "0"), level("Good ", "3")))));
        new Criterion("", "A", BigDecimal.ONE, List.of(level("", "0"), level("", "3")));
    }

    @Test
    void goesFromOneToTwelveCriteriaOfTwoToEightLevels() {
        assertEquals("rubric-empty", refused(() -> new Rubric(List.of())));
        new Rubric(many(12));
        assertEquals("rubric-too-long", refused(() -> new Rubric(many(13))));
        assertEquals("criterion-levels", refused(() -> levels(1)));
        levels(8);
        assertEquals("criterion-levels", refused(() -> levels(9)));
    }

    private static List<Criterion> many(int many) {
        return IntStream.range(0, many).mapToObj(i -> criterion("", "n" + i)).toList();
    }

    private static Criterion levels(int many) {
        List<Level> levels = new ArrayList<>();
        for (int i = 0; i < many; i++) levels.add(level("l" + i, "" + i));
        return new Criterion("", "A", BigDecimal.ONE, levels);
    }

    @ParameterizedTest
    @CsvSource(textBlock = """
        # weight, low, high, code
        0,        0,   1,          criterion-weight
        -1,       0,   1,          criterion-weight
        1,        -1,  1,          points-range
        1,        2,   1,          levels-order
        1,        1,   1,          levels-order
        1,        0,   10001,      points-range
        1,        0,   3.33333,    points-places
        0.00001,  0,   1,          points-places
        1e9,      0,   1,          points-range
        """)
    void numbersThatMakeNoSenseAreRefused(String weight, String low, String high, String code) {
        assertEquals(
                code,
                refused(() -> new Criterion(
                        "", "A", new BigDecimal(weight), List.of(level("low", low), level("high", high)))));
    }

    @Test
    void pointsBetweenTheStepsMayBeGivenAndNoneBeyondThem() {
        Criterion of =
                new Criterion("", "Voice", BigDecimal.ONE, List.of(level("a", "1"), level("b", "2"), level("c", "4")));
        of.require(new BigDecimal("1"));
        of.require(new BigDecimal("3.3333"));
        of.require(new BigDecimal("4.000000"));
        assertEquals("points-range", refused(() -> of.require(new BigDecimal("0.9"))));
        assertEquals("points-range", refused(() -> of.require(new BigDecimal("4.1"))));
        assertEquals("points-places", refused(() -> of.require(new BigDecimal("3.33333333"))));
        assertEquals("b", of.above(BigDecimal.ONE).orElseThrow().name());
        assertEquals("c", of.above(new BigDecimal("2.5")).orElseThrow().name());
        assertTrue(of.above(new BigDecimal("4")).isEmpty());
        assertEquals("a", of.reached(BigDecimal.ONE).name());
        assertEquals("b", of.reached(new BigDecimal("3.9")).name());
        assertEquals("c", of.reached(new BigDecimal("4")).name());
    }

    private static String refused(Runnable of) {
        return assertThrows(Refusal.class, of::run).code();
    }
}

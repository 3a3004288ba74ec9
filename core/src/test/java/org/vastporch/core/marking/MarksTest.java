package org.vastporch.core.marking;

import static org.junit.jupiter.api.Assertions.*;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.vastporch.core.Refusal;
import org.vastporch.core.marking.Marks.Mark;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.core.rubrics.Rubric.Criterion;
import org.vastporch.core.rubrics.Rubric.Level;

class MarksTest {

    private static final Rubric RUBRIC = new Rubric(List.of(criterion("a"), criterion("b"), criterion("c")));

    private static Criterion criterion(String id) {
        return new Criterion(
                id,
                "Criterion " + id,
                BigDecimal.ONE,
                List.of(new Level("Low", BigDecimal.ONE, ""), new Level("High", BigDecimal.valueOf(4), "")));
    }

    private static Mark mark(String criterion, @Nullable String points, String remark) {
        return new Mark(criterion, points == null ? null : new BigDecimal(points), false, remark);
    }

    private static Mark without(String criterion) {
        return new Mark(criterion, null, true, "");
    }

    private static MarksTable.Mark said(String criterion, @Nullable String points, @Nullable String remark) {
        return new MarksTable.Mark(criterion, points == null ? null : new BigDecimal(points), false, remark);
    }

    private static String codeOf(Runnable step) {
        return assertThrows(Refusal.class, step::run).code();
    }

    @Test
    void aReadingIsWholeOnceEveryCriterionHasPoints() {
        Rubric.Level low = new Rubric.Level("low", BigDecimal.ZERO, "");
        Rubric.Level high = new Rubric.Level("high", BigDecimal.ONE, "");
        Rubric two = new Rubric(List.of(
                new Rubric.Criterion("x", "X", BigDecimal.ONE, List.of(low, high)),
                new Rubric.Criterion("y", "Y", BigDecimal.ONE, List.of(low, high))));
        Marks one = Marks.NONE.with(two, new Marks.Mark("x", BigDecimal.ZERO, false, ""));
        assertFalse(Marks.NONE.isWhole(two));
        assertFalse(one.isWhole(two));
        assertFalse(one.with(two, new Marks.Mark("y", null, false, "not sure")).isWhole(two));
        assertTrue(
                one.with(two, new Marks.Mark("y", BigDecimal.ZERO, false, "")).isWhole(two));
    }

    @Test
    void aStepGivesWhatItGivesAndNothingElse() {
        Marks before = Marks.of(List.of(mark("a", "2", "clear"), mark("b", "3", "")));
        Marks after = before.with(RUBRIC, mark("a", "1", " less clear "));
        assertEquals(Marks.of(List.of(mark("a", "1", "less clear"), mark("b", "3", ""))), after);
        assertEquals(mark("a", "2", "clear"), before.of("a").orElseThrow(), "what was is still there");
        assertEquals(
                mark("a", null, ""),
                after.with(RUBRIC, mark("a", null, "")).of("a").orElseThrow());
        assertTrue(after.of("c").isEmpty());
    }

    @Test
    void whatDoesNotCountHasNoPoints() {
        assertNull(new Mark("a", BigDecimal.TEN, true, "").points());
    }

    @Test
    void refusesWhatNoMarkerMayGive() {
        assertEquals("points-range", codeOf(() -> Marks.NONE.with(RUBRIC, mark("a", "4.5", ""))));
        assertEquals("points-range", codeOf(() -> Marks.NONE.with(RUBRIC, mark("a", "0.5", ""))));
        assertEquals("points-places", codeOf(() -> Marks.NONE.with(RUBRIC, mark("a", "3.33333", ""))));
        assertEquals("remark-too-long", codeOf(() -> Marks.NONE.with(RUBRIC, mark("a", "2", "x".repeat(4_001)))));
        assertEquals(
                4_000,
                Marks.NONE
                        .with(RUBRIC, mark("a", "2", "x".repeat(4_000)))
                        .of("a")
                        .orElseThrow()
                        .remark()
                        .length());
        assertThrows(IllegalArgumentException.class, () -> Marks.NONE.with(RUBRIC, mark("gone", "2", "")));
        assertEquals("word-too-long", codeOf(() -> Marks.word("x".repeat(10_001))));
        assertEquals("x".repeat(10_000), Marks.word("x".repeat(10_000)));
        assertEquals("well done", Marks.word(" well done\n"));
    }

    @Test
    void oneCriterionAlwaysCounts() {
        Marks one = Marks.NONE.with(RUBRIC, without("a")).with(RUBRIC, without("b"));
        assertEquals("nothing-counts", codeOf(() -> one.with(RUBRIC, without("c"))));
        // What was given for a criterion that is no longer in the rubric keeps nothing alive.
        Marks old = Marks.of(List.of(mark("gone", "2", ""), without("a"), without("b")));
        assertEquals("nothing-counts", codeOf(() -> old.with(RUBRIC, without("c"))));
    }

    @Test
    void whatATableLeavesUnsaidStays() {
        Marks before = Marks.of(List.of(mark("a", "2", "clear"), without("b")));
        Marks after = before.with(
                RUBRIC, List.of(said("a", "3", null), said("b", null, "too short to say"), said("c", null, "later")));
        assertEquals(mark("a", "3", "clear"), after.of("a").orElseThrow());
        assertEquals(
                new Mark("b", null, true, "too short to say"), after.of("b").orElseThrow());
        assertEquals(mark("c", null, "later"), after.of("c").orElseThrow());
        Marks counted = after.with(RUBRIC, List.of(said("b", "2", null)));
        assertEquals(mark("b", "2", "too short to say"), counted.of("b").orElseThrow());
        Marks left = after.with(RUBRIC, List.of(new MarksTable.Mark("a", new BigDecimal("3"), true, null)));
        assertEquals(new Mark("a", null, true, "clear"), left.of("a").orElseThrow());
        assertEquals(before, before.with(RUBRIC, List.of()));
    }

    /** A table may let one criterion count again and another not, in whatever order its columns stand. */
    @Test
    void theOrderOfATableChangesNothing() {
        Random random = new Random(11);
        Marks before = Marks.of(List.of(without("a"), without("b"), mark("c", "2", "")));
        for (int i = 0; i < 200; i++) {
            List<MarksTable.Mark> table = new ArrayList<>(List.of(
                    said("a", "1", null), said("b", null, "still not"), new MarksTable.Mark("c", null, true, null)));
            Marks first = before.with(RUBRIC, table);
            Collections.shuffle(table, random);
            assertEquals(first, before.with(RUBRIC, table));
        }
    }
}

package org.vastporch.core.peers;

import static org.junit.jupiter.api.Assertions.*;

import java.math.BigDecimal;
import java.util.List;
import java.util.OptionalLong;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.vastporch.core.Refusal;
import org.vastporch.core.marking.Marks;
import org.vastporch.core.peers.WarmUp.Answer;
import org.vastporch.core.peers.WarmUp.Near;
import org.vastporch.core.peers.WarmUp.Progress;
import org.vastporch.core.rubrics.Rubric;

class WarmUpTest {

    private static final List<Rubric.Level> LEVELS = List.of(
            new Rubric.Level("none", BigDecimal.ZERO, ""),
            new Rubric.Level("some", BigDecimal.ONE, ""),
            new Rubric.Level("much", BigDecimal.valueOf(3), ""));
    private static final Rubric ASKED = new Rubric(List.of(
            new Rubric.Criterion("a", "Evidence", BigDecimal.ONE, LEVELS),
            new Rubric.Criterion("b", "Voice", BigDecimal.ONE, LEVELS)));

    private static Marks marks(Integer a, Integer b) {
        Marks marks = Marks.NONE;
        if (a != null) marks = marks.with(ASKED, new Marks.Mark("a", BigDecimal.valueOf(a), false, ""));
        if (b != null) marks = marks.with(ASKED, new Marks.Mark("b", BigDecimal.valueOf(b), false, ""));
        return marks;
    }

    private static String refusal(Runnable act) {
        return assertThrows(Refusal.class, act::run).code();
    }

    @Test
    void papersAreJudgedInTheirOrderAndThenItIsOver() {
        Progress begun = new Progress(List.of(4L, 2L, 9L), Set.of(4L));
        assertFalse(begun.isOver());
        assertEquals(OptionalLong.of(2), begun.next());
        assertEquals(1, begun.finished());
        Progress over = new Progress(List.of(4L, 2L), Set.of(2L, 4L, 7L));
        assertTrue(over.isOver());
        assertEquals(OptionalLong.empty(), over.next());
        assertEquals(2, over.finished(), "what was done with a paper that is not ready any more is not told");
        assertTrue(new Progress(List.of(), Set.of()).isOver(), "without papers nobody waits");
    }

    @Test
    void aPaperIsReadyOnceAllThatIsJudgedHasAStep() {
        assertFalse(WarmUp.isReady(ASKED, marks(3, null), true));
        assertTrue(WarmUp.isReady(ASKED, marks(3, 0), true));
        assertTrue(WarmUp.isReady(new Rubric(ASKED.criteria().subList(0, 1)), marks(3, null), true));
        assertFalse(WarmUp.isReady(ASKED, marks(3, 0), false), "its author has not given it, or took it back");
    }

    @Test
    void nobodyWarmsUpOnAnOwnText() {
        assertTrue(WarmUp.isFor(7, null));
        assertTrue(WarmUp.isFor(7, 8L));
        assertFalse(WarmUp.isFor(7, 7L));
        assertFalse(WarmUp.isFor(7_000_000_000L, 7_000_000_000L), "numbers beyond those that Java keeps once");
    }

    @Test
    void whoHasSeenTheStepsKeepsTheOwnOnes() {
        assertEquals(Answer.ALLOWED, WarmUp.give(false, true));
        assertEquals(Answer.OUTDATED, WarmUp.give(false, false));
        assertEquals(Answer.DONE, WarmUp.give(true, true));
        assertEquals(Answer.DONE, WarmUp.give(true, false));
        WarmUp.requireWhole(ASKED, marks(0, 0));
        assertEquals("steps-missing", refusal(() -> WarmUp.requireWhole(ASKED, marks(0, null))));
    }

    @Test
    void howAClassJudgedIsCountedByCriterion() {
        List<Marks> readers = List.of(marks(0, 3), marks(1, 3), marks(3, 1), marks(null, 0));
        assertEquals(
                List.of(new Near("Evidence", 1, 1, 1), new Near("Voice", 2, 2, 0)),
                WarmUp.near(ASKED, marks(1, 3), readers));
        assertEquals(
                List.of(new Near("Evidence", 0, 0, 0), new Near("Voice", 0, 0, 0)),
                WarmUp.near(ASKED, marks(1, 3), List.of()));
    }

    @Test
    void aPaperHasATitleAndSaysSomething() {
        WarmUp.requireText("t".repeat(300), "h".repeat(200_000));
        WarmUp.requireSaid("A slug.");
        assertEquals("title-missing", refusal(() -> WarmUp.requireText(" ", "text")));
        assertEquals("title-too-long", refusal(() -> WarmUp.requireText("t".repeat(301), "text")));
        assertEquals("text-too-long", refusal(() -> WarmUp.requireText("Slugs", "h".repeat(200_001))));
        assertEquals("text-missing", refusal(() -> WarmUp.requireSaid(" \n")));
    }
}

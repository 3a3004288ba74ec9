package org.vastporch.core.prompts;

import static org.junit.jupiter.api.Assertions.*;

import java.math.BigDecimal;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.vastporch.core.prompts.PromptEffects.MarksAside;
import org.vastporch.core.prompts.PromptEffects.Paper;
import org.vastporch.core.prompts.PromptEffects.ScoreChange;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.core.rubrics.Rubric.Criterion;
import org.vastporch.core.rubrics.Rubric.Level;

class PromptEffectsTest {

    private static Paper paper(long student, int daysLate, @Nullable String score, boolean shown, String... marked) {
        return new Paper(student, daysLate, score == null ? null : new BigDecimal(score), shown, Set.of(marked));
    }

    private static Rubric rubric(String... ids) {
        return new Rubric(List.of(ids).stream()
                .map(id -> new Criterion(
                        id,
                        "Criterion " + id,
                        BigDecimal.ONE,
                        List.of(new Level("", BigDecimal.ZERO, ""), new Level("", BigDecimal.ONE, ""))))
                .toList());
    }

    @Test
    void saysWhoBecomesLateAndWhoOnTime() {
        PromptEffects effects = PromptEffects.of(
                true,
                null,
                null,
                List.of(
                        paper(1, 0, null, false),
                        paper(2, 1, null, false),
                        paper(3, 2, null, false),
                        paper(4, 0, null, false)),
                List.of(
                        paper(1, 1, null, false),
                        paper(2, 0, null, false),
                        paper(3, 1, null, false),
                        paper(4, 0, null, false)));
        assertEquals(List.of(1L), effects.becomeLate());
        assertEquals(List.of(2L), effects.becomeOnTime());
        assertEquals(4, effects.toldDate());
        assertFalse(effects.needsReason());
    }

    @Test
    void aScoreThatWasSeenChangesOnlyWithAReason() {
        List<Paper> were = List.of(paper(1, 0, "3.5", false), paper(2, 0, "4", true), paper(3, 0, null, false));
        PromptEffects unseen = PromptEffects.of(
                false, null, null, were, List.of(paper(1, 0, "3", false), were.get(1), paper(3, 0, "1", false)));
        assertEquals(
                List.of(
                        new ScoreChange(1, new BigDecimal("3.5"), new BigDecimal("3"), false),
                        new ScoreChange(3, null, BigDecimal.ONE, false)),
                unseen.scores());
        assertFalse(unseen.needsReason());
        assertEquals(0, unseen.toldDate());
        PromptEffects seen =
                PromptEffects.of(false, null, null, were, List.of(were.get(0), paper(2, 0, "3.5", true), were.get(2)));
        assertTrue(seen.needsReason());
        assertTrue(unseen.and(seen).needsReason());
        assertEquals(PromptEffects.NONE, PromptEffects.of(false, null, null, were, were));
    }

    @Test
    void saysWhichMarksCountNoMore() {
        List<Paper> papers = List.of(paper(1, 0, null, false, "a", "b"), paper(2, 0, null, false, "a"));
        Rubric before = rubric("a", "b", "c");
        assertEquals(
                List.of(new MarksAside("Criterion b", 1)),
                PromptEffects.of(false, before, rubric("a"), papers, papers).aside(),
                "of c nothing was given");
        assertEquals(
                List.of(new MarksAside("Criterion a", 2), new MarksAside("Criterion b", 1)),
                PromptEffects.of(false, before, null, papers, papers).aside());
        assertEquals(
                List.of(), PromptEffects.of(false, null, before, papers, papers).aside());
    }

    @Test
    void severalPromptsTogetherNameEverybodyOnce() {
        PromptEffects one = new PromptEffects(List.of(1L, 2L), List.of(3L), List.of(), List.of(), 4);
        PromptEffects two = new PromptEffects(
                List.of(2L, 5L),
                List.of(3L),
                List.of(new ScoreChange(1, null, BigDecimal.ONE, false)),
                List.of(new MarksAside("Voice", 2)),
                3);
        assertEquals(new PromptEffects(List.of(1L, 2L, 5L), List.of(3L), two.scores(), two.aside(), 4), one.and(two));
        assertEquals(two, PromptEffects.NONE.and(two));
    }
}

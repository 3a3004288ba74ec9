package org.vastporch.core.agreement;

import static org.junit.jupiter.api.Assertions.*;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.vastporch.core.marking.Marks;
import org.vastporch.core.rubrics.Rubric;

class ComparisonTest {

    private static Rubric rubric(String id, String name, int levels) {
        List<Rubric.Level> of = new ArrayList<>();
        for (int i = 0; i < levels; i++) of.add(new Rubric.Level("step " + i, BigDecimal.valueOf(3L * i), ""));
        return new Rubric(List.of(new Rubric.Criterion(id, name, BigDecimal.ONE, of)));
    }

    private static Marks step(String id, int step) {
        return Marks.of(List.of(new Marks.Mark(id, BigDecimal.valueOf(3L * step), false, "")));
    }

    private static Comparison.Both both(long paper, Rubric rubric, int first, int second) {
        String id = rubric.criteria().get(0).id();
        return new Comparison.Both(paper, rubric, step(id, first), step(id, second));
    }

    @Test
    void criteriaOfOneNameAndAsManyLevelsAreOneWhateverTheirPrompt() {
        Rubric log = rubric("a", "Voice", 4);
        Rubric plan = rubric("b", "Voice", 4);
        Rubric coarse = rubric("c", "Voice", 3);
        Comparison compared = Comparison.of(
                List.of(both(1, log, 0, 1), both(2, plan, 3, 1), both(3, coarse, 2, 2), both(4, log, 2, 2)), 5);
        assertEquals(
                List.of("Voice 4", "Voice 3"),
                compared.criteria().stream()
                        .map(c -> c.name() + " " + c.levels())
                        .toList());
        assertEquals(
                List.of(new Agreement.Pair(0, 1), new Agreement.Pair(3, 1), new Agreement.Pair(2, 2)),
                compared.criteria().get(0).pairs());
        assertEquals(List.of(new Comparison.Gap(2, "Voice", 4, 3, 1)), compared.widest());
        assertEquals(Optional.empty(), compared.criteria().get(0).agreement());
    }

    @Test
    void aCriterionThatOneSideLeavesOpenIsNoPairAndIsStillTold() {
        Rubric log = rubric("a", "Voice", 4);
        Comparison compared = Comparison.of(List.of(new Comparison.Both(1, log, step("a", 1), Marks.NONE)), 5);
        assertEquals(List.of(), compared.criteria().get(0).pairs());
    }

    /** What a plain loop over the levels finds, on generated papers. */
    @Test
    void itSaysWhatAgreementSaysOfThePairs() {
        Random random = new Random(4);
        for (int run = 0; run < 200; run++) {
            Rubric log = rubric("a", "Voice", 2 + random.nextInt(7));
            int levels = log.criteria().get(0).levels().size();
            List<Comparison.Both> papers = new ArrayList<>();
            List<Agreement.Pair> pairs = new ArrayList<>();
            int wide = 0;
            for (int p = 0; p < random.nextInt(30); p++) {
                int first = random.nextInt(levels);
                int second = random.nextInt(levels);
                papers.add(both(p, log, first, second));
                pairs.add(new Agreement.Pair(first, second));
                if (Math.abs(first - second) > 1) wide++;
            }
            Comparison compared = Comparison.of(papers, run);
            if (papers.isEmpty()) {
                assertEquals(List.of(), compared.criteria());
                continue;
            }
            assertEquals(pairs, compared.criteria().get(0).pairs());
            assertEquals(Agreement.of(pairs, run), compared.criteria().get(0).agreement());
            List<Comparison.Gap> widest = compared.widest();
            assertEquals(Math.min(12, wide), widest.size());
            for (int i = 1; i < widest.size(); i++)
                assertTrue(widest.get(i - 1).wide() >= widest.get(i).wide());
        }
    }

    @Test
    void theMeanStepIsOfWhatWasGiven() {
        Rubric two = new Rubric(List.of(
                rubric("a", "Voice", 4).criteria().get(0),
                rubric("b", "Shape", 3).criteria().get(0)));
        assertEquals(Optional.of(2.0), Comparison.meanStep(two, step("a", 2)));
        Marks all = Marks.of(Map.of("a", 6, "b", 3).entrySet().stream()
                .map(e -> new Marks.Mark(e.getKey(), BigDecimal.valueOf(e.getValue()), false, ""))
                .toList());
        assertEquals(Optional.of(1.5), Comparison.meanStep(two, all));
        assertEquals(Optional.empty(), Comparison.meanStep(two, Marks.NONE));
    }
}

package org.vastporch.core.marking;

import static org.junit.jupiter.api.Assertions.*;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.vastporch.core.marking.Bundle.Never;
import org.vastporch.core.marking.Bundle.Standing;
import org.vastporch.core.rubrics.Fraction;

class ScoreSheetTest {

    private static Fraction f(String number) {
        return Fraction.of(new BigDecimal(number));
    }

    private static Bundle.Paper paper(Standing standing, String score, String points) {
        return new Bundle.Paper(standing, f(score), f(points));
    }

    private static final Bundle LOGS = new Bundle(f("60"), 2, Never.ZERO);
    private static final Bundle PROJECT = new Bundle(f("40"), 0, Never.LEFT_OUT);

    @Test
    void theBestOfABundleCountAndTheBundlesByTheirWeights() {
        ScoreSheet.Line line = ScoreSheet.line(
                List.of(LOGS, PROJECT),
                List.of(
                        paper(Standing.SCORED, "9", "18"),
                        paper(Standing.SCORED, "30", "40"),
                        paper(Standing.SCORED, "18", "18"),
                        paper(Standing.NEVER_CAME, "0", "18"),
                        paper(Standing.SCORED, "5", "5")),
                List.of(0, 1, 0, 0, -1));
        assertEquals(List.of(true, true, true, false, false), line.counts());
        assertEquals(List.of(f("0.75"), f("0.75")), line.shares());
        assertEquals(f("0.75"), line.total());
    }

    @Test
    void aBundleOfWhichNothingCountsTakesNoPart() {
        ScoreSheet.Line line = ScoreSheet.line(
                List.of(LOGS, PROJECT),
                List.of(
                        paper(Standing.SCORED, "9", "18"),
                        paper(Standing.UNRELEASED, "40", "40"),
                        paper(Standing.LET_OFF, "1", "18")),
                List.of(0, 1, 0));
        assertEquals(List.of(true, false, false), line.counts());
        assertEquals(Arrays.asList(f("0.5"), null), line.shares());
        assertEquals(f("0.5"), line.total());
        assertNull(ScoreSheet.line(List.of(PROJECT), List.of(paper(Standing.NEVER_CAME, "0", "9")), List.of(0))
                .total());
        assertNull(ScoreSheet.line(List.of(), List.of(paper(Standing.SCORED, "9", "9")), List.of(-1))
                .total());
    }

    @ParameterizedTest
    @EnumSource(PaperState.class)
    void onlyWhatItsStudentHasSeenIsInTheSum(PaperState state) {
        assertEquals(state == PaperState.RELEASED, ScoreSheet.standing(state, true) == Standing.SCORED);
        assertEquals(state == PaperState.MISSING, ScoreSheet.standing(state, true) == Standing.NEVER_CAME);
        assertEquals(state == PaperState.LET_OFF, ScoreSheet.standing(state, true) == Standing.LET_OFF);
        assertEquals(
                state == PaperState.MISSING ? Standing.LET_OFF : ScoreSheet.standing(state, true),
                ScoreSheet.standing(state, false),
                "whoever came to the class later missed nothing");
    }

    /** A slow sum, written anew: with bundles in which everything counts there is no choice to make. */
    @Test
    void agreesWithASlowSum() {
        Random random = new Random(61);
        for (int i = 0; i < 2_000; i++) {
            List<Bundle> bundles = new ArrayList<>();
            for (int b = 0; b <= random.nextInt(3); b++)
                bundles.add(new Bundle(
                        f("" + (1 + random.nextInt(9))), 0, random.nextBoolean() ? Never.ZERO : Never.LEFT_OUT));
            List<Bundle.Paper> papers = new ArrayList<>();
            List<Integer> in = new ArrayList<>();
            for (int p = 0; p < random.nextInt(7); p++) {
                int points = 1 + random.nextInt(20);
                papers.add(paper(Standing.values()[random.nextInt(4)], "" + random.nextInt(points + 1), "" + points));
                in.add(random.nextInt(bundles.size() + 1) - 1);
            }
            double sum = 0;
            double weights = 0;
            for (int b = 0; b < bundles.size(); b++) {
                double scores = 0;
                double points = 0;
                for (int p = 0; p < papers.size(); p++) {
                    Standing standing = papers.get(p).standing();
                    boolean zero =
                            standing == Standing.NEVER_CAME && bundles.get(b).never() == Never.ZERO;
                    if (in.get(p) != b || standing != Standing.SCORED && !zero) continue;
                    points += papers.get(p).points().n().doubleValue();
                    if (!zero) scores += papers.get(p).score().n().doubleValue();
                }
                if (points == 0) continue;
                double weight = bundles.get(b).weight().n().doubleValue();
                sum += weight * scores / points;
                weights += weight;
            }
            Fraction total = ScoreSheet.line(bundles, papers, in).total();
            if (weights == 0) assertNull(total);
            else assertEquals(sum / weights, total.rounded(9).doubleValue(), 1e-8);
        }
    }
}

package org.vastporch.core.agreement;

import static org.junit.jupiter.api.Assertions.*;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastporch.core.agreement.Agreement.Pair;
import org.vastporch.core.agreement.Agreement.Verdict;

class AgreementTest {

    /** Pairs such as "0-1 2-2 3x1-0": levels of both sides, some of them several times. */
    private static List<Pair> pairs(String text) {
        List<Pair> pairs = new ArrayList<>();
        for (String part : text.split(" ")) {
            int times = part.contains("x") ? Integer.parseInt(part.substring(0, part.indexOf('x'))) : 1;
            String[] levels = part.substring(part.indexOf('x') + 1).split("-");
            pairs.addAll(
                    Collections.nCopies(times, new Pair(Integer.parseInt(levels[0]), Integer.parseInt(levels[1]))));
        }
        return pairs;
    }

    /**
     * Worked by hand. With D the sum of the squares of the distances in the n pairs and A that of all n × n distances
     * between the sides (the sum over levels i, j of how often the first gave i, times how often the second gave j,
     * times (i - j)²), kappa is 1 - n × D / A.
     */
    @ParameterizedTest
    @CsvSource(textBlock = """
                    # pairs,                               kappa,               by hand
                    0-0 2x1-1 2-2 3-3,                    1, 'D = 0'
                    3x0-3 3x3-0,                          -1, 'D = 54, A = 162: 1 - 324/162'
                    2x0-0 2x0-1 2x1-0 2x1-1,              0, 'D = 4, A = 32: 1 - 32/32'
                    2x0-1 2x1-2 2-3,                      0.5283018867924528, 'D = 5, A = 53: 28/53'
                    20x0-0 5x0-1 10x1-0 15x1-1,           0.4, 'of two levels: (0.7 - 0.5) / (1 - 0.5)'
                    11x0-0 3x0-1 0-2 1-0 9x1-1 2-1 10x2-2, 0.8154897494305239, 'D = 9, A = 855 + 230 + 671 = 1756'
                    4x0-0 4x3-3 0-3 3-0,                  0.6, 'D = 18, A = 450: 1 - 180/450'
                    3x0-2 2x1-3,                          0.1071428571428571, 'D = 20, A = 112: 12/112'
                    0-0 1-1 2-2 3-3 0-1,                  0.9180327868852459, 'D = 1, A = 61: 56/61'
                    0-3 2x1-1 2x2-2 3-3,                  0.1818181818181818, 'D = 9, A = 66: 12/66'
                    2x0-1 2x1-0 0-0,                      -0.6666666666666667, 'D = 4, A = 12: 1 - 20/12'
                    7-7 0-0 7-6 0-1 4-4,                  0.9768518518518519, 'D = 2, A = 432: 422/432'
                    5x0-0 5x1-1 2x0-1,                    0.6756756756756757, 'D = 2, A = 12 × 12 - 2 × 5 × 7 = 74: 50/74'
                    """)
    void kappaIsThatOfTheTable(String text, double kappa, String byHand) {
        assertEquals(
                kappa,
                Agreement.of(pairs(text), 1).orElseThrow().kappa().orElseThrow().value(),
                1e-12,
                byHand);
    }

    /**
     * As the definition stands in books: observed and expected tables of shares, weighted by the square of the
     * distance.
     */
    private static double slowKappa(List<Pair> pairs, int levels) {
        double[][] observed = new double[levels][levels];
        double[] first = new double[levels];
        double[] second = new double[levels];
        for (Pair p : pairs) {
            observed[p.first()][p.second()] += 1.0 / pairs.size();
            first[p.first()] += 1.0 / pairs.size();
            second[p.second()] += 1.0 / pairs.size();
        }
        double seen = 0;
        double expected = 0;
        for (int i = 0; i < levels; i++)
            for (int j = 0; j < levels; j++) {
                double weight = (double) (i - j) * (i - j) / ((levels - 1) * (levels - 1));
                seen += weight * observed[i][j];
                expected += weight * first[i] * second[j];
            }
        return 1 - seen / expected;
    }

    private static List<Pair> some(Random random, int levels) {
        List<Pair> pairs = new ArrayList<>();
        for (int i = 5 + random.nextInt(60); i > 0; i--) {
            int first = random.nextInt(levels);
            int second = random.nextInt(3) > 0 ? first : random.nextInt(levels);
            pairs.add(new Pair(first, second));
        }
        return pairs;
    }

    @Test
    void agreesWithASlowReading() {
        Random random = new Random(17);
        for (int i = 0; i < 400; i++) {
            int levels = 2 + random.nextInt(7);
            List<Pair> pairs = some(random, levels);
            Agreement of = Agreement.of(pairs, i).orElseThrow();
            assertEquals(
                    pairs.stream()
                            .mapToInt(p -> p.second() - p.first())
                            .average()
                            .orElseThrow(),
                    of.meanDifference(),
                    1e-12);
            assertEquals(
                    (double) pairs.stream().filter(p -> p.first() == p.second()).count() / pairs.size(),
                    of.exact(),
                    1e-12);
            assertEquals(
                    (double) pairs.stream()
                                    .filter(p -> Math.abs(p.first() - p.second()) <= 1)
                                    .count()
                            / pairs.size(),
                    of.withinOne(),
                    1e-12);
            of.kappa().ifPresent(k -> {
                assertEquals(slowKappa(pairs, levels), k.value(), 1e-9);
                assertTrue(k.low() <= k.high() && k.high() <= 1, k.toString());
            });
        }
    }

    @Test
    void changingSidesTurnsTheDirectionRound() {
        Random random = new Random(18);
        for (int i = 0; i < 100; i++) {
            List<Pair> pairs = some(random, 5);
            Agreement one = Agreement.of(pairs, 3).orElseThrow();
            Agreement other = Agreement.of(
                            pairs.stream()
                                    .map(p -> new Pair(p.second(), p.first()))
                                    .toList(),
                            3)
                    .orElseThrow();
            assertEquals(-one.meanDifference(), other.meanDifference(), 1e-12);
            assertEquals(one.exact(), other.exact());
            assertEquals(one.withinOne(), other.withinOne());
            assertEquals(one.kappa(), other.kappa());
        }
    }

    @Test
    void theIntervalHoldsTheValueOfManyAndIsTheSameForASeed() {
        List<Pair> pairs = pairs("30x0-0 6x0-1 28x1-1 5x1-2 25x2-2 4x2-1 2x3-3");
        Agreement.Kappa kappa = Agreement.of(pairs, 7).orElseThrow().kappa().orElseThrow();
        assertTrue(kappa.low() < kappa.value() && kappa.value() < kappa.high(), kappa.toString());
        assertTrue(kappa.high() - kappa.low() < 0.25, "a hundred pairs tell something: " + kappa);
        assertEquals(Optional.of(kappa), Agreement.of(pairs, 7).orElseThrow().kappa());
        Agreement.Kappa few = Agreement.of(pairs("2x0-0 0-1 2x1-1 2-2"), 7)
                .orElseThrow()
                .kappa()
                .orElseThrow();
        assertTrue(few.high() - few.low() > kappa.high() - kappa.low(), "few pairs tell less");
    }

    @Test
    void nothingIsSaidOfFewerThanFivePairs() {
        assertEquals(Optional.empty(), Agreement.of(pairs("0-0 1-1 2-2 3-3"), 1));
        assertTrue(Agreement.of(pairs("0-0 1-1 2-2 3-3 0-0"), 1).isPresent());
    }

    @Test
    void kappaSaysNothingWhereASideDoesNotVary() {
        Agreement of = Agreement.of(pairs("3x2-2 2x2-3"), 1).orElseThrow();
        assertEquals(Optional.empty(), of.kappa());
        assertEquals(0.6, of.exact(), 1e-12);
        assertEquals(
                Optional.empty(),
                Agreement.of(pairs("3x2-2 2x3-2"), 1).orElseThrow().kappa());
        assertEquals(
                Optional.empty(), Agreement.of(pairs("5x1-1"), 1).orElseThrow().kappa());
    }

    @ParameterizedTest
    @CsvSource({
        "4x1-1 1-2, ALIKE",
        "2x1-1 0-0 2-2 3-3, ALIKE",
        "3x1-2 2x1-1, SECOND_GIVES_MORE",
        "3x2-1 2x1-1, FIRST_GIVES_MORE",
        "2x1-2 2x1-1 2x2-1, APART",
        "1x1-2 3x1-1 1x2-1 5x0-0 1x0-3 1x3-0, APART",
        "2x1-2 2x1-1, NOTHING",
        "5x1-2 5x1-1, SECOND_GIVES_MORE"
    })
    void itComesToAWord(String text, String verdict) {
        assertEquals(
                verdict,
                Agreement.of(pairs(text), 1)
                        .map(Agreement::verdict)
                        .map(Verdict::name)
                        .orElse("NOTHING"));
    }
}

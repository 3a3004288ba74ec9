package org.vastporch.core.marking;

import static org.junit.jupiter.api.Assertions.*;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.vastporch.core.Refusal;
import org.vastporch.core.marking.Bundle.Never;
import org.vastporch.core.marking.Bundle.Paper;
import org.vastporch.core.marking.Bundle.Standing;
import org.vastporch.core.rubrics.Fraction;

class BundleTest {

    private static final Fraction ONE = f("1");

    private static Fraction f(String value) {
        return Fraction.of(new BigDecimal(value));
    }

    private static Paper scored(String score, String points) {
        return new Paper(Standing.SCORED, f(score), f(points));
    }

    private static Bundle best(int best) {
        return new Bundle(ONE, best, Never.ZERO);
    }

    @Test
    void withUnequalPointsTheBestHaveNeitherTheHighestScoresNorTheHighestShares() {
        Bundle.Counted counted = best(2).count(List.of(scored("9", "10"), scored("1", "10"), scored("0", "1")));
        assertEquals(List.of(0, 2), counted.papers());
        assertEquals(f("9").dividedBy(f("11")), counted.share());
    }

    @Test
    void whatIsInNoSumIsLeftOutAndWhatNeverCameCountsAsTheBundleSays() {
        List<Paper> papers = List.of(
                scored("3", "4"),
                new Paper(Standing.NEVER_CAME, Fraction.ZERO, f("4")),
                new Paper(Standing.LET_OFF, f("4"), f("4")),
                new Paper(Standing.UNRELEASED, f("4"), f("4")),
                scored("5", "0"));
        Bundle.Counted zero = new Bundle(ONE, 0, Never.ZERO).count(papers);
        assertEquals(List.of(0, 1), zero.papers());
        assertEquals(f("0.375"), zero.share());
        Bundle.Counted leftOut = new Bundle(ONE, 0, Never.LEFT_OUT).count(papers);
        assertEquals(List.of(0), leftOut.papers());
        assertEquals(f("0.75"), leftOut.share());
        assertNull(best(3).count(papers.subList(2, 5)).share());
        assertEquals(List.of(), best(3).count(List.of()).papers());
    }

    @Test
    void ofPapersThatAreEquallyGoodTheEarlierCount() {
        assertEquals(
                List.of(0, 1),
                best(2).count(List.of(scored("3", "6"), scored("3", "6"), scored("3", "6")))
                        .papers());
        assertEquals(
                List.of(0, 1, 2),
                best(7).count(List.of(scored("0", "6"), scored("3", "6"), scored("6", "6")))
                        .papers());
    }

    /** Against all choices of so many papers, with unequal points, zeros, equal shares and scores above the points. */
    @Test
    void noOtherChoiceComesToMore() {
        Random random = new Random(1967);
        for (int i = 0; i < 10_000; i++) {
            List<Paper> papers = new ArrayList<>();
            int many = 1 + random.nextInt(8);
            for (int p = 0; p < many; p++) {
                int points = 1 + random.nextInt(random.nextBoolean() ? 3 : 60);
                papers.add(new Paper(
                        Standing.values()[random.nextInt(8) < 6 ? 0 : random.nextInt(4)],
                        new Fraction(BigInteger.valueOf(random.nextInt(3 * points + 3)), BigInteger.valueOf(3)),
                        Fraction.of(BigDecimal.valueOf(points))));
            }
            Bundle bundle = new Bundle(ONE, random.nextInt(5), random.nextBoolean() ? Never.ZERO : Never.LEFT_OUT);
            Bundle.Counted counted = bundle.count(papers);
            assertEquals(slowly(bundle, papers), Optional.ofNullable(counted.share()), () -> bundle + " " + papers);
            if (counted.share() != null)
                assertEquals(
                        Optional.of(counted.share()),
                        shareOf(
                                bundle,
                                papers,
                                counted.papers().stream()
                                        .mapToInt(place -> 1 << place)
                                        .sum()),
                        "what is said to count comes to what is said");
        }
    }

    /** A better score never lowers the share. */
    @Test
    void whoDoesBetterHasNoLess() {
        Random random = new Random(4);
        for (int i = 0; i < 2_000; i++) {
            List<Paper> papers = new ArrayList<>();
            for (int p = 0; p < 6; p++)
                papers.add(scored(String.valueOf(random.nextInt(10)), String.valueOf(10 + random.nextInt(9))));
            Bundle bundle = best(1 + random.nextInt(6));
            Fraction before = bundle.count(papers).share();
            int at = random.nextInt(6);
            papers.set(
                    at,
                    new Paper(
                            Standing.SCORED,
                            papers.get(at).score().plus(ONE),
                            papers.get(at).points()));
            assertTrue(bundle.count(papers).share().compareTo(before) >= 0);
        }
    }

    private static Optional<Fraction> slowly(Bundle bundle, List<Paper> papers) {
        Optional<Fraction> most = Optional.empty();
        for (int choice = 1; choice < 1 << papers.size(); choice++) {
            Optional<Fraction> share = shareOf(bundle, papers, choice);
            if (share.isPresent()
                    && most.filter(m -> m.compareTo(share.get()) >= 0).isEmpty()) most = share;
        }
        return most;
    }

    /** What a choice comes to; empty if it takes what is in no sum, or not so many as count. */
    private static Optional<Fraction> shareOf(Bundle bundle, List<Paper> papers, int choice) {
        Fraction scores = Fraction.ZERO;
        Fraction points = Fraction.ZERO;
        int there = 0;
        for (int p = 0; p < papers.size(); p++) {
            Paper paper = papers.get(p);
            boolean zero = paper.standing() == Standing.NEVER_CAME && bundle.never() == Never.ZERO;
            boolean counts = zero || paper.standing() == Standing.SCORED;
            if (counts) there++;
            if ((choice & 1 << p) == 0) continue;
            if (!counts) return Optional.empty();
            if (!zero) scores = scores.plus(paper.score());
            points = points.plus(paper.points());
        }
        int asked = bundle.best() == 0 ? there : Math.min(bundle.best(), there);
        return asked == 0 || Integer.bitCount(choice) != asked
                ? Optional.empty()
                : Optional.of(scores.dividedBy(points));
    }

    @Test
    void theTotalIsWeighedOverBundlesInWhichSomethingCounts() {
        List<Bundle> bundles = List.of(
                new Bundle(f("2"), 0, Never.ZERO),
                new Bundle(f("1"), 0, Never.ZERO),
                new Bundle(f("5"), 0, Never.ZERO));
        assertEquals(
                Optional.of(f("2").dividedBy(f("3"))), Bundle.total(bundles, Arrays.asList(f("0.5"), f("1"), null)));
        assertEquals(Optional.of(f("0.5")), Bundle.total(bundles, Arrays.asList(f("0.5"), null, null)));
        assertEquals(Optional.empty(), Bundle.total(bundles, Arrays.asList(null, null, null)));
    }

    @Test
    void aBundleWithoutWeightIsRefused() {
        assertThrows(Refusal.class, () -> new Bundle(Fraction.ZERO, 0, Never.ZERO));
        assertThrows(Refusal.class, () -> new Bundle(f("-1"), 0, Never.ZERO));
        assertThrows(Refusal.class, () -> new Bundle(ONE, -1, Never.ZERO));
    }
}

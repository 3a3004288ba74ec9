package org.vastporch.core.marking;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.Refusal;
import org.vastporch.core.rubrics.Fraction;

/**
 * Prompts that count together. What a student has in it is a share of the points: {@code Σ scores / Σ points} over the
 * papers that count; of the total it makes its weight.
 *
 * @param weight above 0
 * @param best how many papers count, those that make the share largest; 0 for all
 * @param never what a paper that never came counts
 */
public record Bundle(Fraction weight, int best, Never never) {

    /** What a paper counts that never came. */
    public enum Never {
        ZERO,
        LEFT_OUT
    }

    /** @throws Refusal if the weight is not above 0, or fewer than no papers count */
    public Bundle {
        if (weight.signum() <= 0)
            throw new Refusal("weight", "bundle-weight", "The weight of a bundle must be above 0.");
        if (best < 0) throw new Refusal("best", "bundle-best", "At least one paper counts, or 0 for all of them.");
    }

    /** How a paper stands for the sum. */
    public enum Standing {
        SCORED,
        NEVER_CAME,
        /** In no sum: the student was let off. */
        LET_OFF,
        /** In no sum yet: the student does not see it. */
        UNRELEASED
    }

    /**
     * A student's paper.
     *
     * @param score looked at only where it is scored; not below 0
     * @param points of its prompt; one without points is in no sum
     */
    public record Paper(Standing standing, Fraction score, Fraction points) {}

    /**
     * What counts of some papers.
     *
     * @param papers their places in the list that was given, in its order
     * @param share of the points; null if nothing counts
     */
    public record Counted(List<Integer> papers, @Nullable Fraction share) {}

    /** What a paper adds: its score, or nothing if it never came. */
    private record Part(int place, Fraction score, Fraction points) {

        /** What it is better, or worse, than a share of its points. */
        Fraction above(Fraction share) {
            return score.minus(share.times(points));
        }
    }

    /**
     * Which papers count, and to what share of the points they come. With unequal points the best are neither those of
     * the highest scores nor those of the highest shares: of 9 of 10, 1 of 10 and 0 of 1 the best two are the first and
     * the last (9/11, not 10/20).
     *
     * <p>Found by parametric search (W. Dinkelbach, "On nonlinear fractional programming", Management Science 13,
     * 1967): for a share λ take the papers with the largest {@code score − λ × points}. If they come to more than
     * nothing, their own share is larger than λ and is tried next; if they come to nothing, no papers have a larger
     * one. Each step is a larger share of finitely many, so it ends. Of papers that are equally good the earlier ones
     * count.
     */
    public Counted count(List<Paper> papers) {
        List<Part> parts = new ArrayList<>();
        for (int i = 0; i < papers.size(); i++) {
            Paper paper = papers.get(i);
            if (paper.points().signum() <= 0) continue;
            if (paper.standing() == Standing.SCORED) parts.add(new Part(i, paper.score(), paper.points()));
            if (paper.standing() == Standing.NEVER_CAME && never == Never.ZERO)
                parts.add(new Part(i, Fraction.ZERO, paper.points()));
        }
        if (parts.isEmpty()) return new Counted(List.of(), null);
        int many = best == 0 ? parts.size() : Math.min(best, parts.size());
        List<Part> chosen = parts.subList(0, many);
        Fraction share = share(chosen);
        while (true) {
            List<Part> better = largest(parts, many, share);
            if (sum(better, share).signum() <= 0) break;
            chosen = better;
            share = share(chosen);
        }
        return new Counted(chosen.stream().map(Part::place).sorted().toList(), share);
    }

    private static List<Part> largest(List<Part> parts, int many, Fraction share) {
        List<Part> sorted = new ArrayList<>(parts);
        sorted.sort(Comparator.comparing((Part part) -> part.above(share), Collections.reverseOrder())
                .thenComparing(Part::place));
        return sorted.subList(0, many);
    }

    private static Fraction sum(List<Part> parts, Fraction share) {
        return parts.stream().map(part -> part.above(share)).reduce(Fraction.ZERO, Fraction::plus);
    }

    private static Fraction share(List<Part> parts) {
        Fraction scores = parts.stream().map(Part::score).reduce(Fraction.ZERO, Fraction::plus);
        Fraction points = parts.stream().map(Part::points).reduce(Fraction.ZERO, Fraction::plus);
        return scores.dividedBy(points);
    }

    /**
     * The total over bundles, a share: {@code Σ weight × share / Σ weight} over those in which something counts.
     *
     * @param shares of each bundle, in the order of the bundles; null where nothing counts
     * @return empty if nothing counts anywhere
     */
    public static Optional<Fraction> total(List<Bundle> bundles, List<@Nullable Fraction> shares) {
        List<Integer> counted = IntStream.range(0, bundles.size())
                .filter(i -> shares.get(i) != null)
                .boxed()
                .toList();
        if (counted.isEmpty()) return Optional.empty();
        Fraction sum = Fraction.ZERO;
        Fraction weights = Fraction.ZERO;
        for (int i : counted) {
            sum = sum.plus(bundles.get(i).weight().times(shares.get(i)));
            weights = weights.plus(bundles.get(i).weight());
        }
        return Optional.of(sum.dividedBy(weights));
    }
}

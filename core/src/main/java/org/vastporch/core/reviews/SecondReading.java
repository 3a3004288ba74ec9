package org.vastporch.core.reviews;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.SplittableRandom;
import org.vastporch.core.Refusal;

/** Which papers a colleague reads a second time, what that takes, and when two readings come back to both. */
public final class SecondReading {

    /** How papers are chosen for a second reading. */
    public enum Which {
        ALL,
        /** Every n-th, by a seed. */
        EVERY,
        /** Those that lie near the edge of a step. */
        NEAR_EDGE
    }

    /**
     * A paper that could be read again.
     *
     * @param paper by its number
     * @param step the mean of the levels that it was given, counted from 0; null while it was given none
     * @param isBetween whether points lie between two levels
     */
    public record Candidate(long paper, Double step, boolean isBetween) {}

    /** So near to the middle between two steps one of them is as good as the other. */
    private static final double NEAR = 0.125;

    private static final int MOST_EVERY = 100;

    /**
     * A second reading before a step of its reader.
     *
     * @param isEmpty whether nothing was handed in
     * @param isBlind whether it is done without seeing the first marks
     * @param isFinished whether all criteria have points
     * @param isSettled whether a teacher has set what counts
     * @param isAsSeen whether it stands as its reader had it before them
     */
    public record Facts(boolean isEmpty, boolean isBlind, boolean isFinished, boolean isSettled, boolean isAsSeen) {}

    /** What becomes of a step. */
    public enum Answer {
        ALLOWED,
        NOTHING_HANDED_IN,
        /** The first marks were shown to its reader: what comes after is no blind reading any more. */
        DONE_BLIND,
        SETTLED,
        OUTDATED
    }

    private SecondReading() {}

    /**
     * The papers that are read again, in the order of their numbers.
     *
     * @param every n of "every n-th", 1 to {@value #MOST_EVERY}
     * @param seed the same one chooses the same papers
     */
    public static List<Long> chosen(List<Candidate> papers, Which which, int every, long seed) {
        if (every < 1 || every > MOST_EVERY)
            throw new Refusal("every", "every-range", "Every first to every hundredth paper can be read again.");
        List<Candidate> inOrder = papers.stream()
                .sorted(Comparator.comparingLong(Candidate::paper))
                .toList();
        int from = new SplittableRandom(seed).nextInt(every);
        List<Long> chosen = new ArrayList<>();
        for (int i = 0; i < inOrder.size(); i++) {
            Candidate paper = inOrder.get(i);
            boolean takes =
                    switch (which) {
                        case ALL -> true;
                        case EVERY -> i % every == from;
                        case NEAR_EDGE -> isNearEdge(paper);
                    };
            if (takes) chosen.add(paper.paper());
        }
        return chosen;
    }

    private static boolean isNearEdge(Candidate paper) {
        if (paper.isBetween()) return true;
        if (paper.step() == null) return false;
        double above = paper.step() - Math.floor(paper.step());
        return Math.abs(above - 0.5) <= NEAR;
    }

    public static Answer give(Facts reading) {
        if (reading.isSettled()) return Answer.SETTLED;
        if (reading.isBlind() && reading.isFinished()) return Answer.DONE_BLIND;
        if (reading.isEmpty()) return Answer.NOTHING_HANDED_IN;
        return reading.isAsSeen() ? Answer.ALLOWED : Answer.OUTDATED;
    }

    /**
     * Whether two readings come back to both readers.
     *
     * @param most how many steps they may be apart on any one criterion
     */
    public static boolean comesBack(List<Apart> apart, int most) {
        return apart.stream().anyMatch(a -> Math.abs(a.steps()) > most);
    }
}

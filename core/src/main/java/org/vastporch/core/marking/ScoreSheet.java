package org.vastporch.core.marking;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.rubrics.Fraction;

/** What one student's papers come to over the bundles of a class. */
public final class ScoreSheet {

    /**
     * What counts of a student's papers.
     *
     * @param counts for each paper whether it counts, in the order that was given
     * @param shares of each bundle, in the order of the bundles; null where nothing counts
     * @param total a share, 0 or more; null if nothing counts anywhere
     */
    public record Line(
            List<Boolean> counts,
            List<@Nullable Fraction> shares,
            @Nullable Fraction total) {}

    private ScoreSheet() {}

    /**
     * How a paper in such a state stands for the sum: only what its student has seen is in it.
     *
     * @param wasHere whether the student was in the class before the time was over; whoever came later missed nothing
     */
    public static Bundle.Standing standing(PaperState state, boolean wasHere) {
        return switch (state) {
            case RELEASED -> Bundle.Standing.SCORED;
            case MISSING -> wasHere ? Bundle.Standing.NEVER_CAME : Bundle.Standing.LET_OFF;
            case LET_OFF -> Bundle.Standing.LET_OFF;
            default -> Bundle.Standing.UNRELEASED;
        };
    }

    /**
     * @param papers of one student
     * @param bundleOf for each paper the place of its bundle in the list; -1 if it is in none and counts nowhere
     */
    public static Line line(List<Bundle> bundles, List<Bundle.Paper> papers, List<Integer> bundleOf) {
        List<Boolean> counts = new ArrayList<>(papers.stream().map(p -> false).toList());
        List<@Nullable Fraction> shares = new ArrayList<>();
        for (int b = 0; b < bundles.size(); b++) {
            List<Integer> places = new ArrayList<>();
            for (int i = 0; i < papers.size(); i++) if (bundleOf.get(i) == b) places.add(i);
            Bundle.Counted counted =
                    bundles.get(b).count(places.stream().map(papers::get).toList());
            for (int place : counted.papers()) counts.set(places.get(place), true);
            shares.add(counted.share());
        }
        return new Line(counts, shares, Bundle.total(bundles, shares).orElse(null));
    }
}

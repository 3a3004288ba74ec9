package org.vastporch.core.rubrics;

import java.util.List;
import org.vastporch.core.Refusal;

/**
 * A thing that is counted for a criterion, and from how many on it speaks for which level.
 *
 * @param atLeast for each level above the lowest how many speak for it, rising; fewer than there are levels if nothing
 *     speaks for the highest; empty if it is only shown
 */
public record Measure(Counted what, List<Integer> atLeast) {

    private static final int MOST = 1_000_000;

    public Measure {
        if (what == null) throw new Refusal("rubric", "measure-unknown", "Say what is to be counted.");
        atLeast = atLeast == null ? List.of() : List.copyOf(atLeast);
        for (int i = 0; i < atLeast.size(); i++) {
            int number = atLeast.get(i);
            if (number < 0 || number > MOST)
                throw new Refusal(
                        "rubric",
                        "measure-range",
                        "From how many on lies between 0 and 1,000,000, not " + number + ".");
            if (i > 0 && number <= atLeast.get(i - 1))
                throw new Refusal(
                        "rubric",
                        "measure-order",
                        "From how many " + what.word() + " on must rise from level to level, but " + number
                                + " follows " + atLeast.get(i - 1) + ".");
        }
    }

    /** For how many levels above the lowest so many of it speak. */
    int reached(int number) {
        return (int) atLeast.stream().filter(least -> number >= least).count();
    }
}

package org.vastporch.core.groups;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.random.RandomGenerator;
import org.vastporch.core.Refusal;

/** Splits people into groups whose sizes differ by one at the most. */
public final class GroupSplit {

    private GroupSplit() {}

    /**
     * Splits in the order given: the first few into the first group, the next into the second.
     *
     * @param groups how many groups, at least 1; those that are left without anybody stay empty
     */
    public static <T> List<List<T>> inOrder(List<T> people, int groups) {
        if (groups < 1)
            throw new Refusal("groups", "number-range", "People are split into at least one group, not " + groups);
        List<List<T>> split = new ArrayList<>();
        int from = 0;
        for (int i = 0; i < groups; i++) {
            int size = people.size() / groups + (i < people.size() % groups ? 1 : 0);
            split.add(List.copyOf(people.subList(from, from + size)));
            from += size;
        }
        return split;
    }

    /** Splits by chance; the same source of chance gives the same groups. */
    public static <T> List<List<T>> atRandom(List<T> people, int groups, RandomGenerator random) {
        List<T> shuffled = new ArrayList<>(people);
        for (int i = shuffled.size() - 1; i > 0; i--) Collections.swap(shuffled, i, random.nextInt(i + 1));
        return inOrder(shuffled, groups);
    }
}

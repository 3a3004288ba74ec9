package org.vastporch.core.groups;

import static org.junit.jupiter.api.Assertions.*;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.vastporch.core.Refusal;

class GroupSplitTest {

    /**
     * Law: nobody is lost, nobody stands twice, no group has two more than another; the same chance gives the same
     * groups.
     */
    @Test
    void splitsEvenlyWhateverTheNumbers() {
        Random random = new Random(3);
        for (int i = 0; i < 500; i++) {
            List<Integer> people =
                    IntStream.range(0, random.nextInt(40)).boxed().toList();
            int groups = 1 + random.nextInt(12);
            for (List<List<Integer>> split :
                    List.of(GroupSplit.inOrder(people, groups), GroupSplit.atRandom(people, groups, new Random(i)))) {
                List<Integer> all = new ArrayList<>();
                split.forEach(all::addAll);
                assertEquals(people, all.stream().sorted().toList());
                assertEquals(groups, split.size());
                assertTrue(split.stream().mapToInt(List::size).max().getAsInt()
                                - split.stream().mapToInt(List::size).min().getAsInt()
                        <= 1);
            }
            assertEquals(
                    GroupSplit.atRandom(people, groups, new Random(i)),
                    GroupSplit.atRandom(people, groups, new Random(i)));
        }
        assertEquals(List.of(List.of("a", "b"), List.of("c")), GroupSplit.inOrder(List.of("a", "b", "c"), 2));
    }

    @Test
    void chanceGivesEveryOrderThereIs() {
        Set<List<String>> orders = new HashSet<>();
        for (int seed = 0; seed < 200; seed++)
            orders.add(GroupSplit.atRandom(List.of("a", "b", "c"), 1, new Random(seed))
                    .get(0));
        assertEquals(6, orders.size());
    }

    @Test
    void thereIsAtLeastOneGroup() {
        assertEquals(List.of(List.of("a")), GroupSplit.inOrder(List.of("a"), 1));
        assertThrows(Refusal.class, () -> GroupSplit.inOrder(List.of("a"), 0));
    }
}

package org.vastporch.core.marking;

import static org.junit.jupiter.api.Assertions.*;

import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class BlindOrderTest {

    private static final List<Integer> PAPERS = IntStream.range(0, 24).boxed().toList();

    @Test
    void holdsEveryPaperOnceAndIsTheSameEachTime() {
        assertEquals(PAPERS, BlindOrder.of(PAPERS, 7).stream().sorted().toList());
        assertEquals(BlindOrder.of(PAPERS, 7), BlindOrder.of(PAPERS, 7));
        assertEquals(List.of(), BlindOrder.of(List.of(), 7));
    }

    /** Over forty prompts every student has stood in many places, the first among them. */
    @Test
    void noPlaceStandsForAPerson() {
        Set<Integer> first = IntStream.range(0, 40)
                .mapToObj(prompt -> BlindOrder.of(PAPERS, prompt).get(0))
                .collect(Collectors.toSet());
        assertTrue(first.size() > 12, () -> first.size() + " different papers came first");
        assertNotEquals(PAPERS, BlindOrder.of(PAPERS, 1));
    }
}

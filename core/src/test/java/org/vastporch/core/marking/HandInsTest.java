package org.vastporch.core.marking;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastporch.core.marking.HandIns.Again;
import org.vastporch.core.marking.HandIns.Counts;

/** The table of what happened and when it counts, row by row. Hours are told from the last moment on time. */
class HandInsTest {

    private static final Instant END = Instant.parse("2026-11-23T20:00:00Z");

    private static Instant at(int hours) {
        return END.plusSeconds(hours * 3_600L);
    }

    @ParameterizedTest
    @CsvSource(nullValues = "-", delimiter = '|', textBlock = """
        # first | again: version hour how                | counts at | up to | newer
        -5      | -                                      | -5        | -     | -
        3       | -                                      | 3         | -     | -
        -5      | 2 -1 unasked                           | -5        | -     | -
        -5      | 2 0 unasked                            | -5        | -     | -
        -5      | 2 1 asked                              | -5        | -     | -
        -5      | 2 1 unasked                            | -5        | 1     | 2
        -5      | 2 1 unasked, 3 2 unasked               | -5        | 1     | 3
        -5      | 2 1 taken                              | 1         | -     | -
        -5      | 2 1 taken, 3 2 unasked                 | 1         | 2     | 3
        -5      | 2 1 unasked, 3 2 taken                 | 2         | -     | -
        -5      | 2 1 unasked, 3 2 asked                 | -5        | -     | -
        -5      | 2 1 asked, 3 2 unasked                 | -5        | 2     | 3
        -5      | 7 1 unasked                            | -5        | 1     | 7
        3       | 2 4 unasked                            | 3         | 1     | 2
        3       | 2 4 asked                              | 3         | -     | -
        """)
    void countsByTheTable(int first, String again, int counts, Integer upTo, Integer newer) {
        List<Again> all = new ArrayList<>();
        if (again != null)
            for (String one : again.split(", ")) {
                String[] parts = one.split(" ");
                all.add(new Again(
                        Integer.parseInt(parts[0]),
                        all.isEmpty() ? 1 : all.get(all.size() - 1).version(),
                        at(Integer.parseInt(parts[1])),
                        parts[2].equals("asked"),
                        parts[2].equals("taken")));
            }
        assertEquals(new Counts(at(counts), upTo, newer), HandIns.of(at(first), all, END));
    }

    /** Who may hand in again is marked on what came last, and is as late as with the first. */
    @Test
    void whoIsAllowedToHandsInAgainAtAnyTime() {
        List<Again> again = List.of(new Again(2, 1, at(30), false, false), new Again(3, 2, at(90), false, false));
        Allowance allowed = new Allowance(null, false, true);
        assertEquals(new Counts(at(3), null, null), HandIns.of(at(3), again, allowed.againUntil(END)));
        assertEquals(new Counts(at(3), 1, 3), HandIns.of(at(3), again, Allowance.NONE.againUntil(END)));
    }

    /** Nobody gains by handing in again: not taken it changes no moment, and taken never makes it earlier. */
    @Test
    void handingInAgainMakesNobodyEarlierAndNobodyLaterUnasked() {
        Random random = new Random(4);
        for (int i = 0; i < 2_000; i++) {
            Instant first = at(random.nextInt(40) - 20);
            List<Again> again = new ArrayList<>();
            int hour = 20;
            for (int k = 0; k < random.nextInt(5); k++)
                again.add(new Again(
                        k + 2, k + 1, at(hour += random.nextInt(9) - 2), random.nextBoolean(), random.nextInt(4) == 0));
            Counts counts = HandIns.of(first, again, END);
            assertFalse(counts.at().isBefore(first));
            if (again.stream().noneMatch(Again::taken)) assertEquals(first, counts.at());
            if (counts.newer() != null) assertTrue(counts.upTo() != null && counts.upTo() < counts.newer());
            else assertNull(counts.upTo());
        }
    }
}

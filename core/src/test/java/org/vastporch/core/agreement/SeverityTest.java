package org.vastporch.core.agreement;

import static org.junit.jupiter.api.Assertions.*;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.vastporch.core.agreement.Severity.Reading;

class SeverityTest {

    private static Reading by(long marker, long paper, double given) {
        return new Reading(paper, marker, given, false);
    }

    @Test
    void isTheMeanOfWhatIsGivenOverAllWhoReadIt() {
        // Paper 1: mean 4; paper 2: mean 6.
        List<Severity> of = Severity.of(List.of(by(7, 1, 3), by(8, 1, 5), by(7, 2, 4), by(8, 2, 8)));
        assertEquals(List.of(7L, 8L), of.stream().map(Severity::marker).toList(), "the most severe first");
        // Residuals of 7: -1 and -2, mean -1.5, standard deviation 0.7071, over the root of 2: 0.5.
        assertEquals(-1.5, of.get(0).residual(), 1e-12);
        assertEquals(0.5, of.get(0).error().orElseThrow(), 1e-12);
        assertEquals(1.5, of.get(1).residual(), 1e-12);
        assertEquals(2, of.get(1).readings());
    }

    @Test
    void oneReadingHasNoErrorAndOneMarkerSaysNothing() {
        List<Severity> of = Severity.of(List.of(by(7, 1, 3), by(8, 1, 5), by(9, 2, 1), by(9, 3, 6)));
        assertEquals(2, of.size());
        assertEquals(OptionalDouble.empty(), of.get(0).error());
        assertEquals(List.of(), Severity.of(List.of()));
        assertEquals(List.of(), Severity.of(List.of(by(7, 1, 3), by(7, 1, 5))), "one marker twice is one marker");
    }

    @Test
    void peersAreBelievedTheMoreTheMoreTheyReviewed() {
        List<Reading> once = List.of(new Reading(1, 7, 2, true), by(8, 1, 4));
        assertEquals(-1.0 / 5, Severity.of(once).get(0).residual(), 1e-12, "a fifth of one reading is believed");
        List<Reading> often = new ArrayList<>();
        for (int paper = 0; paper < 4; paper++) {
            often.add(new Reading(paper, 7, 2, true));
            often.add(by(8, paper, 4));
        }
        assertEquals(-0.5, Severity.of(often).get(0).residual(), 1e-12, "half of four");
        assertEquals(1, Severity.of(often).get(1).residual(), 1e-12, "a teacher as it is");
        assertEquals(0, Severity.of(often).get(0).error().orElseThrow(), 1e-12);
    }

    @Test
    void whatAllGiveMoreOfChangesNothing() {
        Random random = new Random(5);
        for (int i = 0; i < 100; i++) {
            List<Reading> readings = new ArrayList<>();
            for (int paper = 0; paper < 12; paper++)
                for (int marker = 0; marker < 4; marker++)
                    if (random.nextInt(3) > 0) readings.add(by(marker, paper, random.nextInt(20)));
            List<Severity> before = Severity.of(readings);
            List<Severity> after = Severity.of(readings.stream()
                    .map(r -> by(r.marker(), r.paper(), r.given() + 7))
                    .toList());
            for (int s = 0; s < before.size(); s++)
                assertEquals(before.get(s).residual(), after.get(s).residual(), 1e-9);
            double sum = 0;
            for (Severity s : before) sum += s.residual() * s.readings();
            assertEquals(0, sum, 1e-9, "what one gives more the others give less");
        }
    }
}

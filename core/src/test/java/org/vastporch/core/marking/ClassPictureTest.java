package org.vastporch.core.marking;

import static org.junit.jupiter.api.Assertions.*;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.vastporch.core.marking.ClassPicture.Given;
import org.vastporch.core.rubrics.Fraction;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.core.rubrics.Rubric.Criterion;
import org.vastporch.core.rubrics.Rubric.Level;

class ClassPictureTest {

    private static final Criterion EVIDENCE = criterion("c1", "Evidence", 0, 2, 4);
    private static final Criterion VOICE = criterion("c2", "Voice", 0, 1);

    private static Criterion criterion(String id, String name, int... points) {
        List<Level> levels = new ArrayList<>();
        for (int p : points) levels.add(new Level("at " + p, BigDecimal.valueOf(p), ""));
        return new Criterion(id, name, BigDecimal.ONE, levels);
    }

    private static Given given(Criterion criterion, String points) {
        return new Given(criterion, new BigDecimal(points));
    }

    private static Fraction share(int of, int all) {
        return Fraction.of(BigDecimal.valueOf(of)).dividedBy(Fraction.of(BigDecimal.valueOf(all)));
    }

    @Test
    void pointsBetweenTwoStepsReachedTheLowerOne() {
        List<ClassPicture.Spread> spreads = ClassPicture.of(
                new Rubric(List.of(EVIDENCE, VOICE)),
                List.of(given(EVIDENCE, "0"), given(EVIDENCE, "1.5"), given(EVIDENCE, "2"), given(EVIDENCE, "4")));
        assertEquals(1, spreads.size(), "of Voice nothing was given");
        assertEquals(List.of(2, 1, 1), spreads.get(0).reached());
        assertEquals(4, spreads.get(0).papers());
        // 7.5 of 16
        assertEquals(0, share(15, 32).compareTo(spreads.get(0).mean()));
    }

    @Test
    void aClassIsStrongWhereItGetsTheLargestShare() {
        List<Given> given = new ArrayList<>();
        for (int i = 0; i < 5; i++) {
            given.add(given(EVIDENCE, "1"));
            given.add(given(VOICE, i < 4 ? "1" : "0"));
        }
        // The same criterion in another rubric, with other points.
        given.add(given(criterion("x9", "Evidence", 0, 8), "8"));
        List<ClassPicture.Strength> strengths = ClassPicture.strengths(given);
        assertEquals(
                List.of("Voice", "Evidence"),
                strengths.stream().map(ClassPicture.Strength::criterion).toList());
        assertEquals(0, share(4, 5).compareTo(strengths.get(0).mean()));
        // (5 × 1/4 + 1) / 6
        assertEquals(0, share(9, 24).compareTo(strengths.get(1).mean()));
        assertEquals(6, strengths.get(1).papers());
    }

    @Test
    void ofFewPapersNothingIsSaid() {
        List<Given> four = List.of(given(VOICE, "1"), given(VOICE, "1"), given(VOICE, "1"), given(VOICE, "1"));
        assertEquals(List.of(), ClassPicture.strengths(four));
    }
}

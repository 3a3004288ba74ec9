package org.vastporch.core.rubrics;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import org.vastporch.core.rubrics.Rubric.Criterion;
import org.vastporch.core.rubrics.Rubric.Level;

/** Rubrics of every shape, with words that a table or a form could stumble over. */
final class SomeRubric {

    private static final String[] ODD = {
        "Voice", "=1+1", "-3", "@here", "a, b; c", "say \"so\"", "Łąka\nüber", "'quoted'", "+", "tab\tin it", "1,5"
    };

    private SomeRubric() {}

    static Rubric of(Random random) {
        List<Criterion> criteria = new ArrayList<>();
        for (int c = 0; c <= random.nextInt(12); c++) {
            List<Level> levels = new ArrayList<>();
            BigDecimal points = BigDecimal.valueOf(random.nextInt(30), random.nextInt(3));
            for (int l = 0; l < 2 + random.nextInt(7); l++) {
                levels.add(new Level(
                        random.nextInt(4) == 0 ? "" : ODD[random.nextInt(ODD.length)] + l,
                        points,
                        random.nextBoolean() ? "" : ODD[random.nextInt(ODD.length)]));
                points = points.add(BigDecimal.valueOf(1 + random.nextInt(9), random.nextInt(4)));
            }
            criteria.add(new Criterion(
                    random.nextBoolean() ? "" : "id" + c,
                    ODD[random.nextInt(ODD.length)] + c,
                    BigDecimal.valueOf(1 + random.nextInt(99), 1),
                    levels,
                    counted(random, levels.size())));
        }
        return new Rubric(criteria);
    }

    /** Some things in any order, each with numbers for some of the levels. */
    private static List<Measure> counted(Random random, int levels) {
        List<Measure> counted = new ArrayList<>();
        for (Counted what : Counted.values()) {
            if (random.nextInt(4) > 0) continue;
            List<Integer> atLeast = new ArrayList<>();
            int number = random.nextInt(5);
            for (int l = random.nextInt(levels); l > 0; l--) atLeast.add(number += 1 + random.nextInt(60));
            counted.add(new Measure(what, atLeast));
        }
        Collections.shuffle(counted, random);
        return counted;
    }
}

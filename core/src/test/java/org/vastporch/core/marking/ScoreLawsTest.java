package org.vastporch.core.marking;

import static org.junit.jupiter.api.Assertions.*;

import java.math.BigDecimal;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.vastporch.core.calendar.Term;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.core.rubrics.Rubric.Criterion;
import org.vastporch.core.rubrics.Rubric.Level;
import org.vastporch.core.rubrics.RubricScore;

/** Laws of scores and lateness, on generated rubrics and moments. */
class ScoreLawsTest {

    private final Random random = new Random(31);

    private Rubric rubric() {
        List<Criterion> criteria = new ArrayList<>();
        for (int c = 0; c <= random.nextInt(5); c++) {
            int top = 1 + random.nextInt(12);
            criteria.add(new Criterion(
                    "",
                    "c" + c,
                    BigDecimal.valueOf(1 + random.nextInt(50), 1),
                    List.of(
                            new Level("low", BigDecimal.ZERO, ""),
                            new Level("high", BigDecimal.valueOf(top, random.nextInt(2)), ""))));
        }
        return new Rubric(criteria);
    }

    private Map<String, BigDecimal> marks(Rubric rubric) {
        Map<String, BigDecimal> marks = new HashMap<>();
        for (Criterion criterion : rubric.criteria())
            marks.put(
                    criterion.id(),
                    criterion
                            .highest()
                            .multiply(BigDecimal.valueOf(random.nextInt(5)))
                            .divide(BigDecimal.valueOf(4)));
        return marks;
    }

    @Test
    void aScoreLiesBetweenNothingAndAllAndABetterStepNeverLowersIt() {
        for (int i = 0; i < 3000; i++) {
            Rubric rubric = rubric();
            BigDecimal outOf = BigDecimal.valueOf(random.nextInt(400), 1);
            Map<String, BigDecimal> marks = marks(rubric);
            BigDecimal score = RubricScore.of(rubric, outOf, marks, Set.of()).rounded(6);
            assertTrue(score.signum() >= 0 && score.compareTo(outOf) <= 0);
            Criterion raised =
                    rubric.criteria().get(random.nextInt(rubric.criteria().size()));
            marks.put(raised.id(), raised.highest());
            assertTrue(RubricScore.of(rubric, outOf, marks, Set.of()).rounded(6).compareTo(score) >= 0);
            rubric.criteria().forEach(c -> marks.put(c.id(), c.highest()));
            assertEquals(
                    0,
                    RubricScore.of(rubric, outOf, marks, Set.of()).rounded(6).compareTo(outOf),
                    "all highest steps give all points");
        }
    }

    @Test
    void whatIsNotCountedChangesNothingWhateverItsMark() {
        for (int i = 0; i < 1000; i++) {
            Rubric rubric = rubric();
            Map<String, BigDecimal> marks = marks(rubric);
            RubricScore without = RubricScore.of(rubric, BigDecimal.TEN, marks, Set.of("c1"));
            marks.put("c1", rubric.criteria().get(0).highest());
            assertEquals(without, RubricScore.of(rubric, BigDecimal.TEN, marks, Set.of("c1")));
        }
    }

    @Test
    void moreLatenessNeverGivesMoreAndNeverTakesMoreThanTheCap() {
        for (int i = 0; i < 1000; i++) {
            LateRule rule = new LateRule(
                    BigDecimal.valueOf(random.nextInt(101), 2),
                    BigDecimal.valueOf(random.nextInt(101), 2),
                    BigDecimal.valueOf(random.nextInt(600), 2));
            Rubric rubric = rubric();
            RubricScore full = RubricScore.of(rubric, BigDecimal.TEN, marks(rubric), Set.of());
            BigDecimal before = full.rounded(6);
            for (int days = 0; days < 20; days++) {
                BigDecimal now = rule.apply(full, days).rounded(6);
                assertTrue(now.compareTo(before) <= 0);
                assertTrue(now.compareTo(rule.floor().min(full.rounded(6))) >= 0);
                assertTrue(now.compareTo(
                                full.times(BigDecimal.ONE.subtract(rule.cap())).rounded(6))
                        >= 0);
                before = now;
            }
        }
    }

    @Test
    void daysLateGrowOneByOneThroughBothClockChanges() {
        Term term = new Term(
                LocalDate.parse("2026-01-05"), LocalDate.parse("2026-12-18"), List.of(), ZoneId.of("Europe/London"));
        for (int i = 0; i < 2000; i++) {
            Instant due = Instant.parse("2026-03-20T00:00:00Z").plusSeconds(random.nextInt(20_000_000));
            Duration grace = Duration.ofMinutes(random.nextInt(3000));
            int before = 0;
            for (int hours = -5; hours < 200; hours += 1 + random.nextInt(20)) {
                int days = term.daysLate(due.plus(grace).plus(Duration.ofHours(hours)), due, grace);
                assertTrue(days >= before && days <= before + 1, due + " " + hours);
                assertEquals(days == 0, Term.isOnTime(due.plus(grace).plus(Duration.ofHours(hours)), due, grace));
                before = days;
            }
        }
    }
}

package org.vastporch.core.calendar;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastporch.core.Refusal;

class TermsTest {

    private static final ZoneId ZONE = ZoneId.of("Europe/London");
    private static final List<Term.Break> HALF_TERM =
            List.of(new Term.Break(LocalDate.parse("2026-10-24"), LocalDate.parse("2026-11-01")));

    private static Terms.Days days(String name, String first, String last) {
        return new Terms.Days(name, LocalDate.parse(first), LocalDate.parse(last));
    }

    private static final Terms YEAR = Terms.of(
            List.of(
                    days("Spring", "2027-01-05", "2027-03-26"),
                    days("Autumn", "2026-09-02", "2026-12-11"),
                    days("Summer", "2027-04-12", "2027-07-21")),
            HALF_TERM,
            ZONE);

    @ParameterizedTest
    @CsvSource({
        "2026-08-01T00:00:00Z, 0", // before the first
        "2026-11-20T09:00:00Z, 0",
        "2026-12-25T00:00:00Z, 0", // between two: the one that is over
        "2027-01-04T23:59:59Z, 0",
        "2027-01-05T00:00:00Z, 1",
        "2027-04-11T22:59:59Z, 1",
        "2027-04-11T23:00:00Z, 2", // midnight on the clock of summer
        "2030-01-01T00:00:00Z, 2"
    })
    void oneCountsAtEachMoment(Instant moment, int index) {
        assertEquals(index, YEAR.indexAt(moment));
        assertEquals(YEAR.get(index), YEAR.at(moment));
    }

    @Test
    void eachNumbersItsOwnWeeksAndHasTheBreaksThatTakeADayOfIt() {
        assertEquals(HALF_TERM, YEAR.get(0).breaks());
        assertEquals(List.of(), YEAR.get(1).breaks());
        for (int i = 0; i < 3; i++)
            assertEquals(1, YEAR.get(i).weeks().get(0).number(), "every term begins with week 1");
        List<Term.Break> edge = List.of(new Term.Break(LocalDate.parse("2026-12-11"), LocalDate.parse("2027-01-05")));
        Terms edged = Terms.of(
                List.of(days("", "2026-09-02", "2026-12-11"), days("", "2027-01-05", "2027-03-26")), edge, ZONE);
        assertEquals(edge, edged.get(0).breaks());
        assertEquals(edge, edged.get(1).breaks());
    }

    @Test
    void aPlaceThatThereIsNotIsTheNearest() {
        assertEquals(YEAR.get(0), YEAR.get(-5));
        assertEquals(YEAR.get(2), YEAR.get(99));
    }

    @Test
    void whatCannotBeIsRefused() {
        assertEquals("term-missing", refused(List.of()));
        assertEquals(
                "terms-overlap",
                refused(List.of(days("", "2026-09-02", "2026-12-11"), days("", "2026-12-11", "2027-01-01"))));
        assertEquals("term-order", refusedTerm(days("", "2026-09-02", "2026-09-01")));
        assertEquals("term-name-too-long", refusedTerm(days("a".repeat(61), "2026-09-02", "2026-09-03")));
        List<Terms.Days> many = new ArrayList<>();
        for (int i = 0; i < 31; i++) many.add(days("", "2026-09-02", "2026-09-02"));
        assertEquals("too-many-terms", refused(many));
        assertEquals(
                60,
                Terms.of(List.of(days("a".repeat(60), "2026-09-02", "2026-09-02")), List.of(), ZONE)
                        .inOrder()
                        .get(0)
                        .name()
                        .length());
    }

    private static String refused(List<Terms.Days> days) {
        return assertThrows(Refusal.class, () -> Terms.of(days, List.of(), ZONE))
                .code();
    }

    private static String refusedTerm(Terms.Days days) {
        return refused(List.of(days));
    }

    /** However terms are given, they come in order and share no day; and every moment has exactly one that counts. */
    @RepeatedTest(50)
    void generatedTermsFollowOneAnother(RepetitionInfo run) {
        Random chance = new Random(run.getCurrentRepetition());
        List<Terms.Days> days = new ArrayList<>();
        LocalDate day = LocalDate.parse("2026-01-01").plusDays(chance.nextInt(300));
        for (int i = 1 + chance.nextInt(6); i > 0; i--) {
            LocalDate last = day.plusDays(chance.nextInt(120));
            days.add(new Terms.Days("", day, last));
            day = last.plusDays(1 + chance.nextInt(30));
        }
        List<Terms.Days> shuffled = new ArrayList<>(days);
        Collections.shuffle(shuffled, chance);
        Terms terms = Terms.of(shuffled, List.of(), ZONE);
        assertEquals(days.size(), terms.inOrder().size());
        List<LocalDate> mondays = terms.weeks().stream().map(Term.Week::monday).toList();
        assertEquals(mondays.stream().distinct().sorted().toList(), mondays, "each week once, in order");
        for (Terms.Named named : terms.inOrder())
            for (Term.Week week : named.term().weeks()) assertTrue(mondays.contains(week.monday()));
        for (int i = 0; i < days.size(); i++) {
            Term term = terms.get(i);
            assertEquals(days.get(i).firstDay(), term.first());
            assertEquals(i, terms.indexAt(term.startOf(term.first())));
            assertEquals(i, terms.indexAt(term.startOf(term.last().plusDays(1)).minusMillis(1)));
        }
    }
}

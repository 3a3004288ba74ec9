package org.vastporch.core.progress;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.vastporch.core.calendar.Term;
import org.vastporch.core.calendar.Term.Week;
import org.vastporch.core.marking.PaperState;
import org.vastporch.core.moderation.State;
import org.vastporch.core.progress.Weeks.Asked;
import org.vastporch.core.progress.Weeks.Cell;
import org.vastporch.core.progress.Weeks.Line;
import org.vastporch.core.progress.Weeks.Wrote;

class WeeksTest {

    /** Eight weeks over the end of summer time, the fifth a break. */
    private static final Term TERM = new Term(
            LocalDate.of(2026, 9, 28),
            LocalDate.of(2026, 11, 20),
            List.of(new Term.Break(LocalDate.of(2026, 10, 26), LocalDate.of(2026, 10, 30))),
            ZoneId.of("Europe/London"));

    private static final List<Week> WEEKS = TERM.weeks();
    private static final Duration HOUR = Duration.ofHours(1);

    private static Asked asked(int week, PaperState state) {
        return new Asked(WEEKS.get(week).end().minus(HOUR), state, false, false, true);
    }

    private static Asked late(int week, PaperState state) {
        return new Asked(WEEKS.get(week).end().minus(HOUR), state, true, false, true);
    }

    private static List<CellState> states(Line line) {
        return line.cells().stream().map(Cell::state).toList();
    }

    @Test
    void aWeekTellsWhatWasDueInIt() {
        Line line = Weeks.byWeek(
                WEEKS,
                List.of(
                        asked(0, PaperState.RELEASED),
                        late(1, PaperState.MARKED),
                        asked(3, PaperState.LET_OFF),
                        asked(5, PaperState.WAITING),
                        asked(6, PaperState.NOT_HANDED_IN)));
        assertEquals(
                List.of(
                        CellState.RELEASED,
                        CellState.MARKED,
                        CellState.NOTHING,
                        CellState.LET_OFF,
                        CellState.BREAK,
                        CellState.WAITING,
                        CellState.NOT_HANDED_IN,
                        CellState.NOTHING),
                states(line));
        assertTrue(line.cells().get(1).late());
        assertEquals("2 of 3, 1 in a row", line.onTime() + " of " + line.of() + ", " + line.streak() + " in a row");
    }

    @Test
    void weeksOfBreakOfNothingAndOfBeingLetOffEndNoStreak() {
        Line line = Weeks.byWeek(
                WEEKS,
                List.of(
                        asked(0, PaperState.MISSING),
                        asked(1, PaperState.RELEASED),
                        asked(2, PaperState.LET_OFF),
                        asked(5, PaperState.RETURNED),
                        asked(7, PaperState.IN_PART)));
        assertEquals(2, line.streak());
        assertEquals(
                0,
                Weeks.byWeek(WEEKS, List.of(asked(5, PaperState.HANDED_IN), asked(6, PaperState.MISSING)))
                        .streak());
        assertEquals(
                0,
                Weeks.byWeek(WEEKS, List.of(asked(5, PaperState.HANDED_IN), late(6, PaperState.HANDED_IN)))
                        .streak(),
                "a late one ends it too");
    }

    @Test
    void severalOfAWeekAreToldByWhatWantsMost() {
        Line line = Weeks.byWeek(
                WEEKS,
                List.of(
                        asked(0, PaperState.RELEASED),
                        late(0, PaperState.MARKED),
                        asked(1, PaperState.HANDED_IN),
                        asked(1, PaperState.MISSING),
                        asked(2, PaperState.LET_OFF),
                        asked(2, PaperState.RELEASED)));
        assertEquals(new Cell(CellState.MARKED, true, false, 2), line.cells().get(0));
        assertEquals(new Cell(CellState.MISSING, false, false, 2), line.cells().get(1));
        assertEquals(CellState.RELEASED, line.cells().get(2).state());
        assertEquals("3 of 5", line.onTime() + " of " + line.of(), "each paper counts, not each week");
    }

    @Test
    void whoeverCameLaterMissedNothing() {
        Asked before = new Asked(WEEKS.get(0).start(), PaperState.MISSING, false, false, false);
        Asked allTheSame = new Asked(WEEKS.get(1).start(), PaperState.HANDED_IN, true, false, false);
        Line line = Weeks.byPrompt(List.of(before, allTheSame, asked(2, PaperState.MISSING)));
        assertEquals(List.of(CellState.NOT_HERE, CellState.HANDED_IN, CellState.MISSING), states(line));
        assertEquals("0 of 2", line.onTime() + " of " + line.of());
    }

    @Test
    void quietIsWhoHandedInNothingInTheLastTwoWeeksThatAskedForIt() {
        assertTrue(quiet(asked(1, PaperState.RELEASED), asked(3, PaperState.MISSING), asked(5, PaperState.MISSING)));
        assertTrue(
                quiet(
                        asked(2, PaperState.MISSING),
                        asked(3, PaperState.MISSING),
                        asked(5, PaperState.LET_OFF),
                        asked(6, PaperState.NOT_HANDED_IN)),
                "what is open or let off is no word from them");
        assertFalse(quiet(asked(3, PaperState.MISSING)), "one week is nothing yet");
        assertFalse(quiet(asked(2, PaperState.MISSING), asked(3, PaperState.MISSING), late(5, PaperState.WAITING)));
        assertFalse(quiet(asked(3, PaperState.RETURNED), asked(5, PaperState.MISSING)));
        assertFalse(quiet());
    }

    private static boolean quiet(Asked... asked) {
        return Weeks.isQuiet(Weeks.byWeek(WEEKS, List.of(asked)));
    }

    @Test
    void byAnyPostAWeekThatIsOverIsMissingAndTheRunningOneIsNot() {
        Instant now = WEEKS.get(6).start().plus(HOUR);
        List<Wrote> posts = List.of(
                new Wrote(WEEKS.get(1).start(), State.PUBLISHED),
                new Wrote(WEEKS.get(1).end().minusMillis(1), State.WAITING),
                new Wrote(WEEKS.get(5).start(), State.HIDDEN));
        Line line = Weeks.byPost(WEEKS, now, WEEKS.get(0).end(), posts);
        assertEquals(
                List.of(
                        CellState.NOT_HERE,
                        CellState.WAITING,
                        CellState.MISSING,
                        CellState.MISSING,
                        CellState.BREAK,
                        CellState.HIDDEN,
                        CellState.NOT_HANDED_IN,
                        CellState.NOTHING),
                states(line));
        assertEquals(2, line.cells().get(1).parts());
        assertEquals("2 of 4, 1", line.onTime() + " of " + line.of() + ", " + line.streak());
        assertEquals(
                CellState.MISSING,
                Weeks.byPost(WEEKS, now, WEEKS.get(0).end().minusMillis(1), posts)
                        .cells()
                        .get(0)
                        .state());
        assertEquals(
                CellState.NOT_HANDED_IN,
                Weeks.byPost(WEEKS, WEEKS.get(7).end().minusMillis(1), Instant.MIN, posts)
                        .cells()
                        .get(7)
                        .state());
    }

    @Test
    void aStateOfAPaperOrAPostIsOneOfACell() {
        for (PaperState state : PaperState.values())
            assertEquals(state.name(), CellState.of(state).name());
        for (State state : List.of(State.WAITING, State.PUBLISHED, State.RETURNED, State.SCHEDULED, State.HIDDEN))
            assertEquals(state.name(), CellState.of(state).name());
    }

    /**
     * A slow reading: every paper is given a sign (+ in time, l late, - missing, ? open, space for outside), counted
     * and walked back.
     */
    @Test
    void itCountsAsASlowReadingDoes() {
        Random random = new Random(4);
        int streaks = 0;
        for (int world = 0; world < 2_000; world++) {
            List<Asked> all = new ArrayList<>();
            for (int n = random.nextInt(12); n > 0; n--) {
                Week week = WEEKS.get(random.nextInt(WEEKS.size()));
                PaperState state = PaperState.values()[random.nextInt(PaperState.values().length)];
                all.add(new Asked(
                        week.start().plus(HOUR.multipliedBy(random.nextInt(24 * 7))),
                        state,
                        random.nextInt(4) == 0,
                        random.nextInt(6) == 0,
                        random.nextInt(6) > 0));
            }
            all.sort(Comparator.comparing(Asked::due));
            String signs = String.join("", all.stream().map(WeeksTest::sign).toList());
            Line byPrompt = Weeks.byPrompt(all);
            assertEquals(signs.chars().filter(c -> c == '+').count(), byPrompt.onTime(), signs);
            assertEquals(signs.replaceAll("[? ]", "").length(), byPrompt.of(), signs);
            String back = new StringBuilder(signs.replaceAll("[? ]", "")).reverse() + "-";
            assertEquals(back.indexOf(back.replaceAll("[+]", "").charAt(0)), byPrompt.streak(), signs);
            Line byWeek = Weeks.byWeek(WEEKS, all);
            assertEquals(WEEKS.size(), byWeek.cells().size());
            assertEquals(byPrompt.onTime(), byWeek.onTime());
            assertEquals(byPrompt.of(), byWeek.of());
            for (int w = 0; w < WEEKS.size(); w++) {
                Week week = WEEKS.get(w);
                List<Asked> due =
                        all.stream().filter(a -> week.contains(a.due())).toList();
                Cell cell = byWeek.cells().get(w);
                if (due.isEmpty()) assertEquals(w == 4 ? CellState.BREAK : CellState.NOTHING, cell.state());
                String of = String.join("", due.stream().map(WeeksTest::sign).toList());
                assertEquals(of.contains("-"), cell.state() == CellState.MISSING, of);
            }
            if (byWeek.streak() > 1) streaks++;
        }
        assertTrue(streaks > 100, streaks + " streaks");
    }

    private static String sign(Asked asked) {
        return switch (asked.state()) {
            case LET_OFF -> " ";
            case NOT_HANDED_IN, IN_PART -> "?";
            case MISSING -> asked.wasHere() ? "-" : " ";
            default -> asked.isLate() ? "l" : "+";
        };
    }
}

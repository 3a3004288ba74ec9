package org.vastporch.core.progress;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.vastporch.core.calendar.Term.Week;
import org.vastporch.core.marking.PaperState;
import org.vastporch.core.moderation.State;

/** What students handed in, week by week, prompt by prompt, or by any post. */
public final class Weeks {

    /**
     * What one prompt asks of one student.
     *
     * @param due when it is for everybody: that tells its week
     * @param isLate whether what came is late, grace and an own date considered
     * @param wasHere whether the student was in the class before the time was over
     */
    public record Asked(Instant due, PaperState state, boolean isLate, boolean ownDate, boolean wasHere) {}

    /** A post that a student handed in, or that came from outside, at a moment. */
    public record Wrote(Instant at, State state) {}

    /**
     * @param late whether something in it came late
     * @param ownDate whether a date of the student's own counts
     * @param parts how many papers or posts it tells of
     */
    public record Cell(CellState state, boolean late, boolean ownDate, int parts) {

        private static Cell bare(CellState state) {
            return new Cell(state, false, false, 0);
        }

        /** Whether something came in time. */
        private boolean isOnTime() {
            return state.isThere() && !late;
        }

        /** Whether it counts: something came, or the time is over. */
        private boolean counts() {
            return !state.isOutside() && !state.isOpen();
        }
    }

    /**
     * @param onTime how many came in time
     * @param of how many were asked for whose time is over, or that came before; those let off are none
     * @param streak how many weeks or prompts in a row came in time, up to now. What is still open, a break, nothing
     *     asked and whatever the student was let off neither count nor end it
     */
    public record Line(List<Cell> cells, int onTime, int of, int streak) {}

    /** So many weeks without anything that was due are worth a word to a student. */
    private static final int QUIET = 2;

    private Weeks() {}

    /** A cell for each week of what is due in it; what is due in no week is not told. */
    public static Line byWeek(List<Week> weeks, List<Asked> asked) {
        List<Cell> cells = new ArrayList<>();
        List<Asked> told = new ArrayList<>();
        for (Week week : weeks) {
            List<Asked> due = asked.stream().filter(a -> week.contains(a.due())).toList();
            told.addAll(due);
            cells.add(due.isEmpty() ? Cell.bare(week.isBreak() ? CellState.BREAK : CellState.NOTHING) : cell(due));
        }
        return counted(cells, told.stream().map(a -> cell(List.of(a))).toList());
    }

    /** A cell for each prompt, in their order. */
    public static Line byPrompt(List<Asked> asked) {
        List<Cell> cells = asked.stream().map(a -> cell(List.of(a))).toList();
        return counted(cells, cells);
    }

    /**
     * A cell for each week of whatever was written in it; a week that is over without a post is missing.
     *
     * @param joined since when the student is in the class
     */
    public static Line byPost(List<Week> weeks, Instant now, Instant joined, List<Wrote> posts) {
        List<Cell> cells = weeks.stream()
                .map(week -> {
                    List<CellState> written = posts.stream()
                            .filter(p -> week.contains(p.at()))
                            .map(p -> CellState.of(p.state()))
                            .toList();
                    if (!written.isEmpty()) return new Cell(CellState.together(written), false, false, written.size());
                    return Cell.bare(without(week, now, joined));
                })
                .toList();
        return counted(cells, cells);
    }

    /**
     * Whether nothing came in the last two weeks in which something was due and is over.
     *
     * @param byWeek a student's line by weeks
     */
    public static boolean isQuiet(Line byWeek) {
        List<Cell> counting = byWeek.cells().stream().filter(Cell::counts).toList();
        return counting.size() >= QUIET
                && counting.subList(counting.size() - QUIET, counting.size()).stream()
                        .allMatch(c -> c.state() == CellState.MISSING);
    }

    private static CellState without(Week week, Instant now, Instant joined) {
        if (week.isBreak()) return CellState.BREAK;
        if (now.isBefore(week.start())) return CellState.NOTHING;
        if (!joined.isBefore(week.end())) return CellState.NOT_HERE;
        return now.isBefore(week.end()) ? CellState.NOT_HANDED_IN : CellState.MISSING;
    }

    private static Cell cell(List<Asked> due) {
        List<Asked> here = due.stream().filter(Weeks::isHere).toList();
        if (here.isEmpty()) return Cell.bare(CellState.NOT_HERE);
        List<Asked> asked =
                here.stream().filter(a -> a.state() != PaperState.LET_OFF).toList();
        if (asked.isEmpty()) return new Cell(CellState.LET_OFF, false, false, here.size());
        return new Cell(
                CellState.together(
                        asked.stream().map(a -> CellState.of(a.state())).toList()),
                asked.stream().anyMatch(Asked::isLate),
                asked.stream().anyMatch(Asked::ownDate),
                here.size());
    }

    /** Whoever came later missed nothing, but what they handed in all the same is told. */
    private static boolean isHere(Asked asked) {
        return asked.wasHere() || asked.state() != PaperState.MISSING;
    }

    /** @param each what is counted one by one */
    private static Line counted(List<Cell> cells, List<Cell> each) {
        List<Cell> counting = each.stream().filter(Cell::counts).toList();
        int streak = 0;
        for (int i = cells.size() - 1; i >= 0; i--) {
            Cell cell = cells.get(i);
            if (cell.isOnTime()) streak++;
            else if (cell.counts()) break;
        }
        return new Line(
                List.copyOf(cells),
                (int) counting.stream().filter(Cell::isOnTime).count(),
                counting.size(),
                streak);
    }
}

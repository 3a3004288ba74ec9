package org.vastporch.core.feeds;

import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.vastporch.core.calendar.Term;

/** How much an outside blog published lately, week by week. */
public final class EntryWeeks {

    /** So many weeks are told, the present one among them. */
    public static final int WEEKS = 12;

    private EntryWeeks() {}

    /** The first moment that is told of: that of a Monday on the clock of the class. */
    public static Instant since(Term term, Instant now) {
        return term.startOf(mondayOf(term.dayOf(now)).minusWeeks(WEEKS - 1L));
    }

    /**
     * The entries of each of the last weeks, from Monday to Sunday on the clock of the class, the present week last.
     *
     * @param published when entries were published, in any order; what lies outside of these weeks is left out
     */
    public static List<Integer> of(List<Instant> published, Term term, Instant now) {
        Integer[] counts = new Integer[WEEKS];
        Arrays.fill(counts, 0);
        LocalDate present = mondayOf(term.dayOf(now));
        for (Instant at : published) {
            long ago = ChronoUnit.WEEKS.between(mondayOf(term.dayOf(at)), present);
            if (ago >= 0 && ago < WEEKS) counts[WEEKS - 1 - (int) ago]++;
        }
        return new ArrayList<>(Arrays.asList(counts));
    }

    private static LocalDate mondayOf(LocalDate day) {
        return day.with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY));
    }
}

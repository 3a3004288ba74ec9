package org.vastporch.core.calendar;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.vastporch.core.Refusal;

/**
 * The terms of a class, one after the other; none begins before the one before it is over. Everything that is counted
 * by weeks is counted by those of one term.
 *
 * @param inOrder the earliest first; at least one
 * @param breaks all spells without school, also those that lie in no term
 */
public record Terms(List<Named> inOrder, List<Term.Break> breaks) {

    public static final int MOST = 30;
    private static final int LONGEST_NAME = 60;

    /** @param name such as Autumn; empty if it is known by its days alone */
    public record Named(String name, Term term) {}

    /** The days of a term, as somebody sets them. */
    public record Days(String name, LocalDate firstDay, LocalDate lastDay) {}

    public Terms {
        inOrder = List.copyOf(inOrder);
        breaks = List.copyOf(breaks);
        if (inOrder.isEmpty()) throw new Refusal("terms", "term-missing", "A class has at least one term");
        for (int i = 1; i < inOrder.size(); i++)
            if (!inOrder.get(i).term().first().isAfter(inOrder.get(i - 1).term().last()))
                throw new Refusal(
                        "terms",
                        "terms-overlap",
                        "A term begins on "
                                + inOrder.get(i).term().first() + ", and the one before it lasts until "
                                + inOrder.get(i - 1).term().last());
    }

    /**
     * Terms of days in any order. A break belongs to every term of which it takes a day.
     *
     * @throws Refusal if two of them share a day, one ends before it begins, or there are more than {@value #MOST}
     */
    public static Terms of(List<Days> days, List<Term.Break> breaks, ZoneId zone) {
        if (days.size() > MOST)
            throw new Refusal("terms", "too-many-terms", "A class has at most " + MOST + " terms, not " + days.size());
        List<Named> terms = new ArrayList<>();
        for (Days of : days) {
            String name = of.name().strip();
            if (name.length() > LONGEST_NAME)
                throw new Refusal(
                        "terms",
                        "term-name-too-long",
                        "The name of a term has at most " + LONGEST_NAME + " characters");
            List<Term.Break> inside = breaks.stream()
                    .filter(b -> !b.to().isBefore(of.firstDay()) && !b.from().isAfter(of.lastDay()))
                    .toList();
            terms.add(new Named(name, new Term(of.firstDay(), of.lastDay(), inside, zone)));
        }
        terms.sort(Comparator.comparing(t -> t.term().first()));
        return new Terms(terms, breaks);
    }

    /**
     * Which one counts at a moment: the one in which it lies; between two the one that is over; before the first, the
     * first.
     *
     * @return its place in the order, from 0
     */
    public int indexAt(Instant moment) {
        int at = 0;
        for (int i = 1; i < inOrder.size(); i++) {
            Term term = inOrder.get(i).term();
            if (!term.startOf(term.first()).isAfter(moment)) at = i;
        }
        return at;
    }

    /** The one that counts at a moment. */
    public Term at(Instant moment) {
        return inOrder.get(indexAt(moment)).term();
    }

    /** One by its place in the order; the nearest there is to a place that there is not. */
    public Term get(int index) {
        return inOrder.get(Math.max(0, Math.min(index, inOrder.size() - 1))).term();
    }

    /** The weeks of all terms in order; one that two terms share is there once, as the earlier one counts it. */
    public List<Term.Week> weeks() {
        List<Term.Week> weeks = new ArrayList<>();
        for (Named of : inOrder)
            for (Term.Week week : of.term().weeks())
                if (weeks.isEmpty()
                        || week.monday().isAfter(weeks.get(weeks.size() - 1).monday())) weeks.add(week);
        return weeks;
    }
}

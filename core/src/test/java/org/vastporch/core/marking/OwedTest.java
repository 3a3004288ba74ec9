package org.vastporch.core.marking;

import static org.junit.jupiter.api.Assertions.*;

import java.math.BigDecimal;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastporch.core.calendar.Term;
import org.vastporch.core.marking.Owed.Part;

class OwedTest {

    private static final LateRule RULE = new LateRule(new BigDecimal("0.05"), new BigDecimal("0.2"), BigDecimal.ZERO);

    @ParameterizedTest
    @CsvSource(textBlock = """
        # posts asked, there, open,  comments asked, there, open,  days | posts, comments, days, lost
        1,             0,     true,  2,              1,     true,  0,     1,     1,        0,    0
        1,             1,     true,  2,              2,     true,  3,     0,     0,        0,    0
        1,             2,     true,  0,              0,     false, 3,     0,     0,        0,    0
        3,             1,     true,  0,              5,     true,  2,     2,     0,        2,    0.10
        3,             1,     true,  0,              5,     true,  9,     2,     0,        9,    0.2
        1,             0,     false, 2,              0,     false, 2,     0,     0,        0,    0
        1,             1,     true,  2,              0,     true,  2,     0,     2,        0,    0
        """)
    void isWhatIsAskedAndNotThereWhileItComesIn(
            int askedPosts,
            int posts,
            boolean open,
            int askedComments,
            int comments,
            boolean commentsOpen,
            int days,
            int owedPosts,
            int owedComments,
            int daysLate,
            BigDecimal lost) {
        Owed owed =
                Owed.of(new Part(askedPosts, posts, open), new Part(askedComments, comments, commentsOpen), RULE, days);
        assertEquals(owedPosts, owed.posts());
        assertEquals(owedComments, owed.comments());
        assertEquals(daysLate, owed.daysLate());
        assertEquals(0, lost.compareTo(owed.shareLost()));
        assertEquals(owedPosts + owedComments == 0, owed.isNothing());
    }

    @Test
    void aMarkedOrClosedPaperOwesNoPosts() {
        assertEquals(2, owed(Part.posts(3, 1, false, false)));
        assertEquals(0, owed(Part.posts(3, 1, true, false)));
        assertEquals(0, owed(Part.posts(3, 1, false, true)));
    }

    private static int owed(Part posts) {
        return Owed.of(posts, new Part(0, 0, true), RULE, 0).posts();
    }

    /** Sunday 20:00 is this week's on Monday, next week's on the Sunday before, and late a day after. */
    @ParameterizedTest
    @CsvSource(textBlock = """
        2026-11-15T12:00:00Z, LATER
        2026-11-16T00:00:00Z, THIS_WEEK
        2026-11-22T20:00:00Z, THIS_WEEK
        2026-11-23T20:00:00Z, LATE
        2026-11-23T20:00:00.001Z, LATE
        """)
    void standsInTheListByTheWeekOfItsDueDate(Instant now, Owed.When when) {
        Term term = new Term(LocalDate.parse("2026-09-07"), LocalDate.parse("2026-12-18"), List.of(), ZoneOffset.UTC);
        Deadline due = new Deadline(Instant.parse("2026-11-22T20:00:00Z"), Duration.ofHours(1));
        assertEquals(when, Owed.When.of(due, term, now));
    }

    @ParameterizedTest
    @CsvSource(textBlock = """
        true,  LATER,     0, true
        true,  THIS_WEEK, 0, true
        true,  LATE,      0, false
        false, LATE,      1, true
        false, LATER,     0, false
        """)
    void isToldWhileItIsOwedOrLetOffInTime(boolean letOff, Owed.When when, int posts, boolean told) {
        assertEquals(told, new Owed(posts, 0, 0, BigDecimal.ZERO).isTold(letOff, when));
    }
}

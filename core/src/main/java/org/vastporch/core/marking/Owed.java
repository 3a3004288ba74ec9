package org.vastporch.core.marking;

import java.math.BigDecimal;
import java.time.Instant;
import org.vastporch.core.calendar.Term;

/**
 * What a student still owes for a prompt at a moment, and what it costs to be late then.
 *
 * @param posts how many are still to be handed in; 0 once nothing comes in any more
 * @param comments how many are still to be given; 0 once they do not count any more
 * @param daysLate of a post that is handed in at that moment
 * @param shareLost 0 to 1
 */
public record Owed(int posts, int comments, int daysLate, BigDecimal shareLost) {

    public static final Owed NOTHING = new Owed(0, 0, 0, BigDecimal.ZERO);

    /** Where something stands in the list of what is due. */
    public enum When {
        LATE,
        THIS_WEEK,
        LATER;

        /** @param deadline of the student whose list it is */
        public static When of(Deadline deadline, Term term, Instant now) {
            if (deadline.isOver(now)) return LATE;
            return deadline.due().isBefore(term.around(Term.Span.WEEK, now).end()) ? THIS_WEEK : LATER;
        }
    }

    /** So much was asked for, and so much is there; whether more comes in. */
    public record Part(int asked, int there, boolean isOpen) {

        /** The posts of a paper: none is owed once nothing comes in any more, or somebody has begun to mark it. */
        public static Part posts(int asked, int there, boolean isClosed, boolean isMarked) {
            return new Part(asked, there, !isClosed && !isMarked);
        }

        int owed() {
            return isOpen ? Math.max(0, asked - there) : 0;
        }
    }

    /** @param daysLate of a post that is handed in now */
    public static Owed of(Part posts, Part comments, LateRule late, int daysLate) {
        int owed = posts.owed();
        return owed == 0
                ? new Owed(0, comments.owed(), 0, BigDecimal.ZERO)
                : new Owed(owed, comments.owed(), daysLate, late.shareLost(daysLate));
    }

    /**
     * Whether it stands in the list: what is owed, and what a student was let off while the others have time.
     *
     * @param letOff whether the student was
     */
    public boolean isTold(boolean letOff, When when) {
        return letOff ? when != When.LATE : !isNothing();
    }

    public boolean isNothing() {
        return posts == 0 && comments == 0;
    }
}

package org.vastporch.core.marking;

import java.math.BigDecimal;

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

    /** So much was asked for, and so much is there; whether more comes in. */
    public record Part(int asked, int there, boolean isOpen) {
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

    public boolean isNothing() {
        return posts == 0 && comments == 0;
    }
}

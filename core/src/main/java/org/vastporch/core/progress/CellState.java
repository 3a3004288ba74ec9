package org.vastporch.core.progress;

import java.util.List;
import org.vastporch.core.marking.PaperState;
import org.vastporch.core.moderation.State;

/** What stands in a cell of the weeks. */
public enum CellState {
    /** Nothing is asked, or its time has not begun. */
    NOTHING,
    BREAK,
    /** The student was not in the class yet. */
    NOT_HERE,
    LET_OFF,
    /** Nothing came, and the time is over. */
    MISSING,
    RETURNED,
    /** Less came than is asked for, and there is time. */
    IN_PART,
    /** Nothing came, and there is time. */
    NOT_HANDED_IN,
    WAITING,
    SCHEDULED,
    HIDDEN,
    HANDED_IN,
    BEING_MARKED,
    MARKED,
    RELEASED,
    PUBLISHED;

    /** The order in which several together are told by one: whatever wants most. */
    private static final List<CellState> WANTING = List.of(
            MISSING,
            RETURNED,
            IN_PART,
            NOT_HANDED_IN,
            WAITING,
            SCHEDULED,
            HIDDEN,
            HANDED_IN,
            BEING_MARKED,
            MARKED,
            RELEASED,
            PUBLISHED);

    static CellState of(PaperState paper) {
        return valueOf(paper.name());
    }

    /** Of a post that was handed in or came from outside; drafts and what lies in the bin are none. */
    public static CellState of(State post) {
        return valueOf(post.name());
    }

    /** @param states of papers or posts; at least one that is not let off */
    static CellState together(List<CellState> states) {
        return WANTING.stream().filter(states::contains).findFirst().orElseThrow();
    }

    /** Whether something came, wherever it stands now. */
    public boolean isThere() {
        return compareTo(WAITING) >= 0 || this == RETURNED;
    }

    /** Whether it is neither there nor wanted: nothing is counted by it. */
    boolean isOutside() {
        return compareTo(LET_OFF) <= 0;
    }

    /** Whether there is still time for it. */
    boolean isOpen() {
        return this == IN_PART || this == NOT_HANDED_IN;
    }
}

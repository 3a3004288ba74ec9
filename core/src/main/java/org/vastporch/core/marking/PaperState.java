package org.vastporch.core.marking;

import org.jspecify.annotations.Nullable;
import org.vastporch.core.moderation.State;

/** Where the paper of a student for a prompt stands. It is computed from facts whenever it is asked for, never kept. */
public enum PaperState {
    /** Nothing came yet, and there is time. */
    NOT_HANDED_IN,
    /** Nothing came, and the time is over. */
    MISSING,
    /** Handed in, and somebody looks at it before the class does. */
    WAITING,
    /** Handed in, and given back to be mended. */
    RETURNED,
    /** Ready to be marked. */
    HANDED_IN,
    /** Some criteria have points. */
    BEING_MARKED,
    /** All criteria have points; the student does not see them yet. */
    MARKED,
    RELEASED;

    /**
     * What a paper has so far.
     *
     * @param post the state of the post that was handed in; null if none was
     * @param given how many criteria have points
     * @param criteria how many the rubric has; 0 without one
     * @param released whether the marks were shown to the student
     */
    public record Facts(@Nullable State post, int given, int criteria, boolean released) {

        /** Whether all criteria have points. */
        public boolean isFinished() {
            return criteria > 0 && given >= criteria;
        }
    }

    /** @param isOver whether due and grace are over */
    public static PaperState of(Facts paper, boolean isOver) {
        if (paper.post() == null) return isOver ? MISSING : NOT_HANDED_IN;
        if (paper.released()) return RELEASED;
        if (paper.isFinished()) return MARKED;
        if (paper.given() > 0) return BEING_MARKED;
        return switch (paper.post()) {
            case WAITING -> WAITING;
            case RETURNED -> RETURNED;
            default -> HANDED_IN;
        };
    }

    /** Whether it lies on the desk of those who mark. */
    public boolean isToMark() {
        return this == HANDED_IN || this == BEING_MARKED;
    }

    /** Whether nothing is left to be done about it but to show it. */
    public boolean isMarked() {
        return this == MARKED || this == RELEASED;
    }
}

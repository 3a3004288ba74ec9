package org.vastporch.core.marking;

import java.time.Duration;
import java.time.Instant;

/** Who may take which step on the marking of a paper, decided on the paper as it stands once its rows are locked. */
public final class MarkingRules {

    /** For so long a release is taken back without a word. */
    private static final Duration TAKEN_BACK_FREELY = Duration.ofHours(1);

    /**
     * A paper before a step, and who takes it.
     *
     * @param isEmpty whether nothing came that could be marked
     * @param isAsSeen whether it stands as whoever takes the step had it before them
     * @param isReleased whether its student, or anybody who is marked with them, was shown the marks
     * @param assists whether an assistant takes the step
     * @param takenOver whether the class wants an assistant's marks to be taken over by a teacher
     */
    public record Facts(
            boolean letOff,
            boolean isEmpty,
            boolean isAsSeen,
            boolean isReleased,
            boolean assists,
            boolean takenOver) {}

    /** What becomes of a step. */
    public enum Answer {
        ALLOWED,
        LET_OFF,
        NOTHING_HANDED_IN,
        /** It stands otherwise than it was seen. */
        OUTDATED,
        /** Its student has seen the score: only a teacher changes it now. */
        TEACHERS_ALONE,
        /** It needs words for its student. */
        SAY_WHY
    }

    /** What becomes of a paper among several for which one thing is done. */
    public enum OneOfMany {
        DO,
        /** It was done before, to the paper as it was seen. */
        DONE_ALREADY,
        /** It stands otherwise than it was seen, or is not ready for it. */
        LEFT
    }

    private MarkingRules() {}

    /** Whether points, remarks or words may be given. */
    public static Answer mark(Facts paper, boolean saysWhy) {
        if (paper.letOff()) return Answer.LET_OFF;
        if (paper.isEmpty()) return Answer.NOTHING_HANDED_IN;
        if (!paper.isAsSeen()) return Answer.OUTDATED;
        if (!paper.isReleased()) return Answer.ALLOWED;
        if (paper.assists() && paper.takenOver()) return Answer.TEACHERS_ALONE;
        return saysWhy ? Answer.ALLOWED : Answer.SAY_WHY;
    }

    /** Whether taking a release back needs words for its student: after the first hour it does. */
    public static boolean takeBackNeedsReason(Instant releasedAt, Instant now) {
        return now.isAfter(releasedAt.plus(TAKEN_BACK_FREELY));
    }

    /** Whether one of several papers is shown to its student. */
    public static OneOfMany release(PaperState state, boolean isAsSeen) {
        if (!isAsSeen) return OneOfMany.LEFT;
        return switch (state) {
            case RELEASED -> OneOfMany.DONE_ALREADY;
            case MARKED -> OneOfMany.DO;
            default -> OneOfMany.LEFT;
        };
    }

    /** Whether a teacher makes the marks of one of several papers theirs. */
    public static OneOfMany takeOver(boolean isToTakeOver, boolean isAsSeen) {
        return isToTakeOver && isAsSeen ? OneOfMany.DO : OneOfMany.LEFT;
    }
}

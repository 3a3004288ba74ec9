package org.vastporch.core.marking;

import java.util.List;
import org.vastporch.core.moderation.State;

/** Where the paper of a student for a prompt stands. It is computed from facts whenever it is asked for, never kept. */
public enum PaperState {
    /** Nothing came yet, and there is time. */
    NOT_HANDED_IN,
    /** Nothing came, and the time is over. */
    MISSING,
    /** Less came than is asked for, and there is time. */
    IN_PART,
    /** Handed in, and somebody looks at it before the class does. */
    WAITING,
    /** Handed in, and given back to be mended. */
    RETURNED,
    /** Ready to be marked. */
    HANDED_IN,
    /** Some criteria have points, or all of them and a teacher has still to take them over. */
    BEING_MARKED,
    /** All criteria have points; the student does not see them yet. */
    MARKED,
    RELEASED,
    /** Nothing is asked of this student, and nothing of it is in any sum. */
    LET_OFF;

    /**
     * What a paper has so far.
     *
     * @param posts the states of the posts that count, and how many the prompt asks for
     * @param comments the comments without which it is not ready, those that count and those asked for; both 0 if it
     *     does not wait for any
     * @param given how many criteria of the rubric have points, or do not count for this student
     * @param criteria how many the rubric has; 0 without one
     * @param isAwaited whether a teacher has still to take over what an assistant gave
     * @param released whether the marks were shown to the student
     */
    public record Facts(
            List<State> posts,
            int asked,
            Comments comments,
            int given,
            int criteria,
            boolean isAwaited,
            boolean released,
            boolean letOff) {

        /** Whether all criteria have points that count. */
        public boolean isFinished() {
            return criteria > 0 && given >= criteria && !isAwaited;
        }

        /** Whether nothing came: where posts are asked for, comments alone are nothing. */
        boolean isEmpty() {
            return posts.isEmpty() && (asked > 0 || comments.there() == 0);
        }

        boolean isWhole() {
            return posts.size() >= asked && comments.there() >= comments.asked();
        }
    }

    /** Comments that a paper needs to be ready: those that count, and those asked for. */
    public record Comments(int there, int asked) {
        public static final Comments NONE = new Comments(0, 0);
    }

    /** @param isOver whether due and grace are over */
    public static PaperState of(Facts paper, boolean isOver) {
        if (paper.letOff()) return LET_OFF;
        // What its student has seen stands, whatever became of the post.
        if (paper.released()) return RELEASED;
        if (paper.isEmpty()) return isOver ? MISSING : NOT_HANDED_IN;
        if (paper.isFinished()) return MARKED;
        if (paper.given() > 0) return BEING_MARKED;
        if (paper.posts().contains(State.RETURNED)) return RETURNED;
        if (paper.posts().contains(State.WAITING)) return WAITING;
        return paper.isWhole() || isOver ? HANDED_IN : IN_PART;
    }

    /** Whether it lies on the desk of those who mark. */
    public boolean isToMark() {
        return this == HANDED_IN || this == BEING_MARKED;
    }

    /** Whether nothing is left to be done about it but to show it. */
    public boolean isMarked() {
        return this == MARKED || this == RELEASED;
    }

    /**
     * The same for its student, who learns of marks once they are shown.
     *
     * @param isShown whether the student sees the marks
     */
    public PaperState toItsStudent(boolean isShown) {
        boolean isAboutMarks = this == BEING_MARKED || this == MARKED || this == RELEASED;
        return isAboutMarks && !isShown ? HANDED_IN : this;
    }

    /** Of the posts that came for a prompt those that count: as many as it asks for, those that came last. */
    public static <T> List<T> counted(List<T> inOrder, int asked) {
        return List.copyOf(inOrder.subList(Math.max(0, inOrder.size() - asked), inOrder.size()));
    }
}

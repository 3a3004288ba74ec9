package org.vastporch.core.reviews;

import org.vastporch.core.prompts.Reviews;

/** When authors say by the rubric how they see a paper of theirs, decided on the paper once its rows are locked. */
public final class OwnView {

    /**
     * A paper before its author gives a step.
     *
     * @param isEmpty whether nothing of it was handed in
     * @param isShown whether the author has been shown the marks
     * @param isAsSeen whether the own view stands as the author had it before them
     */
    public record Facts(Reviews.Self asked, boolean letOff, boolean isEmpty, boolean isShown, boolean isAsSeen) {}

    /** What becomes of a step. */
    public enum Answer {
        ALLOWED,
        NOT_ASKED,
        LET_OFF,
        NOTHING_HANDED_IN,
        /** What one says after having seen the marks is no judgement of one's own. */
        MARKS_SHOWN,
        OUTDATED
    }

    private OwnView() {}

    public static Answer give(Facts paper) {
        if (paper.asked() == Reviews.Self.NOT_ASKED) return Answer.NOT_ASKED;
        if (paper.letOff()) return Answer.LET_OFF;
        if (paper.isShown()) return Answer.MARKS_SHOWN;
        if (paper.isEmpty() && paper.asked() != Reviews.Self.BEFORE) return Answer.NOTHING_HANDED_IN;
        return paper.isAsSeen() ? Answer.ALLOWED : Answer.OUTDATED;
    }
}

package org.vastporch.core.peers;

import java.util.List;
import org.vastporch.core.Refusal;
import org.vastporch.core.marking.Marks;
import org.vastporch.core.moderation.State;
import org.vastporch.core.rubrics.Rubric;

/** What a student may do with a review that was given to them, decided on its row once that is locked. */
public final class PeerReading {

    /**
     * A review before a step of its reader.
     *
     * @param state where its words stand: DRAFT or RETURNED while they are its reader's
     * @param isEnded whether it was taken from its reader
     * @param isOver whether the time for reviews is over, and for late ones too
     * @param isThere whether the paper can still be read by its reader
     * @param isWarm whether its reader is done with the papers to warm up on, or began it before there were any
     * @param isAsSeen whether it stands as its reader had it before them
     */
    public record Facts(
            State state, boolean isEnded, boolean isOver, boolean isThere, boolean isWarm, boolean isAsSeen) {}

    /** What becomes of a step. */
    public enum Answer {
        ALLOWED,
        /** Sent: it stays as it is. */
        SENT,
        ENDED,
        /** Its author has taken the paper back, or has shown it to fewer since. */
        PAPER_GONE,
        /** Papers to warm up on come first. */
        WARM_UP_FIRST,
        OUTDATED
    }

    /** How far a review has come, for those who look after the round. */
    public enum Stage {
        NOT_BEGUN,
        BEGUN,
        /** Sent, and waits for somebody to look at its words. */
        WAITS,
        /** It came back to its reader with a note. */
        RETURNED,
        /** Its author reads it. */
        DONE,
        TAKEN_DOWN
    }

    private static final int LONGEST_ANSWER = 4_000;

    private PeerReading() {}

    public static Answer give(Facts review) {
        if (review.isEnded()) return Answer.ENDED;
        if (review.state() != State.DRAFT && review.state() != State.RETURNED) return Answer.SENT;
        if (review.isOver()) return Answer.ENDED;
        if (!review.isThere()) return Answer.PAPER_GONE;
        if (!review.isWarm()) return Answer.WARM_UP_FIRST;
        return review.isAsSeen() ? Answer.ALLOWED : Answer.OUTDATED;
    }

    /** Whether its reader has the paper before them: until the review ends. */
    public static boolean reads(Facts review) {
        Answer answer = give(review);
        return answer == Answer.ALLOWED || answer == Answer.OUTDATED;
    }

    /** @param isBegun whether anything of it is kept */
    public static Stage stage(State state, boolean isBegun) {
        return switch (state) {
            case DRAFT -> isBegun ? Stage.BEGUN : Stage.NOT_BEGUN;
            case WAITING -> Stage.WAITS;
            case RETURNED -> Stage.RETURNED;
            case PUBLISHED, SCHEDULED -> Stage.DONE;
            case HIDDEN, BINNED -> Stage.TAKEN_DOWN;
        };
    }

    /** An answer to a question that can be kept. */
    public static String answer(String answer) {
        if (answer.length() > LONGEST_ANSWER)
            throw new Refusal("answer", "answer-too-long", "An answer has at most 4,000 characters.");
        return answer.strip();
    }

    /**
     * Makes sure that a review is whole before it is sent.
     *
     * @param asked what of the rubric is judged
     * @param answers to the questions, in their order; empty where nothing was said
     */
    public static void requireWhole(Rubric asked, Marks marks, List<String> answers) {
        if (!marks.isWhole(asked)) throw new Refusal("marks", "steps-missing", "Choose a step on every stair first.");
        if (answers.stream().anyMatch(String::isEmpty))
            throw new Refusal("answers", "answers-missing", "Answer every question first.");
    }

    /** Whether it counts, and its author reads it: it was sent, and nobody who looks at it has taken it away. */
    public static boolean counts(State state) {
        return state == State.PUBLISHED;
    }
}

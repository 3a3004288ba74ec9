package org.vastporch.core.prompts;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.Refusal;
import org.vastporch.core.rubrics.Rubric;

/**
 * How classmates read each other's papers for a prompt, by its rubric.
 *
 * @param each how many papers each of them reads, 1 to {@value #MOST_EACH}
 * @param at when papers are given out; null unless that is set for a time
 * @param due by when they are read
 * @param authorsKept whether the name of a paper's author is kept from who reviews it
 * @param reviewersKept whether the name of who reviewed a paper is kept from its author
 * @param criteria by their identities, on which they judge; empty for all
 * @param questions what they answer besides, in words
 * @param share how much of the score their marks are, in per cent, 0 to 100; where none are there the marker's count
 * @param answered whether authors may say what helped them
 */
public record Peers(
        int each,
        When when,
        @Nullable Instant at,
        Instant due,
        boolean authorsKept,
        boolean reviewersKept,
        List<String> criteria,
        List<String> questions,
        int share,
        boolean answered) {

    public static final int MOST_EACH = 6;
    private static final int MOST_QUESTIONS = 8;
    private static final int LONGEST_QUESTION = 300;

    /** So long after they are due what is still open can be read and given; then the round is over. */
    public static final Duration LATEST = Duration.ofDays(14);

    private static final Duration REMINDED_BEFORE = Duration.ofDays(1);

    /** When papers are given out. */
    public enum When {
        BY_HAND,
        /** At a time that is set. */
        AT,
        /** Once all papers are in, at the latest when their time is over. */
        ALL_IN
    }

    public Peers {
        criteria = List.copyOf(criteria);
        questions =
                questions.stream().map(String::strip).filter(q -> !q.isEmpty()).toList();
        if (when != When.AT) at = null;
    }

    /**
     * @param due when the papers are
     * @throws Refusal if a prompt cannot ask for that
     */
    Peers checked(Instant due) {
        if (each < 1 || each > MOST_EACH)
            throw new Refusal("each", "each-range", "Each student reads from 1 to " + MOST_EACH + " papers.");
        if (when == When.AT && at == null)
            throw new Refusal("givenAt", "given-at-missing", "Say when the papers are given out.");
        if (at != null && !at.isBefore(this.due))
            throw new Refusal("peersDue", "due-before-giving-out", "Reviews are due after papers are given out.");
        if (!due.isBefore(this.due))
            throw new Refusal("peersDue", "due-before-papers", "Reviews are due after the papers themselves.");
        if (share < 0 || share > 100)
            throw new Refusal("peersShare", "share-range", "A share of the score lies between 0 and 100 per cent.");
        if (questions.size() > MOST_QUESTIONS)
            throw new Refusal("peersQuestions", "too-many", "At most " + MOST_QUESTIONS + " questions are asked.");
        if (questions.stream().anyMatch(q -> q.length() > LONGEST_QUESTION))
            throw new Refusal("peersQuestions", "question-too-long", "A question has at most 300 characters.");
        return this;
    }

    /** What of a rubric classmates judge; all of it if nothing of what was chosen is left. */
    public Rubric asked(Rubric rubric) {
        List<Rubric.Criterion> chosen = rubric.criteria().stream()
                .filter(c -> criteria.contains(c.id()))
                .toList();
        return chosen.isEmpty() ? rubric : new Rubric(chosen);
    }

    /**
     * Whether papers are given out now, if that was not done before.
     *
     * @param allIn whether all papers are there, or their time is over
     */
    public boolean areGivenOut(Instant now, boolean allIn) {
        return switch (when) {
            case BY_HAND -> false;
            case AT -> at != null && !now.isBefore(at);
            case ALL_IN -> allIn;
        };
    }

    /**
     * Whether those who have not sent theirs are reminded now, if they were not before: from a day before it is due.
     */
    public boolean isTimeToRemind(Instant now) {
        return now.isBefore(due) && !now.isBefore(due.minus(REMINDED_BEFORE));
    }

    /** Whether what is still open can be read and given no more. */
    public boolean isOver(Instant now) {
        return now.isAfter(due.plus(LATEST));
    }
}

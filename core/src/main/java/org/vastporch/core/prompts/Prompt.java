package org.vastporch.core.prompts;

import java.math.BigDecimal;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.Refusal;
import org.vastporch.core.comments.CommentsAsked;
import org.vastporch.core.marking.Allowance;
import org.vastporch.core.marking.Deadline;
import org.vastporch.core.marking.LateRule;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.core.writing.HandIn;

/**
 * What a teacher asks of a class: what to write, by when, and what it is worth.
 *
 * @param id 0 before it is kept
 * @param tag the tag that stands for it; null for none
 * @param grace how long after due a paper is still on time
 * @param points what its rubric gives in all
 * @param places how many places of a score are shown
 * @param commentsDue by when the comments asked for are to be given; null for the day the prompt is due
 * @param commentsWords fewest words of a comment that counts; 0 for any
 * @param starter clean HTML that a new answer begins with; empty for a blank page
 * @param example clean HTML of what an answer may look like; empty for none
 * @param closes after which nothing comes in; null for never
 * @param series the first of the prompts that were set in one step with it; null if it was set alone
 * @param bundleId the prompts that it counts together with; null for none
 * @param rubricHidden whether students see its rubric only with their marks
 * @param rubric null if it is not marked
 * @param reviews who reads a paper by the rubric besides whoever marks it
 * @param rev raised by each change
 */
public record Prompt(
        long id,
        long classId,
        String title,
        String instructions,
        List<String> questions,
        @Nullable String tag,
        Instant opens,
        Instant due,
        Duration grace,
        LateRule late,
        BigDecimal points,
        int places,
        HandIn.Asked asked,
        @Nullable Instant commentsDue,
        int commentsWords,
        String starter,
        String example,
        Answers answers,
        @Nullable Instant closes,
        @Nullable Long series,
        @Nullable Long bundleId,
        boolean rubricHidden,
        @Nullable Rubric rubric,
        Reviews reviews,
        int rev) {

    private static final int LONGEST_TITLE = 160;
    private static final int LONGEST_STARTER = 100_000;
    private static final int LONGEST_EXAMPLE = 100_000;
    private static final int LONGEST_INSTRUCTIONS = 40_000;
    private static final int LONGEST_QUESTIONS = 10_000;
    private static final BigDecimal MOST_POINTS = BigDecimal.valueOf(10_000);
    private static final int MOST_PLACES = 4;
    private static final Duration LONGEST_GRACE = Duration.ofDays(60);

    /**
     * This prompt, if it can be set so.
     *
     * @throws Refusal with what is wrong
     */
    public Prompt checked() {
        if (title.isEmpty()) throw new Refusal("title", "title-missing", "Give the prompt a title.");
        if (title.length() > LONGEST_TITLE)
            throw new Refusal(
                    "title",
                    "title-too-long",
                    "A title has at most 160 characters; this one has " + title.length() + ".");
        if (instructions.length() > LONGEST_INSTRUCTIONS)
            throw new Refusal(
                    "instructions", "instructions-too-long", "What to write is told in at most 40,000 characters.");
        if (String.join("\n", questions).length() > LONGEST_QUESTIONS)
            throw new Refusal(
                    "questions", "questions-too-long", "Guiding questions have at most 10,000 characters together.");
        if (starter.length() > LONGEST_STARTER)
            throw new Refusal("starter", "starter-too-long", "This beginning is too long.");
        if (example.length() > LONGEST_EXAMPLE)
            throw new Refusal("example", "example-too-long", "An example has at most 100,000 characters.");
        requireTimes();
        if (points.signum() < 0 || points.compareTo(MOST_POINTS) > 0)
            throw new Refusal("points", "points-range", "Points lie between 0 and 10,000.");
        if (points.stripTrailingZeros().scale() > MOST_PLACES)
            throw new Refusal("points", "points-places", "Points have at most four places after the point.");
        if (late.floor().compareTo(points) > 0)
            throw new Refusal("lateFloor", "late-floor", "The floor cannot lie above the points of the prompt.");
        answers.checked(asked.comments());
        reviews.checked(rubric != null, rubricHidden, due, answers.posts());
        return this;
    }

    private void requireTimes() {
        if (!opens.isBefore(due)) throw new Refusal("due", "due-before-opening", "It must be due after it opens.");
        if (closes != null && closes.isBefore(due))
            throw new Refusal("closes", "closes-before-due", "It cannot close before it is due.");
        if (grace.isNegative() || grace.compareTo(LONGEST_GRACE) > 0)
            throw new Refusal("graceHours", "grace-range", "Grace lies between 0 and 1,440 hours.");
    }

    public Prompt withTexts(String instructions, String starter, String example) {
        return with(title, instructions, starter, example);
    }

    public Prompt withTitle(String title) {
        return with(title, instructions, starter, example);
    }

    private Prompt with(String title, String instructions, String starter, String example) {
        return new Prompt(
                id,
                classId,
                title,
                instructions,
                questions,
                tag,
                opens,
                due,
                grace,
                late,
                points,
                places,
                asked,
                commentsDue,
                commentsWords,
                starter,
                example,
                answers,
                closes,
                series,
                bundleId,
                rubricHidden,
                rubric,
                reviews,
                rev);
    }

    /** Whether its students are told other dates than before, for posts, comments or reviews. */
    public boolean movesDatesOf(Prompt before) {
        return !due.equals(before.due)
                || !Objects.equals(commentsDue, before.commentsDue)
                || !Objects.equals(reviewsDue(), before.reviewsDue());
    }

    @Nullable
    private Instant reviewsDue() {
        return reviews.peers() == null ? null : reviews.peers().due();
    }

    public boolean isOpen(Instant now) {
        return !now.isBefore(opens);
    }

    /** Whether nothing comes in any more; an own date is not cut by it. */
    public boolean isClosed(Instant now, Allowance allowance) {
        if (closes == null || !now.isAfter(closes)) return false;
        return allowance.due() == null || deadline(allowance).isOver(now);
    }

    /** Until when a student with such an allowance is on time. */
    public Deadline deadline(Allowance allowance) {
        return allowance.deadline(due, grace);
    }

    /** Whether a student can still say which of their posts answer it: while there is time, with such an allowance. */
    public boolean isChoosable(Instant now, Allowance allowance) {
        return isOpen(now) && !deadline(allowance).isOver(now);
    }

    /**
     * The comments that it asks of a student with such an allowance. Where they are the whole task they count until a
     * paper would be late.
     */
    public CommentsAsked commentsAsked(Allowance allowance) {
        boolean untilLate = commentsDue == null && answers.isCommentsAlone();
        return new CommentsAsked(
                asked.comments(), commentsWords, untilLate ? deadline(allowance).end() : commentsDue);
    }
}

package org.vastporch.core.prompts;

import org.jspecify.annotations.Nullable;
import org.vastporch.core.Refusal;

/**
 * What is asked under a prompt, and who reads it. A question is between its asker and the staff until somebody answers
 * it for all; so nothing that a student asks stands before classmates unless staff put it there.
 */
public final class Questions {

    public static final int LONGEST = 2_000;
    /** So many of one student's may wait under one prompt. */
    public static final int MOST_WAITING = 10;

    /** @param forAll whether the answer is for all; false while there is none */
    public record Question(long askerId, @Nullable String answer, boolean forAll) {}

    private Questions() {}

    /**
     * A question or an answer as it is kept.
     *
     * @param field as it is named where it was sent
     * @throws Refusal if there is nothing in it, or too much
     */
    public static String text(String field, String text) {
        String kept = text.strip();
        if (kept.isEmpty()) throw new Refusal(field, "text-empty", "Write something first.");
        if (kept.length() > LONGEST)
            throw new Refusal(
                    field, "text-too-long", "This has " + kept.length() + " characters; at most 2,000 fit here.");
        return kept;
    }

    /** @throws Refusal if one student has asked as much as can wait */
    public static void requireRoom(int waiting) {
        if (waiting >= MOST_WAITING)
            throw new Refusal(
                    "question", "too-many-questions", "Ten of your questions wait here. Let them be answered first.");
    }

    /** Whether somebody who asked it, or who answers, can take a question away. */
    public static boolean isRemovable(Question question, boolean answers) {
        return answers || question.answer() == null;
    }

    /** Whether somebody reads a question. */
    public static boolean isRead(Question question, long viewer, boolean answers) {
        return answers || question.askerId() == viewer || question.forAll();
    }
}

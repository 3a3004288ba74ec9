package org.vastporch.core.prompts;

import org.vastporch.core.Refusal;

/**
 * Who reads a paper by its rubric besides whoever marks it, as a prompt says.
 *
 * @param self whether its author does
 * @param selfShare how much of the score the author's own marks are, in per cent, 0 to 100; where they are missing the
 *     marker's count in their place
 */
public record Reviews(Self self, int selfShare) {

    public static final Reviews NONE = new Reviews(Self.NOT_ASKED, 0);

    /** Whether authors say how they see their papers. */
    public enum Self {
        NOT_ASKED,
        /** From the hand-in on, until the marks are shown. */
        ASKED,
        /** So that the marks are shown only once they have said it. */
        FIRST
    }

    /** @throws Refusal if a prompt cannot ask for that */
    Reviews checked(boolean hasRubric, boolean rubricHidden) {
        if (selfShare < 0 || selfShare > 100)
            throw new Refusal("selfShare", "share-range", "A share of the score lies between 0 and 100 per cent.");
        if (self == Self.NOT_ASKED) {
            if (selfShare > 0)
                throw new Refusal(
                        "selfShare", "share-of-nobody", "Own marks can only count where students are asked for them.");
            return this;
        }
        if (!hasRubric)
            throw new Refusal("self", "no-rubric", "Students need a rubric to say by it how they see their papers.");
        if (rubricHidden)
            throw new Refusal(
                    "self", "rubric-hidden", "Let students see the rubric, if they are to say by it how they see it.");
        return this;
    }
}

package org.vastporch.core.writing;

import org.jspecify.annotations.Nullable;

/** For what a teacher would like to use a post, and asks its author. */
public enum ExampleUse {
    /** The class reads it with a prompt. */
    EXAMPLE,
    /** Reviewers judge it without its author's name, and see then what the teacher gave. */
    WARM_UP;

    /**
     * Whether an author may give this answer. A warm-up paper is marked for the text as it was given: once refused or
     * taken back it comes again, as it is by then, only when the teacher asks again.
     *
     * @param before what they answered before; null for nothing
     * @param given what they answer now
     */
    public boolean takes(@Nullable Boolean before, boolean given) {
        return this == EXAMPLE || before == null || before && !given;
    }

    /** Whether an author's name may stand there. */
    public boolean mayName() {
        return this == EXAMPLE;
    }
}

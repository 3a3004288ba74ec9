package org.vastporch.core.prompts;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.Refusal;

/**
 * Who reads a paper by its rubric besides whoever marks it, as a prompt says.
 *
 * @param self whether its author does
 * @param selfShare how much of the score the author's own marks are, in per cent, 0 to 100; where they are missing the
 *     marker's count in their place
 * @param peers how classmates do; null if they do not
 */
public record Reviews(Self self, int selfShare, @Nullable Peers peers) {

    public static final Reviews NONE = new Reviews(Self.NOT_ASKED, 0);

    /** Without classmates. */
    public Reviews(Self self, int selfShare) {
        this(self, selfShare, null);
    }

    /** Whether authors say how they see their papers. */
    public enum Self {
        NOT_ASKED,
        /** Before they hand them in, and from then on until the marks are shown. */
        BEFORE,
        /** From the hand-in on, until the marks are shown. */
        ASKED,
        /** So that the marks are shown only once they have said it. */
        FIRST
    }

    /**
     * @param due when the papers are
     * @param posts how many posts a paper has
     * @throws Refusal if a prompt cannot ask for that
     */
    Reviews checked(boolean hasRubric, boolean rubricHidden, Instant due, int posts) {
        requireSelf(hasRubric, rubricHidden);
        if (peers == null) return this;
        peers.checked(due);
        if (!hasRubric) throw new Refusal("peers", "no-rubric", "Classmates need a rubric to judge a paper by.");
        if (rubricHidden)
            throw new Refusal("peers", "rubric-hidden", "Let students see the rubric, if they are to judge by it.");
        if (posts == 0)
            throw new Refusal("peers", "no-posts", "Where only comments are asked for, there is no paper to review.");
        if (selfShare + peers.share() > 100)
            throw new Refusal(
                    "peersShare", "shares-range", "All shares of the score are at most 100 per cent together.");
        return this;
    }

    private void requireSelf(boolean hasRubric, boolean rubricHidden) {
        if (selfShare < 0 || selfShare > 100)
            throw new Refusal("selfShare", "share-range", "A share of the score lies between 0 and 100 per cent.");
        if (self == Self.NOT_ASKED) {
            if (selfShare > 0)
                throw new Refusal(
                        "selfShare", "share-of-nobody", "Own marks can only count where students are asked for them.");
            return;
        }
        if (!hasRubric)
            throw new Refusal("self", "no-rubric", "Students need a rubric to say by it how they see their papers.");
        if (rubricHidden)
            throw new Refusal(
                    "self", "rubric-hidden", "Let students see the rubric, if they are to say by it how they see it.");
    }
}

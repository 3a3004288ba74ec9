package org.vastporch.core.prompts;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.Refusal;

/**
 * What a prompt takes as its answer, and of whom.
 *
 * @param posts how many are asked for, 0 to 20; with 0 comments are the whole task
 * @param ownFirst whether others' answers are read only once the own one is published
 * @param byGroups whether a group hands in one paper
 * @param commentsFirst whether a paper is ready to mark only once the comments asked for are there too
 * @param commentOn the posts that are to be answered with comments, by their numbers; empty for any
 * @param also by what else a post of a student answers it
 * @param into the blog in which answers are written; null for any in which a student may write
 * @param namesUntil until when names are kept from classmates around them; null if they are not
 */
public record Answers(
        int posts,
        boolean ownFirst,
        boolean byGroups,
        boolean commentsFirst,
        List<Long> commentOn,
        Also also,
        @Nullable Into into,
        @Nullable Instant namesUntil) {

    public static final int MOST_POSTS = 20;
    private static final int MOST_NAMED = 40;

    /**
     * By what a post that was not written for a prompt answers it all the same.
     *
     * @param category the category that stands for it, by its number; null for none
     * @param tag whether its tag, or its title as a tag, does so
     * @param time whether it is enough that it was handed in while this was the only such prompt that was open
     */
    public record Also(@Nullable Long category, boolean tag, boolean time) {
        public static final Also NOTHING = new Also(null, false, false);
    }

    /**
     * One blog, or the one of each student in a set "one each".
     *
     * @param isEach whether it is a set
     * @param id the number of the blog, or of the set
     */
    public record Into(boolean isEach, long id) {}

    public static final Answers ONE_POST = new Answers(1, false, false, false, List.of(), Also.NOTHING, null, null);

    public Answers {
        commentOn = List.copyOf(commentOn);
    }

    /** @param comments how many the prompt asks for */
    Answers checked(int comments) {
        if (posts < 0 || posts > MOST_POSTS)
            throw new Refusal("askedPosts", "posts-range", "A prompt asks for 0 to 20 posts.");
        if (posts == 0 && comments == 0)
            throw new Refusal("askedPosts", "nothing-asked", "Ask for a post, or for comments on others' posts.");
        if (commentOn.size() > MOST_NAMED)
            throw new Refusal("commentOn", "too-many-named", "At most 40 posts are named to be answered.");
        if (!commentOn.isEmpty() && comments == 0)
            throw new Refusal("commentOn", "no-comments-asked", "Posts are named, but no comments are asked for.");
        return this;
    }

    /** Whether a paper is ready only once comments are there. */
    public boolean needsComments() {
        return commentsFirst || isCommentsAlone();
    }

    /** Whether comments are the whole task. */
    public boolean isCommentsAlone() {
        return posts == 0;
    }
}

package org.vastporch.core.access;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.moderation.State;

/**
 * What the access engine needs to know of a post.
 *
 * @param authorId who wrote it; 0 for news that belongs to nobody in the class
 * @param authorGroup the group in which its author is now; null for none
 * @param hasLive whether a version of it was approved and is up
 * @param publishedAt when it first went up; null if it never did
 * @param answerFirst the prompt that a student must have answered to read others' answers; null if there is no such
 *     rule
 * @param takenAlong whether its author left the class and took the writing along
 * @param awaited whether somebody is asked to look at it, be it up or not
 * @param commentInPile whether a comment on it lies in the pile
 * @param names whose names are kept back around it
 */
public record PostFacts(
        long id,
        BlogFacts blog,
        long authorId,
        @Nullable Long authorGroup,
        State state,
        boolean hasLive,
        Audience audience,
        @Nullable Instant publishedAt,
        @Nullable Long answerFirst,
        boolean takenAlong,
        boolean awaited,
        boolean commentInPile,
        KeptNames names) {

    /** A post that answers no prompt, of an author who is still there. */
    public PostFacts(
            long id,
            BlogFacts blog,
            long authorId,
            @Nullable Long authorGroup,
            State state,
            boolean hasLive,
            Audience audience) {
        this(
                id,
                blog,
                authorId,
                authorGroup,
                state,
                hasLive,
                audience,
                null,
                null,
                false,
                false,
                false,
                KeptNames.NONE);
    }

    /** The same post for another audience. */
    public PostFacts withAudience(Audience other) {
        return new PostFacts(
                id,
                blog,
                authorId,
                authorGroup,
                state,
                hasLive,
                other,
                publishedAt,
                answerFirst,
                takenAlong,
                awaited,
                commentInPile,
                names);
    }

    /** The same post as if it were approved, up and out of the pile, and every classmate had answered first. */
    public PostFacts asIfUp() {
        return new PostFacts(
                id,
                blog,
                authorId,
                authorGroup,
                State.PUBLISHED,
                true,
                audience,
                publishedAt,
                null,
                takenAlong,
                false,
                false,
                names);
    }

    /** The audience after the ceilings have cut it; what was taken along is for its author and the staff. */
    public Audience effectiveAudience() {
        return takenAlong ? Audience.STAFF_AND_ME : audience.cutTo(blog.ceiling());
    }

    /** Tells whether there is a text for readers: approved, and neither hidden nor binned. */
    public boolean isUp() {
        return hasLive && state != State.HIDDEN && state != State.BINNED;
    }

    /**
     * Tells whether it lies in the pile of those who approve: it waits, or it is up or came down and is to be looked
     * at.
     */
    public boolean inPile() {
        return state.waits() || awaited && hasLive && state != State.BINNED;
    }

    /**
     * Tells whether it says itself who wrote it, also where names are kept back: a blog of one's own says whose it is,
     * an outside blog too, and those who work for the class stand by what they write.
     */
    boolean tellsAuthor() {
        return blog.kind().isForEach() || names.gathered() || names.authorWorks();
    }

    /** Until when classmates do not read who wrote it; null if it is not kept back. */
    public @Nullable Instant authorKeptUntil() {
        return tellsAuthor() ? null : names.until();
    }

    /** The group meant by "my group": that of a group's blog, else the author's own; null for none. */
    public @Nullable Long readersGroup() {
        return blog.groupId() != null ? blog.groupId() : authorGroup;
    }
}

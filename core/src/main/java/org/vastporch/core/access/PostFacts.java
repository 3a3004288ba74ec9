package org.vastporch.core.access;

import org.jspecify.annotations.Nullable;
import org.vastporch.core.moderation.State;

/**
 * What the access engine needs to know of a post.
 *
 * @param authorId    who wrote it; 0 for news that belongs to nobody in the class
 * @param authorGroup the group in which its author is now; null for none
 * @param hasLive     whether a version of it was approved and is up
 */
public record PostFacts(
        long id, BlogFacts blog, long authorId, @Nullable Long authorGroup, State state, boolean hasLive, Audience audience) {

    /** The same post for another audience. */
    public PostFacts withAudience(Audience other) {
        return new PostFacts(id, blog, authorId, authorGroup, state, hasLive, other);
    }

    /** The audience after the ceilings have cut it. */
    public Audience effectiveAudience() {
        return audience.cutTo(blog.ceiling());
    }

    /** Tells whether there is a text for readers: approved, and neither hidden nor binned. */
    public boolean isUp() {
        return hasLive && state != State.HIDDEN && state != State.BINNED;
    }

    /** The group meant by "my group": that of a group's blog, else the author's own; null for none. */
    public @Nullable Long readersGroup() {
        return blog.groupId() != null ? blog.groupId() : authorGroup;
    }
}

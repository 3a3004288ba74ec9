package org.vastporch.server.moderation;

import java.util.Collection;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.blogs.BlogSettings;
import org.vastporch.core.moderation.Policy;

/** Tells what approving needs to know of blogs. */
public interface ApprovingBlogs {

    /**
     * @param posts what its rules say about posts; null where the class decides
     * @param comments the same for comments
     */
    record Approving(
            String title, @Nullable Policy posts, @Nullable Policy comments) {

        public static Approving of(String title, BlogSettings settings) {
            return new Approving(
                    title, settings.posts().policy(), settings.comments().policy());
        }
    }

    /** Blogs by their ids; those that are not there are left out. */
    Map<Long, Approving> approving(Collection<Long> blogIds);
}

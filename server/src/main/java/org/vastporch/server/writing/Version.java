package org.vastporch.server.writing;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.blogs.Audience;

/**
 * One version of a post.
 *
 * @param savedBy who saved it last; null for what came in from outside
 */
public record Version(int no, Content content, @Nullable Long savedBy, Instant begunAt, Instant savedAt) {
    public String title() {
        return content.title();
    }

    public String html() {
        return content.html();
    }

    public List<String> tags() {
        return content.tags();
    }

    public Audience audience() {
        return content.audience();
    }
}

package org.vastporch.server.writing;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.writing.WorkUsed;

/**
 * What somebody wrote, at one time.
 *
 * @param audience for whom it is; in force once the version is live
 * @param works the works that it rests on
 */
public record Content(
        String title,
        String html,
        List<String> tags,
        Audience audience,
        @Nullable Long categoryId,
        List<WorkUsed> works) {}

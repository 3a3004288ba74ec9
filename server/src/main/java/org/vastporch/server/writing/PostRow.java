package org.vastporch.server.writing;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.feeds.Excerpt;
import org.vastporch.core.moderation.Course;
import org.vastporch.core.moderation.Standing;

/**
 * What is kept of a post beside its versions.
 *
 * @param goneAt since when the page of an outside post is no longer there; null if it is
 * @param excerpt what is known of a gathered post of which its feed carries only the beginning; null if it is whole
 */
public record PostRow(
        long id,
        long classId,
        long blogId,
        @Nullable Long authorId,
        @Nullable Long promptId,
        @Nullable Long sourceId,
        @Nullable String outsideLink,
        @Nullable Excerpt excerpt,
        @Nullable Instant goneAt,
        Course course,
        Audience audience,
        @Nullable Instant pinnedAt,
        @Nullable String series,
        @Nullable Integer part,
        @Nullable Instant binnedAt,
        @Nullable Instant emptiedAt,
        boolean announcement,
        @Nullable Integer handedNo,
        int rev) {

    public Standing standing() {
        return course.standing();
    }

    @Nullable
    public Instant handedInAt() {
        return course.handedInAt();
    }

    @Nullable
    public Instant waitingSince() {
        return course.waitingSince();
    }

    @Nullable
    public Instant publishedAt() {
        return course.publishedAt();
    }

    @Nullable
    public Instant publishAt() {
        return course.publishAt();
    }

    public boolean isFromOutside() {
        return sourceId != null;
    }

    PostRow at(Course other) {
        return new PostRow(
                id,
                classId,
                blogId,
                authorId,
                promptId,
                sourceId,
                outsideLink,
                excerpt,
                goneAt,
                other,
                audience,
                pinnedAt,
                series,
                part,
                binnedAt,
                emptiedAt,
                announcement,
                handedNo,
                rev);
    }
}

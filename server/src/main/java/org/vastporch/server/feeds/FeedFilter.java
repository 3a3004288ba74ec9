package org.vastporch.server.feeds;

import java.time.YearMonth;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.calendar.Term;
import org.vastporch.server.reading.PorchService;

/**
 * What of a class a feed carries: the filters of the Porch, as they stand in its address; all of them left out for all
 * of it. The month is an archive (RFC 5005).
 *
 * @param place the number of a person's place in the class
 * @param after where a page begins, as the page before said
 */
record FeedFilter(
        @Nullable Integer term,
        @Nullable Integer fromWeek,
        @Nullable Integer toWeek,
        @Nullable YearMonth month,
        Term.@Nullable Span span,
        @Nullable Long place,
        @Nullable Long group,
        @Nullable Long prompt,
        @Nullable String tag,
        @Nullable Long category,
        @Nullable Long source,
        @Nullable Long blog,
        @Nullable Boolean announcements,
        @Nullable Boolean unanswered,
        @Nullable String after) {

    static FeedFilter ofBlog(long blog) {
        return new FeedFilter(null, null, null, null, null, null, null, null, null, null, null, blog, null, null, null);
    }

    PorchService.Wish wish(int most) {
        return new PorchService.Wish(
                term,
                fromWeek,
                toWeek,
                month,
                span,
                place,
                group,
                prompt,
                tag,
                category,
                source,
                Boolean.TRUE.equals(announcements),
                Boolean.TRUE.equals(unanswered),
                blog,
                false,
                most,
                after);
    }
}

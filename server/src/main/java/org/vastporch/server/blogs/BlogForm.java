package org.vastporch.server.blogs;

import java.time.Instant;
import java.time.LocalDateTime;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.access.BlogFacts.Commenters;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.blogs.BlogKind;
import org.vastporch.core.blogs.BlogSettings;
import org.vastporch.core.calendar.Term;
import org.vastporch.server.access.NamesKept;
import org.vastporch.server.http.Optionally;

/**
 * What staff set for a blog, as they see and type it: all times are those of the clock of the class, wherever they are
 * themselves. Otherwise as {@link BlogSetup}.
 *
 * @param commentsCloseAt when all comments close; it stands here and not in the settings
 * @param namesKept that names are kept from classmates; left out if they are not
 */
public record BlogForm(
        BlogKind kind,
        String title,
        String intro,
        String about,
        Audience widest,
        Commenters commenters,
        @Optionally @Nullable Long groupId,
        @Optionally @Nullable Long onlyGroup,
        @Optionally @Nullable LocalDateTime opensAt,
        @Optionally @Nullable LocalDateTime closesAt,
        @Optionally @Nullable LocalDateTime commentsCloseAt,
        @Optionally NamesKept.@Nullable WantedNames namesKept,
        BlogSettings settings) {

    public static BlogForm of(BlogSetup s, Term term) {
        String closing = s.settings().rules().comments().at();
        return new BlogForm(
                s.kind(),
                s.title(),
                s.intro(),
                s.about(),
                s.widest(),
                s.commenters(),
                s.groupId(),
                s.onlyGroup(),
                s.opensAt() == null ? null : term.timeOf(s.opensAt()),
                s.closesAt() == null ? null : term.timeOf(s.closesAt()),
                closing.isEmpty() ? null : term.timeOf(Instant.parse(closing)),
                NamesKept.WantedNames.of(s.namesUntil(), term),
                s.settings().closingCommentsAt(null));
    }

    BlogSetup in(Term term) {
        return new BlogSetup(
                kind,
                title,
                intro,
                about,
                widest,
                commenters,
                groupId,
                onlyGroup,
                opensAt == null ? null : term.momentOf(opensAt),
                closesAt == null ? null : term.momentOf(closesAt),
                NamesKept.WantedNames.in(namesKept, term),
                settings.closingCommentsAt(commentsCloseAt == null ? null : term.momentOf(commentsCloseAt)));
    }
}

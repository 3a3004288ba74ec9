package org.vastporch.server.blogs;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.access.BlogFacts;
import org.vastporch.core.access.BlogFacts.Commenters;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.blogs.BlogKind;
import org.vastporch.core.blogs.BlogSettings;
import org.vastporch.core.blogs.TitlePattern;
import org.vastporch.core.text.OneLine;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.people.PeopleService;

/**
 * What staff set for a blog, or for a set of blogs "one each".
 *
 * @param title for blogs of each student or group a pattern in which {name} stands for them
 * @param intro what readers see at the head of the blog
 * @param about what students see while they write
 * @param groupId the group whose blog it is; null for none, and for a new group's blog for one of each group
 * @param onlyGroup the only group that gets in; null for everybody whom the audience lets in
 * @param namesUntil until when names are kept from classmates; null if they are not
 */
public record BlogSetup(
        BlogKind kind,
        String title,
        String intro,
        String about,
        Audience widest,
        Commenters commenters,
        @Optionally @Nullable Long groupId,
        @Optionally @Nullable Long onlyGroup,
        @Optionally @Nullable Instant opensAt,
        @Optionally @Nullable Instant closesAt,
        @Optionally @Nullable Instant namesUntil,
        BlogSettings settings) {

    private static final int LONGEST_TITLE = 120;
    private static final int LONGEST_TEXT = 8_000;

    /** A new blog of a kind as its form begins: open at once, with the usual reach, look and rules. */
    public static BlogSetup fresh(BlogKind kind) {
        String title =
                switch (kind) {
                    case SHARED -> "Class news";
                    case ONE_EACH -> "Log of {name}";
                    case GROUP -> "Notes of {name}";
                    case TEACHERS -> "From the teacher";
                    case JOURNAL -> "Journal of {name}";
                };
        return of(kind, title, "", kind.usual(), Commenters.CLASS);
    }

    /** A blog that is open at once, with the usual look and rules. */
    public static BlogSetup of(BlogKind kind, String title, String about, Audience widest, Commenters commenters) {
        return new BlogSetup(
                kind, title, "", about, widest, commenters, null, null, null, null, null, BlogSettings.USUAL);
    }

    /**
     * The same, tidied and as wide as the kind allows. Throws a problem if it cannot be set.
     *
     * @param groups the groups of the class; a blog belongs to none of another class and opens to none
     */
    BlogSetup checked(List<PeopleService.Group> groups) {
        requireOneOf(groups, "groupId", groupId);
        requireOneOf(groups, "onlyGroup", onlyGroup);
        String tidy = OneLine.of(title);
        if (tidy.isEmpty()) throw Problem.invalid("title", "title-missing", "Give the blog a title.");
        if (tidy.length() > LONGEST_TITLE)
            throw Problem.invalid(
                    "title",
                    "title-too-long",
                    "A blog's title has at most " + LONGEST_TITLE + " characters; this one has " + tidy.length() + ".");
        limited("intro", intro);
        limited("about", about);
        if (opensAt != null && closesAt != null && !opensAt.isBefore(closesAt))
            throw Problem.invalid("closesAt", "closes-before-opening", "It must close after it opens.");
        if (kind.isForEach() && !TitlePattern.isPattern(tidy)) tidy = tidy + " of {name}";
        return new BlogSetup(
                kind,
                tidy,
                intro.strip(),
                about.strip(),
                widest.cutTo(kind.widest()),
                commenters,
                kind == BlogKind.GROUP ? groupId : null,
                onlyGroup,
                opensAt,
                closesAt,
                namesUntil,
                settings);
    }

    private static void requireOneOf(List<PeopleService.Group> groups, String field, @Nullable Long wanted) {
        if (wanted != null && groups.stream().noneMatch(g -> g.id() == wanted))
            throw Problem.invalid(field, "group-unknown", "This class has no such group.");
    }

    private static void limited(String field, String text) {
        if (text.strip().length() > LONGEST_TEXT)
            throw Problem.invalid(
                    field,
                    field + "-too-long",
                    "This text has " + text.strip().length() + " characters; at most " + LONGEST_TEXT + " fit here.");
    }

    BlogSetup withTitle(String other) {
        return with(other, groupId, settings);
    }

    BlogSetup withGroup(@Nullable Long other) {
        return with(title, other, settings);
    }

    BlogSetup withSettings(BlogSettings other) {
        return with(title, groupId, other);
    }

    private BlogSetup with(String title, @Nullable Long groupId, BlogSettings settings) {
        return new BlogSetup(
                kind,
                title,
                intro,
                about,
                widest,
                commenters,
                groupId,
                onlyGroup,
                opensAt,
                closesAt,
                namesUntil,
                settings);
    }

    /** What the access engine needs to know of such a blog in a class. */
    BlogFacts facts(ClassService.ClassRecord of, @Nullable Long ownerId) {
        return new BlogFacts(
                0,
                of.id(),
                of.rules().ceiling(),
                of.rules().open(),
                kind,
                widest,
                commenters,
                ownerId,
                groupId,
                onlyGroup,
                opensAt,
                closesAt,
                settings.rules());
    }
}

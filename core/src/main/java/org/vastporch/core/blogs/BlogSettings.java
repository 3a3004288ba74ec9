package org.vastporch.core.blogs;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.Refusal;
import org.vastporch.core.moderation.Policy;

/**
 * How a blog looks and reads, and its rules.
 *
 * @param lookLocked whether only staff choose the look; else the owner of a blog may
 * @param newestFirst the order of reading
 * @param perPage posts on a page, 5 to 100
 * @param posts when somebody looks at posts in it
 * @param comments when somebody looks at comments in it
 */
public record BlogSettings(
        Look look,
        boolean lookLocked,
        boolean newestFirst,
        int perPage,
        Grouping grouping,
        BlogRules rules,
        LookedAt posts,
        LookedAt comments) {

    public static final BlogSettings USUAL =
            new BlogSettings(Look.LINEN, false, true, 20, Grouping.NONE, BlogRules.FREE);

    /** Six looks of our own, each with a palette for day and for night. */
    public enum Look {
        LINEN,
        TIDE,
        ORCHARD,
        BRICK,
        SLATE,
        HEATHER
    }

    /** Under which headings the posts stand. */
    public enum Grouping {
        NONE,
        WEEK,
        MONTH
    }

    /** When somebody looks at texts in a blog, if it has a rule of its own. */
    public enum LookedAt {
        AS_CLASS,
        BEFORE,
        AFTER,
        NONE;

        /** The policy; null where the class decides. */
        public @Nullable Policy policy() {
            return this == AS_CLASS ? null : Policy.valueOf(name());
        }
    }

    /** A blog in which the class decides when somebody looks. */
    public BlogSettings(
            Look look, boolean lookLocked, boolean newestFirst, int perPage, Grouping grouping, BlogRules rules) {
        this(look, lookLocked, newestFirst, perPage, grouping, rules, LookedAt.AS_CLASS, LookedAt.AS_CLASS);
    }

    public BlogSettings {
        // Settings that were kept before there was such a rule have none.
        posts = posts == null ? LookedAt.AS_CLASS : posts;
        comments = comments == null ? LookedAt.AS_CLASS : comments;
        if (perPage < 5 || perPage > 100)
            throw new Refusal("perPage", "number-range", "A page holds 5 to 100 posts, not " + perPage + ".");
    }

    public BlogSettings withLook(Look other) {
        return new BlogSettings(other, lookLocked, newestFirst, perPage, grouping, rules, posts, comments);
    }

    /** @param at when all comments close; null for no such rule */
    public BlogSettings closingCommentsAt(@Nullable Instant at) {
        BlogRules other = rules.closingCommentsAt(at);
        return new BlogSettings(look, lookLocked, newestFirst, perPage, grouping, other, posts, comments);
    }
}

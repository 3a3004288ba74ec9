package org.vastporch.core.blogs;

/**
 * How a blog looks and reads, and its rules.
 *
 * @param lookLocked  whether only staff choose the look; else the owner of a blog may
 * @param newestFirst the order of reading
 * @param perPage     posts on a page, 5 to 100
 */
public record BlogSettings(Look look, boolean lookLocked, boolean newestFirst, int perPage, Grouping grouping, BlogRules rules) {

    public static final BlogSettings USUAL = new BlogSettings(Look.LINEN, false, true, 20, Grouping.NONE, BlogRules.FREE);

    /** Six looks of our own, each with a palette for day and for night. */
    public enum Look { LINEN, TIDE, ORCHARD, BRICK, SLATE, HEATHER }

    /** Under which headings the posts stand. */
    public enum Grouping { NONE, WEEK, MONTH }

    public BlogSettings {
        if (perPage < 5 || perPage > 100) throw new IllegalArgumentException("A page holds 5 to 100 posts, not " + perPage + ".");
    }

    public BlogSettings withLook(Look other) {
        return new BlogSettings(other, lookLocked, newestFirst, perPage, grouping, rules);
    }
}

package org.vastporch.server.frontpage;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.writing.WorkUsed;

/** What stands on a front page, in words and addresses, as its template reads it. */
final class FrontView {

    private FrontView() {}

    /** A feed that belongs to a page. */
    record Feed(String type, String title, String href) {}

    /**
     * What every page has.
     *
     * @param canonical the one address of this page, whole
     * @param findable whether search engines may find it
     * @param top the address of the page of the class
     * @param inside where members find the same inside
     */
    record Frame(
            String title,
            String description,
            String canonical,
            boolean findable,
            String className,
            String top,
            String inside,
            List<Feed> feeds) {

        boolean hasDescription() {
            return !description.isBlank();
        }

        @Nullable
        String rss() {
            return feeds.isEmpty() ? null : feeds.get(0).href();
        }
    }

    record Link(String label, String href, int count) {}

    record Year(int year, List<Link> months) {}

    /**
     * A post in a list.
     *
     * @param heading the week or month that begins with it; null if it goes on
     * @param by the address of all that its author wrote; null if there is no such page
     * @param picture null for none
     * @param comments in words; empty for none
     */
    record Line(
            @Nullable String heading,
            String title,
            String href,
            String author,
            @Nullable String by,
            String day,
            String blog,
            String blogHref,
            String firstLines,
            @Nullable String picture,
            String comments) {}

    /**
     * The posts of a page.
     *
     * @param narrowed by what it is narrowed, in words; null if by nothing
     * @param all the page without being narrowed
     * @param older the next page; null on the last
     * @param wider the same search in the whole class; null where this is it, or nothing was searched for
     */
    record Stream(
            List<Line> lines,
            @Nullable String narrowed,
            String all,
            @Nullable String older,
            String sought,
            @Nullable String wider) {
        boolean isEmpty() {
            return lines.isEmpty();
        }
    }

    record OfClass(Frame frame, Stream stream, List<Link> blogs, List<Year> years, List<Link> tags) {
        boolean hasBlogs() {
            return !blogs.isEmpty();
        }

        boolean hasYears() {
            return !years.isEmpty();
        }

        boolean hasTags() {
            return !tags.isEmpty();
        }
    }

    record Series(String name, List<Link> parts) {}

    /** @param isWhole whether all of the blog is shown, and so what lies on top of it */
    record OfBlog(
            Frame frame,
            String look,
            @Nullable String header,
            String title,
            String intro,
            @Nullable String owner,
            @Nullable String by,
            boolean isWhole,
            List<Line> pinned,
            List<Series> series,
            Stream stream,
            List<Year> years,
            List<Link> tags) {
        boolean hasIntro() {
            return !intro.isBlank();
        }

        boolean hasPinned() {
            return isWhole && !pinned.isEmpty();
        }

        boolean hasSeries() {
            return isWhole && !series.isEmpty();
        }

        boolean hasYears() {
            return !years.isEmpty();
        }

        boolean hasTags() {
            return !tags.isEmpty();
        }
    }

    /** @param answer where an answer to it is written */
    record Comment(long id, String author, String day, String html, boolean answers, String answer) {}

    /**
     * What stands in the form of a visitor.
     *
     * @param answering the comment that is answered; null for the post
     * @param wrong why what was typed could not be taken; null if nothing was wrong
     */
    record Form(
            String text,
            String name,
            @Nullable Long answering,
            @Nullable String wrong,
            String csrf) {}

    /**
     * @param html cleaned
     * @param excerpt what there is to say of a text whose feed carries only its beginning; empty for nothing
     * @param count of the comments, in words; empty if there are none and nobody can comment
     * @param answered whose comment is answered in the form; null for nobody's
     * @param said whether a comment from here has just been taken in
     * @param shut why nobody can comment; null if it does not need saying
     */
    record OfPost(
            Frame frame,
            String title,
            String author,
            @Nullable String by,
            String day,
            String blog,
            String blogHref,
            String html,
            String excerpt,
            List<Link> tags,
            List<WorkUsed.Reference> references,
            @Nullable String original,
            @Nullable Link before,
            @Nullable Link after,
            @Nullable String series,
            List<Comment> comments,
            String count,
            boolean mayComment,
            boolean member,
            boolean said,
            Form form,
            @Nullable String answered,
            @Nullable String shut) {

        boolean hasTags() {
            return !tags.isEmpty();
        }

        boolean hasCount() {
            return !count.isEmpty();
        }

        boolean hasReferences() {
            return !references.isEmpty();
        }

        /** The form is a visitor's: a member comments under the own name, inside. */
        boolean showsForm() {
            return mayComment && !member;
        }
    }

    record Nothing(Frame frame) {}
}

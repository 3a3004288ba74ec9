package org.vastporch.core.access;

import java.time.Instant;
import java.util.List;
import java.util.function.Predicate;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.moderation.State;

/**
 * Who can read, comment and write: the facts behind the sentence on the screen, found by asking the same engine that
 * enforces them, once for each person.
 *
 * @param audience how far it reaches after the ceilings
 * @param readers the people who can read it, in the order in which they were given
 * @param commenters those of them who can comment
 * @param writers those who can write here
 */
public record Sightline(
        Audience audience, boolean strangers, List<Long> readers, List<Long> commenters, List<Long> writers) {

    /**
     * How much of a sightline somebody may know: how far it reaches, how many heads there are besides, whose they are
     * besides.
     */
    public enum Detail {
        AUDIENCE,
        HEADS,
        NAMES
    }

    /**
     * The sightline of a post as if it were up: asked before handing in, it says who will read it afterwards.
     *
     * @param people everybody who could come into question: the members of the class, or of the school
     */
    public static Sightline ofPost(PostFacts post, List<Viewer> people, Instant now) {
        PostFacts up = post.asIfUp();
        return new Sightline(
                up.effectiveAudience(),
                AccessEngine.decide(Viewer.STRANGER, Act.READ, up, now).allows(),
                ids(people, v -> AccessEngine.decide(v, Act.READ, up, now).allows()),
                ids(people, v -> AccessEngine.decide(v, Act.COMMENT, up, now).allows()),
                ids(people, v -> AccessEngine.decide(v, Act.EDIT, up, now).allows()));
    }

    /** The sightline of a blog: that of a post in it which uses the whole width the blog allows. */
    public static Sightline ofBlog(BlogFacts blog, List<Viewer> people, Instant now) {
        long author = blog.ownerId() == null ? 0 : blog.ownerId();
        PostFacts widest = new PostFacts(0, blog, author, blog.groupId(), State.PUBLISHED, true, blog.widest());
        Sightline post = ofPost(widest, people, now);
        return new Sightline(
                post.audience, post.strangers, post.readers, post.commenters, ids(people, v -> AccessEngine.write(
                                v, blog, now)
                        .allows()));
    }

    private static List<Long> ids(List<Viewer> people, Predicate<Viewer> may) {
        return people.stream().filter(may).map(Viewer::personId).toList();
    }
}

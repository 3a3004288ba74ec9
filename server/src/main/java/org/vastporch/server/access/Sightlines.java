package org.vastporch.server.access;

import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.vastporch.core.access.BlogFacts;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.access.Sightline;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.blogs.Audience;

/** Who will read many posts, at one moment: those who could are looked up once for each class. */
public final class Sightlines {

    private record Asked(long classId, boolean wholeSchool) {}

    private final AccessStore store;
    private final Instant now;
    private final Map<Asked, List<Viewer>> viewers = new HashMap<>();

    Sightlines(AccessStore store, Instant now) {
        this.store = store;
        this.now = now;
    }

    /** Of a post once it is up, for an audience that its author may be about to choose. */
    public Sightline of(PostFacts post) {
        return Sightline.ofPost(post, viewers(post.blog().classId(), post.effectiveAudience()), now);
    }

    /** Of a blog that may not have been saved yet. */
    public Sightline of(BlogFacts blog) {
        return Sightline.ofBlog(blog, viewers(blog.classId(), blog.ceiling()), now);
    }

    private List<Viewer> viewers(long classId, Audience audience) {
        return viewers.computeIfAbsent(
                new Asked(classId, audience.reaches(Audience.SCHOOL)),
                asked -> store.viewers(asked.classId(), asked.wholeSchool()));
    }
}

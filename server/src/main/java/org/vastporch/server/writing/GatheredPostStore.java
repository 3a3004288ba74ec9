package org.vastporch.server.writing;

import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import org.vastporch.core.access.BlogFacts;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.feeds.Excerpt;
import org.vastporch.core.moderation.Course;
import org.vastporch.server.rows.Rows;

/** Keeps the posts that came in from outside, as far as they differ from those written here. */
@Repository
class GatheredPostStore {

    private final JdbcClient jdbc;

    GatheredPostStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** A new post on the course on which it begins, under the next id. */
    long add(BlogFacts home, long author, GatheredPosts.Gathered post, Course course, int handed, Instant now) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                insert into post (class_id, blog_id, author_id, prompt_id, matched_by, source_id, outside_link, excerpt,
                       outside_says, outside_seen, audience, state, live, working, waiting_since, published_at,
                       handed_in_at, handed_no, created_at, rev)
                values (:classId, :blogId, :author, :prompt, :matchedBy, :source, :link, :excerpt,
                       :says, :seen, :audience, :state, :live, :working, :waiting, :published,
                       :handedIn, :handed, :now, 1)""")
                .param("classId", home.classId())
                .param("blogId", home.id())
                .param("author", author)
                .param(
                        "prompt",
                        post.match() == null ? null : post.match().prompt().id())
                .param(
                        "matchedBy",
                        post.match() == null ? null : post.match().by().name())
                .param("source", post.sourceId())
                .param("link", post.link())
                .param("excerpt", name(post.excerpt()))
                .param("says", Rows.utc(post.date()))
                .param("seen", Rows.utc(now.isBefore(post.date()) ? post.date() : now))
                .param("audience", Audience.MY_CLASS.ordinal())
                .param("state", course.standing().state().name())
                .param("live", course.standing().live())
                .param("working", course.standing().working())
                .param("waiting", Rows.utc(course.waitingSince()))
                .param("published", Rows.utc(course.publishedAt()))
                .param("handedIn", Rows.utc(course.handedInAt()))
                .param("handed", handed)
                .param("now", Rows.utc(now))
                .update(key, "id");
        return key.getKey().longValue();
    }

    void setExcerpt(long id, @Nullable Excerpt excerpt) {
        jdbc.sql("update post set excerpt = :excerpt where id = :id")
                .param("excerpt", name(excerpt))
                .param("id", id)
                .update();
    }

    private static @Nullable String name(@Nullable Excerpt excerpt) {
        return excerpt == null ? null : excerpt.name();
    }

    /** What an author brought in by hand from some addresses, and did not throw away. */
    Map<String, Long> ofLinks(long classId, long authorId, Collection<String> links) {
        Map<String, Long> posts = new HashMap<>();
        if (links.isEmpty()) return posts;
        jdbc.sql("""
                select outside_link, id
                  from post
                 where author_id = :author and class_id = :classId and outside_link in (:links) and source_id is null
                       and state <> 'BINNED'""")
                .param("author", authorId)
                .param("classId", classId)
                .param("links", links)
                .query(row -> {
                    posts.putIfAbsent(row.getString("outside_link"), row.getLong("id"));
                });
        return posts;
    }
}

package org.vastporch.server.blogs;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.core.moderation.Course;
import org.vastporch.core.moderation.Standing;
import org.vastporch.core.moderation.State;
import org.vastporch.server.moderation.PileFilter;
import org.vastporch.server.rows.Rows;

/** Pictures that students want at the head of their blogs. */
@Repository
class HeaderStore {

    /** @param beforeSha what stood at the head when it was approved; null for nothing, or while it was not */
    record Header(
            long id,
            long classId,
            long blogId,
            long authorId,
            String sha,
            @Nullable String beforeSha,
            State state,
            @Nullable Instant waitingSince,
            @Nullable Instant publishedAt,
            int rev) {
        Standing standing() {
            boolean live = state == State.PUBLISHED;
            return new Standing(state, live ? 1 : null, live ? null : 1);
        }

        Course course() {
            return new Course(standing(), waitingSince, publishedAt, null, null);
        }
    }

    private static final String COLUMNS =
            "t.id, t.class_id, t.blog_id, t.author_id, t.sha, t.before_sha, t.state, t.waiting_since,"
                    + " t.published_at, t.rev";

    private final JdbcClient jdbc;

    HeaderStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** Lets a picture wait; one that waited for the same blog does so no longer. */
    void add(long classId, long blogId, long authorId, String sha, Instant now) {
        drop(blogId);
        jdbc.sql("""
                                insert into blog_header (class_id, blog_id, author_id, sha, state,
                                    waiting_since, rev)
                                 values (:classId, :blog, :author, :sha, 'WAITING', :now, 1)""")
                .param("classId", classId)
                .param("blog", blogId)
                .param("author", authorId)
                .param("sha", sha)
                .param("now", Rows.utc(now))
                .update();
    }

    /** Takes what waits for a blog out of the pile. */
    void drop(long blogId) {
        jdbc.sql("""
                                update blog_header
                                 set state = 'BINNED', waiting_since = null, changed_at = current_timestamp, rev
                                    = rev + 1
                                 where blog_id = :blog and state = 'WAITING'""").param("blog", blogId).update();
    }

    Optional<Header> lock(long id) {
        return jdbc.sql("select " + COLUMNS + " from blog_header t where t.id = :id for update")
                .param("id", id)
                .query((row, n) -> header(row))
                .optional();
    }

    Optional<Header> find(long id) {
        return jdbc.sql("select " + COLUMNS + " from blog_header t where t.id = :id")
                .param("id", id)
                .query((row, n) -> header(row))
                .optional();
    }

    /** The newest of a blog that waits or came back. */
    Optional<Header> ofBlog(long blogId) {
        return jdbc.sql("select " + COLUMNS + " from blog_header t where t.blog_id = :blog order by t.id desc limit 1")
                .param("blog", blogId)
                .query((row, n) -> header(row))
                .optional()
                .filter(h -> h.state() == State.WAITING || h.state() == State.RETURNED);
    }

    List<Header> waiting(List<Long> classIds, PileFilter filter) {
        String sort = PileFilter.of(filter.sort(), "header");
        if (classIds.isEmpty() || sort == null) return List.of();
        return jdbc.sql("select " + COLUMNS + " from blog_header t where " + PileFilter.waiting()
                        + " and t.class_id in (:classes) and " + sort + " order by t.waiting_since, t.id limit :most")
                .param("classes", classIds)
                .param("most", filter.most())
                .query((row, n) -> header(row))
                .list();
    }

    void settle(long id, Course after, @Nullable String beforeSha) {
        jdbc.sql("""
                                update blog_header
                                 set state = :state, waiting_since = :waiting, published_at = :published,
                                    before_sha = :before, changed_at = current_timestamp, rev = rev + 1
                                 where id = :id""")
                .param("state", after.standing().state().name())
                .param("waiting", Rows.utc(after.waitingSince()))
                .param("published", Rows.utc(after.publishedAt()))
                .param("before", beforeSha)
                .param("id", id)
                .update();
    }

    private static Header header(ResultSet row) throws SQLException {
        return new Header(
                row.getLong("id"),
                row.getLong("class_id"),
                row.getLong("blog_id"),
                row.getLong("author_id"),
                row.getString("sha"),
                row.getString("before_sha"),
                State.valueOf(row.getString("state")),
                Rows.instant(row, "waiting_since"),
                Rows.instant(row, "published_at"),
                row.getInt("rev"));
    }
}

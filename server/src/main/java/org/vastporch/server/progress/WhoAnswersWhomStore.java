package org.vastporch.server.progress;

import java.time.Instant;
import java.util.List;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.server.access.ScopeSql;
import org.vastporch.server.rows.Rows;

/** Posts of a class and who commented on them, as narrow rows. */
@Repository
class WhoAnswersWhomStore {

    record Written(long postId, long authorId, String title, Instant at) {}

    /** A comment on somebody else's post. */
    record Said(long postId, long from, long to, Instant at) {}

    private final JdbcClient jdbc;

    WhoAnswersWhomStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** Posts that are up and went up in a stretch of time, the newest first; announcements are none. */
    List<Written> posts(long classId, Instant from, Instant to) {
        return jdbc.sql("""
                select p.id, p.author_id, v.title, p.published_at
                  from post p
                  join post_version v on v.post_id = p.id and v.no = p.live
                 where p.class_id = :class and p.author_id is not null and not p.announcement
                   and """ + " " + ScopeSql.UP + """
                   and p.published_at >= :from and p.published_at < :to
                 order by p.published_at desc, p.id desc""")
                .param("class", classId)
                .param("from", Rows.utc(from))
                .param("to", Rows.utc(to))
                .query((row, n) -> new Written(
                        row.getLong("id"),
                        row.getLong("author_id"),
                        row.getString("title"),
                        Rows.instant(row, "published_at")))
                .list();
    }

    /** Comments that are up, on such posts of others, which are from a stretch of time, or the comments are. */
    List<Said> comments(long classId, Instant from, Instant to) {
        return jdbc.sql("""
                select k.post_id, k.author_id, p.author_id as to_id, k.published_at
                  from comment k
                  join post p on p.id = k.post_id
                 where p.class_id = :class and p.author_id is not null and not p.announcement
                   and """ + " " + ScopeSql.UP + """
                   and k.state = 'PUBLISHED' and k.author_id is not null and k.author_id <> p.author_id
                   and (k.published_at >= :from and k.published_at < :to
                        or p.published_at >= :from and p.published_at < :to)""")
                .param("class", classId)
                .param("from", Rows.utc(from))
                .param("to", Rows.utc(to))
                .query((row, n) -> new Said(
                        row.getLong("post_id"),
                        row.getLong("author_id"),
                        row.getLong("to_id"),
                        Rows.instant(row, "published_at")))
                .list();
    }
}

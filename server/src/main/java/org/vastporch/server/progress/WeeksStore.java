package org.vastporch.server.progress;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.core.moderation.State;
import org.vastporch.server.rows.Rows;

/** What was written in a class in a stretch of time, as narrow rows. */
@Repository
class WeeksStore {

    /** @param at when it was handed in, or came from outside */
    record Written(long authorId, long postId, String title, Instant at, State state) {}

    private record Count(long authorId, int comments) {}

    private final JdbcClient jdbc;

    WeeksStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** Posts that were handed in or came from outside, in the order of their time; announcements are none. */
    List<Written> posts(long classId, Instant from, Instant to) {
        return jdbc.sql("""
                select p.author_id, p.id, v.title, coalesce(p.handed_in_at, p.published_at) as at,
                       case p.state when 'DRAFT' then 'PUBLISHED' else p.state end as state
                  from post p
                  join post_version v on v.post_id = p.id and v.no = coalesce(p.live, p.working)
                 where p.class_id = :class and p.author_id is not null and not p.announcement
                   and p.state <> 'BINNED' and (p.state <> 'DRAFT' or p.live is not null)
                   and coalesce(p.handed_in_at, p.published_at) >= :from
                   and coalesce(p.handed_in_at, p.published_at) < :to
                 order by at, p.id""")
                .param("class", classId)
                .param("from", Rows.utc(from))
                .param("to", Rows.utc(to))
                .query((row, n) -> new Written(
                        row.getLong("author_id"),
                        row.getLong("id"),
                        row.getString("title"),
                        Rows.instant(row, "at"),
                        State.valueOf(row.getString("state"))))
                .list();
    }

    /** How many comments on posts of others each gave that are up. */
    Map<Long, Integer> comments(long classId, Instant from, Instant to) {
        return jdbc
                .sql("""
                        select k.author_id, count(*) as comments
                          from comment k
                          join post p on p.id = k.post_id
                         where p.class_id = :class and k.state = 'PUBLISHED' and k.author_id is not null
                           and k.author_id is distinct from p.author_id
                           and k.created_at >= :from and k.created_at < :to
                         group by k.author_id""")
                .param("class", classId)
                .param("from", Rows.utc(from))
                .param("to", Rows.utc(to))
                .query((row, n) -> new Count(row.getLong("author_id"), row.getInt("comments")))
                .list()
                .stream()
                .collect(Collectors.toMap(Count::authorId, Count::comments));
    }
}

package org.vastporch.server.today;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.server.http.Rows;
import org.vastporch.server.moderation.PileFilter;

/** Counts for the first page and for the band, across features; each is one small query. */
@Repository
class TodayStore {

    record Waiting(long classId, int posts, int outside, int comments, int held, Instant oldest) {}

    private final JdbcClient jdbc;

    TodayStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    List<Waiting> waiting(Collection<Long> classIds) {
        if (classIds.isEmpty()) return List.of();
        return jdbc.sql("""
                select class_id, sum(post) as posts, sum(outside) as outside, sum(comment) as comments, sum(held) as held, min(since) as since
                  from (select class_id, case when source_id is null then 1 else 0 end as post, case when source_id is null then 0 else 1 end as outside, 0 as comment,
                               case when exists (select 1 from hold h where h.subject = 'post' and h.subject_id = t.id) then 1 else 0 end as held, waiting_since as since
                          from post t where %1$s and t.class_id in (:classes)
                        union all
                        select class_id, 0, 0, 1,
                               case when exists (select 1 from hold h where h.subject = 'comment' and h.subject_id = t.id) then 1 else 0 end, waiting_since
                          from comment t where %1$s and t.class_id in (:classes))
                 group by class_id""".formatted(PileFilter.waiting()))
            .param("classes", List.copyOf(classIds))
            .query((row, n) -> new Waiting(row.getLong("class_id"), row.getInt("posts"), row.getInt("outside"), row.getInt("comments"), row.getInt("held"),
                Rows.instant(row, "since"))).list();
    }

    /** A student's posts that came back, and marks released that the student has not opened since. */
    int returned(long personId, long classId) {
        return jdbc.sql("select count(*) from post where author_id = :person and class_id = :classId and state = 'RETURNED'")
            .param("person", personId).param("classId", classId).query(Integer.class).single();
    }
}

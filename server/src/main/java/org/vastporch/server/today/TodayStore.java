package org.vastporch.server.today;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.server.moderation.PileFilter;
import org.vastporch.server.rows.Rows;

/** Counts for the first page and for the band, across features; each is one small query. */
@Repository
class TodayStore {

    record Waiting(
            long classId, int posts, int outside, int comments, int headers, int reviews, int held, Instant oldest) {
        int all() {
            return posts + outside + comments + headers + reviews;
        }
    }

    private final JdbcClient jdbc;

    TodayStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    List<Waiting> waiting(Collection<Long> classIds) {
        if (classIds.isEmpty()) return List.of();
        return jdbc.sql("""
                select class_id, sum(post) as posts, sum(outside) as outside, sum(comment) as comments, sum(header) as
                       headers, sum(review) as reviews, sum(held) as held, min(since) as since
                  from (select class_id, case when source_id is null then 1 else 0 end as post, case when source_id is
                         null then 0 else 1 end as outside, 0 as comment, 0 as header, 0 as review,
                               case when exists (select 1 from hold h where h.subject = 'post' and h.subject_id =
                                      t.id) then 1 else 0 end as held, waiting_since as since
                          from post t where %1$s and t.class_id in (:classes)
                        union all
                        select class_id, 0, 0, 1, 0, 0,
                               case when exists (select 1 from hold h where h.subject = 'comment' and h.subject_id =
                                      t.id) then 1 else 0 end, waiting_since
                          from comment t where %1$s and t.class_id in (:classes)
                        union all
                        select class_id, 0, 0, 0, 1, 0, 1, waiting_since from blog_header t where %1$s and t.class_id
                               in (:classes)
                        union all
                        select q.class_id, 0, 0, 0, 0, 1,
                               case when exists (select 1 from hold h where h.subject = 'review' and h.subject_id =
                                      t.id) then 1 else 0 end, t.waiting_since
                          from review t join prompt q on q.id = t.prompt_id where %1$s and q.class_id in (:classes))
                 group by class_id""".formatted(PileFilter.waiting()))
                .param("classes", List.copyOf(classIds))
                .query((row, n) -> new Waiting(
                        row.getLong("class_id"),
                        row.getInt("posts"),
                        row.getInt("outside"),
                        row.getInt("comments"),
                        row.getInt("headers"),
                        row.getInt("reviews"),
                        row.getInt("held"),
                        Rows.instant(row, "since")))
                .list();
    }

    /** Somebody who came into a class: by the class word, or enrolled by staff of another one. */
    record Arrival(
            long personId, @Nullable Long by, @Nullable String elsewhere, Instant at) {}

    /** Who came in by the class word since a moment, the newest first. */
    List<Arrival> byWord(long classId, Instant since) {
        return jdbc.sql("""
                select e.subject_id, e.at
                  from event e
                  join membership m on m.class_id = e.class_id and m.person_id = e.subject_id and m.ended_at is null
                 where e.class_id = :classId and e.kind = 'joined-by-word' and e.at > :since
                 order by e.id desc
                 limit 100""")
                .param("classId", classId)
                .param("since", Rows.utc(since))
                .query((row, n) -> new Arrival(row.getLong("subject_id"), null, null, Rows.instant(row, "at")))
                .list();
    }

    /** Those in a class whose name staff have still to look at. */
    List<Long> nameAsked(long classId) {
        return jdbc.sql("""
                                select person_id
                                 from membership
                                 where class_id = :classId and name_asked and ended_at is null
                                 order by joined_at""").param("classId", classId).query(Long.class).list();
    }

    /**
     * Students of a class whom somebody who is no staff here enrolled in another class since a moment, the newest
     * first.
     */
    List<Arrival> enrolledElsewhere(long classId, Instant since) {
        return jdbc.sql("""
                select e.subject_id, e.actor_id, c.name, e.at
                  from event e
                  join membership m on m.class_id = :classId and m.person_id = e.subject_id and m.ended_at is null and
                         m.role = 'STUDENT' and m.joined_at < e.at
                  join class c on c.id = e.class_id
                 where e.kind = 'enrolled' and e.class_id <> :classId and e.at > :since and e.actor_id is not null and
                        e.actor_id <> e.subject_id
                   and not exists (select 1 from membership s where s.class_id = :classId and s.person_id = e.actor_id
                          and s.role in ('LEAD', 'CO_TEACHER') and s.ended_at is null)
                 order by e.id desc
                 limit 100""")
                .param("classId", classId)
                .param("since", Rows.utc(since))
                .query((row, n) -> new Arrival(
                        row.getLong("subject_id"),
                        row.getLong("actor_id"),
                        row.getString("name"),
                        Rows.instant(row, "at")))
                .list();
    }

    /** A student's posts that came back, and marks released that the student has not opened since. */
    int returned(long personId, long classId) {
        return jdbc.sql("""
                                select count(*)
                                 from post
                                 where author_id = :person and class_id = :classId and state = 'RETURNED'""")
                .param("person", personId)
                .param("classId", classId)
                .query(Integer.class)
                .single();
    }
}

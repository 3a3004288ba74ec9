package org.vastporch.server.asides;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.core.annotation.Order;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import org.vastporch.server.erasure.Traces;
import org.vastporch.server.rows.Rows;

@Repository
@Order(10)
class AsideStore implements Traces {

    enum Kind {
        WORD,
        STAFF
    }

    /** @param studentId whose marking it is about; null for anything else */
    record About(
            Kind kind,
            String subject,
            long subjectId,
            @Nullable Long studentId) {
        static About of(Kind kind, String subject, long subjectId) {
            return new About(kind, subject, subjectId, null);
        }
    }

    record Aside(long id, long authorId, String html, Instant at) {}

    private final JdbcClient jdbc;

    AsideStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    List<Aside> about(About about) {
        return jdbc.sql("""
                select id, author_id, html, created_at
                  from aside
                 where kind = :kind and subject = :subject and subject_id = :id and student_id is not distinct from
                        :student
                 order by id""")
                .param("kind", about.kind().name())
                .param("subject", about.subject())
                .param("id", about.subjectId())
                .param("student", about.studentId())
                .query((row, n) -> new Aside(
                        row.getLong("id"),
                        row.getLong("author_id"),
                        row.getString("html"),
                        Rows.instant(row, "created_at")))
                .list();
    }

    Aside add(long classId, About about, long authorId, String html, Instant now) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                insert into aside (class_id, kind, subject, subject_id, student_id, author_id, html, created_at)
                values (:classId, :kind, :subject, :id, :student, :author, :html, :now)""")
                .param("classId", classId)
                .param("kind", about.kind().name())
                .param("subject", about.subject())
                .param("id", about.subjectId())
                .param("student", about.studentId())
                .param("author", authorId)
                .param("html", html)
                .param("now", Rows.utc(now))
                .update(key, "id");
        return new Aside(key.getKey().longValue(), authorId, html, now);
    }

    @Override
    public String what() {
        return "asides";
    }

    @Override
    public int count(long personId, @Nullable Long classId) {
        return 0;
    }

    /**
     * What somebody said aside, what was said about their marking, and what was said to them about a post or comment
     * that goes.
     */
    @Override
    public void erase(long personId) {
        String posts = Traces.POSTS_THAT_GO;
        jdbc.sql("""
                                delete
                                 from aside
                                 where author_id = :person or student_id = :person or subject = 'post'
                                 and subject_id in ("""
                        + posts + ")"
                        + " or subject = 'comment' and subject_id in (select k.id from comment "
                        + "k where k.author_id = :person or k.post_id in ("
                        + posts + "))")
                .param("person", personId)
                .update();
    }
}

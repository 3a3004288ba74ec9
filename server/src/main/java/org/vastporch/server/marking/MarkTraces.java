package org.vastporch.server.marking;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.core.annotation.Order;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.server.erasure.Traces;

/** Marks and feedback that a person was given. */
@Repository
@Order(10)
class MarkTraces implements Traces {

    private static final List<String> ERASE = List.of(
            "delete from attachment where post_id is null and id in "
                    + "(select r.file_id from recording r where r.student_id = :person and not exists "
                    + "(select 1 from recording o where o.file_id = r.file_id and o.student_id <> :person))",
            "delete from recording where student_id = :person or by_id = :person",
            "delete from marking where student_id = :person",
            "delete from allowance where student_id = :person",
            "delete from paper_member where student_id = :person",
            "delete from score_event where student_id = :person",
            "update score_event set by_id = null where by_id = :person");

    private final JdbcClient jdbc;

    MarkTraces(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    @Override
    public String what() {
        return "marks";
    }

    @Override
    public int count(long personId, @Nullable Long classId) {
        return jdbc.sql("""
                select count(*)
                  from marking m
                  join prompt q on q.id = m.prompt_id
                 where m.student_id = :person and (:classId is null or q.class_id = :classId)""")
                .param("person", personId)
                .param("classId", classId)
                .query(Integer.class)
                .single();
    }

    @Override
    public void erase(long personId) {
        for (String sql : ERASE) jdbc.sql(sql).param("person", personId).update();
    }
}

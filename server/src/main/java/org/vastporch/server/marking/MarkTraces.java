package org.vastporch.server.marking;

import org.jspecify.annotations.Nullable;
import org.springframework.core.annotation.Order;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.server.erasure.Traces;

/** Marks and feedback that a person was given. */
@Repository
@Order(10)
class MarkTraces implements Traces {

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
        jdbc.sql("delete from mark where student_id = :person")
                .param("person", personId)
                .update();
        jdbc.sql("delete from marking where student_id = :person")
                .param("person", personId)
                .update();
    }
}

package org.vastporch.server.comments;

import org.jspecify.annotations.Nullable;
import org.springframework.core.annotation.Order;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.server.erasure.Traces;

/** Comments of a person, and those on the posts that go with the person. */
@Repository
@Order(20)
class CommentTraces implements Traces {

    private final JdbcClient jdbc;

    CommentTraces(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    @Override
    public String what() {
        return "comments";
    }

    @Override
    public int count(long personId, @Nullable Long classId) {
        return jdbc.sql("""
                select count(*)
                  from comment
                 where author_id = :person and state <> 'BINNED' and (:classId is null or class_id = :classId)""")
                .param("person", personId)
                .param("classId", classId)
                .query(Integer.class)
                .single();
    }

    @Override
    public void erase(long personId) {
        String gone = """
            select k.id
              from comment k
             where k.author_id = :person
                or k.post_id in (""" + Traces.POSTS_THAT_GO + ")";
        jdbc.sql("delete from hold where subject = 'comment' and subject_id in (" + gone + ")")
                .param("person", personId)
                .update();
        jdbc.sql("delete from decision where subject = 'comment' and subject_id in (" + gone + ")")
                .param("person", personId)
                .update();
        // Answers to a comment that goes move up to what it answered.
        while (jdbc.sql("""
                update comment c
                   set parent_id = (select x.parent_id from comment x where x.id = c.parent_id)
                 where c.parent_id in (""" + gone + ")").param("person", personId).update() > 0) {}
        jdbc.sql("update comment set edited_by = null where edited_by = :person")
                .param("person", personId)
                .update();
        jdbc.sql("delete from comment where id in (" + gone + ")")
                .param("person", personId)
                .update();
    }
}

package org.vastporch.server.feeds;

import org.jspecify.annotations.Nullable;
import org.springframework.core.annotation.Order;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.server.erasure.Traces;

/** Outside blogs that belong to a person, and the secret feed addresses. */
@Repository
@Order(40)
class FeedTraces implements Traces {

    private final JdbcClient jdbc;

    FeedTraces(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    @Override
    public String what() {
        return "outside-blogs";
    }

    @Override
    public int count(long personId, @Nullable Long classId) {
        return jdbc.sql("""
                select count(*)
                  from source
                 where person_id = :person and (:classId is null or class_id = :classId)""")
                .param("person", personId)
                .param("classId", classId)
                .query(Integer.class)
                .single();
    }

    @Override
    public void erase(long personId) {
        jdbc.sql("""
                                update source_entry
                                 set post_id = null
                                 where post_id in (select p.id from post p where p.author_id = :person)""").param("person", personId).update();
        jdbc.sql("""
                                update post
                                 set source_id = null
                                 where source_id in (select s.id from source s where s.person_id = :person)""").param("person", personId).update();
        jdbc.sql("delete from source_entry where source_id in (select s.id from source s where s.person_id = :person)")
                .param("person", personId)
                .update();
        jdbc.sql("delete from private_blog where person_id = :person")
                .param("person", personId)
                .update();
        jdbc.sql("delete from source where person_id = :person")
                .param("person", personId)
                .update();
        jdbc.sql("delete from feed_key where person_id = :person")
                .param("person", personId)
                .update();
        jdbc.sql("""
                                update source
                                 set blog_id = null
                                 where blog_id in (select b.id from blog b where b.owner_id = :person)""").param("person", personId).update();
    }
}

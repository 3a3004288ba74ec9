package org.vastporch.server.groups;

import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** Groups of a class: their names, and their end. */
@Repository
class GroupStore {

    private final JdbcClient jdbc;

    GroupStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    void rename(long groupId, String name) {
        jdbc.sql("update class_group set name = :name where id = :id")
                .param("name", name)
                .param("id", groupId)
                .update();
    }

    /** Whether a blog belongs to a group or opens to it alone. */
    boolean isUsed(long groupId) {
        return jdbc.sql("select count(*) from blog where group_id = :id or only_group = :id")
                                .param("id", groupId)
                                .query(Integer.class)
                                .single()
                        > 0
                || jdbc.sql("select count(*) from blog_set where only_group = :id")
                                .param("id", groupId)
                                .query(Integer.class)
                                .single()
                        > 0;
    }

    void remove(long groupId) {
        jdbc.sql("update membership set group_id = null where group_id = :id")
                .param("id", groupId)
                .update();
        jdbc.sql("delete from class_group where id = :id").param("id", groupId).update();
    }

    Optional<Long> classOf(long groupId) {
        return jdbc.sql("select class_id from class_group where id = :id")
                .param("id", groupId)
                .query(Long.class)
                .optional();
    }
}

package org.vastporch.server.writing;

import org.jspecify.annotations.Nullable;
import org.springframework.core.annotation.Order;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.server.erasure.Traces;

/** Posts of a person with all their versions, and what others wrote in the person's own blogs. */
@Repository
@Order(50)
class PostTraces implements Traces {

    private static final String GONE = Traces.POSTS_THAT_GO;

    private final JdbcClient jdbc;

    PostTraces(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    @Override
    public String what() {
        return "posts";
    }

    @Override
    public int count(long personId, @Nullable Long classId) {
        return jdbc.sql("""
                                select count(*)
                                 from post
                                 where author_id = :person and live is not null and state not in ('HIDDEN',
                                    'BINNED')
                                 and (:classId is null or class_id = :classId)""")
                .param("person", personId)
                .param("classId", classId)
                .query(Integer.class)
                .single();
    }

    @Override
    public void erase(long personId) {
        run("delete from seen where person_id = :person or post_id in (" + GONE + ")", personId);
        run("""
                        delete from marking where (prompt_id, student_id) in (select m.prompt_id, m.student_id from
                            marking_post m where m.post_id in (""" + GONE + "))", personId);
        run("delete from hold where subject = 'post' and subject_id in (" + GONE + ")", personId);
        run("delete from decision where subject = 'post' and subject_id in (" + GONE + ")", personId);
        run("delete from post_tag where post_id in (" + GONE + ")", personId);
        run("delete from post_version where post_id in (" + GONE + ")", personId);
        run("update source_entry set post_id = null where post_id in (" + GONE + ")", personId);
        run("delete from event where kind like 'post-%' and subject_id in (" + GONE + ")", personId);
        run("delete from post where id in (" + GONE + ")", personId);
        run("update post set binned_by = null where binned_by = :person", personId);
        run("update post_version set saved_by = null where saved_by = :person", personId);
    }

    private void run(String sql, long personId) {
        jdbc.sql(sql).param("person", personId).update();
    }

    /** Texts of other people in which the full name stands: they stay, and whoever erases is told. */
    @Repository
    @Order(51)
    static class MentionTraces implements Traces {

        private final JdbcClient jdbc;

        MentionTraces(JdbcClient jdbc) {
            this.jdbc = jdbc;
        }

        @Override
        public String what() {
            return "mentions";
        }

        @Override
        public int count(long personId, @Nullable Long classId) {
            return jdbc.sql("""
                    select count(*)
                      from post p
                      join post_version v on v.post_id = p.id and v.no = coalesce(p.working, p.live)
                      join person x on x.id = :person
                     where p.author_id <> :person and (:classId is null or p.class_id = :classId)
                       and x.given_name <> '' and x.family_name <> ''
                       and (locate(x.given_name || ' ' || x.family_name, v.html) > 0 or locate(x.given_name || ' ' || x.family_name, v.title) > 0)""")
                    .param("person", personId)
                    .param("classId", classId)
                    .query(Integer.class)
                    .single();
        }

        @Override
        public void erase(long personId) {
            // The words of others are theirs.
        }
    }
}

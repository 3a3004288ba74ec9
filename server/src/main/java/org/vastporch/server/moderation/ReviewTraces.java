package org.vastporch.server.moderation;

import org.springframework.core.annotation.Order;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.server.erasure.Traces;

/** What a person reported, what was reported about their texts, and what they set for themselves. */
@Repository
@Order(4)
class ReviewTraces implements Traces {

    private final JdbcClient jdbc;

    ReviewTraces(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    @Override
    public void erase(long personId) {
        run("""
            delete from report
             where reporter_id = :person
                or subject = 'post' and subject_id in (""" + POSTS_THAT_GO + """
            )
                or subject = 'comment' and subject_id in (select k.id from comment k where k.author_id = :person or k.post_id in (""" + POSTS_THAT_GO + "))", personId);
        run("delete from return_note where person_id = :person", personId);
        run("delete from notice_wish where person_id = :person", personId);
    }

    private void run(String sql, long personId) {
        jdbc.sql(sql).param("person", personId).update();
    }
}

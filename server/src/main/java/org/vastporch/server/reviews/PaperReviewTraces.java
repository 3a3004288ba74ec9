package org.vastporch.server.reviews;

import org.springframework.core.annotation.Order;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.server.erasure.Traces;

/** What a person read by a rubric, and readings of what they wrote. */
@Repository
@Order(9)
class PaperReviewTraces implements Traces {

    private final JdbcClient jdbc;

    PaperReviewTraces(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    @Override
    public void erase(long personId) {
        jdbc.sql("delete from review where student_id = :person or reader_id = :person")
                .param("person", personId)
                .update();
        for (String column : new String[] {"asked_by", "settled_by"})
            jdbc.sql("update review set " + column + " = null where " + column + " = :person")
                    .param("person", personId)
                    .update();
        jdbc.sql("delete from review_post where post_id in (" + POSTS_THAT_GO + ")")
                .param("person", personId)
                .update();
    }
}

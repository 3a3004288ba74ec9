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
        String gone = "select v.id from review v where v.student_id = :person or v.reader_id = :person";
        for (String about : new String[] {"hold", "report", "decision"})
            jdbc.sql("delete from " + about + " where subject = 'review' and subject_id in (" + gone + ")")
                    .param("person", personId)
                    .update();
        jdbc.sql("update prompt set peers_given_by = null where peers_given_by = :person")
                .param("person", personId)
                .update();
        jdbc.sql("delete from review where student_id = :person or reader_id = :person")
                .param("person", personId)
                .update();
        for (String column : new String[] {"asked_by", "settled_by", "ended_by"})
            jdbc.sql("update review set " + column + " = null where " + column + " = :person")
                    .param("person", personId)
                    .update();
        jdbc.sql("delete from review_post where post_id in (" + POSTS_THAT_GO + ")")
                .param("person", personId)
                .update();
    }
}

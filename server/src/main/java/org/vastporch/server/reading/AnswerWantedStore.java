package org.vastporch.server.reading;

import java.time.Instant;
import java.util.HashMap;
import java.util.Map;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.server.rows.Rows;

/** Which posts are put up for an answer. */
@Repository
class AnswerWantedStore {

    private final JdbcClient jdbc;

    AnswerWantedStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** Since when posts of a class are put up for an answer, by post. */
    Map<Long, Instant> wanted(long classId) {
        Map<Long, Instant> wanted = new HashMap<>();
        jdbc.sql("""
                select w.post_id, w.at
                  from answer_wanted w
                  join post p on p.id = w.post_id
                 where p.class_id = :class""").param("class", classId).query(row -> {
            wanted.put(row.getLong("post_id"), Rows.instant(row, "at"));
        });
        return wanted;
    }

    /** Who asks again asks from now on. */
    void want(long postId, Instant now) {
        jdbc.sql("merge into answer_wanted (post_id, at) key (post_id) values (:post, :now)")
                .param("post", postId)
                .param("now", Rows.utc(now))
                .update();
    }

    void unwant(long postId) {
        jdbc.sql("delete from answer_wanted where post_id = :post")
                .param("post", postId)
                .update();
    }
}

package org.vastporch.server.feeds;

import java.time.Instant;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.server.rows.Rows;

/** Secret feed addresses, each of one reader in one class. */
@Repository
class FeedKeyStore {

    record FeedKey(String token, long personId, long classId) {}

    private final JdbcClient jdbc;

    FeedKeyStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    Optional<FeedKey> find(String token) {
        return jdbc.sql("select token, person_id, class_id from feed_key where token = :token and revoked_at is null")
                .param("token", token)
                .query((row, n) ->
                        new FeedKey(row.getString("token"), row.getLong("person_id"), row.getLong("class_id")))
                .optional();
    }

    Optional<String> of(long personId, long classId) {
        return jdbc.sql("""
                                select token
                                 from feed_key
                                 where person_id = :person and class_id = :classId and revoked_at is null
                                 order by created_at desc
                                 limit 1""")
                .param("person", personId)
                .param("classId", classId)
                .query(String.class)
                .optional();
    }

    void add(String token, long personId, long classId, Instant now) {
        jdbc.sql("""
                                insert into feed_key (token, person_id, class_id, created_at)
                                 values (:token, :person, :classId, :now)""")
                .param("token", token)
                .param("person", personId)
                .param("classId", classId)
                .param("now", Rows.utc(now))
                .update();
    }

    void revoke(long personId, long classId, Instant now) {
        jdbc.sql("""
                                update feed_key
                                 set revoked_at = :now
                                 where person_id = :person and class_id = :classId and revoked_at is null""")
                .param("now", Rows.utc(now))
                .param("person", personId)
                .param("classId", classId)
                .update();
    }
}

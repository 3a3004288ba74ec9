package org.vastporch.server.feeds;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.server.rows.Rows;

/** Secret feed addresses, each of one reader in one class. */
@Repository
class FeedKeyStore {

    /** @param id what it is called where its secret must not stand */
    record FeedKey(
            long id,
            String token,
            long personId,
            long classId,
            Instant createdAt,
            @Nullable Instant lastUsedAt) {}

    private static final String SELECT =
            "select id, token, person_id, class_id, created_at, last_used_at from feed_key where revoked_at is null and ";

    private final JdbcClient jdbc;

    FeedKeyStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    Optional<FeedKey> find(String token) {
        return jdbc.sql(SELECT + "token = :token")
                .param("token", token)
                .query((row, n) -> key(row))
                .optional();
    }

    Optional<FeedKey> find(long id) {
        return jdbc.sql(SELECT + "id = :id")
                .param("id", id)
                .query((row, n) -> key(row))
                .optional();
    }

    Optional<FeedKey> of(long personId, long classId) {
        return jdbc.sql(SELECT + "person_id = :person and class_id = :classId order by created_at desc limit 1")
                .param("person", personId)
                .param("classId", classId)
                .query((row, n) -> key(row))
                .optional();
    }

    /** Those of a class that still work, with the one that was used last first. */
    List<FeedKey> ofClass(long classId) {
        return jdbc.sql(SELECT + "class_id = :classId order by last_used_at desc nulls last, id")
                .param("classId", classId)
                .query((row, n) -> key(row))
                .list();
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

    void used(String token, Instant now) {
        jdbc.sql("update feed_key set last_used_at = :now where token = :token")
                .param("now", Rows.utc(now))
                .param("token", token)
                .update();
    }

    private static FeedKey key(ResultSet row) throws SQLException {
        return new FeedKey(
                row.getLong("id"),
                row.getString("token"),
                row.getLong("person_id"),
                row.getLong("class_id"),
                Rows.instant(row, "created_at"),
                Rows.instant(row, "last_used_at"));
    }
}

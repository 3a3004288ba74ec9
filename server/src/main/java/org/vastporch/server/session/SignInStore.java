package org.vastporch.server.session;

import java.time.Instant;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.server.rows.Rows;

/** Who is signed in where, and one-time addresses. Only hashes of tokens are kept. */
@Repository
class SignInStore {

    private final JdbcClient jdbc;

    SignInStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    void add(String tokenHash, long personId, Instant now) {
        jdbc.sql("""
                                insert into sign_in (token_hash, person_id, created_at, seen_at)
                                 values (:token, :person, :now, :now)""")
                .param("token", tokenHash)
                .param("person", personId)
                .param("now", Rows.utc(now))
                .update();
    }

    void remove(String tokenHash) {
        jdbc.sql("delete from sign_in where token_hash = :token")
                .param("token", tokenHash)
                .update();
    }

    void removeAllOf(long personId) {
        jdbc.sql("delete from sign_in where person_id = :person")
                .param("person", personId)
                .update();
    }

    /** Ends all sessions of a person but one; tells how many that were. */
    int removeOthersOf(long personId, String tokenHash) {
        return jdbc.sql("delete from sign_in where person_id = :person and token_hash <> :token")
                .param("person", personId)
                .param("token", tokenHash)
                .update();
    }

    /** Whether anybody signed in on this device before, and has not changed the password since. */
    boolean isDevice(String tokenHash) {
        return jdbc.sql("select count(*) from device where token_hash = :token")
                        .param("token", tokenHash)
                        .query(Integer.class)
                        .single()
                > 0;
    }

    boolean isDevice(String tokenHash, long personId) {
        return jdbc.sql("select count(*) from device where token_hash = :token and person_id = :person")
                        .param("token", tokenHash)
                        .param("person", personId)
                        .query(Integer.class)
                        .single()
                > 0;
    }

    void putDevice(String tokenHash, long personId, Instant now) {
        jdbc.sql("""
                                merge into device (token_hash, person_id, seen_at) key (token_hash, person_id)
                                 values (:token, :person, :now)""")
                .param("token", tokenHash)
                .param("person", personId)
                .param("now", Rows.utc(now))
                .update();
    }

    void forgetDevices(long personId) {
        jdbc.sql("delete from device where person_id = :person")
                .param("person", personId)
                .update();
    }

    void addOneTime(String tokenHash, long personId, Instant expires) {
        jdbc.sql("delete from one_time_address where person_id = :person")
                .param("person", personId)
                .update();
        jdbc.sql("insert into one_time_address (token_hash, person_id, expires_at) values (:token, :person, :expires)")
                .param("token", tokenHash)
                .param("person", personId)
                .param("expires", Rows.utc(expires))
                .update();
    }

    Optional<Long> oneTime(String tokenHash, Instant now) {
        return jdbc.sql("select person_id from one_time_address where token_hash = :token and expires_at > :now")
                .param("token", tokenHash)
                .param("now", Rows.utc(now))
                .query(Long.class)
                .optional();
    }

    void useOneTime(String tokenHash) {
        jdbc.sql("delete from one_time_address where token_hash = :token")
                .param("token", tokenHash)
                .update();
    }
}

package org.vastporch.server.people;

import java.time.Instant;
import java.util.Optional;
import org.springframework.core.annotation.Order;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.server.erasure.Traces;
import org.vastporch.server.http.Rows;

/** E-mail addresses that wait to be confirmed; one for each person at most. */
@Repository
@Order(66)
class EmailStore implements Traces {

    record Wish(long personId, String email) {}

    private final JdbcClient jdbc;

    EmailStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    void add(long personId, String email, String tokenHash, Instant until) {
        jdbc.sql("insert into email_wish (person_id, email, token_hash, expires_at) values (:person, :email, :token, :until)")
            .param("person", personId).param("email", email).param("token", tokenHash).param("until", Rows.utc(until)).update();
    }

    Optional<String> waiting(long personId, Instant now) {
        return jdbc.sql("select email from email_wish where person_id = :person and expires_at > :now").param("person", personId).param("now", Rows.utc(now)).query(String.class).optional();
    }

    Optional<Wish> byToken(String tokenHash, Instant now) {
        return jdbc.sql("select person_id, email from email_wish where token_hash = :token and expires_at > :now for update").param("token", tokenHash).param("now", Rows.utc(now))
            .query((row, n) -> new Wish(row.getLong("person_id"), row.getString("email"))).optional();
    }

    void withdraw(long personId) {
        jdbc.sql("delete from email_wish where person_id = :person").param("person", personId).update();
    }

    @Override
    public void erase(long personId) {
        withdraw(personId);
    }
}

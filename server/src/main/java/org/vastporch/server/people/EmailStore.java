package org.vastporch.server.people;

import java.time.Instant;
import java.util.Optional;
import org.springframework.core.annotation.Order;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.server.erasure.Traces;
import org.vastporch.server.rows.Rows;

/**
 * E-mail addresses that wait to be confirmed, of which one for each person is to be that of the account, and those
 * confirmed besides it.
 */
@Repository
@Order(66)
class EmailStore implements Traces {

    /** @param own whether it is to be the address of the account */
    record Wish(long personId, String email, boolean own) {}

    private final JdbcClient jdbc;

    EmailStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    void add(Wish wish, String tokenHash, Instant until) {
        jdbc.sql("""
                                merge into email_wish (person_id, email, own, token_hash, expires_at) key
                                    (person_id, email, own)
                                 values (:person, :email, :own, :token, :until)""")
                .param("person", wish.personId())
                .param("email", wish.email())
                .param("own", wish.own())
                .param("token", tokenHash)
                .param("until", Rows.utc(until))
                .update();
    }

    /** The address that is to be that of the account. */
    Optional<String> waiting(long personId, Instant now) {
        return jdbc.sql("select email from email_wish where person_id = :person and own and expires_at > :now")
                .param("person", personId)
                .param("now", Rows.utc(now))
                .query(String.class)
                .optional();
    }

    boolean waits(Wish wish, Instant now) {
        return jdbc.sql("""
                                        select count(*)
                                         from email_wish
                                         where person_id = :person and email = :email and own = :own and
                                            expires_at > :now""")
                        .param("person", wish.personId())
                        .param("email", wish.email())
                        .param("own", wish.own())
                        .param("now", Rows.utc(now))
                        .query(Integer.class)
                        .single()
                > 0;
    }

    Optional<Wish> byToken(String tokenHash, Instant now) {
        return jdbc.sql("""
                                select person_id, email, own
                                 from email_wish
                                 where token_hash = :token and expires_at > :now for update""")
                .param("token", tokenHash)
                .param("now", Rows.utc(now))
                .query((row, n) -> new Wish(row.getLong("person_id"), row.getString("email"), row.getBoolean("own")))
                .optional();
    }

    void remove(Wish wish) {
        jdbc.sql("delete from email_wish where person_id = :person and email = :email and own = :own")
                .param("person", wish.personId())
                .param("email", wish.email())
                .param("own", wish.own())
                .update();
    }

    /** Whatever address was to be that of the account is not any more. */
    void withdraw(long personId) {
        jdbc.sql("delete from email_wish where person_id = :person and own")
                .param("person", personId)
                .update();
    }

    void confirm(long personId, String email) {
        jdbc.sql("merge into email_confirmed (person_id, email) key (person_id, email) values (:person, :email)")
                .param("person", personId)
                .param("email", email)
                .update();
    }

    boolean isConfirmed(long personId, String email) {
        return jdbc.sql("select count(*) from email_confirmed where person_id = :person and email = :email")
                        .param("person", personId)
                        .param("email", email)
                        .query(Integer.class)
                        .single()
                > 0;
    }

    @Override
    public void erase(long personId) {
        jdbc.sql("delete from email_wish where person_id = :person")
                .param("person", personId)
                .update();
        jdbc.sql("delete from email_confirmed where person_id = :person")
                .param("person", personId)
                .update();
    }
}

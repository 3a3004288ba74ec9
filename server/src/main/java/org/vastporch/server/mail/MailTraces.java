package org.vastporch.server.mail;

import org.springframework.core.annotation.Order;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.server.erasure.Traces;

/** Mails to a person, sent or not. */
@Repository
@Order(70)
class MailTraces implements Traces {

    private final JdbcClient jdbc;

    MailTraces(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    @Override
    public void erase(long personId) {
        jdbc.sql("""
                                delete
                                 from mail
                                 where person_id = :person or lower(recipient) = (select lower(p.email) from
                                    person p where p.id = :person)""").param("person", personId).update();
    }
}

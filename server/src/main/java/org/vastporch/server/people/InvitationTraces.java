package org.vastporch.server.people;

import org.springframework.core.annotation.Order;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.server.erasure.Traces;

/** Invitations that a person accepted or was sent, and their mails. */
@Repository
@Order(65)
class InvitationTraces implements Traces {

    private final JdbcClient jdbc;

    InvitationTraces(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    @Override
    public void erase(long personId) {
        String gone = "accepted_by = :person or (email <> '' and lower(email) = (select lower(p.email) from person p where p.id = :person))";
        jdbc.sql("delete from mail where lower(recipient) in (select lower(i.email) from invitation i where " + gone + ")").param("person", personId).update();
        jdbc.sql("delete from invitation where " + gone).param("person", personId).update();
    }
}

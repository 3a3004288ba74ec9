package org.vastporch.server.enrolment;

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
        // An invitation names the child that it is for, at whatever address it was sent; of that name alone in the
        // child's own classes.
        String gone = """
            accepted_by = :person
              or email <> '' and lower(email) = (select lower(p.email) from person p where p.id = :person)
              or name <> '' and class_id in (select m.class_id from membership m where m.person_id = :person)
                 and exists (select 1 from person p where p.id = :person and p.family_name <> ''
                             and (locate(lower(p.family_name), lower(name)) > 0 or p.given_name <> '' and locate(lower(p.given_name), lower(name)) > 0))""";
        jdbc.sql("delete from mail where lower(recipient) in (select lower(i.email) from invitation i where " + gone
                        + ")")
                .param("person", personId)
                .update();
        jdbc.sql("delete from invitation where " + gone)
                .param("person", personId)
                .update();
    }
}

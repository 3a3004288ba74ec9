package org.vastporch.server.subscriptions;

import java.util.List;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.core.subscriptions.MailByDefault;

/** What classes say of mail before their members do. */
@Repository
class ClassMailStore {

    record Undecided(long personId, long classId) {}

    /** Members who read there, have an address and neither subscribed to the class nor ended that. */
    private static final String UNDECIDED = """
              from membership m
              join class c on c.id = m.class_id
              join person p on p.id = m.person_id
             where m.ended_at is null and m.role <> 'MODERATOR' and p.email <> '' and c.mail_by_default = :rule
               and not exists (select 1 from subscription s where s.person_id = m.person_id and s.class_id = m.class_id
                   and s.kind = 'CLASS')""";

    private static final String NOT_STOPPED =
            " and not exists (select 1 from person_mail w where w.person_id = m.person_id and w.stopped)";

    private final JdbcClient jdbc;

    ClassMailStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** Until the transaction ends the answers of a person to offers come one after the other. */
    void lockPerson(long personId) {
        jdbc.sql("select id from person where id = :id for update")
                .param("id", personId)
                .query(Long.class)
                .single();
    }

    /** Classes that ask a person whether they want mail. */
    List<Long> offering(long personId) {
        return jdbc.sql("select m.class_id " + UNDECIDED + " and m.person_id = :person order by m.class_id")
                .param("rule", MailByDefault.OFFERED.name())
                .param("person", personId)
                .query(Long.class)
                .list();
    }

    /** Whom a class would write to that writes without being asked; not those who stopped all such mails. */
    List<Undecided> undecided() {
        return jdbc.sql("select m.person_id, m.class_id " + UNDECIDED + NOT_STOPPED
                        + " order by m.class_id, m.person_id")
                .param("rule", MailByDefault.ON.name())
                .query((row, n) -> new Undecided(row.getLong("person_id"), row.getLong("class_id")))
                .list();
    }

    /** Whether somebody still is one of those. */
    boolean isUndecided(Undecided of) {
        return !jdbc.sql("select m.id " + UNDECIDED + NOT_STOPPED
                        + " and m.person_id = :person and m.class_id = :classId")
                .param("rule", MailByDefault.ON.name())
                .param("person", of.personId())
                .param("classId", of.classId())
                .query(Long.class)
                .list()
                .isEmpty();
    }

    /** Notes that a subscription came of the class's rule and not of a person's wish. */
    void setByClass(long subscription) {
        jdbc.sql("update subscription set by_class = true where id = :id")
                .param("id", subscription)
                .update();
    }

    /** Takes away what came of the rule alone. */
    void removeByClass(long classId) {
        jdbc.sql("delete from subscription where class_id = :id and by_class")
                .param("id", classId)
                .update();
    }

    /** Whether a person is written to by the rule of a class. */
    boolean isByClass(long personId) {
        return jdbc.sql("select count(*) from subscription where person_id = :person and by_class and ended_at is null")
                        .param("person", personId)
                        .query(Integer.class)
                        .single()
                > 0;
    }
}

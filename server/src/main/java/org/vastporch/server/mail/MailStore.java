package org.vastporch.server.mail;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import org.vastporch.server.http.Rows;

/** Mails that are to be sent, and those that were. */
@Repository
class MailStore {

    /** @param nextTry when it is tried next; null once it was sent or given up */
    record Mail(long id, String recipient, String subject, String text, int tries, @Nullable Instant nextTry, @Nullable Instant sentAt, @Nullable String lastError,
                @Nullable Long personId, @Nullable String html, String carries, @Nullable String stopAddress, @Nullable String cadence, @Nullable Instant since) {}

    private static final String COLUMNS = "id, recipient, subject, text, tries, next_try, sent_at, last_error, person_id, html, carries, stop_address, cadence, since";

    private final JdbcClient jdbc;

    MailStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    long add(@Nullable Long personId, String recipient, String subject, String text, String carries, Instant now) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                insert into mail (person_id, recipient, subject, text, carries, created_at, next_try, tries)
                values (:person, :recipient, :subject, :text, :carries, :now, :now, 0)""")
            .param("person", personId).param("recipient", recipient).param("subject", subject).param("text", text).param("carries", carries)
            .param("now", Rows.utc(now)).update(key, "id");
        return key.getKey().longValue();
    }

    void addDigest(MailService.Digest d, Instant now) {
        jdbc.sql("""
                insert into mail (person_id, recipient, subject, text, html, carries, stop_address, cadence, since, created_at, next_try, tries)
                values (:person, :recipient, :subject, :text, :html, :carries, :stop, :cadence, :since, :now, :now, 0)""")
            .param("person", d.personId()).param("recipient", d.recipient()).param("subject", d.subject()).param("text", d.text()).param("html", d.html())
            .param("carries", d.carries()).param("stop", d.stopAddress()).param("cadence", d.cadence()).param("since", Rows.utc(d.since())).param("now", Rows.utc(now)).update();
    }

    /** Takes the texts out of a mail that must not go. */
    void withdraw(long id) {
        jdbc.sql("update mail set next_try = null, last_error = 'withdrawn', text = '', html = null, subject = '' where id = :id").param("id", id).update();
    }

    List<Mail> due(Instant now, int most) {
        return jdbc.sql("select " + COLUMNS + " from mail where next_try <= :now order by next_try, id limit :most")
            .param("now", Rows.utc(now)).param("most", most).query((row, n) -> mail(row)).list();
    }

    /** The newest mail to an address. */
    Optional<Mail> newestTo(String recipient) {
        return jdbc.sql("select " + COLUMNS + " from mail where recipient = :recipient order by id desc limit 1")
            .param("recipient", recipient).query((row, n) -> mail(row)).optional();
    }

    void sent(long id, Instant now) {
        jdbc.sql("update mail set sent_at = :now, next_try = null, last_error = null where id = :id").param("now", Rows.utc(now)).param("id", id).update();
    }

    void failed(long id, String error, @Nullable Instant nextTry) {
        jdbc.sql("update mail set tries = tries + 1, last_error = :error, next_try = :next where id = :id")
            .param("error", error).param("next", Rows.utc(nextTry)).param("id", id).update();
    }

    private static Mail mail(ResultSet row) throws SQLException {
        return new Mail(row.getLong("id"), row.getString("recipient"), row.getString("subject"), row.getString("text"), row.getInt("tries"),
            Rows.instant(row, "next_try"), Rows.instant(row, "sent_at"), row.getString("last_error"), Rows.number(row, "person_id"), row.getString("html"),
            row.getString("carries"), row.getString("stop_address"), row.getString("cadence"), Rows.instant(row, "since"));
    }
}

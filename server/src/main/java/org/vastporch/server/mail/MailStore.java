package org.vastporch.server.mail;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.jdbc.support.KeyHolder;
import org.springframework.stereotype.Repository;
import org.vastporch.server.rows.Rows;

/** Mails that are to be sent, and those that were. */
@Repository
class MailStore {

    /**
     * @param nextTry when it is tried next; null once it was sent or given up
     * @param kind who writes its words when it goes; null if they stand here
     */
    record Mail(
            long id,
            String recipient,
            String subject,
            String text,
            int tries,
            @Nullable Instant nextTry,
            @Nullable Instant sentAt,
            @Nullable String lastError,
            @Nullable Long personId,
            @Nullable String kind,
            String about,
            @Nullable Instant since,
            @Nullable Instant until,
            Instant createdAt) {
        LateMail.Order order() {
            return new LateMail.Order(personId, about, since, until);
        }
    }

    private static final String COLUMNS =
            "id, recipient, subject, text, tries, next_try, sent_at, last_error, person_id, kind, "
                    + "about, since, until_at, created_at";

    private final JdbcClient jdbc;

    MailStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    void add(@Nullable Long personId, String recipient, String subject, String text, Instant now) {
        jdbc.sql("""
                insert into mail (person_id, recipient, subject, text, created_at, next_try, tries)
                values (:person, :recipient, :subject, :text, :now, :now, 0)""")
                .param("person", personId)
                .param("recipient", recipient)
                .param("subject", subject)
                .param("text", text)
                .param("now", Rows.utc(now))
                .update();
    }

    /** @return its number */
    long addOrder(String kind, String recipient, LateMail.Order order, Instant now) {
        KeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                insert into mail (person_id, recipient, subject, text, kind, about, since, until_at, created_at,
                       next_try, tries)
                values (:person, :recipient, '', '', :kind, :about, :since, :until, :now, :now, 0)""")
                .param("person", order.personId())
                .param("recipient", recipient)
                .param("kind", kind)
                .param("about", order.about())
                .param("since", Rows.utc(order.since()))
                .param("until", Rows.utc(order.until()))
                .param("now", Rows.utc(now))
                .update(key, "id");
        return key.getKey().longValue();
    }

    /** Some mails by their numbers. */
    List<Mail> all(List<Long> ids) {
        if (ids.isEmpty()) return List.of();
        return jdbc.sql("select " + COLUMNS + " from mail where id in (:ids)")
                .param("ids", ids)
                .query((row, n) -> mail(row))
                .list();
    }

    List<Mail> due(Instant now, int most) {
        return jdbc.sql("select " + COLUMNS + " from mail where next_try <= :now order by next_try, id limit :most")
                .param("now", Rows.utc(now))
                .param("most", most)
                .query((row, n) -> mail(row))
                .list();
    }

    /** The newest mail to an address. */
    Optional<Mail> newestTo(String recipient) {
        return jdbc.sql("select " + COLUMNS + " from mail where recipient = :recipient order by id desc limit 1")
                .param("recipient", recipient)
                .query((row, n) -> mail(row))
                .optional();
    }

    /** It was sent, or had nothing to tell; its words go. */
    void done(long id, Instant now) {
        jdbc.sql("""
                                update mail
                                 set sent_at = :now, next_try = null, last_error = null, subject = '', text = ''
                                 where id = :id""").param("now", Rows.utc(now)).param("id", id).update();
    }

    /** @param nextTry null for giving it up; its words go then */
    void failed(long id, String error, @Nullable Instant nextTry) {
        jdbc.sql("update mail set tries = tries + 1, last_error = :error, next_try = :next"
                        + (nextTry == null ? ", subject = '', text = ''" : "") + " where id = :id")
                .param("error", error)
                .param("next", Rows.utc(nextTry))
                .param("id", id)
                .update();
    }

    private static Mail mail(ResultSet row) throws SQLException {
        return new Mail(
                row.getLong("id"),
                row.getString("recipient"),
                row.getString("subject"),
                row.getString("text"),
                row.getInt("tries"),
                Rows.instant(row, "next_try"),
                Rows.instant(row, "sent_at"),
                row.getString("last_error"),
                Rows.number(row, "person_id"),
                row.getString("kind"),
                row.getString("about"),
                Rows.instant(row, "since"),
                Rows.instant(row, "until_at"),
                Rows.instant(row, "created_at"));
    }
}

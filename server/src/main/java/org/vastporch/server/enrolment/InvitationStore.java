package org.vastporch.server.enrolment;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.core.access.Role;
import org.vastporch.server.rows.Rows;

/** Invitations by mail. Only hashes of their tokens are kept. */
@Repository
class InvitationStore {

    record Invitation(
            long id,
            long classId,
            Role role,
            String email,
            String name,
            long invitedBy,
            Instant sentAt,
            int sentTimes,
            Instant expiresAt,
            @Nullable Instant acceptedAt,
            @Nullable Long acceptedBy) {}

    private static final String COLUMNS =
            "id, class_id, role, email, name, invited_by, sent_at, sent_times, expires_at, accepted_at, accepted_by";

    private final JdbcClient jdbc;

    InvitationStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    void add(
            long classId,
            Role role,
            String email,
            String name,
            String tokenHash,
            long by,
            Instant now,
            Instant expires) {
        jdbc.sql("""
                insert into invitation (class_id, role, email, name, token_hash, invited_by, sent_at, sent_times,
                       expires_at)
                values (:classId, :role, :email, :name, :token, :by, :now, 1, :expires)""")
                .param("classId", classId)
                .param("role", role.name())
                .param("email", email)
                .param("name", name)
                .param("token", tokenHash)
                .param("by", by)
                .param("now", Rows.utc(now))
                .param("expires", Rows.utc(expires))
                .update();
    }

    List<Invitation> ofClass(long classId) {
        return jdbc.sql("select " + COLUMNS + " from invitation where class_id = :classId order by id")
                .param("classId", classId)
                .query((row, n) -> invitation(row))
                .list();
    }

    Optional<Invitation> find(long id) {
        return jdbc.sql("select " + COLUMNS + " from invitation where id = :id")
                .param("id", id)
                .query((row, n) -> invitation(row))
                .optional();
    }

    Optional<Invitation> lockByToken(String tokenHash) {
        return jdbc.sql("select " + COLUMNS + " from invitation where token_hash = :token for update")
                .param("token", tokenHash)
                .query((row, n) -> invitation(row))
                .optional();
    }

    /** Sends it anew: with a new token, so that the mail before leads nowhere. */
    void resend(long id, String tokenHash, Instant now, Instant expires) {
        jdbc.sql("""
                                update invitation
                                 set token_hash = :token, sent_at = :now, sent_times = sent_times + 1,
                                    expires_at = :expires
                                 where id = :id and accepted_at is null""")
                .param("token", tokenHash)
                .param("now", Rows.utc(now))
                .param("expires", Rows.utc(expires))
                .param("id", id)
                .update();
    }

    void withdraw(long id) {
        jdbc.sql("delete from invitation where id = :id and accepted_at is null")
                .param("id", id)
                .update();
    }

    void accepted(long id, long personId, Instant now) {
        jdbc.sql("update invitation set accepted_at = :now, accepted_by = :person where id = :id")
                .param("now", Rows.utc(now))
                .param("person", personId)
                .param("id", id)
                .update();
    }

    private static Invitation invitation(ResultSet row) throws SQLException {
        return new Invitation(
                row.getLong("id"),
                row.getLong("class_id"),
                Role.valueOf(row.getString("role")),
                row.getString("email"),
                row.getString("name"),
                row.getLong("invited_by"),
                Rows.instant(row, "sent_at"),
                row.getInt("sent_times"),
                Rows.instant(row, "expires_at"),
                Rows.instant(row, "accepted_at"),
                Rows.number(row, "accepted_by"));
    }
}

package org.vastporch.server.moderation;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.time.LocalTime;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.core.moderation.QuietHours;
import org.vastporch.core.subscriptions.Cadence;
import org.vastporch.server.rows.Rows;

/** Who wants to be written to when something waits, and up to when they were told. */
@Repository
class NoticeStore {

    /** @param address where to; empty for the address of the account */
    record WishRow(long personId, long classId, Cadence cadence, String address, QuietHours quiet, Instant toldUpto) {}

    /** A text that came to the pile. */
    record Waiting(String subject, long id, @Nullable Long authorId, String title, Instant since) {}

    private final JdbcClient jdbc;

    NoticeStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    Optional<WishRow> find(long personId, long classId) {
        return jdbc.sql("""
                                select person_id, class_id, cadence, address, quiet_from, quiet_until, told_upto
                                 from notice_wish
                                 where person_id = :person and class_id = :classId""")
                .param("person", personId)
                .param("classId", classId)
                .query((row, n) -> wish(row))
                .optional();
    }

    List<WishRow> all() {
        return jdbc.sql("""
                                select person_id, class_id, cadence, address, quiet_from, quiet_until, told_upto
                                 from notice_wish
                                 where cadence <> 'NEVER'
                                 order by person_id, class_id""").query((row, n) -> wish(row)).list();
    }

    void put(WishRow wish) {
        jdbc.sql("""
                merge into notice_wish (person_id, class_id, cadence, address, quiet_from, quiet_until, told_upto) key
                       (person_id, class_id)
                values (:person, :classId, :cadence, :address, :from, :until, :upto)""")
                .param("person", wish.personId())
                .param("classId", wish.classId())
                .param("cadence", wish.cadence().name())
                .param("address", wish.address())
                .param("from", wish.quiet().from())
                .param("until", wish.quiet().until())
                .param("upto", Rows.utc(wish.toldUpto()))
                .update();
    }

    /** What came to the pile of a class after a moment, the longest wait first. */
    List<Waiting> arrived(long classId, Instant after, Instant upto) {
        return jdbc.sql("""
                select 'post' as subject, t.id, t.author_id, v.title, t.waiting_since
                  from post t
                  join post_version v on v.post_id = t.id and v.no = case when t.live is not null and t.state <>
                         'WAITING' then t.live else coalesce(t.working, t.live) end
                 where t.class_id = :classId and t.state <> 'BINNED' and t.waiting_since > :after and t.waiting_since
                        <= :upto
                union all
                select 'comment', t.id, t.author_id, v.title, t.waiting_since
                  from comment t
                  join post p on p.id = t.post_id
                  join post_version v on v.post_id = p.id and v.no = coalesce(p.live, p.working)
                 where t.class_id = :classId and t.state <> 'BINNED' and t.waiting_since > :after and t.waiting_since
                        <= :upto
                union all
                select 'header', t.id, t.author_id, b.title, t.waiting_since
                  from blog_header t
                  join blog b on b.id = t.blog_id
                 where t.class_id = :classId and t.state <> 'BINNED' and t.waiting_since > :after and t.waiting_since
                        <= :upto
                union all
                select 'review', t.id, t.reader_id, q.title, t.waiting_since
                  from review t
                  join prompt q on q.id = t.prompt_id
                 where q.class_id = :classId and t.state <> 'BINNED' and t.waiting_since > :after and t.waiting_since
                        <= :upto
                 order by waiting_since
                 limit 200""")
                .param("classId", classId)
                .param("after", Rows.utc(after))
                .param("upto", Rows.utc(upto))
                .query((row, n) -> new Waiting(
                        row.getString("subject"),
                        row.getLong("id"),
                        Rows.number(row, "author_id"),
                        row.getString("title"),
                        Rows.instant(row, "waiting_since")))
                .list();
    }

    private static WishRow wish(ResultSet row) throws SQLException {
        return new WishRow(
                row.getLong("person_id"),
                row.getLong("class_id"),
                Cadence.valueOf(row.getString("cadence")),
                row.getString("address"),
                new QuietHours(
                        row.getObject("quiet_from", LocalTime.class), row.getObject("quiet_until", LocalTime.class)),
                Rows.instant(row, "told_upto"));
    }
}

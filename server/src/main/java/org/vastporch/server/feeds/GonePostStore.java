package org.vastporch.server.feeds;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.core.feeds.Presence;
import org.vastporch.server.rows.Rows;

/** Whether the pages of outside posts are still there. */
@Repository
class GonePostStore {

    /** An entry whose page is to be looked at. */
    record Page(String key, String link, long postId) {}

    /** @param authorId null where nobody is its author any more */
    record GonePost(
            long postId,
            String title,
            String link,
            @Nullable Long authorId,
            Instant at) {}

    private final JdbcClient jdbc;

    GonePostStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /**
     * Has those looked at soon that a feed no longer carries though it carries older ones.
     *
     * @param carried the keys of the entries that it carries
     * @param oldest the date of the oldest of them
     */
    void hurry(long sourceId, List<String> carried, Instant oldest, Instant now) {
        jdbc.sql("""
                update source_entry
                   set look_at = :now
                 where source_id = :source and post_id is not null and missed_at is null and published_at > :oldest
                   and look_at > :now and entry_key <> all(:carried)""")
                .param("source", sourceId)
                .param("oldest", Rows.utc(oldest))
                .param("now", Rows.utc(now))
                .param("carried", carried.toArray(String[]::new))
                .update();
    }

    /** Pages that are due to be looked at. */
    List<Page> due(long sourceId, Instant now, int most) {
        return jdbc.sql("""
                select e.entry_key, e.link, e.post_id
                  from source_entry e
                  join post p on p.id = e.post_id
                 where e.source_id = :source and e.look_at <= :now and e.link <> '' and p.state <> 'BINNED'
                 order by e.look_at
                 limit :most""")
                .param("source", sourceId)
                .param("now", Rows.utc(now))
                .param("most", most)
                .query((row, n) -> new Page(row.getString("entry_key"), row.getString("link"), row.getLong("post_id")))
                .list();
    }

    /** What is known of a page; nothing if its entry is no post any more. */
    Optional<Presence> presence(long sourceId, String key) {
        return jdbc.sql("""
                select e.missed_at, p.gone_at
                  from source_entry e
                  join post p on p.id = e.post_id
                 where e.source_id = :source and e.entry_key = :key""")
                .param("source", sourceId)
                .param("key", key)
                .query((row, n) -> new Presence(Rows.instant(row, "missed_at"), row.getObject("gone_at") != null))
                .optional();
    }

    void looked(long sourceId, String key, Presence presence, Instant now) {
        jdbc.sql("update source_entry set missed_at = :missed, look_at = :next"
                        + " where source_id = :source and entry_key = :key")
                .param("missed", Rows.utc(presence.missedAt()))
                .param("next", Rows.utc(presence.nextLook(now)))
                .param("source", sourceId)
                .param("key", key)
                .update();
    }

    /** @param at null if it is there again, and there is nothing to say of it */
    void setGone(long postId, @Nullable Instant at) {
        jdbc.sql("update post set gone_at = :at, gone_settled = false where id = :id")
                .param("at", Rows.utc(at))
                .param("id", postId)
                .update();
    }

    boolean isGone(long postId) {
        return jdbc.sql("select count(*) from post where id = :id and gone_at is not null")
                        .param("id", postId)
                        .query(Integer.class)
                        .single()
                > 0;
    }

    void settle(long postId) {
        jdbc.sql("update post set gone_settled = true where id = :id")
                .param("id", postId)
                .update();
    }

    /** Posts of which staff have still to say what becomes of them. */
    List<GonePost> unsettled(long classId) {
        return jdbc.sql("""
                select p.id, v.title, p.outside_link, p.author_id, p.gone_at
                  from post p
                  join post_version v on v.post_id = p.id and v.no = coalesce(p.live, p.working)
                 where p.class_id = :classId and p.gone_at is not null and not p.gone_settled
                   and p.state not in ('HIDDEN', 'BINNED')
                 order by p.gone_at desc, p.id""")
                .param("classId", classId)
                .query((row, n) -> new GonePost(
                        row.getLong("id"),
                        row.getString("title"),
                        row.getString("outside_link"),
                        Rows.number(row, "author_id"),
                        Rows.instant(row, "gone_at")))
                .list();
    }
}

package org.vastporch.server.margin;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.core.annotation.Order;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import org.vastporch.core.margin.SuggestedChange;
import org.vastporch.server.erasure.Traces;
import org.vastporch.server.rows.Rows;

/** Notes in the margin of posts. */
@Repository
@Order(12)
class MarginStore implements Traces {

    /** Where a note stands: not answered yet, read, taken over, or not taken over. */
    enum NoteState {
        OPEN,
        DONE,
        ACCEPTED,
        DECLINED
    }

    /** @param replacement what is proposed instead; null for a note alone */
    record Note(
            long id,
            long postId,
            int versionNo,
            String quote,
            int nth,
            String remark,
            @Nullable String replacement,
            long authorId,
            Instant at,
            NoteState state) {
        SuggestedChange change() {
            return new SuggestedChange(quote, nth, replacement);
        }
    }

    private static final String COLUMNS =
            "id, post_id, version_no, quote, nth, remark, replacement, author_id, created_at, state";

    private final JdbcClient jdbc;

    MarginStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    long add(long classId, Note n) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                insert into margin_note (class_id, post_id, version_no, quote, nth, remark, replacement, author_id,
                       created_at, state)
                values (:classId, :post, :version, :quote, :nth, :remark, :replacement, :author, :at, 'OPEN')""")
                .param("classId", classId)
                .param("post", n.postId())
                .param("version", n.versionNo())
                .param("quote", n.quote())
                .param("nth", n.nth())
                .param("remark", n.remark())
                .param("replacement", n.replacement())
                .param("author", n.authorId())
                .param("at", Rows.utc(n.at()))
                .update(key, "id");
        return key.getKey().longValue();
    }

    List<Note> ofPost(long postId) {
        return jdbc.sql("select " + COLUMNS + " from margin_note where post_id = :post order by id")
                .param("post", postId)
                .query((row, n) -> note(row))
                .list();
    }

    Optional<Note> find(long id) {
        return jdbc.sql("select " + COLUMNS + " from margin_note where id = :id")
                .param("id", id)
                .query((row, n) -> note(row))
                .optional();
    }

    void answer(long id, NoteState state, Instant now) {
        jdbc.sql("update margin_note set state = :state, answered_at = :now where id = :id")
                .param("state", state.name())
                .param("now", Rows.utc(now))
                .param("id", id)
                .update();
    }

    void setHelpAsked(long postId, @Nullable Instant at) {
        jdbc.sql("update post set help_asked_at = :at where id = :id")
                .param("at", Rows.utc(at))
                .param("id", postId)
                .update();
    }

    Optional<Instant> helpAsked(long postId) {
        return jdbc.sql("select help_asked_at from post where id = :id and help_asked_at is not null")
                .param("id", postId)
                .query((row, n) -> Rows.instant(row, "help_asked_at"))
                .optional();
    }

    /** The posts of a class whose authors ask for help, the longest wait first. */
    List<Long> asking(long classId) {
        return jdbc.sql("""
                                select id
                                 from post
                                 where class_id = :classId and help_asked_at is not null and state not in
                                    ('BINNED', 'HIDDEN')
                                 order by help_asked_at, id""").param("classId", classId).query(Long.class).list();
    }

    private static Note note(ResultSet row) throws SQLException {
        return new Note(
                row.getLong("id"),
                row.getLong("post_id"),
                row.getInt("version_no"),
                row.getString("quote"),
                row.getInt("nth"),
                row.getString("remark"),
                row.getString("replacement"),
                row.getLong("author_id"),
                Rows.instant(row, "created_at"),
                NoteState.valueOf(row.getString("state")));
    }

    @Override
    public String what() {
        return "margin";
    }

    @Override
    public int count(long personId, @Nullable Long classId) {
        return 0;
    }

    @Override
    public void erase(long personId) {
        jdbc.sql("""
                delete from margin_note
                 where author_id = :person
                    or post_id in (""" + Traces.POSTS_THAT_GO + ")").param("person", personId).update();
    }
}

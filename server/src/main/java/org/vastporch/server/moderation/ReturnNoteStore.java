package org.vastporch.server.moderation;

import java.time.Instant;
import java.util.List;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.server.rows.Rows;

@Repository
class ReturnNoteStore {

    private final JdbcClient jdbc;

    ReturnNoteStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    List<ReturnNotes.ReturnNote> of(long personId) {
        return jdbc.sql("select id, text from return_note where person_id = :person order by used_at desc, id desc")
                .param("person", personId)
                .query((row, n) -> new ReturnNotes.ReturnNote(row.getLong("id"), row.getString("text")))
                .list();
    }

    void add(long personId, String text, Instant now) {
        jdbc.sql("insert into return_note (person_id, text, used_at) values (:person, :text, :now)")
                .param("person", personId)
                .param("text", text)
                .param("now", Rows.utc(now))
                .update();
    }

    void use(long id, Instant now) {
        jdbc.sql("update return_note set used_at = :now where id = :id")
                .param("now", Rows.utc(now))
                .param("id", id)
                .update();
    }

    void remove(long personId, long id) {
        jdbc.sql("delete from return_note where id = :id and person_id = :person")
                .param("id", id)
                .param("person", personId)
                .update();
    }
}

package org.vastporch.server.marking;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.core.annotation.Order;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.core.marking.Phrases.Phrase;
import org.vastporch.server.erasure.Traces;
import org.vastporch.server.rows.Rows;

/** What markers have written before. */
@Repository
@Order(11)
class PhraseStore implements Traces {

    private final JdbcClient jdbc;

    PhraseStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    List<Phrase> of(long personId, String criterion) {
        return jdbc.sql("""
                select id, criterion, level, text, uses, used_at
                  from phrase
                 where person_id = :person and criterion = :criterion""")
                .param("person", personId)
                .param("criterion", criterion)
                .query((row, n) -> new Phrase(
                        row.getLong("id"),
                        row.getString("criterion"),
                        row.getString("level"),
                        row.getString("text"),
                        row.getInt("uses"),
                        Rows.instant(row, "used_at")))
                .list();
    }

    /** Keeps a phrase, or notes that it was used again; of more than so many those used least go. */
    void use(long personId, String criterion, String level, String text, int most, Instant now) {
        // Two windows of one person do not add the same phrase at once.
        jdbc.sql("select id from person where id = :person for update")
                .param("person", personId)
                .query(Long.class)
                .single();
        jdbc.sql("""
                merge into phrase p
                using (values (:person, :criterion, :text)) n (person_id, criterion, text)
                   on p.person_id = n.person_id and p.criterion = n.criterion and p.text = n.text
                 when matched then update set uses = p.uses + 1, level = :level, used_at = :now
                 when not matched then insert (person_id, criterion, level, text, uses, used_at)
                      values (n.person_id, n.criterion, :level, n.text, 1, :now)""")
                .param("person", personId)
                .param("criterion", criterion)
                .param("level", level)
                .param("text", text)
                .param("now", Rows.utc(now))
                .update();
        jdbc.sql("""
                delete from phrase
                 where person_id = :person
                   and id not in (select id from phrase where person_id = :person
                                   order by uses desc, used_at desc limit :most)""").param("person", personId).param("most", most).update();
    }

    boolean forget(long personId, long id) {
        return jdbc.sql("delete from phrase where id = :id and person_id = :person")
                        .param("id", id)
                        .param("person", personId)
                        .update()
                > 0;
    }

    @Override
    public String what() {
        return "phrases";
    }

    @Override
    public int count(long personId, @Nullable Long classId) {
        if (classId != null) return 0;
        return jdbc.sql("select count(*) from phrase where person_id = :person")
                .param("person", personId)
                .query(Integer.class)
                .single();
    }

    @Override
    public void erase(long personId) {
        jdbc.sql("delete from phrase where person_id = :person")
                .param("person", personId)
                .update();
    }
}

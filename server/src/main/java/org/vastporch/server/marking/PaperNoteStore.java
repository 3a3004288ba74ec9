package org.vastporch.server.marking;

import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.core.annotation.Order;
import org.springframework.jdbc.core.RowMapper;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import org.vastporch.core.margin.Passage;
import org.vastporch.server.erasure.Traces;
import org.vastporch.server.rows.Rows;

/** What markers wrote beside words of the posts that they marked. */
@Repository
@Order(10)
class PaperNoteStore implements Traces {

    /** @param versionNo the version that its writer had before them */
    record Note(
            long id,
            long promptId,
            long postId,
            int versionNo,
            Passage passage,
            String text,
            long authorId,
            Instant at) {}

    private static final String COLUMNS =
            "select id, prompt_id, post_id, version_no, quote, nth, text, author_id, noted_at from paper_note ";

    private static final RowMapper<Note> NOTE = (row, n) -> new Note(
            row.getLong("id"),
            row.getLong("prompt_id"),
            row.getLong("post_id"),
            row.getInt("version_no"),
            new Passage(row.getString("quote"), row.getInt("nth")),
            row.getString("text"),
            row.getLong("author_id"),
            Rows.instant(row, "noted_at"));

    private final JdbcClient jdbc;

    PaperNoteStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    long add(Note note) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                insert into paper_note (prompt_id, post_id, version_no, quote, nth, text, author_id, noted_at)
                values (:prompt, :post, :version, :quote, :nth, :text, :author, :at)""")
                .param("prompt", note.promptId())
                .param("post", note.postId())
                .param("version", note.versionNo())
                .param("quote", note.passage().quote())
                .param("nth", note.passage().nth())
                .param("text", note.text())
                .param("author", note.authorId())
                .param("at", Rows.utc(note.at()))
                .update(key, "id");
        return key.getKey().longValue();
    }

    /** The notes beside posts that answer prompts, the first written first. */
    List<Note> of(Collection<Long> promptIds, Collection<Long> postIds) {
        if (promptIds.isEmpty() || postIds.isEmpty()) return List.of();
        return jdbc.sql(COLUMNS + "where prompt_id in (:prompts) and post_id in (:posts) order by id")
                .param("prompts", promptIds)
                .param("posts", postIds)
                .query(NOTE)
                .list();
    }

    /** How many notes stand beside the posts of an author, for each prompt that they answer. */
    Map<Long, Map<Long, Integer>> numbers(Collection<Long> promptIds, long authorId) {
        if (promptIds.isEmpty()) return Map.of();
        Map<Long, Map<Long, Integer>> numbers = new HashMap<>();
        jdbc.sql("""
                select n.prompt_id, n.post_id, count(*) as notes
                  from paper_note n
                  join post p on p.id = n.post_id
                 where n.prompt_id in (:prompts) and p.author_id = :author
                 group by n.prompt_id, n.post_id""").param("prompts", promptIds).param("author", authorId).query(row -> {
            numbers.computeIfAbsent(row.getLong("prompt_id"), prompt -> new HashMap<>())
                    .put(row.getLong("post_id"), row.getInt("notes"));
        });
        return numbers;
    }

    Optional<Note> find(long id) {
        return jdbc.sql(COLUMNS + "where id = :id").param("id", id).query(NOTE).optional();
    }

    /** Locks a note until the transaction ends. */
    Optional<Note> lock(long id) {
        return jdbc.sql(COLUMNS + "where id = :id for update")
                .param("id", id)
                .query(NOTE)
                .optional();
    }

    void setText(long id, String text) {
        jdbc.sql("update paper_note set text = :text where id = :id")
                .param("text", text)
                .param("id", id)
                .update();
    }

    void remove(long id) {
        jdbc.sql("delete from paper_note where id = :id").param("id", id).update();
    }

    @Override
    public String what() {
        return "feedback";
    }

    @Override
    public int count(long personId, @Nullable Long classId) {
        return 0;
    }

    @Override
    public void erase(long personId) {
        jdbc.sql("delete from paper_note where author_id = :person or post_id in (" + Traces.POSTS_THAT_GO + ")")
                .param("person", personId)
                .update();
    }
}

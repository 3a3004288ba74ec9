package org.vastporch.server.writing;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.core.annotation.Order;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.core.writing.ExampleUse;
import org.vastporch.server.access.ScopeSql;
import org.vastporch.server.erasure.Traces;
import org.vastporch.server.rows.Rows;

/** Posts that are to be examples of a prompt, or papers to warm up on for it, and what their authors said to that. */
@Repository
@Order(12)
class ExamplePostStore implements Traces {

    /**
     * @param postClass the class in which the post was written
     * @param postTitle the title that it has now
     * @param isUp whether the post can still be read
     * @param given whether its author gave leave; null while there is no answer
     * @param named whether its author's name stands there
     * @param html the text to which its author agreed; empty without leave
     */
    record Row(
            long id,
            long promptId,
            String promptTitle,
            long classId,
            long postId,
            long postClass,
            String postTitle,
            boolean isUp,
            long authorId,
            ExampleUse use,
            @Nullable Long askedBy,
            Instant askedAt,
            @Nullable Boolean given,
            boolean named,
            String title,
            String html) {

        /** Whether it is used, as its author allows. */
        boolean isShown() {
            return Boolean.TRUE.equals(given) && isUp;
        }
    }

    private static final String SELECT = """
            select e.id, e.prompt_id, q.title as prompt_title, q.class_id, e.post_id, p.class_id as post_class,
                   v.title as post_title, e.author_id, e.used_as, e.asked_by, e.asked_at, e.given, e.named, e.title, e.html,
                   """ + "(" + ScopeSql.UP + """
                   ) as is_up
              from example_post e
              join prompt q on q.id = e.prompt_id
              join post p on p.id = e.post_id
              join post_version v on v.post_id = p.id and v.no = coalesce(p.live, p.working)
            """;

    private final JdbcClient jdbc;

    ExamplePostStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    List<Row> ofPrompt(long promptId, ExampleUse use) {
        return jdbc.sql(SELECT + " where e.prompt_id = :prompt and e.used_as = :use order by e.id")
                .param("prompt", promptId)
                .param("use", use.name())
                .query(ExamplePostStore::row)
                .list();
    }

    /** Those about which somebody was asked, the newest first. */
    List<Row> askedOf(long authorId) {
        return jdbc.sql(SELECT + " where e.author_id = :author order by e.id desc")
                .param("author", authorId)
                .query(ExamplePostStore::row)
                .list();
    }

    Optional<Row> find(long id) {
        return jdbc.sql(SELECT + " where e.id = :id")
                .param("id", id)
                .query(ExamplePostStore::row)
                .optional();
    }

    /** Locks one until the transaction ends. */
    void lock(long id) {
        jdbc.sql("select id from example_post where id = :id for update")
                .param("id", id)
                .query(Long.class)
                .optional();
    }

    Optional<Row> find(long promptId, long postId) {
        return jdbc.sql(SELECT + " where e.prompt_id = :prompt and e.post_id = :post")
                .param("prompt", promptId)
                .param("post", postId)
                .query(ExamplePostStore::row)
                .optional();
    }

    /** Asks, or asks again; nothing changes where there is leave already. */
    void ask(long promptId, long postId, long authorId, ExampleUse use, long by, Instant now) {
        jdbc.sql("""
                merge into example_post e
                using (values (:prompt, :post)) as wanted (prompt_id, post_id)
                   on e.prompt_id = wanted.prompt_id and e.post_id = wanted.post_id
                 when matched and e.given is not true
                      then update set asked_by = :by, asked_at = :now, given = null, answered_at = null
                 when not matched
                      then insert (prompt_id, post_id, author_id, used_as, asked_by, asked_at)
                           values (:prompt, :post, :author, :use, :by, :now)""")
                .param("use", use.name())
                .param("prompt", promptId)
                .param("post", postId)
                .param("author", authorId)
                .param("by", by)
                .param("now", Rows.utc(now))
                .update();
    }

    void answer(long id, boolean given, boolean named, String title, String html, Instant now) {
        jdbc.sql("""
                update example_post
                   set given = :given, named = :named, title = :title, html = :html, answered_at = :now
                 where id = :id""")
                .param("given", given)
                .param("named", named)
                .param("title", title)
                .param("html", html)
                .param("now", Rows.utc(now))
                .param("id", id)
                .update();
    }

    void remove(long id) {
        jdbc.sql("delete from example_post where id = :id").param("id", id).update();
    }

    private static Row row(ResultSet row, int n) throws SQLException {
        Object given = row.getObject("given");
        return new Row(
                row.getLong("id"),
                row.getLong("prompt_id"),
                row.getString("prompt_title"),
                row.getLong("class_id"),
                row.getLong("post_id"),
                row.getLong("post_class"),
                row.getString("post_title"),
                row.getBoolean("is_up"),
                row.getLong("author_id"),
                ExampleUse.valueOf(row.getString("used_as")),
                Rows.number(row, "asked_by"),
                Rows.instant(row, "asked_at"),
                (Boolean) given,
                row.getBoolean("named"),
                row.getString("title"),
                row.getString("html"));
    }

    @Override
    public void erase(long personId) {
        jdbc.sql("delete from example_post where author_id = :person or post_id in (" + POSTS_THAT_GO + ")")
                .param("person", personId)
                .update();
        jdbc.sql("update example_post set asked_by = null where asked_by = :person")
                .param("person", personId)
                .update();
    }
}

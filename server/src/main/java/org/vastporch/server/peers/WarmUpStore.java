package org.vastporch.server.peers;

import java.math.BigDecimal;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.core.annotation.Order;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import org.vastporch.core.marking.Marks;
import org.vastporch.server.access.ScopeSql;
import org.vastporch.server.erasure.Traces;
import org.vastporch.server.rows.Rows;

/** Papers to warm up on, what their teachers gave for them, and what reviewers did. */
@Repository
@Order(9)
class WarmUpStore implements Traces {

    /**
     * @param word what its teacher says of the whole
     * @param exampleId the question to the author of a post that is the paper; null if a teacher wrote it
     * @param authorId of that post
     * @param isThere whether there is a text: one that a teacher wrote, or its author's by leave, as long as the post
     *     is up
     */
    record Row(
            long id,
            long promptId,
            String title,
            String html,
            String word,
            int rev,
            @Nullable Long exampleId,
            @Nullable Long authorId,
            boolean isThere) {}

    /**
     * What one reviewer did with one paper.
     *
     * @param id 0 while nothing is kept
     * @param doneAt when they saw the teacher's steps; null before
     */
    record Reading(
            long id, long paper, long readerId, @Nullable Instant doneAt, int rev) {

        boolean isDone() {
            return doneAt != null;
        }
    }

    private record Given(long of, Marks.Mark mark) {}

    private static final String SELECT = """
            select w.id, w.prompt_id, coalesce(e.title, w.title) as title, coalesce(e.html, w.html) as html, w.word,
                   w.rev, w.example_id, e.author_id, e.id is null or (e.given is true and """ + " " + ScopeSql.UP + """
                   ) as is_there
              from warm_up w
              left join example_post e on e.id = w.example_id
              left join post p on p.id = e.post_id
             where\s""";
    private static final String READINGS = "select id, warm_up_id, reader_id, done_at, rev from warm_up_reading where ";

    private final JdbcClient jdbc;

    WarmUpStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** In the order in which they were added. */
    List<Row> ofPrompt(long promptId) {
        return jdbc.sql(SELECT + "w.prompt_id = :prompt order by w.id")
                .param("prompt", promptId)
                .query(WarmUpStore::row)
                .list();
    }

    Optional<Row> find(long id) {
        return jdbc.sql(SELECT + "w.id = :id")
                .param("id", id)
                .query(WarmUpStore::row)
                .optional();
    }

    /** The paper, locked until the transaction ends, and with it what anybody does with it. */
    Optional<Row> lock(long id) {
        jdbc.sql("select id from warm_up where id = :id for update")
                .param("id", id)
                .query(Long.class)
                .optional();
        return find(id);
    }

    long add(long promptId, String title, String html, Instant now) {
        return added(jdbc.sql("""
                insert into warm_up (prompt_id, title, html, created_at) values (:prompt, :title, :html, :now)""")
                .param("prompt", promptId)
                .param("title", title)
                .param("html", html)
                .param("now", Rows.utc(now)));
    }

    /** Adds a paper that is somebody's post, once they give leave. */
    void addAsked(long promptId, long exampleId, Instant now) {
        jdbc.sql("""
                insert into warm_up (prompt_id, example_id, title, html, created_at)
                values (:prompt, :example, '', '', :now)""")
                .param("prompt", promptId)
                .param("example", exampleId)
                .param("now", Rows.utc(now))
                .update();
    }

    void setText(long id, String title, String html) {
        jdbc.sql("update warm_up set title = :title, html = :html, rev = rev + 1 where id = :id")
                .param("title", title)
                .param("html", html)
                .param("id", id)
                .update();
    }

    void setWord(long id, String word) {
        jdbc.sql("update warm_up set word = :word, rev = rev + 1 where id = :id")
                .param("word", word)
                .param("id", id)
                .update();
    }

    /** Forgets what was given for a text and done with it, since another will stand there. */
    void clear(long id) {
        jdbc.sql("delete from warm_up_mark where warm_up_id = :id")
                .param("id", id)
                .update();
        jdbc.sql("delete from warm_up_reading where warm_up_id = :id")
                .param("id", id)
                .update();
        setWord(id, "");
    }

    void remove(long id) {
        jdbc.sql("delete from warm_up where id = :id").param("id", id).update();
    }

    /** What teachers gave, by the numbers of the papers. */
    Map<Long, Marks> given(Collection<Long> ids) {
        if (ids.isEmpty()) return Map.of();
        return marks(
                "select warm_up_id as of_id, criterion_id, points, remark from warm_up_mark"
                        + " where warm_up_id in (:ids)",
                ids);
    }

    void setGiven(long id, Marks.Mark mark) {
        jdbc.sql("""
                merge into warm_up_mark (warm_up_id, criterion_id, points, remark) key (warm_up_id, criterion_id)
                values (:id, :criterion, :points, :remark)""")
                .param("id", id)
                .param("criterion", mark.criterion())
                .param("points", mark.points())
                .param("remark", mark.remark())
                .update();
        jdbc.sql("update warm_up set rev = rev + 1 where id = :id")
                .param("id", id)
                .update();
    }

    /** Whatever was begun with papers. */
    List<Reading> readings(Collection<Long> ids) {
        if (ids.isEmpty()) return List.of();
        return jdbc.sql(READINGS + "warm_up_id in (:ids) order by id")
                .param("ids", ids)
                .query(WarmUpStore::reading)
                .list();
    }

    Reading reading(long id, long readerId) {
        return jdbc.sql(READINGS + "warm_up_id = :id and reader_id = :reader")
                .param("id", id)
                .param("reader", readerId)
                .query(WarmUpStore::reading)
                .optional()
                .orElse(new Reading(0, id, readerId, null, 0));
    }

    /** Steps of reviewers, by the numbers of their readings. */
    Map<Long, Marks> steps(Collection<Long> readings) {
        if (readings.isEmpty()) return Map.of();
        return marks(
                "select reading_id as of_id, criterion_id, points, '' as remark from warm_up_step"
                        + " where reading_id in (:ids)",
                readings);
    }

    /** Keeps a step of a reading whose paper is locked. */
    void setStep(Reading reading, String criterion, @Nullable BigDecimal points) {
        long id = reading.id() != 0
                ? reading.id()
                : added(jdbc.sql("insert into warm_up_reading (warm_up_id, reader_id) values (:paper, :reader)")
                        .param("paper", reading.paper())
                        .param("reader", reading.readerId()));
        jdbc.sql("""
                merge into warm_up_step (reading_id, criterion_id, points) key (reading_id, criterion_id)
                values (:id, :criterion, :points)""")
                .param("id", id)
                .param("criterion", criterion)
                .param("points", points)
                .update();
        jdbc.sql("update warm_up_reading set rev = rev + 1 where id = :id")
                .param("id", id)
                .update();
    }

    void setDone(long readingId, Instant now) {
        jdbc.sql("update warm_up_reading set done_at = :now, rev = rev + 1 where id = :id")
                .param("now", Rows.utc(now))
                .param("id", readingId)
                .update();
    }

    private static long added(JdbcClient.StatementSpec insert) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        insert.update(key, "id");
        return Objects.requireNonNull(key.getKey()).longValue();
    }

    private Map<Long, Marks> marks(String sql, Collection<Long> ids) {
        return jdbc
                .sql(sql)
                .param("ids", ids)
                .query((row, n) -> {
                    return new Given(
                            row.getLong("of_id"),
                            new Marks.Mark(
                                    row.getString("criterion_id"),
                                    Rows.points(row, "points"),
                                    false,
                                    row.getString("remark")));
                })
                .list()
                .stream()
                .collect(Collectors.groupingBy(
                        Given::of,
                        Collectors.collectingAndThen(Collectors.mapping(Given::mark, Collectors.toList()), Marks::of)));
    }

    @Override
    public void erase(long personId) {
        jdbc.sql("delete from warm_up_reading where reader_id = :person")
                .param("person", personId)
                .update();
    }

    private static Row row(ResultSet row, int n) throws SQLException {
        return new Row(
                row.getLong("id"),
                row.getLong("prompt_id"),
                row.getString("title"),
                row.getString("html"),
                row.getString("word"),
                row.getInt("rev"),
                Rows.number(row, "example_id"),
                Rows.number(row, "author_id"),
                row.getBoolean("is_there"));
    }

    private static Reading reading(ResultSet row, int n) throws SQLException {
        return new Reading(
                row.getLong("id"),
                row.getLong("warm_up_id"),
                row.getLong("reader_id"),
                Rows.instant(row, "done_at"),
                row.getInt("rev"));
    }
}

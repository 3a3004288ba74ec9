package org.vastporch.server.reviews;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import org.vastporch.core.marking.Marks;
import org.vastporch.core.reviews.ReviewKind;
import org.vastporch.server.reviews.PaperReviews.Read;
import org.vastporch.server.reviews.PaperReviews.Review;
import org.vastporch.server.reviews.PaperReviews.Settled;
import org.vastporch.server.rows.Rows;

@Repository
class ReviewStore {

    /** What one reading gives for one criterion. */
    record Given(long reviewId, Marks.Mark mark) {}

    private static final String COLUMNS =
            "v.id, v.prompt_id, v.student_id, v.reader_id, v.kind, v.word, v.updated_at, v.finished_at, v.blind,"
                    + " v.settled_by, v.settled_at, v.takes, v.reason, v.rev";

    private static final String IS =
            " where prompt_id = :prompt and student_id = :student and reader_id = :reader" + " and kind = :kind";

    /** What a classmate gave counts once it was looked at, where it is looked at, and is up. */
    private static final String COUNTS = "(v.kind <> 'PEER' or v.state = 'PUBLISHED')";

    private final JdbcClient jdbc;

    ReviewStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    List<Review> of(Collection<Long> promptIds, ReviewKind kind) {
        if (promptIds.isEmpty()) return List.of();
        return jdbc.sql("select " + COLUMNS + " from review v where v.prompt_id in (:prompts) and v.kind = :kind and "
                        + COUNTS + " order by v.id")
                .param("prompts", promptIds)
                .param("kind", kind.name())
                .query(ReviewStore::review)
                .list();
    }

    List<Given> given(Collection<Long> promptIds, ReviewKind kind) {
        if (promptIds.isEmpty()) return List.of();
        return jdbc.sql("""
                select m.review_id, m.criterion_id, m.points, m.remark
                  from review v
                  join review_mark m on m.review_id = v.id
                 where v.prompt_id in (:prompts) and v.kind = :kind""")
                .param("prompts", promptIds)
                .param("kind", kind.name())
                .query(ReviewStore::given)
                .list();
    }

    List<Given> given(long reviewId) {
        return jdbc.sql("select review_id, criterion_id, points, remark from review_mark where review_id = :id")
                .param("id", reviewId)
                .query(ReviewStore::given)
                .list();
    }

    List<Read> read(long reviewId) {
        return jdbc.sql("select post_id, version_no from review_post where review_id = :id order by post_id")
                .param("id", reviewId)
                .query((row, n) -> new Read(row.getLong("post_id"), row.getInt("version_no")))
                .list();
    }

    /** Locks the row of a reading, if there is one, until the transaction ends. */
    void lock(long promptId, long studentId, long readerId, ReviewKind kind) {
        jdbc.sql("select id from review" + IS + " for update")
                .param("prompt", promptId)
                .param("student", studentId)
                .param("reader", readerId)
                .param("kind", kind.name())
                .query(Long.class)
                .optional();
    }

    Optional<Review> find(long promptId, long studentId, long readerId, ReviewKind kind) {
        return jdbc.sql("select " + COLUMNS + " from review v" + IS)
                .param("prompt", promptId)
                .param("student", studentId)
                .param("reader", readerId)
                .param("kind", kind.name())
                .query(ReviewStore::review)
                .optional();
    }

    long begin(long promptId, long studentId, long readerId, ReviewKind kind, Instant now) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                insert into review (prompt_id, student_id, reader_id, kind, begun_at, updated_at, rev)
                values (:prompt, :student, :reader, :kind, :now, :now, 0)""")
                .param("prompt", promptId)
                .param("student", studentId)
                .param("reader", readerId)
                .param("kind", kind.name())
                .param("now", Rows.utc(now))
                .update(key, "id");
        return key.getKey().longValue();
    }

    void setAsked(long id, long by, boolean blind) {
        jdbc.sql("update review set asked_by = :by, blind = :blind where id = :id")
                .param("by", by)
                .param("blind", blind)
                .param("id", id)
                .update();
    }

    boolean removeUnbegun(long id) {
        return jdbc.sql("delete from review where id = :id and rev = 0")
                        .param("id", id)
                        .update()
                == 1;
    }

    void settle(long id, Settled settled) {
        jdbc.sql("""
                update review
                   set settled_by = :by, settled_at = :at, takes = :takes, reason = :reason, rev = rev + 1
                 where id = :id""")
                .param("by", settled.byId())
                .param("at", Rows.utc(settled.at()))
                .param("takes", (settled.takesSecond() ? ReviewKind.SECOND : ReviewKind.FIRST).name())
                .param("reason", settled.reason())
                .param("id", id)
                .update();
    }

    List<PaperReviews.Paper> blindOf(long readerId) {
        return jdbc.sql("""
                select prompt_id, student_id from review
                 where reader_id = :reader and kind = 'SECOND' and blind and finished_at is null""")
                .param("reader", readerId)
                .query((row, n) -> new PaperReviews.Paper(row.getLong("prompt_id"), row.getLong("student_id")))
                .list();
    }

    List<Long> askedOf(long readerId) {
        return jdbc.sql("""
                select distinct prompt_id from review
                 where reader_id = :reader and kind = 'SECOND' and finished_at is null""").param("reader", readerId).query(Long.class).list();
    }

    /** @param finished when all criteria have had points; null while some have none */
    void touch(long id, String word, @Nullable Instant finished, Instant now) {
        jdbc.sql("""
                update review set word = :word, finished_at = :finished, updated_at = :now, rev = rev + 1
                 where id = :id""")
                .param("id", id)
                .param("word", word)
                .param("finished", Rows.utc(finished))
                .param("now", Rows.utc(now))
                .update();
    }

    void setMark(long id, Marks.Mark mark) {
        jdbc.sql("""
                merge into review_mark (review_id, criterion_id, points, remark) key (review_id, criterion_id)
                values (:id, :criterion, :points, :remark)""")
                .param("id", id)
                .param("criterion", mark.criterion())
                .param("points", mark.points())
                .param("remark", mark.remark())
                .update();
    }

    void setRead(long id, List<Read> posts) {
        if (read(id).equals(posts)) return;
        jdbc.sql("delete from review_post where review_id = :id")
                .param("id", id)
                .update();
        for (Read post : posts)
            jdbc.sql("insert into review_post (review_id, post_id, version_no) values (:id, :post, :version)")
                    .param("id", id)
                    .param("post", post.post())
                    .param("version", post.version())
                    .update();
    }

    private static Review review(ResultSet row, int n) throws SQLException {
        return new Review(
                row.getLong("id"),
                row.getLong("prompt_id"),
                row.getLong("student_id"),
                row.getLong("reader_id"),
                ReviewKind.valueOf(row.getString("kind")),
                row.getString("word"),
                Rows.instant(row, "updated_at"),
                Rows.instant(row, "finished_at"),
                row.getBoolean("blind"),
                row.getString("takes") == null
                        ? null
                        : new Settled(
                                Rows.number(row, "settled_by"),
                                Rows.instant(row, "settled_at"),
                                ReviewKind.valueOf(row.getString("takes")) == ReviewKind.SECOND,
                                row.getString("reason")),
                row.getInt("rev"));
    }

    private static Given given(ResultSet row, int n) throws SQLException {
        return new Given(
                row.getLong("review_id"),
                new Marks.Mark(
                        row.getString("criterion_id"), Rows.points(row, "points"), false, row.getString("remark")));
    }
}

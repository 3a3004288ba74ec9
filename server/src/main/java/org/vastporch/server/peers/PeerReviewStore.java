package org.vastporch.server.peers;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.core.moderation.Course;
import org.vastporch.core.moderation.Standing;
import org.vastporch.core.moderation.State;
import org.vastporch.core.peers.GivingOut;
import org.vastporch.server.moderation.PileFilter;
import org.vastporch.server.rows.Rows;

/** Reviews by classmates: who reads whose paper, and where the words of that stand. */
@Repository
class PeerReviewStore {

    /**
     * @param studentId whose paper it is
     * @param sentAt when it was sent first; null if it never was
     * @param isBegun whether its reader has given anything since it was given out
     * @param endedAt when it was taken from its reader; null if it was not
     * @param endedBy who did that; null for the clock
     * @param helped what its author says it helped with; null if they said nothing
     * @param rev raised by every change of it
     */
    record Row(
            long id,
            long promptId,
            long classId,
            long studentId,
            long readerId,
            State state,
            String word,
            boolean isBegun,
            @Nullable Instant sentAt,
            @Nullable Instant waitingSince,
            @Nullable Instant publishedAt,
            @Nullable Instant endedAt,
            @Nullable Long endedBy,
            @Nullable String helped,
            int rev) {

        Course course() {
            return new Course(Standing.ofOne(state, publishedAt != null), waitingSince, publishedAt, sentAt, null);
        }

        boolean isOpen() {
            return endedAt == null;
        }

        boolean isSent() {
            return state != State.DRAFT && state != State.RETURNED;
        }
    }

    /** When papers of a prompt were given out, by whom, and when their readers were reminded. */
    record Round(
            @Nullable Instant givenAt,
            @Nullable Long by,
            @Nullable Instant remindedAt) {}

    private static final String SELECT = """
            select t.id, t.prompt_id, q.class_id, t.student_id, t.reader_id, t.state, t.word, t.sent_at,
                   t.waiting_since, t.published_at, t.ended_at, t.ended_by, t.helped, t.rev,
                   t.updated_at > t.begun_at as begun
              from review t
              join prompt q on q.id = t.prompt_id
             where t.kind = 'PEER' and\s""";

    private final JdbcClient jdbc;

    PeerReviewStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    Optional<Row> find(long id) {
        return jdbc.sql(SELECT + "t.id = :id")
                .param("id", id)
                .query(PeerReviewStore::row)
                .optional();
    }

    Optional<Row> lock(long id) {
        jdbc.sql("select id from review where id = :id for update")
                .param("id", id)
                .query(Long.class)
                .optional();
        return find(id);
    }

    /** Those of prompts, ended or not, in the order of their numbers. */
    List<Row> ofPrompts(Collection<Long> promptIds) {
        if (promptIds.isEmpty()) return List.of();
        return jdbc.sql(SELECT + "t.prompt_id in (:prompts) order by t.id")
                .param("prompts", promptIds)
                .query(PeerReviewStore::row)
                .list();
    }

    /** What somebody reads in a class, and was not taken from them. */
    List<Row> ofReader(long readerId, long classId) {
        return jdbc.sql(SELECT + "t.reader_id = :reader and q.class_id = :classId and t.ended_at is null order by t.id")
                .param("reader", readerId)
                .param("classId", classId)
                .query(PeerReviewStore::row)
                .list();
    }

    /** What is up of the papers of some students for a prompt, the earlier first. */
    List<Row> up(long promptId, Collection<Long> students) {
        return jdbc.sql(SELECT + "t.prompt_id = :prompt and t.student_id in (:students) and t.state = 'PUBLISHED'"
                        + " order by t.published_at, t.id")
                .param("prompt", promptId)
                .param("students", students)
                .query(PeerReviewStore::row)
                .list();
    }

    /** Who reviewed whom in a class for other prompts. */
    List<GivingOut.Review> earlier(long classId, long promptId) {
        return jdbc.sql("""
                select distinct t.reader_id, t.student_id
                  from review t
                  join prompt q on q.id = t.prompt_id
                 where t.kind = 'PEER' and q.class_id = :classId and q.id <> :prompt and t.ended_at is null""")
                .param("classId", classId)
                .param("prompt", promptId)
                .query((row, n) -> new GivingOut.Review(row.getLong("reader_id"), row.getLong("student_id")))
                .list();
    }

    /** Gives a paper to somebody, also one that was taken from them before. */
    void give(long promptId, GivingOut.Review review, Instant now) {
        int again = jdbc.sql("""
                update review set ended_at = null, ended_by = null, begun_at = :now, rev = rev + 1
                 where prompt_id = :prompt and student_id = :student and reader_id = :reader and kind = 'PEER'""")
                .param("prompt", promptId)
                .param("student", review.author())
                .param("reader", review.reviewer())
                .param("now", Rows.utc(now))
                .update();
        if (again > 0) return;
        jdbc.sql("""
                insert into review (prompt_id, student_id, reader_id, kind, begun_at, updated_at, rev)
                values (:prompt, :student, :reader, 'PEER', :now, :now, 0)""")
                .param("prompt", promptId)
                .param("student", review.author())
                .param("reader", review.reviewer())
                .param("now", Rows.utc(now))
                .update();
    }

    /** @param by null where the clock does it */
    void end(Collection<Long> ids, @Nullable Long by, Instant now) {
        if (ids.isEmpty()) return;
        jdbc.sql(
                        "update review set ended_at = :now, ended_by = :by, rev = rev + 1 where id in (:ids) and ended_at is null")
                .param("now", Rows.utc(now))
                .param("by", by)
                .param("ids", ids)
                .update();
    }

    /** A question in the words in which it was asked, with its answer. */
    record Answer(String question, String answer) {}

    /** Answers by review, in the order of the questions. */
    Map<Long, List<Answer>> answers(Collection<Long> ids) {
        Map<Long, List<Answer>> answers = new HashMap<>();
        if (ids.isEmpty()) return answers;
        jdbc.sql(
                        "select review_id, question, answer from review_answer where review_id in (:ids) order by no, question")
                .param("ids", ids)
                .query(row -> {
                    answers.computeIfAbsent(row.getLong("review_id"), id -> new ArrayList<>())
                            .add(new Answer(row.getString("question"), row.getString("answer")));
                });
        return answers;
    }

    void setAnswer(long id, int no, Answer answer, Instant now) {
        jdbc.sql("""
                merge into review_answer (review_id, question, no, answer) key (review_id, question)
                values (:id, :question, :no, :answer)""")
                .param("id", id)
                .param("question", answer.question())
                .param("no", no)
                .param("answer", answer.answer())
                .update();
        jdbc.sql("update review set updated_at = :now, rev = rev + 1 where id = :id")
                .param("now", Rows.utc(now))
                .param("id", id)
                .update();
    }

    /** Puts a review, whose row is locked, on its course. */
    void settle(long id, Course after) {
        jdbc.sql("""
                update review
                   set state = :state, sent_at = :sent, waiting_since = :waiting, published_at = :published,
                       rev = rev + 1
                 where id = :id""")
                .param("state", after.standing().state().name())
                .param("sent", Rows.utc(after.handedInAt()))
                .param("waiting", Rows.utc(after.waitingSince()))
                .param("published", Rows.utc(after.publishedAt()))
                .param("id", id)
                .update();
    }

    void setHelped(long id, @Nullable String why, Instant now) {
        jdbc.sql("update review set helped = :why, helped_at = :at where id = :id")
                .param("why", why)
                .param("at", why == null ? null : Rows.utc(now))
                .param("id", id)
                .update();
    }

    List<Row> waiting(List<Long> classIds, PileFilter filter) {
        String sort = PileFilter.of(filter.sort(), "review");
        if (classIds.isEmpty() || sort == null) return List.of();
        return jdbc.sql(SELECT + PileFilter.waiting() + " and q.class_id in (:classes) and " + sort
                        + " order by t.waiting_since, t.id limit :most")
                .param("classes", classIds)
                .param("most", filter.most())
                .query(PeerReviewStore::row)
                .list();
    }

    Round round(long promptId) {
        return jdbc.sql("select peers_given_at, peers_given_by, peers_reminded_at from prompt where id = :id")
                .param("id", promptId)
                .query((row, n) -> new Round(
                        Rows.instant(row, "peers_given_at"),
                        Rows.number(row, "peers_given_by"),
                        Rows.instant(row, "peers_reminded_at")))
                .single();
    }

    /** When the papers of prompts were given out, for those of which they were. */
    Map<Long, Instant> givenAt(Collection<Long> promptIds) {
        Map<Long, Instant> given = new HashMap<>();
        if (promptIds.isEmpty()) return given;
        jdbc.sql("select id, peers_given_at from prompt where id in (:ids) and peers_given_at is not null")
                .param("ids", promptIds)
                .query(row -> {
                    given.put(row.getLong("id"), Rows.instant(row, "peers_given_at"));
                });
        return given;
    }

    /** @param by null where the clock does it */
    void setGiven(long promptId, @Nullable Long by, Instant now) {
        jdbc.sql("update prompt set peers_given_at = :now, peers_given_by = :by where id = :id")
                .param("now", Rows.utc(now))
                .param("by", by)
                .param("id", promptId)
                .update();
    }

    void setReminded(long promptId, Instant now) {
        jdbc.sql("update prompt set peers_reminded_at = :now where id = :id")
                .param("now", Rows.utc(now))
                .param("id", promptId)
                .update();
    }

    /** Prompts for which classmates read each other's papers, and have time for it still. */
    List<Long> running(Instant now) {
        return jdbc.sql("select id from prompt where peers_due_at > :now order by id")
                .param("now", Rows.utc(now))
                .query(Long.class)
                .list();
    }

    private static Row row(ResultSet row, int n) throws SQLException {
        return new Row(
                row.getLong("id"),
                row.getLong("prompt_id"),
                row.getLong("class_id"),
                row.getLong("student_id"),
                row.getLong("reader_id"),
                State.valueOf(row.getString("state")),
                row.getString("word"),
                row.getBoolean("begun"),
                Rows.instant(row, "sent_at"),
                Rows.instant(row, "waiting_since"),
                Rows.instant(row, "published_at"),
                Rows.instant(row, "ended_at"),
                Rows.number(row, "ended_by"),
                row.getString("helped"),
                row.getInt("rev"));
    }
}

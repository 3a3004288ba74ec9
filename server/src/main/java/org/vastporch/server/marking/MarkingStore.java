package org.vastporch.server.marking;

import java.math.BigDecimal;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.core.marking.Marks;
import org.vastporch.server.marking.PaperService.Seen;
import org.vastporch.server.marking.PaperService.SeenPost;
import org.vastporch.server.rows.Rows;

@Repository
class MarkingStore {

    /**
     * @param commentsRead how many comments its marker read, where they are the whole task
     * @param assistantId the assistant whose marks these are, also once a teacher has taken them over; null if they are
     *     a teacher's own
     * @param takenOverBy the teacher who took them over, and when; null while nobody has
     * @param awaitsOwn whether they were released, and are not shown before the student has said how they see the paper
     */
    record Marking(
            long promptId,
            long studentId,
            long markerId,
            String word,
            @Nullable Instant releasedAt,
            Instant updatedAt,
            int commentsRead,
            @Nullable Long assistantId,
            @Nullable Long takenOverBy,
            @Nullable Instant takenOverAt,
            boolean awaitsOwn,
            int rev) {

        /** The one who answers for it: the teacher who took it over, else whoever marked last. */
        long answering() {
            return takenOverBy != null ? takenOverBy : markerId;
        }

        /** Whether they are an assistant's alone. */
        boolean isOfAssistant() {
            return assistantId != null && takenOverBy == null;
        }
    }

    /** @param points null while only a remark stands, or it does not count */
    record Mark(
            long promptId,
            long studentId,
            String criterion,
            @Nullable BigDecimal points,
            boolean notCounted,
            String remark) {

        static Mark of(long promptId, long studentId, Marks.Mark mark) {
            return new Mark(promptId, studentId, mark.criterion(), mark.points(), mark.notCounted(), mark.remark());
        }

        Marks.Mark given() {
            return new Marks.Mark(criterion, points, notCounted, remark);
        }
    }

    private static final String COLUMNS = """
            prompt_id, student_id, marker_id, word, released_at, updated_at, comments_read,
                   assistant_id, taken_over_by, taken_over_at, awaits_own, rev""";

    /** Whether the own view of the student is asked for first, and is not there. */
    private static final String AWAITS_OWN = """
            (exists (select 1 from prompt q where q.id = :prompt and q.self_review = 'FIRST')
                   and not exists (select 1 from review v
                                    where v.prompt_id = :prompt and v.student_id = :student and v.kind = 'SELF'
                                      and v.finished_at is not null))""";

    private static final String OF_PAPER = " where prompt_id = :prompt and student_id = :student";

    private final JdbcClient jdbc;

    MarkingStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    Optional<Marking> find(long promptId, long studentId) {
        return jdbc.sql("select " + COLUMNS + " from marking" + OF_PAPER)
                .param("prompt", promptId)
                .param("student", studentId)
                .query(MarkingStore::marking)
                .optional();
    }

    /** Locks the markings of students until the transaction ends. */
    void lock(long promptId, Collection<Long> students) {
        jdbc.sql("""
                select student_id
                  from marking
                 where prompt_id = :prompt and student_id in (:students)
                 order by student_id
                   for update""")
                .param("prompt", promptId)
                .param("students", students)
                .query(Long.class)
                .list();
    }

    void remove(long promptId, long studentId) {
        jdbc.sql("delete from marking" + OF_PAPER)
                .param("prompt", promptId)
                .param("student", studentId)
                .update();
    }

    /** Gives a student the marking of another, in place of what they had. */
    void copy(long promptId, long from, long to) {
        remove(promptId, to);
        Map<String, Long> params = Map.of("prompt", promptId, "from", from, "to", to);
        jdbc.sql("""
                insert into marking (prompt_id, student_id, marker_id, word, released_at, updated_at, comments_read,
                       assistant_id, taken_over_by, taken_over_at, rev)
                select prompt_id, :to, marker_id, word, released_at, updated_at, comments_read,
                       assistant_id, taken_over_by, taken_over_at, rev
                  from marking
                 where prompt_id = :prompt and student_id = :from""").params(params).update();
        setAwaitsOwn(promptId, to);
        jdbc.sql("""
                insert into mark (prompt_id, student_id, criterion_id, points, not_counted, remark)
                select prompt_id, :to, criterion_id, points, not_counted, remark
                  from mark
                 where prompt_id = :prompt and student_id = :from""").params(params).update();
        jdbc.sql("""
                insert into marking_post (prompt_id, student_id, post_id, version_no)
                select prompt_id, :to, post_id, version_no
                  from marking_post
                 where prompt_id = :prompt and student_id = :from""").params(params).update();
    }

    List<Marking> ofPrompts(Collection<Long> promptIds) {
        if (promptIds.isEmpty()) return List.of();
        return jdbc.sql("select " + COLUMNS + " from marking where prompt_id in (:prompts)")
                .param("prompts", promptIds)
                .query(MarkingStore::marking)
                .list();
    }

    /** What was given for prompts, without the words. */
    List<Mark> given(Collection<Long> promptIds) {
        if (promptIds.isEmpty()) return List.of();
        return jdbc.sql("""
                select prompt_id, student_id, criterion_id, points, not_counted, '' as remark
                  from mark
                 where prompt_id in (:prompts) and (points is not null or not_counted)""")
                .param("prompts", promptIds)
                .query(MarkingStore::mark)
                .list();
    }

    List<Mark> marks(long promptId, long studentId) {
        return jdbc.sql("select prompt_id, student_id, criterion_id, points, not_counted, remark from mark" + OF_PAPER)
                .param("prompt", promptId)
                .param("student", studentId)
                .query(MarkingStore::mark)
                .list();
    }

    List<Mark> marksOfPrompt(long promptId) {
        return jdbc.sql("""
                select prompt_id, student_id, criterion_id, points, not_counted, remark
                  from mark
                 where prompt_id = :prompt""").param("prompt", promptId).query(MarkingStore::mark).list();
    }

    List<Mark> marksOfStudent(Collection<Long> promptIds, long studentId) {
        if (promptIds.isEmpty()) return List.of();
        return jdbc.sql("""
                select prompt_id, student_id, criterion_id, points, not_counted, remark
                  from mark
                 where prompt_id in (:prompts) and student_id = :student""")
                .param("prompts", promptIds)
                .param("student", studentId)
                .query(MarkingStore::mark)
                .list();
    }

    /** How many words a student and the staff exchanged about papers, by prompt. */
    Map<Long, Integer> wordsAbout(Collection<Long> promptIds, long studentId) {
        if (promptIds.isEmpty()) return Map.of();
        Map<Long, Integer> words = new HashMap<>();
        jdbc.sql("""
                select subject_id, count(*) as words
                  from aside
                 where subject = 'paper' and subject_id in (:prompts) and student_id = :student
                 group by subject_id""").param("prompts", promptIds).param("student", studentId).query(row -> {
            words.put(row.getLong("subject_id"), row.getInt("words"));
        });
        return words;
    }

    /** The versions of posts that a marker read. */
    record Read(long promptId, long studentId, SeenPost post, Instant handedInAt) {}

    List<Read> read(Collection<Long> promptIds) {
        if (promptIds.isEmpty()) return List.of();
        return jdbc.sql("""
                select m.prompt_id, m.student_id, m.post_id, m.version_no, p.handed_in_at
                  from marking_post m
                  join post p on p.id = m.post_id
                 where m.prompt_id in (:prompts)""")
                .param("prompts", promptIds)
                .query((row, n) -> new Read(
                        row.getLong("prompt_id"),
                        row.getLong("student_id"),
                        seen(row),
                        Rows.instant(row, "handed_in_at")))
                .list();
    }

    List<SeenPost> read(long promptId, long studentId) {
        return jdbc.sql("select post_id, version_no from marking_post" + OF_PAPER + " order by post_id")
                .param("prompt", promptId)
                .param("student", studentId)
                .query((row, n) -> seen(row))
                .list();
    }

    /** @param assists whether the marker is an assistant */
    void begin(long promptId, long studentId, long markerId, boolean assists, Instant now) {
        jdbc.sql("""
                insert into marking (prompt_id, student_id, marker_id, word, assistant_id, updated_at, rev)
                values (:prompt, :student, :marker, '', :assistant, :now, 1)""")
                .param("assistant", assists ? markerId : null)
                .param("prompt", promptId)
                .param("student", studentId)
                .param("marker", markerId)
                .param("now", Rows.utc(now))
                .update();
    }

    /** Notes a step of a marker. A teacher's takes over what an assistant gave; an assistant's has to be taken over. */
    void touch(long promptId, long studentId, long markerId, boolean assists, Instant now) {
        jdbc.sql("update marking set marker_id = :marker, updated_at = :now, rev = rev + 1" + OF_PAPER)
                .param("marker", markerId)
                .param("now", Rows.utc(now))
                .param("prompt", promptId)
                .param("student", studentId)
                .update();
        if (assists)
            jdbc.sql("""
                    update marking
                       set assistant_id = :marker, taken_over_by = null, taken_over_at = null""" + OF_PAPER)
                    .param("marker", markerId)
                    .param("prompt", promptId)
                    .param("student", studentId)
                    .update();
        else takeOver(promptId, studentId, markerId, now);
    }

    /** Makes an assistant's marks count, if they have to be taken over still. */
    void takeOver(long promptId, long studentId, long teacherId, Instant now) {
        jdbc.sql("update marking set taken_over_by = :teacher, taken_over_at = :now" + OF_PAPER
                        + " and assistant_id is not null and taken_over_by is null")
                .param("teacher", teacherId)
                .param("now", Rows.utc(now))
                .param("prompt", promptId)
                .param("student", studentId)
                .update();
    }

    /** Notes what the marker reads, in place of what was read before. */
    void setRead(long promptId, long studentId, Seen seen) {
        jdbc.sql("update marking set comments_read = :comments" + OF_PAPER)
                .param("comments", seen.comments())
                .param("prompt", promptId)
                .param("student", studentId)
                .update();
        if (read(promptId, studentId).equals(seen.posts())) return;
        jdbc.sql("delete from marking_post" + OF_PAPER)
                .param("prompt", promptId)
                .param("student", studentId)
                .update();
        for (SeenPost post : seen.posts())
            jdbc.sql("""
                    insert into marking_post (prompt_id, student_id, post_id, version_no)
                    values (:prompt, :student, :post, :version)""")
                    .param("prompt", promptId)
                    .param("student", studentId)
                    .param("post", post.post())
                    .param("version", post.version())
                    .update();
    }

    void setWord(long promptId, long studentId, String word) {
        jdbc.sql("update marking set word = :word" + OF_PAPER)
                .param("word", word)
                .param("prompt", promptId)
                .param("student", studentId)
                .update();
    }

    void setMark(Mark mark) {
        jdbc.sql("""
                merge into mark (prompt_id, student_id, criterion_id, points, not_counted, remark) key (prompt_id,
                       student_id, criterion_id)
                values (:prompt, :student, :criterion, :points, :notCounted, :remark)""")
                .param("prompt", mark.promptId())
                .param("student", mark.studentId())
                .param("criterion", mark.criterion())
                .param("points", mark.points())
                .param("notCounted", mark.notCounted())
                .param("remark", mark.remark())
                .update();
    }

    private void setAwaitsOwn(long promptId, long studentId) {
        jdbc.sql("update marking set awaits_own = released_at is not null and " + AWAITS_OWN + OF_PAPER)
                .param("prompt", promptId)
                .param("student", studentId)
                .update();
    }

    /** Notes that a student has said how they see a paper, so that marks need not wait for that. */
    void setOwnSaid(long promptId, long studentId) {
        jdbc.sql("update marking set awaits_own = false" + OF_PAPER)
                .param("prompt", promptId)
                .param("student", studentId)
                .update();
    }

    /** Notes that no marks of a prompt wait for what students say any more. */
    void setOwnSaid(long promptId) {
        jdbc.sql("update marking set awaits_own = false where prompt_id = :prompt and awaits_own")
                .param("prompt", promptId)
                .update();
    }

    /** @param at null to take it back */
    void setReleased(long promptId, long studentId, @Nullable Instant at) {
        jdbc.sql("update marking set released_at = :at, rev = rev + 1" + OF_PAPER)
                .param("at", Rows.utc(at))
                .param("prompt", promptId)
                .param("student", studentId)
                .update();
        setAwaitsOwn(promptId, studentId);
    }

    private static SeenPost seen(ResultSet row) throws SQLException {
        return new SeenPost(row.getLong("post_id"), row.getInt("version_no"));
    }

    private static Mark mark(ResultSet row, int n) throws SQLException {
        return new Mark(
                row.getLong("prompt_id"),
                row.getLong("student_id"),
                row.getString("criterion_id"),
                Rows.points(row, "points"),
                row.getBoolean("not_counted"),
                row.getString("remark"));
    }

    private static Marking marking(ResultSet row, int n) throws SQLException {
        return new Marking(
                row.getLong("prompt_id"),
                row.getLong("student_id"),
                row.getLong("marker_id"),
                row.getString("word"),
                Rows.instant(row, "released_at"),
                Rows.instant(row, "updated_at"),
                row.getInt("comments_read"),
                row.getObject("assistant_id", Long.class),
                row.getObject("taken_over_by", Long.class),
                Rows.instant(row, "taken_over_at"),
                row.getBoolean("awaits_own"),
                row.getInt("rev"));
    }
}

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
import org.vastporch.server.rows.Rows;

@Repository
class MarkingStore {

    record Marking(
            long promptId,
            long studentId,
            long postId,
            int version,
            long markerId,
            String word,
            @Nullable Instant releasedAt,
            Instant updatedAt,
            int rev) {}

    /** @param points null while only a remark stands */
    record Mark(int criterion, @Nullable BigDecimal points, String remark) {}

    private static final String COLUMNS =
            "prompt_id, student_id, post_id, version_no, marker_id, word, released_at, updated_at, rev";

    private final JdbcClient jdbc;

    MarkingStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    Optional<Marking> find(long promptId, long studentId) {
        return jdbc.sql("select " + COLUMNS + " from marking where prompt_id = :prompt and student_id = :student")
                .param("prompt", promptId)
                .param("student", studentId)
                .query(MarkingStore::marking)
                .optional();
    }

    /** The marking, its row locked until the transaction ends. */
    Optional<Marking> lock(long promptId, long studentId) {
        return jdbc.sql("select " + COLUMNS
                        + " from marking where prompt_id = :prompt and student_id = :student for update")
                .param("prompt", promptId)
                .param("student", studentId)
                .query(MarkingStore::marking)
                .optional();
    }

    List<Marking> ofPrompts(Collection<Long> promptIds) {
        if (promptIds.isEmpty()) return List.of();
        return jdbc.sql("select " + COLUMNS + " from marking where prompt_id in (:prompts)")
                .param("prompts", promptIds)
                .query(MarkingStore::marking)
                .list();
    }

    /** @param given how many criteria have points */
    record Given(long promptId, long studentId, int given) {}

    List<Given> given(Collection<Long> promptIds) {
        if (promptIds.isEmpty()) return List.of();
        return jdbc.sql("""
                select prompt_id, student_id, count(*) as given
                  from mark
                 where prompt_id in (:prompts) and points is not null
                 group by prompt_id, student_id""")
                .param("prompts", promptIds)
                .query((row, n) -> new Given(row.getLong("prompt_id"), row.getLong("student_id"), row.getInt("given")))
                .list();
    }

    void begin(long promptId, long studentId, long postId, int version, long markerId, Instant now) {
        jdbc.sql("""
                insert into marking (prompt_id, student_id, post_id, version_no, marker_id, word, updated_at, rev)
                values (:prompt, :student, :post, :version, :marker, '', :now, 1)""")
                .param("prompt", promptId)
                .param("student", studentId)
                .param("post", postId)
                .param("version", version)
                .param("marker", markerId)
                .param("now", Rows.utc(now))
                .update();
    }

    void touch(long promptId, long studentId, long postId, int version, long markerId, Instant now) {
        jdbc.sql("""
                update marking
                   set post_id = :post, version_no = :version, marker_id = :marker, updated_at = :now, rev = rev + 1
                 where prompt_id = :prompt and student_id = :student""")
                .param("post", postId)
                .param("version", version)
                .param("marker", markerId)
                .param("now", Rows.utc(now))
                .param("prompt", promptId)
                .param("student", studentId)
                .update();
    }

    void setWord(long promptId, long studentId, String word) {
        jdbc.sql("update marking set word = :word where prompt_id = :prompt and student_id = :student")
                .param("word", word)
                .param("prompt", promptId)
                .param("student", studentId)
                .update();
    }

    void setMark(long promptId, long studentId, Mark mark) {
        jdbc.sql("""
                merge into mark (prompt_id, student_id, criterion, points, remark) key (prompt_id, student_id,
                       criterion)
                values (:prompt, :student, :criterion, :points, :remark)""")
                .param("prompt", promptId)
                .param("student", studentId)
                .param("criterion", mark.criterion())
                .param("points", mark.points())
                .param("remark", mark.remark())
                .update();
    }

    Map<Integer, Mark> marks(long promptId, long studentId) {
        Map<Integer, Mark> marks = new HashMap<>();
        jdbc.sql("select criterion, points, remark from mark where prompt_id = :prompt and student_id = :student")
                .param("prompt", promptId)
                .param("student", studentId)
                .query((row, n) -> new Mark(
                        row.getInt("criterion"), stripped(row.getBigDecimal("points")), row.getString("remark")))
                .list()
                .forEach(mark -> marks.put(mark.criterion(), mark));
        return marks;
    }

    void release(long promptId, long studentId, Instant now) {
        jdbc.sql("""
                                update marking
                                 set released_at = :now, rev = rev + 1
                                 where prompt_id = :prompt and student_id = :student""")
                .param("now", Rows.utc(now))
                .param("prompt", promptId)
                .param("student", studentId)
                .update();
    }

    private static @Nullable BigDecimal stripped(@Nullable BigDecimal points) {
        return points == null
                ? null
                : new BigDecimal(points.stripTrailingZeros().toPlainString());
    }

    private static Marking marking(ResultSet row, int n) throws SQLException {
        return new Marking(
                row.getLong("prompt_id"),
                row.getLong("student_id"),
                row.getLong("post_id"),
                row.getInt("version_no"),
                row.getLong("marker_id"),
                row.getString("word"),
                Rows.instant(row, "released_at"),
                Rows.instant(row, "updated_at"),
                row.getInt("rev"));
    }
}

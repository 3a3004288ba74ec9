package org.vastporch.server.marking;

import java.math.BigDecimal;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.rows.Rows;

/** What happened to scores: shown to their students, taken back, changed afterwards. */
@Repository
class ScoreEventStore {

    enum Kind {
        RELEASED,
        TAKEN_BACK,
        CHANGED
    }

    /**
     * @param byId null once that person is erased
     * @param before the score as it was shown; null if none was
     */
    record Happened(
            Kind kind,
            Instant at,
            @Nullable Long byId,
            String reason,
            @Nullable BigDecimal before,
            @Nullable BigDecimal after) {

        ScoreLine line(String by) {
            return new ScoreLine(kind, at, by, reason, before, after);
        }
    }

    /** The same, as people read it. */
    public record ScoreLine(
            Kind kind,
            Instant at,
            String by,
            String reason,
            @Optionally BigDecimal before,
            @Optionally BigDecimal after) {}

    private final JdbcClient jdbc;

    ScoreEventStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    void add(long promptId, long studentId, Happened event) {
        jdbc.sql("""
                insert into score_event (prompt_id, student_id, kind, happened_at, by_id, reason, score_before,
                       score_after)
                values (:prompt, :student, :kind, :at, :by, :reason, :before, :after)""")
                .param("prompt", promptId)
                .param("student", studentId)
                .param("kind", event.kind().name())
                .param("at", Rows.utc(event.at()))
                .param("by", event.byId())
                .param("reason", event.reason())
                .param("before", event.before())
                .param("after", event.after())
                .update();
    }

    /** The last first. */
    List<Happened> of(long promptId, long studentId) {
        return jdbc.sql("""
                select kind, happened_at, by_id, reason, score_before, score_after
                  from score_event
                 where prompt_id = :prompt and student_id = :student
                 order by id desc""")
                .param("prompt", promptId)
                .param("student", studentId)
                .query((row, n) -> new Happened(
                        Kind.valueOf(row.getString("kind")),
                        Rows.instant(row, "happened_at"),
                        Rows.number(row, "by_id"),
                        row.getString("reason"),
                        plain(row.getBigDecimal("score_before")),
                        plain(row.getBigDecimal("score_after"))))
                .list();
    }

    record Changed(long promptId, FeedbackService.ScoreChanged change) {}

    /** Changes of scores that a student has seen, since each was last released; the last one comes last. */
    List<Changed> changesOf(Collection<Long> promptIds, long studentId) {
        if (promptIds.isEmpty()) return List.of();
        return jdbc.sql("""
                select c.prompt_id, c.happened_at, c.reason
                  from score_event c
                 where c.prompt_id in (:prompts) and c.student_id = :student and c.kind = 'CHANGED'
                   and not exists (select 1 from score_event r where r.prompt_id = c.prompt_id
                                   and r.student_id = c.student_id and r.kind = 'RELEASED' and r.id > c.id)
                 order by c.id""")
                .param("prompts", promptIds)
                .param("student", studentId)
                .query((row, n) -> new Changed(
                        row.getLong("prompt_id"),
                        new FeedbackService.ScoreChanged(Rows.instant(row, "happened_at"), row.getString("reason"))))
                .list();
    }

    private static @Nullable BigDecimal plain(@Nullable BigDecimal score) {
        return score == null ? null : new BigDecimal(score.stripTrailingZeros().toPlainString());
    }
}

package org.vastporch.server.prompts;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.core.marking.Allowance;
import org.vastporch.server.rows.Rows;

/** Own dates, and who was let off. */
@Repository
class AllowanceStore {

    private static final String OF_PAPER = " where prompt_id = :prompt and student_id = :student";

    private final JdbcClient jdbc;

    AllowanceStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** What one student is allowed for one prompt. */
    record Allowed(long promptId, long studentId, Allowance allowance) {}

    List<Allowed> ofPrompts(Collection<Long> promptIds) {
        if (promptIds.isEmpty()) return List.of();
        return jdbc.sql(
                        "select prompt_id, student_id, due_at, let_off, again from allowance where prompt_id in (:prompts)")
                .param("prompts", promptIds)
                .query((row, n) -> new Allowed(
                        row.getLong("prompt_id"),
                        row.getLong("student_id"),
                        new Allowance(Rows.instant(row, "due_at"), row.getBoolean("let_off"), row.getBoolean("again"))))
                .list();
    }

    Allowance find(long promptId, long studentId) {
        return jdbc.sql("select due_at, let_off, again from allowance" + OF_PAPER)
                .param("prompt", promptId)
                .param("student", studentId)
                .query((row, n) ->
                        new Allowance(Rows.instant(row, "due_at"), row.getBoolean("let_off"), row.getBoolean("again")))
                .optional()
                .orElse(Allowance.NONE);
    }

    void set(long promptId, long studentId, Allowance allowance, Instant now) {
        if (allowance.equals(Allowance.NONE)) {
            jdbc.sql("delete from allowance" + OF_PAPER)
                    .param("prompt", promptId)
                    .param("student", studentId)
                    .update();
            return;
        }
        jdbc.sql("""
                merge into allowance (prompt_id, student_id, due_at, let_off, again, set_at) key (prompt_id, student_id)
                values (:prompt, :student, :due, :letOff, :again, :now)""")
                .param("prompt", promptId)
                .param("student", studentId)
                .param("due", Rows.utc(allowance.due()))
                .param("letOff", allowance.letOff())
                .param("again", allowance.again())
                .param("now", Rows.utc(now))
                .update();
    }
}

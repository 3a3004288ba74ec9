package org.vastporch.server.prompts;

import java.sql.ResultSet;
import java.sql.SQLException;
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

    /** @param changes how often it was changed, taking back counted */
    record Changed(long promptId, Allowance allowance, int changes) {}

    List<Allowed> ofPrompts(Collection<Long> promptIds) {
        if (promptIds.isEmpty()) return List.of();
        return jdbc.sql(
                        "select prompt_id, student_id, due_at, let_off, again from allowance where prompt_id in (:prompts)")
                .param("prompts", promptIds)
                .query((row, n) -> new Allowed(row.getLong("prompt_id"), row.getLong("student_id"), allowance(row)))
                .list();
    }

    Allowance find(long promptId, long studentId) {
        return jdbc.sql("select due_at, let_off, again from allowance" + OF_PAPER)
                .param("prompt", promptId)
                .param("student", studentId)
                .query((row, n) -> allowance(row))
                .optional()
                .orElse(Allowance.NONE);
    }

    /** What one student is allowed for some prompts, what was taken back again too. */
    List<Changed> ofStudent(Collection<Long> promptIds, long studentId) {
        if (promptIds.isEmpty()) return List.of();
        return jdbc.sql("""
                select prompt_id, due_at, let_off, again, changes
                  from allowance
                 where student_id = :student and prompt_id in (:prompts)""")
                .param("student", studentId)
                .param("prompts", promptIds)
                .query((row, n) -> new Changed(row.getLong("prompt_id"), allowance(row), row.getInt("changes")))
                .list();
    }

    private static Allowance allowance(ResultSet row) throws SQLException {
        return new Allowance(Rows.instant(row, "due_at"), row.getBoolean("let_off"), row.getBoolean("again"));
    }

    /** The row stays when nothing is allowed any more: whoever counts its changes never counts fewer. */
    void set(long promptId, long studentId, Allowance allowance, Instant now) {
        int changes = jdbc.sql("select changes from allowance" + OF_PAPER)
                .param("prompt", promptId)
                .param("student", studentId)
                .query(Integer.class)
                .optional()
                .orElse(0);
        jdbc.sql("""
                merge into allowance (prompt_id, student_id, due_at, let_off, again, set_at, changes)
                       key (prompt_id, student_id)
                values (:prompt, :student, :due, :letOff, :again, :now, :changes)""")
                .param("prompt", promptId)
                .param("student", studentId)
                .param("due", Rows.utc(allowance.due()))
                .param("letOff", allowance.letOff())
                .param("again", allowance.again())
                .param("now", Rows.utc(now))
                .param("changes", changes + 1)
                .update();
    }
}

package org.vastporch.server.marking;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.core.annotation.Order;
import org.springframework.jdbc.core.RowMapper;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.server.erasure.Traces;
import org.vastporch.server.rows.Rows;

/** When finished marks are shown by themselves, and who said so. */
@Repository
@Order(10)
class PlannedReleaseStore implements Traces {

    /** @param rev raised by each change */
    record Planned(long promptId, Instant at, long byId, int rev) {}

    private static final String COLUMNS = "select prompt_id, release_at, by_id, rev from planned_release ";

    private static final RowMapper<Planned> PLANNED = (row, n) -> new Planned(
            row.getLong("prompt_id"), Rows.instant(row, "release_at"), row.getLong("by_id"), row.getInt("rev"));

    private final JdbcClient jdbc;

    PlannedReleaseStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    Optional<Planned> find(long promptId) {
        return jdbc.sql(COLUMNS + "where prompt_id = :prompt")
                .param("prompt", promptId)
                .query(PLANNED)
                .optional();
    }

    /** Locks what is planned for a prompt until the transaction ends. */
    Optional<Planned> lock(long promptId) {
        return jdbc.sql(COLUMNS + "where prompt_id = :prompt for update")
                .param("prompt", promptId)
                .query(PLANNED)
                .optional();
    }

    /** The prompts whose moment has come. */
    List<Long> due(Instant now) {
        return jdbc.sql("select prompt_id from planned_release where release_at <= :now order by release_at, prompt_id")
                .param("now", Rows.utc(now))
                .query(Long.class)
                .list();
    }

    void set(Planned planned) {
        jdbc.sql("""
                merge into planned_release (prompt_id, release_at, by_id, rev) key (prompt_id)
                values (:prompt, :at, :by, :rev)""")
                .param("prompt", planned.promptId())
                .param("at", Rows.utc(planned.at()))
                .param("by", planned.byId())
                .param("rev", planned.rev())
                .update();
    }

    void remove(long promptId) {
        jdbc.sql("delete from planned_release where prompt_id = :prompt")
                .param("prompt", promptId)
                .update();
    }

    @Override
    public String what() {
        return "releases";
    }

    @Override
    public int count(long personId, @Nullable Long classId) {
        return 0;
    }

    @Override
    public void erase(long personId) {
        jdbc.sql("delete from planned_release where by_id = :person")
                .param("person", personId)
                .update();
    }
}

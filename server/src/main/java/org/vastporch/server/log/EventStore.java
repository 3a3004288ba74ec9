package org.vastporch.server.log;

import java.time.Clock;
import java.time.Instant;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.server.rows.Rows;

/** What happened, one row each, written in the transaction in which it happened. */
@Repository
public class EventStore {

    private final JdbcClient jdbc;
    private final ClassChanges changes;
    private final Clock clock;

    EventStore(JdbcClient jdbc, ClassChanges changes, Clock clock) {
        this.jdbc = jdbc;
        this.changes = changes;
        this.clock = clock;
    }

    /** @param kind a short name such as "post-published" */
    public void add(@Nullable Long classId, String kind, @Nullable Long subjectId, @Nullable Long actorId) {
        jdbc.sql("""
                insert into event (class_id, kind, subject_id, actor_id, at)
                values (:classId, :kind, :subjectId, :actorId, :at)""")
                .param("classId", classId)
                .param("kind", kind)
                .param("subjectId", subjectId)
                .param("actorId", actorId)
                .param("at", Rows.utc(clock.instant()))
                .update();
        if (classId == null) changes.noteEverywhere();
        else changes.note(classId);
    }

    /** When something of some kinds happened in a class last; the beginning of time if it never did. */
    public Instant last(long classId, Set<String> kinds) {
        return jdbc.sql("""
                select at
                  from event
                 where class_id = :classId and kind = any(:kinds)
                 order by id desc
                 limit 1""")
                .param("classId", classId)
                .param("kinds", kinds.toArray(String[]::new))
                .query((row, n) -> Rows.instant(row, "at"))
                .optional()
                .orElse(Instant.EPOCH);
    }

    /** Lets events no longer say that a person did them, or had them happen to them. */
    public void forget(long personId) {
        jdbc.sql("update event set actor_id = null where actor_id = :person")
                .param("person", personId)
                .update();
        jdbc.sql("""
                                update event
                                 set subject_id = null
                                 where subject_id = :person and kind in ('enrolled', 'enrolment-ended',
                                    'enrolment-taken-back', 'person-added', 'password-set',
                                    'shown-name-changed', 'role-changed', 'joined-by-word')""").param("person", personId).update();
    }
}

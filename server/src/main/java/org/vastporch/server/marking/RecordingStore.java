package org.vastporch.server.marking;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.media.FilesElsewhere;
import org.vastporch.server.rows.Rows;

/** Feedback that is spoken or filmed. */
@Repository
class RecordingStore implements FilesElsewhere {

    /** @param kind SOUND or VIDEO */
    record Row(
            long id,
            long promptId,
            long studentId,
            String fileId,
            String kind,
            String summary,
            long byId,
            Instant at) {}

    private static final String SELECT = """
            select r.id, r.prompt_id, r.student_id, r.file_id, a.kind, r.summary, r.by_id, r.made_at
              from recording r
              join attachment a on a.id = r.file_id
            """;

    private final JdbcClient jdbc;

    RecordingStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    void add(
            long promptId,
            long studentId,
            String fileId,
            String summary,
            long byId,
            @Nullable String key,
            Instant now) {
        jdbc.sql("""
                insert into recording (prompt_id, student_id, file_id, summary, by_id, sent_as, made_at)
                values (:prompt, :student, :file, :summary, :by, :key, :now)""")
                .param("key", key)
                .param("prompt", promptId)
                .param("student", studentId)
                .param("file", fileId)
                .param("summary", summary)
                .param("by", byId)
                .param("now", Rows.utc(now))
                .update();
    }

    /** Those of a student for prompts, in the order in which they were made. */
    List<Row> of(Collection<Long> promptIds, long studentId) {
        if (promptIds.isEmpty()) return List.of();
        return jdbc.sql(SELECT + " where r.prompt_id in (:prompts) and r.student_id = :student order by r.id")
                .param("prompts", promptIds)
                .param("student", studentId)
                .query(RecordingStore::row)
                .list();
    }

    /** Whether a recording that was sent under a key is there. */
    boolean isKept(long promptId, long studentId, String key) {
        return jdbc.sql("""
                select exists (select 1 from recording
                                where prompt_id = :prompt and student_id = :student and sent_as = :key)""")
                .param("prompt", promptId)
                .param("student", studentId)
                .param("key", key)
                .query(Boolean.class)
                .single();
    }

    Optional<Row> lock(long id) {
        return jdbc.sql("select id from recording where id = :id for update")
                .param("id", id)
                .query(Long.class)
                .optional()
                .flatMap(found -> jdbc.sql(SELECT + " where r.id = :id")
                        .param("id", id)
                        .query(RecordingStore::row)
                        .optional());
    }

    /** Says it otherwise to all to whom it was given for a prompt. */
    void setSummary(Row row, String summary) {
        jdbc.sql("update recording set summary = :summary where file_id = :file and prompt_id = :prompt")
                .param("summary", summary)
                .param("file", row.fileId())
                .param("prompt", row.promptId())
                .update();
    }

    /** Takes a recording from all to whom it was given for a prompt; its bytes go with the next clearing. */
    void remove(Row row) {
        jdbc.sql("delete from recording where file_id = :file and prompt_id = :prompt")
                .param("file", row.fileId())
                .param("prompt", row.promptId())
                .update();
    }

    /** To its student, as long as the marks are shown. */
    @Override
    public boolean isShown(Viewer viewer, String fileId) {
        if (viewer.isStranger()) return false;
        return jdbc.sql("""
                select exists (select 1
                                 from recording r
                                 join marking m on m.prompt_id = r.prompt_id and m.student_id = r.student_id
                                 left join allowance a on a.prompt_id = r.prompt_id and a.student_id = r.student_id
                                where r.file_id = :file and r.student_id = :me and m.released_at is not null
                                  and not m.awaits_own and not coalesce(a.let_off, false))""")
                .param("file", fileId)
                .param("me", viewer.personId())
                .query(Boolean.class)
                .single();
    }

    private static Row row(ResultSet row, int n) throws SQLException {
        return new Row(
                row.getLong("id"),
                row.getLong("prompt_id"),
                row.getLong("student_id"),
                row.getString("file_id"),
                row.getString("kind"),
                row.getString("summary"),
                row.getLong("by_id"),
                Rows.instant(row, "made_at"));
    }
}

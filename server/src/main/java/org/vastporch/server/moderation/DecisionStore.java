package org.vastporch.server.moderation;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import org.vastporch.core.moderation.Hold;
import org.vastporch.core.moderation.ModerationTable.Step;
import org.vastporch.core.moderation.Standing;
import org.vastporch.core.moderation.State;
import org.vastporch.server.http.Rows;

/** The decisions that were made, never changed but for an undo, and the holds on what waits. */
@Repository
class DecisionStore {

    /** One decision with where the text stood before it. */
    record Decision(long id, long classId, String subject, long subjectId, int version, Step step, String note, long by, Instant at,
                    Standing before, @Nullable Instant waitingBefore, @Nullable Instant publishedBefore, int afterRev, boolean undone) {}

    private static final String COLUMNS = """
        id, class_id, subject, subject_id, version_no, step, note, decided_by, decided_at, before_state, before_live, before_working,
        before_waiting, before_published, after_rev, undone_at""";

    private final JdbcClient jdbc;

    DecisionStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    long add(Moderated.Text text, String subject, Step step, String note, long by, Instant now) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        Standing before = text.standing();
        jdbc.sql("""
                insert into decision (class_id, subject, subject_id, author_id, version_no, step, note, decided_by, decided_at, before_state,
                                      before_live, before_working, before_waiting, before_published, after_rev)
                values (:classId, :subject, :id, :author, :version, :step, :note, :by, :now, :state, :live, :working, :waiting, :published, :rev)""")
            .param("classId", text.classId()).param("subject", subject).param("id", text.id()).param("author", text.authorId())
            .param("version", before.newest()).param("step", step.name()).param("note", note).param("by", by).param("now", Rows.utc(now))
            .param("state", before.state().name()).param("live", before.live()).param("working", before.working())
            .param("waiting", Rows.utc(text.waitingSince())).param("published", Rows.utc(text.publishedAt())).param("rev", text.rev() + 1)
            .update(key, "id");
        return key.getKey().longValue();
    }

    Optional<Decision> find(long id) {
        return jdbc.sql("select " + COLUMNS + " from decision where id = :id").param("id", id).query((row, n) -> decision(row)).optional();
    }

    /** The decisions about a text, the newest first, without those that were undone. */
    List<Decision> about(String subject, long subjectId) {
        return jdbc.sql("select " + COLUMNS + " from decision where subject = :subject and subject_id = :id and undone_at is null order by id desc")
            .param("subject", subject).param("id", subjectId).query((row, n) -> decision(row)).list();
    }

    void undo(long id, Instant now) {
        jdbc.sql("update decision set undone_at = :now where id = :id").param("now", Rows.utc(now)).param("id", id).update();
    }

    /** Approvals in a row of an author's posts, without return or hide after them. */
    int approvalsInRow(long classId, long authorId) {
        return jdbc.sql("""
                select count(*)
                  from decision d
                 where d.class_id = :classId and d.author_id = :author and d.subject = 'post' and d.step = 'APPROVE' and d.undone_at is null
                   and d.id > coalesce((select max(x.id)
                                          from decision x
                                         where x.class_id = :classId and x.author_id = :author and x.subject = 'post'
                                           and x.step in ('RETURN', 'HIDE') and x.undone_at is null), 0)""")
            .param("classId", classId).param("author", authorId).query(Integer.class).single();
    }

    void setHolds(String subject, long subjectId, List<Hold> holds) {
        jdbc.sql("delete from hold where subject = :subject and subject_id = :id").param("subject", subject).param("id", subjectId).update();
        for (Hold hold : holds)
            jdbc.sql("insert into hold (subject, subject_id, rule, starts, ends, found) values (:subject, :id, :rule, :starts, :ends, :found)")
                .param("subject", subject).param("id", subjectId).param("rule", hold.rule().name()).param("starts", hold.start()).param("ends", hold.end())
                .param("found", hold.found().length() > 400 ? hold.found().substring(0, 400) : hold.found()).update();
    }

    List<Hold> holds(String subject, long subjectId) {
        return jdbc.sql("select rule, starts, ends, found from hold where subject = :subject and subject_id = :id order by starts")
            .param("subject", subject).param("id", subjectId)
            .query((row, n) -> new Hold(Hold.Rule.valueOf(row.getString("rule")), row.getInt("starts"), row.getInt("ends"), row.getString("found"))).list();
    }

    private static Decision decision(ResultSet row) throws SQLException {
        return new Decision(row.getLong("id"), row.getLong("class_id"), row.getString("subject"), row.getLong("subject_id"), row.getInt("version_no"),
            Step.valueOf(row.getString("step")), row.getString("note"), row.getLong("decided_by"), Rows.instant(row, "decided_at"),
            new Standing(State.valueOf(row.getString("before_state")), Rows.integer(row, "before_live"), Rows.integer(row, "before_working")),
            Rows.instant(row, "before_waiting"), Rows.instant(row, "before_published"), row.getInt("after_rev"), row.getObject("undone_at") != null);
    }
}

package org.vastporch.server.moderation;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.vastporch.server.moderation.DecisionStore.Key;
import org.vastporch.server.rows.Rows;

/** What readers reported, with the decision that answered it. */
@Repository
class ReportStore {

    record ReportRow(long reporterId, String reason, Instant at) {}

    private final JdbcClient jdbc;

    ReportStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    void add(long classId, String subject, long subjectId, long reporterId, String reason, Instant now) {
        jdbc.sql("""
                                insert into report (class_id, subject, subject_id, reporter_id, reason,
                                    reported_at)
                                 values (:classId, :subject, :id, :reporter, :reason, :now)""")
                .param("classId", classId)
                .param("subject", subject)
                .param("id", subjectId)
                .param("reporter", reporterId)
                .param("reason", reason)
                .param("now", Rows.utc(now))
                .update();
    }

    /** The reports about a text that nobody has decided on yet, the oldest first. */
    List<ReportRow> open(String subject, long subjectId) {
        Key key = new Key(subject, subjectId);
        return open(List.of(key)).getOrDefault(key, List.of());
    }

    Map<Key, List<ReportRow>> open(Collection<Key> texts) {
        Map<Key, List<ReportRow>> open = new HashMap<>();
        if (texts.isEmpty()) return open;
        jdbc.sql("""
                select subject, subject_id, reporter_id, reason, reported_at
                  from report
                 where (subject, subject_id) in (:texts) and decision_id is null
                 order by id""").param("texts", Key.pairs(texts)).query(row -> {
            open.computeIfAbsent(Key.of(row), key -> new ArrayList<>())
                    .add(new ReportRow(
                            row.getLong("reporter_id"), row.getString("reason"), Rows.instant(row, "reported_at")));
        });
        return open;
    }

    void answer(String subject, long subjectId, long decisionId) {
        jdbc.sql("""
                                update report
                                 set decision_id = :decision
                                 where subject = :subject and subject_id = :id and decision_id is null""")
                .param("decision", decisionId)
                .param("subject", subject)
                .param("id", subjectId)
                .update();
    }

    /** Opens the reports again that a decision answered, which was taken back. */
    void reopen(long decisionId) {
        jdbc.sql("update report set decision_id = null where decision_id = :decision")
                .param("decision", decisionId)
                .update();
    }
}

package org.vastporch.server.reports;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.core.annotation.Order;
import org.springframework.jdbc.core.RowMapper;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.jdbc.support.KeyHolder;
import org.springframework.stereotype.Repository;
import org.vastporch.core.reports.Report;
import org.vastporch.server.erasure.Traces;
import org.vastporch.server.rows.Rows;

/** Runs of reports, and what students were told. */
@Repository
@Order(10)
class WeekReportStore implements Traces {

    record Run(
            long id,
            long classId,
            LocalDate monday,
            String template,
            long byId,
            Instant begunAt,
            @Nullable Instant endedAt,
            boolean cancelled) {}

    /** @param outcome null while its turn has not come */
    record Line(long runId, long studentId, String note, Report.@Nullable Outcome outcome) {}

    /** That a student was told of a week, and how; what it says is read apart. */
    record Told(
            long id,
            long classId,
            long studentId,
            LocalDate monday,
            String template,
            @Nullable Long byId,
            String note,
            String fingerprint,
            Instant sentAt,
            @Nullable Long mailId) {}

    private static final String RUN =
            "select id, class_id, monday, template, by_id, begun_at, ended_at, cancelled from report_run ";
    private static final String TOLD = "select id, class_id, student_id, monday, template, by_id, note, "
            + "fingerprint, sent_at, mail_id from week_report ";

    private final JdbcClient jdbc;

    WeekReportStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    long begin(long classId, LocalDate monday, String template, long byId, Instant now) {
        KeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                insert into report_run (class_id, monday, template, by_id, begun_at)
                values (:class, :monday, :template, :by, :now)""")
                .param("class", classId)
                .param("monday", monday)
                .param("template", template)
                .param("by", byId)
                .param("now", Rows.utc(now))
                .update(key, "id");
        return key.getKey().longValue();
    }

    void add(long runId, long studentId, String note) {
        jdbc.sql("insert into report_line (run_id, student_id, note) values (:run, :student, :note)")
                .param("run", runId)
                .param("student", studentId)
                .param("note", note)
                .update();
    }

    Optional<Run> run(long id) {
        return jdbc.sql(RUN + "where id = :id").param("id", id).query(run()).optional();
    }

    Optional<Run> lock(long id) {
        return jdbc.sql(RUN + "where id = :id for update")
                .param("id", id)
                .query(run())
                .optional();
    }

    /** The last run for a week of a class. */
    Optional<Run> last(long classId, LocalDate monday) {
        return jdbc.sql(RUN + "where class_id = :class and monday = :monday order by id desc limit 1")
                .param("class", classId)
                .param("monday", monday)
                .query(run())
                .optional();
    }

    /** Nobody else begins a run of the class before the end of the transaction. */
    void lockClass(long classId) {
        jdbc.sql("select id from class where id = :class for update")
                .param("class", classId)
                .query(Long.class)
                .single();
    }

    /** Whether a run of the class is under way. */
    boolean isUnderWay(long classId) {
        return jdbc.sql("select count(*) from report_run where class_id = :class and ended_at is null")
                        .param("class", classId)
                        .query(Integer.class)
                        .single()
                > 0;
    }

    List<Run> underWay() {
        return jdbc.sql(RUN + "where ended_at is null order by id").query(run()).list();
    }

    List<Line> lines(long runId) {
        return jdbc.sql("select run_id, student_id, note, outcome from report_line where run_id = :run")
                .param("run", runId)
                .query(line())
                .list();
    }

    /** A line whose turn has not come, held until the end of the transaction. */
    Optional<Line> lockWaiting(long runId, long studentId) {
        return jdbc.sql("""
                select run_id, student_id, note, outcome from report_line
                 where run_id = :run and student_id = :student and outcome is null
                   for update""")
                .param("run", runId)
                .param("student", studentId)
                .query(line())
                .optional();
    }

    void end(Line line, Report.Outcome outcome) {
        jdbc.sql("update report_line set outcome = :outcome where run_id = :run and student_id = :student")
                .param("outcome", outcome.name())
                .param("run", line.runId())
                .param("student", line.studentId())
                .update();
    }

    void stop(long runId) {
        jdbc.sql("update report_line set outcome = 'STOPPED' where run_id = :run and outcome is null")
                .param("run", runId)
                .update();
        jdbc.sql("update report_run set cancelled = true where id = :run")
                .param("run", runId)
                .update();
    }

    void end(long runId, Instant now) {
        jdbc.sql("update report_run set ended_at = :now where id = :run and ended_at is null")
                .param("now", Rows.utc(now))
                .param("run", runId)
                .update();
    }

    /** Keeps what a student is told of a week, in place of what was told before. */
    void tell(Run run, Line line, Report report, Instant now) {
        jdbc.sql("""
                merge into week_report as w
                using (values (cast(:class as bigint), cast(:student as bigint), cast(:monday as date)))
                      as n (class_id, student_id, monday)
                   on w.class_id = n.class_id and w.student_id = n.student_id and w.monday = n.monday
                 when matched then update
                      set template = :template, by_id = :by, title = :title, html = :html, note = :note,
                          fingerprint = :fingerprint, sent_at = :now, mail_id = null
                 when not matched then insert (class_id, student_id, monday, template, by_id, title, html, note,
                          fingerprint, sent_at)
                      values (n.class_id, n.student_id, n.monday, :template, :by, :title, :html, :note, :fingerprint,
                          :now)""")
                .param("class", run.classId())
                .param("student", line.studentId())
                .param("monday", run.monday())
                .param("template", run.template())
                .param("by", run.byId())
                .param("title", report.title())
                .param("html", report.html())
                .param("note", line.note())
                .param("fingerprint", report.fingerprint())
                .param("now", Rows.utc(now))
                .update();
    }

    void mailed(long id, long mailId) {
        jdbc.sql("update week_report set mail_id = :mail where id = :id")
                .param("mail", mailId)
                .param("id", id)
                .update();
    }

    /** Puts what holds now in place of what was to be sent, unless that was told anew meanwhile. */
    boolean correct(Told told, Report now) {
        return jdbc.sql("""
                update week_report set title = :title, html = :html, fingerprint = :fingerprint
                 where id = :id and fingerprint = :before""")
                        .param("title", now.title())
                        .param("html", now.html())
                        .param("fingerprint", now.fingerprint())
                        .param("id", told.id())
                        .param("before", told.fingerprint())
                        .update()
                > 0;
    }

    Optional<Told> told(long id) {
        return jdbc.sql(TOLD + "where id = :id").param("id", id).query(told()).optional();
    }

    /** What one that is there says. */
    Report report(long id) {
        return jdbc.sql("select title, html from week_report where id = :id")
                .param("id", id)
                .query(report())
                .single();
    }

    /** What all of a week say, in the order of their titles. */
    List<Report> reports(long classId, LocalDate monday) {
        return jdbc.sql(
                        "select title, html from week_report where class_id = :class and monday = :monday order by title, id")
                .param("class", classId)
                .param("monday", monday)
                .query(report())
                .list();
    }

    private static RowMapper<Report> report() {
        return (row, n) -> new Report(row.getString("title"), row.getString("html"));
    }

    boolean wasTold(long classId, long studentId) {
        return jdbc.sql("select count(*) from week_report where class_id = :class and student_id = :student")
                        .param("class", classId)
                        .param("student", studentId)
                        .query(Integer.class)
                        .single()
                > 0;
    }

    Optional<Told> told(long classId, LocalDate monday, long studentId) {
        return jdbc.sql(TOLD + "where class_id = :class and monday = :monday and student_id = :student")
                .param("class", classId)
                .param("monday", monday)
                .param("student", studentId)
                .query(told())
                .optional();
    }

    List<Told> ofWeek(long classId, LocalDate monday) {
        return jdbc.sql(TOLD + "where class_id = :class and monday = :monday")
                .param("class", classId)
                .param("monday", monday)
                .query(told())
                .list();
    }

    List<Told> ofStudent(long classId, long studentId) {
        return jdbc.sql(TOLD + "where class_id = :class and student_id = :student order by monday desc")
                .param("class", classId)
                .param("student", studentId)
                .query(told())
                .list();
    }

    private static RowMapper<Run> run() {
        return (row, n) -> new Run(
                row.getLong("id"),
                row.getLong("class_id"),
                row.getObject("monday", LocalDate.class),
                row.getString("template"),
                row.getLong("by_id"),
                Rows.instant(row, "begun_at"),
                Rows.instant(row, "ended_at"),
                row.getBoolean("cancelled"));
    }

    private static RowMapper<Line> line() {
        return (row, n) ->
                new Line(row.getLong("run_id"), row.getLong("student_id"), row.getString("note"), outcome(row));
    }

    private static Report.@Nullable Outcome outcome(ResultSet row) throws SQLException {
        String outcome = row.getString("outcome");
        return outcome == null ? null : Report.Outcome.valueOf(outcome);
    }

    private static RowMapper<Told> told() {
        return (row, n) -> new Told(
                row.getLong("id"),
                row.getLong("class_id"),
                row.getLong("student_id"),
                row.getObject("monday", LocalDate.class),
                row.getString("template"),
                Rows.number(row, "by_id"),
                row.getString("note"),
                row.getString("fingerprint"),
                Rows.instant(row, "sent_at"),
                Rows.number(row, "mail_id"));
    }

    @Override
    public void erase(long personId) {
        for (String sql : List.of(
                "delete from report_line where student_id = :person",
                "delete from week_report where student_id = :person",
                "update week_report set by_id = null where by_id = :person",
                "delete from report_run where by_id = :person"))
            jdbc.sql(sql).param("person", personId).update();
    }
}

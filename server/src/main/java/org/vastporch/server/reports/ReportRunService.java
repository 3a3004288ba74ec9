package org.vastporch.server.reports;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.reports.Report;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.mail.LateMail;
import org.vastporch.server.mail.MailService;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.reports.WeekReportStore.Line;
import org.vastporch.server.reports.WeekReportStore.Run;
import org.vastporch.server.reports.WeekReportStore.Told;

/**
 * Makes the reports of a week for several students, one after another, while nobody has to wait. What becomes of one is
 * kept in one transaction: its line, what is filed, and the order of its mail; so a run that was killed goes on where
 * it was, and nobody is told twice.
 */
@Service
public class ReportRunService {

    /** @param note what is said to this student alone; empty for nothing */
    public record ReportFor(long student, String note) {}

    public record RunWish(String template, List<ReportFor> reports) {}

    /** @param outcome left out while its turn has not come */
    public record RunLine(
            long studentId, String student, @Optionally Report.Outcome outcome) {}

    /** @param ended left out while it is under way */
    public record RunView(
            long id,
            String template,
            Instant begun,
            @Optionally Instant ended,
            int done,
            List<RunLine> lines) {}

    /**
     * @param told what this student was told last; left out for nothing yet
     * @param hasAddress whether it can be mailed
     */
    public record WeekLine(
            long studentId,
            String student,
            @Optionally String group,
            boolean hasAddress,
            @Optionally ToldLine told) {}

    /** @param mail "sent", "waits", "no-post-office", or "failed: " and why; left out where there was no address */
    public record ToldLine(
            long id,
            Instant at,
            String template,
            String note,
            @Optionally String mail) {}

    /**
     * @param weeks of the class that have begun, the newest first
     * @param run the last one; left out if there was none
     */
    public record WeekReports(
            LocalDate monday,
            String week,
            List<ReportService.WeekName> weeks,
            List<WeekLine> lines,
            @Optionally RunView run) {}

    private static final Logger log = LoggerFactory.getLogger(ReportRunService.class);
    private static final int LONGEST_NOTE = 2000;

    private final WeekReportStore store;
    private final ReportService reports;
    private final PeopleService people;
    private final AccessService access;
    private final MailService mails;
    private final EventStore events;
    private final TransactionTemplate whole;
    private final Clock clock;

    ReportRunService(
            WeekReportStore store,
            ReportService reports,
            PeopleService people,
            AccessService access,
            MailService mails,
            EventStore events,
            TransactionTemplate whole,
            Clock clock) {
        this.store = store;
        this.reports = reports;
        this.people = people;
        this.access = access;
        this.mails = mails;
        this.events = events;
        this.whole = whole;
        this.clock = clock;
    }

    /**
     * Who was told what of a week, and how far its last run is.
     *
     * @param day one of the week; between two terms, the last week before it is meant
     */
    public WeekReports week(Viewer viewer, long classId, LocalDate day) {
        access.require(viewer, Act.MARK, classId);
        LocalDate monday = reports.weeks(classId, day).stream()
                .findFirst()
                .map(ReportService.WeekName::monday)
                .orElseThrow(Problem::missing);
        String week = reports.requireWeek(classId, monday);
        List<ReportService.WeekName> weeks = reports.weeks(classId, reports.day(classId, clock.instant()));
        Names names = people.names(viewer, classId);
        List<Told> told = store.ofWeek(classId, monday);
        Map<Long, Told> of = told.stream().collect(Collectors.toMap(Told::studentId, Function.identity()));
        Map<Long, String> mail = mails.standings(
                told.stream().map(Told::mailId).filter(Objects::nonNull).toList());
        Set<Long> reached = people.studentsWithAddress(classId);
        return new WeekReports(
                monday,
                week,
                weeks,
                people.students(classId).stream()
                        .map(s -> new WeekLine(
                                s, names.of(s), names.groupOf(s), reached.contains(s), line(of.get(s), mail)))
                        .toList(),
                store.last(classId, monday).map(run -> view(viewer, run)).orElse(null));
    }

    private static @Nullable ToldLine line(@Nullable Told told, Map<Long, String> mail) {
        if (told == null) return null;
        return new ToldLine(
                told.id(),
                told.sentAt(),
                told.template(),
                told.note(),
                told.mailId() == null ? null : mail.get(told.mailId()));
    }

    /**
     * Begins to make the reports of a week. One run of a class at a time.
     *
     * @param wish for whom, each once
     */
    @Transactional
    public RunView begin(Viewer viewer, long classId, LocalDate monday, RunWish wish) {
        access.require(viewer, Act.MARK, classId);
        reports.requireWeek(classId, monday);
        reports.template(wish.template());
        store.lockClass(classId);
        if (store.isUnderWay(classId))
            throw Problem.stale("run-under-way", "Reports of this class are being made. Wait until that is done.");
        Map<Long, String> notes = new LinkedHashMap<>();
        for (ReportFor of : wish.reports()) {
            if (of.note().length() > LONGEST_NOTE)
                throw Problem.invalid("note", "note-too-long", "A note has at most 2,000 characters.");
            notes.put(of.student(), of.note().strip());
        }
        if (notes.isEmpty()) throw Problem.invalid("reports", "nobody", "Choose somebody to write to.");
        if (!new HashSet<>(people.students(classId)).containsAll(notes.keySet()))
            throw Problem.stale("not-in-class", "Somebody of these is no longer in the class. Choose once more.");
        long id = store.begin(classId, monday, wish.template(), viewer.personId(), clock.instant());
        notes.forEach((student, note) -> store.add(id, student, note));
        events.add(classId, "reports-begun", id, viewer.personId());
        return view(viewer, store.run(id).orElseThrow());
    }

    /** Stops a run: what is done stays, nothing more is made. */
    @Transactional
    public RunView stop(Viewer viewer, long classId, long runId) {
        access.require(viewer, Act.MARK, classId);
        Run run = store.lock(runId).filter(r -> r.classId() == classId).orElseThrow(Problem::missing);
        if (run.endedAt() == null) {
            store.stop(runId);
            store.end(runId, clock.instant());
            events.add(classId, "reports-stopped", runId, viewer.personId());
        }
        return view(viewer, store.run(runId).orElseThrow());
    }

    private RunView view(Viewer viewer, Run run) {
        Names names = people.names(viewer, run.classId());
        List<RunLine> lines = store.lines(run.id()).stream()
                .map(l -> new RunLine(l.studentId(), names.of(l.studentId()), l.outcome()))
                .sorted(Comparator.comparing(RunLine::student))
                .toList();
        int done = (int) lines.stream().filter(l -> l.outcome() != null).count();
        return new RunView(run.id(), run.template(), run.begunAt(), run.endedAt(), done, lines);
    }

    @Scheduled(fixedDelayString = "${vastporch.reports.every:PT1S}")
    public void makeWhatWaits() {
        for (Run run : store.underWay()) {
            for (Line line : store.lines(run.id())) if (line.outcome() == null) make(run, line);
            store.end(run.id(), clock.instant());
        }
    }

    /** One that fails does not stop the others. */
    private void make(Run run, Line line) {
        try {
            whole.executeWithoutResult(status -> store.lockWaiting(run.id(), line.studentId())
                    .ifPresent(waiting -> store.end(waiting, tell(run, waiting))));
        } catch (RuntimeException e) {
            log.error("The report of run {} for person {} could not be made", run.id(), line.studentId(), e);
            whole.executeWithoutResult(status -> store.lockWaiting(run.id(), line.studentId())
                    .ifPresent(waiting -> store.end(waiting, Report.Outcome.FAILED)));
        }
    }

    private Report.Outcome tell(Run run, Line line) {
        Viewer by = access.viewer(run.byId());
        if (!access.allows(by, Act.MARK, run.classId())) return Report.Outcome.FAILED;
        if (!people.students(run.classId()).contains(line.studentId())) return Report.Outcome.LEFT;
        Report report = reports.report(by, run.classId(), run.monday(), line.studentId(), run.template(), line.note())
                .asReport();
        String before = store.told(run.classId(), run.monday(), line.studentId())
                .map(Told::fingerprint)
                .orElse(null);
        String address = people.email(line.studentId());
        Report.Outcome outcome = report.outcome(before, !address.isEmpty());
        if (outcome == Report.Outcome.SAME) return outcome;
        Instant now = clock.instant();
        store.tell(run, line, report, now);
        long id = store.told(run.classId(), run.monday(), line.studentId())
                .orElseThrow()
                .id();
        if (outcome == Report.Outcome.MAILED)
            store.mailed(
                    id,
                    mails.order(
                            ReportMail.KIND,
                            address,
                            new LateMail.Order(line.studentId(), String.valueOf(id), now, now)));
        return outcome;
    }
}

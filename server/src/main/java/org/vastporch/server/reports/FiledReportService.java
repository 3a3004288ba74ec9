package org.vastporch.server.reports;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import org.springframework.stereotype.Service;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Reason;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.reports.Report;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Problem;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.reports.WeekReportStore.Told;

/** Reports as they were told, for their student and for those who mark in the class. */
@Service
public class FiledReportService {

    public record ReportName(long id, String week, LocalDate monday, Instant at) {}

    /**
     * @param html clean
     * @param own whether the viewer is its student
     */
    public record FiledReport(
            long id,
            String title,
            String week,
            LocalDate monday,
            Instant at,
            long studentId,
            boolean own,
            String html) {}

    private final WeekReportStore store;
    private final ReportService reports;
    private final PeopleService people;
    private final AccessService access;

    FiledReportService(WeekReportStore store, ReportService reports, PeopleService people, AccessService access) {
        this.store = store;
        this.reports = reports;
        this.people = people;
        this.access = access;
    }

    /** What the viewer was told in a class, the newest week first. */
    public List<ReportName> own(Viewer viewer, long classId) {
        access.require(viewer, Act.READ_CLASS, classId);
        return names(classId, viewer.personId());
    }

    /** What a student was told, the newest week first. */
    public List<ReportName> ofStudent(Viewer viewer, long classId, long studentId) {
        access.require(viewer, Act.MARK, classId);
        if (!people.students(classId).contains(studentId)) throw Problem.missing();
        return names(classId, studentId);
    }

    /** Whether a student was told of any week of a class. */
    public boolean wasTold(long classId, long studentId) {
        return store.wasTold(classId, studentId);
    }

    private List<ReportName> names(long classId, long studentId) {
        return store.ofStudent(classId, studentId).stream()
                .map(t -> new ReportName(t.id(), reports.week(classId, t.monday()), t.monday(), t.sentAt()))
                .toList();
    }

    public FiledReport one(Viewer viewer, long id) {
        Told told = readable(viewer, id);
        Report report = store.report(id);
        return new FiledReport(
                told.id(),
                report.title(),
                reports.week(told.classId(), told.monday()),
                told.monday(),
                told.sentAt(),
                told.studentId(),
                viewer.personId() == told.studentId(),
                report.html());
    }

    public byte[] pdf(Viewer viewer, long id) {
        return ReportPrinter.pdf(store.report(readable(viewer, id).id()));
    }

    /** Who may not read it does not learn whether it is there. */
    private Told readable(Viewer viewer, long id) {
        if (viewer.isStranger()) throw Problem.refused(Reason.SIGN_IN_FIRST);
        Told told = store.told(id).orElseThrow(Problem::missing);
        boolean own = viewer.personId() == told.studentId() && access.allows(viewer, Act.READ_CLASS, told.classId());
        if (!own && !access.allows(viewer, Act.MARK, told.classId())) throw Problem.missing();
        return told;
    }

    /** All that were told of a week in one file, each on pages of its own, in the order of the names. */
    public byte[] week(Viewer viewer, long classId, LocalDate monday) {
        access.require(viewer, Act.MARK, classId);
        String week = reports.requireWeek(classId, monday);
        List<Report> all = store.reports(classId, monday);
        if (all.isEmpty()) throw Problem.missing("No report was made of this week yet.");
        return ReportPrinter.pdf("Reports, " + week, all);
    }
}

package org.vastporch.server.reports;

import java.util.Optional;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.reports.Report;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.mail.LateMail;
import org.vastporch.server.mail.SchoolAddress;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.reports.WeekReportStore.Told;

/**
 * The mail with which a report goes to its student. It is made once more when it goes: what was taken back while it
 * waited does not stand in it, and what is sent is what stays filed.
 */
@Component
class ReportMail implements LateMail {

    static final String KIND = "report";

    private final WeekReportStore store;
    private final ReportService reports;
    private final ClassService classes;
    private final PeopleService people;
    private final AccessService access;
    private final SchoolAddress school;

    ReportMail(
            WeekReportStore store,
            ReportService reports,
            ClassService classes,
            PeopleService people,
            AccessService access,
            SchoolAddress school) {
        this.store = store;
        this.reports = reports;
        this.classes = classes;
        this.people = people;
        this.access = access;
        this.school = school;
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public Optional<Words> write(Order order) {
        return store.told(Long.parseLong(order.about())).flatMap(this::write);
    }

    /** Nothing for somebody who left meanwhile, or if whoever sent it may not do so any more. */
    private Optional<Words> write(Told told) {
        if (told.byId() == null) return Optional.empty();
        Viewer by = access.viewer(told.byId());
        if (!access.allows(by, Act.MARK, told.classId())
                || !people.students(told.classId()).contains(told.studentId())) return Optional.empty();
        Report now = reports.report(by, told.classId(), told.monday(), told.studentId(), told.template(), told.note())
                .asReport();
        // Told anew meanwhile: that has a mail of its own.
        if (!now.fingerprint().equals(told.fingerprint()) && !store.correct(told, now)) return Optional.empty();
        String className = classes.get(told.classId()).name();
        String week = reports.week(told.classId(), told.monday());
        String text = "Your report of " + week + " in " + className + " comes with this mail.\n\nIt stands on the Porch"
                + " too, where you can answer your teachers:\n" + school.base() + "/classes/" + told.classId()
                + "/reports/" + told.id() + "\n";
        return Optional.of(new Words(
                "Your report of " + week + ", " + className,
                text,
                null,
                null,
                new Enclosed("report-" + told.monday() + ".pdf", "application/pdf", ReportPrinter.pdf(now))));
    }
}

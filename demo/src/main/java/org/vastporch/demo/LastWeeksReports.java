package org.vastporch.demo;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.reports.ReportRunService;
import org.vastporch.server.reports.ReportRunService.ReportFor;

/** What students were told of the week before this one; this week's reports are still to be made. */
@Component
class LastWeeksReports {

    /** By the place in the roster. */
    private static final Map<Integer, String> NOTES = Map.of(
            0, "You asked the best question of the week. Keep asking.",
            3, "I looked at your pictures twice. Write under them what you saw.",
            10, "Come and see me on Monday: we find out together what was hard.");

    private final ReportRunService runs;
    private final PeopleService people;

    LastWeeksReports(ReportRunService runs, PeopleService people) {
        this.runs = runs;
        this.people = people;
    }

    void send(Viewer teacher, long classId, LocalDate monday, String template) {
        List<Long> students = people.students(classId);
        runs.begin(
                teacher,
                classId,
                monday,
                new ReportRunService.RunWish(
                        template,
                        students.stream()
                                .map(s -> new ReportFor(s, NOTES.getOrDefault(students.indexOf(s), "")))
                                .toList()));
        runs.makeWhatWaits();
    }
}

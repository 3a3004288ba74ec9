package org.vastporch.server.progress;

import java.time.LocalDate;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.http.Csv;

@RestController
class WeeksApi {

    private final WeeksService weeks;
    private final SchoolWeeksService school;

    WeeksApi(WeeksService weeks, SchoolWeeksService school) {
        this.weeks = weeks;
        this.school = school;
    }

    @GetMapping("/api/school/weeks")
    SchoolWeeksService.SchoolWeeks ofSchool(Viewer viewer) {
        return school.weeks(viewer);
    }

    @GetMapping("/api/classes/{id}/weeks")
    WeeksService.WeeksView weeks(
            Viewer viewer,
            @PathVariable long id,
            @RequestParam(defaultValue = "WEEK") WeeksService.By by,
            @RequestParam(required = false) @Nullable Integer term) {
        return weeks.weeks(viewer, id, by, term);
    }

    @GetMapping("/api/classes/{id}/weeks.csv")
    ResponseEntity<byte[]> csv(
            Viewer viewer,
            @PathVariable long id,
            @RequestParam(defaultValue = "WEEK") WeeksService.By by,
            @RequestParam(required = false) @Nullable Integer term) {
        return Csv.file(weeks.csv(viewer, id, by, term), "weeks.csv");
    }

    @GetMapping("/api/classes/{id}/quiet")
    WeeksService.Quiet quiet(Viewer viewer, @PathVariable long id) {
        return weeks.quiet(viewer, id);
    }

    /** The viewer's own row. */
    @GetMapping("/api/classes/{id}/own-weeks")
    WeeksService.OwnWeeks own(Viewer viewer, @PathVariable long id) {
        return weeks.own(viewer, id);
    }

    @GetMapping("/api/classes/{id}/weeks/{monday}/students/{student}")
    WeeksService.WeekOfStudent week(
            Viewer viewer, @PathVariable long id, @PathVariable LocalDate monday, @PathVariable long student) {
        return weeks.week(viewer, id, monday, student);
    }
}

package org.vastporch.server.reports;

import java.time.LocalDate;
import java.util.List;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;

@RestController
class ReportApi {

    private final ReportService reports;
    private final ReportRunService runs;
    private final FiledReportService filed;

    ReportApi(ReportService reports, ReportRunService runs, FiledReportService filed) {
        this.reports = reports;
        this.runs = runs;
        this.filed = filed;
    }

    @GetMapping("/api/classes/{id}/report-templates")
    List<ReportService.TemplateName> templates(Viewer viewer, @PathVariable long id) {
        return reports.templates(viewer, id);
    }

    @GetMapping("/api/classes/{id}/weeks/{monday}/students/{student}/report")
    ReportService.WeekReport report(
            Viewer viewer,
            @PathVariable long id,
            @PathVariable LocalDate monday,
            @PathVariable long student,
            @RequestParam(defaultValue = "letter") String template) {
        return reports.report(viewer, id, monday, student, template, "");
    }

    @GetMapping("/api/classes/{id}/weeks/{monday}/students/{student}/report.pdf")
    ResponseEntity<byte[]> pdf(
            Viewer viewer,
            @PathVariable long id,
            @PathVariable LocalDate monday,
            @PathVariable long student,
            @RequestParam(defaultValue = "letter") String template) {
        ReportService.WeekReport report = reports.report(viewer, id, monday, student, template, "");
        return file("report-" + monday, ReportPrinter.pdf(report.asReport()));
    }

    @GetMapping("/api/classes/{id}/weeks/{monday}/reports")
    ReportRunService.WeekReports week(Viewer viewer, @PathVariable long id, @PathVariable LocalDate monday) {
        return runs.week(viewer, id, monday);
    }

    @PostMapping("/api/classes/{id}/weeks/{monday}/reports")
    ReportRunService.RunView begin(
            Viewer viewer,
            @PathVariable long id,
            @PathVariable LocalDate monday,
            @RequestBody ReportRunService.RunWish body) {
        return runs.begin(viewer, id, monday, body);
    }

    @DeleteMapping("/api/classes/{id}/report-runs/{run}")
    ReportRunService.RunView stop(Viewer viewer, @PathVariable long id, @PathVariable long run) {
        return runs.stop(viewer, id, run);
    }

    @GetMapping("/api/classes/{id}/weeks/{monday}/reports.pdf")
    ResponseEntity<byte[]> printed(Viewer viewer, @PathVariable long id, @PathVariable LocalDate monday) {
        return file("reports-" + monday, filed.week(viewer, id, monday));
    }

    @GetMapping("/api/classes/{id}/my-reports")
    List<FiledReportService.ReportName> own(Viewer viewer, @PathVariable long id) {
        return filed.own(viewer, id);
    }

    @GetMapping("/api/classes/{id}/students/{student}/reports")
    List<FiledReportService.ReportName> ofStudent(Viewer viewer, @PathVariable long id, @PathVariable long student) {
        return filed.ofStudent(viewer, id, student);
    }

    @GetMapping("/api/week-reports/{id}")
    FiledReportService.FiledReport one(Viewer viewer, @PathVariable long id) {
        return filed.one(viewer, id);
    }

    @GetMapping("/api/week-reports/{id}.pdf")
    ResponseEntity<byte[]> onePdf(Viewer viewer, @PathVariable long id) {
        return file("report", filed.pdf(viewer, id));
    }

    private static ResponseEntity<byte[]> file(String name, byte[] pdf) {
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_PDF)
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.inline()
                                .filename(name + ".pdf")
                                .build()
                                .toString())
                .body(pdf);
    }
}

package org.vastporch.server.reports;

import java.time.LocalDate;
import java.util.List;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;

@RestController
class ReportApi {

    private final ReportService reports;

    ReportApi(ReportService reports) {
        this.reports = reports;
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
        return reports.report(viewer, id, monday, student, template);
    }

    @GetMapping("/api/classes/{id}/weeks/{monday}/students/{student}/report.pdf")
    ResponseEntity<byte[]> pdf(
            Viewer viewer,
            @PathVariable long id,
            @PathVariable LocalDate monday,
            @PathVariable long student,
            @RequestParam(defaultValue = "letter") String template) {
        ReportService.WeekReport report = reports.report(viewer, id, monday, student, template);
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_PDF)
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.inline()
                                .filename("report-" + monday + ".pdf")
                                .build()
                                .toString())
                .body(ReportPrinter.pdf(report));
    }
}

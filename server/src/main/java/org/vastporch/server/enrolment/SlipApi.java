package org.vastporch.server.enrolment;

import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.mail.SchoolAddress;

@RestController
class SlipApi {

    private final ClassService classes;
    private final SlipPrinter slips;
    private final SchoolAddress school;

    SlipApi(ClassService classes, SlipPrinter slips, SchoolAddress school) {
        this.classes = classes;
        this.slips = slips;
        this.school = school;
    }

    @GetMapping(path = "/api/classes/{id}/slips.pdf", produces = MediaType.APPLICATION_PDF_VALUE)
    ResponseEntity<byte[]> slips(
            Viewer viewer,
            @PathVariable long id,
            @RequestParam(defaultValue = "0") long person,
            @RequestParam(defaultValue = "A4") SlipPrinter.Paper paper) {
        byte[] pdf = slips.print(viewer, id, classes.get(id).name(), person, school.base() + "/sign-in", paper);
        return ResponseEntity.ok()
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.inline()
                                .filename("sign-in-slips.pdf")
                                .build()
                                .toString())
                .header(HttpHeaders.CACHE_CONTROL, "no-store")
                .body(pdf);
    }
}

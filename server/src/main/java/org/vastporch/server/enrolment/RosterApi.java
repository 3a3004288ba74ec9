package org.vastporch.server.enrolment;

import java.io.IOException;
import java.util.List;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RequestPart;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.enrolment.RosterReader.Column;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;

/** How people come into a class: by the list of the office, by its class word, by invitation. */
@RestController
class RosterApi {

    private static final int LARGEST = 4_000_000;

    /** @param columns what the columns are, where a person has said so */
    record Pasted(String text, @Optionally List<Column> columns) {}

    record RosterRows(List<RosterService.RowView> rows) {}

    /** @param word left out while it is switched off */
    record WordOfClass(@Optionally JoinService.WordView word) {}

    private final RosterService rosters;
    private final RosterJobs jobs;
    private final JoinService joining;
    private final InvitationService invitations;

    RosterApi(RosterService rosters, RosterJobs jobs, JoinService joining, InvitationService invitations) {
        this.rosters = rosters;
        this.jobs = jobs;
        this.joining = joining;
        this.invitations = invitations;
    }

    @PostMapping("/api/classes/{id}/roster/preview")
    RosterService.Preview preview(Viewer viewer, @PathVariable long id, @RequestBody Pasted body) {
        return rosters.preview(viewer, id, body.text(), body.columns() == null ? List.of() : body.columns());
    }

    @PostMapping(path = "/api/classes/{id}/roster/preview-file", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    RosterService.Preview previewFile(
            Viewer viewer,
            @PathVariable long id,
            @RequestPart MultipartFile file,
            @RequestParam(defaultValue = "") List<Column> columns)
            throws IOException {
        if (file.getSize() > LARGEST)
            throw Problem.invalid(
                    "roster",
                    "roster-too-large",
                    "This file is larger than any list of a class. Save the rows of one class as CSV, or paste them.");
        return rosters.preview(viewer, id, file.getBytes(), columns);
    }

    /** Starts an import; how far it is tells the address of its number. */
    @PostMapping("/api/classes/{id}/roster")
    RosterJobs.Import start(Viewer viewer, @PathVariable long id, @RequestBody RosterRows body) {
        return jobs.start(viewer, id, body.rows());
    }

    @GetMapping("/api/imports/{id}")
    RosterJobs.Import get(Viewer viewer, @PathVariable String id) {
        return jobs.get(viewer, id);
    }

    @DeleteMapping("/api/imports/{id}")
    void stop(Viewer viewer, @PathVariable String id) {
        jobs.stop(viewer, id);
    }

    @GetMapping("/api/classes/{id}/word")
    WordOfClass word(Viewer viewer, @PathVariable long id) {
        return new WordOfClass(joining.word(viewer, id));
    }

    @PutMapping("/api/classes/{id}/word")
    WordOfClass setWord(Viewer viewer, @PathVariable long id, @RequestBody JoinService.WordWish body) {
        return new WordOfClass(joining.setWord(viewer, id, body));
    }

    @DeleteMapping("/api/classes/{id}/word")
    void switchOff(Viewer viewer, @PathVariable long id) {
        joining.switchOff(viewer, id);
    }

    @GetMapping("/api/classes/{id}/invitations")
    List<InvitationService.InvitationLine> pending(Viewer viewer, @PathVariable long id) {
        return invitations.pending(viewer, id);
    }

    @PostMapping("/api/classes/{id}/invitations")
    InvitationService.Sent invite(Viewer viewer, @PathVariable long id, @RequestBody InvitationService.Invite body) {
        return invitations.invite(viewer, id, body);
    }

    @PostMapping("/api/invitations/{id}/resend")
    InvitationService.Sent resend(Viewer viewer, @PathVariable long id) {
        return invitations.resend(viewer, id);
    }

    @DeleteMapping("/api/invitations/{id}")
    void withdraw(Viewer viewer, @PathVariable long id) {
        invitations.withdraw(viewer, id);
    }
}

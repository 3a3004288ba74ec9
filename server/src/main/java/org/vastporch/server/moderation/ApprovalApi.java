package org.vastporch.server.moderation;

import java.nio.charset.StandardCharsets;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ContentDisposition;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.moderation.Hold;
import org.vastporch.core.moderation.ModerationTable.Step;
import org.vastporch.core.moderation.Policy;
import org.vastporch.server.http.Optionally;

/** What is set about approving, what was decided, and what one keeps for it. */
@RestController
class ApprovalApi {

    record ApprovalWish(
            @Optionally Policy posts, @Optionally Policy comments) {}

    record TriedText(String text) {}

    record KeptNote(String text) {}

    private final ApprovalService approvals;
    private final DecisionLog log;
    private final ReturnNotes notes;
    private final NoticeService notices;

    ApprovalApi(ApprovalService approvals, DecisionLog log, ReturnNotes notes, NoticeService notices) {
        this.approvals = approvals;
        this.log = log;
        this.notes = notes;
        this.notices = notices;
    }

    @GetMapping("/api/classes/{id}/people/{person}/approval")
    ApprovalService.Approval approval(Viewer viewer, @PathVariable long id, @PathVariable long person) {
        return approvals.of(viewer, id, person);
    }

    @PutMapping("/api/classes/{id}/people/{person}/approval")
    ApprovalService.Approval setApproval(
            Viewer viewer, @PathVariable long id, @PathVariable long person, @RequestBody ApprovalWish body) {
        return approvals.set(viewer, id, person, body.posts(), body.comments());
    }

    @PostMapping("/api/classes/{id}/holds/try")
    List<Hold> tryOut(Viewer viewer, @PathVariable long id, @RequestBody TriedText body) {
        return approvals.tryOut(viewer, id, body.text());
    }

    @GetMapping("/api/classes/{id}/usual-wait")
    ApprovalService.UsualWaitView usualWait(Viewer viewer, @PathVariable long id) {
        return approvals.usualWait(viewer, id);
    }

    @GetMapping("/api/classes/{id}/decisions")
    DecisionLog.DecisionPage decisions(
            Viewer viewer,
            @PathVariable long id,
            @RequestParam(defaultValue = "") String q,
            @RequestParam(required = false) @Nullable Step step,
            @RequestParam(required = false) @Nullable String after) {
        return log.page(viewer, id, new DecisionLog.Wish(q, step), after);
    }

    @GetMapping("/api/classes/{id}/decisions.csv")
    ResponseEntity<byte[]> csv(
            Viewer viewer,
            @PathVariable long id,
            @RequestParam(defaultValue = "") String q,
            @RequestParam(required = false) @Nullable Step step) {
        byte[] body = ("\ufeff" + log.csv(viewer, id, new DecisionLog.Wish(q, step))).getBytes(StandardCharsets.UTF_8);
        return ResponseEntity.ok()
                .contentType(new MediaType("text", "csv", StandardCharsets.UTF_8))
                .header(
                        "Content-Disposition",
                        ContentDisposition.attachment()
                                .filename("decisions.csv")
                                .build()
                                .toString())
                .body(body);
    }

    @GetMapping("/api/return-notes")
    List<ReturnNotes.ReturnNote> notes(Viewer viewer) {
        return notes.of(viewer);
    }

    @PostMapping("/api/return-notes")
    List<ReturnNotes.ReturnNote> keepNote(Viewer viewer, @RequestBody KeptNote body) {
        return notes.keep(viewer, body.text());
    }

    @DeleteMapping("/api/return-notes/{id}")
    List<ReturnNotes.ReturnNote> forgetNote(Viewer viewer, @PathVariable long id) {
        return notes.forget(viewer, id);
    }

    @GetMapping("/api/classes/{id}/notice")
    NoticeService.Notice notice(Viewer viewer, @PathVariable long id) {
        return notices.of(viewer, id);
    }

    @PutMapping("/api/classes/{id}/notice")
    NoticeService.Notice setNotice(Viewer viewer, @PathVariable long id, @RequestBody NoticeService.NoticeWish body) {
        return notices.set(viewer, id, body);
    }
}

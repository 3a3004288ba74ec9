package org.vastporch.server.moderation;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;

@RestController
class PileApi {

    private final PileService pile;

    PileApi(PileService pile) {
        this.pile = pile;
    }

    /** @param reason what is wrong with it, in the reader's words */
    record ReportWish(String reason) {}

    @GetMapping("/api/pile")
    PileService.Pile pile(
            Viewer viewer,
            @RequestParam(required = false) @Nullable Long classId,
            @RequestParam(defaultValue = "") String sort,
            @RequestParam(defaultValue = "100") int most) {
        return pile.pile(viewer, new PileFilter(classId, sort, most));
    }

    @PostMapping("/api/posts/{id}/reports")
    void reportPost(Viewer viewer, @PathVariable long id, @RequestBody ReportWish body) {
        pile.report(viewer, "post", id, body.reason());
    }

    @PostMapping("/api/comments/{id}/reports")
    void reportComment(Viewer viewer, @PathVariable long id, @RequestBody ReportWish body) {
        pile.report(viewer, "comment", id, body.reason());
    }

    @PostMapping("/api/peer-reviews/{id}/reports")
    void reportReview(Viewer viewer, @PathVariable long id, @RequestBody ReportWish body) {
        pile.report(viewer, "review", id, body.reason());
    }

    @PostMapping("/api/pile/decisions")
    List<PileService.Decided> decide(Viewer viewer, @RequestBody PileService.Deciding body) {
        return pile.decide(viewer, body);
    }

    @PostMapping("/api/pile/decisions/{id}/undo")
    PileService.Decided undo(Viewer viewer, @PathVariable long id) {
        return pile.undo(viewer, id);
    }
}

package org.vastporch.server.moderation;

import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;

@RestController
class PileApi {

    private final PileService pile;

    PileApi(PileService pile) {
        this.pile = pile;
    }

    @GetMapping("/api/pile")
    List<PileItem> waiting(Viewer viewer) {
        return pile.waiting(viewer);
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

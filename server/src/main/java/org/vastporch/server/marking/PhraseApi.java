package org.vastporch.server.marking;

import java.util.List;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;

@RestController
class PhraseApi {

    private final PhraseService phrases;

    PhraseApi(PhraseService phrases) {
        this.phrases = phrases;
    }

    @GetMapping("/api/phrases")
    List<PhraseService.PhraseView> offered(
            Viewer viewer,
            @RequestParam(defaultValue = "") String criterion,
            @RequestParam(defaultValue = "") String level) {
        return phrases.offered(viewer, criterion, level);
    }

    @DeleteMapping("/api/phrases/{id}")
    void forget(Viewer viewer, @PathVariable long id) {
        phrases.forget(viewer, id);
    }
}

package org.vastporch.server.margin;

import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.writing.DraftCheck;

@RestController
class MarginApi {

    record Ask(boolean asked) {}

    record NoteAnswer(MarginStore.NoteState answer, int rev) {}

    private final MarginService margin;

    MarginApi(MarginService margin) {
        this.margin = margin;
    }

    @GetMapping("/api/posts/{id}/margin")
    MarginService.Margin of(Viewer viewer, @PathVariable long id) {
        return margin.of(viewer, id);
    }

    @PostMapping("/api/posts/{id}/margin")
    MarginService.NoteView add(Viewer viewer, @PathVariable long id, @RequestBody MarginService.NewNote body) {
        return margin.add(viewer, id, body);
    }

    @PostMapping("/api/posts/{id}/margin/{note}/answer")
    DraftCheck.CheckedDraft answer(
            Viewer viewer, @PathVariable long id, @PathVariable long note, @RequestBody NoteAnswer body) {
        return margin.answer(viewer, id, note, body.answer(), body.rev());
    }

    @PutMapping("/api/posts/{id}/help")
    void ask(Viewer viewer, @PathVariable long id, @RequestBody Ask body) {
        margin.ask(viewer, id, body.asked());
    }

    @GetMapping("/api/classes/{id}/asking")
    List<MarginService.Asking> asking(Viewer viewer, @PathVariable long id) {
        return margin.asking(viewer, id);
    }
}

package org.vastporch.server.marking;

import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;

@RestController
class PaperNoteApi {

    /** @param was what stood there when it was opened */
    record ChangedPaperNote(String was, String text) {}

    private final PaperNoteService notes;

    PaperNoteApi(PaperNoteService notes) {
        this.notes = notes;
    }

    @PostMapping("/api/prompts/{prompt}/marking/{student}/notes")
    PaperNoteService.PaperNote add(
            Viewer viewer,
            @PathVariable long prompt,
            @PathVariable long student,
            @RequestBody PaperNoteService.NewPaperNote body) {
        return notes.add(viewer, prompt, student, body);
    }

    @PutMapping("/api/paper-notes/{id}")
    PaperNoteService.PaperNote change(Viewer viewer, @PathVariable long id, @RequestBody ChangedPaperNote body) {
        return notes.change(viewer, id, body.was(), body.text());
    }

    @DeleteMapping("/api/paper-notes/{id}")
    void remove(Viewer viewer, @PathVariable long id) {
        notes.remove(viewer, id);
    }

    @GetMapping("/api/prompts/{prompt}/feedback/{post}")
    PaperNoteService.NotedPost noted(Viewer viewer, @PathVariable long prompt, @PathVariable long post) {
        return notes.noted(viewer, prompt, post);
    }
}

package org.vastporch.server.asides;

import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.asides.AsideService.AsideList;
import org.vastporch.server.asides.AsideService.AsideView;

@RestController
class AsideApi {

    record NewAside(String text) {}

    record WordToSeveral(List<Long> students, String text) {}

    record Told(int students) {}

    private final AsideService asides;

    AsideApi(AsideService asides) {
        this.asides = asides;
    }

    @GetMapping("/api/posts/{id}/words")
    AsideList wordsOnPost(Viewer viewer, @PathVariable long id) {
        return asides.wordsOnPost(viewer, id);
    }

    @PostMapping("/api/posts/{id}/words")
    AsideView sayOnPost(Viewer viewer, @PathVariable long id, @RequestBody NewAside body) {
        return asides.sayOnPost(viewer, id, body.text());
    }

    @GetMapping("/api/comments/{id}/words")
    AsideList wordsOnComment(Viewer viewer, @PathVariable long id) {
        return asides.wordsOnComment(viewer, id);
    }

    @PostMapping("/api/comments/{id}/words")
    AsideView sayOnComment(Viewer viewer, @PathVariable long id, @RequestBody NewAside body) {
        return asides.sayOnComment(viewer, id, body.text());
    }

    @GetMapping("/api/posts/{id}/staff-thread")
    AsideList onPost(Viewer viewer, @PathVariable long id) {
        return asides.onPost(viewer, id);
    }

    @PostMapping("/api/posts/{id}/staff-thread")
    AsideView addOnPost(Viewer viewer, @PathVariable long id, @RequestBody NewAside body) {
        return asides.addOnPost(viewer, id, body.text());
    }

    @GetMapping("/api/prompts/{id}/staff-thread")
    AsideList onPrompt(Viewer viewer, @PathVariable long id) {
        return asides.onPrompt(viewer, id, null);
    }

    @PostMapping("/api/prompts/{id}/staff-thread")
    AsideView addOnPrompt(Viewer viewer, @PathVariable long id, @RequestBody NewAside body) {
        return asides.addOnPrompt(viewer, id, null, body.text());
    }

    @GetMapping("/api/prompts/{id}/marking/{student}/words")
    AsideList wordsOnPaper(Viewer viewer, @PathVariable long id, @PathVariable long student) {
        return asides.wordsOnPaper(viewer, id, student);
    }

    @PostMapping("/api/prompts/{id}/marking/{student}/words")
    AsideView sayOnPaper(Viewer viewer, @PathVariable long id, @PathVariable long student, @RequestBody NewAside body) {
        return asides.sayOnPaper(viewer, id, student, body.text());
    }

    @GetMapping("/api/prompts/{id}/marking/{student}/staff-thread")
    AsideList onMarking(Viewer viewer, @PathVariable long id, @PathVariable long student) {
        return asides.onPrompt(viewer, id, student);
    }

    @PostMapping("/api/prompts/{id}/marking/{student}/staff-thread")
    AsideView addOnMarking(
            Viewer viewer, @PathVariable long id, @PathVariable long student, @RequestBody NewAside body) {
        return asides.addOnPrompt(viewer, id, student, body.text());
    }

    /** The viewer's own, as a student of the class. */
    @GetMapping("/api/classes/{id}/words")
    AsideList wordsToMe(Viewer viewer, @PathVariable long id) {
        return asides.wordsToMe(viewer, id);
    }

    @PostMapping("/api/classes/{id}/words")
    AsideView sayToStaff(Viewer viewer, @PathVariable long id, @RequestBody NewAside body) {
        return asides.sayToStaff(viewer, id, body.text());
    }

    @GetMapping("/api/classes/{id}/people/{student}/words")
    AsideList wordsToStudent(Viewer viewer, @PathVariable long id, @PathVariable long student) {
        return asides.wordsToStudent(viewer, id, student);
    }

    @PostMapping("/api/classes/{id}/people/{student}/words")
    AsideView sayToStudent(
            Viewer viewer, @PathVariable long id, @PathVariable long student, @RequestBody NewAside body) {
        return asides.sayToStudent(viewer, id, student, body.text());
    }

    @PostMapping("/api/classes/{id}/words/several")
    Told sayToSeveral(Viewer viewer, @PathVariable long id, @RequestBody WordToSeveral body) {
        return new Told(asides.sayToSeveral(viewer, id, body.students(), body.text()));
    }
}

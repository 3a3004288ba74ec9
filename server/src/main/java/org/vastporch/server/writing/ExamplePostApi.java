package org.vastporch.server.writing;

import java.util.List;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.writing.ExampleUse;

@RestController
class ExamplePostApi {

    record WantedExample(long postId) {}

    private final ExamplePostService examples;

    ExamplePostApi(ExamplePostService examples) {
        this.examples = examples;
    }

    @GetMapping("/api/prompts/{id}/examples")
    ExamplePostService.ExamplePosts ofPrompt(Viewer viewer, @PathVariable long id) {
        return examples.ofPrompt(viewer, id);
    }

    @PostMapping("/api/prompts/{id}/examples")
    ExamplePostService.AskedFor ask(Viewer viewer, @PathVariable long id, @RequestBody WantedExample body) {
        return examples.ask(viewer, id, body.postId(), ExampleUse.EXAMPLE);
    }

    /** What the viewer was asked about own posts. */
    @GetMapping("/api/examples")
    List<ExamplePostService.ExampleAsked> asked(Viewer viewer) {
        return examples.asked(viewer);
    }

    @PutMapping("/api/examples/{id}/leave")
    void answer(Viewer viewer, @PathVariable long id, @RequestBody ExamplePostService.Leave body) {
        examples.answer(viewer, id, body);
    }

    @DeleteMapping("/api/examples/{id}")
    void remove(Viewer viewer, @PathVariable long id) {
        examples.remove(viewer, id);
    }
}

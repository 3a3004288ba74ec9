package org.vastporch.server.marking;

import java.util.Objects;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.prompts.PromptService.WantedPrompt;

@RestController
class PromptChangeApi {

    /**
     * @param rev the state of the prompt as whoever changes it saw it
     * @param reason why scores change that students have seen
     * @param following whether those that follow in its series change with it
     */
    record PromptChange(
            int rev,
            WantedPrompt prompt,
            @Optionally String reason,
            @Optionally Boolean following) {}

    private final PromptChanges changes;

    PromptChangeApi(PromptChanges changes) {
        this.changes = changes;
    }

    /** What a change would change for whom; nothing is kept. */
    @PostMapping("/api/prompts/{id}/look")
    PromptChanges.Effects look(
            Viewer viewer,
            @PathVariable long id,
            @RequestBody WantedPrompt body,
            @RequestParam(defaultValue = "false") boolean following) {
        return changes.look(viewer, id, body, following);
    }

    @PutMapping("/api/prompts/{id}")
    void change(Viewer viewer, @PathVariable long id, @RequestBody PromptChange body) {
        changes.change(
                viewer,
                id,
                body.rev(),
                body.prompt(),
                Objects.requireNonNullElse(body.reason(), ""),
                Boolean.TRUE.equals(body.following()));
    }

    @GetMapping("/api/prompts/{prompt}/allowances/{student}")
    PromptChanges.AllowanceView allowance(Viewer viewer, @PathVariable long prompt, @PathVariable long student) {
        return changes.allowance(viewer, prompt, student);
    }

    @PutMapping("/api/prompts/{prompt}/allowances/{student}")
    void allow(
            Viewer viewer,
            @PathVariable long prompt,
            @PathVariable long student,
            @RequestBody PromptChanges.WantedAllowance body) {
        changes.allow(viewer, prompt, student, body);
    }
}

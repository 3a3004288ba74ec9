package org.vastporch.server.prompts;

import java.math.BigDecimal;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.calendar.Term;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.core.writing.HandIn;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.prompts.PromptService.PromptRecord;

@RestController
class PromptApi {

    /**
     * @param late whether what is handed in now is late
     * @param commentsOpen whether the comments it asks for can still be given
     */
    record PromptView(
            long id,
            String title,
            String instructions,
            List<String> questions,
            @Optionally String tag,
            Instant opens,
            Instant due,
            boolean late,
            BigDecimal points,
            HandIn.Asked asked,
            @Optionally Instant commentsDue,
            boolean commentsOpen,
            int commentsWords,
            String starter,
            boolean answerFirst,
            @Optionally Rubric rubric) {}

    record SetPrompt(long id) {}

    private final PromptService prompts;
    private final Clock clock;

    PromptApi(PromptService prompts, Clock clock) {
        this.prompts = prompts;
        this.clock = clock;
    }

    @GetMapping("/api/classes/{id}/prompts")
    List<PromptView> list(Viewer viewer, @PathVariable long id) {
        return prompts.ofClass(viewer, id).stream().map(this::view).toList();
    }

    @PostMapping("/api/classes/{id}/prompts")
    SetPrompt set(Viewer viewer, @PathVariable long id, @RequestBody PromptService.WantedPrompt body) {
        return new SetPrompt(prompts.set(viewer, id, body));
    }

    @GetMapping("/api/prompts/{id}")
    PromptView get(Viewer viewer, @PathVariable long id) {
        return view(prompts.forMember(viewer, id));
    }

    private PromptView view(PromptRecord p) {
        Instant now = clock.instant();
        return new PromptView(
                p.id(),
                p.title(),
                p.instructions(),
                p.questions(),
                p.tag(),
                p.opens(),
                p.due(),
                !Term.isOnTime(now, p.due(), p.grace()),
                p.points(),
                p.asked(),
                p.commentsDue(),
                p.commentsAsked().isOpen(now, p.due()),
                p.commentsWords(),
                p.starter(),
                p.answerFirst(),
                p.rubric());
    }
}

package org.vastporch.server.prompts;

import java.math.BigDecimal;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.marking.Allowance;
import org.vastporch.core.marking.Deadline;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.core.prompts.Reviews;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.core.writing.HandIn;
import org.vastporch.server.http.Optionally;

@RestController
class PromptApi {

    /**
     * @param due when it is due; for a student with a date of their own, that
     * @param ownDate whether that is so
     * @param letOff whether nothing is asked of the viewer
     * @param late whether what is handed in now is late
     * @param closed whether nothing comes in any more
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
            boolean ownDate,
            boolean letOff,
            boolean late,
            boolean closed,
            BigDecimal points,
            HandIn.Asked asked,
            @Optionally Instant commentsDue,
            boolean commentsOpen,
            int commentsWords,
            String starter,
            @Optionally String example,
            PromptService.WantedAnswers answers,
            @Optionally Instant closes,
            @Optionally Long bundleId,
            @Optionally Rubric rubric,
            Reviews reviews) {}

    record SetPrompt(long id) {}

    record Repeated(int set) {}

    private final PromptService prompts;
    private final BundleService bundles;
    private final Clock clock;

    PromptApi(PromptService prompts, BundleService bundles, Clock clock) {
        this.prompts = prompts;
        this.bundles = bundles;
        this.clock = clock;
    }

    @GetMapping("/api/classes/{id}/prompts")
    List<PromptView> list(Viewer viewer, @PathVariable long id) {
        List<Prompt> found = prompts.ofClass(viewer, id);
        Map<Long, Map<Long, Allowance>> allowances =
                prompts.allowances(found.stream().map(Prompt::id).toList());
        // Examples are long, and looked at one by one.
        return found.stream()
                .map(p -> view(
                        p.withTexts(p.instructions(), p.starter(), ""),
                        allowances.getOrDefault(p.id(), Map.of()).getOrDefault(viewer.personId(), Allowance.NONE),
                        prompts.seesRubric(viewer, p)))
                .toList();
    }

    @PostMapping("/api/classes/{id}/prompts")
    SetPrompt set(Viewer viewer, @PathVariable long id, @RequestBody PromptService.WantedPrompt body) {
        return new SetPrompt(prompts.set(viewer, id, body));
    }

    /** Sets a prompt for each week of the term that is left. */
    @PostMapping("/api/classes/{id}/prompts/repeat")
    Repeated repeat(Viewer viewer, @PathVariable long id, @RequestBody PromptService.WantedPrompt body) {
        return new Repeated(prompts.repeat(viewer, id, body));
    }

    /** The prompt as it is to be changed or copied, for those who set prompts. */
    @GetMapping("/api/prompts/{id}/editable")
    PromptService.Editable editable(
            Viewer viewer, @PathVariable long id, @RequestParam(defaultValue = "0") int weeksLater) {
        return prompts.editable(viewer, id, weeksLater);
    }

    @GetMapping("/api/classes/{id}/bundles")
    BundleService.BundlesView bundles(Viewer viewer, @PathVariable long id) {
        return bundles.ofClass(viewer, id);
    }

    @PutMapping("/api/classes/{id}/bundles")
    BundleService.BundlesView setBundles(
            Viewer viewer, @PathVariable long id, @RequestBody BundleService.BundlesView body) {
        return bundles.set(viewer, id, body);
    }

    @GetMapping("/api/prompts/{id}")
    PromptView get(Viewer viewer, @PathVariable long id) {
        Prompt prompt = prompts.forMember(viewer, id);
        return view(prompt, prompts.allowance(id, viewer.personId()), prompts.seesRubric(viewer, prompt));
    }

    /** @param showsRubric whether the viewer sees it before there are marks */
    private PromptView view(Prompt p, Allowance allowance, boolean showsRubric) {
        Instant now = clock.instant();
        Deadline deadline = p.deadline(allowance);
        return new PromptView(
                p.id(),
                p.title(),
                p.instructions(),
                p.questions(),
                p.tag(),
                p.opens(),
                deadline.due(),
                allowance.due() != null,
                allowance.letOff(),
                deadline.isOver(now),
                p.isClosed(now, allowance),
                p.points(),
                p.asked(),
                p.commentsAsked(allowance).due(),
                p.commentsAsked(allowance).isOpen(now, p.due()),
                p.commentsWords(),
                p.starter(),
                p.example().isEmpty() ? null : p.example(),
                prompts.answersTo(p),
                p.closes(),
                p.bundleId(),
                showsRubric ? p.rubric() : null,
                p.reviews());
    }
}

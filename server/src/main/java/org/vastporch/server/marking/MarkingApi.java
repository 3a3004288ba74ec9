package org.vastporch.server.marking;

import java.math.BigDecimal;
import java.util.List;
import java.util.Map;
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

@RestController
class MarkingApi {

    /**
     * @param seen the paper as its marker had it before them
     * @param reason why it changes, once its student has seen it
     */
    record Given(
            PaperService.Seen seen,
            @Optionally BigDecimal points,
            @Optionally Boolean notCounted,
            String remark,
            @Optionally String reason) {}

    record Word(
            PaperService.Seen seen, String word, @Optionally String reason) {}

    record Taking(PaperService.Seen seen, long post, int version, boolean taken) {}

    record TakingBack(PaperService.Seen seen, @Optionally String reason) {}

    /** @param papers the finished ones that are to be released, or taken over, as they were seen */
    record Releasing(List<ReleaseService.SeenPaper> papers) {}

    private final PaperService papers;
    private final MarkingService marking;
    private final ReleaseService releases;
    private final PlannedReleases planned;
    private final TogetherService together;
    private final FeedbackService feedback;
    private final DueService due;

    MarkingApi(
            PaperService papers,
            MarkingService marking,
            ReleaseService releases,
            PlannedReleases planned,
            TogetherService together,
            FeedbackService feedback,
            DueService due) {
        this.papers = papers;
        this.marking = marking;
        this.releases = releases;
        this.planned = planned;
        this.together = together;
        this.due = due;
        this.feedback = feedback;
    }

    @GetMapping("/api/prompts/{prompt}/marking")
    PaperService.Strip strip(
            Viewer viewer, @PathVariable long prompt, @RequestParam(defaultValue = "false") boolean blind) {
        return papers.strip(viewer, prompt, blind);
    }

    @GetMapping("/api/prompts/{prompt}/marking/{student}")
    PaperService.Paper paper(Viewer viewer, @PathVariable long prompt, @PathVariable long student) {
        return papers.paper(viewer, prompt, student);
    }

    /** What the student was given before on criteria of the same names. */
    @GetMapping("/api/prompts/{prompt}/marking/{student}/earlier")
    Map<String, List<PaperService.EarlierMark>> earlier(
            Viewer viewer, @PathVariable long prompt, @PathVariable long student) {
        return papers.earlier(viewer, prompt, student);
    }

    @PutMapping("/api/prompts/{prompt}/marking/{student}/criteria/{criterion}")
    PaperService.Standing mark(
            Viewer viewer,
            @PathVariable long prompt,
            @PathVariable long student,
            @PathVariable String criterion,
            @RequestBody Given body) {
        return marking.mark(
                viewer,
                prompt,
                student,
                body.seen(),
                criterion,
                new MarkingService.Given(
                        body.points(),
                        Boolean.TRUE.equals(body.notCounted()),
                        body.remark(),
                        Objects.requireNonNullElse(body.reason(), "")));
    }

    @PutMapping("/api/prompts/{prompt}/marking/{student}/word")
    PaperService.Standing word(
            Viewer viewer, @PathVariable long prompt, @PathVariable long student, @RequestBody Word body) {
        return marking.word(
                viewer, prompt, student, body.seen(), body.word(), Objects.requireNonNullElse(body.reason(), ""));
    }

    /** Takes what was handed in again after the time, or leaves it again. */
    @PutMapping("/api/prompts/{prompt}/marking/{student}/taken")
    PaperService.Paper take(
            Viewer viewer, @PathVariable long prompt, @PathVariable long student, @RequestBody Taking body) {
        return marking.take(viewer, prompt, student, body.seen(), body.post(), body.version(), body.taken());
    }

    @PostMapping("/api/prompts/{prompt}/marking/{student}/take-back")
    PaperService.Standing takeBack(
            Viewer viewer, @PathVariable long prompt, @PathVariable long student, @RequestBody TakingBack body) {
        return releases.takeBack(viewer, prompt, student, body.seen(), Objects.requireNonNullElse(body.reason(), ""));
    }

    /** Says who handed in a paper together. */
    @PutMapping("/api/prompts/{prompt}/marking/{student}/members")
    PaperService.Paper setMembers(
            Viewer viewer,
            @PathVariable long prompt,
            @PathVariable long student,
            @RequestBody TogetherService.WantedMembers body) {
        return together.set(viewer, prompt, student, body);
    }

    @GetMapping("/api/prompts/{prompt}/marking/{student}/history")
    List<ScoreEventStore.ScoreLine> history(Viewer viewer, @PathVariable long prompt, @PathVariable long student) {
        return releases.history(viewer, prompt, student);
    }

    @PostMapping("/api/prompts/{prompt}/marking/release")
    ReleaseService.Released release(Viewer viewer, @PathVariable long prompt, @RequestBody Releasing body) {
        return releases.release(viewer, prompt, body.papers());
    }

    @PostMapping("/api/prompts/{prompt}/marking/take-over")
    ReleaseService.TakenOver takeOver(Viewer viewer, @PathVariable long prompt, @RequestBody Releasing body) {
        return releases.takeOver(viewer, prompt, body.papers());
    }

    @GetMapping("/api/prompts/{prompt}/marking/release-time")
    PlannedReleases.PlannedRelease planned(Viewer viewer, @PathVariable long prompt) {
        return planned.of(viewer, prompt);
    }

    @PutMapping("/api/prompts/{prompt}/marking/release-time")
    PlannedReleases.PlannedRelease plan(
            Viewer viewer, @PathVariable long prompt, @RequestBody PlannedReleases.PlannedRelease body) {
        return planned.plan(viewer, prompt, body);
    }

    /** What is due for the viewer, a student there. */
    @GetMapping("/api/classes/{id}/due")
    List<DueService.DueLine> due(Viewer viewer, @PathVariable long id) {
        return due.due(viewer, id);
    }

    @GetMapping("/api/classes/{id}/feedback")
    FeedbackService.FeedbackView feedback(Viewer viewer, @PathVariable long id) {
        return feedback.feedback(viewer, id);
    }
}

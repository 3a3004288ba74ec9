package org.vastporch.server.marking;

import java.math.BigDecimal;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.http.Optionally;

@RestController
class MarkingApi {

    /** @param seen the paper as its marker had it before them */
    record Given(MarkingService.Seen seen, @Optionally BigDecimal points, String remark) {}

    record Word(MarkingService.Seen seen, String word) {}

    /** @param papers the finished ones that are to be released, as they were seen */
    record Releasing(List<MarkingService.SeenPaper> papers) {}

    private final MarkingService marking;

    MarkingApi(MarkingService marking) {
        this.marking = marking;
    }

    @GetMapping("/api/prompts/{prompt}/marking")
    MarkingService.Strip strip(Viewer viewer, @PathVariable long prompt) {
        return marking.strip(viewer, prompt);
    }

    @GetMapping("/api/prompts/{prompt}/marking/{student}")
    MarkingService.Paper paper(Viewer viewer, @PathVariable long prompt, @PathVariable long student) {
        return marking.paper(viewer, prompt, student);
    }

    @PutMapping("/api/prompts/{prompt}/marking/{student}/criteria/{criterion}")
    MarkingService.Paper mark(
            Viewer viewer,
            @PathVariable long prompt,
            @PathVariable long student,
            @PathVariable int criterion,
            @RequestBody Given body) {
        return marking.mark(viewer, prompt, student, body.seen(), criterion, body.points(), body.remark());
    }

    @PutMapping("/api/prompts/{prompt}/marking/{student}/word")
    MarkingService.Paper word(
            Viewer viewer, @PathVariable long prompt, @PathVariable long student, @RequestBody Word body) {
        return marking.word(viewer, prompt, student, body.seen(), body.word());
    }

    @PostMapping("/api/prompts/{prompt}/marking/release")
    MarkingService.Released release(Viewer viewer, @PathVariable long prompt, @RequestBody Releasing body) {
        return marking.release(viewer, prompt, body.papers());
    }

    @GetMapping("/api/classes/{id}/feedback")
    List<MarkingService.Feedback> feedback(Viewer viewer, @PathVariable long id) {
        return marking.feedback(viewer, id);
    }
}

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

    record Given(@Optionally BigDecimal points, String remark) {}

    record Word(String word) {}

    record Released(int released) {}

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
    MarkingService.Paper mark(Viewer viewer, @PathVariable long prompt, @PathVariable long student, @PathVariable int criterion, @RequestBody Given body) {
        return marking.mark(viewer, prompt, student, criterion, body.points(), body.remark());
    }

    @PutMapping("/api/prompts/{prompt}/marking/{student}/word")
    MarkingService.Paper word(Viewer viewer, @PathVariable long prompt, @PathVariable long student, @RequestBody Word body) {
        return marking.word(viewer, prompt, student, body.word());
    }

    @PostMapping("/api/prompts/{prompt}/marking/release")
    Released release(Viewer viewer, @PathVariable long prompt) {
        return new Released(marking.release(viewer, prompt));
    }

    @GetMapping("/api/classes/{id}/feedback")
    List<MarkingService.Feedback> feedback(Viewer viewer, @PathVariable long id) {
        return marking.feedback(viewer, id);
    }
}

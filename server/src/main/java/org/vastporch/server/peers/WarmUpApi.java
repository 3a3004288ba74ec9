package org.vastporch.server.peers;

import java.math.BigDecimal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.marking.OwnViewService.Own;

@RestController
class WarmUpApi {

    /** @param rev the state in which it was seen; 0 for a new one */
    record WarmUpText(int rev, String title, String html) {}

    record WarmUpPost(long postId) {}

    record WarmUpMark(int rev, @Optionally BigDecimal points, String remark) {}

    record WarmUpWord(int rev, String word) {}

    record WarmUpStep(int rev, @Optionally BigDecimal points) {}

    record WarmUpDone(int rev) {}

    private final WarmUpPaperService papers;
    private final WarmUpService warmUps;

    WarmUpApi(WarmUpPaperService papers, WarmUpService warmUps) {
        this.papers = papers;
        this.warmUps = warmUps;
    }

    @GetMapping("/api/prompts/{prompt}/warm-ups")
    WarmUpPaperService.WarmUpPapers ofPrompt(Viewer viewer, @PathVariable long prompt) {
        return papers.ofPrompt(viewer, prompt);
    }

    @PostMapping("/api/prompts/{prompt}/warm-ups")
    WarmUpPaperService.WarmUpPapers add(Viewer viewer, @PathVariable long prompt, @RequestBody WarmUpText body) {
        return papers.add(viewer, prompt, body.title(), body.html());
    }

    @PostMapping("/api/prompts/{prompt}/warm-ups/asked")
    WarmUpPaperService.WarmUpPapers ask(Viewer viewer, @PathVariable long prompt, @RequestBody WarmUpPost body) {
        return papers.ask(viewer, prompt, body.postId());
    }

    @PutMapping("/api/warm-ups/{id}/text")
    WarmUpPaperService.WarmUpPaper change(Viewer viewer, @PathVariable long id, @RequestBody WarmUpText body) {
        return papers.change(viewer, id, body.rev(), body.title(), body.html());
    }

    @PutMapping("/api/warm-ups/{id}/given/criteria/{criterion}")
    Own give(Viewer viewer, @PathVariable long id, @PathVariable String criterion, @RequestBody WarmUpMark body) {
        return papers.mark(viewer, id, body.rev(), criterion, body.points(), body.remark());
    }

    @PutMapping("/api/warm-ups/{id}/given/word")
    Own word(Viewer viewer, @PathVariable long id, @RequestBody WarmUpWord body) {
        return papers.word(viewer, id, body.rev(), body.word());
    }

    @DeleteMapping("/api/warm-ups/{id}")
    WarmUpPaperService.WarmUpPapers remove(Viewer viewer, @PathVariable long id) {
        return papers.remove(viewer, id);
    }

    @GetMapping("/api/warm-ups/{id}")
    WarmUpService.WarmUpPage page(Viewer viewer, @PathVariable long id) {
        return warmUps.page(viewer, id);
    }

    @PutMapping("/api/warm-ups/{id}/criteria/{criterion}")
    Own mark(Viewer viewer, @PathVariable long id, @PathVariable String criterion, @RequestBody WarmUpStep body) {
        return warmUps.mark(viewer, id, body.rev(), criterion, body.points());
    }

    @PostMapping("/api/warm-ups/{id}/done")
    WarmUpService.WarmUpPage done(Viewer viewer, @PathVariable long id, @RequestBody WarmUpDone body) {
        return warmUps.done(viewer, id, body.rev());
    }
}

package org.vastporch.server.marking;

import java.math.BigDecimal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.http.Optionally;

@RestController
class OwnViewApi {

    /** @param rev the state in which it was seen */
    record OwnMark(int rev, @Optionally BigDecimal points, String remark) {}

    record OwnWord(int rev, String word) {}

    private final OwnViewService views;

    OwnViewApi(OwnViewService views) {
        this.views = views;
    }

    @GetMapping("/api/prompts/{prompt}/own-view")
    OwnViewService.OwnViewPage page(Viewer viewer, @PathVariable long prompt) {
        return views.page(viewer, prompt);
    }

    @PutMapping("/api/prompts/{prompt}/own-view/criteria/{criterion}")
    OwnViewService.Own mark(
            Viewer viewer, @PathVariable long prompt, @PathVariable String criterion, @RequestBody OwnMark body) {
        return views.mark(viewer, prompt, body.rev(), criterion, body.points(), body.remark());
    }

    @PutMapping("/api/prompts/{prompt}/own-view/word")
    OwnViewService.Own word(Viewer viewer, @PathVariable long prompt, @RequestBody OwnWord body) {
        return views.word(viewer, prompt, body.rev(), body.word());
    }
}

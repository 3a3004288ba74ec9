package org.vastporch.server.sameness;

import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;

@RestController
class SamenessApi {

    /** Two answers by the numbers of their posts, in any order. */
    record TwoPosts(long first, long second) {}

    /** @param reason empty to take it back */
    record PuttingAside(long first, long second, String reason) {}

    private final SamenessService sameness;

    SamenessApi(SamenessService sameness) {
        this.sameness = sameness;
    }

    @GetMapping("/api/prompts/{prompt}/sameness")
    SamenessService.SamenessView pairs(Viewer viewer, @PathVariable long prompt) {
        return sameness.pairs(viewer, prompt);
    }

    @GetMapping("/api/prompts/{prompt}/marking/{student}/sameness")
    SamenessService.SameOf of(Viewer viewer, @PathVariable long prompt, @PathVariable long student) {
        return sameness.of(viewer, prompt, student);
    }

    /** Both texts; it is noted who looks. */
    @PostMapping("/api/prompts/{prompt}/sameness/looks")
    SamenessService.SameTexts look(Viewer viewer, @PathVariable long prompt, @RequestBody TwoPosts body) {
        return sameness.look(viewer, prompt, body.first(), body.second());
    }

    @PutMapping("/api/prompts/{prompt}/sameness/aside")
    void putAside(Viewer viewer, @PathVariable long prompt, @RequestBody PuttingAside body) {
        sameness.putAside(viewer, prompt, body.first(), body.second(), body.reason());
    }
}

package org.vastporch.server.peers;

import java.util.List;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;

@RestController
class PeerRoundApi {

    /**
     * @param seed the same one makes the same plan
     * @param kept what was chosen by hand and stays
     */
    record WantedPlan(long seed, List<PeerRoundService.Pair> kept) {}

    /** @param reviews all of them, as they were seen */
    record GivenOut(List<PeerRoundService.Pair> reviews) {}

    private final PeerRoundService rounds;

    PeerRoundApi(PeerRoundService rounds) {
        this.rounds = rounds;
    }

    @GetMapping("/api/classes/{id}/peer-rounds")
    List<PeerRoundService.RoundInClass> ofClass(Viewer viewer, @PathVariable long id) {
        return rounds.ofClass(viewer, id);
    }

    @GetMapping("/api/prompts/{prompt}/peer-round")
    PeerRoundService.RoundView round(Viewer viewer, @PathVariable long prompt) {
        return rounds.round(viewer, prompt);
    }

    @PostMapping("/api/prompts/{prompt}/peer-round/plan")
    PeerRoundService.PlanView plan(Viewer viewer, @PathVariable long prompt, @RequestBody WantedPlan body) {
        return rounds.plan(viewer, prompt, body.seed(), body.kept());
    }

    @PostMapping("/api/prompts/{prompt}/peer-round")
    PeerRoundService.RoundView giveOut(Viewer viewer, @PathVariable long prompt, @RequestBody GivenOut body) {
        return rounds.giveOut(viewer, prompt, body.reviews());
    }

    @PostMapping("/api/prompts/{prompt}/peer-round/reviews")
    PeerRoundService.RoundView add(Viewer viewer, @PathVariable long prompt, @RequestBody PeerRoundService.Pair body) {
        return rounds.add(viewer, prompt, body);
    }

    @PostMapping("/api/peer-reviews/{id}/passed-on")
    PeerRoundService.RoundView passOn(Viewer viewer, @PathVariable long id) {
        return rounds.passOn(viewer, id);
    }

    @DeleteMapping("/api/peer-reviews/{id}")
    PeerRoundService.RoundView takeBack(Viewer viewer, @PathVariable long id) {
        return rounds.takeBack(viewer, id);
    }
}

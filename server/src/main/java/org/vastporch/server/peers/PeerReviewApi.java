package org.vastporch.server.peers;

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
import org.vastporch.server.marking.OwnViewService.Own;

@RestController
class PeerReviewApi {

    /** @param rev the state in which it was seen */
    record PeerMark(int rev, @Optionally BigDecimal points, String remark) {}

    record PeerWord(int rev, String word) {}

    record PeerAnswer(int rev, String answer) {}

    record PeerSent(int rev) {}

    /** @param why may be empty */
    record Helped(boolean helped, String why) {}

    private final PeerReviewService reviews;

    PeerReviewApi(PeerReviewService reviews) {
        this.reviews = reviews;
    }

    @GetMapping("/api/classes/{id}/peer-reviews")
    List<PeerReviewService.ReviewToGive> toGive(Viewer viewer, @PathVariable long id) {
        return reviews.toGive(viewer, id);
    }

    @GetMapping("/api/peer-reviews/{id}")
    PeerReviewService.PeerReviewPage page(Viewer viewer, @PathVariable long id) {
        return reviews.page(viewer, id);
    }

    @PutMapping("/api/peer-reviews/{id}/criteria/{criterion}")
    Own mark(Viewer viewer, @PathVariable long id, @PathVariable String criterion, @RequestBody PeerMark body) {
        return reviews.mark(viewer, id, body.rev(), criterion, body.points(), body.remark());
    }

    @PutMapping("/api/peer-reviews/{id}/word")
    Own word(Viewer viewer, @PathVariable long id, @RequestBody PeerWord body) {
        return reviews.word(viewer, id, body.rev(), body.word());
    }

    @PutMapping("/api/peer-reviews/{id}/answers/{no}")
    Own answer(Viewer viewer, @PathVariable long id, @PathVariable int no, @RequestBody PeerAnswer body) {
        return reviews.answer(viewer, id, body.rev(), no, body.answer());
    }

    @PostMapping("/api/peer-reviews/{id}/sent")
    PeerReviewService.PeerReviewPage send(Viewer viewer, @PathVariable long id, @RequestBody PeerSent body) {
        return reviews.send(viewer, id, body.rev());
    }

    @GetMapping("/api/prompts/{prompt}/peer-reviews")
    PeerReviewService.ReceivedReviews ofMine(Viewer viewer, @PathVariable long prompt) {
        return reviews.ofMine(viewer, prompt);
    }

    @GetMapping("/api/prompts/{prompt}/peer-reviews/{student}")
    PeerReviewService.ReceivedReviews ofPaper(Viewer viewer, @PathVariable long prompt, @PathVariable long student) {
        return reviews.ofPaper(viewer, prompt, student);
    }

    @PutMapping("/api/peer-reviews/{id}/helped")
    PeerReviewService.ReceivedReviews helped(Viewer viewer, @PathVariable long id, @RequestBody Helped body) {
        return reviews.helped(viewer, id, body.helped(), body.why());
    }
}

package org.vastporch.server.writing;

import java.util.List;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.feeds.OutsideTime;
import org.vastporch.server.http.Optionally;

@RestController
class WritingApi {

    record Begin(@Optionally Long promptId) {}

    record Begun(long id) {}

    record Rev(int rev) {}

    record Announce(boolean announcement) {}

    private final PostService posts;
    private final OwnPostService own;
    private final VersionService versions;
    private final CategoryService categories;

    private final AnsweredPromptService answered;
    private final OutsideTimeService times;

    WritingApi(
            PostService posts,
            OwnPostService own,
            VersionService versions,
            CategoryService categories,
            AnsweredPromptService answered,
            OutsideTimeService times) {
        this.answered = answered;
        this.times = times;
        this.posts = posts;
        this.own = own;
        this.versions = versions;
        this.categories = categories;
    }

    @GetMapping("/api/classes/{id}/own-posts")
    List<OwnPostService.OwnPost> own(Viewer viewer, @PathVariable long id) {
        return own.own(viewer, id);
    }

    @PostMapping("/api/blogs/{id}/posts")
    Begun begin(Viewer viewer, @PathVariable long id, @RequestBody Begin body) {
        return new Begun(posts.begin(viewer, id, body.promptId()));
    }

    @GetMapping("/api/posts/{id}/draft")
    PostService.Draft draft(Viewer viewer, @PathVariable long id) {
        return posts.draft(viewer, id);
    }

    @PutMapping("/api/posts/{id}/draft")
    DraftCheck.CheckedDraft save(Viewer viewer, @PathVariable long id, @RequestBody PostService.Save body) {
        return posts.save(viewer, id, body);
    }

    @PostMapping("/api/posts/{id}/hand-in")
    DraftCheck.CheckedDraft handIn(Viewer viewer, @PathVariable long id, @RequestBody PostService.HandingIn body) {
        return posts.handIn(viewer, id, body);
    }

    @PutMapping("/api/posts/{id}/announcement")
    void announce(Viewer viewer, @PathVariable long id, @RequestBody Announce body) {
        posts.announce(viewer, id, body.announcement());
    }

    @GetMapping("/api/posts/{id}/versions")
    List<VersionService.VersionView> versions(Viewer viewer, @PathVariable long id) {
        return versions.ofPost(viewer, id);
    }

    @GetMapping("/api/posts/{id}/versions/{no}")
    VersionService.OneVersion version(Viewer viewer, @PathVariable long id, @PathVariable int no) {
        return versions.one(viewer, id, no);
    }

    @PostMapping("/api/posts/{id}/versions/{no}/bring-back")
    DraftCheck.CheckedDraft bringBack(
            Viewer viewer, @PathVariable long id, @PathVariable int no, @RequestBody Rev body) {
        return versions.bringBack(viewer, id, no, body.rev());
    }

    @GetMapping("/api/classes/{id}/categories")
    List<CategoryService.Category> categories(Viewer viewer, @PathVariable long id) {
        return categories.ofClass(viewer, id);
    }

    @PutMapping("/api/classes/{id}/categories")
    List<CategoryService.Category> setCategories(
            Viewer viewer, @PathVariable long id, @RequestBody List<CategoryService.Wanted> body) {
        return categories.set(viewer, id, body);
    }

    /** What goes up by itself later, for the staff. */
    @GetMapping("/api/classes/{id}/scheduled")
    List<OwnPostService.ScheduledPost> scheduled(Viewer viewer, @PathVariable long id) {
        return own.scheduled(viewer, id);
    }

    @DeleteMapping("/api/posts/{id}")
    void bin(Viewer viewer, @PathVariable long id) {
        posts.bin(viewer, id);
    }

    /** Shows a hidden post again. */
    @PostMapping("/api/posts/{id}/show")
    void show(Viewer viewer, @PathVariable long id) {
        posts.show(viewer, id);
    }

    @PostMapping("/api/posts/{id}/restore")
    void restore(Viewer viewer, @PathVariable long id) {
        posts.restore(viewer, id);
    }

    /** Which prompt a post from outside answers, for its author and staff. */
    @GetMapping("/api/posts/{id}/answered-prompt")
    AnsweredPromptService.PromptAnswered answeredPrompt(Viewer viewer, @PathVariable long id) {
        return answered.get(viewer, id);
    }

    /** The posts from outside that answer a prompt, for staff. */
    @GetMapping("/api/prompts/{id}/outside-posts")
    List<AnsweredPromptService.OutsideAnswer> outsideAnswers(Viewer viewer, @PathVariable long id) {
        return answered.ofPrompt(viewer, id);
    }

    /** When a gathered post counts as handed in, for its author and the staff. */
    @GetMapping("/api/posts/{id}/outside-time")
    OutsideTimeService.OutsideTimeView outsideTime(Viewer viewer, @PathVariable long id) {
        return times.get(viewer, id);
    }

    record OutsideTimeWish(OutsideTime.Counts counts, int rev) {}

    @PutMapping("/api/posts/{id}/outside-time")
    OutsideTimeService.OutsideTimeView setOutsideTime(
            Viewer viewer, @PathVariable long id, @RequestBody OutsideTimeWish body) {
        return times.decide(viewer, id, body.counts(), body.rev());
    }

    /** @param promptId left out for none */
    record PromptWish(@Optionally Long promptId) {}

    @PutMapping("/api/posts/{id}/answered-prompt")
    AnsweredPromptService.PromptAnswered setAnsweredPrompt(
            Viewer viewer, @PathVariable long id, @RequestBody PromptWish body) {
        return answered.set(viewer, id, body.promptId());
    }
}

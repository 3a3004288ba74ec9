package org.vastporch.server.posts;

import java.time.YearMonth;
import java.util.List;
import org.springframework.web.bind.annotation.DeleteMapping;
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
class PostApi {

    record Begin(@Optionally Long promptId) {}

    record Begun(long id) {}

    record Rev(int rev) {}

    private final PostService posts;
    private final PorchService porch;

    PostApi(PostService posts, PorchService porch) {
        this.posts = posts;
        this.porch = porch;
    }

    @GetMapping("/api/classes/{id}/porch")
    PorchService.Porch porch(Viewer viewer, @PathVariable long id, @RequestParam(required = false) Integer fromWeek, @RequestParam(required = false) Integer toWeek,
                             @RequestParam(required = false) YearMonth month, @RequestParam(required = false) Long place, @RequestParam(required = false) Long group,
                             @RequestParam(required = false) Long prompt, @RequestParam(required = false) String tag,
                             @RequestParam(defaultValue = "false") boolean unanswered, @RequestParam(required = false) Long blog,
                             @RequestParam(defaultValue = "false") boolean oldestFirst, @RequestParam(defaultValue = "50") int most,
                             @RequestParam(required = false) String after) {
        return porch.porch(viewer, id, new PorchService.Wish(fromWeek, toWeek, month, place, group, prompt, tag, unanswered, blog, oldestFirst, most, after));
    }

    @GetMapping("/api/classes/{id}/rail")
    PorchService.Rail rail(Viewer viewer, @PathVariable long id, @RequestParam(required = false) Long place, @RequestParam(required = false) Long blog) {
        return porch.rail(viewer, id, place, blog);
    }

    /** The blogs of a class, for its readers. */
    @GetMapping("/api/classes/{id}/directory")
    List<PorchService.DirectoryLine> directory(Viewer viewer, @PathVariable long id) {
        return porch.directory(viewer, id);
    }

    /** What is pinned in a blog, and its series. */
    @GetMapping("/api/blogs/{id}/shelf")
    PorchService.Shelf shelf(Viewer viewer, @PathVariable long id) {
        return porch.shelf(viewer, id);
    }

    @PutMapping("/api/posts/{id}/arrangement")
    void arrange(Viewer viewer, @PathVariable long id, @RequestBody PorchService.Arrange body) {
        porch.arrange(viewer, id, body);
    }

    @GetMapping("/api/classes/{id}/own-posts")
    List<PorchService.OwnPost> own(Viewer viewer, @PathVariable long id) {
        return porch.own(viewer, id);
    }

    @GetMapping("/api/posts/{id}")
    PorchService.PostView post(Viewer viewer, @PathVariable long id) {
        return porch.post(viewer, id);
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
    PostService.Beside save(Viewer viewer, @PathVariable long id, @RequestBody PostService.Save body) {
        return posts.save(viewer, id, body);
    }

    @PostMapping("/api/posts/{id}/hand-in")
    PostService.Beside handIn(Viewer viewer, @PathVariable long id, @RequestBody Rev body) {
        return posts.handIn(viewer, id, body.rev());
    }

    @DeleteMapping("/api/posts/{id}")
    void bin(Viewer viewer, @PathVariable long id) {
        posts.bin(viewer, id);
    }

    @PostMapping("/api/posts/{id}/restore")
    void restore(Viewer viewer, @PathVariable long id) {
        posts.restore(viewer, id);
    }
}

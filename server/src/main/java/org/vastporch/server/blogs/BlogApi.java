package org.vastporch.server.blogs;

import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.people.SightlineView;

@RestController
class BlogApi {

    private final BlogService blogs;

    BlogApi(BlogService blogs) {
        this.blogs = blogs;
    }

    @GetMapping("/api/classes/{id}/blogs")
    List<BlogService.BlogLine> lines(Viewer viewer, @PathVariable long id) {
        return blogs.lines(viewer, id);
    }

    @PostMapping("/api/classes/{id}/blogs")
    void create(Viewer viewer, @PathVariable long id, @RequestBody BlogService.WantedBlog body) {
        blogs.create(viewer, id, body);
    }

    @PostMapping("/api/classes/{id}/blogs/sightline")
    SightlineView sightline(Viewer viewer, @PathVariable long id, @RequestBody BlogService.WantedBlog body) {
        return blogs.sightline(viewer, id, body);
    }

    /** The blogs in which the viewer may write. */
    @GetMapping("/api/classes/{id}/blogs/mine")
    List<BlogService.BlogView> writable(Viewer viewer, @PathVariable long id) {
        return blogs.writable(viewer, id);
    }
}

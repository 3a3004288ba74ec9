package org.vastporch.server.blogs;

import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.blogs.BlogSettings.Look;
import org.vastporch.server.people.SightlineView;

@RestController
class BlogApi {

    record SetupChange(BlogForm setup, int version) {}

    record BlogAddress(String address) {}

    record LookChange(Look look) {}

    private final BlogService blogs;
    private final BlogSetupService setups;

    BlogApi(BlogService blogs, BlogSetupService setups) {
        this.blogs = blogs;
        this.setups = setups;
    }

    @GetMapping("/api/classes/{id}/blogs")
    List<BlogSetupService.BlogLine> lines(Viewer viewer, @PathVariable long id) {
        return setups.lines(viewer, id);
    }

    @PostMapping("/api/classes/{id}/blogs")
    void create(Viewer viewer, @PathVariable long id, @RequestBody BlogForm body) {
        setups.create(viewer, id, body);
    }

    @GetMapping("/api/classes/{id}/blogs/fresh")
    List<BlogForm> fresh(Viewer viewer, @PathVariable long id) {
        return setups.fresh(viewer, id);
    }

    @PostMapping("/api/classes/{id}/blogs/sightline")
    SightlineView sightline(Viewer viewer, @PathVariable long id, @RequestBody BlogForm body) {
        return setups.sightline(viewer, id, body);
    }

    /** The blogs in which the viewer may write. */
    @GetMapping("/api/classes/{id}/blogs/mine")
    List<BlogService.BlogView> writable(Viewer viewer, @PathVariable long id) {
        return blogs.writable(viewer, id);
    }

    /** The head of a blog's page, by the address that it has or once had. */
    @GetMapping("/api/classes/{id}/blogs/at/{address}")
    BlogService.BlogPage page(Viewer viewer, @PathVariable long id, @PathVariable String address) {
        return blogs.page(viewer, id, address);
    }

    @GetMapping("/api/blog-setups/{ref}")
    BlogSetupService.Current current(Viewer viewer, @PathVariable String ref) {
        return setups.current(viewer, ref);
    }

    @PutMapping("/api/blog-setups/{ref}")
    void change(Viewer viewer, @PathVariable String ref, @RequestBody SetupChange body) {
        setups.change(viewer, ref, body.setup(), body.version());
    }

    @PutMapping("/api/blogs/{id}/address")
    BlogAddress setAddress(Viewer viewer, @PathVariable long id, @RequestBody BlogAddress body) {
        return new BlogAddress(setups.setAddress(viewer, id, body.address()));
    }

    @PutMapping("/api/blogs/{id}/look")
    void setLook(Viewer viewer, @PathVariable long id, @RequestBody LookChange body) {
        setups.setLook(viewer, id, body.look());
    }
}

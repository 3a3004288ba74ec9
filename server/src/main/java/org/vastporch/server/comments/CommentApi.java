package org.vastporch.server.comments;

import java.util.List;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.http.Optionally;

@RestController
class CommentApi {

    record NewComment(String text, @Optionally Long parentId) {}

    private final CommentService comments;

    CommentApi(CommentService comments) {
        this.comments = comments;
    }

    @GetMapping("/api/posts/{id}/comments")
    List<CommentService.CommentView> list(Viewer viewer, @PathVariable long id) {
        return comments.ofPost(viewer, id);
    }

    @PostMapping("/api/posts/{id}/comments")
    CommentService.CommentView add(Viewer viewer, @PathVariable long id, @RequestBody NewComment body) {
        return comments.add(viewer, id, body.text(), body.parentId());
    }

    @DeleteMapping("/api/comments/{id}")
    void bin(Viewer viewer, @PathVariable long id) {
        comments.bin(viewer, id);
    }
}

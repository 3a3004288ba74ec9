package org.vastporch.server.comments;

import jakarta.servlet.http.HttpServletRequest;
import java.util.List;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.http.Optionally;

@RestController
class CommentApi {

    /**
     * @param name of somebody without an account, where a blog lets anyone comment
     * @param website a field that people do not see: only programs fill it in
     */
    record NewComment(
            String text,
            @Optionally Long parentId,
            @Optionally String name,
            @Optionally String website) {}

    record Changed(int rev, String text) {}

    private final CommentService comments;
    private final GivenCommentService given;

    CommentApi(CommentService comments, GivenCommentService given) {
        this.comments = comments;
        this.given = given;
    }

    @GetMapping("/api/posts/{id}/comments")
    List<CommentService.CommentView> list(Viewer viewer, @PathVariable long id) {
        return comments.ofPost(viewer, id);
    }

    @PostMapping("/api/posts/{id}/comments")
    CommentService.CommentView add(
            Viewer viewer, @PathVariable long id, @RequestBody NewComment body, HttpServletRequest request) {
        if (viewer.isStranger())
            return comments.addByVisitor(
                    id,
                    body.text(),
                    body.parentId(),
                    body.name() == null ? "" : body.name(),
                    body.website() == null ? "" : body.website(),
                    request.getRemoteAddr());
        return comments.add(viewer, id, body.text(), body.parentId());
    }

    @PutMapping("/api/comments/{id}")
    CommentService.CommentView change(Viewer viewer, @PathVariable long id, @RequestBody Changed body) {
        return comments.change(viewer, id, body.rev(), body.text());
    }

    /** How many comments were given for a prompt: to staff of each student, to a student the own ones. */
    @GetMapping("/api/prompts/{id}/comments-given")
    List<GivenCommentService.GivenLine> given(Viewer viewer, @PathVariable long id) {
        return given.givenFor(viewer, id);
    }

    @DeleteMapping("/api/comments/{id}")
    void bin(Viewer viewer, @PathVariable long id) {
        comments.bin(viewer, id);
    }
}

package org.vastporch.server.reading;

import java.time.YearMonth;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.calendar.Term;

@RestController
class ReadingApi {

    private final PorchService porch;
    private final ReadingService reading;
    private final ToAnswerService toAnswer;

    ReadingApi(PorchService porch, ReadingService reading, ToAnswerService toAnswer) {
        this.porch = porch;
        this.reading = reading;
        this.toAnswer = toAnswer;
    }

    @GetMapping("/api/classes/{id}/porch")
    PorchService.Porch porch(
            Viewer viewer,
            @PathVariable long id,
            @RequestParam(required = false) Integer term,
            @RequestParam(required = false) Integer fromWeek,
            @RequestParam(required = false) Integer toWeek,
            @RequestParam(required = false) YearMonth month,
            @RequestParam(required = false) Term.Span span,
            @RequestParam(required = false) Long place,
            @RequestParam(required = false) Long group,
            @RequestParam(required = false) Long prompt,
            @RequestParam(required = false) String tag,
            @RequestParam(required = false) Long category,
            @RequestParam(required = false) Long source,
            @RequestParam(defaultValue = "false") boolean announcements,
            @RequestParam(defaultValue = "false") boolean unanswered,
            @RequestParam(required = false) Long blog,
            @RequestParam(defaultValue = "false") boolean oldestFirst,
            @RequestParam(defaultValue = "50") int most,
            @RequestParam(required = false) String after) {
        return porch.porch(
                viewer,
                id,
                new PorchService.Wish(
                        term,
                        fromWeek,
                        toWeek,
                        month,
                        span,
                        place,
                        group,
                        prompt,
                        tag,
                        category,
                        source,
                        announcements,
                        unanswered,
                        blog,
                        oldestFirst,
                        most,
                        after));
    }

    /** Posts of classmates that wait for an answer; for whoever is no student of the class there are none. */
    @GetMapping("/api/classes/{id}/to-answer")
    ToAnswerService.ToAnswer toAnswer(Viewer viewer, @PathVariable long id) {
        return toAnswer.toAnswer(viewer, id);
    }

    @PutMapping("/api/posts/{id}/answer-wanted")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void want(Viewer viewer, @PathVariable long id) {
        toAnswer.want(viewer, id);
    }

    @DeleteMapping("/api/posts/{id}/answer-wanted")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void unwant(Viewer viewer, @PathVariable long id) {
        toAnswer.unwant(viewer, id);
    }

    @GetMapping("/api/classes/{id}/rail")
    PorchService.Rail rail(
            Viewer viewer,
            @PathVariable long id,
            @RequestParam(required = false) Integer term,
            @RequestParam(required = false) Long place,
            @RequestParam(required = false) Long blog) {
        return porch.rail(viewer, id, term, place, blog);
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
    void arrange(Viewer viewer, @PathVariable long id, @RequestBody ReadingService.Arrange body) {
        reading.arrange(viewer, id, body);
    }

    @GetMapping("/api/posts/{id}")
    ReadingService.PostView post(Viewer viewer, @PathVariable long id) {
        return reading.post(viewer, id);
    }
}

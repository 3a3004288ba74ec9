package org.vastporch.server.progress;

import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.http.Csv;

@RestController
class WhoAnswersWhomApi {

    private final WhoAnswersWhomService answering;

    WhoAnswersWhomApi(WhoAnswersWhomService answering) {
        this.answering = answering;
    }

    @GetMapping("/api/classes/{id}/who-answers-whom")
    WhoAnswersWhomService.AnsweringView whoAnswersWhom(
            Viewer viewer,
            @PathVariable long id,
            @RequestParam(defaultValue = "GROUP") WhoAnswersWhomService.By by,
            @RequestParam(required = false) @Nullable Integer term,
            @RequestParam(required = false) @Nullable Integer fromWeek,
            @RequestParam(required = false) @Nullable Integer toWeek) {
        return answering.whoAnswersWhom(viewer, id, by, new WhoAnswersWhomService.Range(term, fromWeek, toWeek));
    }

    @GetMapping("/api/classes/{id}/who-answers-whom.csv")
    ResponseEntity<byte[]> csv(
            Viewer viewer,
            @PathVariable long id,
            @RequestParam(defaultValue = "GROUP") WhoAnswersWhomService.By by,
            @RequestParam(required = false) @Nullable Integer term,
            @RequestParam(required = false) @Nullable Integer fromWeek,
            @RequestParam(required = false) @Nullable Integer toWeek) {
        return Csv.file(
                answering.csv(viewer, id, by, new WhoAnswersWhomService.Range(term, fromWeek, toWeek)),
                "who-answers-whom.csv");
    }
}

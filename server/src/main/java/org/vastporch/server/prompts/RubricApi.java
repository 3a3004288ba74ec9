package org.vastporch.server.prompts;

import java.util.List;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.server.http.Csv;

@RestController
class RubricApi {

    record RubricTable(String table) {}

    private final RubricService rubrics;

    RubricApi(RubricService rubrics) {
        this.rubrics = rubrics;
    }

    @GetMapping("/api/rubrics")
    List<RubricService.KnownRubric> known(Viewer viewer) {
        return rubrics.known(viewer);
    }

    @GetMapping("/api/prompts/{id}/rubric.csv")
    ResponseEntity<byte[]> csv(Viewer viewer, @PathVariable long id) {
        return Csv.file(rubrics.csv(viewer, id), "rubric.csv");
    }

    @PostMapping("/api/classes/{id}/rubric-table")
    Rubric read(Viewer viewer, @PathVariable long id, @RequestBody RubricTable body) {
        return rubrics.read(viewer, id, body.table());
    }
}

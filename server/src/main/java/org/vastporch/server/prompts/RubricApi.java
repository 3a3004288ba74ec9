package org.vastporch.server.prompts;

import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.core.rubrics.RubricCsv;
import org.vastporch.core.rubrics.RubricJson;
import org.vastporch.server.http.Csv;

@RestController
class RubricApi {

    record RubricTable(String table) {}

    private final RubricService rubrics;

    RubricApi(RubricService rubrics) {
        this.rubrics = rubrics;
    }

    /** What a teacher keeps, and what their prompts use. */
    @GetMapping("/api/rubrics")
    RubricService.Rubrics all(Viewer viewer) {
        return rubrics.of(viewer);
    }

    @PostMapping("/api/rubrics")
    RubricService.KeptRubric keep(Viewer viewer, @RequestBody RubricService.WantedRubric body) {
        return rubrics.keep(viewer, body);
    }

    @PutMapping("/api/rubrics/{id}")
    RubricService.KeptRubric change(
            Viewer viewer, @PathVariable long id, @RequestBody RubricService.WantedRubric body) {
        return rubrics.change(viewer, id, body);
    }

    @DeleteMapping("/api/rubrics/{id}")
    void remove(Viewer viewer, @PathVariable long id, @RequestParam int rev) {
        rubrics.remove(viewer, id, rev);
    }

    @GetMapping("/api/prompts/{id}/rubric.csv")
    ResponseEntity<byte[]> csv(Viewer viewer, @PathVariable long id) {
        return Csv.file(RubricCsv.write(rubrics.ofPrompt(viewer, id)), "rubric.csv");
    }

    @GetMapping("/api/prompts/{id}/rubric.json")
    ResponseEntity<String> json(Viewer viewer, @PathVariable long id) {
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_JSON)
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment()
                                .filename("rubric.json")
                                .build()
                                .toString())
                .body(RubricJson.write(rubrics.ofPrompt(viewer, id)));
    }

    @PostMapping("/api/classes/{id}/rubric-table")
    Rubric read(Viewer viewer, @PathVariable long id, @RequestBody RubricTable body) {
        return rubrics.read(viewer, id, body.table());
    }
}

package org.vastporch.server.marking;

import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.http.Csv;

@RestController
class ScoreSheetApi {

    private final ScoreSheetService sheets;
    private final ClassPictureService pictures;

    ScoreSheetApi(ScoreSheetService sheets, ClassPictureService pictures) {
        this.sheets = sheets;
        this.pictures = pictures;
    }

    @GetMapping("/api/classes/{id}/score-sheet")
    ScoreSheetService.Sheet sheet(Viewer viewer, @PathVariable long id) {
        return sheets.sheet(viewer, id);
    }

    /** How the class stands in its criteria. */
    @GetMapping("/api/classes/{id}/class-picture")
    ClassPictureService.Picture picture(Viewer viewer, @PathVariable long id) {
        return pictures.picture(viewer, id);
    }

    @GetMapping("/api/classes/{id}/score-sheet.csv")
    ResponseEntity<byte[]> csv(Viewer viewer, @PathVariable long id) {
        return Csv.file(sheets.csv(viewer, id), "scores.csv");
    }

    @GetMapping("/api/classes/{id}/score-sheet-by-criterion.csv")
    ResponseEntity<byte[]> byCriterion(Viewer viewer, @PathVariable long id) {
        return Csv.file(sheets.csvByCriterion(viewer, id), "scores-by-criterion.csv");
    }
}

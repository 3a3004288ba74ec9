package org.vastporch.server.marking;

import java.io.IOException;
import java.util.List;
import java.util.Objects;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestPart;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.http.Csv;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;

@RestController
class MarksTableApi {

    private static final int LARGEST = 4_000_000;

    record MarksText(String text) {}

    /** @param reason why scores change that their students have seen */
    record TakingMarks(
            List<MarksTableService.WantedRow> rows,
            @Optionally String reason) {}

    private final MarksTableService tables;

    MarksTableApi(MarksTableService tables) {
        this.tables = tables;
    }

    @GetMapping("/api/prompts/{prompt}/marks.csv")
    ResponseEntity<byte[]> csv(Viewer viewer, @PathVariable long prompt) {
        return Csv.file(tables.csv(viewer, prompt), "marks.csv");
    }

    @PostMapping("/api/prompts/{prompt}/marks-table/preview")
    MarksTableService.MarksPreview preview(Viewer viewer, @PathVariable long prompt, @RequestBody MarksText body) {
        return tables.preview(viewer, prompt, body.text());
    }

    @PostMapping(
            path = "/api/prompts/{prompt}/marks-table/preview-file",
            consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    MarksTableService.MarksPreview previewFile(
            Viewer viewer, @PathVariable long prompt, @RequestPart MultipartFile file) throws IOException {
        if (file.getSize() > LARGEST)
            throw Problem.invalid(
                    "table",
                    "table-too-long",
                    "This file is larger than any table of marks. Save it as CSV, or paste it.");
        return tables.preview(viewer, prompt, file.getBytes());
    }

    @PostMapping("/api/prompts/{prompt}/marks-table")
    MarksTableService.MarksTaken take(Viewer viewer, @PathVariable long prompt, @RequestBody TakingMarks body) {
        return tables.take(viewer, prompt, body.rows(), Objects.requireNonNullElse(body.reason(), ""));
    }
}

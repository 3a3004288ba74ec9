package org.vastporch.server.marking;

import java.io.IOException;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RequestPart;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.media.Upload;
import org.vastporch.server.media.UploadFolder;

@RestController
class RecordingApi {

    private final RecordingService recordings;
    private final UploadFolder uploads;

    RecordingApi(RecordingService recordings, UploadFolder uploads) {
        this.recordings = recordings;
        this.uploads = uploads;
    }

    /**
     * @param key by which it is known when it is sent again, since its answer was lost
     * @return all recordings of the paper
     */
    @PostMapping(
            path = "/api/prompts/{prompt}/marking/{student}/recordings",
            consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    List<RecordingService.Recording> add(
            Viewer viewer,
            @PathVariable long prompt,
            @PathVariable long student,
            @RequestPart MultipartFile file,
            @RequestParam(defaultValue = "") String summary,
            @RequestParam(required = false) @Nullable String key)
            throws IOException {
        try (Upload upload = uploads.take(file)) {
            return recordings.add(viewer, prompt, student, upload, summary, key);
        }
    }

    /** @param was the summary as whoever changes it saw it */
    record ChangedSummary(String was, String summary) {}

    @PutMapping("/api/recordings/{id}")
    RecordingService.Recording change(Viewer viewer, @PathVariable long id, @RequestBody ChangedSummary body) {
        return recordings.change(viewer, id, body.was(), body.summary());
    }

    @DeleteMapping("/api/recordings/{id}")
    void remove(Viewer viewer, @PathVariable long id) {
        recordings.remove(viewer, id);
    }
}

package org.vastporch.server.media;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.CacheControl;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpRange;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestPart;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.media.AttachmentService.FileView;

@RestController
class AttachmentApi {

    private final AttachmentService files;
    private final UploadFolder uploads;

    AttachmentApi(AttachmentService files, UploadFolder uploads) {
        this.files = files;
        this.uploads = uploads;
    }

    @PostMapping(path = "/api/posts/{id}/files", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    FileView add(Viewer viewer, @PathVariable long id, @RequestPart MultipartFile file) throws IOException {
        try (Upload upload = uploads.take(file)) {
            return files.add(viewer, id, upload);
        }
    }

    @GetMapping("/api/posts/{id}/files")
    List<FileView> list(Viewer viewer, @PathVariable long id) {
        return files.ofPost(viewer, id);
    }

    /** A page of a PDF, drawn. Asks each time whether the reader still may. */
    @GetMapping("/media/files/{id}/pages/{no}")
    ResponseEntity<byte[]> page(Viewer viewer, @PathVariable String id, @PathVariable int no) {
        return ResponseEntity.ok()
                .contentType(MediaType.IMAGE_PNG)
                .cacheControl(CacheControl.noCache().cachePrivate())
                .header("X-Content-Type-Options", "nosniff")
                .header("Content-Security-Policy", "default-src 'none'; sandbox")
                .body(files.page(viewer, id, no));
    }

    /**
     * The file, or the one range of it that was asked for, so that players can jump. Asks each time whether the reader
     * still may.
     */
    @GetMapping("/media/files/{id}")
    void get(
            Viewer viewer,
            @PathVariable String id,
            @RequestHeader(value = HttpHeaders.RANGE, required = false) @Nullable String range,
            HttpServletResponse response)
            throws IOException {
        AttachmentStore.Attachment file = files.require(viewer, id);
        boolean plays = !file.kind().equals("DOCUMENT");
        response.setContentType(file.type().equals("text/plain") ? "text/plain;charset=UTF-8" : file.type());
        response.setHeader("X-Content-Type-Options", "nosniff");
        response.setHeader("Content-Security-Policy", "default-src 'none'; media-src 'self'; sandbox");
        response.setHeader(HttpHeaders.CACHE_CONTROL, "private, no-cache");
        response.setHeader(HttpHeaders.ACCEPT_RANGES, "bytes");
        response.setHeader(HttpHeaders.ETAG, "\"" + file.sha().substring(0, 20) + "\"");
        response.setHeader(
                HttpHeaders.CONTENT_DISPOSITION,
                (plays ? ContentDisposition.inline() : ContentDisposition.attachment())
                        .filename(file.name(), StandardCharsets.UTF_8)
                        .build()
                        .toString());
        long first = 0;
        long last = file.size() - 1;
        if (range != null) {
            try {
                HttpRange wanted = HttpRange.parseRanges(range).get(0);
                first = wanted.getRangeStart(file.size());
                last = wanted.getRangeEnd(file.size());
                if (first > last || first >= file.size()) throw new IllegalArgumentException("outside");
            } catch (IllegalArgumentException | IndexOutOfBoundsException e) {
                response.setStatus(416);
                response.setHeader(HttpHeaders.CONTENT_RANGE, "bytes */" + file.size());
                return;
            }
            response.setStatus(206);
            response.setHeader(HttpHeaders.CONTENT_RANGE, "bytes " + first + "-" + last + "/" + file.size());
        }
        response.setContentLengthLong(last - first + 1);
        files.write(file, first, last, response.getOutputStream());
    }
}

package org.vastporch.server.media;

import java.io.IOException;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RequestPart;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.http.Optionally;

@RestController
class MediaApi {

    private final MediaService media;
    private final RoomService room;
    private final VideoPages videos;
    private final UploadFolder uploads;

    MediaApi(MediaService media, RoomService room, VideoPages videos, UploadFolder uploads) {
        this.media = media;
        this.room = room;
        this.videos = videos;
        this.uploads = uploads;
    }

    @PostMapping(path = "/api/posts/{id}/pictures", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    MediaService.Uploaded add(Viewer viewer, @PathVariable long id, @RequestPart MultipartFile file)
            throws IOException {
        try (Upload upload = uploads.take(file)) {
            return media.addPicture(viewer, id, upload);
        }
    }

    record PictureAddress(String address) {}

    @PostMapping("/api/posts/{id}/pictures/from-address")
    MediaService.Uploaded addFrom(Viewer viewer, @PathVariable long id, @RequestBody PictureAddress body)
            throws IOException {
        return media.addPictureFrom(viewer, id, body.address());
    }

    /** @param video left out if it is on no page that the school has chosen */
    record VideoFound(@Optionally VideoPages.Video video) {}

    /**
     * The video of a page or player that the school has chosen, to play in place. It is a setting of the school and
     * tells nothing of anybody.
     */
    @GetMapping("/api/video")
    VideoFound video(@RequestParam(defaultValue = "") String address) {
        return new VideoFound(videos.of(address).orElse(null));
    }

    @PostMapping(path = "/api/blogs/{id}/header", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    void addHeader(Viewer viewer, @PathVariable long id, @RequestPart MultipartFile file) throws IOException {
        try (Upload upload = uploads.take(file)) {
            media.addHeader(viewer, id, upload);
        }
    }

    @DeleteMapping("/api/blogs/{id}/header")
    void removeHeader(Viewer viewer, @PathVariable long id) {
        media.removeHeader(viewer, id);
    }

    @PostMapping(path = "/api/blog-setups/{ref}/header", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    void addHeaderOfSet(Viewer viewer, @PathVariable String ref, @RequestPart MultipartFile file) throws IOException {
        try (Upload upload = uploads.take(file)) {
            media.addHeaderOfSet(viewer, ref, upload);
        }
    }

    @DeleteMapping("/api/blog-setups/{ref}/header")
    void removeHeaderOfSet(Viewer viewer, @PathVariable String ref) {
        media.removeHeaderOfSet(viewer, ref);
    }

    @GetMapping("/media/headers/sets/{id}")
    ResponseEntity<byte[]> headerOfSet(Viewer viewer, @PathVariable long id) {
        return answer(media.headerOfSet(viewer, "s" + id));
    }

    /** A picture that waits to stand at the head of a blog. */
    @GetMapping("/media/headers/wanted/{id}")
    ResponseEntity<byte[]> wantedHeader(Viewer viewer, @PathVariable long id) {
        return answer(media.wantedHeader(viewer, id));
    }

    @GetMapping("/media/headers/{id}")
    ResponseEntity<byte[]> header(Viewer viewer, @PathVariable long id) {
        return answer(media.header(viewer, id));
    }

    /** Always asks again whether the reader still may, and answers 304 if nothing changed. */
    @GetMapping("/media/{id}")
    ResponseEntity<byte[]> get(
            Viewer viewer, @PathVariable String id, @RequestParam(defaultValue = "false") boolean small) {
        return answer(media.serve(viewer, id, small));
    }

    @GetMapping("/api/classes/{id}/room")
    RoomService.RoomView room(Viewer viewer, @PathVariable long id) {
        return room.of(viewer, id);
    }

    @PutMapping("/api/classes/{id}/room")
    RoomService.RoomView setRoom(Viewer viewer, @PathVariable long id, @RequestBody RoomService.RoomWish body) {
        return room.set(viewer, id, body);
    }

    private static ResponseEntity<byte[]> answer(MediaService.Served served) {
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType(served.type()))
                .eTag(served.etag())
                .cacheControl(CacheControl.noCache().cachePrivate())
                .header("X-Content-Type-Options", "nosniff")
                .header("Content-Security-Policy", "default-src 'none'; sandbox")
                .body(served.bytes());
    }
}

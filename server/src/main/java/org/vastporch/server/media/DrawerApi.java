package org.vastporch.server.media;

import java.io.IOException;
import java.util.List;
import java.util.Objects;
import org.springframework.http.MediaType;
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

@RestController
class DrawerApi {

    private final DrawerService drawer;
    private final UploadFolder uploads;

    DrawerApi(DrawerService drawer, UploadFolder uploads) {
        this.drawer = drawer;
        this.uploads = uploads;
    }

    @GetMapping("/api/classes/{id}/drawer")
    List<DrawerService.DrawerItem> of(Viewer viewer, @PathVariable long id) {
        return drawer.of(viewer, id);
    }

    /** @param offered whether the class finds it in its drawer; else it is for a prompt alone */
    @PostMapping(path = "/api/classes/{id}/drawer/pictures", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    DrawerService.DrawerItem addPicture(
            Viewer viewer,
            @PathVariable long id,
            @RequestPart MultipartFile file,
            @RequestParam(defaultValue = "false") boolean offered)
            throws IOException {
        try (Upload upload = uploads.take(file)) {
            return drawer.addPicture(
                    viewer, id, upload, Objects.requireNonNullElse(file.getOriginalFilename(), ""), offered);
        }
    }

    @PostMapping(path = "/api/classes/{id}/drawer/files", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    DrawerService.DrawerItem addFile(
            Viewer viewer,
            @PathVariable long id,
            @RequestPart MultipartFile file,
            @RequestParam(defaultValue = "false") boolean offered)
            throws IOException {
        try (Upload upload = uploads.take(file)) {
            return drawer.addFile(viewer, id, upload, offered);
        }
    }

    @PutMapping("/api/classes/{id}/drawer/{item}")
    DrawerService.DrawerItem change(
            Viewer viewer,
            @PathVariable long id,
            @PathVariable String item,
            @RequestBody DrawerService.WantedItem body) {
        return drawer.change(viewer, id, item, body);
    }
}

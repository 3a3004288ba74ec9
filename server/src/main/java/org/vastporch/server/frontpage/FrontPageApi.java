package org.vastporch.server.frontpage;

import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;

@RestController
class FrontPageApi {

    /** @param findable whether search engines may find the front pages of classes that want it */
    record Findable(boolean findable) {}

    private final FrontPageService pages;

    FrontPageApi(FrontPageService pages) {
        this.pages = pages;
    }

    @GetMapping("/api/classes/{id}/front-page")
    FrontPageService.FrontPage get(Viewer viewer, @PathVariable long id) {
        return pages.get(viewer, id);
    }

    @PutMapping("/api/classes/{id}/front-page")
    FrontPageService.FrontPage change(
            Viewer viewer, @PathVariable long id, @RequestBody FrontPageService.FrontPageWish body) {
        return pages.change(viewer, id, body);
    }

    @GetMapping("/api/school/findable")
    Findable findable(Viewer viewer) {
        return new Findable(pages.isSchoolFindable(viewer));
    }

    @PutMapping("/api/school/findable")
    Findable setFindable(Viewer viewer, @RequestBody Findable body) {
        pages.setSchoolFindable(viewer, body.findable());
        return findable(viewer);
    }
}

package org.vastporch.server.search;

import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Reason;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.http.Problem;

@RestController
class SearchApi {

    private final SearchService searches;

    SearchApi(SearchService searches) {
        this.searches = searches;
    }

    @GetMapping("/api/search")
    SearchService.SearchResult search(
            Viewer viewer,
            @RequestParam String q,
            @RequestParam(name = "class", required = false) Long classId,
            @RequestParam(defaultValue = "") String kind,
            @RequestParam(defaultValue = "") String after,
            @RequestParam(defaultValue = "20") int most) {
        if (viewer.isStranger()) throw Problem.refused(Reason.SIGN_IN_FIRST);
        return searches.search(viewer, q, classId, kind, after, Math.max(1, Math.min(most, 50)));
    }
}

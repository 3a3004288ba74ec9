package org.vastporch.server.today;

import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;

@RestController
class TodayApi {

    private final MeService me;
    private final TodayService today;

    TodayApi(MeService me, TodayService today) {
        this.me = me;
        this.today = today;
    }

    @GetMapping("/api/me")
    MeService.Me me(Viewer viewer) {
        return me.of(viewer);
    }

    @GetMapping("/api/classes/{id}/today")
    TodayService.Today today(Viewer viewer, @PathVariable long id) {
        return today.of(viewer, id);
    }
}

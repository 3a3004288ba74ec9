package org.vastporch.server.groups;

import java.util.List;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.people.PeopleService;

@RestController
class GroupApi {

    record GroupName(String name) {}

    record Moves(List<GroupService.Move> moves) {}

    private final GroupService groups;

    GroupApi(GroupService groups) {
        this.groups = groups;
    }

    @PostMapping("/api/classes/{id}/groups")
    PeopleService.Group addGroup(Viewer viewer, @PathVariable long id, @RequestBody GroupName body) {
        return groups.add(viewer, id, body.name());
    }

    @PutMapping("/api/groups/{id}")
    void renameGroup(Viewer viewer, @PathVariable long id, @RequestBody GroupName body) {
        groups.rename(viewer, id, body.name());
    }

    @DeleteMapping("/api/groups/{id}")
    void removeGroup(Viewer viewer, @PathVariable long id) {
        groups.remove(viewer, id);
    }

    /** Moves students between groups; answers with the moves that undo it. */
    @PostMapping("/api/classes/{id}/groups/moves")
    Moves move(Viewer viewer, @PathVariable long id, @RequestBody Moves body) {
        return new Moves(groups.move(viewer, id, body.moves()));
    }

    @PostMapping("/api/classes/{id}/groups/split")
    Moves split(Viewer viewer, @PathVariable long id, @RequestBody GroupService.Split body) {
        return new Moves(groups.split(viewer, id, body));
    }
}

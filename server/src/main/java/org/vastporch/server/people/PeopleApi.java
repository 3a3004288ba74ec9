package org.vastporch.server.people;

import java.util.List;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Role;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.people.Leaving;
import org.vastporch.core.people.PersonName;
import org.vastporch.server.http.Optionally;

/** The people of a class: members, groups, names, slips, leaving. */
@RestController
class PeopleApi {

    record RoleChange(Role role) {}

    record ShownChange(PersonName.Shown shown, @Optionally String penName) {}

    record NameChange(String given, String family) {}

    record LeavingChange(Leaving leaving) {}

    record Confirmation(String typed) {}

    private final PeopleService people;
    private final PlaceService places;

    PeopleApi(PeopleService people, PlaceService places) {
        this.people = people;
        this.places = places;
    }

    @GetMapping("/api/classes/{id}/people")
    List<PeopleService.MemberLine> members(Viewer viewer, @PathVariable long id) {
        return people.members(viewer, id);
    }

    @PutMapping("/api/classes/{id}/people/{person}/role")
    void setRole(Viewer viewer, @PathVariable long id, @PathVariable long person, @RequestBody RoleChange body) {
        places.setRole(viewer, id, person, body.role());
    }

    @PutMapping("/api/classes/{id}/people/{person}/shown")
    void setShown(Viewer viewer, @PathVariable long id, @PathVariable long person, @RequestBody ShownChange body) {
        places.setShown(viewer, id, person, body.shown(), body.penName());
    }

    /** Lets the name of somebody who came in by themselves show, as it is or mended. */
    @PutMapping("/api/classes/{id}/people/{person}/name")
    void setName(Viewer viewer, @PathVariable long id, @PathVariable long person, @RequestBody NameChange body) {
        places.setName(viewer, id, person, new PersonName(body.family(), body.given()));
    }

    /** What there is of a person: said before they leave. */
    @GetMapping("/api/classes/{id}/people/{person}/leaving")
    PlaceService.BeforeLeaving beforeLeaving(Viewer viewer, @PathVariable long id, @PathVariable long person) {
        return places.before(viewer, id, person);
    }

    @PostMapping("/api/classes/{id}/people/{person}/leaving")
    void end(Viewer viewer, @PathVariable long id, @PathVariable long person, @RequestBody LeavingChange body) {
        places.end(viewer, id, person, body.leaving());
    }

    @DeleteMapping("/api/classes/{id}/people/{person}/leaving")
    void takeBack(Viewer viewer, @PathVariable long id, @PathVariable long person) {
        places.takeBack(viewer, id, person);
    }

    /** Erases a person for ever; the username is typed to confirm. */
    @PostMapping("/api/people/{person}/erasure")
    void erase(Viewer viewer, @PathVariable long person, @RequestBody Confirmation body) {
        places.erase(viewer, person, body.typed());
    }
}

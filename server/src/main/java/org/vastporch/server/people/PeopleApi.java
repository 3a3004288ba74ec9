package org.vastporch.server.people;

import java.util.List;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Role;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.people.Leaving;
import org.vastporch.core.people.PersonName;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.mail.SchoolAddress;

/** The people of a class: members, groups, names, slips, leaving. */
@RestController
class PeopleApi {

    record RoleChange(Role role) {}

    record ShownChange(PersonName.Shown shown, @Optionally String penName) {}

    record NameChange(String given, String family) {}

    record LeavingChange(Leaving leaving) {}

    record Confirmation(String typed) {}

    record GroupName(String name) {}

    record Moves(List<GroupService.Move> moves) {}

    private final ClassService classes;
    private final PeopleService people;
    private final PlaceService places;
    private final GroupService groups;
    private final SlipPrinter slips;
    private final SchoolAddress school;

    PeopleApi(
            ClassService classes,
            PeopleService people,
            PlaceService places,
            GroupService groups,
            SlipPrinter slips,
            SchoolAddress school) {
        this.classes = classes;
        this.people = people;
        this.places = places;
        this.groups = groups;
        this.slips = slips;
        this.school = school;
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

    @GetMapping(path = "/api/classes/{id}/slips.pdf", produces = MediaType.APPLICATION_PDF_VALUE)
    ResponseEntity<byte[]> slips(
            Viewer viewer,
            @PathVariable long id,
            @RequestParam(defaultValue = "0") long person,
            @RequestParam(defaultValue = "A4") SlipPrinter.Paper paper) {
        byte[] pdf = slips.print(viewer, id, classes.get(id).name(), person, school.base() + "/sign-in", paper);
        return ResponseEntity.ok()
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.inline()
                                .filename("sign-in-slips.pdf")
                                .build()
                                .toString())
                .header(HttpHeaders.CACHE_CONTROL, "no-store")
                .body(pdf);
    }
}

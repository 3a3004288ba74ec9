package org.vastporch.server.classes;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.calendar.Terms;
import org.vastporch.core.classes.ClassRules;
import org.vastporch.core.people.PersonName;
import org.vastporch.core.people.PersonName.Shown;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.people.PlaceService;

@RestController
class ClassApi {

    record WeekView(int number, LocalDate monday, Instant start, Instant end, boolean now) {}

    /** @param now whether it is the one that counts now */
    record TermView(String name, LocalDate firstDay, LocalDate lastDay, List<WeekView> weeks, boolean now) {}

    /** @param frontPage the path of what strangers read of it; left out if they read nothing */
    record ClassView(
            long id,
            String name,
            @Optionally String frontPage,
            String subject,
            String level,
            String zone,
            List<TermView> terms,
            List<ClassService.Spell> breaks,
            List<PeopleService.Group> groups,
            ClassRules rules,
            boolean ownPasswords,
            boolean byGiven,
            Shown shown,
            int version,
            boolean manages,
            boolean readsAsStaff) {}

    record Created(long id) {}

    record RulesChange(ClassRules rules, int version) {}

    record ShownForAll(PersonName.Shown shown) {}

    private final ClassService classes;
    private final PeopleService people;
    private final PlaceService places;
    private final AccessService access;
    private final Clock clock;

    ClassApi(ClassService classes, PeopleService people, PlaceService places, AccessService access, Clock clock) {
        this.classes = classes;
        this.people = people;
        this.places = places;
        this.access = access;
        this.clock = clock;
    }

    @PostMapping("/api/classes")
    Created create(Viewer viewer, @RequestBody ClassService.NewClass body) {
        return new Created(classes.create(viewer, body));
    }

    @GetMapping("/api/classes/{id}")
    ClassView get(Viewer viewer, @PathVariable long id) {
        ClassService.ClassRecord found = classes.forMember(viewer, id);
        boolean staff = access.allows(viewer, Act.SEE_REAL_NAME, id);
        Instant now = clock.instant();
        int present = found.terms().indexAt(now);
        List<TermView> terms = new ArrayList<>();
        for (Terms.Named of : found.terms().inOrder())
            terms.add(new TermView(
                    of.name(),
                    of.term().first(),
                    of.term().last(),
                    of.term().weeks().stream()
                            .map(w -> new WeekView(w.number(), w.monday(), w.start(), w.end(), w.contains(now)))
                            .toList(),
                    terms.size() == present));
        ClassRules rules = staff ? found.rules() : found.rules().withoutWords();
        return new ClassView(
                id,
                found.name(),
                found.rules().open() ? "/" + found.address() : null,
                found.subject(),
                found.level(),
                found.term().zone().getId(),
                terms,
                found.terms().breaks().stream()
                        .map(b -> new ClassService.Spell(b.from(), b.to()))
                        .toList(),
                people.groups(id),
                rules,
                found.ownPasswords(),
                found.byGiven(),
                found.shown(),
                found.version(),
                access.allows(viewer, Act.MANAGE_CLASS, id),
                staff);
    }

    @PutMapping("/api/classes/{id}/rules")
    void setRules(Viewer viewer, @PathVariable long id, @RequestBody RulesChange body) {
        classes.setRules(viewer, id, body.rules(), body.version());
    }

    @PutMapping("/api/classes/{id}")
    void change(Viewer viewer, @PathVariable long id, @RequestBody ClassService.ClassChange body) {
        classes.change(viewer, id, body);
    }

    /** How the names of all students are shown to readers. */
    @PutMapping("/api/classes/{id}/shown")
    void setShown(Viewer viewer, @PathVariable long id, @RequestBody ShownForAll body) {
        places.setShownForAll(viewer, id, body.shown());
    }
}

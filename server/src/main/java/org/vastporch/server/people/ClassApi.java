package org.vastporch.server.people;

import java.io.IOException;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
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
import org.springframework.web.bind.annotation.RequestPart;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;
import org.springframework.web.servlet.support.ServletUriComponentsBuilder;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.access.AccessService;

@RestController
class ClassApi {

    record WeekView(int number, LocalDate monday, Instant start, Instant end, boolean now) {}

    record ClassView(long id, String name, String subject, String level, String zone, LocalDate firstDay, LocalDate lastDay, List<WeekView> weeks,
                     List<PeopleService.Group> groups, ClassService.Rules rules, int version, boolean manages, boolean readsAsStaff) {}

    record Created(long id) {}

    record RulesChange(ClassService.Rules rules, int version) {}

    record Pasted(String text) {}

    record RosterRows(List<RosterService.RowView> rows) {}

    record GroupChange(String group) {}

    private final ClassService classes;
    private final PeopleService people;
    private final RosterService rosters;
    private final SlipPrinter slips;
    private final AccessService access;
    private final Clock clock;

    ClassApi(ClassService classes, PeopleService people, RosterService rosters, SlipPrinter slips, AccessService access, Clock clock) {
        this.classes = classes;
        this.people = people;
        this.rosters = rosters;
        this.slips = slips;
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
        var weeks = found.term().weeks().stream().map(w -> new WeekView(w.number(), w.monday(), w.start(), w.end(), w.contains(now))).toList();
        // The word list is the staff's: a student who knows it can walk around it.
        ClassService.Rules rules = staff ? found.rules() : new ClassService.Rules(found.rules().ceiling(), found.rules().open(), found.rules().postPolicy(),
            found.rules().commentPolicy(), found.rules().trustAfter(), List.of(), found.rules().holdLinks());
        return new ClassView(id, found.name(), found.subject(), found.level(), found.term().zone().getId(), found.term().first(), found.term().last(), weeks,
            people.groups(id), rules, found.version(), access.allows(viewer, Act.MANAGE_CLASS, id), staff);
    }

    @PutMapping("/api/classes/{id}/rules")
    void setRules(Viewer viewer, @PathVariable long id, @RequestBody RulesChange body) {
        classes.setRules(viewer, id, body.rules(), body.version());
    }

    @GetMapping("/api/classes/{id}/people")
    List<PeopleService.MemberLine> people(Viewer viewer, @PathVariable long id) {
        return people.members(viewer, id);
    }

    @PostMapping("/api/classes/{id}/roster/preview")
    RosterRows preview(Viewer viewer, @PathVariable long id, @RequestBody Pasted body) {
        return new RosterRows(rosters.preview(viewer, id, body.text()));
    }

    @PostMapping(path = "/api/classes/{id}/roster/preview-file", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    RosterRows previewFile(Viewer viewer, @PathVariable long id, @RequestPart MultipartFile file) throws IOException {
        return new RosterRows(rosters.preview(viewer, id, file.getBytes()));
    }

    @PostMapping("/api/classes/{id}/roster")
    RosterService.Imported importRoster(Viewer viewer, @PathVariable long id, @RequestBody RosterRows body) {
        return rosters.importRows(viewer, id, body.rows());
    }

    @PutMapping("/api/classes/{id}/people/{person}/group")
    void setGroup(Viewer viewer, @PathVariable long id, @PathVariable long person, @RequestBody GroupChange body) {
        people.setGroup(viewer, id, person, body.group());
    }

    @DeleteMapping("/api/classes/{id}/people/{person}")
    void end(Viewer viewer, @PathVariable long id, @PathVariable long person) {
        people.end(viewer, id, person);
    }

    @GetMapping(path = "/api/classes/{id}/slips.pdf", produces = MediaType.APPLICATION_PDF_VALUE)
    ResponseEntity<byte[]> slips(Viewer viewer, @PathVariable long id, @RequestParam(defaultValue = "0") long person) {
        String address = ServletUriComponentsBuilder.fromCurrentContextPath().path("/sign-in").toUriString();
        byte[] pdf = slips.print(viewer, id, classes.get(id).name(), person, address);
        return ResponseEntity.ok().header(HttpHeaders.CONTENT_DISPOSITION, ContentDisposition.inline().filename("sign-in-slips.pdf").build().toString())
            .header(HttpHeaders.CACHE_CONTROL, "no-store").body(pdf);
    }
}

package org.vastporch.server.classes;

import java.time.Clock;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.Refusal;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Reason;
import org.vastporch.core.access.Role;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.calendar.Term;
import org.vastporch.core.calendar.Terms;
import org.vastporch.core.classes.ClassAddress;
import org.vastporch.core.classes.ClassRules;
import org.vastporch.core.enrolment.ClassWord;
import org.vastporch.core.people.PersonName;
import org.vastporch.core.text.OneLine;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.people.PeopleService;

/** Classes: their term and their rules. */
@Service
public class ClassService {

    /**
     * @param address of its front page, behind the school's
     * @param term the one that counts now
     * @param ownPasswords whether students may change their own password
     * @param byGiven whether lists of people are sorted by given name
     * @param shown how newly enrolled students appear to readers
     * @param code the code by which people come in themselves; null while there is none
     */
    public record ClassRecord(
            long id,
            String name,
            String address,
            String subject,
            String level,
            Terms terms,
            Term term,
            ClassRules rules,
            boolean ownPasswords,
            boolean byGiven,
            PersonName.Shown shown,
            @Nullable ClassWord word,
            int version) {}

    /** What can be changed of a class after it was made. */
    public record ClassChange(
            String name,
            String subject,
            String level,
            String zone,
            List<Terms.Days> terms,
            List<Spell> breaks,
            boolean ownPasswords,
            boolean byGiven,
            int version) {}

    /** What a new class is made from. Days as 2026-09-01; the zone as Europe/London. */
    public record NewClass(
            String name,
            String subject,
            String level,
            String zone,
            LocalDate firstDay,
            LocalDate lastDay,
            List<Spell> breaks) {}

    public record Spell(LocalDate from, LocalDate to) {}

    private final ClassStore store;
    private final PeopleService people;
    private final AccessService access;
    private final EventStore events;
    private final Clock clock;

    ClassService(ClassStore store, PeopleService people, AccessService access, EventStore events, Clock clock) {
        this.store = store;
        this.people = people;
        this.access = access;
        this.events = events;
        this.clock = clock;
    }

    /** Makes a class with safe rules; the one who makes it leads it. */
    @Transactional
    public long create(Viewer viewer, NewClass wanted) {
        if (viewer.isStranger()) throw Problem.refused(Reason.SIGN_IN_FIRST);
        if (!people.isTeacher(viewer.personId())) throw Problem.refused(Reason.STAFF_ONLY);
        String name = required("name", wanted.name(), 120, "Give the class a name.");
        long id = store.add(
                name,
                ClassAddress.make(name, store::isAddressGiven),
                limited("subject", wanted.subject(), 120),
                limited("level", wanted.level(), 60),
                terms(List.of(new Terms.Days("", wanted.firstDay(), wanted.lastDay())), wanted.breaks(), wanted.zone()),
                ClassRules.SAFE,
                clock.instant());
        people.enrol(id, viewer.personId(), Role.LEAD, "", PersonName.Shown.OWN_NAME, viewer.personId());
        events.add(id, "class-created", id, viewer.personId());
        return id;
    }

    /** The class for a member; also for those who only approve. */
    public ClassRecord forMember(Viewer viewer, long id) {
        access.require(viewer, Act.ENTER_CLASS, id);
        return get(id);
    }

    public ClassRecord get(long id) {
        return store.find(id, clock.instant()).orElseThrow(Problem::missing);
    }

    @Transactional
    public void setRules(Viewer viewer, long id, ClassRules rules, int version) {
        access.require(viewer, Act.MANAGE_CLASS, id);
        ClassRules before = get(id).rules();
        if (!store.setRules(id, rules, version))
            throw Problem.stale(
                    "class-changed",
                    "Somebody else changed the rules of this class meanwhile. Load the page again to see them.");
        if (rules.trustAfter() != before.trustAfter()) store.beginTrustAnew(id, clock.instant());
        events.add(id, "rules-changed", id, viewer.personId());
    }

    /**
     * Changes name, term and habits of a class. Nothing is lost: posts keep their moments, and the weeks are counted
     * anew.
     */
    @Transactional
    public void change(Viewer viewer, long id, ClassChange change) {
        access.require(viewer, Act.MANAGE_CLASS, id);
        if (!store.change(
                id,
                required("name", change.name(), 120, "Give the class a name."),
                limited("subject", change.subject(), 120),
                limited("level", change.level(), 60),
                changed(change),
                change.ownPasswords(),
                change.byGiven(),
                change.version()))
            throw Problem.stale(
                    "class-changed",
                    "Somebody else changed this class meanwhile. Load the page again to see how it is now.");
        events.add(id, "class-changed", id, viewer.personId());
    }

    /** What is wrong with a term is said beside the list of them. */
    private static Terms changed(ClassChange change) {
        try {
            return terms(change.terms(), change.breaks(), change.zone());
        } catch (Refusal e) {
            throw new Refusal(e.field().equals("lastDay") ? "terms" : e.field(), e.code(), e.getMessage());
        }
    }

    private static Terms terms(List<Terms.Days> days, List<Spell> breaks, String zone) {
        ZoneId here;
        try {
            here = ZoneId.of(zone);
        } catch (DateTimeException e) {
            throw Problem.invalid(
                    "zone", "zone-unknown", "\"" + zone + "\" is not a time zone. Write it like Europe/London.");
        }
        return Terms.of(
                days, breaks.stream().map(b -> new Term.Break(b.from(), b.to())).toList(), here);
    }

    private static String required(String field, String text, int most, String sentence) {
        if (text.isBlank()) throw Problem.invalid(field, field + "-missing", sentence);
        return limited(field, text, most);
    }

    private static String limited(String field, String text, int most) {
        String line = OneLine.of(text);
        if (line.length() > most)
            throw Problem.invalid(
                    field,
                    field + "-too-long",
                    "This has " + line.length() + " characters; at most " + most + " fit here.");
        // It stands in mails to people outside.
        if (line.matches("(?i).*(://|www\\.|@).*"))
            throw Problem.invalid(field, field + "-address", "There can be no web or e-mail address here.");
        return line;
    }
}

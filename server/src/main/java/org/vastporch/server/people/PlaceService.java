package org.vastporch.server.people;

import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Reason;
import org.vastporch.core.access.Role;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.enrolment.NewcomerName;
import org.vastporch.core.people.Leaving;
import org.vastporch.core.people.PersonName;
import org.vastporch.core.people.PersonName.Shown;
import org.vastporch.core.people.PlaceRules;
import org.vastporch.core.people.PlaceRules.Eraser;
import org.vastporch.core.text.Folding;
import org.vastporch.core.text.OneLine;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.erasure.DatabaseFile;
import org.vastporch.server.erasure.Traces;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;

/** A person's place in a class: the role, the name that readers see, and how the place ends. */
@Service
public class PlaceService {

    /**
     * What is said before somebody leaves.
     *
     * @param here how many posts, comments, marks and outside blogs there are in this class
     * @param all the same in all classes: what an erasure would remove
     * @param eraser who may erase the person
     * @param username what is typed to confirm an erasure
     */
    public record BeforeLeaving(
            String name,
            String username,
            String shownAs,
            Map<String, Integer> here,
            Map<String, Integer> all,
            Eraser eraser,
            int undoDays) {}

    private static final int LONGEST_PEN_NAME = 40;

    private final PeopleStore store;
    private final PeopleService people;
    private final List<Traces> traces;
    private final AccessService access;
    private final EventStore events;
    private final ApplicationEventPublisher publisher;
    private final TransactionTemplate transaction;
    private final DatabaseFile database;
    private final Clock clock;

    PlaceService(
            PeopleStore store,
            PeopleService people,
            List<Traces> traces,
            AccessService access,
            EventStore events,
            ApplicationEventPublisher publisher,
            TransactionTemplate transaction,
            DatabaseFile database,
            Clock clock) {
        this.store = store;
        this.people = people;
        this.traces = traces;
        this.access = access;
        this.events = events;
        this.publisher = publisher;
        this.transaction = transaction;
        this.database = database;
        this.clock = clock;
    }

    /** Changes what somebody is in a class. Students stay students, and a class keeps its lead. */
    @Transactional
    public void setRole(Viewer viewer, long classId, long personId, Role role) {
        PeopleStore.Member member = requireMember(viewer, classId, personId);
        PlaceRules.checkRole(member.role(), role);
        store.setRole(classId, personId, role);
        events.add(classId, "role-changed", personId, viewer.personId());
    }

    /**
     * Takes somebody in who comes by themselves. Their name is hidden until staff have seen it if it could be taken for
     * another's.
     */
    @Transactional
    public void join(long classId, long person, Role role, Shown shown) {
        Optional<PeopleStore.Member> before =
                store.members(classId).stream().filter(m -> m.id() == person).findFirst();
        if (before.isPresent() && before.get().endedAt() == null)
            throw Problem.stale("already-here", "You are in this class already.");
        if (before.isPresent())
            throw Problem.stale(
                    "place-ended", "Your place in this class has ended. Only its teachers can take you in again.");
        boolean asked = (role == Role.STUDENT || role == Role.GUEST)
                && NewcomerName.isAsked(store.person(person).orElseThrow().name(), takenNames(classId));
        people.enrol(classId, person, role, "", shown, person);
        store.setNameAsked(classId, person, asked);
        if (role == Role.STUDENT) people.arrived(classId, List.of(person));
    }

    private List<String> takenNames(long classId) {
        List<String> taken = new ArrayList<>(store.namesOfStaff());
        store.members(classId).forEach(m -> taken.add(m.name().full()));
        return taken;
    }

    /** Changes the name under which readers see a student. Titles and addresses that carry the name follow. */
    @Transactional
    public void setShown(Viewer viewer, long classId, long personId, Shown shown, @Nullable String penName) {
        PeopleStore.Member member = requireMember(viewer, classId, personId);
        if (member.role() != Role.STUDENT)
            throw Problem.invalid("shown", "not-a-student", "Staff and guests write under their own names.");
        String pen = shown == Shown.PEN_NAME && penName != null && !penName.isBlank()
                ? checkedPenName(classId, personId, OneLine.of(penName))
                : null;
        if (shown == Shown.PEN_NAME && pen == null)
            throw Problem.invalid("penName", "pen-name-missing", "Write the pen name.");
        store.setShown(classId, personId, shown, pen);
        events.add(classId, "shown-name-changed", personId, viewer.personId());
        publisher.publishEvent(new NamesChanged(classId, List.of(personId)));
    }

    /**
     * How all students appear from now on, those who come later too. A pen name that somebody has is kept for when it
     * is wanted again.
     */
    @Transactional
    public void setShownForAll(Viewer viewer, long classId, Shown shown) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        if (shown == Shown.PEN_NAME)
            throw Problem.invalid(
                    "shown", "pen-names-one-by-one", "Pen names are given one by one, at each student's name.");
        store.setShownOfNew(classId, shown);
        List<PeopleStore.Member> students = store.members(classId).stream()
                .filter(m -> m.role() == Role.STUDENT && m.shown() != Shown.PEN_NAME)
                .toList();
        for (PeopleStore.Member student : students) store.setShown(classId, student.id(), shown, student.penName());
        events.add(classId, "shown-names-changed", null, viewer.personId());
        publisher.publishEvent(new NamesChanged(
                classId, students.stream().map(PeopleStore.Member::id).toList()));
    }

    /**
     * Lets the name of somebody who came in by themselves show to the class, as it was typed or mended.
     *
     * @param name as staff want it; a changed one only for accounts that they look after
     */
    @Transactional
    public void setName(Viewer viewer, long classId, long personId, PersonName name) {
        PeopleStore.Member member = requireMember(viewer, classId, personId);
        if (!name.equals(member.name())) {
            if (!people.caresFor(viewer, personId))
                throw Problem.invalid(
                        "given",
                        "keeper-cares",
                        "This person has a place outside your classes, so the school keeper changes the name.");
            store.change(personId, name, member.email(), member.schoolNo());
        }
        store.setNameAsked(classId, personId, false);
        events.add(classId, "shown-name-changed", personId, viewer.personId());
        publisher.publishEvent(new NamesChanged(classId, List.of(personId)));
    }

    private String checkedPenName(long classId, long personId, String name) {
        if (name.length() > LONGEST_PEN_NAME)
            throw Problem.invalid(
                    "penName", "pen-name-too-long", "A pen name has at most " + LONGEST_PEN_NAME + " characters.");
        for (PeopleStore.Member other : store.members(classId)) {
            boolean same = Folding.fold(name).equals(Folding.fold(other.name().full()))
                    || other.penName() != null && Folding.fold(name).equals(Folding.fold(other.penName()));
            if (same && other.id() != personId)
                throw Problem.invalid(
                        "penName", "pen-name-taken", "Somebody in this class has this name. Choose another.");
        }
        return name;
    }

    /** What there is of a person, to be said before they leave. */
    public BeforeLeaving before(Viewer viewer, long classId, long personId) {
        PeopleStore.Member member = requireMember(viewer, classId, personId);
        return new BeforeLeaving(
                member.name().full(),
                member.username(),
                member.name().shownAs(member.shown(), member.penName(), false),
                counts(personId, classId),
                counts(personId, null),
                eraser(viewer, personId),
                (int) Leaving.UNDO.toDays());
    }

    private Map<String, Integer> counts(long personId, @Nullable Long classId) {
        Map<String, Integer> counts = new TreeMap<>();
        for (Traces trace : traces)
            if (!trace.what().isEmpty()) counts.merge(trace.what(), trace.count(personId, classId), Integer::sum);
        return counts;
    }

    private Eraser eraser(Viewer viewer, long personId) {
        PeopleStore.Person person = store.person(personId).orElseThrow(Problem::missing);
        List<PeopleStore.Place> places = store.places(personId);
        boolean allLed = places.stream().allMatch(p -> viewer.in(p.classId(), clock.instant())
                .filter(m -> m.role() == Role.LEAD)
                .isPresent());
        return PlaceRules.eraser(
                new PlaceRules.Person(
                        person.keeper(),
                        person.teacher(),
                        places.stream().map(PeopleStore.Place::role).toList(),
                        allLed),
                viewer.keeper());
    }

    /**
     * Ends a person's place: reading stops at this moment. What becomes of the writing is the teacher's choice, and can
     * be undone for a while.
     */
    @Transactional
    public void end(Viewer viewer, long classId, long personId, Leaving leaving) {
        PeopleStore.Member member = requireMember(viewer, classId, personId);
        PlaceRules.checkEnd(member.role(), personId == viewer.personId());
        if (member.endedAt() != null)
            throw Problem.stale("already-ended", "This place has ended already; its 30 days run from then.");
        store.end(classId, personId, leaving, clock.instant());
        events.add(classId, "enrolment-ended", personId, viewer.personId());
    }

    /** Takes an ended place up again, as it was. */
    @Transactional
    public void takeBack(Viewer viewer, long classId, long personId) {
        PeopleStore.Member member = requireMember(viewer, classId, personId);
        if (member.endedAt() == null) return;
        if (!PlaceRules.canReturn(member.endedAt(), clock.instant()))
            throw Problem.stale(
                    "too-long-ago",
                    "This enrolment ended more than " + Leaving.UNDO.toDays()
                            + " days ago. Enrol the person again; what was written is still there.");
        store.takeBack(classId, personId);
        events.add(classId, "enrolment-taken-back", personId, viewer.personId());
    }

    /**
     * Erases a person: account, writing, comments, marks and every trace, for ever. The database file is written anew
     * after it, since deleted rows stay in a file until their place is used again.
     *
     * @param typed the username, typed to confirm
     */
    public void erase(Viewer viewer, long personId, String typed) {
        if (viewer.isStranger()) throw Problem.refused(Reason.SIGN_IN_FIRST);
        try {
            transaction.executeWithoutResult(status -> eraseAll(viewer, personId, typed));
        } catch (DataIntegrityViolationException e) {
            // Somebody who is a guest now may have decided or marked before.
            throw cannotBeErased();
        }
        database.rewrite();
    }

    private void eraseAll(Viewer viewer, long personId, String typed) {
        PeopleStore.Person person = store.person(personId).orElseThrow(Problem::missing);
        boolean known = viewer.keeper()
                || store.places(personId).stream().anyMatch(p -> access.allows(viewer, Act.MANAGE_CLASS, p.classId()));
        if (!known) throw Problem.missing();
        switch (eraser(viewer, personId)) {
            case NOBODY -> throw cannotBeErased();
            case KEEPER ->
                throw Problem.stale(
                        "keeper-erases",
                        "This person is in classes that you do not lead. Ask the school keeper to erase the account.");
            case YOU -> {}
        }
        if (!typed.strip().equalsIgnoreCase(person.username()))
            throw Problem.invalid("typed", "typed-wrong", "Type the username " + person.username() + " to confirm.");
        database.expectRewrite();
        traces.forEach(trace -> trace.erase(personId));
        store.remove(personId);
        events.forget(personId);
        events.add(null, "person-erased", null, viewer.personId());
    }

    private static Problem cannotBeErased() {
        return Problem.stale(
                "cannot-be-erased",
                "This person worked as staff. Decisions and marks keep their maker, so the account "
                        + "stays; end the place instead.");
    }

    private PeopleStore.Member requireMember(Viewer viewer, long classId, long personId) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        return store.members(classId).stream()
                .filter(m -> m.id() == personId)
                .findFirst()
                .orElseThrow(Problem::missing);
    }
}

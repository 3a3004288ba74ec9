package org.vastporch.server.enrolment;

import java.security.SecureRandom;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Role;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.enrolment.ClassWord;
import org.vastporch.core.people.Passwords;
import org.vastporch.core.people.PersonName;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.http.Allowance;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.people.PlaceService;

/** Coming into a class oneself: by its code, or by an invitation. */
@Service
public class JoinService {

    /**
     * @param until left out for no end
     * @param left how many may still come; left out for those of before, which have no limit
     */
    public record WordView(
            String word,
            @Optionally LocalDate until,
            @Optionally Integer left,
            boolean open) {}

    /** @param keep whether the one that is there stays; else a new one takes its place */
    public record WordWish(
            boolean keep,
            @Optionally LocalDate until,
            @Optionally Integer left) {}

    /** Who comes: somebody new with a name and a password. Whoever is signed in needs neither. */
    public record Newcomer(
            @Optionally String title,
            @Optionally String given,
            @Optionally String family,
            @Optionally String password) {}

    /** Somebody who came in, with the final username. */
    public record Joined(long personId, long classId, String username) {}

    private static final int MOST_BY_WORD = 200;

    private final ClassWordStore words;
    private final PeopleService people;
    private final PlaceService places;
    private final ClassService classes;
    private final InvitationService invitations;
    private final AccessService access;
    private final EventStore events;
    private final Clock clock;
    private final SecureRandom random = new SecureRandom();
    /** More than two classes in an hour is no lesson. */
    private final Allowance joinings = new Allowance(60);

    JoinService(
            ClassWordStore words,
            PeopleService people,
            PlaceService places,
            ClassService classes,
            InvitationService invitations,
            AccessService access,
            EventStore events,
            Clock clock) {
        this.words = words;
        this.people = people;
        this.places = places;
        this.classes = classes;
        this.invitations = invitations;
        this.access = access;
        this.events = events;
        this.clock = clock;
    }

    /** The class word for the staff of the class; null while it is switched off. */
    public @Nullable WordView word(Viewer viewer, long classId) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        ClassService.ClassRecord of = classes.get(classId);
        ClassWord word = of.word();
        return word == null
                ? null
                : new WordView(word.word(), word.lastDay(of.term().zone()), word.left(), word.isOpen(clock.instant()));
    }

    @Transactional
    public @Nullable WordView setWord(Viewer viewer, long classId, WordWish wish) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        ClassService.ClassRecord of = classes.get(classId);
        ClassWord before = of.word();
        if (wish.left() != null && (wish.left() < 0 || wish.left() > MOST_BY_WORD))
            throw Problem.invalid(
                    "left", "left-range", "Between 0 and " + MOST_BY_WORD + " people may come by one class word.");
        words.set(
                classId,
                new ClassWord(
                        wish.keep() && before != null ? before.word() : free(),
                        wish.until() == null
                                ? null
                                : end(wish.until(), of.term().zone()),
                        wish.left() == null ? MOST_BY_WORD : wish.left()));
        events.add(classId, "class-word-set", null, viewer.personId());
        return word(viewer, classId);
    }

    private Instant end(LocalDate day, ZoneId zone) {
        LocalDate today = clock.instant().atZone(zone).toLocalDate();
        if (day.isBefore(today.minusYears(1)) || day.isAfter(today.plusYears(1)))
            throw Problem.invalid("until", "until-range", "Choose a day within a year from now.");
        return ClassWord.endOf(day, zone);
    }

    /** One that no other class has. */
    private String free() {
        String word = ClassWord.make(random);
        while (words.lock(word).isPresent()) word = ClassWord.make(random);
        return word;
    }

    @Transactional
    public void switchOff(Viewer viewer, long classId) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        words.set(classId, null);
        events.add(classId, "class-word-off", null, viewer.personId());
    }

    /** The name of the class that a class word opens. */
    public String className(String typed) {
        return classes.get(requireWord(typed)).name();
    }

    /** Brings somebody into the class of a class word, as a student. */
    @Transactional
    public Joined byWord(Viewer viewer, String typed, Newcomer newcomer) {
        long classId = requireWord(typed);
        if (!joinings.take(String.valueOf(classId)))
            throw Problem.tooMany(
                    "Very many have come into this class within an hour. Please try again later, or ask your teacher.");
        long person = viewer.isStranger() ? addStudent(newcomer) : viewer.personId();
        Joined joined = join(classId, person, Role.STUDENT);
        people.signedIn(person);
        words.set(classId, classes.get(classId).word().used());
        events.add(classId, "joined-by-word", joined.personId(), joined.personId());
        return joined;
    }

    /** Brings an invited person into the class. */
    @Transactional
    public Joined byInvitation(Viewer viewer, String token, Newcomer newcomer) {
        InvitationStore.Invitation invitation = invitations.open(token);
        long person;
        if (!viewer.isStranger()) {
            person = viewer.personId();
        } else if (invitation.role() == Role.STUDENT) {
            person = addStudent(newcomer);
        } else {
            person = people.addStaff(
                    viewer,
                    newcomer.title() == null ? "" : newcomer.title(),
                    name(newcomer),
                    invitation.email(),
                    false);
            people.setPassword(person, checkedPassword(newcomer));
        }
        Joined joined = join(invitation.classId(), person, invitation.role());
        people.signedIn(person);
        invitations.accepted(invitation, person);
        return joined;
    }

    private Joined join(long classId, long person, Role role) {
        places.join(classId, person, role, classes.get(classId).shown());
        return new Joined(person, classId, people.usernameOf(person));
    }

    private long addStudent(Newcomer newcomer) {
        PersonName name = name(newcomer);
        String password = checkedPassword(newcomer);
        long id = people.addStudent(name, "", "");
        people.setPassword(id, password);
        return id;
    }

    private static PersonName name(Newcomer newcomer) {
        String family = newcomer.family() == null ? "" : newcomer.family().strip();
        String given = newcomer.given() == null ? "" : newcomer.given().strip();
        if ((family + given).chars().noneMatch(Character::isLetter))
            throw Problem.invalid("given", "name-missing", "Write your name.");
        if (family.length() > 100 || given.length() > 100)
            throw Problem.invalid("given", "name-too-long", "A name has at most 100 characters here.");
        return new PersonName(family, given);
    }

    private static String checkedPassword(Newcomer newcomer) {
        String password = newcomer.password() == null ? "" : newcomer.password();
        String fault = Passwords.fault(password);
        if (!fault.isEmpty()) throw Problem.invalid("password", "password-unfit", fault);
        return password.strip();
    }

    private long requireWord(String typed) {
        long classId = words.lock(ClassWord.tidy(typed))
                .orElseThrow(() -> Problem.invalid(
                        "word", "word-unknown", "No class has this word. Look at it once more, or ask your teacher."));
        if (!classes.get(classId).word().isOpen(clock.instant()))
            throw Problem.invalid(
                    "word",
                    "word-over",
                    "This class word no longer works: its time is over, or everybody it was meant for"
                            + " has come. Ask your teacher for a new one.");
        return classId;
    }
}

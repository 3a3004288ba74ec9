package org.vastporch.server.people;

import java.time.Instant;
import java.util.List;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.AccessEngine;
import org.vastporch.core.access.Role;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.people.Passwords;
import org.vastporch.server.http.Cursor;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.people.PeopleService.TriesView;

/** A person's own account, over years and classes; and the people of the school for its keeper. */
@Service
public class AccountService {

    /** @param until left out while the place lasts */
    public record PlaceLine(
            long classId,
            String className,
            String level,
            Role role,
            Instant since,
            @Optionally Instant until) {}

    /** @param emailWaits an address that was given and is still to be confirmed; left out if there is none */
    public record Account(
            String name,
            String username,
            String email,
            @Optionally String emailWaits,
            boolean mayChangeEmail,
            boolean mayChangePassword,
            List<PlaceLine> places) {}

    /** @param next the cursor of the next page; left out on the last */
    public record PersonPage(
            List<PersonLine> people, @Optionally String next) {}

    public record PersonLine(
            long id,
            String name,
            String username,
            String email,
            boolean keeper,
            boolean teacher,
            boolean ready,
            List<PlaceLine> places,
            @Optionally TriesView tries) {}

    private static final int PAGE = 40;

    private final PeopleStore store;
    private final PeopleService people;
    private final EmailService emails;
    private final PasswordEncoder passwords;

    AccountService(PeopleStore store, PeopleService people, EmailService emails, PasswordEncoder passwords) {
        this.store = store;
        this.people = people;
        this.emails = emails;
        this.passwords = passwords;
    }

    public Account of(Viewer viewer) {
        PeopleStore.Person person = store.person(requireInPerson(viewer)).orElseThrow(Problem::missing);
        return new Account(
                (person.title() + " " + person.name().full()).strip(),
                person.username(),
                person.email(),
                emails.waiting(person.id()).orElse(null),
                emails.mayChange(person.id()),
                mayChangePassword(person.id()),
                places(person.id()));
    }

    private List<PlaceLine> places(long personId) {
        return store.places(personId).stream()
                .map(p -> new PlaceLine(p.classId(), p.className(), p.level(), p.role(), p.joinedAt(), p.endedAt()))
                .toList();
    }

    private boolean mayChangePassword(long personId) {
        return Passwords.mayChangeOwn(store.places(personId).stream()
                .filter(p -> p.role() == Role.STUDENT && p.endedAt() == null)
                .map(PeopleStore.Place::ownPasswords)
                .toList());
    }

    /** Changes the own password, where the classes of a student let it. */
    @Transactional
    public void changePassword(Viewer viewer, String before, String wanted) {
        long id = requireInPerson(viewer);
        if (!mayChangePassword(id))
            throw Problem.stale(
                    "password-kept", "In your class the teacher gives out the pass phrases. Ask there for a new one.");
        String hash = people.credentials(people.usernameOf(id))
                .map(PeopleService.Credentials::hash)
                .orElse("");
        if (!Passwords.fits(before) || !passwords.matches(before.strip(), hash))
            throw Problem.invalid("before", "password-wrong", "This is not your password as it was until now.");
        String fault = Passwords.fault(wanted);
        if (!fault.isEmpty()) throw Problem.invalid("password", "password-unfit", fault);
        people.setPassword(id, wanted.strip());
    }

    /** The people of the school whose names begin like a text, page by page, for the keeper. */
    public PersonPage find(Viewer viewer, String begins, String after) {
        people.requireKeeper(viewer);
        Begins start = Cursor.read(after, parts -> new Begins(parts.get(0), Long.parseLong(parts.get(1))))
                .orElse(new Begins("", 0));
        List<PeopleStore.Person> found = store.find(begins.strip(), start.name(), start.id(), PAGE + 1);
        List<PeopleStore.Person> page = found.subList(0, Math.min(PAGE, found.size()));
        String next = found.size() > PAGE
                ? Cursor.of(
                        page.get(PAGE - 1).name().family(), page.get(PAGE - 1).id())
                : null;
        return new PersonPage(
                page.stream()
                        .map(p -> new PersonLine(
                                p.id(),
                                (p.title() + " " + p.name().full()).strip(),
                                p.username(),
                                p.email(),
                                p.keeper(),
                                p.teacher(),
                                p.hasPassword(),
                                places(p.id()),
                                people.tries(p.id()).orElse(null)))
                        .toList(),
                next);
    }

    /** A page begins after this name and number. */
    private record Begins(String name, long id) {}

    private static long requireInPerson(Viewer viewer) {
        Problem.unlessAllowed(AccessEngine.own(viewer));
        return viewer.personId();
    }
}

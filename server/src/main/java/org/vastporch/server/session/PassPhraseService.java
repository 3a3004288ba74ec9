package org.vastporch.server.session;

import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Role;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.people.PersonName;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Problem;
import org.vastporch.server.people.PeopleService;

/** New pass phrases for students, first addresses for teachers. */
@Service
public class PassPhraseService {

    public record NewPhrase(String username, String phrase) {}

    /** @param path the one-time address below the school's own */
    public record Welcome(String username, String path) {}

    private final PeopleService people;
    private final SessionService sessions;
    private final AccessService access;

    PassPhraseService(PeopleService people, SessionService sessions, AccessService access) {
        this.people = people;
        this.sessions = sessions;
        this.access = access;
    }

    /** Gives a student of the class a new pass phrase; whoever is signed in with the old one is signed out. */
    @Transactional
    public NewPhrase renew(Viewer viewer, long classId, long personId) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        if (!people.mayRenewPhrase(classId, personId))
            throw Problem.invalid("person", "not-a-student", "Only students get a new pass phrase from their teacher. Others ask the school keeper.");
        String phrase = people.giveNewPhrase(personId);
        sessions.endAll(personId);
        return new NewPhrase(people.usernameOf(personId), phrase);
    }

    @Transactional
    public Welcome addTeacher(Viewer viewer, String title, PersonName name, String email) {
        people.requireKeeper(viewer);
        long id = people.addStaff(viewer, title, name, email, true);
        return new Welcome(people.usernameOf(id), "/first-password?t=" + sessions.oneTime(id));
    }

    /** A new one-time address for somebody of the school; whoever is signed in as that person is signed out when it is used. */
    @Transactional
    public Welcome newAddress(Viewer viewer, long personId) {
        people.requireKeeper(viewer);
        return new Welcome(people.usernameOf(personId), "/first-password?t=" + sessions.oneTime(personId));
    }

    /** A co-teacher, assistant, moderator or guest of a class: a new account with a one-time address to hand over. */
    @Transactional
    public Welcome addHelper(Viewer viewer, long classId, Role role, String title, PersonName name, String email) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        if (role == Role.STUDENT || role == Role.LEAD) throw Problem.invalid("role", "role-not-here", "Choose co-teacher, assistant, moderator or guest.");
        long id = people.addStaff(viewer, title, name, email, false);
        people.enrol(classId, id, role, "", PersonName.Shown.OWN_NAME, null);
        return new Welcome(people.usernameOf(id), "/first-password?t=" + sessions.oneTime(id));
    }
}

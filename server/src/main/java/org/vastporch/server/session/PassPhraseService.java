package org.vastporch.server.session;

import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Role;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.people.EmailAddress;
import org.vastporch.core.people.PersonName;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.mail.MailService;
import org.vastporch.server.mail.SchoolAddress;
import org.vastporch.server.people.PeopleService;

/** New pass phrases for students, first addresses for teachers. */
@Service
public class PassPhraseService {

    public record NewPhrase(String username, String phrase) {}

    /** @param path the one-time address below the school's own */
    public record Welcome(
            String username, String path, @Optionally String mailedTo) {}

    private final PeopleService people;
    private final SessionService sessions;
    private final AccessService access;
    private final MailService mail;
    private final SchoolAddress school;

    PassPhraseService(
            PeopleService people,
            SessionService sessions,
            AccessService access,
            MailService mail,
            SchoolAddress school) {
        this.people = people;
        this.sessions = sessions;
        this.access = access;
        this.mail = mail;
        this.school = school;
    }

    /** Gives a student of the class a new pass phrase; whoever is signed in with the old one is signed out. */
    @Transactional
    public NewPhrase renew(Viewer viewer, long classId, long personId) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        if (!people.students(classId).contains(personId))
            throw Problem.invalid(
                    "person",
                    "not-a-student",
                    "Only students get a new pass phrase from their teacher. Others ask the school keeper.");
        if (!people.caresFor(viewer, personId))
            throw Problem.invalid(
                    "person",
                    "keeper-cares",
                    "This student is in other classes too. The school keeper gives a new way in to "
                            + "people who are in classes of several teachers.");
        String phrase = people.giveNewPhrase(personId);
        sessions.endAll(personId);
        return new NewPhrase(people.usernameOf(personId), phrase);
    }

    @Transactional
    public Welcome addTeacher(Viewer viewer, String title, PersonName name, String email) {
        people.requireKeeper(viewer);
        return welcome(people.addStaff(viewer, title, name, checkedEmail(email), true), email);
    }

    /**
     * A new one-time address for somebody of the school; whoever is signed in as that person is signed out when it is
     * used.
     */
    @Transactional
    public Welcome newAddress(Viewer viewer, long personId) {
        people.requireKeeper(viewer);
        return new Welcome(people.usernameOf(personId), "/first-password?t=" + sessions.oneTime(personId), null);
    }

    /** A co-teacher, assistant, moderator or guest of a class: a new account with a one-time address to hand over. */
    @Transactional
    public Welcome addHelper(Viewer viewer, long classId, Role role, String title, PersonName name, String email) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        if (role == Role.STUDENT || role == Role.LEAD)
            throw Problem.invalid("role", "role-not-here", "Choose co-teacher, assistant, moderator or guest.");
        long id = people.addStaff(viewer, title, name, checkedEmail(email), false);
        people.enrol(classId, id, role, "", PersonName.Shown.OWN_NAME, viewer.personId());
        return welcome(id, email);
    }

    /** A one-time address for a new account, which also goes by mail where there is an address and a post office. */
    private Welcome welcome(long personId, String email) {
        String path = "/first-password?t=" + sessions.oneTime(personId);
        if (email.isBlank() || !mail.canSend()) return new Welcome(people.usernameOf(personId), path, null);
        mail.write(personId, email.strip(), "Your account on Vast Porch", """
            Hello,

            an account was made for you on Vast Porch. Your username is %s.

            To set your password, open this address within seven days; it works once:
            %s%s
            """.formatted(
                        people.usernameOf(personId), school.base(), path));
        return new Welcome(people.usernameOf(personId), path, email.strip());
    }

    private static String checkedEmail(String email) {
        String typed = email.strip();
        if (!typed.isEmpty() && !EmailAddress.isValid(typed))
            throw Problem.invalid("email", "email-wrong", "\"" + typed + "\" is not an e-mail address.");
        return typed;
    }
}

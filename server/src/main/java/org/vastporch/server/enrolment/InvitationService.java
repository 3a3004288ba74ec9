package org.vastporch.server.enrolment;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Role;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.people.EmailAddress;
import org.vastporch.core.text.OneLine;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.enrolment.InvitationStore.Invitation;
import org.vastporch.server.http.Problem;
import org.vastporch.server.http.Tokens;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.mail.MailService;
import org.vastporch.server.mail.SchoolAddress;
import org.vastporch.server.people.PeopleService;

/** Invitations into a class by e-mail. */
@Service
public class InvitationService {

    /** @param name what the invited person is called in the mail; may be empty */
    public record Invite(Role role, String name, String email) {}

    /**
     * @param state "open" or "expired"
     * @param mail "sent", "waits", "no-post-office", or "failed: " and why
     */
    public record InvitationLine(
            long id,
            Role role,
            String email,
            String name,
            Instant sentAt,
            int sentTimes,
            Instant expiresAt,
            String state,
            String mail) {}

    /** The path of an invitation, to be handed over by people where no mail goes. */
    public record Sent(String path) {}

    /** What an invited person sees. */
    public record Invited(String className, Role role, String invitedBy, String name, String email) {}

    private static final Duration LASTS = Duration.ofDays(14);

    private final InvitationStore store;
    private final PeopleService people;
    private final ClassService classes;
    private final AccessService access;
    private final MailService mail;
    private final SchoolAddress school;
    private final EventStore events;
    private final Clock clock;

    InvitationService(
            InvitationStore store,
            PeopleService people,
            ClassService classes,
            AccessService access,
            MailService mail,
            SchoolAddress school,
            EventStore events,
            Clock clock) {
        this.store = store;
        this.people = people;
        this.classes = classes;
        this.access = access;
        this.mail = mail;
        this.school = school;
        this.events = events;
        this.clock = clock;
    }

    /**
     * Invites somebody by mail. The name is for the list of invitations; no text of the inviter's own goes to an
     * address that anybody can type.
     */
    @Transactional
    public Sent invite(Viewer viewer, long classId, Invite wish) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        if (wish.role() == Role.LEAD) throw Problem.invalid("role", "role-not-here", "A class has one lead teacher.");
        String email = wish.email().strip();
        if (!EmailAddress.isValid(email))
            throw Problem.invalid("email", "email-wrong", "\"" + email + "\" is not an e-mail address.");
        String name = OneLine.of(wish.name());
        if (name.length() > 120)
            throw Problem.invalid("name", "name-too-long", "A name has at most 120 characters here.");
        if (store.ofClass(classId).stream()
                .anyMatch(i -> i.acceptedAt() == null && i.email().equalsIgnoreCase(email)))
            throw Problem.invalid(
                    "email",
                    "invited-already",
                    "This address has an invitation that waits. You can send it once more.");
        String token = Tokens.make();
        store.add(
                classId,
                wish.role(),
                email,
                name,
                Tokens.hash(token),
                viewer.personId(),
                clock.instant(),
                clock.instant().plus(LASTS));
        send(viewer, classId, wish.role(), email, token);
        events.add(classId, "invited", null, viewer.personId());
        return new Sent("/invitation?t=" + token);
    }

    /** Sends an invitation once more, with a new address; the one before no longer works. */
    @Transactional
    public Sent resend(Viewer viewer, long id) {
        Invitation invitation = require(viewer, id);
        String token = Tokens.make();
        store.resend(id, Tokens.hash(token), clock.instant(), clock.instant().plus(LASTS));
        send(viewer, invitation.classId(), invitation.role(), invitation.email(), token);
        return new Sent("/invitation?t=" + token);
    }

    @Transactional
    public void withdraw(Viewer viewer, long id) {
        Invitation invitation = require(viewer, id);
        store.withdraw(id);
        events.add(invitation.classId(), "invitation-withdrawn", null, viewer.personId());
    }

    /** The invitations of a class that nobody has accepted yet. */
    public List<InvitationLine> pending(Viewer viewer, long classId) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        return store.ofClass(classId).stream()
                .filter(i -> i.acceptedAt() == null)
                .map(i -> new InvitationLine(
                        i.id(),
                        i.role(),
                        i.email(),
                        i.name(),
                        i.sentAt(),
                        i.sentTimes(),
                        i.expiresAt(),
                        clock.instant().isBefore(i.expiresAt()) ? "open" : "expired",
                        mail.standing(i.email())))
                .toList();
    }

    public Invited read(String token) {
        Invitation invitation = open(token);
        return new Invited(
                classes.get(invitation.classId()).name(),
                invitation.role(),
                people.ownName(invitation.invitedBy()),
                invitation.name(),
                invitation.email());
    }

    /** The invitation behind a token, if it still works; its row is locked. */
    Invitation open(String token) {
        Invitation invitation = store.lockByToken(Tokens.hash(token))
                .orElseThrow(() -> Problem.stale(
                        "invitation-gone",
                        "This invitation was withdrawn, or a newer one was sent. Look for the"
                                + " newest mail, or ask whoever invited you."));
        if (invitation.acceptedAt() != null)
            throw Problem.stale(
                    "invitation-used", "This invitation was accepted already. Sign in with your own account.");
        if (!clock.instant().isBefore(invitation.expiresAt()))
            throw Problem.stale(
                    "invitation-expired", "This invitation is too old. Ask whoever invited you to send it once more.");
        return invitation;
    }

    void accepted(Invitation invitation, long personId) {
        store.accepted(invitation.id(), personId, clock.instant());
    }

    private Invitation require(Viewer viewer, long id) {
        Invitation invitation = store.find(id).orElseThrow(Problem::missing);
        access.require(viewer, Act.MANAGE_CLASS, invitation.classId());
        if (invitation.acceptedAt() != null)
            throw Problem.stale("invitation-used", "This invitation was accepted already.");
        return invitation;
    }

    private void send(Viewer viewer, long classId, Role role, String email, String token) {
        String className = classes.get(classId).name();
        String as =
                switch (role) {
                    case CO_TEACHER -> "as a co-teacher";
                    case ASSISTANT -> "as an assistant";
                    case MODERATOR -> "to help with approving posts and comments";
                    case GUEST -> "as a guest who reads along";
                    default -> "as a student";
                };
        mail.write(null, email, "An invitation to " + className, """
            Hello,

            %s invites you to the class "%s" on Vast Porch, %s.

            To accept, open this address within 14 days:
            %s/invitation?t=%s

            If you do not know what this is about, you can leave it: nothing happens until you accept.
            """.formatted(
                        people.ownName(viewer.personId()), className, as, school.base(), token));
    }
}

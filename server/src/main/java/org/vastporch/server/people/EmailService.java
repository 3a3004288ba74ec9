package org.vastporch.server.people;

import java.time.Clock;
import java.time.Duration;
import java.util.Optional;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.AccessEngine;
import org.vastporch.core.access.Role;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.people.EmailAddress;
import org.vastporch.server.http.Allowance;
import org.vastporch.server.http.Problem;
import org.vastporch.server.http.Tokens;
import org.vastporch.server.mail.MailService;
import org.vastporch.server.mail.SchoolAddress;

/**
 * The e-mail addresses of a person. One counts once somebody who reads mail there has confirmed it, so that nothing
 * private goes to a slip of the pen.
 */
@Service
public class EmailService {

    private static final Duration LASTS = Duration.ofDays(3);

    private final EmailStore store;
    private final PeopleStore people;
    private final MailService mail;
    private final SchoolAddress school;
    private final Clock clock;
    private final Allowance asked = new Allowance(5);

    EmailService(EmailStore store, PeopleStore people, MailService mail, SchoolAddress school, Clock clock) {
        this.store = store;
        this.people = people;
        this.mail = mail;
        this.school = school;
        this.clock = clock;
    }

    /** Whether a person keeps the own address; that of a student comes from the school's lists. */
    public boolean mayChange(long personId) {
        return people.places(personId).stream().noneMatch(p -> p.role() == Role.STUDENT && p.endedAt() == null);
    }

    /** The address that waits to be confirmed. */
    public Optional<String> waiting(long personId) {
        return store.waiting(personId, clock.instant());
    }

    /**
     * Asks for another address: a mail goes there, and its link confirms it. An empty one takes the address away at
     * once.
     *
     * @throws Problem if it is no address, or if this is a student's account
     */
    @Transactional
    public void ask(Viewer viewer, String address) {
        Problem.unlessAllowed(AccessEngine.own(viewer));
        if (!mayChange(viewer.personId()))
            throw Problem.stale(
                    "email-kept", "The school keeps the addresses of its students. Ask your teacher about it.");
        String email = address.strip();
        store.withdraw(viewer.personId());
        if (email.isEmpty()) {
            people.setEmail(viewer.personId(), "");
            return;
        }
        if (!EmailAddress.isValid(email))
            throw Problem.invalid("email", "email-wrong", "\"" + email + "\" is not an e-mail address.");
        ask(new EmailStore.Wish(viewer.personId(), email, true), "gave this address as their own");
    }

    /**
     * Whether mail for a person may go to an address: it is that of the account, or whoever reads mail there has said
     * so.
     */
    public boolean isConfirmed(long personId, String email) {
        return email.equals(people.person(personId).orElseThrow().email()) || store.isConfirmed(personId, email);
    }

    /** Asks at an address besides that of the account, once; nothing else goes there until it was confirmed. */
    @Transactional
    public void askBesides(long personId, String email) {
        EmailStore.Wish wish = new EmailStore.Wish(personId, email, false);
        if (!store.waits(wish, clock.instant()))
            ask(wish, "wants mail about what waits for them to come to this address");
    }

    private void ask(EmailStore.Wish wish, String why) {
        if (!asked.take(String.valueOf(wish.personId())))
            throw Problem.tooMany("You have asked for several addresses. Please try again in an hour.");
        String token = Tokens.make();
        store.add(wish, Tokens.hash(token), clock.instant().plus(LASTS));
        mail.write(wish.personId(), wish.email(), "Is this your address?", """
            Hello,

            somebody with an account on Vast Porch, username "%s", %s.

            If that was you, open this page within three days:
            %s/email?t=%s

            If it was not, you can leave it: nothing is sent here until somebody confirms it.
            """.formatted(
                        people.person(wish.personId()).orElseThrow().username(), why, school.base(), token));
    }

    /** Confirms the address to which a token was sent. */
    @Transactional
    public void confirm(String token) {
        EmailStore.Wish wish = store.byToken(Tokens.hash(token), clock.instant())
                .orElseThrow(() -> Problem.stale(
                        "address-used",
                        "This link was used already, is too old, or another address was asked"
                                + " for since. Give the address once more to get a new one."));
        if (wish.own()) people.setEmail(wish.personId(), wish.email());
        else store.confirm(wish.personId(), wish.email());
        store.remove(wish);
    }
}

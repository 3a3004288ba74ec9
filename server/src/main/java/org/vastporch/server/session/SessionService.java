package org.vastporch.server.session;

import java.time.Clock;
import java.time.Duration;
import java.util.Locale;
import java.util.Optional;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.people.Passwords;
import org.vastporch.server.http.Problem;
import org.vastporch.server.http.Tokens;
import org.vastporch.server.people.PeopleService;

/** Signing in and out, and first passwords by one-time address. */
@Service
public class SessionService {

    static final Duration SESSION = Duration.ofDays(14);
    private static final Duration ONE_TIME = Duration.ofDays(7);
    private static final String WRONG = "This username and password do not belong together. Check the sign-in slip, or ask your teacher for a new pass phrase.";

    private final SignInStore store;
    private final PeopleService people;
    private final PasswordEncoder passwords;
    private final Clock clock;
    private final Throttle byAccount = new Throttle(10, Duration.ofMinutes(5));
    private final Throttle byAddress = new Throttle(100, Duration.ofMinutes(10));
    private final String dummyHash;

    SessionService(SignInStore store, PeopleService people, PasswordEncoder passwords, Clock clock) {
        this.store = store;
        this.people = people;
        this.passwords = passwords;
        this.clock = clock;
        this.dummyHash = passwords.encode("nobody");
    }

    /**
     * Signs in.
     *
     * @param address where the request comes from
     * @return the token for the cookie
     */
    @Transactional
    public String signIn(String username, String password, String address) {
        String account = username.strip().toLowerCase(Locale.ROOT);
        if (!byAccount.isOpen(account) || !byAddress.isOpen(address))
            throw Problem.tooMany("There were too many tries that did not work. Please wait five minutes, or ask your teacher for a new pass phrase.");
        Optional<PeopleService.Credentials> found = people.credentials(account);
        // Somebody unknown takes as long as somebody known.
        String typed = password.length() > Passwords.LONGEST ? "" : password.strip();
        boolean right = passwords.matches(typed, found.map(PeopleService.Credentials::hash).orElse(dummyHash)) && found.isPresent();
        if (!right) {
            byAccount.failed(account);
            byAddress.failed(address);
            throw Problem.unauthorised("wrong-password", WRONG).with("field", "password");
        }
        byAccount.succeeded(account);
        people.signedIn(found.get().personId());
        return open(found.get().personId());
    }

    public Optional<Long> personOf(String token) {
        return store.personOf(Tokens.hash(token), clock.instant().minus(SESSION));
    }

    @Transactional
    public void signOut(String token) {
        store.remove(Tokens.hash(token));
    }

    /** A new one-time address token with which a person sets a password; older ones of the person end. */
    @Transactional
    public String oneTime(long personId) {
        String token = Tokens.make();
        store.addOneTime(Tokens.hash(token), personId, clock.instant().plus(ONE_TIME));
        return token;
    }

    public Optional<Long> oneTimePerson(String token) {
        return store.oneTime(Tokens.hash(token), clock.instant());
    }

    /** Sets the first password by a one-time token, signs in, and returns the token for the cookie. */
    @Transactional
    public String firstPassword(String token, String password) {
        long person = oneTimePerson(token).orElseThrow(() -> Problem.stale("address-used", "This one-time address was used already or is too old. Ask for a new one."));
        String fault = Passwords.fault(password);
        if (!fault.isEmpty()) throw Problem.invalid("password", "password-unfit", fault);
        people.setPassword(person, password.strip());
        store.useOneTime(Tokens.hash(token));
        store.removeAllOf(person);
        return open(person);
    }

    /** Ends all sessions of a person, as after a new pass phrase. */
    public void endAll(long personId) {
        store.removeAllOf(personId);
    }

    /** Opens a session for somebody who just proved to be that person, and gives the token for the cookie. */
    String open(long personId) {
        String token = Tokens.make();
        store.add(Tokens.hash(token), personId, clock.instant());
        return token;
    }
}

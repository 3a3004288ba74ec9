package org.vastporch.server.session;

import java.time.Clock;
import java.time.Duration;
import java.util.Locale;
import java.util.Optional;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import org.vastporch.core.access.AccessEngine;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.people.Passwords;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Problem;
import org.vastporch.server.http.Tokens;
import org.vastporch.server.people.AccountService;
import org.vastporch.server.people.PeopleService;

/** Signing in and out, and first passwords by one-time address. */
@Service
public class SessionService {

    static final Duration SESSION = Duration.ofDays(14);
    static final Duration DEVICE = Duration.ofDays(400);
    private static final int LONGEST_NAME = 60;
    private static final Duration ONE_TIME = Duration.ofDays(7);
    private static final String WRONG =
            "This username and password do not belong together. Check the sign-in slip, or ask your "
                    + "teacher for a new pass phrase.";

    private final SignInStore store;
    private final PeopleService people;
    private final AccountService accounts;
    private final AccessService access;
    private final SlowHashes hashes;
    private final Clock clock;
    private final Tries tries;
    private final TransactionTemplate transaction;
    private final String dummyHash;

    SessionService(
            SignInStore store,
            PeopleService people,
            AccountService accounts,
            AccessService access,
            SlowHashes hashes,
            PasswordEncoder passwords,
            Tries tries,
            TransactionTemplate transaction,
            Clock clock) {
        this.store = store;
        this.people = people;
        this.accounts = accounts;
        this.access = access;
        this.hashes = hashes;
        this.tries = tries;
        this.transaction = transaction;
        this.clock = clock;
        this.dummyHash = passwords.encode("nobody");
    }

    /**
     * What a browser gets that signed in. {@code device} is kept by it for good, and lets it sign in without waiting
     * for those who guess elsewhere.
     */
    public record SignedIn(String session, String device) {}

    /**
     * Signs in.
     *
     * @param address where the request comes from
     * @param device the token of the device; empty if nobody signed in on it before
     */
    public SignedIn signIn(String username, String password, String address, String device) {
        String account = username.strip().toLowerCase(Locale.ROOT);
        if (account.length() > LONGEST_NAME)
            throw Problem.unauthorised("wrong-password", WRONG).with("field", "password");
        Optional<PeopleService.Credentials> found = people.credentials(account);
        boolean known = found.isPresent()
                && !device.isEmpty()
                && store.isDevice(Tokens.hash(device), found.get().personId());
        Tries.OfPassword tried = tries.password(account, address, device, known);
        // Somebody unknown takes as long as somebody known.
        String typed = Passwords.fits(password) ? password.strip() : "";
        boolean right =
                isRight(tried, typed, found.map(PeopleService.Credentials::hash).orElse(dummyHash))
                        && found.isPresent();
        if (!right) {
            found.ifPresent(person -> people.addTry(person.personId()));
            throw Problem.unauthorised("wrong-password", WRONG).with("field", "password");
        }
        tried.right();
        return transaction.execute(status -> {
            people.signedIn(found.get().personId());
            // A computer that several people share stays known to each of them.
            String kept = store.isDevice(Tokens.hash(device)) ? device : Tokens.make();
            store.putDevice(Tokens.hash(kept), found.get().personId(), clock.instant());
            return new SignedIn(open(found.get().personId()), kept);
        });
    }

    private boolean isRight(Tries.OfPassword tried, String typed, String hash) {
        try {
            return hashes.matches(typed, hash);
        } catch (Problem busy) {
            tried.notLookedAt();
            throw busy;
        }
    }

    public void triesSeen(Viewer viewer) {
        Problem.unlessAllowed(AccessEngine.own(viewer));
        people.forgetTries(viewer.personId());
    }

    /** Lets tries at an account be answered at once again; for the keeper. */
    @Transactional
    public void liftTries(Viewer viewer, long personId) {
        people.requireKeeper(viewer);
        tries.lift(people.usernameOf(personId));
        people.forgetTries(personId);
    }

    /** Who is signed in with this token; a stranger if nobody is any more. */
    Viewer viewerOf(String token) {
        return token.isEmpty()
                ? Viewer.STRANGER
                : access.signedIn(Tokens.hash(token), clock.instant().minus(SESSION));
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
        long person = oneTimePerson(token)
                .orElseThrow(() -> Problem.stale(
                        "address-used", "This one-time address was used already or is too old. Ask for a new one."));
        String fault = Passwords.fault(password);
        if (!fault.isEmpty()) throw Problem.invalid("password", "password-unfit", fault);
        people.setPassword(person, password.strip());
        store.useOneTime(Tokens.hash(token));
        endAll(person);
        return open(person);
    }

    /** Ends all sessions of a person and forgets the devices, as after a new pass phrase. */
    public void endAll(long personId) {
        store.removeAllOf(personId);
        store.forgetDevices(personId);
    }

    /**
     * Changes the own password, and signs the person out everywhere else; guesses at the old one wait as they do at
     * signing in.
     *
     * @param session the token of the session that goes on
     * @return how many others ended
     */
    public int changePassword(Viewer viewer, String before, String wanted, String session, String address) {
        Problem.unlessAllowed(AccessEngine.own(viewer));
        Tries.OfPassword tried =
                tries.password(people.usernameOf(viewer.personId()), address, "own " + viewer.personId(), false);
        return transaction.execute(status -> {
            accounts.changePassword(viewer, before, wanted);
            tried.right();
            store.forgetDevices(viewer.personId());
            return store.removeOthersOf(viewer.personId(), Tokens.hash(session));
        });
    }

    /** Opens a session for somebody who just proved to be that person, and gives the token for the cookie. */
    String open(long personId) {
        String token = Tokens.make();
        store.add(Tokens.hash(token), personId, clock.instant());
        return token;
    }
}

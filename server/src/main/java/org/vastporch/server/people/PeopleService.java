package org.vastporch.server.people;

import java.security.SecureRandom;
import java.time.Clock;
import java.time.Instant;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Membership;
import org.vastporch.core.access.Reason;
import org.vastporch.core.access.Role;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.enrolment.NewcomerName;
import org.vastporch.core.enrolment.RosterCheck;
import org.vastporch.core.people.AccountCare;
import org.vastporch.core.people.Leaving;
import org.vastporch.core.people.PassPhrases;
import org.vastporch.core.people.PersonName;
import org.vastporch.core.people.Usernames;
import org.vastporch.core.text.Folding;
import org.vastporch.core.text.Latin;
import org.vastporch.core.text.OneLine;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;

/** People: accounts, names, places in classes. */
@Service
public class PeopleService {

    /** What signing in needs to know. */
    public record Credentials(long personId, String hash) {}

    public record Group(long id, String name) {}

    /**
     * A member as staff see them.
     *
     * @param place the number of the place in the class, by which readers know the person
     * @param state one of "slip" (never signed in), "signed-in", "left"
     * @param shownAs the name that readers see
     * @param care whether the viewer looks after the account; else the school keeper does
     * @param nameAsked whether staff have still to look at the name before the class sees it
     * @param leftAt when a member left, and {@code mayReturn} whether that can be undone
     */
    public record MemberLine(
            long id,
            long place,
            String name,
            String sortName,
            String username,
            Role role,
            @Optionally String group,
            @Optionally Long groupId,
            String email,
            String schoolNo,
            String state,
            PersonName.Shown shown,
            @Optionally String penName,
            String shownAs,
            @Optionally Instant leftAt,
            @Optionally Leaving leaving,
            boolean mayReturn,
            boolean care,
            boolean nameAsked) {}

    public record StaffLine(long id, String name, String username, String email, boolean keeper, boolean ready) {}

    private static final int WORTH_TELLING = 5;
    private static final String SOMEBODY = "Somebody of the school";

    private final PeopleStore store;
    private final AccessService access;
    private final EventStore events;
    private final PasswordEncoder passwords;
    private final SlipVault vault;
    private final ApplicationEventPublisher publisher;
    private final Clock clock;
    private final SecureRandom random = new SecureRandom();

    PeopleService(
            PeopleStore store,
            AccessService access,
            EventStore events,
            PasswordEncoder passwords,
            SlipVault vault,
            ApplicationEventPublisher publisher,
            Clock clock) {
        this.store = store;
        this.access = access;
        this.events = events;
        this.passwords = passwords;
        this.vault = vault;
        this.publisher = publisher;
        this.clock = clock;
    }

    public Optional<Credentials> credentials(String username) {
        return store.credentials(username);
    }

    /** Tries at somebody's password that did not work, since that person last said that they know of them. */
    public record TriesView(int count, Instant last) {}

    public void addTry(long personId) {
        store.addTry(personId, clock.instant());
    }

    public void forgetTries(long personId) {
        store.forgetTries(personId);
    }

    /** What a person is told of tries at the own account; empty while they are as few as slips of one's own fingers. */
    public Optional<TriesView> tries(long personId) {
        return store.tries(personId).filter(t -> t.count() >= WORTH_TELLING);
    }

    public void signedIn(long personId) {
        store.signedIn(personId, clock.instant());
    }

    /** Puts a member into a group, which is made if it is not there. */
    public void move(long classId, long personId, String group) {
        store.setGroup(classId, List.of(personId), store.groupId(classId, group.strip()));
    }

    /** A new or mended name, address or number; what is empty stays as it was. */
    public void change(long classId, long personId, PersonName name, String email, String schoolNo, String group) {
        PeopleStore.Person before = store.person(personId).orElseThrow();
        store.change(
                personId,
                name,
                email.isEmpty() ? before.email() : email,
                schoolNo.isEmpty() ? before.schoolNo() : schoolNo);
        if (!group.isBlank()) move(classId, personId, group);
        if (!name.equals(before.name())) publisher.publishEvent(new NamesChanged(classId, List.of(personId)));
    }

    /** Sets a password. One-time addresses end with every new password or pass phrase. */
    public void setPassword(long personId, String password) {
        store.setPassword(personId, passwords.encode(password), null);
        events.add(null, "password-set", personId, personId);
    }

    /** Gives several people one password, hashed once, as for a school that is shown to others. */
    public void setPassword(List<Long> people, String password) {
        String hash = passwords.encode(password);
        people.forEach(id -> store.setPassword(id, hash, null));
    }

    /** The names of a class's members as the viewer may see them. */
    public Names names(Viewer viewer, long classId) {
        Map<Long, Names.Shown> names = new HashMap<>();
        Map<Long, String> others = new HashMap<>();
        for (PeopleStore.Named named : store.named(classId)) {
            PeopleStore.Member member = named.member();
            boolean real = access.seesRealName(viewer, member.id(), named.classId());
            if (named.classId() == classId)
                names.put(
                        member.id(),
                        new Names.Shown(shownName(member, real), member.role(), member.group(), member.place()));
            // Where somebody belongs is for the school; strangers read no names of other classes.
            else others.put(member.id(), viewer.isStranger() ? SOMEBODY : nameElsewhere(named, real));
        }
        return new Names(names, others);
    }

    /** By what somebody is known outside of the own class: no family name of a student, and where they belong. */
    private static String nameElsewhere(PeopleStore.Named named, boolean real) {
        PeopleStore.Member member = named.member();
        boolean cut = member.role() == Role.STUDENT
                && member.shown() == PersonName.Shown.OWN_NAME
                && !member.nameAsked()
                && !real;
        String shown =
                cut ? member.name().shownAs(PersonName.Shown.FIRST_AND_INITIAL, null, false) : shownName(member, real);
        return shown + " (" + named.className() + ")";
    }

    /** Notes that somebody commented in a class: if it is not their own, its readers learn from which they come. */
    public void commented(long classId, long personId) {
        store.commented(classId, personId);
    }

    /** The names as readers see them who are not staff: what titles, addresses and public feeds may carry. */
    public Names namesForReaders(long classId) {
        return names(Viewer.STRANGER, classId);
    }

    /** The person at a place of a class, if the number is one. */
    public Optional<Long> personAt(long classId, long place) {
        return store.members(classId).stream()
                .filter(m -> m.place() == place)
                .map(PeopleStore.Member::id)
                .findFirst();
    }

    private static String shownName(PeopleStore.Member member, boolean real) {
        if (member.nameAsked() && !real) return NewcomerName.UNTIL_ASKED;
        if (member.role() != Role.STUDENT && !member.title().isBlank())
            return member.title() + " " + member.name().family();
        return member.name().shownAs(member.shown(), member.penName(), real);
    }

    /** The e-mail address in an account; empty if there is none. */
    public String email(long personId) {
        return store.person(personId).map(PeopleStore.Person::email).orElse("");
    }

    /** The name by which a person is greeted: title and family name, or first name and initial. */
    public String ownName(long personId) {
        PeopleStore.Person person = store.person(personId).orElseThrow(Problem::missing);
        return person.title().isBlank()
                ? person.name().shownAs(PersonName.Shown.FIRST_AND_INITIAL, null, false)
                : person.title() + " " + person.name().family();
    }

    public boolean isTeacher(long personId) {
        return store.person(personId).map(PeopleStore.Person::teacher).orElse(false);
    }

    public List<MemberLine> members(Viewer viewer, long classId) {
        access.require(viewer, Act.SEE_REAL_NAME, classId);
        Set<Long> care = inCare(viewer, classId);
        return roll(classId).stream().map(m -> line(m, care.contains(m.id()))).toList();
    }

    private MemberLine line(PeopleStore.Member m, boolean care) {
        String sortName = (m.name().family() + ", " + m.name().given()).replaceFirst("^, |, $", "");
        String state = m.endedAt() != null ? "left" : m.signedInAt() != null ? "signed-in" : "slip";
        return new MemberLine(
                m.id(),
                m.place(),
                m.name().full(),
                sortName,
                m.username(),
                m.role(),
                m.group(),
                m.groupId(),
                m.email(),
                m.schoolNo(),
                state,
                m.shown(),
                m.penName(),
                shownName(m, false),
                m.endedAt(),
                m.leaving(),
                m.endedAt() != null && Leaving.canReturn(m.endedAt(), clock.instant()),
                care,
                m.nameAsked());
    }

    /** The students who are in a class now, in the order of their names. */
    public List<Long> students(long classId) {
        return roll(classId).stream()
                .filter(PeopleStore.Member::isStudent)
                .map(PeopleStore.Member::id)
                .toList();
    }

    /** Those of them to whom mail can go. */
    public Set<Long> studentsWithAddress(long classId) {
        return roll(classId).stream()
                .filter(m -> m.isStudent() && !m.email().isEmpty())
                .map(PeopleStore.Member::id)
                .collect(Collectors.toSet());
    }

    /** Since when the students of a class have been there. */
    public Map<Long, Instant> joined(long classId) {
        return store.joined(classId);
    }

    /** Full names of all members but one, for the hold on personal data. */
    public List<String> fullNames(long classId, long exceptPerson) {
        return store.members(classId).stream()
                .filter(m -> m.id() != exceptPerson)
                .map(m -> m.name().full())
                .toList();
    }

    public List<Group> groups(long classId) {
        return store.groups(classId);
    }

    /** Adds a teacher, or a helper of a class, with the family name as username if it is free; gives the new id. */
    @Transactional
    public long addStaff(Viewer viewer, String title, PersonName name, String email, boolean teacher) {
        String base = Latin.of(name.family().isEmpty() ? name.given() : name.family());
        String username = base.isEmpty() || store.isUsername(base) ? Usernames.make(name, store::isUsername) : base;
        long id = store.add(username, checkedTitle(title), name, email.strip(), "", false, teacher, clock.instant());
        events.add(null, "person-added", id, viewer.personId());
        return id;
    }

    private static String checkedTitle(String title) {
        String line = OneLine.of(title);
        if (line.length() > 20)
            throw Problem.invalid("title", "title-too-long", "A title such as Ms or Dr has at most 20 characters.");
        return line;
    }

    /**
     * The school keeper's account, made when the school is opened for the first time. Empty if there is a keeper with a
     * password.
     */
    @Transactional
    public Optional<Long> keeperWithoutPassword() {
        List<PeopleStore.Person> keepers = store.staffOfSchool().stream()
                .filter(PeopleStore.Person::keeper)
                .toList();
        if (keepers.stream().anyMatch(PeopleStore.Person::hasPassword)) return Optional.empty();
        if (!keepers.isEmpty()) return Optional.of(keepers.get(0).id());
        return Optional.of(addKeeper("keeper", new PersonName("", "School keeper")));
    }

    /** The account of the one who keeps the school; without a password as yet. */
    public long addKeeper(String username, PersonName name) {
        return store.add(username, "", name, "", "", true, true, clock.instant());
    }

    public List<StaffLine> staffOfSchool(Viewer viewer) {
        requireKeeper(viewer);
        return store.staffOfSchool().stream()
                .map(p -> new StaffLine(
                        p.id(),
                        (p.title() + " " + p.name().full()).strip(),
                        p.username(),
                        p.email(),
                        p.keeper(),
                        p.hasPassword()))
                .toList();
    }

    public void requireKeeper(Viewer viewer) {
        if (viewer.isStranger()) throw Problem.refused(Reason.SIGN_IN_FIRST);
        if (!viewer.keeper()) throw Problem.missing();
    }

    /** The members of a class whose accounts somebody looks after. */
    private Set<Long> inCare(Viewer viewer, long classId) {
        return store.known(classId, managedBy(viewer)).stream()
                .filter(RosterCheck.Known::care)
                .map(RosterCheck.Known::personId)
                .collect(Collectors.toSet());
    }

    /**
     * Tells whether somebody looks after the account of a person: may give a new pass phrase, and change name, number
     * and address.
     */
    public boolean caresFor(Viewer viewer, long personId) {
        PeopleStore.Person person = store.person(personId).orElseThrow();
        List<AccountCare.Place> places = store.places(personId).stream()
                .filter(p -> p.endedAt() == null)
                .map(p -> new AccountCare.Place(p.classId(), p.role()))
                .toList();
        return AccountCare.isWith(managedBy(viewer), person.keeper() || person.teacher(), places);
    }

    private Set<Long> managedBy(Viewer viewer) {
        return viewer.memberships().stream()
                .map(Membership::classId)
                .filter(id -> access.allows(viewer, Act.MANAGE_CLASS, id))
                .collect(Collectors.toSet());
    }

    /**
     * Takes a person into a class.
     *
     * @param by who does that; null for nobody in particular
     */
    @Transactional
    public void enrol(long classId, long personId, Role role, String group, PersonName.Shown shown, @Nullable Long by) {
        Long groupId = group.isBlank() ? null : store.groupId(classId, group.strip());
        store.enrol(classId, personId, role, groupId, shown, clock.instant());
        events.add(classId, "enrolled", personId, by);
    }

    /** The group of a name, made if there is none. */
    public Group group(long classId, String name) {
        return new Group(store.groupId(classId, name), name);
    }

    /** The students of a class and the group of each; none for those in no group. */
    public Map<Long, Optional<Long>> studentGroups(long classId) {
        return store.members(classId).stream()
                .filter(PeopleStore.Member::isStudent)
                .collect(Collectors.toMap(PeopleStore.Member::id, m -> Optional.ofNullable(m.groupId())));
    }

    /** @param groupId null to put them into none */
    public void setGroup(long classId, List<Long> students, @Nullable Long groupId) {
        store.setGroup(classId, students, groupId);
    }

    public void arrived(long classId, List<Long> personIds) {
        publisher.publishEvent(new MembersArrived(classId, personIds));
    }

    /**
     * A new student's account with a unique username; the pass phrase is set apart, since hashing is slow on purpose.
     */
    public long addStudent(PersonName name, String email, String schoolNo) {
        return store.add(
                Usernames.make(name, store::isUsername), "", name, email, schoolNo, false, false, clock.instant());
    }

    /**
     * What stands on a student's sign-in slip.
     *
     * @param phrase the pass phrase; null if it is in use already, or for others to give
     * @param inUse whether the student has signed in with it
     */
    public record Slip(
            PersonName name,
            String username,
            @Nullable String group,
            @Nullable String phrase,
            boolean inUse) {}

    /**
     * The slips of the students of a class, in its order. Who is in other classes too has a slip from there: with the
     * phrase on it one signs in as this person.
     *
     * @param personId of one student alone; 0 for all
     */
    public List<Slip> slips(Viewer viewer, long classId, long personId) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        Set<Long> care = inCare(viewer, classId);
        return roll(classId).stream()
                .filter(m -> m.isStudent() && (personId == 0 || m.id() == personId))
                .map(m -> new Slip(
                        m.name(),
                        m.username(),
                        m.group(),
                        m.slipPhrase() != null && care.contains(m.id()) ? vault.open(m.slipPhrase()) : null,
                        m.slipPhrase() == null))
                .toList();
    }

    /**
     * All members as their class sorts them: by family name or given name; letters with strokes and accents stand where
     * their plain ones do.
     */
    List<PeopleStore.Member> roll(long classId) {
        Comparator<PeopleStore.Member> byFamily = Comparator.comparing(
                (PeopleStore.Member m) -> Folding.fold(m.name().family()));
        Comparator<PeopleStore.Member> byGiven = Comparator.comparing(
                (PeopleStore.Member m) -> Folding.fold(m.name().given()));
        Comparator<PeopleStore.Member> order =
                store.sortsByGivenName(classId) ? byGiven.thenComparing(byFamily) : byFamily.thenComparing(byGiven);
        return store.members(classId).stream()
                .sorted(order.thenComparing(PeopleStore.Member::id))
                .toList();
    }

    public String newPhrase() {
        return PassPhrases.make(random);
    }

    /** Gives a person a new pass phrase, which is kept (locked) for the slip until the first sign-in. */
    public String giveNewPhrase(long personId) {
        String phrase = newPhrase();
        setPhrase(personId, phrase, passwords.encode(phrase));
        return phrase;
    }

    public void setPhrase(long personId, String phrase, String hash) {
        store.setPassword(personId, hash, vault.lock(phrase));
    }

    public String hash(String phrase) {
        return passwords.encode(phrase);
    }

    public String usernameOf(long personId) {
        return store.person(personId).orElseThrow(Problem::missing).username();
    }

    public List<RosterCheck.Known> known(Viewer viewer, long classId) {
        return store.known(classId, managedBy(viewer));
    }
}

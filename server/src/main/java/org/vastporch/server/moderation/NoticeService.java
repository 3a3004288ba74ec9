package org.vastporch.server.moderation;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.moderation.NoticeRule;
import org.vastporch.core.moderation.QuietHours;
import org.vastporch.core.people.EmailAddress;
import org.vastporch.core.subscriptions.Cadence;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.http.Problem;
import org.vastporch.server.mail.LateMail;
import org.vastporch.server.mail.MailService;
import org.vastporch.server.mail.SchoolAddress;
import org.vastporch.server.moderation.NoticeStore.Waiting;
import org.vastporch.server.moderation.NoticeStore.WishRow;
import org.vastporch.server.people.EmailService;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;

/**
 * Tells whoever approves that something waits: at once, once a day, or not by mail at all, as each of them asked for. A
 * mail never carries a text that waits, and one mail tells of all that came since the last.
 */
@Service
public class NoticeService implements LateMail {

    /**
     * @param waits whether the address is still to be confirmed
     * @param own the address of the account, to which mail goes where no other is given or confirmed; empty if there is
     *     none
     */
    public record Notice(
            Cadence cadence, String address, boolean waits, LocalTime quietFrom, LocalTime quietUntil, String own) {}

    /** @param cadence NEVER for the count in the application alone, AT_ONCE or DAILY */
    public record NoticeWish(Cadence cadence, String address, LocalTime quietFrom, LocalTime quietUntil) {}

    private static final Logger log = LoggerFactory.getLogger(NoticeService.class);
    /** Transactions that began before may still be on their way. */
    private static final Duration SETTLED = Duration.ofSeconds(2);

    private static final int NAMED = 12;

    private final NoticeStore store;
    private final ClassService classes;
    private final PeopleService people;
    private final EmailService emails;
    private final AccessService access;
    private final MailService mails;
    private final SchoolAddress school;
    private final TransactionTemplate transaction;
    private final Clock clock;

    NoticeService(
            NoticeStore store,
            ClassService classes,
            PeopleService people,
            EmailService emails,
            AccessService access,
            MailService mails,
            SchoolAddress school,
            TransactionTemplate transaction,
            Clock clock) {
        this.store = store;
        this.classes = classes;
        this.people = people;
        this.emails = emails;
        this.access = access;
        this.mails = mails;
        this.school = school;
        this.transaction = transaction;
        this.clock = clock;
    }

    public Notice of(Viewer viewer, long classId) {
        access.require(viewer, Act.APPROVE, classId);
        String own = people.email(viewer.personId());
        return store.find(viewer.personId(), classId)
                .map(w -> new Notice(
                        w.cadence(),
                        w.address(),
                        isUnconfirmed(viewer.personId(), w.address()),
                        w.quiet().from(),
                        w.quiet().until(),
                        own))
                .orElse(new Notice(Cadence.NEVER, "", false, NoticeRule.NIGHT.from(), NoticeRule.NIGHT.until(), own));
    }

    @Transactional
    public Notice set(Viewer viewer, long classId, NoticeWish wish) {
        access.require(viewer, Act.APPROVE, classId);
        if (wish.cadence() == Cadence.WEEKLY)
            throw Problem.invalid("cadence", "cadence-unknown", "Choose at once, once a day, or the count alone.");
        String address = wish.address().strip();
        if (!address.isEmpty() && !EmailAddress.isValid(address))
            throw Problem.invalid("address", "email-wrong", "\"" + address + "\" is not an e-mail address.");
        if (wish.cadence() != Cadence.NEVER
                && address.isEmpty()
                && people.email(viewer.personId()).isEmpty())
            throw Problem.invalid(
                    "address", "email-missing", "There is no e-mail address in your account. Write one here.");
        if (wish.cadence() != Cadence.NEVER && isUnconfirmed(viewer.personId(), address))
            emails.askBesides(viewer.personId(), address);
        Instant now = clock.instant();
        Instant upto = store.find(viewer.personId(), classId)
                .filter(w -> w.cadence() != Cadence.NEVER)
                .map(WishRow::toldUpto)
                .orElse(now);
        store.put(new WishRow(
                viewer.personId(),
                classId,
                wish.cadence(),
                address,
                new QuietHours(wish.quietFrom(), wish.quietUntil()),
                upto));
        return of(viewer, classId);
    }

    /** Whether somebody at another address than the account's has still to say that mail may come there. */
    private boolean isUnconfirmed(long personId, String address) {
        return !address.isEmpty() && !emails.isConfirmed(personId, address);
    }

    @Scheduled(fixedDelayString = "${vastporch.mail.digest-every}")
    public void tellWhatIsDue() {
        for (WishRow wish : store.all()) {
            try {
                transaction.executeWithoutResult(status -> tell(wish));
            } catch (RuntimeException e) {
                log.warn(
                        "The mail for {} about what waits could not be written; it is tried again", wish.personId(), e);
            }
        }
    }

    private void tell(WishRow wish) {
        Instant now = clock.instant().minus(SETTLED);
        ClassService.ClassRecord of = classes.get(wish.classId());
        ZoneId zone = of.term().zone();
        NoticeRule rule = new NoticeRule(wish.cadence(), wish.quiet());
        if (!rule.isTime(wish.toldUpto(), now, zone)) return;
        Viewer viewer = access.viewer(wish.personId());
        if (!access.allows(viewer, Act.APPROVE, wish.classId())) return;
        List<Waiting> arrived = store.arrived(wish.classId(), wish.toldUpto(), now);
        if (!rule.isComplete(arrived.isEmpty() ? null : arrived.get(0).since(), now)) return;
        // What could be sent nowhere is told once there is a place.
        String to = wish.address().isEmpty() || isUnconfirmed(wish.personId(), wish.address())
                ? people.email(wish.personId())
                : wish.address();
        if (to.isEmpty()) return;
        store.put(new WishRow(wish.personId(), wish.classId(), wish.cadence(), wish.address(), wish.quiet(), now));
        if (!arrived.isEmpty())
            mails.order(kind(), to, new LateMail.Order(wish.personId(), String.valueOf(of.id()), wish.toldUpto(), now));
    }

    @Override
    public String kind() {
        return "notice";
    }

    /** What still waits of it now, for somebody who still approves there. */
    @Override
    public Optional<Words> write(Order order) {
        ClassService.ClassRecord of = classes.get(Long.parseLong(order.about()));
        Viewer viewer = access.viewer(order.personId());
        List<Waiting> waiting = store.arrived(of.id(), order.since(), order.until());
        if (waiting.isEmpty() || !access.allows(viewer, Act.APPROVE, of.id())) return Optional.empty();
        String subject =
                waiting.size() == 1 ? "1 text waits in " + of.name() : waiting.size() + " texts wait in " + of.name();
        return Optional.of(new Words(subject, text(viewer, of, waiting), null, null));
    }

    private static String kindInWords(String subject) {
        return switch (subject) {
            case "post" -> "Post: ";
            case "review" -> "Review of a paper for ";
            case "header" -> "A picture for the head of ";
            default -> "Comment on ";
        };
    }

    private String text(Viewer viewer, ClassService.ClassRecord of, List<Waiting> arrived) {
        Names names = people.names(viewer, of.id());
        StringBuilder text = new StringBuilder(
                "These came since you were told last. Each address leads to the text, once you have signed in.\n");
        String pile = school.base() + "/classes/" + of.id() + "/approve";
        for (Waiting w : arrived.subList(0, Math.min(NAMED, arrived.size()))) {
            String who = w.authorId() == null ? "a visitor" : names.of(w.authorId());
            text.append("\n")
                    .append(kindInWords(w.subject()) + w.title() + ", by " + who)
                    .append("\n")
                    .append(pile)
                    .append("?item=")
                    .append(w.subject())
                    .append('-')
                    .append(w.id())
                    .append("\n");
        }
        if (arrived.size() > NAMED)
            text.append("\nand ").append(arrived.size() - NAMED).append(" more.\n");
        return text.append("\nThe whole pile: ")
                .append(pile)
                .append("\nHow often you get such mail, and where to, is set there under \"Being told\".\n")
                .toString();
    }
}

package org.vastporch.server.subscriptions;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.subscriptions.Cadence;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.mail.MailCheck;
import org.vastporch.server.mail.MailService;
import org.vastporch.server.mail.SchoolAddress;
import org.vastporch.server.subscriptions.NewsStore.Between;
import org.vastporch.server.subscriptions.NewsStore.Happened;
import org.vastporch.server.subscriptions.SubscriptionStore.MailWish;
import org.vastporch.server.subscriptions.SubscriptionStore.Reader;

/**
 * Writes the mails about what is new: one at a time for each reader and cadence, with all that came since the last. Up to when somebody was told
 * is kept in the transaction that writes the mail, so that nothing is told twice or left out, whatever is killed when.
 */
@Service
public class DigestService implements MailCheck {

    private static final Logger log = LoggerFactory.getLogger(DigestService.class);
    /** Transactions that began before may still be on their way. */
    private static final Duration SETTLED = Duration.ofSeconds(2);

    private final SubscriptionStore store;
    private final NewsStore happenings;
    private final NewsService news;
    private final AccessService access;
    private final MailService mails;
    private final TransactionTemplate transaction;
    private final Clock clock;
    private final SchoolAddress school;

    DigestService(SubscriptionStore store, NewsStore happenings, NewsService news, AccessService access, MailService mails, TransactionTemplate transaction, Clock clock,
                  SchoolAddress school) {
        this.store = store;
        this.happenings = happenings;
        this.news = news;
        this.access = access;
        this.mails = mails;
        this.transaction = transaction;
        this.clock = clock;
        this.school = school;
    }

    @Scheduled(fixedDelayString = "${vastporch.mail.digest-every}")
    public void writeWhatIsDue() {
        for (Cadence cadence : List.of(Cadence.AT_ONCE, Cadence.DAILY, Cadence.WEEKLY)) {
            for (Reader reader : store.readers(cadence)) {
                try {
                    transaction.executeWithoutResult(status -> write(reader, cadence));
                } catch (RuntimeException e) {
                    log.warn("The mail for {} could not be written; it is tried again", reader.personId(), e);
                }
            }
        }
    }

    private void write(Reader reader, Cadence cadence) {
        Instant now = clock.instant().minus(SETTLED);
        Instant last = store.upto(reader.personId(), cadence).orElse(now);
        if (!last.isBefore(now) || !cadence.isDue(last, now, ZoneId.of(reader.zone()))) return;
        MailWish wish = store.wish(reader.personId()).orElseThrow();
        Viewer viewer = access.viewer(reader.personId());
        List<Happened> happened = news.happened(viewer, new Between(last, now), cadence, wish.answers() == cadence);
        store.setUpto(reader.personId(), cadence, now);
        if (happened.isEmpty()) return;
        String base = school.base();
        String stop = base + "/stop?t=" + wish.stopToken();
        DigestText mail = DigestText.of(news.items(viewer, happened, last), base, stop);
        String carries = " " + happened.stream().map(h -> "p" + h.postId() + (h.comment() == null ? "" : " c" + h.comment())).distinct().collect(Collectors.joining(" ")) + " ";
        mails.writeDigest(new MailService.Digest(reader.personId(), reader.email(), mail.subject(), mail.text(), mail.html(), carries, stop, cadence.name(), last));
    }

    /** A mail goes only if its reader may still read all that is in it: it may have waited for long. */
    @Override
    public boolean mayGo(long personId, String carries) {
        Viewer viewer = access.viewer(personId);
        for (String part : carries.strip().split(" ")) {
            long id = Long.parseLong(part.substring(1));
            if (part.startsWith("p") ? !access.mayRead(viewer, id) : !happenings.isUp(id)) return false;
        }
        return true;
    }

    /** What could not go is told anew, without what may no longer be read. */
    @Override
    public void withdrawn(long personId, String cadence, Instant since) {
        store.setUpto(personId, Cadence.valueOf(cadence), since);
    }
}

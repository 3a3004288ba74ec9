package org.vastporch.server.subscriptions;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import org.vastporch.core.subscriptions.Cadence;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.mail.LateMail;
import org.vastporch.server.mail.MailService;
import org.vastporch.server.mail.SchoolAddress;
import org.vastporch.server.subscriptions.NewsStore.Between;
import org.vastporch.server.subscriptions.NewsStore.Happened;
import org.vastporch.server.subscriptions.SubscriptionStore.Reader;

/**
 * Orders the mails about what is new: one at a time for each reader and cadence, with all that came since the last. Up
 * to when somebody was told is kept in the transaction that orders the mail, so that nothing is told twice, whatever is
 * killed when.
 */
@Service
public class DigestService implements LateMail {

    private static final Logger log = LoggerFactory.getLogger(DigestService.class);
    /** Transactions that began before may still be on their way. */
    private static final Duration SETTLED = Duration.ofSeconds(2);

    private final SubscriptionStore store;
    private final ClassMailService classMail;
    private final ClassMailStore byClass;
    private final NewsService news;
    private final AccessService access;
    private final MailService mails;
    private final TransactionTemplate transaction;
    private final Clock clock;
    private final SchoolAddress school;

    DigestService(
            SubscriptionStore store,
            ClassMailService classMail,
            ClassMailStore byClass,
            NewsService news,
            AccessService access,
            MailService mails,
            TransactionTemplate transaction,
            Clock clock,
            SchoolAddress school) {
        this.store = store;
        this.classMail = classMail;
        this.byClass = byClass;
        this.news = news;
        this.access = access;
        this.mails = mails;
        this.transaction = transaction;
        this.clock = clock;
        this.school = school;
    }

    @Scheduled(fixedDelayString = "${vastporch.mail.digest-every}")
    public void writeWhatIsDue() {
        classMail.subscribeTheUndecided();
        for (Cadence cadence : List.of(Cadence.AT_ONCE, Cadence.DAILY, Cadence.WEEKLY)) {
            for (Reader reader : store.readers(cadence)) {
                try {
                    transaction.executeWithoutResult(status -> order(reader, cadence));
                } catch (RuntimeException e) {
                    log.warn("The mail for {} could not be ordered; it is tried again", reader.personId(), e);
                }
            }
        }
    }

    private void order(Reader reader, Cadence cadence) {
        Instant now = clock.instant().minus(SETTLED);
        Instant last = store.upto(reader.personId(), cadence).orElse(now);
        if (!last.isBefore(now) || !cadence.isDue(last, now, ZoneId.of(reader.zone()))) return;
        store.setUpto(reader.personId(), cadence, now);
        LateMail.Order order = new LateMail.Order(reader.personId(), cadence.name(), last, now);
        if (!happened(order).isEmpty()) mails.order(kind(), reader.email(), order);
    }

    private List<Happened> happened(LateMail.Order order) {
        Cadence cadence = Cadence.valueOf(order.about());
        boolean answers = store.wish(order.personId())
                .filter(wish -> wish.answers() == cadence)
                .isPresent();
        return news.happened(
                access.viewer(order.personId()), new Between(order.since(), order.until()), cadence, answers);
    }

    @Override
    public String kind() {
        return "digest";
    }

    /** What its reader may read of it now; the rest is left out and never told again. */
    @Override
    public Optional<Words> write(Order order) {
        List<Happened> happened = happened(order);
        if (happened.isEmpty()) return Optional.empty();
        String base = school.base();
        String stop =
                base + "/stop?t=" + store.wish(order.personId()).orElseThrow().stopToken();
        DigestText mail = DigestText.of(
                news.items(access.viewer(order.personId()), happened, order.since()),
                byClass.isByClass(order.personId()),
                base,
                stop);
        return Optional.of(new Words(mail.subject(), mail.text(), mail.html(), stop));
    }
}

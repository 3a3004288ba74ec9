package org.vastporch.server.mail;

import jakarta.mail.MessagingException;
import jakarta.mail.internet.MimeMessage;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.mail.MailException;
import org.springframework.mail.javamail.JavaMailSender;
import org.springframework.mail.javamail.MimeMessageHelper;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/** Sends mail: written in the transaction that wants it, sent after it, tried again until it works or it is hopeless. */
@Service
public class MailService {

    private static final Logger log = LoggerFactory.getLogger(MailService.class);
    private static final int AT_ONCE = 20;
    private static final int MOST_TRIES = 14;

    private final MailStore store;
    private final @Nullable JavaMailSender sender;
    private final String from;
    private final ObjectProvider<MailCheck> checks;
    private final TransactionTemplate transaction;
    private final Clock clock;

    MailService(MailStore store, ObjectProvider<JavaMailSender> sender, ObjectProvider<MailCheck> checks, TransactionTemplate transaction, @Value("${vastporch.mail.from}") String from, Clock clock) {
        this.store = store;
        this.sender = sender.getIfAvailable();
        this.from = from;
        this.checks = checks;
        this.transaction = transaction;
        this.clock = clock;
    }

    /** Whether there is a post office at all; without one mails wait, and links are handed over by people. */
    public boolean canSend() {
        return sender != null;
    }

    /**
     * A mail about what is new.
     *
     * @param carries     the posts and comments whose words are in it, as " p7 c9 "
     * @param stopAddress where its reader stops such mails
     * @param since       from when on it tells; told anew if it cannot go
     */
    public record Digest(long personId, String recipient, String subject, String text, String html, String carries, String stopAddress, String cadence, Instant since) {}

    public void writeDigest(Digest digest) {
        store.addDigest(digest, clock.instant());
    }

    /** Writes a mail, to be sent once the transaction is through. */
    public void write(@Nullable Long personId, String recipient, String subject, String text) {
        store.add(personId, recipient, subject, text, "", clock.instant());
    }

    /**
     * Writes a mail that names what people wrote.
     *
     * @param names the posts and comments that are named in it, as " p7 c9 ": it goes with them when a person is erased
     */
    public void writeAbout(long personId, String recipient, String subject, String text, String names) {
        store.add(personId, recipient, subject, text, names, clock.instant());
    }

    /** Where the newest mail to an address is: "sent", "waits", or "failed: " and why. */
    public String standing(String recipient) {
        if (!canSend()) return "no-post-office";
        return store.newestTo(recipient).map(m -> m.sentAt() != null ? "sent" : m.lastError() == null ? "waits" : "failed: " + m.lastError()).orElse("waits");
    }

    @Scheduled(fixedDelayString = "${vastporch.mail.send-every}")
    void sendWhatIsDue() {
        if (sender == null) return;
        for (MailStore.Mail mail : store.due(clock.instant(), AT_ONCE)) if (mayGo(mail)) send(mail);
    }

    /** What people wrote goes only to those who may read it at this very moment. */
    private boolean mayGo(MailStore.Mail mail) {
        if (mail.personId() == null || mail.cadence() == null || checks.stream().allMatch(c -> c.mayGo(mail.personId(), mail.carries()))) return true;
        transaction.executeWithoutResult(status -> {
            store.withdraw(mail.id());
            checks.forEach(c -> c.withdrawn(mail.personId(), mail.cadence(), mail.since()));
        });
        return false;
    }

    private void send(MailStore.Mail mail) {
        try {
            MimeMessage message = sender.createMimeMessage();
            MimeMessageHelper helper = new MimeMessageHelper(message, mail.html() != null, "UTF-8");
            helper.setFrom(from);
            helper.setTo(mail.recipient());
            helper.setSubject(mail.subject());
            if (mail.html() == null) helper.setText(mail.text());
            else helper.setText(mail.text(), mail.html());
            if (mail.stopAddress() != null) message.setHeader("List-Unsubscribe", "<" + mail.stopAddress() + ">");
            sender.send(message);
            store.sent(mail.id(), clock.instant());
        } catch (MailException | MessagingException e) {
            log.warn("Mail {} could not be sent: {}", mail.id(), e.getMessage());
            String error = String.valueOf(e.getMessage());
            Duration wait = Duration.ofMinutes(1L << Math.min(mail.tries(), 8));
            store.failed(mail.id(), error.length() > 300 ? error.substring(0, 300) : error, mail.tries() + 1 < MOST_TRIES ? clock.instant().plus(wait) : null);
        }
    }
}

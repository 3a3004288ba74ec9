package org.vastporch.server.mail;

import jakarta.mail.MessagingException;
import jakarta.mail.internet.MimeMessage;
import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.core.io.ByteArrayResource;
import org.springframework.mail.MailException;
import org.springframework.mail.javamail.JavaMailSender;
import org.springframework.mail.javamail.MimeMessageHelper;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/**
 * Sends mail: written or ordered in the transaction that wants it, sent after it, tried again until it works or it is
 * hopeless. Of a mail that was sent or given up no word is kept: tokens stand in some of them.
 */
@Service
public class MailService {

    private static final Logger log = LoggerFactory.getLogger(MailService.class);
    private static final int AT_ONCE = 20;
    private static final int MOST_TRIES = 14;

    private final MailStore store;
    private final @Nullable JavaMailSender sender;
    private final String from;
    private final String domain;
    private final ObjectProvider<LateMail> writers;
    private final Clock clock;

    MailService(
            MailStore store,
            ObjectProvider<JavaMailSender> sender,
            ObjectProvider<LateMail> writers,
            @Value("${vastporch.mail.from}") String from,
            Clock clock) {
        this.store = store;
        this.sender = sender.getIfAvailable();
        this.from = from;
        this.domain = from.replaceAll("^.*@|[^A-Za-z0-9.-].*$", "");
        this.writers = writers;
        this.clock = clock;
    }

    /** Whether there is a post office at all; without one mails wait, and links are handed over by people. */
    public boolean canSend() {
        return sender != null;
    }

    /**
     * Orders a mail whose words are written when it goes.
     *
     * @return its number
     */
    public long order(String kind, String recipient, LateMail.Order order) {
        return store.addOrder(kind, recipient, order, clock.instant());
    }

    /** Where some mails are, by their numbers: "sent", "waits", or "failed: " and why. */
    public Map<Long, String> standings(List<Long> ids) {
        return store.all(ids).stream().collect(Collectors.toMap(MailStore.Mail::id, this::standing));
    }

    /** Writes a mail, to be sent once the transaction is through. */
    public void write(@Nullable Long personId, String recipient, String subject, String text) {
        store.add(personId, recipient, subject, text, clock.instant());
    }

    /** Where the newest mail to an address is: "sent", "waits", or "failed: " and why. */
    public String standing(String recipient) {
        if (!canSend()) return "no-post-office";
        return store.newestTo(recipient).map(this::standing).orElse("waits");
    }

    private String standing(MailStore.Mail mail) {
        if (mail.sentAt() != null) return "sent";
        if (!canSend()) return "no-post-office";
        return mail.lastError() == null ? "waits" : "failed: " + mail.lastError();
    }

    @Scheduled(fixedDelayString = "${vastporch.mail.send-every}")
    public void sendWhatIsDue() {
        if (sender == null) return;
        for (MailStore.Mail mail : store.due(clock.instant(), AT_ONCE)) {
            try {
                words(mail).ifPresentOrElse(words -> send(mail, words), () -> store.done(mail.id(), clock.instant()));
            } catch (RuntimeException e) {
                // One that cannot be written holds up no other.
                failed(mail, e);
            }
        }
    }

    private Optional<LateMail.Words> words(MailStore.Mail mail) {
        if (mail.kind() == null) return Optional.of(new LateMail.Words(mail.subject(), mail.text(), null, null));
        LateMail writer = writers.stream()
                .filter(w -> w.kind().equals(mail.kind()))
                .findFirst()
                .orElseThrow();
        return writer.write(mail.order());
    }

    private void send(MailStore.Mail mail, LateMail.Words words) {
        try {
            MimeMessage message = sender.createMimeMessage();
            LateMail.Enclosed enclosed = words.enclosed();
            MimeMessageHelper helper =
                    new MimeMessageHelper(message, words.html() != null || enclosed != null, "UTF-8");
            helper.setFrom(from);
            helper.setTo(mail.recipient());
            helper.setSubject(words.subject());
            if (words.html() == null) helper.setText(words.text());
            else helper.setText(words.text(), words.html());
            if (enclosed != null)
                helper.addAttachment(enclosed.name(), new ByteArrayResource(enclosed.content()), enclosed.type());
            // The same however often it is tried: a mail that went out just before the end of the process is known
            // again.
            message.setHeader(
                    "Message-ID", "<porch-" + mail.id() + "-" + mail.createdAt().toEpochMilli() + "@" + domain + ">");
            if (words.stopAddress() != null) message.setHeader("List-Unsubscribe", "<" + words.stopAddress() + ">");
            sender.send(message);
            store.done(mail.id(), clock.instant());
        } catch (MailException | MessagingException e) {
            failed(mail, e);
        }
    }

    private void failed(MailStore.Mail mail, Exception e) {
        log.warn("Mail {} could not be sent: {}", mail.id(), e.getMessage());
        String error = String.valueOf(e.getMessage());
        Duration wait = Duration.ofMinutes(1L << Math.min(mail.tries(), 8));
        store.failed(
                mail.id(),
                error.length() > 300 ? error.substring(0, 300) : error,
                mail.tries() + 1 < MOST_TRIES ? clock.instant().plus(wait) : null);
    }
}

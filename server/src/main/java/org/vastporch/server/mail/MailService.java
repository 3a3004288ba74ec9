package org.vastporch.server.mail;

import jakarta.mail.MessagingException;
import jakarta.mail.internet.MimeMessage;
import java.time.Clock;
import java.time.Duration;
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

/** Sends mail: written in the transaction that wants it, sent after it, tried again until it works or it is hopeless. */
@Service
public class MailService {

    private static final Logger log = LoggerFactory.getLogger(MailService.class);
    private static final int AT_ONCE = 20;
    private static final int MOST_TRIES = 14;

    private final MailStore store;
    private final @Nullable JavaMailSender sender;
    private final String from;
    private final Clock clock;

    MailService(MailStore store, ObjectProvider<JavaMailSender> sender, @Value("${vastporch.mail.from}") String from, Clock clock) {
        this.store = store;
        this.sender = sender.getIfAvailable();
        this.from = from;
        this.clock = clock;
    }

    /** Whether there is a post office at all; without one mails wait, and links are handed over by people. */
    public boolean canSend() {
        return sender != null;
    }

    /** Writes a mail, to be sent once the transaction is through. */
    public void write(@Nullable Long personId, String recipient, String subject, String text) {
        store.add(personId, recipient, subject, text, clock.instant());
    }

    /** Where the newest mail to an address is: "sent", "waits", or "failed: " and why. */
    public String standing(String recipient) {
        if (!canSend()) return "no-post-office";
        return store.newestTo(recipient).map(m -> m.sentAt() != null ? "sent" : m.lastError() == null ? "waits" : "failed: " + m.lastError()).orElse("waits");
    }

    @Scheduled(fixedDelayString = "${vastporch.mail.send-every}")
    void sendWhatIsDue() {
        if (sender == null) return;
        for (MailStore.Mail mail : store.due(clock.instant(), AT_ONCE)) send(mail);
    }

    private void send(MailStore.Mail mail) {
        try {
            MimeMessage message = sender.createMimeMessage();
            MimeMessageHelper helper = new MimeMessageHelper(message, "UTF-8");
            helper.setFrom(from);
            helper.setTo(mail.recipient());
            helper.setSubject(mail.subject());
            helper.setText(mail.text());
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

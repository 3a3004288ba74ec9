package org.vastporch.server;

import jakarta.mail.BodyPart;
import jakarta.mail.MessagingException;
import jakarta.mail.Multipart;
import jakarta.mail.internet.MimeMessage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.mail.MailSendException;
import org.springframework.mail.javamail.JavaMailSenderImpl;
import org.springframework.stereotype.Component;
import org.vastporch.server.mail.MailService;

/**
 * A post office for tests: takes mails in when it is asked for those of somebody, and shows them as they would arrive.
 */
@Component
class PostOffice extends JavaMailSenderImpl {

    /**
     * @param stop where its reader stops such mails; empty if nowhere
     * @param id by which it is known again
     * @param enclosed what came with it; empty for nothing
     */
    record Letter(String to, String subject, String text, String html, String stop, String id, byte[] enclosed) {}

    private final ObjectProvider<MailService> mails;
    private final List<Letter> letters = new ArrayList<>();
    /** Whether it takes nothing in. */
    private volatile boolean closed;

    PostOffice(ObjectProvider<MailService> mails) {
        this.mails = mails;
    }

    /** Lets all that is due go, and gives what ever came to an address, the oldest first. */
    List<Letter> lettersTo(String address) {
        int before;
        do {
            before = letters.size();
            mails.getObject().sendWhatIsDue();
        } while (letters.size() > before);
        return letters.stream().filter(l -> l.to().equals(address)).toList();
    }

    void close(boolean closed) {
        this.closed = closed;
    }

    @Override
    protected void doSend(MimeMessage[] messages, Object[] originals) {
        if (closed) throw new MailSendException("The post office is closed");
        for (MimeMessage message : messages) {
            try {
                String id = message.getMessageID();
                message.saveChanges();
                List<String> parts = new ArrayList<>();
                ByteArrayOutputStream enclosed = new ByteArrayOutputStream();
                collect(message.getContent(), parts, enclosed);
                String[] stop = message.getHeader("List-Unsubscribe");
                letters.add(new Letter(
                        message.getAllRecipients()[0].toString(),
                        message.getSubject(),
                        parts.get(0),
                        parts.size() > 1 ? parts.get(1) : "",
                        stop == null ? "" : stop[0],
                        id,
                        enclosed.toByteArray()));
            } catch (MessagingException e) {
                throw new IllegalStateException(e);
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
    }

    private static void collect(Object content, List<String> parts, OutputStream enclosed)
            throws MessagingException, IOException {
        if (content instanceof InputStream file) file.transferTo(enclosed);
        if (content instanceof String text) parts.add(text.replace("\r\n", "\n"));
        if (content instanceof Multipart many)
            for (int i = 0; i < many.getCount(); i++) {
                BodyPart part = many.getBodyPart(i);
                collect(part.getContent(), parts, enclosed);
            }
    }
}

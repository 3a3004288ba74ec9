package org.vastporch.standins;

import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetup;
import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import jakarta.mail.Message;
import jakarta.mail.MessagingException;
import jakarta.mail.Multipart;
import jakarta.mail.Part;
import jakarta.mail.internet.MimeMessage;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Executors;

/**
 * A post office in small: takes every mail, delivers none, and shows them on a page of its own, the newest first. On
 * this machine only.
 */
public final class PostOffice implements AutoCloseable {

    /**
     * A mail that was taken in.
     *
     * @param html empty if it has none
     * @param id by which it is known again
     */
    public record Letter(String to, String subject, String text, String html, String id) {}

    private final GreenMail mail;
    private final HttpServer page;

    /** @param port of its page; 0 for any free one */
    public PostOffice(int port) {
        mail = new GreenMail(new ServerSetup(0, "127.0.0.1", ServerSetup.PROTOCOL_SMTP));
        try {
            page = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), port), 20);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        mail.start();
        page.createContext("/", this::answer);
        page.setExecutor(Executors.newCachedThreadPool(task -> {
            Thread thread = new Thread(task, "post-office");
            thread.setDaemon(true);
            return thread;
        }));
        page.start();
    }

    /** The port to which mail is sent. */
    public int smtpPort() {
        return mail.getSmtp().getPort();
    }

    /** Where its page is. */
    public String base() {
        return "http://localhost:" + page.getAddress().getPort();
    }

    /** All letters, the newest first. */
    public List<Letter> letters() {
        List<Letter> letters = new ArrayList<>();
        for (MimeMessage message : mail.getReceivedMessages()) letters.add(0, letter(message));
        return letters;
    }

    private static Letter letter(MimeMessage message) {
        try {
            return new Letter(
                    message.getRecipients(Message.RecipientType.TO)[0].toString(),
                    message.getSubject(),
                    part(message, "text/plain"),
                    part(message, "text/html"),
                    message.getMessageID());
        } catch (MessagingException e) {
            throw new IllegalStateException("A letter cannot be read", e);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The first text of a kind in a mail, however deep it lies; empty if there is none. */
    private static String part(Part part, String type) throws MessagingException, IOException {
        if (part.isMimeType(type)) return String.valueOf(part.getContent());
        if (!(part.getContent() instanceof Multipart parts)) return "";
        for (int i = 0; i < parts.getCount(); i++) {
            String found = part(parts.getBodyPart(i), type);
            if (!found.isEmpty()) return found;
        }
        return "";
    }

    @Override
    public void close() {
        page.stop(0);
        mail.stop();
    }

    private void answer(HttpExchange call) throws IOException {
        StringBuilder html = new StringBuilder("<!doctype html><meta charset=utf-8><title>Post "
                + "office</title><style>body{font:17px/1.5 sans-serif;max-width:46em;margin:2em "
                + "auto;padding:0 1em}"
                + "article{border-top:1px solid #ccc;padding:1em "
                + "0}pre{white-space:pre-wrap;font:inherit;overflow-wrap:anywhere}iframe{width:100%;height:34em;border:1px"
                + " solid #ccc}</style><h1>Post office</h1>");
        List<Letter> letters = letters();
        if (letters.isEmpty()) html.append("<p>No letter has come yet.</p>");
        for (Letter letter : letters) {
            html.append("<article><b>")
                    .append(escape(letter.subject()))
                    .append("</b><br>to ")
                    .append(escape(letter.to()))
                    .append("<pre>")
                    .append(escape(letter.text()).replaceAll("https?://[^\\s<]+", "<a href=\"$0\">$0</a>"))
                    .append("</pre>");
            if (!letter.html().isEmpty())
                html.append("<details><summary>As a mail program shows it</summary><iframe "
                                + "sandbox title=Mail srcdoc=\"")
                        .append(escape(letter.html()))
                        .append("\"></iframe></details>");
            html.append("</article>");
        }
        byte[] body = html.toString().getBytes(StandardCharsets.UTF_8);
        call.getResponseHeaders().set("Content-Type", "text/html; charset=utf-8");
        call.sendResponseHeaders(200, body.length);
        try (OutputStream out = call.getResponseBody()) {
            out.write(body);
        }
    }

    private static String escape(String text) {
        return text.replace("&", "&amp;").replace("<", "&lt;").replace("\"", "&quot;");
    }
}

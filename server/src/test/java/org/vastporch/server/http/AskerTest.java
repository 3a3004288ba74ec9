package org.vastporch.server.http;

import static org.junit.jupiter.api.Assertions.*;

import jakarta.servlet.MultipartConfigElement;
import jakarta.servlet.ServletException;
import jakarta.servlet.ServletRegistration;
import jakarta.servlet.http.HttpServlet;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.Socket;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServer;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.context.request.ServletRequestAttributes;

/** Senders on real lines: who waits, who has left, and who is only slow with the last bytes. */
class AskerTest {

    private static final String PARTS =
            "--cut\r\nContent-Disposition: form-data; name=\"file\"; filename=\"a.png\"\r\n\r\nbytes\r\n--cut--";
    private static final String NEXT = "GET /next HTTP/1.1\r\nHost: here\r\n\r\n";

    private final Asker asker = new Asker();
    private final BlockingQueue<String> read = new LinkedBlockingQueue<>();
    private final BlockingQueue<String> ask = new LinkedBlockingQueue<>();
    private final BlockingQueue<Boolean> gone = new LinkedBlockingQueue<>();
    private WebServer server;

    /** Reads the request as an upload or a text is read, then tells whether its sender is gone as often as asked. */
    private class Slow extends HttpServlet {

        @Override
        protected void doPost(HttpServletRequest request, HttpServletResponse response)
                throws ServletException, IOException {
            boolean parts = request.getContentType().startsWith("multipart/");
            read.add(
                    parts
                            ? request.getParts().size() + " part"
                            : request.getReader().readLine());
            RequestContextHolder.setRequestAttributes(new ServletRequestAttributes(request));
            try {
                for (String next = ask.take(); !next.equals("enough"); next = ask.take())
                    if (next.equals("hear out")) Asker.hearOut();
                    else gone.add(asker.isGone());
            } catch (InterruptedException e) {
                throw new ServletException(e);
            } finally {
                RequestContextHolder.resetRequestAttributes();
            }
        }
    }

    @BeforeEach
    void start() {
        TomcatServletWebServerFactory factory = new TomcatServletWebServerFactory(0);
        asker.customize(factory);
        server = factory.getWebServer(context -> {
            ServletRegistration.Dynamic slow = context.addServlet("slow", new Slow());
            slow.addMapping("/");
            slow.setMultipartConfig(new MultipartConfigElement(""));
        });
        server.start();
    }

    @AfterEach
    void stop() {
        ask.add("enough");
        server.stop();
    }

    private Socket line() throws IOException {
        return new Socket(InetAddress.getLoopbackAddress(), server.getPort());
    }

    private static void send(Socket line, String text) throws IOException {
        OutputStream out = line.getOutputStream();
        out.write(text.getBytes());
        out.flush();
    }

    private static String head(String kind, String length) {
        return "POST / HTTP/1.1\r\nHost: here\r\nContent-Type: " + kind + "\r\n" + length + "\r\n\r\n";
    }

    private static String upload() {
        return head("multipart/form-data; boundary=cut", "Content-Length: " + (PARTS.length() + 2)) + PARTS + "\r\n";
    }

    private static String inChunks() {
        return head("multipart/form-data; boundary=cut", "Transfer-Encoding: chunked")
                + Integer.toHexString(PARTS.length() + 2) + "\r\n" + PARTS + "\r\n\r\n0\r\n\r\n";
    }

    private static String text() {
        return head("text/plain", "Content-Length: 5") + "words";
    }

    private static String request(String kind) {
        return switch (kind) {
            case "upload" -> upload();
            case "in chunks" -> inChunks();
            default -> text();
        };
    }

    private void arrives() throws InterruptedException {
        assertNotNull(read.poll(20, TimeUnit.SECONDS), "the request arrives");
    }

    private boolean isGone() throws InterruptedException {
        ask.add("ask");
        return gone.poll(20, TimeUnit.SECONDS);
    }

    @ParameterizedTest
    @ValueSource(strings = {"upload", "in chunks", "text"})
    void whoWaitsIsThereAndWhoHasLeftIsGone(String kind) throws Exception {
        try (Socket line = line()) {
            send(line, request(kind));
            arrives();
            if (!kind.equals("text")) ask.add("hear out");
            assertFalse(isGone());
            assertFalse(isGone(), "asking changes nothing");
        }
        boolean gone = isGone();
        for (int more = 0; !gone && more < 10_000; more++) gone = isGone();
        assertTrue(gone);
        assertTrue(isGone(), "asking changes nothing");
    }

    /** An upload is read up to its last boundary: the two bytes after it may still be under way. */
    @ParameterizedTest
    @CsvSource({"upload, false", "upload, true", "in chunks, false", "in chunks, true"})
    void whoIsSlowWithTheLastBytesIsThere(String kind, boolean heardOut) throws Exception {
        try (Socket line = line()) {
            String whole = request(kind);
            int last = whole.indexOf(PARTS) + PARTS.length();
            send(line, whole.substring(0, last));
            arrives();
            assertFalse(isGone());
            send(line, whole.substring(last));
            if (heardOut) ask.add("hear out");
            for (int times = 0; times < 1_000; times++) assertFalse(isGone());
        }
    }

    @ParameterizedTest
    @ValueSource(booleans = {true, false})
    void whoSendsTheNextRequestAheadIsThere(boolean atOnce) throws Exception {
        try (Socket line = line()) {
            send(line, atOnce ? text() + NEXT : text());
            arrives();
            assertFalse(isGone());
            if (!atOnce) send(line, NEXT);
            for (int times = 0; times < 1_000; times++) assertFalse(isGone());
        }
    }

    @Test
    void whereNobodyAskedNobodyIsGone() {
        assertFalse(asker.isGone());
    }
}

package org.vastporch.e2e;

import static org.junit.jupiter.api.Assertions.*;

import java.io.IOException;
import java.net.CookieManager;
import java.net.HttpCookie;
import java.net.ServerSocket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** Kills the server with -9 while four people write: everything that was acknowledged is there afterwards. */
class KillTest {

    private static final int ENOUGH = 200;

    /** The school keeper's browser, without the browser. */
    private static final class Keeper {
        private final CookieManager cookies = new CookieManager();
        private final HttpClient http = HttpClient.newBuilder().cookieHandler(cookies).build();
        private final int port;

        Keeper(int port) {
            this.port = port;
        }

        HttpResponse<String> send(String method, String path, String body) throws IOException, InterruptedException {
            String token = cookies.getCookieStore().getCookies().stream().filter(c -> c.getName().equals("XSRF-TOKEN")).map(HttpCookie::getValue).findFirst().orElse("");
            return http.send(HttpRequest.newBuilder(URI.create("http://localhost:" + port + path)).header("Content-Type", "application/json").header("X-XSRF-TOKEN", token)
                .method(method, HttpRequest.BodyPublishers.ofString(body)).build(), HttpResponse.BodyHandlers.ofString());
        }

        void signIn(String password) throws IOException, InterruptedException {
            send("GET", "/api/me", "");
            assertEquals(200, send("POST", "/api/session", "{\"username\":\"keeper\",\"password\":\"" + password + "\"}").statusCode());
        }
    }

    @Test
    void whatWasAcknowledgedSurvives() throws Exception {
        Path data = Stage.folder("kill");
        int port = freePort();
        Process server = start(port, data);
        String line = new String(readUntil(server, "first-password?t="));
        Matcher token = Pattern.compile("t=([A-Za-z0-9_-]+)").matcher(line);
        assertTrue(token.find(), line);
        Keeper keeper = new Keeper(port);
        keeper.send("GET", "/api/me", "");
        keeper.send("POST", "/api/first-password", "{\"token\":\"" + token.group(1) + "\",\"password\":\"a long password\"}");

        Queue<String> acknowledged = new ConcurrentLinkedQueue<>();
        CountDownLatch enough = new CountDownLatch(ENOUGH);
        List<Thread> writers = new ArrayList<>();
        for (int w = 0; w < 4; w++) {
            int writer = w;
            writers.add(new Thread(() -> write(keeper, writer, acknowledged, enough)));
        }
        writers.forEach(Thread::start);
        assertTrue(enough.await(60, TimeUnit.SECONDS));
        server.destroyForcibly();
        server.waitFor();
        for (Thread writer : writers) writer.join();

        Process again = start(port, data);
        try {
            readUntil(again, "is open");
            Keeper back = new Keeper(port);
            back.signIn("a long password");
            String all = back.send("GET", "/api/school/staff", "").body();
            List<String> lost = acknowledged.stream().filter(name -> !all.contains("\"" + name + "\"")).toList();
            assertEquals(List.of(), lost, "of " + acknowledged.size());
        } finally {
            again.destroyForcibly();
        }
    }

    /** Adds teachers one after the other and notes those whose answer came back. */
    private static void write(Keeper keeper, int writer, Queue<String> acknowledged, CountDownLatch enough) {
        try {
            for (int i = 0; ; i++) {
                String name = "Writer" + writer + "x" + i;
                int status = keeper.send("POST", "/api/school/staff", "{\"title\":\"\",\"given\":\"\",\"family\":\"" + name + "\",\"email\":\"\"}").statusCode();
                if (status != 200) return;
                acknowledged.add(name);
                enough.countDown();
            }
        } catch (IOException e) {
            // The server was killed, as it should be.
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private static Process start(int port, Path data) throws IOException {
        ProcessBuilder builder = new ProcessBuilder(Path.of(System.getProperty("java.home"), "bin", "java").toString(), "-cp",
            System.getProperty("surefire.test.class.path", System.getProperty("java.class.path")), "-Dserver.port=" + port, "-Dvastporch.data=" + data, "org.vastporch.server.VastPorch");
        builder.environment().putAll(Map.of("TZ", "UTC"));
        return builder.redirectErrorStream(true).start();
    }

    private static byte[] readUntil(Process server, String text) throws IOException {
        StringBuilder said = new StringBuilder();
        byte[] buffer = new byte[4096];
        while (said.indexOf(text) < 0) {
            int n = server.getInputStream().read(buffer);
            if (n < 0) throw new IOException("The server ended: " + said);
            said.append(new String(buffer, 0, n));
        }
        return said.toString().getBytes();
    }

    private static int freePort() throws IOException {
        try (ServerSocket socket = new ServerSocket(0)) {
            return socket.getLocalPort();
        }
    }
}

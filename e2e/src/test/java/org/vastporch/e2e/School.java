package org.vastporch.e2e;

import java.io.IOException;
import java.net.ServerSocket;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;

/**
 * The demo school in a process of its own, which can be killed with -9 and started again on the same data and at the
 * same address.
 */
final class School implements AutoCloseable {

    private final Path data;
    private final int port = freePort();
    private final String[] settings;
    private Process process;

    /** @param settings of its process, such as -Dname=value */
    School(String name, String... settings) throws IOException {
        data = Stage.filled(name);
        this.settings = settings;
        start();
    }

    String address() {
        return "http://localhost:" + port;
    }

    /** Starts it, and comes back when it is open. */
    void start() throws IOException {
        List<String> command = new ArrayList<>(List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-XX:TieredStopAtLevel=1",
                "-XX:+UseSerialGC",
                "-cp",
                System.getProperty("surefire.test.class.path", System.getProperty("java.class.path")),
                "-Dvastporch.port=" + port,
                "-Dvastporch.data=" + data));
        command.addAll(List.of(settings));
        command.add("org.vastporch.demo.Demo");
        ProcessBuilder builder = new ProcessBuilder(command);
        builder.environment().putAll(Map.of("TZ", "UTC"));
        process = builder.redirectErrorStream(true).start();
        readUntil("is open");
    }

    void kill() throws InterruptedException {
        process.destroyForcibly();
        process.waitFor();
    }

    @Override
    public void close() {
        process.destroyForcibly();
    }

    private void readUntil(String text) throws IOException {
        StringBuilder said = new StringBuilder();
        byte[] buffer = new byte[4096];
        while (said.indexOf(text) < 0) {
            int n = process.getInputStream().read(buffer);
            if (n < 0) throw new IOException("The server ended: " + said);
            said.append(new String(buffer, 0, n));
        }
    }

    /**
     * A port that is free, below those which the system hands out: one of those may be taken by any connection that is
     * made while the school is down, even by the browser that keeps asking for it.
     */
    private static int freePort() {
        Random ports = new Random();
        while (true) {
            int port = 20_000 + 50 * ports.nextInt(240);
            try (ServerSocket socket = new ServerSocket(port)) {
                return socket.getLocalPort();
            } catch (IOException taken) {
                // the next one, then
            }
        }
    }
}

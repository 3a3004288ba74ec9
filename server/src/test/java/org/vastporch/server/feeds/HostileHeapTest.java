package org.vastporch.server.feeds;

import static org.junit.jupiter.api.Assertions.*;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.OutputStream;
import java.lang.management.ManagementFactory;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.vastporch.server.http.Problem;

/** What hostile hosts send, four at once and each as large as it may be, takes little memory beside the school's. */
class HostileHeapTest {

    private static final int AT_ONCE = 3;
    private static final int LARGEST = 4_900_000;
    private static final long MOST = 100_000_000;

    /** Shapes of which a tree is many times as large as its text. */
    private static final List<String> SHAPES = List.of(
            "<b>",
            "<link rel=alternate type='application/rss+xml' href='x'>",
            "<rss version='2.0'><channel><!--<![CDATA[-->\n<x a='1' b='2' c='3'/>",
            "<rss version='2.0'><channel><item><description>\n&lt;b&gt;x");

    private HttpServer host;
    private ExecutorService threads;

    @BeforeEach
    void open() throws IOException {
        threads = Executors.newFixedThreadPool(AT_ONCE * 2);
        host = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        host.setExecutor(threads);
        host.createContext("/", call -> {
            String[] shape = SHAPES.get(
                            Integer.parseInt(call.getRequestURI().getPath().substring(1)))
                    .split("\n");
            byte[] again = shape[shape.length - 1].getBytes(StandardCharsets.UTF_8);
            try (OutputStream out = call.getResponseBody()) {
                call.sendResponseHeaders(200, 0);
                if (shape.length > 1) out.write(shape[0].getBytes(StandardCharsets.UTF_8));
                for (int sent = 0; sent < LARGEST; sent += again.length) out.write(again);
            } catch (IOException e) {
                // The reader had enough.
            }
        });
        host.start();
    }

    @AfterEach
    void close() {
        host.stop(0);
        threads.shutdownNow();
    }

    @Test
    void isBounded() throws Exception {
        String at = "127.0.0.1:" + host.getAddress().getPort();
        SourceFinder finder = new SourceFinder(new SafeFetcher(at));
        for (int i = 0; i < SHAPES.size(); i++) {
            String address = "http://" + at + "/" + i;
            long idle = used();
            List<Future<?>> looks = Stream.generate(() -> look(finder, address))
                    .limit(AT_ONCE)
                    .<Future<?>>map(threads::submit)
                    .toList();
            long most = 0;
            for (Future<?> look : looks) while (!isDone(look)) most = Math.max(most, used() - idle);
            long taken = most;
            String shape = SHAPES.get(i);
            assertTrue(taken < MOST, () -> shape + " took " + taken / 1_000_000 + " MB");
        }
    }

    private static Runnable look(SourceFinder finder, String address) {
        return () -> {
            try {
                finder.look(address, Instant.now());
            } catch (Problem refused) {
                // In words, which is as good here.
            }
        };
    }

    private static boolean isDone(Future<?> look) throws Exception {
        try {
            look.get(300, TimeUnit.MILLISECONDS);
            return true;
        } catch (TimeoutException e) {
            return false;
        }
    }

    /** What is held, without what only waits to be thrown away. */
    private static long used() {
        System.gc();
        return ManagementFactory.getMemoryMXBean().getHeapMemoryUsage().getUsed();
    }
}

package org.vastporch.bench;

import com.rometools.rome.io.SyndFeedInput;
import com.rometools.rome.io.XmlReader;
import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.sql.Timestamp;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.springframework.jdbc.core.JdbcTemplate;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.feeds.SourceService;

/** Five hundred outside blogs, each on a host of its own: gathered for the first time, then with nothing new. */
final class Refresh implements AutoCloseable {

    private static final int HOSTS = 500;
    private static final int ENTRIES = 20;
    private static final String TEXT =
            "A seam that is too full pushes the planks apart, and one that is not full enough lets the river in. "
                    .repeat(12);

    private final HttpServer server;
    private volatile boolean knowsAgain = true;

    Refresh() throws IOException {
        server = HttpServer.create(new InetSocketAddress(0), 1000);
        server.createContext("/", this::answer);
        server.setExecutor(Executors.newCachedThreadPool(task -> {
            Thread thread = new Thread(task, "five-hundred-hosts");
            thread.setDaemon(true);
            return thread;
        }));
        server.start();
    }

    @Override
    public void close() {
        server.stop(0);
    }

    private String host(int i) {
        return "127.0." + (1 + i / 250) + "." + (1 + i % 250) + ":"
                + server.getAddress().getPort();
    }

    /** Those and three that are slow, dripping and huge, for the server to trust. */
    String hosts() {
        return IntStream.range(0, HOSTS + 3).mapToObj(this::host).collect(Collectors.joining(","));
    }

    private void answer(HttpExchange call) throws IOException {
        try (call) {
            String path = call.getRequestURI().getPath();
            if (path.startsWith("/slow")) pause(15_000);
            byte[] feed = path.startsWith("/huge") ? new byte[9_000_000] : feed(path);
            String etag = "\"" + path.hashCode() + "\"";
            if (knowsAgain) call.getResponseHeaders().set("ETag", etag);
            if (knowsAgain && etag.equals(call.getRequestHeaders().getFirst("If-None-Match"))) {
                call.sendResponseHeaders(304, -1);
                return;
            }
            call.getResponseHeaders().set("Content-Type", "application/rss+xml; charset=utf-8");
            call.sendResponseHeaders(200, 0);
            try (OutputStream out = call.getResponseBody()) {
                if (path.startsWith("/drip"))
                    for (int i = 0; i < 60; i++) {
                        out.write(' ');
                        out.flush();
                        pause(333);
                    }
                out.write(feed);
            } catch (IOException e) {
                // The reader had enough, as it should.
            }
        }
    }

    private static void pause(long milliseconds) {
        try {
            TimeUnit.MILLISECONDS.sleep(milliseconds);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private static byte[] feed(String of) {
        StringBuilder xml = new StringBuilder("<rss version=\"2.0\"><channel><title>Blog " + of
                + "</title><link>http://blog.example" + of + "</link><description>Planks</description>");
        for (int i = 0; i < ENTRIES; i++)
            xml.append("<item><title>Entry " + i + "</title><link>http://blog.example" + of + "/" + i + "</link><guid>"
                    + of + "/" + i + "</guid><pubDate>"
                    + DateTimeFormatter.RFC_1123_DATE_TIME.format(
                            Instant.EPOCH.plus(Duration.ofDays(20_000 + i)).atOffset(ZoneOffset.UTC))
                    + "</pubDate><description>&lt;p&gt;" + TEXT + i + "&lt;/p&gt;</description></item>");
        return xml.append("</channel></rss>").toString().getBytes(StandardCharsets.UTF_8);
    }

    void run(
            Figures figures,
            JdbcTemplate jdbc,
            SourceService sources,
            Viewer teacher,
            long classId,
            List<Long> students)
            throws Exception {
        jdbc.update("update source set paused = true");
        List<Object[]> rows = new ArrayList<>();
        for (int i = 0; i < HOSTS; i++)
            rows.add(row(jdbc, classId, students.get(i % students.size()), "http://" + host(i) + "/blog" + i));
        insert(jdbc, rows);
        byte[] one = feed("/blog0");
        double bare = HOSTS
                * Figures.median(50, () -> new SyndFeedInput().build(new XmlReader(new ByteArrayInputStream(one))));
        double[] first = round(jdbc, sources, teacher, classId);
        figures.add("refresh", first[0], "ms first", first[0] / bare, "bare parsing of the same 500 feeds");
        double[] known = round(jdbc, sources, teacher, classId);
        figures.add("", known[0], "ms for 304", known[0] / first[0], "the first time");
        knowsAgain = false;
        double[] same = round(jdbc, sources, teacher, classId);
        figures.add("", same[0], "ms same bytes", same[0] / first[0], "the first time");
        knowsAgain = true;
        round(jdbc, sources, teacher, classId);
        double[] quiet = round(jdbc, sources, teacher, classId);
        rows.clear();
        for (String trouble : List.of("slow", "drip", "huge"))
            rows.add(row(jdbc, classId, students.get(0), "http://" + host(HOSTS + rows.size()) + "/" + trouble));
        insert(jdbc, rows);
        double[] troubled = round(jdbc, sources, teacher, classId);
        figures.add("", troubled[1], "ms p95", troubled[1] / quiet[1], "without a slow, a dripping and a huge host");
    }

    private static Object[] row(JdbcTemplate jdbc, long classId, long student, String address) {
        Long blog = jdbc.queryForObject(
                "select min(id) from blog where class_id = ? and owner_id = ?", Long.class, classId, student);
        Timestamp now = Timestamp.from(Instant.now());
        return new Object[] {classId, student, blog, address, now, now};
    }

    private static void insert(JdbcTemplate jdbc, List<Object[]> rows) {
        jdbc.batchUpdate("""
                insert into source (class_id, person_id, blog_id, feed_address, site_address, title, description, paused,
                       asked, asked_seconds, failures, not_found, moved_seen, stopped, next_check_at, created_at)
                values (?, ?, ?, ?, '', 'Blog', '', false, false, 0, 0, 0, 0, false, ?, ?)""", rows);
    }

    /** Has all looked at; gives how long that took and how long 95 of 100 well ones waited, in milliseconds. */
    private static double[] round(JdbcTemplate jdbc, SourceService sources, Viewer teacher, long classId) {
        Timestamp begin = Timestamp.from(Instant.now());
        sources.refreshAll(teacher, classId);
        String well = " from source where not paused and feed_address like '%/blog%'";
        while (jdbc.queryForObject(
                        "select count(*)" + well + " and (last_check_at is null or last_check_at < ?)",
                        Integer.class,
                        begin)
                > 0) pause(20);
        double[] waits =
                jdbc.queryForList("select last_check_at" + well + " order by last_check_at", Timestamp.class).stream()
                        .mapToDouble(t -> t.getTime() - begin.getTime())
                        .toArray();
        Arrays.sort(waits);
        return new double[] {waits[waits.length - 1], waits[waits.length * 95 / 100]};
    }
}

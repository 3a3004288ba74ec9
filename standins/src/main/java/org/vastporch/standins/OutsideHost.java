package org.vastporch.standins;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicReference;
import java.util.zip.GZIPOutputStream;
import javax.imageio.ImageIO;

/**
 * The outside world in small: a host with a few blogs, some of them with the troubles that real ones have, and a corner
 * of addresses that mean harm. Listens on this machine only.
 */
public final class OutsideHost implements AutoCloseable {

    private final HttpServer server;
    private final Map<String, Site> sites = new LinkedHashMap<>();
    private final AtomicInteger oakumCalls = new AtomicInteger();
    private final AtomicReference<Runnable> whenAsked = new AtomicReference<>();

    /** @param port 0 for any free one */
    public OutsideHost(int port, Instant now) {
        try {
            server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), port), 50);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        for (Site site : OutsideSites.all(now)) sites.put(site.name, site);
        server.createContext("/", this::answer);
        server.setExecutor(Executors.newCachedThreadPool(task -> {
            Thread thread = new Thread(task, "outside-host");
            thread.setDaemon(true);
            return thread;
        }));
        server.start();
    }

    /** Where the host is, such as localhost:8091. */
    public String hostAndPort() {
        return "localhost:" + server.getAddress().getPort();
    }

    public String base() {
        return "http://" + hostAndPort();
    }

    /** Publishes an entry on one of the blogs. */
    public void publish(String site, String title, String html) {
        sites.get(site).add(title, html, List.of(), Instant.now());
    }

    /** From now on this is wrong with one of the blogs. */
    public void trouble(String site, Trouble trouble) {
        sites.get(site).trouble(trouble);
    }

    /** How often the feed of a blog was fetched so far. */
    public int fetches(String site) {
        return sites.get(site).fetchedInAll();
    }

    /** Takes an entry away from its feed and its page, the newest of its title. */
    public void takeAway(String site, String slug) {
        sites.get(site).takeAway(slug);
    }

    /** From now on each of the blogs publishes by itself, one after the other. */
    public void publishEvery(Duration pause) {
        Iterator<OutsideSites.Later> later = OutsideSites.later().iterator();
        ScheduledExecutorService clock = Executors.newSingleThreadScheduledExecutor(task -> {
            Thread thread = new Thread(task, "outside-authors");
            thread.setDaemon(true);
            return thread;
        });
        clock.scheduleWithFixedDelay(
                () -> {
                    if (later.hasNext()) later.next().into(sites);
                    else clock.shutdown();
                },
                pause.toSeconds(),
                pause.toSeconds(),
                TimeUnit.SECONDS);
    }

    /** Does something before it answers the next time: what happens while somebody waits for an outside server. */
    public void whenAskedNext(Runnable meanwhile) {
        whenAsked.set(meanwhile);
    }

    @Override
    public void close() {
        server.stop(0);
    }

    private void answer(HttpExchange call) throws IOException {
        try (call) {
            Runnable meanwhile = whenAsked.getAndSet(null);
            if (meanwhile != null) meanwhile.run();
            String[] path = call.getRequestURI().getPath().split("/");
            if (path.length < 2) {
                send(call, 200, "text/html", index());
                return;
            }
            if (path[1].equals("hostile")) {
                hostile(call, path.length > 2 ? path[2] : "");
                return;
            }
            if ((path[1].equals("watch") || path[1].equals("embed")) && path.length == 3) {
                send(
                        call,
                        200,
                        "text/html",
                        path[1].equals("watch")
                                ? OutsideSites.videoPage(path[2], base())
                                : OutsideSites.player(path[2]));
                return;
            }
            if (path[1].equals("picture.png")) {
                picture(call);
                return;
            }
            if (path[1].equals("members")) {
                send(
                        call,
                        200,
                        "text/html",
                        Site.page("Members only", "")
                                + "<h1>Members only</h1><form><input type=\"password\" name=\"word\"></form>");
                return;
            }
            Site site = sites.get(path[1]);
            if (site == null) send(call, 404, "text/html", "<h1>Nothing here</h1>");
            else site(call, site, path.length > 2 ? path[2] : "", path.length > 3);
        }
    }

    private static void picture(HttpExchange call) throws IOException {
        BufferedImage leaf = new BufferedImage(320, 200, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = leaf.createGraphics();
        g.setColor(new Color(0xc9d8b4));
        g.fillRect(0, 0, 320, 200);
        g.setColor(new Color(0x4c7a3f));
        g.fillOval(90, 40, 140, 120);
        ByteArrayOutputStream png = new ByteArrayOutputStream();
        ImageIO.write(leaf, "png", png);
        call.getResponseHeaders().set("Content-Type", "image/png");
        call.sendResponseHeaders(200, png.size());
        call.getResponseBody().write(png.toByteArray());
    }

    private void site(HttpExchange call, Site site, String place, boolean below) throws IOException {
        if (call.getRequestMethod().equals("POST")) {
            Map<String, String> form = form(new String(call.getRequestBody().readAllBytes(), StandardCharsets.UTF_8));
            if (Desk.does(site, place, form)) call.getResponseHeaders().set("Location", "/" + site.name + "/desk");
            send(call, 303, "text/plain", "");
        } else if (place.equals("desk")) {
            send(call, 200, "text/html", Desk.page(site));
        } else if (site.trouble() == Trouble.PRIVATE) {
            send(call, 401, "text/html", "<h1>" + Site.text(site.title) + "</h1><p>Please sign in.</p>");
        } else if (place.isEmpty()) {
            send(call, 200, "text/html", site.home(base()));
        } else if (place.startsWith("feed") && place.endsWith(".xml")) {
            feed(call, site, place);
        } else {
            page(call, site, place, below);
        }
    }

    private void page(HttpExchange call, Site site, String slug, boolean editing) throws IOException {
        var entry = site.entry(slug);
        if (site.trouble() == Trouble.BEGINNINGS_OF_LOST_PAGES) entry = Optional.empty();
        if (entry.isEmpty()) send(call, site.isTakenAway(slug) ? 410 : 404, "text/html", "<h1>Nothing here</h1>");
        else send(call, 200, "text/html", editing ? Desk.editing(site, entry.get()) : site.post(entry.get(), base()));
    }

    private void feed(HttpExchange call, Site site, String place) throws IOException {
        String by = call.getRequestHeaders().getFirst("User-Agent");
        int status = sent(call, site, place);
        site.fetched(new Site.Fetch(Instant.now(), by == null ? "somebody" : by, status));
    }

    /** Sends the feed of a site as well as its troubles let it; gives the status that was answered. */
    private int sent(HttpExchange call, Site site, String place) throws IOException {
        String rss = "application/rss+xml";
        // Every fourth answer of this one is half a feed: its server is old.
        boolean half = site.name.equals("oakum") && oakumCalls.incrementAndGet() % 4 == 0;
        Trouble trouble = half && site.trouble() == Trouble.NONE ? Trouble.BROKEN : site.trouble();
        switch (trouble) {
            case SLOW -> pause(8_000);
            case DRIPPING -> drip(call);
            case PAGE -> send(call, 200, "text/html", "<html><body>The database is away</body></html>");
            case MISSING -> send(call, 404, "text/html", "<h1>Nothing here</h1>");
            case GONE -> send(call, 410, "text/html", "<h1>It is over</h1>");
            case MOVED -> {
                if (place.equals("feed.xml")) {
                    call.getResponseHeaders().set("Location", "/" + site.name + "/feed-2.xml");
                    send(call, 301, "text/plain", "");
                    return 301;
                }
            }
            default -> {}
        }
        if (trouble == Trouble.DRIPPING || trouble == Trouble.PAGE) return 200;
        if (trouble == Trouble.MISSING) return 404;
        if (trouble == Trouble.GONE) return 410;
        String xml = site.rss(base());
        if (trouble == Trouble.BROKEN) xml = xml.substring(0, xml.length() / 2);
        String etag = "\"" + Integer.toHexString(xml.hashCode()) + "\"";
        if (trouble != Trouble.BROKEN) call.getResponseHeaders().set("ETag", etag);
        boolean known = etag.equals(call.getRequestHeaders().getFirst("If-None-Match"));
        send(call, known ? 304 : 200, trouble == Trouble.LYING ? "image/png" : rss, known ? "" : xml);
        return known ? 304 : 200;
    }

    private static void pause(long milliseconds) {
        try {
            TimeUnit.MILLISECONDS.sleep(milliseconds);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /** Addresses that try to do harm to whoever reads them. */
    private void hostile(HttpExchange call, String what) throws IOException {
        switch (what) {
            case "loop" -> redirect(call, "/hostile/loop");
            case "private" -> redirect(call, "http://169.254.169.254/latest/");
            case "file" -> redirect(call, "file:///etc/hostname");
            case "endless" -> endless(call);
            case "drip" -> drip(call);
            case "packed.xml" ->
                packed(call, "gzip", gzip(sites.get("rowlock").rss(base()).getBytes(StandardCharsets.UTF_8)));
            case "packed-half.xml" -> {
                byte[] whole = gzip(sites.get("rowlock").rss(base()).getBytes(StandardCharsets.UTF_8));
                packed(call, "gzip", Arrays.copyOf(whole, whole.length * 3 / 4));
            }
            case "bomb" -> packed(call, "gzip", gzip(new byte[200_000_000]));
            case "bomb-twice" -> packed(call, "gzip", gzip(gzip(new byte[200_000_000])));
            case "not-packed" -> packed(call, "gzip", "<rss>".getBytes(StandardCharsets.UTF_8));
            case "packed-oddly" -> packed(call, "br", new byte[] {1, 2, 3});
            case "broken.xml" ->
                send(call, 200, "application/rss+xml", "<rss version=\"2.0\"><channel><title>Half a feed");
            case "entity.xml" ->
                send(
                        call,
                        200,
                        "application/rss+xml",
                        "<!DOCTYPE rss [<!ENTITY a \"aaaaaaaaaa\"><!ENTITY b "
                                + "\"&a;&a;&a;&a;&a;&a;&a;&a;\">]><rss "
                                + "version=\"2.0\"><channel><title>&b;</title></channel></rss>");
            case "deep.xml" ->
                send(
                        call,
                        200,
                        "application/rss+xml",
                        "<rss version=\"2.0\"><channel><title>Deep</title><link>" + base()
                                + "/</link><description>x</description><item><guid>d</guid><title>Deep</title>"
                                + "<description>" + Site.text("<div><b>".repeat(20_000))
                                + "end</description></item></channel></rss>");
            case "deeper.xml" ->
                send(
                        call,
                        200,
                        "application/rss+xml",
                        "<rss version=\"2.0\"><channel><title>Deeper</title>" + "<a>".repeat(100_000)
                                + "</a>".repeat(100_000) + "</channel></rss>");
            case "script.xml" ->
                send(
                        call,
                        200,
                        "application/rss+xml",
                        "<rss version=\"2.0\"><channel><title>Harm</title><link>" + base()
                                + "/</link><description>x</description><item><guid>h1</guid><title>Harm</title><description>"
                                + Site.text("<p onclick=\"x()\">Fine words</p><script>steal()</script>"
                                        + "<img src=\"http://tracker.example/p.gif\" width=\"1\" height=\"1\">")
                                + "</description></item></channel></rss>");
            case "same-id.xml" ->
                feed(call, item("1", base() + "/ash", "Ash", "One") + item("1", base() + "/oak", "Oak", "Two"));
            case "beginning.xml" -> feed(call, item("1", base() + "/members", "Behind a door", "Round the post […]"));
            case "links.xml" ->
                feed(
                        call,
                        item("1", "javascript:harm()", "Script", "One")
                                + item("2", "data:text/html,harm", "Data", "Two")
                                + item("3", "file:///etc/passwd", "File", "Three"));
            default -> send(call, 404, "text/html", "<h1>Nothing here</h1>");
        }
    }

    private static byte[] gzip(byte[] plain) throws IOException {
        ByteArrayOutputStream packed = new ByteArrayOutputStream();
        try (GZIPOutputStream out = new GZIPOutputStream(packed)) {
            out.write(plain);
        }
        return packed.toByteArray();
    }

    private static void packed(HttpExchange call, String how, byte[] body) throws IOException {
        call.getResponseHeaders().set("Content-Type", "application/rss+xml; charset=utf-8");
        call.getResponseHeaders().set("Content-Encoding", how);
        call.sendResponseHeaders(200, body.length);
        try (OutputStream out = call.getResponseBody()) {
            out.write(body);
        }
    }

    private void feed(HttpExchange call, String items) throws IOException {
        send(
                call,
                200,
                "application/rss+xml",
                "<rss version=\"2.0\"><channel><title>Odd</title><link>" + base()
                        + "/</link><description>x</description>" + items + "</channel></rss>");
    }

    private static String item(String id, String link, String title, String text) {
        return "<item><guid isPermaLink=\"false\">" + id + "</guid><link>" + link + "</link><title>" + title
                + "</title><description>" + text + "</description></item>";
    }

    private static void redirect(HttpExchange call, String to) throws IOException {
        call.getResponseHeaders().set("Location", to);
        send(call, 302, "text/plain", "");
    }

    private static void endless(HttpExchange call) throws IOException {
        call.getResponseHeaders().set("Content-Type", "application/rss+xml");
        call.sendResponseHeaders(200, 0);
        byte[] block = "<rss><!-- and on and on -->".repeat(1000).getBytes(StandardCharsets.UTF_8);
        try (OutputStream out = call.getResponseBody()) {
            for (int i = 0; i < 4000; i++) out.write(block);
        } catch (IOException e) {
            // The reader had enough, as it should.
        }
    }

    /** A sign every third of a second for five minutes: never silent for long, and never done. */
    private static void drip(HttpExchange call) throws IOException {
        call.getResponseHeaders().set("Content-Type", "application/rss+xml");
        call.sendResponseHeaders(200, 0);
        try (OutputStream out = call.getResponseBody()) {
            for (int i = 0; i < 900; i++) {
                out.write(' ');
                out.flush();
                TimeUnit.MILLISECONDS.sleep(333);
            }
        } catch (IOException e) {
            // The reader had enough, as it should.
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private String index() {
        StringBuilder html = new StringBuilder(Site.page("Outside", "") + "<h1>Blogs kept outside the school</h1>"
                + "<p>At its author's desk one writes, and sets what is wrong with a blog.</p><ul>");
        for (Site site : sites.values())
            html.append("<li><a href=\"/" + site.name + "/\">" + Site.text(site.title) + "</a>: "
                    + Site.text(site.about) + " · <a href=\"/" + site.name + "/desk\">the desk</a>"
                    + (site.trouble() == Trouble.NONE
                            ? ""
                            : " · <small>" + site.trouble().words() + "</small>")
                    + "</li>");
        return html.append("</ul>").toString();
    }

    private static Map<String, String> form(String body) {
        Map<String, String> fields = new HashMap<>();
        for (String pair : body.split("&")) {
            String[] parts = pair.split("=", 2);
            if (parts.length == 2) fields.put(parts[0], URLDecoder.decode(parts[1], StandardCharsets.UTF_8));
        }
        return fields;
    }

    private static void send(HttpExchange call, int status, String type, String body) throws IOException {
        byte[] bytes = body.getBytes(StandardCharsets.UTF_8);
        call.getResponseHeaders().set("Content-Type", type + "; charset=utf-8");
        boolean empty = status == 304 || bytes.length == 0;
        call.sendResponseHeaders(status, empty ? -1 : bytes.length);
        if (!empty)
            try (OutputStream out = call.getResponseBody()) {
                out.write(bytes);
            }
    }
}

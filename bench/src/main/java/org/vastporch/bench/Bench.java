package org.vastporch.bench;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.LoadState;
import com.rometools.rome.io.SyndFeedInput;
import com.rometools.rome.io.XmlReader;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.lang.reflect.Method;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.springframework.http.ResponseEntity;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.transaction.support.TransactionTemplate;
import org.springframework.web.servlet.mvc.method.RequestMappingInfo;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;
import org.vastporch.core.access.Viewer;
import org.vastporch.demo.Demo;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.comments.CommentService;
import org.vastporch.server.feeds.SourceService;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.reading.PorchService;
import org.vastporch.server.search.Indexer;

/**
 * Measures on the demo school. Figures of one run are comparable with each other; between machines only the ratios are.
 */
public final class Bench {

    private static final List<String> ALL = List.of(
            "start",
            "porch",
            "approve",
            "mark",
            "marks",
            "weeks",
            "matrix",
            "reports",
            "peers",
            "sameness",
            "agreement",
            "intake",
            "feedout",
            "find",
            "typing",
            "firstload",
            "polled",
            "abuse");
    /** Measured only when asked for by name: a school of 100,000 posts takes long to fill. */
    private static final String LARGE = "large";
    /** This one too: it takes two minutes. */
    private static final String MORNING = "morning";
    /** And this one: it takes in 10,000 posts. */
    private static final String REFRESH = "refresh";

    private static final long CLASS = 1;
    private static final int TIMES = 40;
    /** For what is over in a few milliseconds: as often as it takes until the machine runs it as it does all day. */
    private static final int OFTEN = 3000;

    private final Figures figures = new Figures();
    private final Demo.Running demo;
    private final Refresh refresh;
    private final HttpClient http = HttpClient.newHttpClient();
    private final AccessService access;
    private final List<Long> students;

    private Bench(Demo.Running demo, Refresh refresh) {
        this.demo = demo;
        this.refresh = refresh;
        this.access = demo.server().getBean(AccessService.class);
        this.students = demo.server().getBean(PeopleService.class).students(CLASS);
    }

    public static void main(String[] args) throws Exception {
        List<String> names = new ArrayList<>(Arrays.asList(args));
        int json = names.indexOf("--json");
        Path file = json >= 0 ? Path.of(names.get(json + 1)) : null;
        if (json >= 0) names.subList(json, json + 2).clear();
        names.removeIf(String::isBlank);
        try (Refresh refresh = new Refresh();
                Demo.Running demo = Demo.start(
                        0,
                        Files.createTempDirectory("porch-bench").toString(),
                        Map.of(
                                "vastporch.feeds.check-every",
                                names.contains(REFRESH) ? "PT1S" : "PT24H",
                                "vastporch.feeds.allowed-private-hosts",
                                refresh.hosts()))) {
            Bench bench = new Bench(demo, refresh);
            for (String name : names.isEmpty() ? ALL : names) bench.run(name);
            if (file != null) Files.writeString(file, bench.figures.json());
        }
        System.exit(0);
    }

    private Marks marks() {
        return new Marks(
                demo.address(),
                figures,
                demo.server().getBean(JdbcTemplate.class),
                demo.server().getBean(TransactionTemplate.class));
    }

    private void run(String name) throws Exception {
        switch (name) {
            case "start" -> start();
            case "porch" -> porch();
            case "approve" -> approve();
            case "mark" -> mark();
            case "marks" -> scrolled("marks", "/classes/" + marks().run() + "/scores");
            case "weeks" -> scrolled("weeks", "/classes/" + marks().weeks() + "/weeks?by=PROMPT");
            case "matrix" -> matrix();
            case "reports" -> marks().reports();
            case "peers" -> Eyes.peers(figures);
            case "sameness" -> Eyes.sameness(figures);
            case "agreement" ->
                new Eyes(
                                demo.address(),
                                figures,
                                demo.server().getBean(JdbcTemplate.class),
                                demo.server().getBean(TransactionTemplate.class))
                        .agreement();
            case "intake" -> intake();
            case "feedout" -> feedOut();
            case "find" -> find();
            case "typing" -> typing();
            case "firstload" -> firstLoad();
            case "polled" ->
                new Polled(
                                demo.address(),
                                figures,
                                demo.server().getBean(JdbcTemplate.class),
                                demo.server().getBean(TransactionTemplate.class))
                        .run();
            case "abuse" -> new Abuse(demo.address(), figures).run();
            case MORNING ->
                new Morning(
                                demo.address(),
                                figures,
                                demo.server().getBean(JdbcTemplate.class),
                                demo.server().getBean(TransactionTemplate.class))
                        .run();
            case REFRESH ->
                refresh.run(
                        figures,
                        demo.server().getBean(JdbcTemplate.class),
                        demo.server().getBean(SourceService.class),
                        new Viewer(2, false, access.viewer(2).memberships()),
                        CLASS,
                        students);
            case LARGE -> large();
            default ->
                throw new IllegalArgumentException("There is no benchmark " + name + "; these are there: " + ALL + ", "
                        + LARGE + ", " + REFRESH + " and " + MORNING);
        }
    }

    /** From the start of the process of an existing school to its first page. */
    private void start() throws Exception {
        Path data = Files.createTempDirectory("porch-start");
        double[] times = new double[3];
        for (int i = -1; i < times.length; i++) {
            long begin = System.nanoTime();
            Process server = new ProcessBuilder(
                            Path.of(System.getProperty("java.home"), "bin", "java")
                                    .toString(),
                            "-cp",
                            System.getProperty("java.class.path"),
                            "-Dserver.port=18099",
                            "-Dvastporch.data=" + data,
                            "org.vastporch.server.VastPorch")
                    .redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                    .start();
            while (!isOpen("http://localhost:18099/")) Thread.onSpinWait();
            if (i >= 0) times[i] = (System.nanoTime() - begin) / 1e6;
            server.destroy();
            server.waitFor();
        }
        double bare = Figures.median(3, () -> new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(), "-version")
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .start()
                .waitFor());
        figures.add("start", Figures.median(times) / 1000, "s", Figures.median(times) / bare, "a bare java -version");
    }

    private boolean isOpen(String address) throws InterruptedException {
        try {
            return http.send(
                                    HttpRequest.newBuilder(URI.create(address)).build(),
                                    HttpResponse.BodyHandlers.discarding())
                            .statusCode()
                    == 200;
        } catch (IOException e) {
            return false;
        }
    }

    /** The data of a page of 50 posts against bytes of the same size that lie ready. */
    private void porch() throws Exception {
        try (Window window = new Window("wren.c")) {
            HttpRequest page = request("/api/classes/1/porch", window.cookie());
            byte[] body =
                    http.send(page, HttpResponse.BodyHandlers.ofByteArray()).body();
            HttpRequest ready = request(lyingReady("porch", body), window.cookie());
            double[] real = Figures.against(
                    OFTEN,
                    () -> http.send(page, HttpResponse.BodyHandlers.ofByteArray()),
                    () -> http.send(ready, HttpResponse.BodyHandlers.ofByteArray()));
            figures.add("porch", real[0], "ms median", real[1], "a static answer of the same size");
        }
    }

    /**
     * From a pasted address to the feeds that belong to it, where the page announces one and where none is announced.
     */
    private void find() throws Exception {
        Person teacher = new Person(demo.address(), http, "quill");
        for (String site : List.of("rowlock", "clinker")) {
            String home = demo.outside().base() + "/" + site + "/";
            double bare = Figures.median(30, () -> {
                for (String path : List.of("", "feed.xml"))
                    http.send(
                            HttpRequest.newBuilder(URI.create(home + path)).build(),
                            HttpResponse.BodyHandlers.ofByteArray());
            });
            double look =
                    Figures.median(30, () -> teacher.post("/api/classes/1/sources/look", Map.of("address", home)));
            figures.add(
                    site.equals("rowlock") ? "find" : "",
                    look,
                    "ms median",
                    look / bare,
                    "fetching page and feed alone, " + (site.equals("rowlock") ? "announced" : "in no usual place"));
        }
    }

    /** A secret feed of 50 entries against the same bytes lying ready, whole and asked for with what it said last. */
    private void feedOut() throws Exception {
        try (Window window = new Window("wren.c")) {
            String path = (String) window.page.evaluate("fetch('/api/classes/1/feed-key', {method: 'POST', headers: "
                    + "{'X-XSRF-TOKEN': "
                    + "document.cookie.match(/XSRF-TOKEN=([^;]+)/)[1]}}).then(r => "
                    + "r.json()).then(j => j.path)");
            HttpRequest feed = request(path, "");
            HttpResponse<byte[]> first = http.send(feed, HttpResponse.BodyHandlers.ofByteArray());
            HttpRequest ready = request(lyingReady("feed", first.body()), "");
            HttpRequest again = HttpRequest.newBuilder(feed.uri())
                    .header("If-None-Match", first.headers().firstValue("ETag").orElseThrow())
                    .build();
            // Whichever is asked first would pay for warming what all three go through.
            Figures.median(OFTEN, () -> http.send(ready, HttpResponse.BodyHandlers.ofByteArray()));
            double whole = Figures.median(OFTEN, () -> http.send(feed, HttpResponse.BodyHandlers.ofByteArray()));
            double unchanged = Figures.median(OFTEN, () -> http.send(again, HttpResponse.BodyHandlers.ofByteArray()));
            double bare = Figures.median(OFTEN, () -> http.send(ready, HttpResponse.BodyHandlers.ofByteArray()));
            figures.add("feedout", whole, "ms median", whole / bare, "a static answer of the same size");
            figures.add("", unchanged, "ms median", unchanged / bare, "the same, answered with 304");
        }
    }

    /**
     * A hundred comments decided one by one by key, five hundred at once, and the pile with 10,000 texts against the
     * one with 100.
     */
    private void approve() throws Exception {
        JdbcTemplate jdbc = demo.server().getBean(JdbcTemplate.class);
        PorchService porch = demo.server().getBean(PorchService.class);
        Viewer reader = access.viewer(students.get(0));
        long post = porch.porch(reader, CLASS, PorchService.Wish.ofWeek(null))
                .entries()
                .get(5)
                .id();
        long comment = demo.server()
                .getBean(CommentService.class)
                .add(access.viewer(students.get(1)), post, "A comment to be decided on", null)
                .id();
        String more =
                "insert into comment (class_id, post_id, author_id, state, html, words, waiting_since, created_at, rev)"
                        + " select k.class_id, k.post_id, k.author_id, 'WAITING', '<p>Number ' || n.x "
                        + "|| ' of those to be decided on</p>', 7, current_timestamp, k.created_at, 1 "
                        + "from comment k, system_range(1, ?) n(x) where k.id = ?";
        jdbc.update(more, 100, comment);
        try (Window window = new Window("quill")) {
            double few = opening(window);
            window.page.navigate("/classes/1/approve?sort=comments");
            window.page.getByText("Being told").waitFor();
            long begin = System.nanoTime();
            double[] times = window.timed("a", 100, "() => document.querySelector('main [aria-current=true]')");
            double minutes = (System.nanoTime() - begin) / 6e10;
            figures.add(
                    "approve",
                    Figures.median(times),
                    "ms median",
                    0,
                    String.format(
                            "from the key to the next text, 95 of 100 within %.1f ms, %.0f decisions a minute",
                            Figures.percentile(times, 0.95), times.length / minutes));
            window.page.waitForFunction(
                    "() => fetch('/api/pile?sort=comments').then(r => r.json()).then(p => p.total < 10)");

            jdbc.update(more, 500, comment);
            window.page.navigate("/classes/1/approve?sort=comments");
            window.page.getByText("Pick all 50").waitFor();
            window.page.keyboard().press("l");
            window.page.getByText("500 picked").waitFor();
            begin = System.nanoTime();
            window.page.keyboard().press("a");
            window.page.waitForFunction(
                    "() => fetch('/api/pile?sort=comments').then(r => r.json()).then(p => p.total < 10)");
            figures.add(
                    "approve-500",
                    (System.nanoTime() - begin) / 1e9,
                    "s",
                    0,
                    "500 comments approved at once, until the server has them all");

            jdbc.update(more, 10_000, comment);
            double many = opening(window);
            figures.add(
                    "pile",
                    many,
                    "ms median",
                    many / few,
                    String.format("10,000 texts wait; with 100 it opens in %.0f ms", few));
        }
    }

    /** From asking for the pile to its first text on the screen. */
    private double opening(Window window) throws Exception {
        return Figures.median(7, () -> {
            window.page.navigate("/classes/1/approve");
            window.page.waitForFunction("() => document.querySelector('main [aria-current=true]')");
        });
    }

    /** From the key to the step and the sum on the screen. */
    private void mark() throws Exception {
        try (Window window = new Window("quill")) {
            window.page.navigate("/classes/1/mark/6");
            window.page.getByTestId("total").waitFor();
            double[] times = new double[TIMES];
            for (int i = 0; i < times.length; i++)
                times[i] = window.drawn(i % 2 == 0 ? "4" : "2", "[data-testid=total]");
            figures.add(
                    "mark",
                    Figures.median(times),
                    "ms median",
                    0,
                    times.length + " levels by key, to the new total from the server");
            figures.add("mark", slowest(times), "ms p95", 0, "the same");
            double[] next = nextPapers(window, 0);
            figures.add("mark", Figures.median(next), "ms median", 0, "the next paper on the screen, key after key");
            figures.add("mark", slowest(next), "ms p95", 0, "the same");
            next = nextPapers(window, 1_000);
            figures.add(
                    "mark", Figures.median(next), "ms median", 0, "the next paper, after a second with the one before");
            figures.add("mark", slowest(next), "ms p95", 0, "the same");
        }
    }

    /** From the key to the title of the next paper on the screen, each read for so many milliseconds. */
    private static double[] nextPapers(Window window, int read) {
        double[] times = new double[12];
        for (int i = 0; i < times.length; i++) {
            window.page.waitForTimeout(read);
            times[i] = window.drawn("n", "main h1");
        }
        return times;
    }

    /** Who answers whom among 200: on the server, and until its dots are on the screen. */
    private void matrix() throws Exception {
        String path = "/classes/" + marks().matrix() + "/weeks/who-answers-whom";
        try (Window window = new Window("quill")) {
            double drawn = Figures.median(5, () -> {
                window.page.navigate(path);
                window.page.waitForFunction("() => document.querySelectorAll('section svg circle').length > 100");
            });
            figures.add("matrix", drawn, "ms", 0, "from asking for the page to its dots in the browser");
        }
    }

    /**
     * A page of 200 students by 40 prompts in the browser: from asking for it to its first cells, and how evenly it is
     * drawn while one rolls down and to the right for three seconds.
     */
    private void scrolled(String bench, String path) throws Exception {
        try (Window window = new Window("quill")) {
            String first = "() => document.querySelector('tbody td button')";
            double opened = Figures.median(5, () -> {
                window.page.navigate(path);
                window.page.waitForFunction(first);
            });
            figures.add(bench, opened, "ms", 0, "from asking for the page to its first cells in the browser");
            rolled(window, bench, "right after that");
            window.page.waitForFunction("() => document.querySelectorAll('tbody tr').length >= 200");
            rolled(window, bench, "once all is drawn");
        }
    }

    private void rolled(Window window, String bench, String when) {
        List<?> frames = (List<?>) window.page.evaluate("""
                () => new Promise((done) => {
                  const box = [...document.querySelectorAll('*')].find((e) => e.scrollHeight > e.clientHeight + 400
                    && getComputedStyle(e).overflowY !== 'visible' && e.clientHeight > 200) ?? document.scrollingElement;
                  box.scrollTo(0, 0);
                  const frames = [];
                  let last = performance.now();
                  const begin = last;
                  const roll = (now) => {
                    frames.push(now - last);
                    last = now;
                    box.scrollBy(now - begin > 1500 ? 30 : 0, 40);
                    if (now - begin < 3000) requestAnimationFrame(roll);
                    else done(frames.slice(2));
                  };
                  requestAnimationFrame(roll);
                })""");
        double[] gaps =
                frames.stream().mapToDouble(f -> ((Number) f).doubleValue()).toArray();
        long dropped = Arrays.stream(gaps).filter(gap -> gap > 34).count();
        figures.add(bench, slowest(gaps), "ms p95", 0, gaps.length + " frames while rolling through it " + when);
        figures.add(bench, 100.0 * dropped / gaps.length, "%", 0, "of them came a frame late or more");
    }

    /** What nineteen of twenty stay below. */
    private static double slowest(double[] times) {
        double[] sorted = times.clone();
        Arrays.sort(sorted);
        return sorted[(int) Math.ceil(sorted.length * 0.95) - 1];
    }

    /** Entries taken in for good against parsing the same bytes with the feed library alone. */
    private void intake() throws Exception {
        int entries = 300;
        for (int i = 0; i < entries; i++)
            demo.outside()
                    .publish(
                            "oakum",
                            "Entry " + i,
                            "<p>" + "A seam that is too full pushes the planks apart. ".repeat(30) + i + "</p>");
        byte[] feed = http.send(
                        HttpRequest.newBuilder(URI.create(demo.outside().base() + "/oakum/feed.xml"))
                                .build(),
                        HttpResponse.BodyHandlers.ofByteArray())
                .body();
        double bare = Figures.median(5, () -> new SyndFeedInput().build(new XmlReader(new ByteArrayInputStream(feed))));
        Viewer teacher = new Viewer(2, false, access.viewer(2).memberships());
        long begin = System.nanoTime();
        demo.server()
                .getBean(SourceService.class)
                .add(
                        teacher,
                        CLASS,
                        SourceService.WantedSource.of(
                                demo.outside().base() + "/oakum/feed.xml", "", "Oakum Days", "", students.get(3)));
        double ms = (System.nanoTime() - begin) / 1e6;
        figures.add("intake", entries / ms * 1000, "entries/s", ms / bare, "bare parsing of the same bytes");
    }

    /**
     * From a key to the drawn letter in a post of 5,000 words, with a server that takes three seconds to save, against
     * the same in an empty post.
     */
    private void typing() throws Exception {
        double empty = keys("");
        double full = keys("the bed and the frost and what I counted today. ".repeat(500));
        figures.add("typing", full, "ms median", full / empty, "the same in an empty post");
    }

    private double keys(String words) throws Exception {
        try (Window window = new Window("wren.c")) {
            window.page.navigate("/classes/1/write");
            window.page
                    .getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile("^Plot log of")))
                    .click();
            Locator text = window.page.getByRole(AriaRole.TEXTBOX, new Page.GetByRoleOptions().setName("Your text"));
            text.fill(words);
            window.page.getByText("Draft, saved").waitFor();
            window.page.evaluate("() => { const real = window.fetch; window.fetch = (...all) => "
                    + "String(all[0]).endsWith('/draft') ? new Promise(r => setTimeout(r, "
                    + "3000)).then(() => real(...all)) : real(...all); }");
            text.press("End");
            window.page.evaluate("() => { window.porchKeys = []; addEventListener('keydown', e => "
                    + "requestAnimationFrame(() => requestAnimationFrame(() => "
                    + "window.porchKeys.push(performance.now() - e.timeStamp))), true); }");
            text.pressSequentially(
                    "frost on the kale this morning, and a robin", new Locator.PressSequentiallyOptions().setDelay(60));
            window.page.waitForFunction("() => window.porchKeys.length >= 43");
            List<?> times = (List<?>) window.page.evaluate("() => window.porchKeys");
            return Figures.median(
                    times.stream().mapToDouble(t -> ((Number) t).doubleValue()).toArray());
        }
    }

    /** All that a student's first sight of the Porch costs on the wire. */
    private void firstLoad() {
        try (Window window = new Window("wren.c")) {
            window.page.navigate("/classes/1/porch");
            window.page.waitForLoadState(LoadState.NETWORKIDLE);
            String sum = "suffix => "
                    + "performance.getEntriesByType('resource').concat(performance.getEntriesByType('navigation')).filter(e"
                    + " => e.name.endsWith(suffix)).reduce((n, e) => n + e.encodedBodySize, 0)";
            double scripts = ((Number) window.page.evaluate(sum, ".js")).doubleValue() / 1024;
            figures.add(
                    "firstload",
                    ((Number) window.page.evaluate(sum, "")).doubleValue() / 1024,
                    "kB",
                    0,
                    String.format("compressed; %.0f kB of it script", scripts));
        }
    }

    /**
     * The same pages of the same class with 1,000 posts in the school, and with 100,000 posts, 300,000 comments and
     * 2,000 people.
     */
    private void large() throws Exception {
        LargeSchool school = new LargeSchool(
                demo.server().getBean(JdbcTemplate.class), demo.server().getBean(TransactionTemplate.class));
        LargeSchool.OneClass of = school.add(0, 860);
        demo.server().getBean(Indexer.class).rebuild();
        Map<String, String> pages = new LinkedHashMap<>();
        pages.put("large-porch", "/api/classes/" + of.id() + "/porch");
        pages.put("large-person", "/api/classes/" + of.id() + "/porch?place=" + of.place());
        pages.put("large-blogs", "/api/classes/" + of.id() + "/directory");
        pages.put("large-search", "/api/search?q=frost%20robin&class=" + of.id());
        pages.put("large-all", "/api/search?q=frost%20robin");
        pages.put("large-news", "/api/news");
        Map<String, Double> before = timesOf(of.reader(), pages);
        for (int no = 1; no <= 56; no++) school.add(no, 1770);
        long begin = System.nanoTime();
        demo.server().getBean(Indexer.class).rebuild();
        figures.add(
                "large-index",
                (System.nanoTime() - begin) / 1e9,
                "s",
                0,
                "to index 100,000 posts and 300,000 comments");
        Map<String, Double> after = timesOf(of.reader(), pages);
        after.forEach((name, ms) -> figures.add(
                name,
                ms,
                "ms median",
                ms / before.get(name),
                String.format("the same with 1,000 posts (%.1f ms)", before.get(name))));
    }

    private Map<String, Double> timesOf(String reader, Map<String, String> pages) throws Exception {
        Map<String, Double> times = new LinkedHashMap<>();
        String cookie = signIn(reader);
        for (Map.Entry<String, String> page : pages.entrySet()) {
            HttpRequest request = request(page.getValue(), cookie);
            times.put(page.getKey(), Figures.median(TIMES, () -> {
                if (http.send(request, HttpResponse.BodyHandlers.ofByteArray()).statusCode() != 200)
                    throw new IllegalStateException(page.getValue());
            }));
        }
        return times;
    }

    /** Signs in as a browser does, and gives the cookies of that. */
    private String signIn(String username) throws Exception {
        String token = cookies(http.send(request("/api/me", ""), HttpResponse.BodyHandlers.discarding()));
        HttpRequest request = HttpRequest.newBuilder(URI.create(demo.address() + "/api/session"))
                .header("Content-Type", "application/json")
                .header("Cookie", token)
                .header(
                        "X-XSRF-TOKEN",
                        token.substring(token.indexOf("XSRF-TOKEN=") + 11).replaceFirst(";.*", ""))
                .POST(HttpRequest.BodyPublishers.ofString(
                        "{\"username\":\"" + username + "\",\"password\":\"porch-demo\"}"))
                .build();
        HttpResponse<Void> answer = http.send(request, HttpResponse.BodyHandlers.discarding());
        if (answer.statusCode() != 200)
            throw new IllegalStateException("Signing in as " + username + " gave " + answer.statusCode());
        return token + "; " + cookies(answer);
    }

    private static String cookies(HttpResponse<?> answer) {
        return String.join(
                "; ",
                answer.headers().allValues("Set-Cookie").stream()
                        .map(set -> set.replaceFirst(";.*", ""))
                        .toList());
    }

    private HttpRequest request(String path, String cookie) {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(demo.address() + path));
        return cookie.isEmpty()
                ? request.build()
                : request.header("Cookie", cookie).build();
    }

    /** Bytes that the same server hands out without doing anything for them. */
    private String lyingReady(String name, byte[] body) throws NoSuchMethodException {
        Method answer = Ready.class.getMethod("answer");
        demo.server()
                .getBean("requestMappingHandlerMapping", RequestMappingHandlerMapping.class)
                .registerMapping(RequestMappingInfo.paths("/ready/" + name).build(), new Ready(body), answer);
        return "/ready/" + name;
    }

    /** An answer that lies ready. */
    public record Ready(byte[] body) {
        public ResponseEntity<byte[]> answer() {
            return ResponseEntity.ok()
                    .header("Content-Type", "application/json")
                    .body(body);
        }
    }

    /** A browser with somebody signed in. */
    private final class Window implements AutoCloseable {
        private final Playwright playwright = Playwright.create(
                new Playwright.CreateOptions().setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")));
        private final Browser browser = playwright
                .chromium()
                .launch(new BrowserType.LaunchOptions()
                        .setExecutablePath(Path.of(System.getProperty("porch.chromium")))
                        .setArgs(List.of("--no-sandbox", "--disable-gpu", "--disable-background-networking")));
        final Page page = browser.newContext(new Browser.NewContextOptions().setBaseURL(demo.address()))
                .newPage();

        Window(String username) {
            page.navigate("/");
            page.getByLabel("Username").fill(username);
            page.getByLabel("Password or pass phrase").fill("porch-demo");
            page.keyboard().press("Enter");
            page.getByLabel("Places").waitFor();
        }

        String cookie() {
            return String.join(
                    "; ",
                    page.context().cookies().stream()
                            .map(c -> c.name + "=" + c.value)
                            .toList());
        }

        /**
         * Presses a key, as a hand does, until an element says something else than before and that is drawn.
         *
         * @return milliseconds from the key's own time to the end of that frame, by the clock of the page: what the
         *     driver takes to press and to look is no part of it
         */
        double drawn(String key, String element) {
            page.evaluate("""
                    element => { window.porchDrawn = new Promise(done => {
                      const text = () => document.querySelector(element)?.textContent;
                      const before = text();
                      let pressed = 0;
                      addEventListener('keydown', e => { pressed = e.timeStamp; }, { once: true, capture: true });
                      new MutationObserver((changes, observer) => {
                        if (!text() || text() === before) return;
                        observer.disconnect();
                        requestAnimationFrame(() => setTimeout(() => done(performance.now() - pressed)));
                      }).observe(document.body, { subtree: true, childList: true, characterData: true });
                    }); }""", element);
            page.keyboard().press(key);
            return ((Number) page.evaluate("() => window.porchDrawn")).doubleValue();
        }

        /**
         * Presses a key again and again; each time until another element is found than before, measured in the page.
         */
        double[] timed(String key, int most, String element) {
            List<Double> times = new ArrayList<>();
            page.evaluate("window.porchNext = " + element);
            for (int i = 0; i < most && Boolean.TRUE.equals(page.evaluate("() => !!window.porchNext()")); i++)
                times.add(((Number) page.evaluate(
                                "key => new Promise(done => { const before = window.porchNext(); "
                                        + "const begin = performance.now();"
                                        + " const look = () => window.porchNext() !== before ? "
                                        + "done(performance.now() - begin) : "
                                        + "requestAnimationFrame(look);"
                                        + " window.dispatchEvent(new KeyboardEvent('keydown', { key, "
                                        + "bubbles: true })); look(); })",
                                key))
                        .doubleValue());
            return times.stream().mapToDouble(Double::doubleValue).toArray();
        }

        @Override
        public void close() {
            playwright.close();
        }
    }
}

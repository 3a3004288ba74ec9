package org.vastporch.bench;

import java.io.IOException;
import java.net.http.HttpClient;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Queue;
import java.util.Random;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.ConcurrentSkipListMap;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * A morning at a school: within two minutes 300 students sign in, look at the Porch, read five posts, comment, write
 * with what they type kept every few seconds, and hand in; 12 teachers sign in, look at Today, approve what waits and
 * mark. Those who ask run in the process of the school and share its processors.
 */
final class Morning {

    private static final int CLASSES = 9;
    private static final int OF_EACH = 34;
    private static final int STUDENTS = 300;
    private static final int TEACHERS = 12;
    private static final int POSTS = 60;
    private static final Duration LENGTH = Duration.ofMinutes(2);
    /** The first half of it they come in. */
    private static final Duration ARRIVAL = Duration.ofSeconds(60);

    private static final JsonMapper JSON = new JsonMapper();

    private final String address;
    private final Figures figures;
    private final JdbcTemplate jdbc;
    private final TransactionTemplate transaction;
    private final Map<String, Queue<Double>> times = new ConcurrentSkipListMap<>();
    private final Map<String, Integer> errors = new ConcurrentHashMap<>();
    private final HttpClient http = HttpClient.newHttpClient();
    private long end;

    Morning(String address, Figures figures, JdbcTemplate jdbc, TransactionTemplate transaction) {
        this.address = address;
        this.figures = figures;
        this.jdbc = jdbc;
        this.transaction = transaction;
    }

    /** A class that meets this morning, with the prompt that its students answer. */
    private record Meeting(long id, int no, long prompt) {}

    /** One request of a person. */
    private interface Step {
        HttpResponse<byte[]> send() throws IOException, InterruptedException;
    }

    /** What somebody does. */
    private interface Life {
        void go() throws Exception;
    }

    void run() throws Exception {
        List<Meeting> meetings = new ArrayList<>();
        LargeSchool school = new LargeSchool(jdbc, transaction);
        for (int i = 0; i < CLASSES; i++) {
            int no = 60 + i;
            long id = school.add(no, POSTS).id();
            meetings.add(new Meeting(id, no, transaction.execute(status -> prepare(id, no))));
        }
        end = System.nanoTime() + LENGTH.toNanos();
        List<Thread> people = new ArrayList<>();
        for (int i = 0; i < STUDENTS; i++) {
            Meeting in = meetings.get(i / OF_EACH);
            String name = "large." + in.no() + "." + i % OF_EACH;
            Random chance = new Random(i);
            people.add(begin(name, () -> student(name, in, chance)));
        }
        for (int i = 0; i < TEACHERS; i++) {
            Meeting in = meetings.get(i % CLASSES);
            String name = "morning." + in.no() + "." + i / CLASSES;
            Random chance = new Random(1_000 + i);
            people.add(begin(name, () -> teacher(name, in, chance)));
        }
        for (Thread one : people) one.join();
        times.forEach((kind, of) -> {
            double[] all = of.stream().mapToDouble(Double::doubleValue).toArray();
            figures.add("morning", Figures.median(all), "ms median", 0, kind + ", " + all.length + " times");
            figures.add("morning", Figures.percentile(all, 0.95), "ms p95", 0, kind);
            figures.add("morning", Figures.percentile(all, 0.99), "ms p99", 0, kind);
        });
        figures.add("morning", errors.values().stream().mapToInt(n -> n).sum(), "errors", 0, errors.toString());
    }

    /** A class whose posts are looked at first, with two teachers and a prompt. */
    private long prepare(long classId, int no) {
        jdbc.update("update class set post_policy = 'BEFORE', comment_policy = 'NONE' where id = ?", classId);
        for (int i = 0; i < 2; i++) {
            String name = "morning." + no + "." + i;
            jdbc.update("""
                    insert into person (username, password_hash, title, family_name, given_name, email, school_no,
                           keeper, teacher, created_at)
                    select ?, password_hash, 'Ms', ?, 'Morning', '', '', false, true, created_at
                      from person
                     where username = 'quill'""", name, "Family" + no);
            jdbc.update("""
                    insert into membership (class_id, person_id, id, role, shown, joined_at)
                    select ?, id, ?, 'CO_TEACHER', 'OWN_NAME', created_at from person where username = ?""", classId, classId * 1000 + 900 + i, name);
        }
        jdbc.update("""
                insert into prompt (class_id, title, instructions, questions, opens_at, due_at, grace_minutes,
                       late_per_day, late_cap, late_floor, points, places, asked_words, asked_pictures, asked_tags,
                       asked_links, asked_comments, answer_first, created_at, rubric_id)
                select ?, 'This morning', instructions, questions, opens_at, dateadd('DAY', 1, current_timestamp),
                       grace_minutes, late_per_day, late_cap, late_floor, points, places, 0, 0, 0, 0, 0, false,
                       created_at, rubric_id
                  from prompt
                 where id = 6""", classId);
        return jdbc.queryForObject("select max(id) from prompt where class_id = ?", Long.class, classId);
    }

    private Thread begin(String name, Life life) {
        Thread thread = new Thread(
                () -> {
                    try {
                        life.go();
                    } catch (InterruptedException e) {
                        Thread.currentThread().interrupt();
                    } catch (Exception e) {
                        errors.merge(String.valueOf(e), 1, Integer::sum);
                    }
                },
                name);
        thread.start();
        return thread;
    }

    private Person signedIn(String name, Random chance) throws Exception {
        Thread.sleep(chance.nextLong(ARRIVAL.toMillis()));
        long begin = System.nanoTime();
        Person person = new Person(address, http, name);
        times.computeIfAbsent("sign in", kind -> new ConcurrentLinkedQueue<>()).add((System.nanoTime() - begin) / 1e6);
        return person;
    }

    private void student(String name, Meeting in, Random chance) throws Exception {
        Person me = signedIn(name, chance);
        said("read", () -> me.get("/api/me"));
        JsonNode porch = said("read", () -> me.get("/api/classes/" + in.id() + "/porch?most=50"));
        JsonNode entries = porch.path("entries");
        for (int i = 0; i < 5; i++) {
            think(chance, 2_000);
            long post = entries.get(chance.nextInt(entries.size())).path("id").asLong(0);
            said("read", () -> me.get("/api/posts/" + post));
            said("read", () -> me.get("/api/posts/" + post + "/comments"));
            if (i == 2)
                said("write", () -> me.post("/api/posts/" + post + "/comments", Map.of("text", "Which jar was it?")));
        }
        JsonNode blogs = said("read", () -> me.get("/api/classes/" + in.id() + "/blogs/mine"));
        long blog = blogs.get(0).path("id").asLong(0);
        long post = said("write", () -> me.post("/api/blogs/" + blog + "/posts", Map.of("promptId", in.prompt())))
                .path("id")
                .asLong(0);
        int rev = said("read", () -> me.get("/api/posts/" + post + "/draft"))
                .path("beside")
                .path("rev")
                .asInt(1);
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < 7; i++) {
            think(chance, 3_000);
            text.append("<p>We counted eleven leaves with holes, four more than before the rain.</p>");
            Map<String, Object> draft = Map.of(
                    "rev",
                    rev,
                    "title",
                    "Leaves",
                    "html",
                    text.toString(),
                    "tags",
                    List.of("kale"),
                    "audience",
                    "MY_CLASS");
            rev = said("write", () -> me.put("/api/posts/" + post + "/draft", draft))
                    .path("rev")
                    .asInt(rev);
        }
        int last = rev;
        said("write", () -> me.post("/api/posts/" + post + "/hand-in", Map.of("rev", last)));
        while (System.nanoTime() < end) {
            think(chance, 20_000);
            said("read", () -> me.get("/api/me"));
        }
    }

    private void teacher(String name, Meeting in, Random chance) throws Exception {
        Person me = signedIn(name, chance);
        said("read", () -> me.get("/api/classes/" + in.id() + "/today"));
        while (System.nanoTime() < end) {
            think(chance, 5_000);
            said("read", () -> me.get("/api/me"));
            JsonNode items =
                    said("read", () -> me.get("/api/pile?classId=" + in.id())).path("items");
            for (JsonNode item : items) {
                think(chance, 1_500);
                Map<String, Object> seen = Map.of(
                        "subject", "post",
                        "id", item.path("id").asLong(0),
                        "version", item.path("version").asInt(0),
                        "rev", item.path("rev").asInt(0));
                said(
                        "write",
                        () -> me.post(
                                "/api/pile/decisions", Map.of("step", "APPROVE", "note", "", "items", List.of(seen))));
            }
            JsonNode strip = said("read", () -> me.get("/api/prompts/" + in.prompt() + "/marking"));
            for (JsonNode line : strip.path("students"))
                if (line.path("toMark").asBoolean(false) && System.nanoTime() < end) mark(me, in, line, chance);
        }
    }

    private void mark(Person me, Meeting in, JsonNode line, Random chance) throws Exception {
        String at = "/api/prompts/" + in.prompt() + "/marking/"
                + line.path("studentId").asLong(0);
        JsonNode paper = said("read", () -> me.get(at));
        think(chance, 1_500);
        JsonNode seen = paper.path("given").path("seen");
        said(
                "write",
                () -> me.put(
                        at + "/criteria/c" + (1 + chance.nextInt(4)), Map.of("seen", seen, "points", 2, "remark", "")));
    }

    /** Sends, times and reads; what is refused is counted. Two teachers of a class may meet at one text. */
    private JsonNode said(String kind, Step step) throws Exception {
        long begin = System.nanoTime();
        HttpResponse<byte[]> answer = step.send();
        times.computeIfAbsent(kind, k -> new ConcurrentLinkedQueue<>()).add((System.nanoTime() - begin) / 1e6);
        int code = answer.statusCode();
        if (code >= 400 && code != 409) errors.merge(answer.uri().getPath() + " " + code, 1, Integer::sum);
        String text = new String(answer.body(), StandardCharsets.UTF_8);
        return JSON.readTree(text.startsWith("{") || text.startsWith("[") ? text : "{}");
    }

    private static void think(Random chance, int about) throws InterruptedException {
        Thread.sleep(about / 2 + chance.nextInt(about));
    }
}

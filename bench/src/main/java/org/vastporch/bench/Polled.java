package org.vastporch.bench;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * What every open page asks for again and again, in a class of thirty students with forty prompts that all have
 * answered: answers a second over four connections, held against those of a student who asks who is signed in.
 */
final class Polled {

    private static final int CONNECTIONS = 4;
    private static final int PROMPTS = 40;
    private static final Duration EACH = Duration.ofSeconds(4);

    private final String address;
    private final Figures figures;
    private final JdbcTemplate jdbc;
    private final TransactionTemplate transaction;

    Polled(String address, Figures figures, JdbcTemplate jdbc, TransactionTemplate transaction) {
        this.address = address;
        this.figures = figures;
        this.jdbc = jdbc;
        this.transaction = transaction;
    }

    void run() throws Exception {
        LargeSchool.OneClass in = new LargeSchool(jdbc, transaction).add(40, PROMPTS * 30);
        transaction.executeWithoutResult(status -> setPrompts(in.id()));
        String student = new Person(address, HttpClient.newHttpClient(), in.reader()).cookie();
        String teacher = new Person(address, HttpClient.newHttpClient(), "quill").cookie();
        double base = aSecond(student, "/api/me");
        figures.add("polled", base, "answers/s", 0, "who is signed in, for a student");
        add(teacher, "/api/me", base, "that, for a teacher");
        add(teacher, "/api/classes/" + in.id() + "/today", base, "that, for Today");
        add(student, "/api/classes/" + in.id() + "/porch?most=50", base, "that, for the Porch");
        add(teacher, "/api/pile", base, "that, for the pile");
    }

    private void setPrompts(long classId) {
        jdbc.update("""
                insert into membership (class_id, person_id, id, role, shown, joined_at)
                select ?, id, ?, 'CO_TEACHER', 'OWN_NAME', current_timestamp from person where username = 'quill'""", classId, classId * 1000 + 999);
        for (int i = 0; i < PROMPTS; i++) jdbc.update("""
                    insert into prompt (class_id, title, instructions, questions, opens_at, due_at, grace_minutes,
                           late_per_day, late_cap, late_floor, points, places, asked_words, asked_pictures, asked_tags,
                           asked_links, asked_comments, answer_first, created_at, rubric_id)
                    select ?, title, instructions, questions, opens_at, dateadd('DAY', ?, current_timestamp),
                           grace_minutes, late_per_day, late_cap, late_floor, points, places, asked_words,
                           asked_pictures, asked_tags, asked_links, asked_comments, answer_first, created_at, rubric_id
                      from prompt
                     where id = 6""", classId, -i - 1);
        long first = jdbc.queryForObject("select min(id) from prompt where class_id = ?", Long.class, classId);
        jdbc.update(
                "update post set prompt_id = ? + mod(id, ?), handed_in_at = published_at where class_id = ?",
                first,
                PROMPTS,
                classId);
    }

    private void add(String cookie, String path, double base, String what) throws Exception {
        double found = aSecond(cookie, path);
        figures.add("polled", found, "answers/s", found / base, what);
    }

    private double aSecond(String cookie, String path) throws Exception {
        ask(cookie, path, Duration.ofSeconds(2));
        return ask(cookie, path, EACH);
    }

    private double ask(String cookie, String path, Duration time) throws Exception {
        ExecutorService hands = Executors.newFixedThreadPool(CONNECTIONS);
        long end = System.nanoTime() + time.toNanos();
        List<Future<Integer>> counts = new ArrayList<>();
        for (int i = 0; i < CONNECTIONS; i++)
            counts.add(hands.submit(() -> {
                HttpClient http = HttpClient.newHttpClient();
                HttpRequest request = HttpRequest.newBuilder(URI.create(address + path))
                        .header("Cookie", cookie)
                        .build();
                int count = 0;
                for (; System.nanoTime() < end; count++) {
                    int code = http.send(request, HttpResponse.BodyHandlers.discarding())
                            .statusCode();
                    if (code != 200) throw new IllegalStateException(path + ": " + code);
                }
                return count;
            }));
        int all = 0;
        for (Future<Integer> count : counts) all += count.get();
        hands.shutdown();
        return all / (time.toMillis() / 1000.0);
    }
}

package org.vastporch.bench;

import java.net.http.HttpClient;
import java.net.http.HttpResponse;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * The score sheet of 200 students by 40 prompts, all handed in, marked by four criteria and released; one mark in it;
 * and a late rule that changes for all of a prompt, with what that changes said first.
 */
final class Marks {

    private static final int STUDENTS = 200;
    private static final int PROMPTS = 40;
    private static final int TIMES = 9;

    private final String address;
    private final Figures figures;
    private final JdbcTemplate jdbc;
    private final TransactionTemplate transaction;

    Marks(String address, Figures figures, JdbcTemplate jdbc, TransactionTemplate transaction) {
        this.address = address;
        this.figures = figures;
        this.jdbc = jdbc;
        this.transaction = transaction;
    }

    /**
     * The same class as its weeks.
     *
     * @return the number of the class that it made
     */
    long weeks() throws Exception {
        LargeSchool.OneClass in = add();
        Person teacher = new Person(address, HttpClient.newHttpClient(), "quill");
        String weeks = "/api/classes/" + in.id() + "/weeks";
        for (String by : new String[] {"WEEK", "PROMPT", "POST"}) {
            double kilobytes = teacher.get(weeks + "?by=" + by).body().length / 1024.0;
            double took = median(() -> teacher.get(weeks + "?by=" + by));
            figures.add("weeks", took, "ms", 0, String.format("200 students by 40, by %s, %.0f kB", by, kilobytes));
        }
        return in.id();
    }

    /**
     * Who answers whom in it, and what one of its students is offered to answer.
     *
     * @return the number of the class that it made
     */
    long matrix() throws Exception {
        LargeSchool.OneClass in = add();
        Person teacher = new Person(address, HttpClient.newHttpClient(), "quill");
        String matrix = "/api/classes/" + in.id() + "/who-answers-whom?by=";
        long comments = jdbc.queryForObject("select count(*) from comment where class_id = ?", Long.class, in.id());
        for (String by : new String[] {"GROUP", "TOGETHER"}) {
            double kilobytes = teacher.get(matrix + by).body().length / 1024.0;
            double took = median(() -> teacher.get(matrix + by));
            figures.add(
                    "matrix",
                    took,
                    "ms",
                    0,
                    String.format("200 students, %,d comments, by %s, %.0f kB", comments, by, kilobytes));
        }
        jdbc.update("""
                insert into membership (class_id, person_id, id, role, shown, joined_at)
                select ?, id, ?, 'STUDENT', 'OWN_NAME', current_timestamp from person where username = 'wren.c'""", in.id(), in.id() * 1000 + 998);
        Person student = new Person(address, HttpClient.newHttpClient(), "wren.c");
        double offered = median(() -> student.get("/api/classes/" + in.id() + "/to-answer"));
        figures.add("matrix", offered, "ms", 0, "what a student of it is offered to answer");
        return in.id();
    }

    /** The reports of a week for all of it: made and filed, mailed as PDF, and once more without a change. */
    void reports() throws Exception {
        LargeSchool.OneClass in = add();
        jdbc.update("""
                update person set email = 'reader' || id || '@example.org'
                 where id in (select person_id from membership where class_id = ? and role = 'STUDENT')""", in.id());
        Person teacher = new Person(address, HttpClient.newHttpClient(), "quill");
        String weeks = "/api/classes/" + in.id() + "/weeks/";
        String today = weeks + LocalDate.now() + "/reports";
        JsonNode week = new JsonMapper().readTree(teacher.get(today).body());
        List<Map<String, Object>> all = new ArrayList<>();
        for (JsonNode line : week.get("lines"))
            all.add(Map.of("student", line.get("studentId").asLong(), "note", ""));
        Map<String, Object> wish = Map.of("template", "letter", "reports", all);
        String path = weeks + week.get("monday").asString() + "/reports";
        Peak.reset();
        long begin = System.nanoTime();
        teacher.post(path, wish);
        double made =
                until(begin, () -> !now(teacher, today).get("run").path("ended").isMissingNode());
        double mailed = until(begin, () -> !new String(teacher.get(today).body()).contains("\"mail\":\"waits\""));
        figures.add(
                "reports",
                60_000 * all.size() / made,
                "a minute",
                0,
                all.size() + " made and filed, one after another");
        figures.add("reports", 60_000 * all.size() / mailed, "a minute", 0, "and all gone by mail, each with its PDF");
        figures.add("reports", Peak.megabytes(), "MB", 0, "of heap at most meanwhile");
        long again = System.nanoTime();
        teacher.post(path, wish);
        double same =
                until(again, () -> !now(teacher, today).get("run").path("ended").isMissingNode());
        figures.add("reports", same, "ms", 0, "a second run that changes nothing");
    }

    private static JsonNode now(Person teacher, String path) throws Exception {
        return new JsonMapper().readTree(teacher.get(path).body());
    }

    private interface Question {
        boolean isSo() throws Exception;
    }

    /** Milliseconds since a beginning, once something is so. */
    private static double until(long begin, Question question) throws Exception {
        while (!question.isSo()) Thread.sleep(200);
        return (System.nanoTime() - begin) / 1e6;
    }

    /** @return the number of the class that it made */
    long run() throws Exception {
        LargeSchool.OneClass in = add();
        Person teacher = new Person(address, HttpClient.newHttpClient(), "quill");
        String sheet = "/api/classes/" + in.id() + "/score-sheet";
        double kilobytes = teacher.get(sheet).body().length / 1024.0;
        double took = median(() -> teacher.get(sheet));
        figures.add("marks", took, "ms", 0, String.format("score sheet of 200 by 40, %.0f kB", kilobytes));
        long prompt = jdbc.queryForObject("select min(id) from prompt where class_id = ?", Long.class, in.id());
        double strip = median(() -> teacher.get("/api/prompts/" + prompt + "/marking"));
        figures.add("marks", strip, "ms", strip / took, "the papers of one prompt, of the sheet");
        double before = median(() -> teacher.post("/api/prompts/" + prompt + "/look", later(teacher, prompt, 7)));
        figures.add("recompute", before, "ms", 0, "what a late rule would change for 200 papers");
        double[] times = new double[TIMES];
        for (int i = 0; i < TIMES; i++) {
            Map<String, Object> change = new LinkedHashMap<>();
            change.put("prompt", later(teacher, prompt, 5 + i % 2));
            change.put("rev", rev(teacher, prompt));
            change.put("reason", "Another rule.");
            long begin = System.nanoTime();
            HttpResponse<byte[]> answer = teacher.put("/api/prompts/" + prompt, change);
            times[i] = (System.nanoTime() - begin) / 1e6;
            if (answer.statusCode() != 200) throw new IllegalStateException(new String(answer.body()));
        }
        figures.add("recompute", Figures.median(times), "ms", 0, "and kept, with 200 scores noted and told");
        return in.id();
    }

    /** A class with all of it marked. */
    LargeSchool.OneClass add() {
        LargeSchool.OneClass in = new LargeSchool(jdbc, transaction, STUDENTS).add(60, STUDENTS * PROMPTS);
        transaction.executeWithoutResult(status -> mark(in.id()));
        return in;
    }

    /** All answered, some of it late, every criterion given, released a day ago. */
    private void mark(long classId) {
        jdbc.update("""
                insert into membership (class_id, person_id, id, role, shown, joined_at)
                select ?, id, ?, 'CO_TEACHER', 'OWN_NAME', current_timestamp from person where username = 'quill'""", classId, classId * 1000 + 999);
        for (int i = 0; i < PROMPTS; i++) jdbc.update("""
                    insert into prompt (class_id, title, instructions, questions, opens_at, due_at, grace_minutes,
                           late_per_day, late_cap, late_floor, points, places, asked_words, asked_pictures, asked_tags,
                           asked_links, asked_comments, answer_first, created_at, rubric_id)
                    select ?, title, instructions, questions, dateadd('DAY', -90, current_timestamp),
                           dateadd('DAY', ?, current_timestamp), grace_minutes, late_per_day, late_cap, late_floor,
                           points, places, asked_words, asked_pictures, asked_tags, asked_links, asked_comments,
                           answer_first, created_at, rubric_id
                      from prompt
                     where id = 6""", classId, -i - 35);
        long prompt = jdbc.queryForObject("select min(id) from prompt where class_id = ?", Long.class, classId);
        long post = jdbc.queryForObject("select min(id) from post where class_id = ?", Long.class, classId);
        long person = jdbc.queryForObject(
                "select min(person_id) from membership where class_id = ? and role = 'STUDENT'", Long.class, classId);
        jdbc.update("""
                update post set prompt_id = ? + mod(id - ?, ?), author_id = ? + (id - ?) / ?, handed_no = 1,
                       handed_in_at = dateadd('DAY', -30, current_timestamp)
                 where class_id = ?""", prompt, post, PROMPTS, person, post, PROMPTS, classId);
        jdbc.update("""
                insert into marking (prompt_id, student_id, marker_id, word, released_at, updated_at, rev)
                select prompt_id, author_id, 2, '', dateadd('DAY', -1, current_timestamp), current_timestamp, 1
                  from post
                 where class_id = ?""", classId);
        jdbc.update("""
                insert into marking_post (prompt_id, student_id, post_id, version_no)
                select prompt_id, author_id, id, 1 from post where class_id = ?""", classId);
        for (int c = 1; c <= 4; c++) jdbc.update("""
                    insert into mark (prompt_id, student_id, criterion_id, points, not_counted, remark)
                    select prompt_id, author_id, ?, 1 + mod(id, 3), false, '' from post where class_id = ?""", "c" + c, classId);
    }

    /** The prompt as it is, with another late rule. */
    private static Map<String, Object> later(Person teacher, long prompt, int percent) throws Exception {
        JsonNode now = editable(teacher, prompt).get("prompt");
        Map<String, Object> wanted = new LinkedHashMap<>();
        now.properties().forEach(p -> wanted.put(p.getKey(), p.getValue()));
        wanted.put("latePercentPerDay", percent);
        return wanted;
    }

    private static int rev(Person teacher, long prompt) throws Exception {
        return editable(teacher, prompt).get("rev").asInt();
    }

    private static JsonNode editable(Person teacher, long prompt) throws Exception {
        return new JsonMapper()
                .readTree(teacher.get("/api/prompts/" + prompt + "/editable").body());
    }

    interface Step {
        HttpResponse<byte[]> send() throws Exception;
    }

    static double median(Step step) throws Exception {
        step.send();
        double[] times = new double[TIMES];
        for (int i = 0; i < TIMES; i++) {
            long begin = System.nanoTime();
            HttpResponse<byte[]> answer = step.send();
            times[i] = (System.nanoTime() - begin) / 1e6;
            if (answer.statusCode() != 200) throw new IllegalStateException(new String(answer.body()));
        }
        return Figures.median(times);
    }
}

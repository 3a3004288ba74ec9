package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.concurrent.CyclicBarrier;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import javax.sql.DataSource;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.vastporch.server.School.Answer;

/** Two people at once: what comes of it is what comes of one after the other, in one of the two orders. */
@ProofTest
class RaceTest {

    /**
     * Seven states with 45 pairs of steps each, two kinds of comments with 15, and a paper with 10: so many share the
     * time of the proof.
     */
    private static final int PAIRS = 7 * 45 + 2 * 15 + 10;

    /** To look at all rows takes longer than a race, so most rounds look at those tables that earlier ones changed. */
    private static final int ALL_TABLES_EVERY = 50;

    private static ExecutorService two;
    private int rounds;

    @Autowired
    CanaryBuild build;

    @Autowired
    CanarySchool school;

    @Autowired
    DataSource source;

    @Autowired
    JdbcClient jdbc;

    @LocalServerPort
    int port;

    /** What somebody does: everything that it sends was read before the race. */
    private interface Step {
        Answer take();
    }

    @BeforeAll
    static void open() {
        two = Executors.newFixedThreadPool(2);
    }

    @AfterAll
    static void close() {
        two.shutdown();
    }

    @BeforeEach
    void makeSchool() {
        build.once(port);
    }

    @Test
    void everyStepOfAPost() throws Exception {
        Map<String, String> wrong = new TreeMap<>();
        DatabaseCopy start = DatabaseCopy.of(source);
        for (String state : List.of("WAITING", "DRAFT", "RETURNED", "PUBLISHED", "HIDDEN", "BINNED", "SCHEDULED")) {
            long post = jdbc.sql("""
                                    select min(id)
                                     from post
                                     where state = :state and author_id = :author and prompt_id is null
                                     and class_id = :class""")
                    .param("state", state)
                    .param("author", school.who('S').id)
                    .param("class", school.classId)
                    .query(Long.class)
                    .single();
            race(wrong, start, state, stepsOf(post), () -> standing(post));
        }
        assertEquals(Map.of(), wrong);
    }

    private Map<String, Step> stepsOf(long post) {
        Map<String, Object> row = jdbc.sql("""
                                select rev, case when live is not null and state <> 'WAITING' then live else
                                    coalesce(working, live) end as judged
                                 from post
                                 where id = :id""").param("id", post).query().singleRow();
        int rev = (int) row.get("rev");
        String at = "/api/posts/" + post;
        Map<String, Step> steps = new LinkedHashMap<>();
        steps.put("save", () -> school.who('S')
                .put(
                        at + "/draft",
                        Map.of(
                                "rev",
                                rev,
                                "title",
                                "Other",
                                "html",
                                "<p>Other words.</p>",
                                "tags",
                                List.of(),
                                "audience",
                                "MY_CLASS")));
        steps.put("hand in", () -> school.who('S').post(at + "/hand-in", Map.of("rev", rev)));
        steps.put("bin", () -> school.who('S').call("DELETE", at, null));
        steps.put("restore", () -> school.who('S').post(at + "/restore", null));
        steps.put("show", () -> school.who('2').post(at + "/show", null));
        for (String step : List.of("APPROVE", "RETURN", "HIDE", "BIN"))
            steps.put(step + " by staff", () -> decide('L', step, "post", post, (int) row.get("judged"), rev));
        steps.put("APPROVE by the moderator", () -> decide('M', "APPROVE", "post", post, (int) row.get("judged"), rev));
        return steps;
    }

    private Answer decide(char who, String step, String subject, long id, int version, int rev) {
        return school.who(who)
                .post(
                        "/api/pile/decisions",
                        Map.of(
                                "step",
                                step,
                                "note",
                                "Look again.",
                                "items",
                                List.of(Map.of("subject", subject, "id", id, "version", version, "rev", rev))));
    }

    private String standing(long post) {
        return jdbc.sql("""
                                        select state, live, working, waiting_since is null, published_at is
                                            null, handed_no, binned_by, rev
                                         from post
                                         where id = :id""").param("id", post).query().singleRow().values()
                + jdbc.sql("""
                                        select step, decided_by, version_no, after_rev
                                         from decision
                                         where subject = 'post' and subject_id = :id
                                         order by id""").param("id", post).query().listOfRows().toString();
    }

    @Test
    void commentsAndTheirAnswers() throws Exception {
        Map<String, String> wrong = new TreeMap<>();
        DatabaseCopy start = DatabaseCopy.of(source);
        for (Object each : List.of(
                school.things.get("comment").get(2),
                school.things.get("comment").get(3))) {
            long comment = (long) each;
            Map<String, Object> row = jdbc.sql("select rev, post_id, state from comment where id = :id")
                    .param("id", comment)
                    .query()
                    .singleRow();
            int rev = (int) row.get("rev");
            Map<String, Step> steps = new LinkedHashMap<>();
            steps.put("change", () -> school.who('S')
                    .put("/api/comments/" + comment, Map.of("rev", rev, "text", "Otherwise.")));
            steps.put("mend", () -> school.who('L')
                    .put("/api/comments/" + comment, Map.of("rev", rev, "text", "Mended.")));
            steps.put("take away", () -> school.who('S').call("DELETE", "/api/comments/" + comment, null));
            steps.put("answer", () -> school.who('L')
                    .post(
                            "/api/posts/" + row.get("post_id") + "/comments",
                            Map.of("text", "To that.", "parentId", comment)));
            steps.put("APPROVE", () -> decide('M', "APPROVE", "comment", comment, 1, rev));
            steps.put("HIDE", () -> decide('L', "HIDE", "comment", comment, 1, rev));
            race(
                    wrong,
                    start,
                    "comment " + row.get("state"),
                    steps,
                    () -> jdbc.sql("select state, html, edited_by, rev from comment where id = :id")
                                    .param("id", comment)
                                    .query()
                                    .singleRow()
                                    .values()
                            + " answers "
                            + jdbc.sql("select count(*) from comment where parent_id = :id")
                                    .param("id", comment)
                                    .query(Integer.class)
                                    .single());
        }
        assertEquals(Map.of(), wrong);
    }

    @Test
    void twoMarkersAndAStudentWhoHandsInAgain() throws Exception {
        Map<String, String> wrong = new TreeMap<>();
        long prompt = (long) school.things.get("prompt").get(0);
        Map<String, Object> seen = jdbc.sql("""
                                select p.id as post, p.handed_no as version, m.rev
                                 from post p
                                 join marking m on m.prompt_id = p.prompt_id and m.student_id = p.author_id
                                 where p.prompt_id = :id""")
                .param("id", prompt)
                .query((row, n) -> Map.<String, Object>of(
                        "posts",
                        List.of(Map.of("post", row.getLong(1), "version", row.getInt(2))),
                        "rev",
                        row.getInt(3)))
                .single();
        String at = "/api/prompts/" + prompt + "/marking/" + school.who('S').id;
        long post = jdbc.sql("select min(id) from post where prompt_id = :id")
                .param("id", prompt)
                .query(Long.class)
                .single();
        int rev = jdbc.sql("select rev from post where id = :id")
                .param("id", post)
                .query(Integer.class)
                .single();
        Map<String, Step> steps = new LinkedHashMap<>();
        steps.put("mark", () -> school.who('L')
                .put(at + "/criteria/c1", Map.of("seen", seen, "points", 0, "remark", "One")));
        steps.put("mark too", () -> school.who('A')
                .put(at + "/criteria/c1", Map.of("seen", seen, "points", 6, "remark", "Two")));
        steps.put("word", () -> school.who('2').put(at + "/word", Map.of("seen", seen, "word", "Three")));
        steps.put("release", () -> school.who('L')
                .post(
                        "/api/prompts/" + prompt + "/marking/release",
                        Map.of("papers", List.of(Map.of("student", school.who('S').id, "seen", seen)))));
        steps.put("write on", () -> school.who('S')
                .put(
                        "/api/posts/" + post + "/draft",
                        Map.of(
                                "rev",
                                rev,
                                "title",
                                "Other",
                                "html",
                                "<p>Other words.</p>",
                                "tags",
                                List.of(),
                                "audience",
                                "MY_CLASS")));
        race(wrong, DatabaseCopy.of(source), "paper", steps, () -> jdbc.sql("""
                                select m.rev, m.word, r.version_no, m.marker_id, m.released_at is null,
                                    k.points, k.remark
                                 from marking m
                                 join marking_post r on r.prompt_id = m.prompt_id and r.student_id = m.student_id
                                 join mark k on k.prompt_id = m.prompt_id and k.student_id = m.student_id
                                 where m.prompt_id = :id""")
                .param("id", prompt)
                .query()
                .singleRow()
                .values()
                .toString());
        assertEquals(Map.of(), wrong);
    }

    private interface Outcome {
        String now();
    }

    /** Every pair of steps from one beginning: first the two orders, then at once, many times. */
    private void race(
            Map<String, String> wrong, DatabaseCopy start, String from, Map<String, Step> steps, Outcome outcome)
            throws Exception {
        List<String> names = new ArrayList<>(steps.keySet());
        Proof.Progress progress = Proof.progress("races from " + from, names.size() * (names.size() - 1) / 2);
        for (int i = 0; i < names.size(); i++)
            for (int j = i + 1; j < names.size(); j++) {
                Step a = steps.get(names.get(i));
                Step b = steps.get(names.get(j));
                Instant begun = Instant.now();
                TreeSet<String> touched = new TreeSet<>();
                List<String> serial =
                        List.of(inOrder(start, touched, a, b, outcome), inOrder(start, touched, b, a, outcome));
                for (int round = 0; round < Proof.rounds() && !Proof.isOver(begun, PAIRS); round++) {
                    String found = atOnce(start, touched, round % ALL_TABLES_EVERY == 0, a, b, outcome);
                    rounds++;
                    if (!serial.contains(found))
                        wrong.putIfAbsent(
                                from + ": " + names.get(i) + " and " + names.get(j), found + ", not one of " + serial);
                }
                progress.step();
            }
        progress.end(rounds + " rounds");
    }

    private String inOrder(DatabaseCopy start, Set<String> touched, Step first, Step second, Outcome outcome) {
        first.take();
        second.take();
        return settled(start, touched, true, outcome);
    }

    private String atOnce(DatabaseCopy start, Set<String> touched, boolean inAllTables, Step a, Step b, Outcome outcome)
            throws Exception {
        CyclicBarrier line = new CyclicBarrier(2);
        List<Future<Integer>> both = new ArrayList<>();
        for (Step step : List.of(a, b))
            both.add(two.submit(() -> {
                line.await();
                return step.take().status();
            }));
        for (Future<Integer> one : both) assertTrue(one.get() < 500);
        return settled(start, touched, inAllTables, outcome);
    }

    /**
     * What came of it, and the beginning again: of the tables that these steps are known to touch, or of all, which are
     * then known.
     */
    private String settled(DatabaseCopy start, Set<String> touched, boolean inAllTables, Outcome outcome) {
        String now = outcome.now();
        TreeSet<String> changed =
                start.changedTo(inAllTables ? DatabaseCopy.of(source) : DatabaseCopy.of(source, touched));
        start.putBack(source, changed);
        touched.addAll(changed);
        return now;
    }
}

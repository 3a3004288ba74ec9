package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Made;
import tools.jackson.databind.JsonNode;

/** A class of two, whose teacher sets prompts and marks what the first of them hands in. */
abstract class Assessing {

    static final ZoneId LONDON = ZoneId.of("Europe/London");

    @Autowired
    School school;

    @Autowired
    JdbcClient jdbc;

    @LocalServerPort
    int port;

    Made of;

    @BeforeEach
    void makeClass() {
        of = school.make(port);
    }

    /** Of 9 points by Observation (weight 2, to 6) and Reflection (weight 1, to 3); 10 % a day, no grace. */
    Map<String, Object> wanted(String title, LocalDateTime due) {
        Map<String, Object> wanted = new HashMap<>(MarkTest.wanted(due));
        wanted.put("title", title);
        wanted.put("graceHours", 0);
        return wanted;
    }

    /** The same, and students see it. */
    Map<String, Object> open(String title, LocalDateTime due) {
        Map<String, Object> wanted = wanted(title, due);
        wanted.put("opens", in(-1).toString());
        return wanted;
    }

    static LocalDateTime in(int days) {
        return LocalDateTime.now(LONDON).plusDays(days);
    }

    /** How classmates are asked to review so many papers each. */
    static Map<String, Object> peers(int each) {
        return Map.ofEntries(
                Map.entry("each", each),
                Map.entry("when", "BY_HAND"),
                Map.entry("due", in(30).toString()),
                Map.entry("authorsKept", true),
                Map.entry("reviewersKept", true),
                Map.entry("criteria", List.of("c1")),
                Map.entry("questions", List.of("What would you ask the author?")),
                Map.entry("share", 0),
                Map.entry("answered", true));
    }

    long set(Map<String, Object> wanted) {
        return of.lead()
                .post("/api/classes/" + of.classId() + "/prompts", wanted)
                .body()
                .get("id")
                .asLong();
    }

    long handIn(long prompt, String title) {
        return school.published(of, of.first(), of.blogOfFirst(), Map.of("promptId", prompt), title);
    }

    String at(long prompt) {
        return "/api/prompts/" + prompt + "/marking/" + of.first().id;
    }

    JsonNode paper(long prompt) {
        return of.lead().get(at(prompt)).body();
    }

    Answer give(long prompt, String criterion, Map<String, Object> what) {
        Map<String, Object> body = new HashMap<>(what);
        body.put("seen", school.seen(of.lead(), prompt, of.first().id));
        body.putIfAbsent("remark", "");
        return of.lead().put(at(prompt) + "/criteria/" + criterion, body);
    }

    void mark(long prompt, Object observation, Object reflection) {
        assertEquals(200, give(prompt, "c1", Map.of("points", observation)).status());
        assertEquals(200, give(prompt, "c2", Map.of("points", reflection)).status());
    }

    void release(long prompt) {
        Map<String, Object> paper =
                Map.of("student", of.first().id, "seen", school.seen(of.lead(), prompt, of.first().id));
        assertEquals(
                1,
                of.lead()
                        .post("/api/prompts/" + prompt + "/marking/release", Map.of("papers", List.of(paper)))
                        .body()
                        .get("released")
                        .asInt());
    }

    JsonNode feedback() {
        return of.first()
                .get("/api/classes/" + of.classId() + "/feedback")
                .body()
                .get("papers");
    }

    String score(long prompt) {
        return paper(prompt).get("given").get("score").get("points").asString();
    }

    Answer change(long prompt, Map<String, Object> wanted, String reason) {
        int rev = of.lead()
                .get("/api/prompts/" + prompt + "/editable")
                .body()
                .get("rev")
                .asInt();
        return of.lead().put("/api/prompts/" + prompt, Map.of("rev", rev, "prompt", wanted, "reason", reason));
    }

    void letDueGoBy(long prompt) {
        jdbc.sql("update prompt set due_at = :due where id = :id")
                .param("due", Instant.now().minusSeconds(1).atOffset(ZoneOffset.UTC))
                .param("id", prompt)
                .update();
        for (String earlier : List.of(
                "update post set handed_in_at = :at where prompt_id = :id",
                "update handed_again set handed_at = :at where post_id in (select id from post where prompt_id = :id)"))
            jdbc.sql(earlier)
                    .param("at", Instant.now().minusSeconds(60).atOffset(ZoneOffset.UTC))
                    .param("id", prompt)
                    .update();
    }

    void handInAgain(long post, String title) {
        assertEquals(
                200,
                School.handInAgain(
                                of.first(),
                                post,
                                Map.of("title", title, "html", "<p>Other words are written here.</p>"))
                        .status());
    }

    /** A blog in which all students of the class write. */
    Map<String, Object> commonBlog(String widest, String commenters) {
        Map<String, Object> setup = new HashMap<>(Map.of(
                "kind",
                "SHARED",
                "title",
                "News",
                "intro",
                "",
                "about",
                "",
                "widest",
                widest,
                "commenters",
                commenters));
        setup.put(
                "settings",
                of.lead()
                        .get("/api/classes/" + of.classId() + "/blogs/fresh")
                        .body()
                        .get(0)
                        .get("settings"));
        return setup;
    }
}

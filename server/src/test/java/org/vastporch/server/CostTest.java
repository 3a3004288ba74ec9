package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.vastporch.server.School.Made;
import org.vastporch.server.School.Person;

/** What is asked for often costs the same number of statements however much there is in a class. */
@ServerTest
class CostTest {

    @Autowired
    School school;

    @LocalServerPort
    int port;

    Made of;

    @BeforeEach
    void makeClass() {
        of = school.make(port);
    }

    private long prompt(int daysAgo) {
        LocalDateTime due = LocalDateTime.now(ZoneId.of("Europe/London")).minusDays(daysAgo);
        return of.lead()
                .post("/api/classes/" + of.classId() + "/prompts", MarkTest.wanted(due))
                .body()
                .get("id")
                .asLong();
    }

    private long blog(Person student) {
        return student.get("/api/classes/" + of.classId() + "/blogs/mine")
                .body()
                .get(0)
                .get("id")
                .asLong();
    }

    /** A prompt that both students have answered, and one of the answers has a mark. */
    private long answered(int daysAgo) {
        long prompt = prompt(daysAgo);
        for (Person student : List.of(of.first(), of.other())) {
            school.handIn(
                    student, blog(student), Map.of("promptId", prompt), "Log", "<p>Five words are written here.</p>");
        }
        of.lead()
                .put(
                        "/api/prompts/" + prompt + "/marking/" + of.first().id + "/criteria/c1",
                        Map.of("seen", school.seen(of.lead(), prompt, of.first().id), "points", 4, "remark", ""));
        return prompt;
    }

    @Test
    void whatIsPolledDoesNotGrowWithPromptsAndPosts() {
        long first = answered(1);
        int me = StatementCount.of(() -> of.lead().get("/api/me"));
        int today = StatementCount.of(() -> of.lead().get("/api/classes/" + of.classId() + "/today"));
        int strip = StatementCount.of(() -> of.lead().get("/api/prompts/" + first + "/marking"));
        for (int i = 2; i < 6; i++) answered(i);
        assertEquals(me, StatementCount.of(() -> of.lead().get("/api/me")));
        assertEquals(today, StatementCount.of(() -> of.lead().get("/api/classes/" + of.classId() + "/today")));
        assertEquals(strip, StatementCount.of(() -> of.lead().get("/api/prompts/" + first + "/marking")));
        assertTrue(me > 0 && me <= 15, () -> me + " statements");
    }

    /** Eleven, and one for who asks: the pile is opened all day by those who approve. */
    @Test
    void aLongPileCostsNoMoreThanAShortOne() {
        wait(2);
        int few = StatementCount.of(() -> of.lead().get("/api/pile"));
        int porch = StatementCount.of(() -> of.first().get("/api/classes/" + of.classId() + "/porch"));
        int own = StatementCount.of(() -> of.first().get("/api/classes/" + of.classId() + "/own-posts"));
        wait(8);
        assertEquals(own, StatementCount.of(() -> of.first().get("/api/classes/" + of.classId() + "/own-posts")));
        int many = StatementCount.of(() -> of.lead().get("/api/pile"));
        assertEquals(porch, StatementCount.of(() -> of.first().get("/api/classes/" + of.classId() + "/porch")));
        assertTrue(porch <= 12, () -> porch + " statements of the Porch");
        assertEquals(few, many);
        assertTrue(many <= 12, () -> many + " statements");
        assertEquals(30, of.lead().get("/api/pile").body().get("items").size());
    }

    /** So many posts of each student, each for a prompt, with a phone number, a tag and a comment that waits too. */
    private void wait(int times) {
        for (int i = 0; i < times; i++) {
            long prompt = prompt(i + 1);
            school.handIn(
                    of.first(), blog(of.first()), Map.of("promptId", prompt), "Log " + i, "<p>Call 07700 900 412.</p>");
            long up = school.published(of, of.other(), blog(of.other()), Map.of(), "Seen " + i);
            of.first().post("/api/posts/" + up + "/comments", Map.of("text", "Which jar?"));
            of.first().post("/api/posts/" + up + "/comments", Map.of("text", "Or mail me: a@b.example"));
        }
    }

    /** Of two answers one has begun to be marked; the other waits to be looked at first. */
    @Test
    void theCountsAreThoseOfTheDesk() {
        answered(1);
        prompt(2);
        assertEquals(
                1,
                of.lead()
                        .get("/api/me")
                        .body()
                        .get("classes")
                        .get(0)
                        .get("toMark")
                        .asInt());
        of.lead()
                .get("/api/classes/" + of.classId() + "/today")
                .body()
                .get("mark")
                .forEach(line -> {
                    assertEquals(1, line.get("count").asInt());
                    assertEquals(0, line.get("missing").asInt());
                });
    }
}

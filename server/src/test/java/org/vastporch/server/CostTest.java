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

    /** A prompt that both students have answered, and one of the answers has a mark. */
    private long answered(int daysAgo) {
        long prompt = prompt(daysAgo);
        for (Person student : List.of(of.first(), of.other())) {
            long blog = student.get("/api/classes/" + of.classId() + "/blogs/mine")
                    .body()
                    .get(0)
                    .get("id")
                    .asLong();
            school.handIn(student, blog, Map.of("promptId", prompt), "Log", "<p>Five words are written here.</p>");
        }
        of.lead()
                .put(
                        "/api/prompts/" + prompt + "/marking/" + of.first().id + "/criteria/0",
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
        assertTrue(me > 0 && me <= 16, () -> me + " statements");
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

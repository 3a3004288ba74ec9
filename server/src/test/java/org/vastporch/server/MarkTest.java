package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Made;
import org.vastporch.server.School.Person;
import tools.jackson.databind.JsonNode;

/** Prompts, marking and what a student sees of it, over HTTP. */
@ServerTest
class MarkTest {

    @Autowired
    School school;

    @LocalServerPort
    int port;

    Made of;
    long prompt;

    /**
     * A prompt that was due two days and an hour ago, with a day of grace: what comes in now is two days late, at 10 %
     * a day.
     */
    @BeforeEach
    void makeClassWithPrompt() {
        of = school.make(port);
        LocalDateTime due =
                LocalDateTime.now(ZoneId.of("Europe/London")).minusDays(2).minusHours(1);
        prompt = of.lead()
                .post("/api/classes/" + of.classId() + "/prompts", wanted(due))
                .body()
                .get("id")
                .asLong();
    }

    static Map<String, Object> wanted(LocalDateTime due) {
        List<Object> criteria =
                List.of(criterion("Observation", 2, 0, 2, 4, 6), criterion("Reflection", 1, 0, 1, 2, 3));
        Map<String, Object> wanted = new HashMap<>();
        wanted.putAll(Map.of(
                "title",
                "Week log",
                "instructions",
                "Look.",
                "questions",
                List.of("What?"),
                "opens",
                due.minusDays(3).toString(),
                "due",
                due.toString(),
                "graceHours",
                24,
                "latePercentPerDay",
                10,
                "lateMostPercent",
                50,
                "points",
                9));
        wanted.put(
                "asked",
                Map.of("words", 5, "pictures", 0, "tags", 0, "category", 0, "links", 0, "sources", 0, "comments", 0));
        wanted.put("rubric", Map.of("criteria", criteria));
        return wanted;
    }

    private static Map<String, Object> criterion(String name, int weight, int... points) {
        return Map.of(
                "name",
                name,
                "weight",
                weight,
                "levels",
                IntStream.of(points)
                        .mapToObj(p -> Map.of("name", "p" + p, "points", p, "descriptor", ""))
                        .toList());
    }

    private long handIn() {
        Person wren = of.first();
        long id = wren.post("/api/blogs/" + of.blogOfFirst() + "/posts", Map.of("promptId", prompt))
                .body()
                .get("id")
                .asLong();
        int rev = wren.put(
                        "/api/posts/" + id + "/draft",
                        Map.of(
                                "rev",
                                1,
                                "title",
                                "Log",
                                "html",
                                "<p>Five words are written here.</p>",
                                "tags",
                                List.of(),
                                "audience",
                                "MY_CLASS"))
                .body()
                .get("rev")
                .asInt();
        assertEquals(
                "WAITING",
                wren.post("/api/posts/" + id + "/hand-in", Map.of("rev", rev))
                        .body()
                        .get("state")
                        .asString());
        return id;
    }

    private String standing() {
        for (JsonNode s :
                of.lead().get("/api/prompts/" + prompt + "/marking").body().get("students"))
            if (s.get("studentId").asLong() == of.first().id)
                return s.get("standing").asString() + (s.get("late").asBoolean() ? " late" : "");
        return "";
    }

    private Answer mark(Person who, int criterion, int points) {
        return who.put(
                "/api/prompts/" + prompt + "/marking/" + of.first().id + "/criteria/c" + (criterion + 1),
                Map.of("seen", school.seen(of.lead(), prompt, of.first().id), "points", points, "remark", ""));
    }

    private Answer release() {
        return of.lead()
                .post(
                        "/api/prompts/" + prompt + "/marking/release",
                        Map.of(
                                "papers",
                                List.of(Map.of(
                                        "student",
                                        of.first().id,
                                        "seen",
                                        school.seen(of.lead(), prompt, of.first().id)))));
    }

    @Test
    void aScoreIsProvisionalThenWholeThenReleased() {
        assertEquals("MISSING", standing());
        assertEquals("nothing-handed-in", mark(of.lead(), 0, 4).code());
        handIn();
        assertEquals("WAITING late", standing());
        JsonNode part = mark(of.lead(), 0, 6).body();
        assertTrue(part.get("score").get("provisional").asBoolean());
        assertEquals("BEING_MARKED late", standing());
        JsonNode whole = mark(of.second(), 1, 2).body();
        // 9 × (2·6/6 + 1·2/3) / 3 = 8; two started days at 10 % leave 6.4
        assertEquals("8.0", whole.get("score").get("before").asString());
        assertEquals("6.4", whole.get("score").get("points").asString());
        assertEquals("20", whole.get("score").get("percentLost").asString());
        assertEquals(
                5,
                of.lead()
                        .get("/api/prompts/" + prompt + "/marking/" + of.first().id)
                        .body()
                        .get("evidence")
                        .get("counts")
                        .valueStream()
                        .filter(c -> c.get("what").asString().equals("WORDS"))
                        .findFirst()
                        .orElseThrow()
                        .get("number")
                        .asInt());
        assertEquals("MARKED late", standing());
        assertEquals(
                0,
                of.first()
                        .get("/api/classes/" + of.classId() + "/feedback")
                        .body()
                        .get("papers")
                        .size(),
                "nothing is shown before the release");

        assertEquals(1, release().body().get("released").asInt());
        assertEquals(
                "6.4",
                of.first()
                        .get("/api/classes/" + of.classId() + "/feedback")
                        .body()
                        .get("papers")
                        .get(0)
                        .get("score")
                        .get("points")
                        .asString());
        assertEquals(
                0,
                of.other()
                        .get("/api/classes/" + of.classId() + "/feedback")
                        .body()
                        .get("papers")
                        .size());
        assertEquals(0, release().body().get("released").asInt());
    }

    @Test
    void onlyStaffMark() {
        handIn();
        for (Person who : List.of(of.first(), of.other(), of.moderator(), of.guest())) {
            assertEquals(403, mark(who, 0, 6).status());
            assertEquals(403, who.get("/api/prompts/" + prompt + "/marking").status());
            assertEquals(
                    403,
                    who.get("/api/prompts/" + prompt + "/marking/" + of.first().id)
                            .status());
        }
    }

    @Test
    void pointsOutsideACriterionAreRefusedInWords() {
        handIn();
        Answer refused = mark(of.lead(), 0, 7);
        assertEquals(
                "\"Observation\" goes from 0 to 6, not 7.",
                refused.body().get("detail").asString());
        assertEquals(404, mark(of.lead(), 5, 1).status());
    }

    @Test
    void aDraftForAPromptIsFoundAgainAndNeedsAreSaid() {
        Person wren = of.first();
        long one = wren.post("/api/blogs/" + of.blogOfFirst() + "/posts", Map.of("promptId", prompt))
                .body()
                .get("id")
                .asLong();
        assertEquals(
                one,
                wren.post("/api/blogs/" + of.blogOfFirst() + "/posts", Map.of("promptId", prompt))
                        .body()
                        .get("id")
                        .asLong());
        JsonNode draft = wren.get("/api/posts/" + one + "/draft").body();
        assertEquals(5, draft.get("beside").get("needs").get(1).get("asked").asInt());
        assertFalse(draft.get("beside").get("ready").asBoolean());
        assertTrue(draft.get("beside").get("goesToApproval").asBoolean());
        assertEquals(
                "not-your-blog",
                of.other()
                        .post("/api/blogs/" + of.blogOfFirst() + "/posts", Map.of())
                        .code());
    }

    @Test
    void aRubricThatMakesNoSenseIsRefused() {
        Map<String, Object> bad = wanted(LocalDateTime.now().plusDays(2));
        bad.put("rubric", Map.of("criteria", List.of(criterion("Observation", 2, 4, 2))));
        assertEquals(
                422,
                of.lead().post("/api/classes/" + of.classId() + "/prompts", bad).status());
        Map<String, Object> backwards = wanted(LocalDateTime.now().plusDays(2));
        backwards.put("opens", LocalDateTime.now().plusDays(5).toString());
        assertEquals(
                "due-before-opening",
                of.lead()
                        .post("/api/classes/" + of.classId() + "/prompts", backwards)
                        .code());
    }
}

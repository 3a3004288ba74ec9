package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Person;
import org.vastporch.server.prompts.PaperMembers;
import tools.jackson.databind.JsonNode;

/** A group hands in one paper: whose it is, whose marks are whose, and what becomes of both when that is changed. */
@ServerTest
class TogetherTest extends Assessing {

    @Autowired
    PaperMembers members;

    private long bed;
    private long prompt;

    @BeforeEach
    void putBothIntoAGroup() {
        bed = of.lead()
                .post("/api/classes/" + of.classId() + "/groups", Map.of("name", "Bed 1"))
                .body()
                .get("id")
                .asLong();
        move(bed, of.first().id, of.other().id);
        Map<String, Object> wanted = open("Project", in(2));
        wanted.put("answers", School.answers(1, false, true, List.of()));
        prompt = set(wanted);
    }

    private void move(Long group, Long... people) {
        Map<String, Object> move = new HashMap<>();
        move.put("people", List.of(people));
        move.put("groupId", group);
        assertEquals(
                200,
                of.lead()
                        .post("/api/classes/" + of.classId() + "/groups/moves", Map.of("moves", List.of(move)))
                        .status());
    }

    private JsonNode paperOf(Person student) {
        return of.lead()
                .get("/api/prompts/" + prompt + "/marking/" + student.id)
                .body();
    }

    private String standing(Person student) {
        return paperOf(student).get("given").get("standing").asString();
    }

    private JsonNode strip() {
        return of.lead().get("/api/prompts/" + prompt + "/marking").body();
    }

    private Answer members(Person of, List<Long> students, List<Long> apart) {
        return this.of
                .lead()
                .put(
                        "/api/prompts/" + prompt + "/marking/" + of.id + "/members",
                        Map.of(
                                "seen",
                                school.seen(this.of.lead(), prompt, of.id),
                                "students",
                                students,
                                "apart",
                                apart));
    }

    @Test
    void oneHandsInForAllAndAllHaveTheMarks() {
        handIn(prompt, "Our bed");
        assertEquals("HANDED_IN", standing(of.other()));
        assertEquals(1, strip().get("students").size(), "there is one paper");
        assertEquals("Bed 1", strip().get("students").get(0).get("name").asString());
        assertEquals(1, strip().get("handedIn").asInt());
        assertEquals("Bed 1", paperOf(of.first()).get("together").get("name").asString());
        mark(prompt, 6, 3);
        assertEquals("9.0", paperOf(of.other()).at("/given/score/points").asString());
        Map<String, Object> paper =
                Map.of("student", of.first().id, "seen", school.seen(of.lead(), prompt, of.first().id));
        assertEquals(
                2,
                of.lead()
                        .post("/api/prompts/" + prompt + "/marking/release", Map.of("papers", List.of(paper)))
                        .body()
                        .get("released")
                        .asInt());
        String path = "/api/classes/" + of.classId() + "/feedback";
        JsonNode others = of.other().get(path).body().get("papers").get(0);
        assertEquals("Our bed", others.get("posts").get(0).get("title").asString());
        assertEquals("9.0", others.get("score").get("points").asString());
        // What a member may not read is not told by its title either.
        jdbc.sql("update post set audience = 0 where prompt_id = :prompt")
                .param("prompt", prompt)
                .update();
        assertEquals(0, of.other().get(path).body().at("/papers/0/posts").size());
        assertEquals(1, of.first().get(path).body().at("/papers/0/posts").size());
    }

    @Test
    void theListOfWhatIsDueSaysWithWhom() {
        JsonNode due =
                of.other().get("/api/classes/" + of.classId() + "/due").body().get(0);
        assertEquals("Wren Castellane", due.get("together").get(0).asString());
        assertTrue(due.get("owesPosts").asBoolean());
        handIn(prompt, "Our bed");
        assertEquals(
                0,
                of.other().get("/api/classes/" + of.classId() + "/due").body().size());
    }

    @Test
    void whoIsMarkedApartHasMarksOfTheirOwnAndGetsTheGroupsAgain() {
        handIn(prompt, "Our bed");
        mark(prompt, 6, 3);
        List<Long> both = List.of(of.first().id, of.other().id);
        assertEquals(200, members(of.first(), both, List.of(of.other().id)).status());
        assertEquals(2, strip().get("students").size());
        assertEquals("9.0", paperOf(of.other()).at("/given/score/points").asString(), "the marks so far stay");
        give(prompt, "c1", Map.of("points", 2));
        assertEquals("5.0", score(prompt));
        assertEquals("9.0", paperOf(of.other()).at("/given/score/points").asString());
        assertEquals(200, members(of.first(), both, List.of()).status());
        assertEquals("5.0", paperOf(of.other()).at("/given/score/points").asString());
        assertEquals(1, strip().get("students").size());
    }

    @Test
    void whoLeavesThePaperHasNothingOfIt() {
        handIn(prompt, "Our bed");
        mark(prompt, 6, 3);
        assertEquals(200, members(of.first(), List.of(of.first().id), List.of()).status());
        assertEquals("NOT_HANDED_IN", standing(of.other()));
        assertEquals(0, paperOf(of.other()).at("/given/marks").size());
        assertEquals("MARKED", standing(of.first()));
        assertEquals(
                200,
                members(of.first(), List.of(of.first().id, of.other().id), List.of())
                        .status());
        assertEquals("9.0", paperOf(of.other()).at("/given/score/points").asString());
    }

    @Test
    void theGroupsAreThoseOfWhenItWasDue() {
        handIn(prompt, "Our bed");
        move(null, of.other().id);
        assertEquals("NOT_HANDED_IN", standing(of.other()), "until it is due it is the group of now");
        move(bed, of.other().id);
        letDueGoBy(prompt);
        members.keepWhatIsDue();
        move(null, of.other().id);
        assertEquals("HANDED_IN", standing(of.other()));
        Map<String, Object> later = open("Project", in(3));
        later.put("answers", School.answers(1, false, true, List.of()));
        assertEquals(200, change(prompt, later, "").status());
        assertEquals("NOT_HANDED_IN", standing(of.other()));
    }

    @Test
    void onlyStaffSayWhoHandedIn() {
        handIn(prompt, "Our bed");
        String path = "/api/prompts/" + prompt + "/marking/" + of.first().id + "/members";
        Map<String, Object> body = Map.of(
                "seen",
                school.seen(of.lead(), prompt, of.first().id),
                "students",
                List.of(of.first().id),
                "apart",
                List.of());
        for (Person no : List.of(of.first(), of.other(), of.guest(), of.moderator()))
            assertTrue(no.put(path, body).status() >= 403);
        assertEquals(200, of.second().put(path, body).status());
        assertEquals(
                "marked-meanwhile",
                of.lead()
                        .put(
                                path,
                                Map.of(
                                        "seen",
                                        Map.of("posts", List.of(), "comments", 0, "rev", 7),
                                        "students",
                                        List.of(of.first().id),
                                        "apart",
                                        List.of()))
                        .code());
        assertEquals(
                "not-a-student",
                members(of.first(), List.of(of.first().id, of.lead().id), List.of())
                        .code());
        assertEquals(
                "not-without",
                members(of.first(), List.of(of.other().id), List.of()).code());
    }
}

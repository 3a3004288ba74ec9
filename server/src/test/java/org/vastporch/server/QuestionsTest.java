package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Person;
import tools.jackson.databind.JsonNode;

/** What is asked under a prompt, and the word that goes with a hand-in. */
@ServerTest
class QuestionsTest extends Assessing {

    private long prompt;

    @BeforeEach
    void setPrompt() {
        prompt = set(open("Log", in(2)));
    }

    private Answer ask(Person who, String question) {
        return who.post("/api/prompts/" + prompt + "/questions", Map.of("question", question));
    }

    private JsonNode read(Person who) {
        return who.get("/api/prompts/" + prompt + "/questions").body().get("questions");
    }

    private Answer answer(Person who, long question, int rev, String answer, boolean forAll) {
        return who.put(
                "/api/questions/" + question + "/answer", Map.of("rev", rev, "answer", answer, "forAll", forAll));
    }

    @Test
    void aQuestionIsBetweenItsAskerAndTheStaffUntilItIsAnsweredForAll() {
        long asked = ask(of.first(), "May it be about rain?").body().get("id").asLong();
        assertEquals(0, read(of.other()).size());
        assertEquals(0, read(of.guest()).size());
        assertEquals(1, read(of.first()).size());
        assertEquals("Wren Castellane", read(of.lead()).get(0).get("asker").asString());
        JsonNode today =
                of.lead().get("/api/classes/" + of.classId() + "/today").body();
        assertEquals(1, today.get("questions").get(0).get("questions").asInt());
        assertEquals(403, answer(of.other(), asked, 1, "No.", true).status());
        assertEquals(
                200,
                answer(of.second(), asked, 1, "Yes, if it fell on your bed.", false)
                        .status());
        assertEquals(0, read(of.other()).size());
        assertEquals(
                "answered-meanwhile", answer(of.lead(), asked, 1, "No.", true).code());
        assertEquals(200, answer(of.lead(), asked, 2, "Yes, all of you.", true).status());
        JsonNode forAll = read(of.other()).get(0);
        assertEquals("Yes, all of you.", forAll.get("answer").asString());
        assertFalse(forAll.has("asker"), "nobody learns who asked");
        assertEquals(
                0,
                of.lead()
                        .get("/api/classes/" + of.classId() + "/today")
                        .body()
                        .get("questions")
                        .size());
        JsonNode news = of.first().get("/api/news").body().get("items");
        assertEquals("QUESTION_ANSWERED", news.get(0).get("kind").asString());
        assertEquals(
                "/classes/" + of.classId() + "/prompt/" + prompt,
                news.get(0).get("to").asString());
    }

    @Test
    void whoAskedTakesItBackUntilItIsAnswered() {
        long asked = ask(of.first(), "May it be about rain?").body().get("id").asLong();
        assertEquals(
                404, of.other().call("DELETE", "/api/questions/" + asked, null).status());
        assertEquals(
                200, of.first().call("DELETE", "/api/questions/" + asked, null).status());
        long again = ask(of.first(), "May it be about snow?").body().get("id").asLong();
        answer(of.lead(), again, 1, "Yes.", true);
        assertEquals(
                "answered-already",
                of.first().call("DELETE", "/api/questions/" + again, null).code());
        assertEquals(
                200, of.lead().call("DELETE", "/api/questions/" + again, null).status());
        assertEquals(0, read(of.first()).size());
    }

    @Test
    void onlyStudentsAskAndNotWithoutEnd() {
        for (Person no : List.of(of.lead(), of.guest(), of.moderator()))
            assertTrue(ask(no, "Why?").status() >= 403);
        assertEquals("text-empty", ask(of.first(), "  ").code());
        assertEquals("text-too-long", ask(of.first(), "x".repeat(2_001)).code());
        for (int i = 0; i < 10; i++)
            assertEquals(200, ask(of.first(), "Why " + i + "?").status());
        assertEquals("too-many-questions", ask(of.first(), "Why ten?").code());
        assertEquals(200, ask(of.other(), "And I?").status());
        long later = set(wanted("Later", in(5)));
        jdbc.sql("update prompt set opens_at = dateadd(day, 1, current_timestamp) where id = :id")
                .param("id", later)
                .update();
        assertEquals(
                404,
                of.first()
                        .post("/api/prompts/" + later + "/questions", Map.of("question", "What is it?"))
                        .status());
    }

    @Test
    void aWordWithTheHandInIsReadByWhoDecidesAndWhoMarks() {
        School.Saved saved =
                School.save(of.first(), of.blogOfFirst(), Map.of("promptId", prompt), Map.of("title", "Rain"));
        long id = saved.id();
        Map<String, Object> wish = new HashMap<>(Map.of("rev", saved.rev(), "word", "x".repeat(1_001)));
        assertEquals(
                "word-too-long",
                of.first().post("/api/posts/" + id + "/hand-in", wish).code());
        wish.put("word", "I was ill on Monday.");
        assertEquals(200, of.first().post("/api/posts/" + id + "/hand-in", wish).status());
        JsonNode pile = of.moderator().get("/api/pile?most=50").body().get("items");
        assertEquals(
                "I was ill on Monday.",
                pile.get(pile.size() - 1).get("besides").get("word").asString());
        assertEquals(
                "I was ill on Monday.",
                paper(prompt).get("posts").get(0).get("word").asString());
        assertEquals(
                "I was ill on Monday.",
                of.first()
                        .get("/api/posts/" + id + "/draft")
                        .body()
                        .get("handInWord")
                        .asString());
        School.decide(of.lead(), pile.get(pile.size() - 1), "APPROVE", "");
        assertFalse(of.other().get("/api/posts/" + id).body().toString().contains("ill on Monday"));
    }
}

package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.vastporch.core.access.Role;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Person;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** What an assistant marks, where a class wants a teacher to take it over. */
@ServerTest
class TakingOverTest extends Assessing {

    private Person assistant;
    private long prompt;

    @BeforeEach
    void anAssistantHasMarkedAPaper() {
        assistant = school.helper(port, of.classId(), Role.ASSISTANT, "Tremaine");
        rule(true);
        prompt = set(open("Slugs", in(3)));
        handIn(prompt, "Slugs of the north side");
        assertEquals(200, gives(assistant, "c1", 4, "").status());
        assertEquals(200, gives(assistant, "c2", 3, "").status());
    }

    private void rule(boolean takeOver) {
        JsonNode found = of.lead().get("/api/classes/" + of.classId()).body();
        ObjectNode rules = (ObjectNode) found.get("rules");
        rules.put("takeOver", takeOver);
        Answer answer = of.lead()
                .put(
                        "/api/classes/" + of.classId() + "/rules",
                        Map.of("rules", rules, "version", found.get("version").asInt()));
        assertEquals(200, answer.status(), answer::text);
    }

    private Answer gives(Person marker, String criterion, int points, String reason) {
        Map<String, Object> body = new HashMap<>(Map.of("points", points, "remark", "", "reason", reason));
        body.put("seen", school.seen(marker, prompt, of.first().id));
        return marker.put(at(prompt) + "/criteria/" + criterion, body);
    }

    private Answer takeOver(Person who) {
        Map<String, Object> paper =
                Map.of("student", of.first().id, "seen", school.seen(of.lead(), prompt, of.first().id));
        return who.post("/api/prompts/" + prompt + "/marking/take-over", Map.of("papers", List.of(paper)));
    }

    private JsonNode inStrip(Person viewer) {
        for (JsonNode line :
                viewer.get("/api/prompts/" + prompt + "/marking").body().get("students"))
            if (line.get("studentId").asLong() == of.first().id) return line;
        return fail("not in the strip");
    }

    private String standing() {
        return paper(prompt).get("given").get("standing").asString();
    }

    @Test
    void itCountsOnceATeacherHasTakenItOver() {
        assertEquals("BEING_MARKED", standing());
        assertTrue(inStrip(of.lead()).get("toMark").asBoolean(), "it lies on a teacher's desk");
        assertFalse(inStrip(assistant).get("toMark").asBoolean(), "and is off the assistant's");
        assertEquals(403, takeOver(assistant).status());
        assertEquals(1, takeOver(of.lead()).body().get("takenOver").asInt());
        JsonNode given = paper(prompt).get("given");
        assertEquals("MARKED", given.get("standing").asString());
        assertTrue(given.get("assistant").asString().contains("Tremaine"), "kept as the assistant's");
        assertTrue(given.has("takenOverBy") && given.has("takenOverAt"), given::toString);
        assertEquals(0, takeOver(of.lead()).body().get("takenOver").asInt());
        release(prompt);
        assertEquals(1, feedback().size());
        assertFalse(feedback().toString().contains("Tremaine"), "who marked what is among the staff");
    }

    @Test
    void beforeThatItIsNotReleasedAndNotSeen() {
        Map<String, Object> paper =
                Map.of("student", of.first().id, "seen", school.seen(of.lead(), prompt, of.first().id));
        Answer answer = of.lead().post("/api/prompts/" + prompt + "/marking/release", Map.of("papers", List.of(paper)));
        assertEquals(0, answer.body().get("released").asInt());
        assertEquals(0, feedback().size());
    }

    @Test
    void aTeachersOwnStepTakesItOverAndAnAssistantsNextOneGivesItBack() {
        assertEquals(200, gives(of.lead(), "c1", 6, "").status());
        assertEquals("MARKED", standing());
        assertEquals(200, gives(assistant, "c2", 1, "").status());
        assertEquals("BEING_MARKED", standing());
    }

    @Test
    void whatAStudentHasSeenOnlyATeacherChanges() {
        takeOver(of.lead());
        release(prompt);
        assertEquals(
                "released-already", gives(assistant, "c1", 6, "A second look.").code());
        assertEquals(200, gives(of.lead(), "c1", 6, "A second look.").status());
        assertEquals("RELEASED", standing());
    }

    @Test
    void whatStandsOtherwiseThanItWasSeenIsNotTakenOver() {
        Map<String, Object> seen = school.seen(of.lead(), prompt, of.first().id);
        gives(assistant, "c1", 2, "");
        Answer answer = of.lead()
                .post(
                        "/api/prompts/" + prompt + "/marking/take-over",
                        Map.of("papers", List.of(Map.of("student", of.first().id, "seen", seen))));
        assertEquals(0, answer.body().get("takenOver").asInt());
        assertEquals(1, answer.body().get("changed").size());
        assertEquals("BEING_MARKED", standing());
    }

    @Test
    void whereTheClassDoesNotWantItAnAssistantsMarksCountAtOnce() {
        rule(false);
        assertEquals("MARKED", standing());
        rule(true);
        assertEquals("BEING_MARKED", standing(), "nothing is lost by switching it on and off");
    }
}

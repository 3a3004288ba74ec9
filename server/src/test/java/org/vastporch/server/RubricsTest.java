package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Made;
import org.vastporch.server.School.Person;
import tools.jackson.databind.JsonNode;

/** Rubrics apart from their prompts: in files, of other prompts, and kept by a name. */
@ServerTest
class RubricsTest extends Assessing {

    private static final Map<String, Object> VOICE = steps("Voice");

    private static Map<String, Object> steps(String name) {
        return Map.of(
                "criteria",
                List.of(Map.of(
                        "id",
                        "",
                        "name",
                        name,
                        "weight",
                        1,
                        "levels",
                        List.of(
                                Map.of("name", "low", "points", 0, "descriptor", ""),
                                Map.of("name", "high", "points", 2.5, "descriptor", "")),
                        "counted",
                        List.of())));
    }

    private Answer keep(Person who, String name) {
        return who.post("/api/rubrics", Map.of("name", name, "rubric", VOICE, "rev", 0));
    }

    private static JsonNode kept(Person who) {
        return who.get("/api/rubrics").body().get("kept");
    }

    @Test
    void aRubricIsTakenAlongReadBackAndFoundForTheNextPrompt() {
        long prompt = set(wanted("Log", in(2)));
        String at = "/api/classes/" + of.classId() + "/rubric-table";
        JsonNode rubric = of.lead()
                .get("/api/prompts/" + prompt + "/editable")
                .body()
                .get("prompt")
                .get("rubric");
        for (String form : List.of("csv", "json")) {
            String file =
                    of.lead().get("/api/prompts/" + prompt + "/rubric." + form).text();
            assertEquals(rubric, of.lead().post(at, Map.of("table", file)).body(), form);
            assertEquals(
                    403,
                    of.first().get("/api/prompts/" + prompt + "/rubric." + form).status());
        }
        assertEquals(
                "levels-order",
                of.lead()
                        .post(at, Map.of("table", "Criterion,Points\nVoice,2\nVoice,1\n"))
                        .code());
        assertEquals(
                "rubric-unreadable",
                of.lead().post(at, Map.of("table", "{\"criteria\": 7}")).code());
        JsonNode used = of.second().get("/api/rubrics").body().get("used");
        assertEquals("Log", used.get(0).get("prompt").asString());
        for (Person who : List.of(school.make(port).lead(), of.first(), of.guest()))
            assertEquals(0, who.get("/api/rubrics").body().get("used").size());
    }

    @Test
    void aTeacherKeepsOneByANameAndWhoTeachesWithThemTakesIt() {
        long id = keep(of.lead(), " Steps for logs ").body().get("id").asLong();
        assertEquals("Steps for logs", kept(of.lead()).get(0).get("name").asString());
        assertFalse(kept(of.lead()).get(0).has("by"));
        assertTrue(kept(of.second()).get(0).get("by").asString().contains("Ms"));
        Made elsewhere = school.make(port);
        for (Person who : List.of(elsewhere.lead(), of.first(), of.guest(), of.moderator()))
            assertEquals(0, kept(who).size());
        for (Person who : List.of(of.second(), elsewhere.lead(), of.first())) {
            assertEquals(
                    404,
                    who.put("/api/rubrics/" + id, Map.of("name", "Mine", "rubric", VOICE, "rev", 1))
                            .status());
            assertEquals(
                    404,
                    who.call("DELETE", "/api/rubrics/" + id + "?rev=1", null).status());
        }
        assertEquals(404, keep(of.first(), "A student's").status());
        assertEquals(404, keep(of.guest(), "A guest's").status());
    }

    @Test
    void twoWindowsDoNotWriteOverEachOther() {
        long id = keep(of.lead(), "Logs").body().get("id").asLong();
        Map<String, Object> renamed = Map.of("name", "Diaries", "rubric", steps("Sight"), "rev", 1);
        assertEquals(200, of.lead().put("/api/rubrics/" + id, renamed).status());
        Answer stale = of.lead().put("/api/rubrics/" + id, renamed);
        assertEquals("rubric-meanwhile", stale.code());
        assertEquals("Diaries", stale.body().get("rubric").get("name").asString());
        assertEquals(
                409,
                of.lead().call("DELETE", "/api/rubrics/" + id + "?rev=1", null).status());
        assertEquals(
                200,
                of.lead().call("DELETE", "/api/rubrics/" + id + "?rev=2", null).status());
        assertEquals(0, kept(of.lead()).size());
    }

    @Test
    void whatIsKeptHasANameAndStepsThatCanBe() {
        for (String name : List.of("", "   ", "x".repeat(81)))
            assertEquals("rubric-name", keep(of.lead(), name).code());
        assertEquals(
                "rubric-empty",
                of.lead()
                        .post("/api/rubrics", Map.of("name", "None", "rubric", Map.of("criteria", List.of()), "rev", 0))
                        .code());
    }

    /** What was taken from it stays as it was, whatever becomes of the one that is kept. */
    @Test
    void aPromptThatTookItKeepsWhatItHas() {
        long id = keep(of.lead(), "Logs").body().get("id").asLong();
        Map<String, Object> wanted = wanted("Log", in(2));
        wanted.put("rubric", VOICE);
        long prompt = set(wanted);
        of.lead().put("/api/rubrics/" + id, Map.of("name", "Logs", "rubric", steps("Sight"), "rev", 1));
        assertTrue(
                of.lead().get("/api/prompts/" + prompt + "/rubric.json").text().contains("Voice"));
    }
}

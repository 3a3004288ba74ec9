package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Person;
import tools.jackson.databind.JsonNode;

/** Marks that were given elsewhere, looked at row by row and taken. */
@ServerTest
class MarksTableTest extends Assessing {

    private JsonNode preview(long prompt, String table) {
        Answer answer = of.lead().post("/api/prompts/" + prompt + "/marks-table/preview", Map.of("text", table));
        assertEquals(200, answer.status(), answer::text);
        return answer.body();
    }

    /** The rows that can be taken, as the page sends them. */
    private static List<Map<String, Object>> wanted(JsonNode preview) {
        List<Map<String, Object>> rows = new ArrayList<>();
        for (JsonNode row : preview.get("rows")) {
            if (row.get("outcome").asString().equals("LEFT")) continue;
            Map<String, Object> wanted = new HashMap<>();
            wanted.put("student", row.get("student").asLong());
            wanted.put("seen", row.get("seen"));
            wanted.put("marks", row.get("marks"));
            if (row.has("word")) wanted.put("word", row.get("word").asString());
            rows.add(wanted);
        }
        return rows;
    }

    private Answer take(long prompt, List<Map<String, Object>> rows, String reason) {
        return of.lead().post("/api/prompts/" + prompt + "/marks-table", Map.of("rows", rows, "reason", reason));
    }

    private String username(Person student) {
        for (JsonNode member :
                of.lead().get("/api/classes/" + of.classId() + "/people").body())
            if (member.get("id").asLong() == student.id)
                return member.get("username").asString();
        return fail("not in the class");
    }

    private String table(String rest) {
        return "Username,Observation,Reflection,Comment on Reflection,Comment\n" + username(of.first()) + "," + rest;
    }

    @Test
    void aRowIsLookedAtThenTakenAndTakenAgainChangesNothing() {
        long prompt = set(open("Slugs", in(3)));
        handIn(prompt, "Slugs of the north side");
        String table = table("\"4,5\",3,Why so?,Well seen");
        JsonNode first = preview(prompt, table);
        assertEquals("NEW", first.get("rows").get(0).get("outcome").asString());
        assertEquals("", store(prompt), "looking changes nothing");
        assertEquals(1, take(prompt, wanted(first), "").body().get("taken").asInt());
        assertEquals("7.5", score(prompt), "9 × (2 · 4.5 ⁄ 6 + 3 ⁄ 3) ⁄ 3");
        JsonNode given = paper(prompt).get("given");
        assertEquals("Well seen", given.get("word").asString());
        assertTrue(given.get("marks").toString().contains("Why so?"), given::toString);
        assertEquals(
                "SAME", preview(prompt, table).get("rows").get(0).get("outcome").asString());
        Answer again = take(prompt, wanted(first), "");
        assertEquals(0, again.body().get("taken").asInt(), "it stands otherwise than it was seen");
        assertEquals(1, again.body().get("left").size());
        assertEquals("7.5", score(prompt));
    }

    private String store(long prompt) {
        return String.join(
                ",",
                jdbc.sql("select criterion_id from mark where prompt_id = :id")
                        .param("id", prompt)
                        .query(String.class)
                        .list());
    }

    @Test
    void whatWasTakenAlongComesBackAsItWas() {
        long prompt = set(open("Slugs", in(3)));
        handIn(prompt, "Slugs of the north side");
        mark(prompt, 4, 1);
        Answer out = of.lead().get("/api/prompts/" + prompt + "/marks.csv");
        String csv = new String(out.raw().body(), StandardCharsets.UTF_8);
        assertTrue(csv.contains("Observation (of 6)"), csv);
        for (JsonNode row : preview(prompt, csv).get("rows"))
            assertEquals("SAME", row.get("outcome").asString(), row::toString);
    }

    @Test
    void marksComeFromTheTableOfTheWholeClassToo() {
        long prompt = set(open("Slugs", in(3)));
        handIn(prompt, "Slugs of the north side");
        mark(prompt, 4, 1);
        String csv = new String(
                of.lead()
                        .get("/api/classes/" + of.classId() + "/score-sheet-by-criterion.csv")
                        .raw()
                        .body(),
                StandardCharsets.UTF_8);
        JsonNode row = preview(prompt, csv.replace(",4,6", ",5,6")).get("rows").get(0);
        assertEquals("CHANGES", row.get("outcome").asString(), row::toString);
    }

    @Test
    void aScoreThatItsStudentHasSeenChangesWithAReasonAlone() {
        long prompt = set(open("Slugs", in(3)));
        handIn(prompt, "Slugs of the north side");
        mark(prompt, 4, 3);
        release(prompt);
        JsonNode preview = preview(prompt, table("6,3,,"));
        assertTrue(preview.get("rows").get(0).get("needsReason").asBoolean());
        Answer without = take(prompt, wanted(preview), " ");
        assertEquals(0, without.body().get("taken").asInt());
        assertTrue(
                without.body().get("left").get(0).get("why").asString().contains("Say why it changes"), without::text);
        assertEquals("7.0", score(prompt));
        assertEquals(
                1,
                take(prompt, wanted(preview), "The moderation meeting.")
                        .body()
                        .get("taken")
                        .asInt());
        assertEquals("9.0", score(prompt));
        assertEquals(
                "The moderation meeting.",
                of.lead()
                        .get(at(prompt) + "/history")
                        .body()
                        .get(0)
                        .get("reason")
                        .asString());
    }

    /** One row that cannot be taken holds up no other, and of a row all is taken or nothing. */
    @Test
    void ofARowAllIsTakenOrNothing() {
        long prompt = set(open("Slugs", in(3)));
        handIn(prompt, "Slugs of the north side");
        JsonNode row = preview(prompt, table("4,3,,")).get("rows").get(0);
        Map<String, Object> odd =
                new HashMap<>(wanted(preview(prompt, table("4,3,,"))).get(0));
        odd.put(
                "marks",
                List.of(
                        Map.of("criterion", "c1", "points", 4, "notCounted", false),
                        Map.of("criterion", "c2", "points", 400, "notCounted", false)));
        Map<String, Object> elsewhere = new HashMap<>(odd);
        elsewhere.put("student", of.lead().id);
        Answer answer = take(prompt, List.of(odd, elsewhere), "");
        assertEquals(0, answer.body().get("taken").asInt());
        assertEquals(2, answer.body().get("left").size(), answer::text);
        assertEquals("", store(prompt));
        assertEquals("NEW", row.get("outcome").asString());
    }

    @Test
    void whoHandedInNothingOrWasLetOffHasNothingToMark() {
        long prompt = set(open("Slugs", in(3)));
        JsonNode row = preview(prompt, table("4,3,,")).get("rows").get(0);
        assertEquals("Nothing was handed in yet.", row.get("problem").asString());
        of.lead()
                .put("/api/prompts/" + prompt + "/allowances/" + of.first().id, Map.of("letOff", true, "again", false));
        row = preview(prompt, table("4,3,,")).get("rows").get(0);
        assertEquals("This student was let off.", row.get("problem").asString());
        assertEquals("LEFT", row.get("outcome").asString());
    }

    @Test
    void aTableThatIsNoneIsRefusedInWords() {
        long prompt = set(open("Slugs", in(3)));
        Answer answer = of.lead()
                .upload(
                        "/api/prompts/" + prompt + "/marks-table/preview-file",
                        "m.csv",
                        "%PDF-1.7".getBytes(StandardCharsets.UTF_8));
        assertEquals("table-other-file", answer.code());
        assertEquals(
                "marks-no-student",
                of.lead()
                        .post(
                                "/api/prompts/" + prompt + "/marks-table/preview",
                                Map.of("text", "Leaf,Observation\nx,3"))
                        .code());
    }
}

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

/** A colleague reads papers a second time; where the two lie too far apart, a teacher sets what counts. */
@ServerTest
class SecondReadingsTest extends Assessing {

    private Person reader;
    private long prompt;

    @BeforeEach
    void aPaperIsThere() {
        reader = school.helper(port, of.classId(), Role.ASSISTANT, "Tremaine");
        prompt = set(open("Slugs", in(3)));
        handIn(prompt, "Slugs of the north side");
    }

    private String readings() {
        return "/api/prompts/" + prompt + "/second-readings";
    }

    private String mine() {
        return readings() + "/" + of.first().id;
    }

    private int ask(boolean blind) {
        Answer answer = of.lead().post(readings(), Map.of("reader", reader.id, "which", "ALL", "blind", blind));
        assertEquals(200, answer.status(), answer::text);
        return answer.body().get("asked").asInt();
    }

    private Answer gives(String criterion, int points) {
        int rev = reader.get(mine()).body().at("/own/rev").asInt();
        return reader.put(
                mine() + "/criteria/" + criterion, Map.of("rev", rev, "points", points, "remark", "As I see it."));
    }

    private JsonNode line() {
        return of.lead().get(readings()).body().get("lines").get(0);
    }

    private Answer settle(boolean takesSecond, String reason) {
        Map<String, Object> body = new HashMap<>();
        body.put("seen", school.seen(of.lead(), prompt, of.first().id));
        body.put("rev", line().get("rev").asInt());
        body.put("takesSecond", takesSecond);
        body.put("reason", reason);
        return of.lead().put(mine() + "/by/" + reader.id + "/settled", body);
    }

    @Test
    void itIsAskedOnceAndTakenBackWhileNothingIsGiven() {
        assertEquals(1, ask(false));
        assertEquals(0, ask(false));
        assertTrue(reader.get("/api/news").text().contains("SECOND_ASKED"));
        assertFalse(of.first().get("/api/news").text().contains("SECOND_ASKED"));
        JsonNode today = reader.get("/api/classes/" + of.classId() + "/today").body();
        assertEquals(1, today.at("/readAgain/0/count").asInt(), today::toString);
        String classOf = "/api/classes/" + of.classId() + "/second-readings";
        assertEquals("Slugs", reader.get(classOf).body().get(0).get("title").asString());
        assertEquals(0, of.lead().get(classOf).body().size());
        assertEquals(
                200, of.lead().call("DELETE", mine() + "/by/" + reader.id, null).status());
        assertEquals(0, reader.get(classOf).body().size());
        ask(false);
        gives("c1", 4);
        assertEquals(
                409, of.lead().call("DELETE", mine() + "/by/" + reader.id, null).status());
        assertEquals(
                422,
                of.lead()
                        .post(readings(), Map.of("reader", of.first().id, "which", "ALL", "blind", false))
                        .status());
        assertEquals(
                422,
                of.lead()
                        .post(readings(), Map.of("reader", reader.id, "which", "EVERY", "every", 0, "blind", false))
                        .status());
    }

    @Test
    void whoReadsBlindSeesTheFirstMarksOnlyAfterwards() {
        ask(true);
        mark(prompt, 6, 0);
        assertFalse(reader.get(mine()).body().has("first"));
        assertEquals("read-blind", reader.get(at(prompt)).code());
        String scores = "/api/classes/" + of.classId() + "/score-sheet";
        String agreement = "/api/classes/" + of.classId() + "/agreement?first=lead&second=self";
        assertFalse(reader.get(scores).text().contains("\"points\":6"), () -> reader.get(scores)
                .text());
        assertTrue(
                of.lead().get(scores).text().contains("\"points\":6"),
                () -> of.lead().get(scores).text());
        assertEquals(0, reader.get(agreement).body().get("papers").asInt());
        assertEquals(1, of.lead().get(agreement).body().get("papers").asInt());
        assertEquals(200, gives("c1", 4).status());
        assertFalse(paper(prompt).get("seconds").iterator().hasNext(), "half of it is told to nobody");
        assertEquals(200, gives("c2", 3).status());
        assertEquals("6", reader.get(mine()).body().at("/first/marks/0/points").asString());
        assertEquals(200, reader.get(at(prompt)).status());
        assertEquals("done-blind", gives("c1", 6).code());
        assertEquals("9", paper(prompt).at("/given/score/outOf").asString());
        assertEquals("6", score(prompt).replace(".0", ""), "it counts nothing by itself");
    }

    @Test
    void whatLiesTooFarApartComesBackAndATeacherSettlesIt() {
        ask(false);
        mark(prompt, 6, 0);
        gives("c1", 6);
        gives("c2", 1);
        assertFalse(line().get("comesBack").asBoolean(), "one step is let pass");
        gives("c2", 3);
        assertTrue(line().get("comesBack").asBoolean(), line()::toString);
        assertTrue(paper(prompt).at("/seconds/0/comesBack").asBoolean());
        release(prompt);
        assertEquals(422, settle(true, " ").status());
        assertEquals(
                403,
                reader.put(
                                mine() + "/by/" + reader.id + "/settled",
                                Map.of(
                                        "seen",
                                        school.seen(of.lead(), prompt, of.first().id),
                                        "rev",
                                        0,
                                        "takesSecond",
                                        true,
                                        "reason",
                                        "Mine."))
                        .status());
        assertEquals(200, settle(true, "The last line does look back.").status());
        assertEquals("9", score(prompt).replace(".0", ""));
        assertEquals(
                "The last line does look back.",
                feedback().get(0).at("/changed/reason").asString());
        assertFalse(line().get("comesBack").asBoolean());
        assertTrue(line().at("/settled/takesSecond").asBoolean());
        assertEquals(3, line().at("/apart/1/steps").asInt(), "held against the first marks as they were");
        assertEquals("settled", settle(false, "No.").code());
        assertEquals("settled", gives("c1", 0).code());
    }

    @Test
    void theFirstMarksMayStand() {
        ask(false);
        mark(prompt, 6, 0);
        gives("c1", 0);
        gives("c2", 3);
        assertEquals(200, settle(false, "We talked it over.").status());
        assertEquals("6", score(prompt).replace(".0", ""));
        assertFalse(line().at("/settled/takesSecond").asBoolean());
    }

    @Test
    void aStaleViewSettlesNothing() {
        ask(false);
        mark(prompt, 6, 0);
        gives("c1", 0);
        gives("c2", 3);
        Map<String, Object> seen = school.seen(of.lead(), prompt, of.first().id);
        mark(prompt, 4, 0);
        Answer answer = of.lead()
                .put(
                        mine() + "/by/" + reader.id + "/settled",
                        Map.of("seen", seen, "rev", line().get("rev").asInt(), "takesSecond", true, "reason", "So."));
        assertEquals("marked-meanwhile", answer.code());
        assertFalse(line().has("settled"));
    }

    @Test
    void aSecondReadingThatChangedSinceIsNotSettledUnseen() {
        ask(false);
        mark(prompt, 6, 0);
        gives("c1", 0);
        gives("c2", 3);
        int rev = line().get("rev").asInt();
        gives("c1", 6);
        Map<String, Object> body = Map.of(
                "seen",
                school.seen(of.lead(), prompt, of.first().id),
                "rev",
                rev,
                "takesSecond",
                true,
                "reason",
                "So.");
        assertEquals(
                "reading-changed",
                of.lead().put(mine() + "/by/" + reader.id + "/settled", body).code());
        assertFalse(line().has("settled"));
        assertEquals("6", score(prompt).replace(".0", ""));
    }

    @Test
    void agreementIsOfTheFirstMarksAsTheyWere() {
        ask(false);
        mark(prompt, 6, 0);
        gives("c1", 6);
        gives("c2", 3);
        settle(true, "It looks back.");
        String at = "/api/classes/" + of.classId() + "/agreement";
        JsonNode view = of.lead().get(at).body();
        assertEquals(1, view.get("both").asInt());
        JsonNode reflection = view.get("criteria").get(1);
        assertFalse(reflection.has("verdict"), "one paper says nothing");
        assertEquals(0, reflection.at("/grid/0/first").asInt());
        assertEquals(3, reflection.at("/grid/0/second").asInt());
        assertEquals("Reflection", view.at("/widest/0/criterion").asString());
        assertEquals(2, view.get("severity").size());
        JsonNode turned =
                of.lead().get(at + "?first=second&second=p" + of.lead().id).body();
        assertEquals(3, turned.at("/criteria/1/grid/0/first").asInt());
        assertEquals(
                0,
                of.lead()
                        .get(at + "?first=lead&second=p" + of.lead().id)
                        .body()
                        .get("both")
                        .asInt());
        assertEquals(422, of.lead().get(at + "?first=nobody").status());
        assertEquals(404, of.lead().get(at + "?prompt=999999").status());
        assertTrue(of.lead().get(at + ".csv").text().contains("Observation,1"));
        assertEquals(403, of.first().get(at).status());
    }

    @Test
    void aPaperOfOnesOwnMarkingIsNotAskedFor() {
        mark(prompt, 6, 0);
        Answer answer = of.lead().post(readings(), Map.of("reader", of.lead().id, "which", "ALL", "blind", false));
        assertEquals(0, answer.body().get("asked").asInt());
        assertEquals(
                List.of(),
                of.lead().get(readings()).body().get("lines").valueStream().toList());
    }
}

package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.vastporch.server.School.Answer;
import tools.jackson.databind.JsonNode;

/** How students see papers of their own, by the steps by which these are marked. */
@ServerTest
class OwnViewTest extends Assessing {

    private long asking(String self, int share) {
        Map<String, Object> wanted = open("Slugs", in(3));
        wanted.put("reviews", Map.of("self", self, "selfShare", share));
        return set(wanted);
    }

    private JsonNode view(long prompt) {
        return of.first().get("/api/prompts/" + prompt + "/own-view").body();
    }

    private Answer say(long prompt, String criterion, Object points, String remark) {
        Map<String, Object> body = new HashMap<>();
        body.put("rev", view(prompt).get("own").get("rev").asInt());
        body.put("points", points);
        body.put("remark", remark);
        return of.first().put("/api/prompts/" + prompt + "/own-view/criteria/" + criterion, body);
    }

    private void say(long prompt, int observation, int reflection) {
        assertEquals(200, say(prompt, "c1", observation, "I counted.").status());
        assertEquals(200, say(prompt, "c2", reflection, "").status());
    }

    private JsonNode toSay() {
        return of.first()
                .get("/api/classes/" + of.classId() + "/feedback")
                .body()
                .get("toSay");
    }

    @Test
    void itStandsBesideTheMarksForBoth() {
        long prompt = asking("ASKED", 0);
        assertEquals("NOTHING_HANDED_IN", view(prompt).get("can").asString());
        assertEquals(409, say(prompt, "c1", 2, "").status());
        handIn(prompt, "Slugs of the north side");
        assertEquals(1, toSay().size());
        assertEquals(200, say(prompt, "c1", 2, "I counted.").status());
        assertFalse(paper(prompt).has("own"), "a teacher reads it once it is finished");
        assertEquals(200, say(prompt, "c2", 3, "").status());
        assertEquals(0, toSay().size());
        assertEquals("I counted.", paper(prompt).at("/own/marks/0/remark").asString());
        mark(prompt, 4, 1);
        JsonNode apart = paper(prompt).at("/given/apart");
        assertEquals(-1, apart.get(0).get("steps").asInt());
        release(prompt);
        JsonNode shown = feedback().get(0);
        assertEquals(apart, shown.get("apart"));
        assertEquals("2", shown.at("/own/marks/0/points").asString());
        assertEquals("5", score(prompt).replace(".0", ""));
        Answer after = say(prompt, "c1", 4, "");
        assertEquals(409, after.status());
        assertEquals("2", view(prompt).at("/own/marks/0/points").asString());
    }

    /** It stands among what is asked for before the hand-in, and keeps nobody from it. */
    @Test
    void itIsAskedForBeforeTheHandIn() {
        long prompt = asking("BEFORE", 0);
        School.Saved draft = School.save(
                of.first(), of.blogOfFirst(), Map.of("promptId", prompt), Map.of("title", "Slugs of the north side"));
        assertTrue(view(prompt).get("before").asBoolean());
        assertFalse(ownNeed(draft.id()).get("met").asBoolean());
        say(prompt, 4, 2);
        assertTrue(ownNeed(draft.id()).get("met").asBoolean());
        assertEquals(0, toSay().size());
        of.first().post("/api/posts/" + draft.id() + "/hand-in", Map.of("rev", draft.rev()));
        assertFalse(view(prompt).get("before").asBoolean());
        assertEquals("I counted.", paper(prompt).at("/own/marks/0/remark").asString());
    }

    private JsonNode ownNeed(long post) {
        for (JsonNode need : of.first()
                .get("/api/posts/" + post + "/draft")
                .body()
                .get("beside")
                .get("needs")) if (need.get("need").asString().equals("OWN_VIEW")) return need;
        throw new AssertionError("It is not asked for");
    }

    @Test
    void marksThatWaitForItShowWithTheLastStair() {
        long prompt = asking("FIRST", 0);
        long post = handIn(prompt, "Slugs of the north side");
        mark(prompt, 4, 1);
        release(prompt);
        assertEquals(0, feedback().size());
        assertTrue(toSay().get(0).get("marksWait").asBoolean());
        String news = of.first().get("/api/news").text();
        assertFalse(news.contains("SCORE"), news);
        assertEquals(
                404,
                of.first().get("/api/prompts/" + prompt + "/feedback/" + post).status());
        say(prompt, 6, 3);
        assertEquals(1, feedback().size());
        assertTrue(of.first().get("/api/news").text().contains("SCORE"));
        assertEquals(409, say(prompt, "c1", 4, "").status());
    }

    @Test
    void theRuleTakenBackShowsThem() {
        long prompt = asking("FIRST", 0);
        handIn(prompt, "Slugs of the north side");
        mark(prompt, 4, 1);
        release(prompt);
        assertEquals(0, feedback().size());
        Map<String, Object> wanted = open("Slugs", in(3));
        assertEquals(200, change(prompt, wanted, "").status());
        assertEquals(1, feedback().size());
        assertEquals(404, of.first().get("/api/prompts/" + prompt + "/own-view").status());
    }

    @Test
    void whatWasShownIsNotHiddenByARuleThatComesLater() {
        long prompt = asking("ASKED", 0);
        handIn(prompt, "Slugs of the north side");
        mark(prompt, 4, 1);
        release(prompt);
        Map<String, Object> wanted = open("Slugs", in(3));
        wanted.put("reviews", Map.of("self", "FIRST", "selfShare", 0));
        assertEquals(200, change(prompt, wanted, "").status());
        assertEquals(1, feedback().size());
        assertEquals("MARKS_SHOWN", view(prompt).get("can").asString());
    }

    @Test
    void itCountsAsMuchAsThePromptSays() {
        long prompt = asking("ASKED", 50);
        handIn(prompt, "Slugs of the north side");
        mark(prompt, 6, 3);
        assertEquals("9", score(prompt).replace(".0", ""));
        assertEquals(200, say(prompt, "c1", 0, "").status());
        assertEquals("9", score(prompt).replace(".0", ""), "half of it is no own view yet");
        assertEquals(200, say(prompt, "c2", 0, "").status());
        assertEquals("4.5", score(prompt));
        release(prompt);
        // A share that changes after that changes a score that was seen.
        Map<String, Object> wanted = open("Slugs", in(3));
        wanted.put("reviews", Map.of("self", "ASKED", "selfShare", 0));
        assertEquals(422, change(prompt, wanted, "").status());
        assertEquals(200, change(prompt, wanted, "It counts for nothing now.").status());
        assertEquals("9", score(prompt).replace(".0", ""));
    }

    @Test
    void aScoreThatWaitedForAShareSaysSoInItsHistory() {
        long prompt = asking("FIRST", 50);
        handIn(prompt, "Slugs of the north side");
        mark(prompt, 6, 3);
        release(prompt);
        say(prompt, 0, 0);
        JsonNode last = of.lead().get(at(prompt) + "/history").body().get(0);
        assertEquals("CHANGED", last.get("kind").asString());
        assertEquals("9", last.get("before").asString().replace(".0", ""));
        assertEquals("4.5", last.get("after").asString());
        assertEquals(
                "Your own view came in; it is 50 % of the score.",
                feedback().get(0).at("/changed/reason").asString());
    }

    @Test
    void twoTabsDoNotWriteOverEachOther() {
        long prompt = asking("ASKED", 0);
        handIn(prompt, "Slugs of the north side");
        String at = "/api/prompts/" + prompt + "/own-view/criteria/c1";
        assertEquals(
                200,
                of.first().put(at, Map.of("rev", 0, "points", 2, "remark", "")).status());
        Answer stale = of.first().put(at, Map.of("rev", 0, "points", 4, "remark", ""));
        assertEquals(409, stale.status());
        assertEquals("2", stale.body().at("/own/marks/0/points").asString());
        assertEquals(
                422,
                of.first().put(at, Map.of("rev", 1, "points", 7, "remark", "")).status());
        assertEquals(
                422,
                of.first()
                        .put(at, Map.of("rev", 1, "points", 2, "remark", "x".repeat(4_001)))
                        .status());
    }

    @Test
    void nobodyElseSaysOrReadsIt() {
        long prompt = asking("ASKED", 0);
        handIn(prompt, "Slugs of the north side");
        say(prompt, 6, 3);
        String at = "/api/prompts/" + prompt + "/own-view";
        assertEquals(404, of.lead().get(at).status());
        JsonNode others = of.other().get(at).body();
        assertEquals(List.of(), others.get("posts").valueStream().toList());
        assertEquals(0, others.at("/own/rev").asInt());
        assertEquals(
                409,
                of.other()
                        .put(at + "/criteria/c1", Map.of("rev", 0, "points", 6, "remark", ""))
                        .status());
        long notAsked = set(open("Leaves", in(3)));
        assertEquals(
                404, of.first().get("/api/prompts/" + notAsked + "/own-view").status());
    }
}

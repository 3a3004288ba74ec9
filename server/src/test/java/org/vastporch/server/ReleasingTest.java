package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Instant;
import java.time.ZoneOffset;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Person;
import org.vastporch.server.marking.PlannedReleases;
import tools.jackson.databind.JsonNode;

/** Marks that are shown at a time that was said before, and papers that are handed in again with leave. */
@ServerTest
class ReleasingTest extends Assessing {

    @Autowired
    PlannedReleases planned;

    private long prompt;
    private long post;

    @BeforeEach
    void markOne() {
        prompt = set(open("Log", in(2)));
        post = handIn(prompt, "Slugs");
        mark(prompt, 6, 3);
    }

    private String time() {
        return "/api/prompts/" + prompt + "/marking/release-time";
    }

    private Answer plan(Person who, Object at, int rev) {
        Map<String, Object> wanted = new HashMap<>(Map.of("rev", rev));
        if (at != null) wanted.put("at", at.toString());
        return who.put(time(), wanted);
    }

    private void comeTheTime() {
        jdbc.sql("update planned_release set release_at = :at")
                .param("at", Instant.now().minusSeconds(1).atOffset(ZoneOffset.UTC))
                .update();
        planned.releaseWhatIsDue();
    }

    @Test
    void whatIsFinishedBySomeTimeIsShownThen() {
        long half = set(open("Half", in(3)));
        handIn(half, "Snails");
        give(half, "c1", Map.of("points", 4));
        String later = "/api/prompts/" + half + "/marking/release-time";
        assertEquals(
                200,
                of.lead().put(later, Map.of("at", in(1).toString(), "rev", 0)).status());
        assertEquals(200, plan(of.lead(), in(1), 0).status());
        planned.releaseWhatIsDue();
        assertEquals(0, feedback().size(), "not before its time");
        comeTheTime();
        assertEquals("9.0", feedback().get(0).get("score").get("points").asString());
        assertEquals(
                "BEING_MARKED",
                paper(half).get("given").get("standing").asString(),
                "not what is not finished by then");
        assertFalse(of.lead().get(time()).body().has("at"), "it is done once");
        JsonNode history = of.lead().get(at(prompt) + "/history").body();
        assertEquals("RELEASED", history.get(0).get("kind").asString());
    }

    @Test
    void aPlanIsChangedByWhoSawItAndOnlyByThoseWhoRelease() {
        assertEquals("time-over", plan(of.lead(), in(-1), 0).code());
        assertEquals("time-too-far", plan(of.lead(), in(400), 0).code());
        int rev = plan(of.lead(), in(1), 0).body().get("rev").asInt();
        Answer stale = plan(of.lead(), in(3), 0);
        assertEquals("planned-meanwhile", stale.code());
        assertEquals(rev, stale.body().get("planned").get("rev").asInt());
        for (Person no : List.of(of.first(), of.guest(), of.moderator())) {
            assertTrue(no.get(time()).status() >= 403);
            assertTrue(plan(no, null, rev).status() >= 403);
        }
        assertEquals(200, plan(of.lead(), null, rev).status());
        comeTheTime();
        assertEquals(0, feedback().size());
    }

    @Test
    void whoMayNotReleaseAnyMoreReleasesNothing() {
        plan(of.lead(), in(1), 0);
        jdbc.sql("update planned_release set by_id = :by where prompt_id = :id")
                .param("by", of.other().id)
                .param("id", prompt)
                .update();
        comeTheTime();
        assertEquals(0, feedback().size());
        assertFalse(of.lead().get(time()).body().has("at"));
    }

    @Test
    void aRubricMayComeOnlyWithTheMarks() {
        Map<String, Object> wanted = open("Unseen", in(3));
        wanted.put("rubricHidden", true);
        long unseen = set(wanted);
        String at = "/api/prompts/" + unseen;
        assertFalse(of.first().get(at).body().has("rubric"));
        assertFalse(of.guest().get(at).body().has("rubric"));
        assertTrue(of.lead().get(at).body().has("rubric"));
        assertTrue(of.lead()
                .get(at + "/editable")
                .body()
                .get("prompt")
                .get("rubricHidden")
                .asBoolean());
        handIn(unseen, "Snails");
        mark(unseen, 4, 2);
        release(unseen);
        assertFalse(of.first().get(at).body().has("rubric"));
        assertEquals(2, feedback().get(0).get("rubric").get("criteria").size());
    }

    @Test
    void whoIsAllowedToHandsInAgainAndIsNotLateByIt() {
        release(prompt);
        letDueGoBy(prompt);
        handInAgain(post, "Slugs by night");
        assertEquals("Slugs", paper(prompt).get("posts").get(0).get("title").asString());
        assertFalse(feedback().get(0).get("again").asBoolean());
        Map<String, Object> again = Map.of("letOff", false, "again", true);
        String allowance = "/api/prompts/" + prompt + "/allowances/" + of.first().id;
        assertEquals(403, of.first().put(allowance, again).status());
        assertEquals(200, of.lead().put(allowance, again).status());
        JsonNode paper = paper(prompt);
        assertEquals("Slugs by night", paper.get("posts").get(0).get("title").asString());
        assertEquals(0, paper.get("daysLate").asInt());
        assertTrue(paper.get("given").get("changed").asBoolean());
        assertEquals("9.0", score(prompt), "the mark stays with what was read");
        assertTrue(feedback().get(0).get("again").asBoolean());
        JsonNode news = of.first().get("/api/news").body().get("items");
        assertTrue(news.valueStream().anyMatch(n -> n.get("kind").asString().equals("AGAIN")));
        assertEquals(
                200,
                of.lead()
                        .put(allowance, Map.of("letOff", false, "again", false))
                        .status());
        assertEquals("Slugs", paper(prompt).get("posts").get(0).get("title").asString());
    }
}

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

/**
 * Reviewers judge papers that a teacher has marked, and see how near they come, before they read classmates' papers.
 */
@ServerTest
class WarmUpTest extends Assessing {

    private long prompt;

    @BeforeEach
    void twoReadEachOther() {
        Map<String, Object> wanted = open("Slugs", in(3));
        wanted.put("reviews", Map.of("self", "NOT_ASKED", "selfShare", 0, "peers", new HashMap<>(peers(1))));
        prompt = set(wanted);
        for (Person student : List.of(of.first(), of.other()))
            school.published(
                    of,
                    student,
                    school.homeOf(of.classId(), student),
                    Map.of("promptId", prompt),
                    "Slugs of " + student.id);
        Answer given = of.lead()
                .post(
                        "/api/prompts/" + prompt + "/peer-round",
                        Map.of(
                                "reviews",
                                List.of(
                                        Map.of("reviewer", of.first().id, "author", of.other().id),
                                        Map.of("reviewer", of.other().id, "author", of.first().id))));
        assertEquals(200, given.status(), given::text);
    }

    private JsonNode papers() {
        return of.lead().get("/api/prompts/" + prompt + "/warm-ups").body().get("papers");
    }

    private Answer write(String title, String html) {
        return of.lead().post("/api/prompts/" + prompt + "/warm-ups", Map.of("rev", 0, "title", title, "html", html));
    }

    /** A paper with the teacher's step, and a word that explains it. */
    private String ready(String title) {
        Answer added = write(title, "<p>" + title + " eat at night.</p><script>alert(1)</script>");
        assertEquals(200, added.status(), added::text);
        JsonNode all = added.body().get("papers");
        String paper = "/api/warm-ups/" + all.get(all.size() - 1).get("id").asLong();
        Answer given = of.lead()
                .put(paper + "/given/criteria/c1", Map.of("rev", 0, "points", 6, "remark", "It names the hour."));
        assertEquals(200, given.status(), given::text);
        of.lead().put(paper + "/given/word", Map.of("rev", 1, "word", "Look for what was seen."));
        return paper;
    }

    private String review(Person student) {
        return "/api/peer-reviews/"
                + student.get("/api/classes/" + of.classId() + "/peer-reviews")
                        .body()
                        .at("/0/id")
                        .asLong();
    }

    private static Answer step(Person student, String paper, int points) {
        return student.put(paper + "/criteria/c1", Map.of("rev", rev(student, paper), "points", points));
    }

    private static int rev(Person student, String paper) {
        return student.get(paper).body().at("/own/rev").asInt();
    }

    private static Answer done(Person student, String paper) {
        return student.post(paper + "/done", Map.of("rev", rev(student, paper)));
    }

    @Test
    void classmatesPapersComeLaterAndTheTeachersStepsAfterTheOwnOnes() {
        String one = ready("Slugs");
        String two = ready("Snails");
        Person wren = of.first();
        JsonNode closed = wren.get(review(wren)).body();
        assertEquals("WARM_UP_FIRST", closed.get("can").asString());
        assertEquals(0, closed.get("posts").size(), "the classmate's paper is not there yet");
        assertEquals(2, closed.at("/warmUp/of").asInt());
        assertTrue(one.endsWith("/" + closed.at("/warmUp/at").asLong()));
        Answer early = wren.put(review(wren) + "/criteria/c1", Map.of("rev", 0, "points", 6, "remark", "Too soon."));
        assertEquals("warm-up-first", early.code());
        String before = wren.get(one).text();
        assertFalse(before.contains("names the hour") || before.contains("Look for"), before);
        assertFalse(before.contains("<script"), before);
        assertEquals("steps-missing", done(wren, one).code());
        assertEquals(200, step(wren, one, 2).status());
        assertFalse(wren.get(one).text().contains("names the hour"), "a step alone shows nothing");
        JsonNode shown = done(wren, one).body();
        assertEquals("It names the hour.", shown.at("/teacher/marks/0/remark").asString());
        assertEquals("Look for what was seen.", shown.at("/teacher/word").asString());
        assertTrue(shown.at("/apart/0/steps").asInt() < 0, "seen lower than the teacher did");
        assertEquals("warm-up-done", step(wren, one, 6).code());
        assertEquals("WARM_UP_FIRST", wren.get(review(wren)).body().get("can").asString());
        step(wren, two, 6);
        assertEquals(0, done(wren, two).body().at("/apart/0/steps").asInt());
        JsonNode open = wren.get(review(wren)).body();
        assertEquals("ALLOWED", open.get("can").asString());
        assertEquals(1, open.get("posts").size());
        assertEquals(1, papers().get(0).get("tried").asInt());
        assertEquals(1, papers().get(0).at("/near/0/lower").asInt());
        assertEquals(1, papers().get(1).at("/near/0/same").asInt());
    }

    @Test
    void whatWasBegunBeforeGoesOnAndAPaperWithoutStepsHoldsNobodyUp() {
        write("Not marked", "<p>Nobody gets it.</p>");
        Person wren = of.first();
        String review = review(wren);
        assertEquals("ALLOWED", wren.get(review).body().get("can").asString());
        String unready = "/api/warm-ups/" + papers().get(0).get("id").asLong();
        assertEquals(404, wren.get(unready).status());
        assertEquals(
                200,
                wren.put(review + "/criteria/c1", Map.of("rev", 0, "points", 6, "remark", "Slugs!"))
                        .status());
        ready("Slugs");
        assertEquals("ALLOWED", wren.get(review).body().get("can").asString());
        assertEquals(
                "WARM_UP_FIRST",
                of.other().get(review(of.other())).body().get("can").asString());
    }

    @Test
    void aTextThatSomebodyJudgedStaysAndTwoTabsDoNotWriteOverEachOther() {
        String paper = ready("Slugs");
        Map<String, Object> text = Map.of("rev", 2, "title", "Slugs again", "html", "<p>They sleep by day.</p>");
        assertEquals(200, of.lead().put(paper + "/text", text).status());
        assertEquals("warm-up-changed", of.lead().put(paper + "/text", text).code());
        assertEquals(
                "warm-up-changed",
                of.second()
                        .put(paper + "/given/word", Map.of("rev", 2, "word", "Late."))
                        .code());
        Person wren = of.first();
        step(wren, paper, 2);
        assertEquals(
                "warm-up-changed",
                wren.put(paper + "/criteria/c1", Map.of("rev", 0, "points", 6)).code());
        assertEquals(
                "judged-already",
                of.lead()
                        .put(paper + "/text", Map.of("rev", 3, "title", "Another", "html", "<p>Text.</p>"))
                        .code());
        assertEquals(200, of.lead().call("DELETE", paper, null).status());
        assertEquals(404, wren.get(paper).status());
        assertEquals("ALLOWED", wren.get(review(wren)).body().get("can").asString());
    }

    @Test
    void badPapersAreRefusedAndOnlyReviewersOfTheRoundGetGoodOnes() {
        assertEquals("title-missing", write(" ", "<p>Text.</p>").code());
        assertEquals("text-missing", write("Slugs", "<p> </p>").code());
        assertEquals("text-too-long", write("Slugs", "a".repeat(200_001)).code());
        String paper = ready("Slugs");
        assertEquals(404, of.lead().get(paper).status(), "a teacher is nobody who warms up");
        Person late = school.student(port, of.classId(), "Tamsin");
        assertEquals(404, late.get(paper).status(), "nor is who reviews nothing");
        assertEquals("points-range", step(of.first(), paper, 999).code());
        for (int i = 1; i < 5; i++)
            assertEquals(200, write("Paper " + i, "<p>Text.</p>").status());
        assertEquals("too-many", write("One more", "<p>Text.</p>").code());
    }
}

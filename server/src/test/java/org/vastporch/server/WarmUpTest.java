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

    private Answer ask(long post) {
        return of.lead().post("/api/prompts/" + prompt + "/warm-ups/asked", Map.of("postId", post));
    }

    private static long question(Person author) {
        return author.get("/api/examples").body().at("/0/id").asLong();
    }

    private static Answer leave(Person author, boolean given) {
        return author.put("/api/examples/" + question(author) + "/leave", Map.of("given", given, "named", true));
    }

    private long post(Person author) {
        long post = school.published(of, author, school.homeOf(of.classId(), author), Map.of(), "Snails");
        jdbc.sql("update post_version set html = '<p>Snails carry rooms.</p>' where post_id = :post")
                .param("post", post)
                .update();
        return post;
    }

    private String asked(Person author) {
        Answer asked = ask(post(author));
        assertEquals(200, asked.status(), asked::text);
        return "/api/warm-ups/" + asked.body().at("/papers/0/id").asLong();
    }

    private void give(String paper) {
        int rev = papers().get(0).get("rev").asInt();
        Answer given = of.lead()
                .put(paper + "/given/criteria/c1", Map.of("rev", rev, "points", 6, "remark", "It names the room."));
        assertEquals(200, given.status(), given::text);
    }

    @Test
    void aPostIsAPaperOnceItsAuthorGivesItAndAsLongAsTheyDo() {
        Person author = school.student(port, of.classId(), "Tamsin");
        String paper = asked(author);
        JsonNode waiting = papers().get(0);
        assertEquals("Snails", waiting.get("title").asString());
        assertFalse(waiting.at("/asked").has("given"));
        assertEquals("", waiting.get("html").asString(), "not theirs to use yet");
        Person assistant = school.helper(port, of.classId(), Role.ASSISTANT, "Tremaine");
        assertEquals(
                0,
                assistant
                        .get("/api/prompts/" + prompt + "/warm-ups")
                        .body()
                        .get("papers")
                        .size(),
                "what is asked of somebody is between two");
        assertEquals(
                "no-text",
                of.lead()
                        .put(paper + "/given/criteria/c1", Map.of("rev", 0, "points", 6, "remark", ""))
                        .code());
        Person wren = of.first();
        assertEquals(404, wren.get(paper).status());
        assertEquals("ALLOWED", wren.get(review(wren)).body().get("can").asString());

        JsonNode question = author.get("/api/examples").body().get(0);
        assertEquals("WARM_UP", question.get("use").asString());
        assertEquals(200, leave(author, true).status());
        assertEquals(404, wren.get(paper).status(), "nobody has marked it");
        give(paper);
        JsonNode page = wren.get(paper).body();
        assertTrue(page.at("/posts/0/html").asString().contains("Snails carry rooms."), page::toString);
        assertFalse(page.toString().contains("Tamsin"), "never with a name");
        assertEquals(
                0,
                wren.get("/api/prompts/" + prompt + "/examples")
                        .body()
                        .get("shown")
                        .size(),
                "it is no example");
        assertEquals(
                1,
                assistant
                        .get("/api/prompts/" + prompt + "/warm-ups")
                        .body()
                        .get("papers")
                        .size());
        step(wren, paper, 6);
        assertEquals(200, done(wren, paper).status());

        assertEquals(200, leave(author, false).status());
        assertEquals(404, wren.get(paper).status());
        assertEquals("", papers().get(0).get("html").asString());
        assertEquals(
                0,
                jdbc.sql("select count(*) from example_post where html <> '' and prompt_id = :prompt")
                        .param("prompt", prompt)
                        .query(Integer.class)
                        .single(),
                "nothing is kept of a text that was taken back");
        assertEquals("answered-already", leave(author, true).code());
    }

    @Test
    void whoIsAskedAgainGivesTheTextAsItIsThenAndItIsMarkedAnew() {
        Person author = school.student(port, of.classId(), "Tamsin");
        long post = post(author);
        String paper = "/api/warm-ups/" + ask(post).body().at("/papers/0/id").asLong();
        leave(author, true);
        give(paper);
        step(of.first(), paper, 2);
        assertEquals(200, ask(post).status());
        assertEquals(1, papers().size(), "asking for what is given changes nothing");
        assertTrue(papers().get(0).get("ready").asBoolean());
        leave(author, false);
        assertEquals(200, ask(post).status());
        assertEquals(200, leave(author, true).status());
        assertEquals(1, papers().size());
        assertFalse(papers().get(0).get("ready").asBoolean(), "the steps were for another text");
        give(paper);
        assertEquals(0, rev(of.first(), paper), "and so were those of reviewers");
        int rev = papers().get(0).get("rev").asInt();
        assertEquals(
                "text-of-its-author",
                of.lead()
                        .put(paper + "/text", Map.of("rev", rev, "title", "Mine", "html", "<p>Mine.</p>"))
                        .code());
        assertEquals(200, of.lead().call("DELETE", paper, null).status());
        assertEquals(0, author.get("/api/examples").body().size());
    }

    @Test
    void nobodyWarmsUpOnTheOwnTextNorOnAnAnswerToThePrompt() {
        String paper = asked(of.other());
        leave(of.other(), true);
        give(paper);
        assertEquals(
                "ALLOWED", of.other().get(review(of.other())).body().get("can").asString());
        assertEquals(404, of.other().get(paper).status());
        assertEquals(
                "WARM_UP_FIRST",
                of.first().get(review(of.first())).body().get("can").asString());
        long answer = jdbc.sql("select min(id) from post where prompt_id = :prompt")
                .param("prompt", prompt)
                .query(Long.class)
                .single();
        assertEquals("answers-this-prompt", ask(answer).code());
        assertEquals(1, papers().size());
        assertEquals(
                1,
                jdbc.sql("select count(*) from example_post where prompt_id = :prompt")
                        .param("prompt", prompt)
                        .query(Integer.class)
                        .single(),
                "its author was not asked");
        long example = post(of.first());
        of.lead().post("/api/prompts/" + prompt + "/examples", Map.of("postId", example));
        assertEquals("asked-otherwise", ask(example).code());
        assertEquals(404, ask(1_000_000).status());
    }

    @Test
    void aPostThatComesDownIsNoPaperUntilItIsUpAgainAndGoesWithItsAuthor() {
        Person author = school.student(port, of.classId(), "Tamsin");
        String paper = asked(author);
        leave(author, true);
        give(paper);
        assertEquals(200, of.first().get(paper).status());
        jdbc.sql("update post set state = 'HIDDEN' where author_id = :author")
                .param("author", author.id)
                .update();
        assertEquals(404, of.first().get(paper).status());
        assertEquals(
                "ALLOWED", of.first().get(review(of.first())).body().get("can").asString());
        jdbc.sql("update post set state = 'PUBLISHED' where author_id = :author")
                .param("author", author.id)
                .update();
        assertEquals(200, of.first().get(paper).status());
        String name = jdbc.sql("select username from person where id = :id")
                .param("id", author.id)
                .query(String.class)
                .single();
        Answer erased = of.lead().post("/api/people/" + author.id + "/erasure", Map.of("typed", name));
        assertEquals(200, erased.status(), erased::text);
        assertEquals(0, papers().size());
    }
}

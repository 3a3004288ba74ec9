package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Made;
import org.vastporch.server.School.Person;
import tools.jackson.databind.JsonNode;

/** Posts that stand as examples with a prompt, by their authors' leave. */
@ServerTest
class ExamplePostsTest extends Assessing {

    private long prompt;
    private long post;

    @BeforeEach
    void setPrompt() {
        prompt = set(open("Week 9 log", in(2)));
        post = school.published(of, of.first(), of.blogOfFirst(), Map.of(), "Slugs");
    }

    private Answer ask(Person who, long prompt, long post) {
        return who.post("/api/prompts/" + prompt + "/examples", Map.of("postId", post));
    }

    private long asked() {
        return ask(of.lead(), prompt, post).body().get("id").asLong();
    }

    private Answer answer(Person who, long example, boolean given, boolean named) {
        return who.put("/api/examples/" + example + "/leave", Map.of("given", given, "named", named));
    }

    private JsonNode shown(Person who) {
        return who.get("/api/prompts/" + prompt + "/examples").body().get("shown");
    }

    @Test
    void itIsShownOnceItsAuthorAgreesAndAsLongAsThat() {
        long example = asked();
        for (Person reader : List.of(of.other(), of.guest(), of.first(), of.lead()))
            assertEquals(0, shown(reader).size());
        JsonNode question = of.first().get("/api/examples").body().get(0);
        assertEquals("Week 9 log", question.get("prompt").asString());
        assertFalse(question.has("given"));
        JsonNode news = of.first().get("/api/news").body().get("items");
        assertTrue(news.toString().contains("EXAMPLE_ASKED"), news.toString());
        assertEquals(0, of.other().get("/api/examples").body().size());
        for (Person other : List.of(of.other(), of.lead(), of.guest(), of.moderator()))
            assertEquals(404, answer(other, example, true, true).status());
        assertEquals(200, answer(of.first(), example, true, false).status());
        JsonNode there = shown(of.other()).get(0);
        assertEquals("Slugs", there.get("title").asString());
        assertTrue(there.get("html").asString().contains("Eleven leaves"));
        assertFalse(there.has("author"), "without the name");
        assertFalse(
                of.other().get("/api/prompts/" + prompt + "/examples").text().contains("Castellane"));
        answer(of.first(), example, true, true);
        assertEquals("Wren Castellane", shown(of.guest()).get(0).get("author").asString());
        answer(of.first(), example, false, true);
        assertEquals(0, shown(of.lead()).size());
        assertEquals(
                "",
                jdbc.sql("select html from example_post where id = :id")
                        .param("id", example)
                        .query(String.class)
                        .single(),
                "nothing is kept of what was taken back");
    }

    @Test
    void itIsTheTextThatItsAuthorSawAndGoesWithThePost() {
        long example = asked();
        answer(of.first(), example, true, true);
        School.handInAgain(of.first(), post, Map.of("title", "Slugs, newly", "html", "<p>Nothing of that.</p>"));
        assertEquals("Slugs", shown(of.other()).get(0).get("title").asString());
        of.first().call("DELETE", "/api/posts/" + post, null);
        assertEquals(0, shown(of.other()).size(), "what is in the bin is no example");
        assertEquals("not-published", answer(of.first(), example, true, true).code());
        of.first().post("/api/posts/" + post + "/restore", null);
        assertEquals(1, shown(of.other()).size());
    }

    @Test
    void itsPicturesComeAlongAndGoWithTheLastOfItsExamples() {
        String picture = of.first()
                .upload("/api/posts/" + post + "/pictures", "slug.png", CanarySchool.png(3))
                .body()
                .get("address")
                .asString();
        School.handInAgain(
                of.first(),
                post,
                Map.of("title", "Slugs", "html", "<p>Here.</p><img src=\"" + picture + "\" alt=\"A slug\">"));
        for (JsonNode item : of.lead().get("/api/pile").body().get("items"))
            School.decide(of.lead(), item, "APPROVE", "");
        long second = set(open("Week 10 log", in(3)));
        long there = ask(of.lead(), second, post).body().get("id").asLong();
        long example = asked();
        for (long one : List.of(example, there)) answer(of.first(), one, true, false);
        String html = shown(of.other()).get(0).get("html").asString();
        assertFalse(html.contains(picture), "a copy of its own");
        String copy = html.replaceAll("(?s).*src=\"([^\"]+)\".*", "$1");
        assertEquals(200, of.other().get(copy).status());
        assertEquals(404, of.moderator().get(copy).status());
        answer(of.first(), example, false, false);
        assertEquals(200, of.other().get(copy).status(), "the other example still shows it");
        answer(of.first(), there, false, false);
        assertEquals(404, of.other().get(copy).status());
        assertEquals(404, of.lead().get(copy).status(), "nothing is kept of it");
        assertEquals(200, of.other().get(picture).status(), "the post has its own");
    }

    @Test
    void onlyWhoTeachesInBothClassesAsks() {
        Made other = school.make(port);
        long elsewhere = school.published(other, other.first(), other.blogOfFirst(), Map.of(), "Elsewhere");
        assertEquals(404, ask(of.lead(), prompt, elsewhere).status(), "a class that one does not teach");
        jdbc.sql("update membership set person_id = :lead where class_id = :class and role = 'CO_TEACHER'")
                .param("lead", of.lead().id)
                .param("class", other.classId())
                .update();
        assertEquals(200, ask(of.lead(), prompt, elsewhere).status(), "an earlier class of one's own");
        answer(
                other.first(),
                other.first().get("/api/examples").body().get(0).get("id").asLong(),
                true,
                true);
        assertEquals("Elsewhere", shown(of.other()).get(0).get("title").asString());
        assertEquals(404, of.other().get("/api/posts/" + elsewhere).status(), "its own page stays where it was");
        long draft = School.save(of.first(), of.blogOfFirst(), Map.of(), Map.of("title", "Not yet"))
                .id();
        assertEquals(404, ask(of.lead(), prompt, draft).status());
        assertEquals(403, ask(of.first(), prompt, post).status());
    }

    @Test
    void askedTwiceIsAskedOnceAndLeaveStands() {
        long example = asked();
        answer(of.first(), example, true, true);
        assertEquals(example, asked());
        assertEquals(1, shown(of.other()).size(), "asking again takes nothing away");
        answer(of.first(), example, false, false);
        assertEquals(example, asked());
        assertFalse(of.first().get("/api/examples").body().get(0).has("given"), "asked again after a no");
        assertEquals(
                403, of.first().call("DELETE", "/api/examples/" + example, null).status());
        assertEquals(
                200,
                of.second().call("DELETE", "/api/examples/" + example, null).status());
        assertEquals(0, of.first().get("/api/examples").body().size());
        assertEquals(404, answer(of.first(), example, true, true).status());
    }

    @Test
    void aWrittenExampleIsCleanedAndComesWithThePrompt() {
        Map<String, Object> wanted = open("Week 10 log", in(3));
        wanted.put("example", "<p onclick=\"x()\">Nine slugs.</p><script>x()</script>");
        long written = set(wanted);
        assertEquals(
                "<p>Nine slugs.</p>",
                of.other().get("/api/prompts/" + written).body().get("example").asString());
        Map<String, Object> later = open("Week 11 log", in(9));
        later.put("opens", in(3).toString());
        later.put("example", "<p>Not yet.</p>");
        long unseen = set(later);
        assertTrue(of.lead().get("/api/prompts/" + unseen).text().contains("Not yet."));
        assertEquals(404, of.other().get("/api/prompts/" + unseen).status());
        assertEquals(404, of.other().get("/api/prompts/" + unseen + "/examples").status());
        wanted.put("example", "x".repeat(100_001));
        Answer refused = of.lead().post("/api/classes/" + of.classId() + "/prompts", wanted);
        assertEquals("example-too-long", refused.code());
        assertEquals("example", refused.body().get("field").asString());
    }
}

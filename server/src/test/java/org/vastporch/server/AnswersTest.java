package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.vastporch.server.School.Answer;
import org.vastporch.server.blogs.BlogService;
import tools.jackson.databind.JsonNode;

/** What answers a prompt beside a post that was written for it: comments alone, a tag, a category, a person's word. */
@ServerTest
class AnswersTest extends Assessing {

    @Autowired
    BlogService blogs;

    /** A task to give two comments of at least two words. */
    private long commentTask(List<Long> named) {
        Map<String, Object> wanted = open("Answer each other", in(2));
        wanted.put("asked", asked(2));
        wanted.put("commentsWords", 2);
        wanted.put("answers", School.answers(0, false, false, named));
        return set(wanted);
    }

    private static Map<String, Object> asked(int comments) {
        return Map.of(
                "words", 0, "pictures", 0, "tags", 0, "category", 0, "links", 0, "sources", 0, "comments", comments);
    }

    private void comment(long post, String text) {
        Answer said = of.first().post("/api/posts/" + post + "/comments", Map.of("text", text));
        assertEquals(200, said.status());
        jdbc.sql("update comment set state = 'PUBLISHED', published_at = created_at where post_id = :post")
                .param("post", post)
                .update();
    }

    private long othersPost(String title) {
        long blog = blogs.homeOf(of.classId(), of.other().id).orElseThrow();
        return school.published(of, of.other(), blog, Map.of(), title);
    }

    private JsonNode due(long prompt) {
        return of.first()
                .get("/api/classes/" + of.classId() + "/due")
                .body()
                .valueStream()
                .filter(d -> d.get("promptId").asLong() == prompt)
                .findFirst()
                .orElse(null);
    }

    private String standing(long prompt) {
        return paper(prompt).get("given").get("standing").asString();
    }

    @Test
    void commentsAloneAreAPaperThatIsMarkedByWhatItsMarkerRead() {
        long named = othersPost("Rain in cups");
        long other = othersPost("The heap");
        long prompt = commentTask(List.of(named));
        JsonNode due = due(prompt);
        assertEquals("Rain in cups", due.get("commentOn").get(0).get("title").asString());
        assertFalse(due.get("owesPosts").asBoolean());
        assertEquals(
                "comments-alone",
                of.first()
                        .post("/api/blogs/" + of.blogOfFirst() + "/posts", Map.of("promptId", prompt))
                        .code());
        comment(other, "This one is not named.");
        assertEquals("NOT_HANDED_IN", standing(prompt));
        assertEquals(
                "nothing-handed-in", give(prompt, "c1", Map.of("points", 4)).code());
        comment(named, "Which cup?");
        assertEquals("IN_PART", standing(prompt));
        comment(named, "Short.");
        assertEquals("IN_PART", standing(prompt), "one word does not count");
        comment(named, "Ours had five.");
        assertEquals("HANDED_IN", standing(prompt));
        JsonNode comments = paper(prompt).get("comments");
        assertEquals(3, comments.size());
        assertEquals("Rain in cups", comments.get(0).get("post").asString());
        assertFalse(comments.get(1).get("counts").asBoolean());
        assertNull(due(prompt), "nothing is owed any more");
        mark(prompt, 4, 3);
        assertEquals("7.0", score(prompt));
        assertFalse(paper(prompt).get("given").get("changed").asBoolean());
        Map<String, Object> seen = school.seen(of.lead(), prompt, of.first().id);
        comment(named, "And one more.");
        assertTrue(paper(prompt).get("given").get("changed").asBoolean());
        Answer stale = of.lead().put(at(prompt) + "/criteria/c1", Map.of("seen", seen, "points", 6, "remark", ""));
        assertEquals("marked-meanwhile", stale.code());
        release(prompt);
        assertEquals(0, feedback().get(0).get("posts").size());
    }

    @Test
    void withoutNamesAnyPostOfAnotherSinceItOpenedIsAnswered() {
        long post = othersPost("Rain in cups");
        comment(post, "Before it opened.");
        jdbc.sql("update comment set created_at = dateadd(day, -9, created_at) where post_id = :post")
                .param("post", post)
                .update();
        long prompt = commentTask(List.of());
        assertEquals("NOT_HANDED_IN", standing(prompt));
        long own = handIn(set(open("Log", in(3))), "My own");
        comment(own, "My own post counts not.");
        assertEquals("NOT_HANDED_IN", standing(prompt));
        comment(post, "Which cup?");
        comment(post, "Ours had five.");
        assertEquals("HANDED_IN", standing(prompt));
    }

    @Test
    void whatIsNamedIsToldToThoseAloneWhoMayReadIt() {
        long named = othersPost("Rain in cups");
        jdbc.sql("update post set audience = 0 where id = :id")
                .param("id", named)
                .update();
        long prompt = commentTask(List.of(named));
        assertEquals(0, due(prompt).get("commentOn").size());
        Map<String, Object> wanted = open("Answer", in(2));
        wanted.put("asked", asked(2));
        wanted.put("answers", School.answers(0, false, false, List.of(99_999_999L)));
        assertEquals(
                "post-unknown",
                of.lead()
                        .post("/api/classes/" + of.classId() + "/prompts", wanted)
                        .code());
        wanted.put("asked", asked(0));
        wanted.put("answers", School.answers(0, false));
        assertEquals(
                "nothing-asked",
                of.lead()
                        .post("/api/classes/" + of.classId() + "/prompts", wanted)
                        .code());
    }

    @Test
    void anOwnPostAnswersByItsTagIfThePromptSaysSoAndAPersonSaysOtherwise() {
        Map<String, Object> wanted = open("Plot six", in(2));
        Map<String, Object> answers = new HashMap<>(School.answers(1, false));
        answers.put("byTag", true);
        wanted.put("answers", answers);
        long prompt = set(wanted);
        long log = set(open("Log", in(2)));
        long untagged = school.published(of, of.first(), of.blogOfFirst(), Map.of(), "No tag");
        long tagged = tagged("Under a tag", "plot-six");
        assertEquals(1, paper(prompt).get("posts").size());
        assertEquals(
                "Under a tag", paper(prompt).get("posts").get(0).get("title").asString());
        String ofTagged = "/api/posts/" + tagged + "/answered-prompt";
        assertEquals("TAG", of.first().get(ofTagged).body().get("by").asString());
        assertEquals("not-there", of.other().get(ofTagged).code());
        // Its author says otherwise, and then a teacher; whom nobody else may follow.
        assertEquals(200, of.first().put(ofTagged, Map.of("promptId", log)).status());
        assertEquals("NOT_HANDED_IN", standing(prompt));
        String ofUntagged = "/api/posts/" + untagged + "/answered-prompt";
        assertEquals(404, of.other().put(ofUntagged, Map.of("promptId", prompt)).status());
        assertEquals(200, of.lead().put(ofUntagged, Map.of("promptId", prompt)).status());
        assertEquals("No tag", paper(prompt).get("posts").get(0).get("title").asString());
        JsonNode news = of.first().get("/api/news").body().get("items");
        assertTrue(news.valueStream()
                .anyMatch(n -> n.get("kind").asString().equals("PROMPT_CHOSEN")
                        && n.get("title").asString().equals("No tag")));
        letDueGoBy(prompt);
        assertEquals(
                "prompt-fixed",
                of.first().put(ofUntagged, Map.of("promptId", log)).code());
        assertEquals(0, of.first().get(ofUntagged).body().get("choices").size());
        assertEquals(200, of.lead().put(ofUntagged, Map.of("promptId", log)).status());
    }

    /** A draft has nothing to count yet. */
    @Test
    void aDraftAnswersWhatItWasBegunFor() {
        long prompt = set(open("Log", in(2)));
        long draft = of.first()
                .post("/api/blogs/" + of.blogOfFirst() + "/posts", Map.of())
                .body()
                .get("id")
                .asLong();
        String path = "/api/posts/" + draft + "/answered-prompt";
        assertEquals(0, of.first().get(path).body().get("choices").size());
        assertEquals(
                "prompt-fixed", of.first().put(path, Map.of("promptId", prompt)).code());
    }

    private long tagged(String title, String tag) {
        School.Saved saved =
                School.save(of.first(), of.blogOfFirst(), Map.of(), Map.of("title", title, "tags", List.of(tag)));
        assertEquals(
                200,
                of.first()
                        .post("/api/posts/" + saved.id() + "/hand-in", Map.of("rev", saved.rev()))
                        .status());
        return saved.id();
    }

    @Test
    void answersGoIntoTheBlogThatThePromptSays() {
        Map<String, Object> wanted = open("Log", in(2));
        Map<String, Object> answers = new HashMap<>(School.answers(1, false));
        for (JsonNode line :
                of.lead().get("/api/classes/" + of.classId() + "/blogs").body())
            answers.put("into", line.get("ref").asString());
        wanted.put("answers", answers);
        long prompt = set(wanted);
        assertEquals(answers.get("into"), due(prompt).get("into").asString());
        JsonNode own = of.first()
                .get("/api/classes/" + of.classId() + "/blogs/mine")
                .body()
                .get(0);
        assertEquals(answers.get("into"), own.get("ref").asString(), "a blog of the set");
        handIn(prompt, "In my own");
        of.lead().post("/api/classes/" + of.classId() + "/blogs", commonBlog("MY_CLASS", "CLASS"));
        long common = of.first()
                .get("/api/classes/" + of.classId() + "/blogs/mine")
                .body()
                .valueStream()
                .filter(b -> b.get("kind").asString().equals("SHARED"))
                .findFirst()
                .orElseThrow()
                .get("id")
                .asLong();
        assertEquals(
                "goes-elsewhere",
                of.first()
                        .post("/api/blogs/" + common + "/posts", Map.of("promptId", prompt))
                        .code());
        assertEquals(
                200,
                of.first().post("/api/blogs/" + common + "/posts", Map.of()).status());
        for (String unknown : List.of("b" + of.blogOfFirst(), "s0", "b99999999", "x1", "b", "b1 or 1=1")) {
            answers.put("into", unknown);
            Answer refused = of.lead().post("/api/classes/" + of.classId() + "/prompts", wanted);
            assertEquals("blog-unknown", refused.code(), unknown);
            assertEquals("into", refused.body().get("field").asString());
        }
        answers.put("into", "b" + common);
        assertTrue(set(wanted) > 0);
    }
}

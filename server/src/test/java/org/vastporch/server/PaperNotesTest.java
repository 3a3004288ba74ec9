package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Person;
import tools.jackson.databind.JsonNode;

/** What markers write beside the words of a post. */
@ServerTest
class PaperNotesTest extends Assessing {

    private long prompt;
    private long post;

    @BeforeEach
    void handIn() {
        prompt = set(open("Log", in(2)));
        post = handIn(prompt, "Rain");
    }

    private Answer note(Person who, String quote, String text) {
        int version = paper(prompt).get("posts").get(0).get("version").asInt();
        return who.post(
                at(prompt) + "/notes",
                Map.of("post", post, "version", version, "quote", quote, "nth", 0, "text", text));
    }

    private JsonNode notes() {
        return paper(prompt).get("posts").get(0).get("notes");
    }

    private String words() {
        String html = paper(prompt).get("posts").get(0).get("html").asString();
        String text = html.replaceAll("<[^>]*>", " ").strip();
        return text.substring(0, text.indexOf(' '));
    }

    private Answer noted(Person who) {
        return who.get("/api/prompts/" + prompt + "/feedback/" + post);
    }

    @Test
    void itsAuthorReadsThemFromWhenTheMarksAreReleasedUntilTheyAreTakenBack() {
        assertEquals(200, note(of.lead(), words(), "Which day was it?").status());
        assertEquals("Which day was it?", notes().get(0).get("text").asString());
        assertEquals(404, noted(of.first()).status());
        mark(prompt, 4, 2);
        assertEquals(404, noted(of.first()).status(), "marked, but not released");
        release(prompt);
        JsonNode read = noted(of.first()).body();
        assertEquals("Which day was it?", read.get("notes").get(0).get("text").asString());
        assertEquals(words(), read.get("notes").get(0).get("quote").asString());
        assertEquals(1, feedback().get(0).get("posts").get(0).get("notes").asInt());
        for (Person no : List.of(of.other(), of.guest(), of.moderator()))
            assertTrue(noted(no).status() >= 403, no.toString());
        assertEquals(
                200,
                of.lead()
                        .post(at(prompt) + "/take-back", Map.of("seen", school.seen(of.lead(), prompt, of.first().id)))
                        .status());
        assertEquals(404, noted(of.first()).status());
    }

    @Test
    void standBesideWordsThatAreThereAndInTheVersionThatIsMarked() {
        assertEquals("words-gone", note(of.lead(), "nowhere in it", "Why?").code());
        assertEquals("note-empty", note(of.lead(), words(), " ").code());
        assertEquals(
                "note-too-long", note(of.lead(), words(), "x".repeat(4_001)).code());
        assertEquals("quote-missing", note(of.lead(), " ", "Why?").code());
        assertEquals(
                "quote-too-long", note(of.lead(), "x".repeat(2_001), "Why?").code());
        Answer old = of.lead()
                .post(
                        at(prompt) + "/notes",
                        Map.of("post", post, "version", 77, "quote", words(), "nth", 0, "text", "Why?"));
        assertEquals("handed-in-again", old.code());
        long elsewhere = school.published(of, of.first(), of.blogOfFirst(), Map.of(), "Elsewhere");
        assertEquals(
                "not-of-the-paper",
                of.lead()
                        .post(
                                at(prompt) + "/notes",
                                Map.of("post", elsewhere, "version", 1, "quote", "x", "nth", 0, "text", "Why?"))
                        .code());
        assertEquals(0, notes().size());
        jdbc.sql("""
                insert into paper_note (prompt_id, post_id, version_no, quote, nth, text, author_id, noted_at)
                select :prompt, :post, 1, 'x', 0, 'Why?', :author, current_timestamp from system_range(1, 200)""")
                .param("prompt", prompt)
                .param("post", post)
                .param("author", of.lead().id)
                .update();
        assertEquals("too-many-notes", note(of.lead(), words(), "Why?").code());
    }

    @Test
    void areChangedByWhoWroteThemAndNeverWrittenOver() {
        long id = note(of.lead(), words(), "Which day?").body().get("id").asLong();
        String at = "/api/paper-notes/" + id;
        Map<String, Object> change = Map.of("was", "Which day?", "text", "Which day was it?");
        assertEquals(404, of.second().put(at, change).status());
        assertEquals(200, of.lead().put(at, change).status());
        Answer again = of.lead().put(at, change);
        assertEquals("changed-elsewhere", again.code());
        assertEquals("Which day was it?", again.body().get("text").asString());
        assertEquals(404, of.second().call("DELETE", at, null).status());
        assertEquals(200, of.lead().call("DELETE", at, null).status());
        assertEquals(404, of.lead().call("DELETE", at, null).status());
        assertEquals(0, notes().size());
    }

    @Test
    void aStudentAnswersToMarksOnceTheyAreShown() {
        String words = at(prompt) + "/words";
        Map<String, Object> thanks = Map.of("text", "I counted the cups on Friday.");
        mark(prompt, 4, 2);
        assertEquals(404, of.first().get(words).status());
        assertEquals(404, of.first().post(words, thanks).status());
        assertEquals("not-released", of.lead().post(words, thanks).code());
        release(prompt);
        assertEquals(200, of.first().post(words, thanks).status());
        assertEquals(
                200, of.lead().post(words, Map.of("text", "Then say so in it.")).status());
        assertEquals(2, of.first().get(words).body().get("list").size());
        assertEquals(2, feedback().get(0).get("words").asInt());
        for (Person no : List.of(of.other(), of.guest(), of.moderator())) {
            assertTrue(no.get(words).status() >= 403);
            assertTrue(no.post(words, thanks).status() >= 403);
        }
        JsonNode toTeacher = of.lead().get("/api/news").body().get("items").get(0);
        assertEquals("FEEDBACK_ANSWERED", toTeacher.get("kind").asString());
        assertEquals(
                "/classes/" + of.classId() + "/mark/" + prompt + "/" + of.first().id,
                toTeacher.get("to").asString());
        assertEquals(
                "FEEDBACK_WORD",
                of.first()
                        .get("/api/news")
                        .body()
                        .get("items")
                        .get(0)
                        .get("kind")
                        .asString());
    }

    @Test
    void whatWasGivenEarlierOnTheSameStairIsToldToWhoMarks() {
        mark(prompt, 4, 2);
        long next = set(open("Log two", in(3)));
        handIn(next, "Snow");
        String at = at(next) + "/earlier";
        JsonNode earlier = of.lead().get(at).body();
        assertEquals("Log", earlier.get("c1").get(0).get("prompt").asString());
        assertEquals(4, earlier.get("c1").get(0).get("points").asInt());
        assertEquals(0, of.lead().get(at(prompt) + "/earlier").body().get("c1").size());
        assertEquals(403, of.first().get(at).status());
    }
}

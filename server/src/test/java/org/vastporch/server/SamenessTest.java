package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.vastporch.core.access.Role;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Made;
import org.vastporch.server.School.Person;
import tools.jackson.databind.JsonNode;

/** Which answers to a prompt share passages, for those who mark. */
@ServerTest
class SamenessTest extends Assessing {

    private static final String HUM =
            "Under it there is a hum that you only notice when the train stops, and for two seconds it is made of coats";

    private long write(Made in, Person author, long prompt, String title, String html) {
        long blog = jdbc.sql("select min(id) from blog where owner_id = :owner and class_id = :class")
                .param("owner", author.id)
                .param("class", in.classId())
                .query(Long.class)
                .single();
        long post = school.published(in, author, blog, Map.of("promptId", prompt), title);
        jdbc.sql("update post_version set html = :html where post_id = :id")
                .param("html", html)
                .param("id", post)
                .update();
        return post;
    }

    private JsonNode sameness(Person viewer, long prompt) {
        return viewer.get("/api/prompts/" + prompt + "/sameness").body();
    }

    @Test
    void aPairIsToldWithBothTextsTheFirstHandedInFirst() {
        long prompt = set(open("The station", in(3)));
        long later = write(of, of.first(), prompt, "Coats", "<p>I went at six. " + HUM + ".</p>");
        long earlier = write(of, of.other(), prompt, "Platform two", "<p>" + HUM + "! I stood.</p>");
        jdbc.sql("update post set handed_in_at = dateadd(hour, -10, handed_in_at) where id = :id")
                .param("id", earlier)
                .update();
        JsonNode view = sameness(of.lead(), prompt);
        assertEquals(2, view.get("texts").asInt());
        JsonNode pair = view.get("pairs").get(0);
        assertEquals(earlier, pair.at("/first/postId").asLong());
        assertEquals(23, pair.get("words").asInt());
        for (long post : List.of(earlier, later))
            jdbc.sql("update post_version set works = :works where post_id = :id")
                    .param(
                            "works",
                            "[{\"title\":\"A book of noises\",\"author\":\"\",\"date\":\"\",\"publisher\":\"\","
                                    + "\"address\":\"\"}]")
                    .param("id", post)
                    .update();
        Answer both =
                of.lead().post("/api/prompts/" + prompt + "/sameness/looks", Map.of("first", later, "second", earlier));
        assertEquals("Platform two", both.body().at("/pair/first/title").asString());
        assertEquals("A book of noises", both.body().at("/works/0").asString());
        JsonNode pieces = both.body().at("/first/0/pieces");
        assertEquals(HUM, pieces.get(0).get("text").asString());
        assertEquals(0, pieces.get(0).get("passage").asInt());
        assertFalse(pieces.get(1).has("passage"));
        assertEquals(
                1,
                jdbc.sql("select count(*) from event where kind = 'sameness-looked-at' and actor_id = :who")
                        .param("who", of.lead().id)
                        .query(Integer.class)
                        .single());
        JsonNode one = of.lead().get(at(prompt) + "/sameness").body();
        assertEquals(1, one.get("pairs").asInt());
        assertEquals(23, one.get("words").asInt());
    }

    @Test
    void aPairIsPutAsideWithAReasonAndTakenUpAgain() {
        long prompt = set(open("The station", in(3)));
        long one = write(of, of.first(), prompt, "Coats", "<p>" + HUM + ".</p>");
        long other = write(of, of.other(), prompt, "Hum", "<p>" + HUM + ".</p>");
        String at = "/api/prompts/" + prompt + "/sameness/aside";
        assertEquals(
                200,
                of.lead()
                        .put(at, Map.of("first", other, "second", one, "reason", "They wrote it together."))
                        .status());
        JsonNode pair = sameness(of.second(), prompt).get("pairs").get(0);
        assertEquals("They wrote it together.", pair.at("/aside/reason").asString());
        assertEquals(
                0, of.lead().get(at(prompt) + "/sameness").body().get("pairs").asInt());
        assertEquals(
                200,
                of.second()
                        .put(at, Map.of("first", one, "second", other, "reason", ""))
                        .status());
        assertFalse(sameness(of.lead(), prompt).get("pairs").get(0).has("aside"));
        assertEquals(
                422,
                of.lead()
                        .put(at, Map.of("first", one, "second", other, "reason", "x".repeat(1_001)))
                        .status());
        assertEquals(
                404,
                of.lead()
                        .put(at, Map.of("first", one, "second", one + 1_000, "reason", "No."))
                        .status());
    }

    @Test
    void whatTheStarterSaysAndWhatIsQuotedMakesNoPair() {
        Map<String, Object> wanted = open("The station", in(3));
        wanted.put("starter", "<p>" + HUM + ".</p>");
        long prompt = set(wanted);
        write(of, of.first(), prompt, "Coats", "<p>" + HUM + ".</p><p>Mine.</p>");
        write(of, of.other(), prompt, "Hum", "<p>" + HUM + ".</p><p>Mine too.</p>");
        assertEquals(0, sameness(of.lead(), prompt).get("pairs").size());
        long quoting = set(open("The book", in(3)));
        write(of, of.first(), quoting, "Coats", "<blockquote><p>" + HUM + ".</p></blockquote>");
        write(of, of.other(), quoting, "Hum", "<p>" + HUM + ".</p>");
        assertEquals(0, sameness(of.lead(), quoting).get("pairs").size());
    }

    @Test
    void whatMoreThanAThirdShareMakesNoPairAndFoldsAway() {
        String poem = "The station is a room<br>with the weather in it and nobody is at home";
        long prompt = set(open("The station", in(3)));
        long one = write(of, of.first(), prompt, "Coats", "<p>" + poem + "</p><p>" + HUM + ".</p>");
        long other = write(of, of.other(), prompt, "Hum", "<p>So: " + poem + " today.</p><p>" + HUM + "!</p>");
        for (int more = 0; more < 4; more++)
            write(of, more < 2 ? of.first() : of.other(), prompt, "No " + more, "<p>" + poem + ".</p>");
        JsonNode view = sameness(of.lead(), prompt);
        assertEquals(1, view.get("pairs").size(), "only the two that share more: " + view);
        assertEquals(23, view.at("/pairs/0/words").asInt());
        assertEquals(1, view.get("common").size());
        assertEquals(15, view.at("/common/0/words").asInt());
        assertEquals(6, view.at("/common/0/texts").asInt());
        assertEquals(
                "The station is a room\nwith the weather in it and nobody is at home",
                view.at("/common/0/text").asString());
        JsonNode both = of.lead()
                .post("/api/prompts/" + prompt + "/sameness/looks", Map.of("first", one, "second", other))
                .body();
        assertEquals(15, both.at("/first/0/pieces/0/common").asInt());
        assertEquals("So: ", both.at("/second/0/pieces/0/text").asString());
        assertEquals(15, both.at("/second/0/pieces/1/common").asInt());
        assertEquals(" today.", both.at("/second/0/pieces/2/text").asString());
        assertFalse(both.at("/first/1/pieces/0").has("common"));
    }

    @Test
    void earlierYearsAreComparedAsFarAsTheViewerReadsThem() {
        long lastYear = set(open("The station", in(1)));
        write(of, of.first(), lastYear, "Coats", "<p>" + HUM + ".</p>");
        Made thisYear = school.make(port);
        jdbc.sql("""
                insert into membership (class_id, person_id, role, shown, joined_at)
                select :class, :person, 'CO_TEACHER', shown, joined_at
                  from membership where class_id = :from and person_id = :person""")
                .param("class", thisYear.classId())
                .param("person", of.lead().id)
                .param("from", of.classId())
                .update();
        Map<String, Object> wanted = new HashMap<>(open("The station again", in(3)));
        wanted.put("copyOf", lastYear);
        assertEquals(
                404,
                thisYear.lead()
                        .post("/api/classes/" + thisYear.classId() + "/prompts", wanted)
                        .status(),
                "nobody copies what is not theirs");
        long prompt = of.lead()
                .post("/api/classes/" + thisYear.classId() + "/prompts", wanted)
                .body()
                .get("id")
                .asLong();
        write(thisYear, thisYear.first(), prompt, "Again", "<p>" + HUM + "!</p>");
        JsonNode mine = sameness(of.lead(), prompt).get("pairs").get(0);
        assertEquals("The station", mine.at("/first/year").asString());
        assertEquals("Coats", mine.at("/first/title").asString());
        assertEquals(0, sameness(of.lead(), lastYear).get("pairs").size(), "what came later is no matter of then");
        JsonNode theirs = sameness(thisYear.lead(), prompt).get("pairs").get(0);
        assertFalse(theirs.get("readable").asBoolean());
        assertFalse(theirs.get("first").has("name") || theirs.get("first").has("title"), theirs::toString);
        assertEquals(23, theirs.get("words").asInt());
        assertEquals(
                404,
                thisYear.lead()
                        .post(
                                "/api/prompts/" + prompt + "/sameness/looks",
                                Map.of(
                                        "first",
                                        theirs.at("/first/postId").asLong(),
                                        "second",
                                        theirs.at("/second/postId").asLong()))
                        .status());
    }

    @Test
    void onlyThoseWhoMarkLearnOfIt() {
        long prompt = set(open("The station", in(3)));
        write(of, of.first(), prompt, "Coats", "<p>" + HUM + ".</p>");
        Person assistant = school.helper(port, of.classId(), Role.ASSISTANT, "Tremaine");
        assertEquals(200, assistant.get("/api/prompts/" + prompt + "/sameness").status());
        for (Person other : List.of(of.first(), of.other(), of.guest(), of.moderator()))
            assertTrue(List.of(403, 404)
                    .contains(other.get("/api/prompts/" + prompt + "/sameness").status()));
    }

    @Test
    void whatAGroupHandsInTogetherIsHeldAgainstOthersAlone() {
        long bed = of.lead()
                .post("/api/classes/" + of.classId() + "/groups", Map.of("name", "Bed 1"))
                .body()
                .get("id")
                .asLong();
        Map<String, Object> move = Map.of("groupId", bed, "people", List.of(of.first().id, of.other().id));
        of.lead().post("/api/classes/" + of.classId() + "/groups/moves", Map.of("moves", List.of(move)));
        Map<String, Object> wanted = open("The station", in(3));
        wanted.put("answers", School.answers(2, false, true, List.of()));
        long prompt = set(wanted);
        write(of, of.first(), prompt, "Coats", "<p>" + HUM + ".</p>");
        write(of, of.other(), prompt, "Hum", "<p>" + HUM + ".</p>");
        assertEquals(0, sameness(of.lead(), prompt).get("pairs").size());
        Person third = school.student(port, of.classId(), "Yara");
        write(of, third, prompt, "Mine", "<p>" + HUM + ".</p>");
        assertEquals(2, sameness(of.lead(), prompt).get("pairs").size());
    }
}

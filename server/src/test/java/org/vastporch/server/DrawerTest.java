package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Made;
import org.vastporch.server.School.Person;
import org.vastporch.server.media.MediaJobs;
import tools.jackson.databind.JsonNode;

/** The drawer of a class: pictures and files for its texts, and for what its prompts say. */
@ServerTest
class DrawerTest extends Assessing {

    @Autowired
    MediaJobs jobs;

    private JsonNode put(boolean offered) {
        Answer answer = of.lead()
                .upload(
                        "/api/classes/" + of.classId() + "/drawer/pictures?offered=" + offered,
                        "Bed plan.png",
                        CanarySchool.png(3));
        assertEquals(200, answer.status(), answer::text);
        return answer.body();
    }

    private JsonNode drawer(Person who) {
        return who.get("/api/classes/" + of.classId() + "/drawer").body();
    }

    private long says(String html, int opensIn) {
        Map<String, Object> wanted = wanted("Leaves", in(9));
        wanted.put("opens", in(opensIn).toString());
        wanted.put("instructions", html);
        return set(wanted);
    }

    private static String picture(String address) {
        return "<p>Look at this.</p><figure><img src=\"" + address + "\" alt=\"A plan\"></figure>";
    }

    @Test
    void whatIsOfferedIsForEverybodyWhoReadsTheClass() {
        JsonNode item = put(true);
        String address = item.get("address").asString();
        assertEquals("Bed plan.png", item.get("name").asString());
        for (Person who : List.of(of.lead(), of.second(), of.first(), of.other(), of.guest())) {
            assertEquals(1, drawer(who).size());
            assertEquals(200, who.get(address).status());
        }
        Made elsewhere = school.make(port);
        for (Person who : List.of(of.moderator(), elsewhere.lead(), elsewhere.first(), school.stranger(port)))
            assertTrue(who.get(address).status() >= 401, () -> who.id + " gets it");
        assertEquals(
                403,
                of.first()
                        .upload("/api/classes/" + of.classId() + "/drawer/pictures", "x.png", CanarySchool.png(1))
                        .status());
    }

    /** What stands in a prompt is seen with it and not before. */
    @Test
    void whatIsForAPromptIsSeenWithThePrompt() {
        String address = put(false).get("address").asString();
        assertEquals(0, drawer(of.first()).size());
        assertEquals(404, of.first().get(address).status());
        assertEquals(200, of.lead().get(address).status());
        says(picture(address), 2);
        assertEquals(404, of.first().get(address).status(), "the prompt is not open yet");
        long open = says(picture(address), -2);
        assertEquals(200, of.first().get(address).status());
        assertEquals(200, of.guest().get(address).status());
        assertTrue(of.first()
                .get("/api/prompts/" + open)
                .body()
                .get("instructions")
                .asString()
                .contains(address));
        assertEquals(404, school.make(port).first().get(address).status());
    }

    @Test
    void whoPutsItIntoATextHasACopyOfTheirOwn() {
        JsonNode item = put(true);
        long post = school.published(of, of.first(), of.blogOfFirst(), Map.of(), "Slugs");
        School.handInAgain(
                of.first(),
                post,
                Map.of("title", "Slugs", "html", picture(item.get("address").asString())));
        String html = of.first().get("/api/posts/" + post + "/draft").body().toString();
        assertFalse(html.contains(item.get("id").asString()), html);
        assertTrue(html.contains("/media/"), html);
        of.lead()
                .put(
                        "/api/classes/" + of.classId() + "/drawer/"
                                + item.get("id").asString(),
                        Map.of("name", "Bed plan", "offered", false));
        assertEquals(0, drawer(of.first()).size());
        assertEquals(404, of.first().get(item.get("address").asString()).status(), "it is out of the drawer");
        String own = html.replaceAll("(?s).*?(/media/[0-9a-f-]{36}).*", "$1");
        assertEquals(200, of.first().get(own).status(), "and stays in the text");
    }

    @Test
    void aFileLiesInItToo() {
        String at = "/api/classes/" + of.classId() + "/drawer/files?offered=true";
        JsonNode file = of.lead()
                .upload(at, "Plan.pdf", "%PDF-1.7 a plan".getBytes(StandardCharsets.UTF_8))
                .body();
        assertEquals("DOCUMENT", file.get("kind").asString());
        assertEquals(200, of.first().get(file.get("address").asString()).status());
        assertEquals(
                "file-not-taken",
                of.lead().upload(at, "a.exe", new byte[] {'M', 'Z', 0, 1, 2}).code());
        assertEquals(
                404,
                school.make(port)
                        .lead()
                        .put(
                                "/api/classes/" + of.classId() + "/drawer/"
                                        + file.get("id").asString(),
                                Map.of("name", "Mine", "offered", true))
                        .status());
    }

    /**
     * Another class that takes the prompt has copies, which its members see and those of the first need not be asked
     * for.
     */
    @Test
    void aPromptOfAnotherClassHasItsOwn() {
        String address = put(false).get("address").asString();
        long there = school.make(port).classId();
        jdbc.sql("insert into membership (class_id, person_id, role, shown, joined_at) "
                        + "select :there, person_id, role, shown, joined_at from membership "
                        + "where class_id = :here and person_id = :lead")
                .param("there", there)
                .param("here", of.classId())
                .param("lead", of.lead().id)
                .update();
        Map<String, Object> wanted = new HashMap<>(wanted("Leaves", in(9)));
        wanted.put("instructions", picture(address));
        long copy = of.lead()
                .post("/api/classes/" + there + "/prompts", wanted)
                .body()
                .get("id")
                .asLong();
        String says =
                of.lead().get("/api/prompts/" + copy).body().get("instructions").asString();
        assertFalse(says.contains(address), says);
        assertEquals(
                200,
                of.lead()
                        .get(says.replaceAll("(?s).*?(/media/[0-9a-f-]{36}).*", "$1"))
                        .status());
    }

    @Test
    void whatNothingShowsAnyMoreIsCleared() {
        String offered = put(true).get("address").asString();
        String shown = put(false).get("address").asString();
        String idle = put(false).get("address").asString();
        says(picture(shown), 2);
        jdbc.sql("update picture set created_at = timestamp '2020-01-01 00:00:00' where post_id is null")
                .update();
        jobs.dropUnused();
        assertEquals(200, of.lead().get(offered).status());
        assertEquals(200, of.lead().get(shown).status());
        assertEquals(404, of.lead().get(idle).status());
    }

    /** What a prompt says is cleaned like any other text. */
    @Test
    void whatAPromptSaysIsCleaned() {
        long prompt = says(
                "<p onclick=\"x()\">Look</p><script>steal()</script><img src=\"https://else.example/x.png\" alt=\"x\">",
                -1);
        String says = of.first()
                .get("/api/prompts/" + prompt)
                .body()
                .get("instructions")
                .asString();
        assertFalse(says.contains("script") || says.contains("onclick") || says.contains("<img"), says);
    }
}

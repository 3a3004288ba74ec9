package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Made;
import org.vastporch.server.School.Person;
import tools.jackson.databind.JsonNode;

/** What somebody is in a class changes while they are signed in: what they may do changes at that moment, both ways. */
@ServerTest
class RolesTest {

    @Autowired
    School school;

    @Autowired
    JdbcClient jdbc;

    @LocalServerPort
    int port;

    Made of;

    @BeforeEach
    void makeClass() {
        of = school.make(port);
    }

    private String path(String rest) {
        return "/api/classes/" + of.classId() + rest;
    }

    private Answer make(Person who, Person whom, String role) {
        return who.put(path("/people/" + whom.id + "/role"), Map.of("role", role));
    }

    private long waiting() {
        school.handIn(of.first(), of.blogOfFirst(), Map.of(), "Slugs", "<p>Eleven leaves with holes.</p>");
        return item().get("id").asLong();
    }

    private JsonNode item() {
        return of.lead().get("/api/pile?most=500").body().get("items").get(0);
    }

    private Answer approve(Person who, JsonNode item) {
        return who.post(
                "/api/pile/decisions",
                Map.of(
                        "step",
                        "APPROVE",
                        "note",
                        "",
                        "items",
                        List.of(Map.of(
                                "subject",
                                "post",
                                "id",
                                item.get("id").asLong(),
                                "version",
                                item.get("version").asInt(),
                                "rev",
                                item.get("rev").asInt()))));
    }

    @Test
    void aGuestWhoBecomesAModeratorHasThePileAndLosesThePorch() {
        long post = waiting();
        assertEquals(404, of.guest().get("/api/posts/" + post).status());
        assertEquals(200, of.guest().get(path("/porch")).status());
        assertEquals(200, make(of.lead(), of.guest(), "MODERATOR").status());
        assertEquals(200, of.guest().get("/api/posts/" + post).status());
        assertEquals(1, of.guest().get("/api/pile").body().get("items").size());
        assertEquals(404, of.guest().get(path("/porch")).status());
    }

    @Test
    void aModeratorWhoBecomesAGuestDecidesNothingMore() {
        waiting();
        JsonNode item = item();
        assertEquals(200, make(of.second(), of.moderator(), "GUEST").status());
        Answer refused = approve(of.moderator(), item);
        assertTrue(refused.status() == 403 || refused.body().get(0).has("problem"), refused.text());
        assertEquals(
                "WAITING",
                jdbc.sql("select state from post where id = :id")
                        .param("id", item.get("id").asLong())
                        .query(String.class)
                        .single());
        assertFalse(refused.text().contains("leaves"), "nor is anything of it told");
    }

    @Test
    void aCoTeacherWhoBecomesAGuestManagesNothingMore() {
        assertEquals(200, make(of.lead(), of.second(), "GUEST").status());
        assertEquals(403, make(of.second(), of.moderator(), "GUEST").status());
        assertEquals(403, of.second().get(path("/decisions")).status());
        assertEquals(
                403,
                of.second()
                        .post(path("/roster/preview"), Map.of("text", "Name\nAda Quill"))
                        .status());
        assertEquals(404, of.second().get("/api/posts/" + waiting()).status());
    }

    @Test
    void nobodyRisesByThemselves() {
        for (Person one : List.of(of.moderator(), of.guest(), of.first())) {
            assertEquals(403, make(one, one, "CO_TEACHER").status());
            assertEquals(403, make(one, of.second(), "GUEST").status());
        }
        assertEquals(401, make(school.stranger(port), of.guest(), "CO_TEACHER").status());
        assertTrue(
                make(school.make(port).lead(), of.guest(), "CO_TEACHER").status() >= 403,
                "nor does a teacher of another class raise anybody");
        assertEquals("GUEST", role(of.guest()));
    }

    private String role(Person who) {
        return jdbc.sql("select role from membership where class_id = :class and person_id = :person")
                .param("class", of.classId())
                .param("person", who.id)
                .query(String.class)
                .single();
    }

    @Test
    void aStudentStaysOneAndAClassKeepsItsLead() {
        assertEquals("student-stays", make(of.lead(), of.first(), "MODERATOR").code());
        assertEquals("student-stays", make(of.lead(), of.guest(), "STUDENT").code());
        assertEquals("lead-stays", make(of.second(), of.lead(), "GUEST").code());
        assertEquals("lead-stays", make(of.lead(), of.second(), "LEAD").code());
        assertEquals(400, make(of.lead(), of.second(), "EMPEROR").status());
        assertEquals(
                404,
                make(of.lead(), school.make(port).guest(), "MODERATOR").status(),
                "somebody of another class is not there");
    }

    /** Whoever sets the rules can see what they do to a text, without it being kept. */
    @Test
    void rulesAreTriedOnATextByStaffAlone() {
        String text = "Ring me on 07700 900731, says Wren Castellane.";
        Answer tried = of.lead().post(path("/holds/try"), Map.of("text", text));
        List<String> found =
                tried.body().valueStream().map(h -> h.get("found").asString()).toList();
        assertTrue(found.contains("07700 900731"), tried.text());
        assertEquals(
                0,
                of.lead()
                        .post(path("/holds/try"), Map.of("text", "Eleven leaves with holes."))
                        .body()
                        .size());
        for (Person one : List.of(of.moderator(), of.guest(), of.first()))
            assertEquals(403, one.post(path("/holds/try"), Map.of("text", text)).status());
        assertEquals(
                0,
                jdbc.sql("select count(*) from hold where found = '07700 900731'")
                        .query(Integer.class)
                        .single());
    }

    /**
     * A reader's feed of one blog: what may be read of it, for as long as its reader is there and no longer than the
     * address is wanted.
     */
    @Test
    void theFeedOfOneBlogEndsWithItsAddress() {
        long post = school.published(of, of.first(), of.blogOfFirst(), Map.of(), "Slugs by night");
        String key = of.other().post(path("/feed-key"), null).body().get("path").asString();
        String address = key.replace(".rss", "/blogs/" + of.blogOfFirst() + ".atom");
        Person reader = school.stranger(port);
        assertTrue(reader.get(address).text().contains("Slugs by night"));
        of.first().call("DELETE", "/api/posts/" + post, null);
        assertFalse(
                reader.get(address).text().contains("Slugs by night"),
                "what its author took away is gone from the feed");
        assertEquals(
                404,
                reader.get(key.replace(".rss", "/blogs/" + school.make(port).blogOfFirst() + ".atom"))
                        .status(),
                "a blog of another class is none of this reader's");
        assertEquals(200, of.other().call("DELETE", path("/feed-key"), null).status());
        assertEquals(404, reader.get(address).status());
        assertNotEquals(
                key,
                of.other().post(path("/feed-key"), null).body().get("path").asString(),
                "a new one is another one");
    }
}

package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Made;
import org.vastporch.server.School.Person;
import org.vastporch.server.writing.PostService;
import tools.jackson.databind.JsonNode;

/**
 * What was begun while a door was open and is finished when it is shut; what was thrown away or hidden; pictures at the
 * heads of blogs.
 */
@ServerTest
class DoorsTest {

    @Autowired
    School school;

    @Autowired
    PostService posts;

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

    private long draft() {
        long id = of.first()
                .post("/api/blogs/" + of.blogOfFirst() + "/posts", Map.of())
                .body()
                .get("id")
                .asLong();
        save(id, "Slugs");
        return id;
    }

    private void save(long id, String title) {
        of.first()
                .put(
                        "/api/posts/" + id + "/draft",
                        Map.of(
                                "rev",
                                rev(id),
                                "title",
                                title,
                                "html",
                                "<p>Eleven leaves.</p>",
                                "tags",
                                List.of(),
                                "audience",
                                "MY_CLASS"));
    }

    private int rev(long id) {
        return of.first()
                .get("/api/posts/" + id + "/draft")
                .body()
                .get("beside")
                .get("rev")
                .asInt();
    }

    private Answer handIn(long id, LocalDateTime at) {
        return of.first()
                .post(
                        "/api/posts/" + id + "/hand-in",
                        at == null ? Map.of("rev", rev(id)) : Map.of("rev", rev(id), "publishAt", at.toString()));
    }

    private JsonNode waits(String subject, long id) {
        return of.lead()
                .get("/api/pile?most=500")
                .body()
                .get("items")
                .valueStream()
                .filter(i -> i.get("id").asLong() == id
                        && i.get("subject").asString().equals(subject))
                .findFirst()
                .orElseThrow(() -> new AssertionError(subject + " does not wait"));
    }

    private Answer decide(Person who, JsonNode item, String step) {
        return School.decide(who, item, step, "Look again.");
    }

    private String state(long id) {
        return jdbc.sql("""
                                select state || case when waiting_since is null then '' else ' waits' end
                                 from post
                                 where id = :id""").param("id", id).query(String.class).single();
    }

    @Test
    void aDraftIsNotHandedInThroughAClosedDoor() {
        long id = draft();
        jdbc.sql("update blog set closes_at = :then where id = :id")
                .param("then", Instant.now().minusSeconds(5).atOffset(ZoneOffset.UTC))
                .param("id", of.blogOfFirst())
                .update();
        assertEquals("closed", handIn(id, null).code());
        assertEquals("DRAFT", state(id));
        save(id, "Kept");
        assertEquals(
                "Kept",
                of.first().get("/api/posts/" + id).body().get("title").asString(),
                "what is written is kept all the same");
    }

    /** Set for a time, and then its author left: it waits for a person instead, who reads why. */
    @Test
    void whatWasToGoUpByItselfWaitsIfItsAuthorMayNotWriteThere() {
        long id = draft();
        handIn(id, LocalDateTime.now(ZoneId.of("Europe/London")).plusDays(1));
        decide(of.lead(), waits("post", id), "APPROVE");
        assertEquals("SCHEDULED", state(id));
        of.lead().post(path("/people/" + of.first().id + "/leaving"), Map.of("leaving", "KEEP"));
        jdbc.sql("update post set publish_at = :then where id = :id")
                .param("then", Instant.now().minusSeconds(5).atOffset(ZoneOffset.UTC))
                .param("id", id)
                .update();
        until(() -> !state(id).equals("SCHEDULED"));
        assertEquals("WAITING waits", state(id));
        assertEquals(
                "WRITING_OVER",
                waits("post", id).get("holds").get(0).get("rule").asString());
        assertEquals(404, of.other().get("/api/posts/" + id).status());
    }

    private static void until(BooleanSupplier holds) {
        Instant end = Instant.now().plusSeconds(15);
        while (!holds.getAsBoolean()) {
            assertTrue(Instant.now().isBefore(end), "It did not happen in time");
            Thread.onSpinWait();
        }
    }

    @Test
    void whatComesOutOfTheBinIsWhereItWas() {
        long id = school.published(of, of.first(), of.blogOfFirst(), Map.of(), "Slugs");
        save(id, "Slugs, again");
        handIn(id, null);
        assertEquals("WAITING waits", state(id));
        of.first().call("DELETE", "/api/posts/" + id, null);
        assertEquals("BINNED", state(id));
        assertEquals(200, of.first().post("/api/posts/" + id + "/restore", null).status());
        assertEquals("WAITING waits", state(id), "its new version waits in the pile again");
        assertEquals("Slugs, again", waits("post", id).get("title").asString());
    }

    @Test
    void whatStaffHidIsShownByStaffAlone() {
        long id = school.published(of, of.first(), of.blogOfFirst(), Map.of(), "Slugs");
        Map<String, Object> seen = Map.of("subject", "post", "id", id, "version", 1, "rev", rev(id));
        of.lead().post("/api/pile/decisions", Map.of("step", "HIDE", "note", "", "items", List.of(seen)));
        assertEquals(403, of.first().post("/api/posts/" + id + "/restore", null).status());
        assertEquals(403, of.first().post("/api/posts/" + id + "/show", null).status());
        assertEquals(404, of.other().post("/api/posts/" + id + "/show", null).status(), "to others it is not there");
        of.lead().call("DELETE", "/api/posts/" + id, null);
        assertEquals(200, of.lead().post("/api/posts/" + id + "/restore", null).status());
        assertEquals("HIDDEN", state(id), "out of the bin it is as hidden as before");
        assertEquals(200, of.second().post("/api/posts/" + id + "/show", null).status());
        assertEquals(200, of.other().get("/api/posts/" + id).status());
    }

    /**
     * Where the class holds pictures, one for the head of a blog waits in the pile; approving puts it there, taking
     * that back takes it away.
     */
    @Test
    void aPictureForTheHeadOfABlogIsLookedAtFirst() {
        rules(true);
        assertEquals(
                200,
                of.first()
                        .upload("/api/blogs/" + of.blogOfFirst() + "/header", "leaf.png", CanarySchool.png(3))
                        .status());
        String page = path("/blogs/at/log-of-wren-castellane");
        JsonNode own = of.first().get(page).body();
        assertFalse(own.has("header"));
        assertEquals("WAITING", own.get("wantedHeader").get("state").asString());
        String address = own.get("wantedHeader").get("address").asString();
        assertFalse(of.other().get(page).body().has("wantedHeader"));
        assertEquals(404, of.other().get(address).status());
        assertEquals(200, of.first().get(address).status());
        assertEquals(200, of.moderator().get(address).status());
        JsonNode item = of.moderator().get("/api/pile").body().get("items").get(0);
        assertEquals("header", item.get("subject").asString());
        assertEquals(
                1,
                of.lead()
                        .get("/api/me")
                        .body()
                        .get("classes")
                        .get(0)
                        .get("waits")
                        .asInt());
        long decision = decide(of.moderator(), item, "APPROVE")
                .body()
                .get(0)
                .get("decision")
                .asLong();
        assertTrue(of.other().get(page).body().has("header"));
        assertEquals(404, of.moderator().get(address).status(), "it does not lie in the pile any more");
        assertEquals(
                200,
                of.moderator()
                        .post("/api/pile/decisions/" + decision + "/undo", null)
                        .status());
        assertFalse(of.other().get(page).body().has("header"));
        decide(of.lead(), waits("header", item.get("id").asLong()), "RETURN");
        assertEquals(
                "RETURNED Look again.",
                of.first().get(page).body().get("wantedHeader").get("state").asString() + " "
                        + of.first()
                                .get(page)
                                .body()
                                .get("wantedHeader")
                                .get("note")
                                .asString());
        rules(false);
        of.first().upload("/api/blogs/" + of.blogOfFirst() + "/header", "leaf.png", CanarySchool.png(4));
        assertTrue(of.other().get(page).body().has("header"), "where pictures are not held it stands there at once");
    }

    private void rules(boolean holdPictures) {
        JsonNode now = of.lead().get(path("")).body();
        Map<String, Object> rules = new HashMap<>(Map.of(
                "ceiling",
                "MY_CLASS",
                "open",
                false,
                "postPolicy",
                "BEFORE",
                "commentPolicy",
                "BEFORE",
                "trustAfter",
                0,
                "heldWords",
                List.of(),
                "holdLinks",
                true,
                "tools",
                List.of("BOLD", "PICTURE")));
        rules.putAll(Map.of(
                "takeOver", false, "apart", 1, "holdPictures", holdPictures, "firstPosts", 0, "reportsHide", false));
        assertEquals(
                200,
                of.lead()
                        .put(
                                path("/rules"),
                                Map.of("version", now.get("version").asInt(), "rules", rules))
                        .status());
    }

    /** Two windows on one comment: the second is told, with what stands there, and writes nothing over. */
    @Test
    void aCommentIsNotWrittenOver() {
        long id = school.published(of, of.first(), of.blogOfFirst(), Map.of(), "Slugs");
        JsonNode comment = of.other()
                .post("/api/posts/" + id + "/comments", Map.of("text", "Which kind?"))
                .body();
        long number = comment.get("id").asLong();
        Map<String, Object> first = Map.of("rev", comment.get("rev").asInt(), "text", "Which kind of slug?");
        assertEquals(200, of.other().put("/api/comments/" + number, first).status());
        Answer second = of.other()
                .put("/api/comments/" + number, Map.of("rev", comment.get("rev").asInt(), "text", "Which slug?"));
        assertEquals("changed-elsewhere", second.code());
        assertTrue(second.body().get("html").asString().contains("Which kind of slug?"));
        assertEquals(
                "changed-elsewhere",
                of.lead().put("/api/comments/" + number, first).code(),
                "nor by staff who mend it");
    }

    /** Whoever marks names what was read: a newer version or another marker is told, with what stands there now. */
    @Test
    void marksAreNotGivenToAnotherTextNorOverSomebodyElses() {
        Map<String, Object> wanted = new HashMap<>(Map.of(
                "title",
                "Log",
                "instructions",
                "",
                "questions",
                List.of(),
                "due",
                LocalDateTime.now().plusDays(3).toString(),
                "graceHours",
                0,
                "latePercentPerDay",
                0,
                "lateMostPercent",
                0,
                "points",
                6,
                "asked",
                Map.of("words", 0, "pictures", 0, "tags", 0, "category", 0, "links", 0, "sources", 0, "comments", 0)));
        wanted.put(
                "rubric",
                Map.of(
                        "criteria",
                        List.of(Map.of(
                                "name",
                                "Observation",
                                "weight",
                                1,
                                "levels",
                                List.of(
                                        Map.of("name", "none", "points", 0, "descriptor", ""),
                                        Map.of("name", "all", "points", 6, "descriptor", ""))))));
        long prompt = of.lead().post(path("/prompts"), wanted).body().get("id").asLong();
        long id = school.published(of, of.first(), of.blogOfFirst(), Map.of("promptId", prompt), "Slugs");
        String at = "/api/prompts/" + prompt + "/marking/" + of.first().id;
        Map<String, Object> read = school.seen(of.lead(), prompt, of.first().id);
        save(id, "Slugs, again");
        handIn(id, null);
        Answer refused = of.lead().put(at + "/criteria/c1", Map.of("seen", read, "points", 6, "remark", ""));
        assertEquals("marked-meanwhile", refused.code());
        assertEquals(
                "Slugs, again",
                refused.body().get("paper").get("posts").get(0).get("title").asString(),
                "with the paper as it stands now");
        Map<String, Object> now = school.seen(of.lead(), prompt, of.first().id);
        assertEquals(
                200,
                of.lead()
                        .put(at + "/criteria/c1", Map.of("seen", now, "points", 6, "remark", ""))
                        .status());
        Answer second = of.second().put(at + "/criteria/c1", Map.of("seen", now, "points", 0, "remark", ""));
        assertEquals(409, second.status());
        assertEquals(
                6,
                second.body()
                        .get("paper")
                        .get("given")
                        .get("marks")
                        .get(0)
                        .get("points")
                        .asInt());
        Map<String, Object> stale = Map.of("papers", List.of(Map.of("student", of.first().id, "seen", now)));
        Answer released = of.lead().post("/api/prompts/" + prompt + "/marking/release", stale);
        assertEquals(0, released.body().get("released").asInt());
        assertEquals(1, released.body().get("changed").size());
        save(id, "Third");
        handIn(id, null);
        JsonNode earlier = of.lead().get(at).body();
        assertEquals(2, earlier.get("posts").get(0).get("markedOn").asInt(), "marks on an earlier text say so");
        assertTrue(earlier.get("given").get("changed").asBoolean());
    }
}

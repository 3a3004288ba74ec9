package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.vastporch.core.access.BlogFacts.Commenters;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.blogs.BlogKind;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Made;
import org.vastporch.server.School.Person;
import org.vastporch.server.blogs.BlogSetup;
import org.vastporch.server.writing.PostJobs;
import tools.jackson.databind.JsonNode;

/** What a writer has: versions, sources, categories, a time to go up, the bin; and announcements of staff. */
@ServerTest
class WritingTest {

    @Autowired
    School school;

    @Autowired
    JdbcClient jdbc;

    @Autowired
    PostJobs jobs;

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

    private long begin() {
        return of.first()
                .post("/api/blogs/" + of.blogOfFirst() + "/posts", Map.of())
                .body()
                .get("id")
                .asLong();
    }

    private static Map<String, Object> text(int rev, String title, String html) {
        return new HashMap<>(
                Map.of("rev", rev, "title", title, "html", html, "tags", List.of(), "audience", "MY_CLASS"));
    }

    private static Answer save(Person who, long id, String title, String html) {
        int rev = who.get("/api/posts/" + id + "/draft")
                .body()
                .get("beside")
                .get("rev")
                .asInt();
        return who.put("/api/posts/" + id + "/draft", text(rev, title, html));
    }

    private static Answer handIn(Person who, long id, LocalDateTime at) {
        int rev = who.get("/api/posts/" + id + "/draft")
                .body()
                .get("beside")
                .get("rev")
                .asInt();
        return who.post(
                "/api/posts/" + id + "/hand-in",
                at == null ? Map.of("rev", rev) : Map.of("rev", rev, "publishAt", at.toString()));
    }

    private JsonNode waits(long id) {
        return of.lead()
                .get("/api/pile")
                .body()
                .get("items")
                .valueStream()
                .filter(i -> i.get("id").asLong() == id)
                .findFirst()
                .orElseThrow();
    }

    private void approve(long id) {
        JsonNode item = waits(id);
        of.lead()
                .post(
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
                                        id,
                                        "version",
                                        item.get("version").asInt(),
                                        "rev",
                                        item.get("rev").asInt()))));
    }

    private static void until(BooleanSupplier holds) {
        Instant end = Instant.now().plusSeconds(15);
        while (!holds.getAsBoolean()) {
            assertTrue(Instant.now().isBefore(end), "It did not happen in time");
            Thread.onSpinWait();
        }
    }

    /**
     * A draft that loses much of what was there keeps it as a version; it can be compared by words and brought back,
     * and so can what was handed in.
     */
    @Test
    void anEarlierVersionIsComparedAndBroughtBack() {
        long id = begin();
        String long1 = "<p>" + "Eleven leaves have holes and the twelfth has none. ".repeat(6) + "</p>";
        save(of.first(), id, "Slugs", long1);
        save(of.first(), id, "Slugs", "<p>Gone.</p>");
        JsonNode versions = of.first().get("/api/posts/" + id + "/versions").body();
        assertEquals(2, versions.size());
        assertTrue(versions.get(0).get("newest").asBoolean());
        assertEquals(54, versions.get(1).get("words").asInt());
        JsonNode one = of.first().get("/api/posts/" + id + "/versions/1").body();
        assertTrue(one.get("changes")
                .valueStream()
                .anyMatch(c -> c.get("change").asString().equals("REMOVED")
                        && c.get("text").asString().contains("twelfth")));
        Map<String, Object> rev = Map.of("rev", one.get("rev").asInt());
        assertEquals(
                409,
                of.first()
                        .post("/api/posts/" + id + "/versions/1/bring-back", Map.of("rev", 0))
                        .status());
        assertEquals(
                200,
                of.first()
                        .post("/api/posts/" + id + "/versions/1/bring-back", rev)
                        .status());
        assertTrue(of.first()
                .get("/api/posts/" + id + "/draft")
                .body()
                .get("html")
                .asString()
                .contains("twelfth"));
        assertEquals(
                3, of.first().get("/api/posts/" + id + "/versions").body().size(), "what was newest stays among them");
        assertEquals(404, of.other().get("/api/posts/" + id + "/versions").status());
        handIn(of.first(), id, null);
        assertEquals(200, of.lead().get("/api/posts/" + id + "/versions/2").status());
    }

    @Test
    void whatIsMarkedIsWhatWasHandedInNotADraftBegunAfter() {
        long id = begin();
        save(of.first(), id, "Slugs", "<p>" + "One two three four five. ".repeat(8) + "</p>");
        handIn(of.first(), id, null);
        save(of.first(), id, "Slugs again", "<p>" + "One two three four five. ".repeat(9) + "</p>");
        save(of.first(), id, "Slugs again", "<p>Gone.</p>");
        assertEquals(
                1,
                jdbc.sql("select handed_no from post where id = :id")
                        .param("id", id)
                        .query(Integer.class)
                        .single());
    }

    @Test
    void sourcesMakeAListAndOneWithoutATitleIsRefusedInWords() {
        long id = begin();
        Map<String, Object> with = text(1, "Slugs", "<p>Eleven leaves.</p>");
        Map<String, Object> work = new HashMap<>(Map.of(
                "title",
                "Beds",
                "author",
                "Eze, Chidubem",
                "date",
                "2024",
                "publisher",
                "",
                "address",
                "https://beds.example/1"));
        with.put("works", List.of(work));
        Answer saved = of.first().put("/api/posts/" + id + "/draft", with);
        assertEquals(
                "Eze, C. (2024). ",
                saved.body().get("references").get(0).get("lead").asString());
        work.put("title", " ");
        with.put("rev", saved.body().get("rev").asInt());
        Answer refused = of.first().put("/api/posts/" + id + "/draft", with);
        assertEquals(422, refused.status(), refused.text());
        assertEquals("A source needs a title.", refused.body().get("detail").asString());
        handIn(of.first(), id, null);
        approve(id);
        assertEquals(
                "Beds.",
                of.other()
                        .get("/api/posts/" + id)
                        .body()
                        .get("references")
                        .get(0)
                        .get("title")
                        .asString());
    }

    @Test
    void categoriesAreTheTeachersAndFilterThePorch() {
        assertEquals(
                400,
                of.lead()
                        .put(path("/categories"), Collections.singletonList(null))
                        .status(),
                "a list has no holes");
        assertEquals(
                403,
                of.first()
                        .put(path("/categories"), List.of(Map.of("name", "Pests")))
                        .status());
        assertEquals(
                "category-twice",
                of.lead()
                        .put(path("/categories"), List.of(Map.of("name", "Pests"), Map.of("name", " PESTS ")))
                        .code());
        JsonNode made = of.lead()
                .put(path("/categories"), List.of(Map.of("name", "Pests"), Map.of("name", "Weather")))
                .body();
        long pests = made.get(0).get("id").asLong();
        long id = begin();
        Map<String, Object> with = text(1, "Slugs", "<p>Eleven leaves.</p>");
        with.put("category", 999_999_999L);
        assertEquals(
                "category-unknown",
                of.first().put("/api/posts/" + id + "/draft", with).code());
        with.put("category", pests);
        of.first().put("/api/posts/" + id + "/draft", with);
        handIn(of.first(), id, null);
        approve(id);
        assertEquals(
                1,
                of.other()
                        .get(path("/porch?category=" + pests))
                        .body()
                        .get("total")
                        .asInt());
        assertEquals(
                "Pests",
                of.other()
                        .get(path("/porch"))
                        .body()
                        .get("categories")
                        .get(0)
                        .get("label")
                        .asString());
        assertEquals(
                0,
                of.other()
                        .get(path("/porch?category=" + made.get(1).get("id")))
                        .body()
                        .get("total")
                        .asInt());
        of.lead()
                .put(
                        path("/categories"),
                        List.of(Map.of("id", made.get(1).get("id").asLong(), "name", "Pests")));
        assertFalse(of.other().get("/api/posts/" + id).body().has("category"), "a post outlives its category");
    }

    /** A time asked for: approved before it, a post goes up by itself, and counts as published at that very time. */
    @Test
    void aPostGoesUpAtItsTime() {
        long id = begin();
        save(of.first(), id, "Slugs", "<p>Eleven leaves.</p>");
        LocalDateTime now = LocalDateTime.now(ZoneId.of("Europe/London"));
        assertEquals("time-past", handIn(of.first(), id, now.minusMinutes(1)).code());
        LocalDateTime at = now.plusSeconds(3).withNano(0);
        handIn(of.first(), id, at);
        approve(id);
        assertEquals(
                "SCHEDULED",
                of.first().get("/api/posts/" + id).body().get("state").asString());
        assertEquals(404, of.other().get("/api/posts/" + id).status());
        assertEquals(
                "Slugs",
                of.second().get(path("/scheduled")).body().get(0).get("title").asString());
        until(() -> of.other().get("/api/posts/" + id).status() == 200);
        assertEquals(
                at.atZone(ZoneId.of("Europe/London")).toInstant(),
                Instant.parse(of.other()
                        .get("/api/posts/" + id)
                        .body()
                        .get("publishedAt")
                        .asString()));
    }

    @Test
    void theBinKeepsForThirtyDays() {
        long id = begin();
        save(of.first(), id, "Slugs", "<p>Eleven leaves.</p>");
        of.first().call("DELETE", "/api/posts/" + id, null);
        assertEquals(
                30,
                of.first().get(path("/own-posts")).body().get(0).get("daysLeft").asInt());
        assertEquals(200, of.first().post("/api/posts/" + id + "/restore", null).status());
        of.first().call("DELETE", "/api/posts/" + id, null);
        jdbc.sql("update post set binned_at = dateadd('DAY', -31, binned_at) where id = :id")
                .param("id", id)
                .update();
        jobs.emptyTheBin();
        assertEquals(0, of.first().get(path("/own-posts")).body().size());
        assertEquals(
                "bin-emptied",
                of.first().post("/api/posts/" + id + "/restore", null).code());
    }

    @Test
    void announcementsStandApart() {
        of.lead()
                .post(
                        path("/blogs"),
                        BlogSetup.of(BlogKind.TEACHERS, "From the teacher", "", Audience.MY_CLASS, Commenters.CLASS));
        long teachers = of.lead()
                .get(path("/blogs/mine"))
                .body()
                .valueStream()
                .filter(b -> b.get("kind").asString().equals("TEACHERS"))
                .findFirst()
                .orElseThrow()
                .get("id")
                .asLong();
        long id = of.lead()
                .post("/api/blogs/" + teachers + "/posts", Map.of())
                .body()
                .get("id")
                .asLong();
        save(of.lead(), id, "Bring boots", "<p>On Monday.</p>");
        assertEquals(
                200,
                of.lead()
                        .put("/api/posts/" + id + "/announcement", Map.of("announcement", true))
                        .status());
        handIn(of.lead(), id, null);
        JsonNode porch = of.other().get(path("/porch")).body();
        assertEquals(0, porch.get("total").asInt());
        assertEquals(1, porch.get("announcements").asInt());
        assertEquals(
                "Bring boots",
                of.other()
                        .get(path("/porch?announcements=true"))
                        .body()
                        .get("entries")
                        .get(0)
                        .get("title")
                        .asString());
        long own = begin();
        assertEquals(
                "by-staff-only",
                of.lead()
                        .put("/api/posts/" + own + "/announcement", Map.of("announcement", true))
                        .code());
    }

    /**
     * A student asks, a teacher notes and proposes, the student takes over or not; each change is a version, and who
     * proposed it stays to be seen.
     */
    @Test
    void aTeacherWritesInTheMargin() {
        long id = begin();
        save(of.first(), id, "Slugs", "<p>Their is <strong>eleven</strong> leaves.</p>");
        of.first().call("PUT", "/api/posts/" + id + "/help", Map.of("asked", true));
        assertEquals(
                id, of.second().get(path("/asking")).body().get(0).get("postId").asLong());
        String margin = "/api/posts/" + id + "/margin";
        long spelling = of.second()
                .post(
                        margin,
                        Map.of(
                                "quote",
                                "Their is eleven",
                                "nth",
                                0,
                                "remark",
                                "Place, not owner.",
                                "replacement",
                                "There are eleven"))
                .body()
                .get("id")
                .asLong();
        long question = of.second()
                .post(margin, Map.of("quote", "leaves", "nth", 0, "remark", "On which side?"))
                .body()
                .get("id")
                .asLong();
        assertEquals(
                "words-gone",
                of.second()
                        .post(margin, Map.of("quote", "frogs", "nth", 0, "remark", "?"))
                        .code());
        assertEquals(0, of.second().get(path("/asking")).body().size());
        assertEquals(404, of.other().get(margin).status());
        int rev = of.first().get(margin).body().get("rev").asInt();
        assertEquals(
                404,
                of.second()
                        .post(margin + "/" + spelling + "/answer", Map.of("answer", "ACCEPTED", "rev", rev))
                        .status(),
                "only its author takes it over");
        rev = of.first()
                .post(margin + "/" + spelling + "/answer", Map.of("answer", "ACCEPTED", "rev", rev))
                .body()
                .get("rev")
                .asInt();
        assertEquals(
                "<p>There are eleven leaves.</p>",
                of.first()
                        .get("/api/posts/" + id + "/draft")
                        .body()
                        .get("html")
                        .asString()
                        .replaceAll("</?strong>", ""));
        assertEquals(
                200,
                of.first()
                        .post(margin + "/" + question + "/answer", Map.of("answer", "DONE", "rev", rev))
                        .status());
        assertEquals(
                List.of("ACCEPTED", "DONE"),
                of.second()
                        .get(margin)
                        .body()
                        .get("notes")
                        .valueStream()
                        .map(n -> n.get("state").asString())
                        .toList());
        assertEquals(2, of.first().get("/api/posts/" + id + "/versions").body().size());
    }
}

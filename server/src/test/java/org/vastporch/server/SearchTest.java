package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Made;
import org.vastporch.server.School.Person;
import tools.jackson.databind.JsonNode;

/** Searching: what is found, what is marked, and that nothing else ever shows. */
@ServerTest
class SearchTest {

    @Autowired
    School school;

    @LocalServerPort
    int port;

    Made of;

    @BeforeEach
    void makeClass() {
        of = school.make(port);
    }

    private JsonNode search(Person who, String words) {
        return who.get("/api/search?class=" + of.classId() + "&q=" + URLEncoder.encode(words, StandardCharsets.UTF_8))
                .body();
    }

    private JsonNode hits(Person who, String words) {
        return search(who, words).get("hits");
    }

    /** The index follows the database within a moment. */
    private JsonNode until(Person who, String words, int number) {
        Instant end = Instant.now().plusSeconds(15);
        JsonNode hits = hits(who, words);
        while (hits.size() != number) {
            assertTrue(Instant.now().isBefore(end), "not " + number + " hits for " + words + ": " + hits);
            hits = hits(who, words);
        }
        return hits;
    }

    private long publish(String title, String html) {
        school.handIn(of.first(), of.blogOfFirst(), Map.of(), title, html);
        return approve("post");
    }

    private long approve(String subject) {
        JsonNode item = of.lead()
                .get("/api/pile")
                .body()
                .get("items")
                .valueStream()
                .filter(i -> i.get("subject").asString().equals(subject))
                .findFirst()
                .orElseThrow();
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
                                        subject,
                                        "id",
                                        item.get("id").asLong(),
                                        "version",
                                        item.get("version").asInt(),
                                        "rev",
                                        item.get("rev").asInt()))));
        return item.get("id").asLong();
    }

    @Test
    void endingsCaseAndAccentsMakeNoDifferenceAndHitsAreMarked() {
        publish("Naïve gardeners", "<p>She was watering the beds at dawn, and the RADISHES grew.</p>");
        for (String words : List.of("water", "watered bed", "Radish", "naive", "GARDENER", "radi"))
            until(of.other(), words, 1);
        assertEquals(0, hits(of.other(), "watering frogs").size(), "all words must be there");
        JsonNode snippet = hits(of.other(), "radish").get(0).get("snippet");
        assertEquals(
                "RADISHES",
                snippet.valueStream()
                        .filter(s -> s.get("hit").asBoolean())
                        .findFirst()
                        .orElseThrow()
                        .get("text")
                        .asString());
        assertEquals(0, hits(of.other(), "%00<script>* ~\"(").size());
        assertEquals(
                "search-too-long",
                of.other().get("/api/search?q=" + "x".repeat(300)).code());
    }

    @Test
    void whatOneMayNotReadLeavesNoTrace() {
        long post = publish("Slugs", "<p>Eleven leaves of quillwort have holes.</p>");
        of.first()
                .put(
                        "/api/posts/" + post + "/draft",
                        Map.of(
                                "rev",
                                of.first()
                                        .get("/api/posts/" + post + "/draft")
                                        .body()
                                        .get("beside")
                                        .get("rev")
                                        .asInt(),
                                "title",
                                "Slugs",
                                "html",
                                "<p>A thought about hellebore that nobody has seen.</p>",
                                "tags",
                                List.of(),
                                "audience",
                                "MY_CLASS"));
        of.other().post("/api/posts/" + post + "/comments", Map.of("text", "What about the periwinkle?"));
        until(of.other(), "quillwort", 1);
        assertEquals(0, hits(of.other(), "hellebore").size(), "a draft");
        assertEquals(0, hits(of.lead(), "periwinkle").size(), "a comment that waits");
        approve("comment");
        assertEquals(
                "comment", until(of.guest(), "periwinkle", 1).get(0).get("kind").asString());
        Made elsewhere = school.make(port);
        assertEquals(
                0,
                elsewhere
                        .lead()
                        .get("/api/search?q=quillwort")
                        .body()
                        .get("hits")
                        .size(),
                "another class");
        assertEquals(
                404,
                elsewhere
                        .lead()
                        .get("/api/search?q=quillwort&class=" + of.classId())
                        .status());
        assertEquals(
                0,
                of.moderator().get("/api/search?q=quillwort").body().get("hits").size(),
                "a moderator");
        assertEquals(401, school.stranger(port).get("/api/search?q=quillwort").status());
        of.first().call("DELETE", "/api/posts/" + post, null);
        assertEquals(0, hits(of.lead(), "quillwort").size(), "in the bin it is gone at once, whatever the index knows");
        assertEquals(0, hits(of.lead(), "periwinkle").size(), "and its comments with it");
    }

    /**
     * Pages of any size are the same list cut elsewhere; what lies between that one may not read changes neither pages
     * nor where they begin.
     */
    @Test
    void pagesTellOfWhatMayBeReadAlone() {
        for (int i = 0; i < 5; i++)
            publish("Beans " + i, "<p>" + "quillwort ".repeat(1 + i % 2) + "number " + i + ".</p>");
        until(of.other(), "quillwort", 5);
        List<String> whole = walk(of.other(), 50);
        assertEquals(5, whole.stream().distinct().count());
        for (int most : new int[] {1, 2, 3, 4, 5}) assertEquals(whole, walk(of.other(), most), most + " to a page");
        String before = of.other().get("/api/search?q=quillwort&most=2").text();
        // Posts with the word, and with more of it than all that is up; they are taken away again.
        for (int i = 0; i < 5; i++)
            assertEquals(
                    200,
                    of.first()
                            .call(
                                    "DELETE",
                                    "/api/posts/" + publish("Gone " + i, "<p>" + "quillwort ".repeat(9) + "</p>"),
                                    null)
                            .status());
        publish("Later", "<p>Something else altogether: hornwort.</p>");
        until(of.other(), "hornwort", 1);
        assertEquals(before, of.other().get("/api/search?q=quillwort&most=2").text());
        assertEquals(whole, walk(of.other(), 2));
        assertEquals(
                "cursor-unknown",
                of.other().get("/api/search?q=quillwort&after=0").code());
    }

    private List<String> walk(Person who, int most) {
        List<String> titles = new ArrayList<>();
        String next = "";
        do {
            Answer answer = who.get("/api/search?q=quillwort&most=" + most + "&after=" + next);
            assertEquals(200, answer.status(), answer.text());
            JsonNode page = answer.body();
            assertTrue(
                    page.get("hits").size() <= most && !page.get("hits").isEmpty(),
                    "a page that is announced has something on it");
            page.get("hits").forEach(hit -> titles.add(hit.get("title").asString()));
            next = page.path("next").asString("");
        } while (!next.isEmpty());
        return titles;
    }

    @Test
    void peopleAreFoundByTheNameTheyShowAndFilesByTheirs() {
        long first = of.first().id;
        of.lead()
                .put(
                        "/api/classes/" + of.classId() + "/people/" + first + "/shown",
                        Map.of("shown", "PEN_NAME", "penName", "Thistledown Hat"));
        assertEquals(
                "Thistledown Hat",
                search(of.other(), "thist").get("named").get(0).get("name").asString());
        assertEquals(0, search(of.other(), "castellane").get("named").size(), "a real name behind a pen name");
        long id = of.first()
                .post("/api/blogs/" + of.blogOfFirst() + "/posts", Map.of())
                .body()
                .get("id")
                .asLong();
        String address = of.first()
                .upload("/api/posts/" + id + "/files", "Bird-list_spring.pdf", "%PDF-1.7".getBytes())
                .body()
                .get("address")
                .asString();
        of.first().upload("/api/posts/" + id + "/files", "Secret list.pdf", "%PDF-1.7 2".getBytes());
        school.handIn(
                of.first(),
                of.blogOfFirst(),
                Map.of(),
                "Birds",
                "<figure data-kind=\"document\"><a href=\"" + address + "\">Birds</a></figure><p>A list.</p>");
        approve("post");
        JsonNode hit = until(of.other(), "bird spring", 1).get(0);
        assertEquals("file", hit.get("kind").asString());
        assertEquals(0, hits(of.other(), "secret").size(), "a file that is in no published text");
        assertEquals(1, of.other().get("/api/posts/" + id + "/files").body().size());
    }
}

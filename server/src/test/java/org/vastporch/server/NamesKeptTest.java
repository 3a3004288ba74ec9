package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.time.LocalDateTime;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.vastporch.server.School.Person;
import tools.jackson.databind.JsonNode;

/**
 * Names that a blog or a prompt keeps back. Wren Castellane writes nothing else than what stands where they are kept,
 * and so no answer to a reader that carries her words may carry her name or her place as well.
 */
@ServerTest
class NamesKeptTest extends Assessing {

    private static final String WORDS = "Eleven leaves with holes.";

    private long blog;
    private long place;

    @BeforeEach
    void makeACommonBlog() {
        assertEquals(
                200,
                of.lead()
                        .post("/api/classes/" + of.classId() + "/blogs", commonBlog("ANYONE", "GUESTS_TOO"))
                        .status());
        blog = ref();
        place = jdbc.sql("select id from membership where class_id = :class and person_id = :person")
                .param("class", of.classId())
                .param("person", of.first().id)
                .query(Long.class)
                .single();
    }

    private long ref() {
        return of.lead()
                .get("/api/classes/" + of.classId() + "/blogs")
                .body()
                .valueStream()
                .map(b -> b.get("ref").asString())
                .filter(r -> r.startsWith("b"))
                .map(r -> Long.parseLong(r.substring(1)))
                .findFirst()
                .orElseThrow();
    }

    /** @param until null for good */
    private void keepBack(LocalDateTime until) {
        JsonNode current = of.lead().get("/api/blog-setups/b" + blog).body();
        Map<String, Object> setup = new HashMap<>();
        current.get("setup").properties().forEach(p -> setup.put(p.getKey(), p.getValue()));
        setup.put("namesKept", until == null ? Map.of() : Map.of("until", until.toString()));
        assertEquals(
                200,
                of.lead()
                        .put("/api/blog-setups/b" + blog, Map.of("setup", setup, "version", current.get("version")))
                        .status());
    }

    private long posted(Map<String, Object> begin) {
        return school.published(of, of.first(), blog, begin, "Holes");
    }

    private void comment(Person who, long post, String text) {
        who.post("/api/posts/" + post + "/comments", Map.of("text", text));
        for (JsonNode item : of.lead().get("/api/pile").body().get("items"))
            School.decide(of.lead(), item, "APPROVE", "");
    }

    private String feed(Person reader) {
        String path = reader.post("/api/classes/" + of.classId() + "/feed-key", null)
                .body()
                .get("path")
                .asString()
                .replace(".rss", "");
        School.Answer feed = school.stranger(port).get(path + ".atom");
        assertTrue(feed.text().contains("Holes"), feed.text());
        return feed.text();
    }

    /** Everything in which a reader finds what Wren wrote. */
    private Map<String, String> found(Person reader, long post) {
        Map<String, String> found = new HashMap<>();
        for (String path : List.of(
                "/api/posts/" + post,
                "/api/posts/" + post + "/comments",
                "/api/classes/" + of.classId() + "/porch",
                "/api/classes/" + of.classId() + "/porch?blog=" + blog,
                "/api/classes/" + of.classId() + "/porch?unanswered=true",
                "/api/search?q=leaves&class=" + of.classId(),
                "/api/search?q=Castellane+leaves&class=" + of.classId(),
                "/api/search?q=ladybird&class=" + of.classId(),
                "/api/news")) found.put(path, reader.get(path).text());
        found.put("feed", feed(reader));
        return found;
    }

    private void assertUnnamed(Person reader, long post) {
        found(reader, post).forEach((path, text) -> {
            // Typing a name finds the person, whoever writes where; that is not told by what they wrote.
            if (path.contains("Castellane")) assertFalse(text.contains("\"author\":\"Wren"), text);
            else assertFalse(text.contains("Castellane") || text.contains("Wren"), path + " " + text);
            assertFalse(text.contains("\"place\":" + place + ","), path + " " + text);
        });
        JsonNode under = reader.get("/api/classes/" + of.classId() + "/porch?place=" + place)
                .body();
        assertEquals(0, under.get("entries").size(), "under her name nothing is found");
        assertEquals(0, under.get("total").asInt());
        JsonNode rail = reader.get("/api/classes/" + of.classId() + "/rail?place=" + place)
                .body();
        assertEquals(
                0, rail.get("counts").valueStream().mapToInt(JsonNode::asInt).sum(), rail.toString());
    }

    @Test
    void classmatesAndGuestsReadNoNamesAndThoseWhoWorkThereAll() {
        keepBack(null);
        of.other().post("/api/subscriptions", Map.of("classId", of.classId(), "kind", "BLOG", "target", blog));
        long post = posted(Map.of());
        comment(of.first(), post, "A ladybird was there too.");
        comment(of.guest(), post, "How many spots had the ladybird?");
        comment(of.second(), post, "Seven, I think, had the ladybird.");
        for (Person reader : List.of(of.other(), of.guest())) assertUnnamed(reader, post);
        JsonNode read = of.other().get("/api/posts/" + post).body();
        assertEquals("Somebody in the class", read.get("author").asString());
        assertEquals(0, read.get("place").asLong());
        assertTrue(read.get("namesKept").isObject());
        assertFalse(read.get("sightline").has("names"));
        List<String> comments = comments(of.other(), post).toList();
        assertEquals(List.of("The author", "Reader 1"), comments.subList(0, 2));
        assertTrue(comments.get(2).contains("Second"), "who works there stands by their words");
        assertTrue(of.other().get("/api/news").text().contains("Holes"), "it is news all the same");
        for (Person reader : List.of(of.lead(), of.second(), of.first())) {
            assertEquals(
                    "Wren Castellane",
                    reader.get("/api/posts/" + post).body().get("author").asString());
            assertEquals("Wren Castellane", comments(reader, post).findFirst().orElseThrow());
            assertEquals(
                    1,
                    reader.get("/api/classes/" + of.classId() + "/porch?place=" + place)
                            .body()
                            .get("total")
                            .asInt());
        }
    }

    private Stream<String> comments(Person reader, long post) {
        return reader.get("/api/posts/" + post + "/comments")
                .body()
                .valueStream()
                .map(c -> c.get("author").asString());
    }

    @Test
    void whenTheTimeIsOverNamesAreReadAgain() {
        keepBack(LocalDateTime.now(LONDON).plusDays(2));
        long post = posted(Map.of());
        assertUnnamed(of.other(), post);
        keepBack(LocalDateTime.now(LONDON).minusMinutes(2));
        assertTrue(
                of.other().get("/api/classes/" + of.classId() + "/porch").text().contains("Wren Castellane"));
        JsonNode read = of.other().get("/api/posts/" + post).body();
        assertEquals("Wren Castellane", read.get("author").asString());
        assertFalse(read.has("namesKept"));
    }

    @Test
    void aPromptKeepsThemBackToo() {
        Map<String, Object> wanted = open("Holes in leaves", in(2));
        Map<String, Object> answers = new HashMap<>(School.answers(1, false));
        answers.put("namesKept", Map.of());
        wanted.put("answers", answers);
        long prompt = set(wanted);
        long post = posted(Map.of("promptId", prompt));
        assertUnnamed(of.other(), post);
        JsonNode change = of.lead().get("/api/prompts/" + prompt + "/editable").body();
        assertTrue(
                change.get("prompt").get("answers").get("namesKept").isObject(),
                "it is kept when the prompt is changed");
        // In a blog of one's own the blog says whose it is; those who comment stay unnamed.
        long own = school.published(of, of.first(), of.blogOfFirst(), Map.of("promptId", prompt), "Own");
        comment(of.other(), own, "Mine has twelve.");
        JsonNode read = of.guest().get("/api/posts/" + own).body();
        assertEquals("Wren Castellane", read.get("author").asString());
        assertEquals(List.of("Reader 1"), comments(of.guest(), own).toList());
    }

    @Test
    void subscribingToAPersonDoesNotTellWhoWroteIt() {
        keepBack(null);
        of.other().post("/api/subscriptions", Map.of("classId", of.classId(), "kind", "PERSON", "target", place));
        of.lead().post("/api/subscriptions", Map.of("classId", of.classId(), "kind", "PERSON", "target", place));
        long post = posted(Map.of());
        comment(of.other(), post, "A ladybird!");
        assertEquals(0, of.other().get("/api/news").body().get("items").size());
        assertTrue(of.lead().get("/api/news").text().contains("Holes"));
        of.other().post("/api/subscriptions", Map.of("classId", of.classId(), "kind", "CLASS"));
        assertTrue(of.other().get("/api/news").text().contains("Holes"));
        assertUnnamed(of.other(), post);
        JsonNode answer = of.first().get("/api/news").body().get("items").get(0);
        assertEquals("ANSWER", answer.get("kind").asString());
        assertEquals("Somebody in the class", answer.get("by").asString());
    }

    @Test
    void strangersReadNoNamesOnTheFrontPageAndInItsFeeds() {
        keepBack(null);
        jdbc.sql("update class set open = true, ceiling = 4 where id = :id")
                .param("id", of.classId())
                .update();
        long post = posted(Map.of());
        jdbc.sql("update post set audience = 4 where id = :id")
                .param("id", post)
                .update();
        comment(of.other(), post, "A ladybird was there too.");
        of.lead().put("/api/blogs/" + of.blogOfFirst() + "/look", Map.of("look", "TIDE"));
        String at = "/"
                + jdbc.sql("select address from class where id = :id")
                        .param("id", of.classId())
                        .query(String.class)
                        .single();
        Person stranger = school.stranger(port);
        String inBlog = at + "/"
                + jdbc.sql("select address from blog where id = :id")
                        .param("id", blog)
                        .query(String.class)
                        .single();
        String feeds = "/feeds/classes/" + of.classId();
        for (String path : List.of(
                at,
                inBlog,
                "/api/posts/" + post,
                feeds + ".json",
                feeds + ".atom",
                feeds + ".rss",
                "/feeds/blogs/" + blog + ".atom")) assertTells(stranger, path, "Holes");
        for (String path : List.of(inBlog + "/" + post, "/api/posts/" + post + "/comments", feeds + "/comments.atom"))
            assertTells(stranger, path, "ladybird");
    }

    private static void assertTells(Person stranger, String path, String words) {
        School.Answer answer = stranger.get(path);
        assertEquals(200, answer.status(), path);
        assertTrue(answer.text().contains(words), path + " " + answer.text());
        assertFalse(answer.text().contains("Castellane") || answer.text().contains("Aurelio"), path + answer.text());
    }
}

package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.h2.mvstore.MVStoreTool;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.test.annotation.DirtiesContext;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;
import org.vastporch.server.School.Made;
import org.vastporch.server.School.Person;
import org.vastporch.server.moderation.NoticeService;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.search.Indexer;
import tools.jackson.databind.JsonNode;

/**
 * Whoever is erased leaves no trace: the raw bytes of the database file are searched, as it lies there and written out
 * without compression.
 */
@SpringBootTest(
        webEnvironment = SpringBootTest.WebEnvironment.RANDOM_PORT,
        properties = {
            "vastporch.quiet=true",
            "vastporch.feeds.check-every=PT1H",
            "vastporch.feeds.between=PT0S",
            "vastporch.mail.send-every=PT1H",
            "vastporch.mail.digest-every=PT1H"
        })
@DirtiesContext
class ErasureTest {

    @TempDir
    static Path data;

    @DynamicPropertySource
    static void keepIn(DynamicPropertyRegistry settings) {
        settings.add("vastporch.data", () -> data.toString());
    }

    private static Path file() {
        return data.resolve("porch.mv.db");
    }

    /** Words that nobody else in this school could have written. */
    private static final List<String> TRACES = List.of(
            "Zebediah",
            "Quillfeather",
            "zebediah.q",
            "zq@lost.example",
            "umbellifer",
            "periwinkle",
            "gooseberry",
            "Thistledown Hat",
            "thimblerig");

    @Autowired
    School school;

    @Autowired
    PostOffice post;

    @Autowired
    PeopleService people;

    @Autowired
    NoticeService notices;

    @Autowired
    Indexer indexer;

    @Autowired
    JdbcClient jdbc;

    @LocalServerPort
    int port;

    @Test
    void nothingOfThePersonIsLeftInTheFile() throws IOException {
        Made of = school.make(port);
        String path = "/api/classes/" + of.classId();
        JsonNode rows = of.lead()
                .post(
                        path + "/roster/preview",
                        Map.of("text", "Surname,Forename,E-mail\nQuillfeather,Zebediah,zq@lost.example"))
                .body()
                .get("rows");
        of.lead().post(path + "/roster", Map.of("rows", rows));
        Person zebediah = null;
        while (zebediah == null)
            for (JsonNode p : of.lead().get(path + "/people").body())
                if (p.get("username").asString().equals("zebediah.q"))
                    zebediah = school.new Person(port, p.get("id").asLong());
        people.setPassword(zebediah.id, School.PASSWORD);
        of.lead()
                .post(
                        path + "/invitations",
                        Map.of("role", "GUEST", "name", "Zebediah's aunt", "email", "zq@lost.example"));
        of.lead()
                .post(
                        path + "/invitations",
                        Map.of("role", "STUDENT", "name", "Zebediah Quillfeather", "email", "somewhere@lost.example"));
        of.lead()
                .put(
                        path + "/people/" + zebediah.id + "/shown",
                        Map.of("shown", "PEN_NAME", "penName", "Thistledown Hat"));
        jdbc.sql("update person set email = 'ada@post.example' where id = :id")
                .param("id", of.lead().id)
                .update();
        of.lead()
                .put(
                        path + "/notice",
                        Map.of(
                                "cadence",
                                "AT_ONCE",
                                "address",
                                "ada@post.example",
                                "quietFrom",
                                "00:00:00",
                                "quietUntil",
                                "00:00:00"));
        write(zebediah, path);
        jdbc.sql("""
                                update post
                                 set waiting_since = dateadd('MINUTE', -20, waiting_since)
                                 where waiting_since is not null""").update();
        jdbc.sql("update notice_wish set told_upto = dateadd('MINUTE', -30, told_upto)")
                .update();
        notices.tellWhatIsDue();
        assertTrue(post.lettersTo("ada@post.example").get(0).text().contains("On the umbellifer, by Zebediah"));
        long other = school.published(of, of.first(), of.blogOfFirst(), Map.of(), "A post that stays");
        zebediah.post("/api/posts/" + other + "/reports", Map.of("reason", "It is about my gooseberry."));
        long comment = zebediah.post("/api/posts/" + other + "/comments", Map.of("text", "A gooseberry for that."))
                .body()
                .get("id")
                .asLong();
        of.lead().post("/api/comments/" + comment + "/words", Map.of("text", "Zebediah, what is a gooseberry?"));
        JsonNode waits = of.lead()
                .get("/api/pile")
                .body()
                .get("items")
                .valueStream()
                .filter(i -> i.get("subject").asString().equals("comment"))
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
                                        "comment",
                                        "id",
                                        comment,
                                        "version",
                                        1,
                                        "rev",
                                        waits.get("rev").asInt()))));
        // What is up of the child's own stands in the index as well, with the words of others about it.
        long up = school.published(of, zebediah, blogOf(zebediah, path), Map.of(), "A thimblerig of periwinkle");
        zebediah.post("/api/posts/" + up + "/comments", Map.of("text", "More thimblerig."));
        giveAnExampleAndSpeakToIt(of, zebediah, path, up);
        of.lead().post("/api/posts/" + up + "/words", Map.of("text", "Zebediah, that is a fine thimblerig."));
        long reply = of.first()
                .post("/api/posts/" + other + "/comments", Map.of("text", "Thank you.", "parentId", comment))
                .body()
                .get("id")
                .asLong();

        indexer.rebuild();
        assertTrue(
                foundInAllFiles().keySet().stream().anyMatch(name -> name.startsWith("search")),
                "the index is readable before");
        List<String> before = found(Files.readAllBytes(file()));
        assertTrue(
                before.containsAll(List.of("Zebediah", "Quillfeather", "umbellifer", "gooseberry")),
                "the file is readable before: " + before);
        assertEquals(
                "typed-wrong",
                of.lead()
                        .post("/api/people/" + zebediah.id + "/erasure", Map.of("typed", "zebediah"))
                        .code());
        assertEquals(
                200,
                of.lead()
                        .post("/api/people/" + zebediah.id + "/erasure", Map.of("typed", "zebediah.q"))
                        .status());

        assertEquals(List.of(), found(Files.readAllBytes(file())), "in the file as it lies there");
        assertEquals(Map.of(), foundInAllFiles(), "in any file of the data folder");
        assertEquals(List.of(), found(writtenOut()), "in the rows that are left");
        assertEquals(401, zebediah.get("/api/me").status());
        assertEquals(1, of.first().get(path + "/porch").body().get("total").asInt());
        JsonNode comments = of.first().get("/api/posts/" + other + "/comments").body();
        assertEquals(
                List.of(reply),
                comments.valueStream().map(c -> c.get("id").asLong()).toList(),
                "the answer stays and stands on its own");
        assertFalse(comments.get(0).has("parentId"));
        assertEquals(
                200, of.lead().post(path + "/groups", Map.of("name", "Bed 9")).status(), "the school goes on");
    }

    /** The post stands as an example with a prompt; what was handed in for that got spoken feedback. */
    private void giveAnExampleAndSpeakToIt(Made of, Person zebediah, String path, long up) {
        long prompt = of.lead()
                .post(path + "/prompts", EndpointTableTest.wantedPrompt())
                .body()
                .get("id")
                .asLong();
        long example = of.lead()
                .post("/api/prompts/" + prompt + "/examples", Map.of("postId", up))
                .body()
                .get("id")
                .asLong();
        assertEquals(
                200,
                zebediah.put("/api/examples/" + example + "/leave", Map.of("given", true, "named", true))
                        .status());
        school.published(of, zebediah, blogOf(zebediah, path), Map.of("promptId", prompt), "On the umbellifer again");
        assertEquals(
                200,
                of.lead()
                        .upload(
                                "/api/prompts/" + prompt + "/marking/" + zebediah.id
                                        + "/recordings?summary=A+gooseberry",
                                "Thistledown Hat.mp3",
                                FilesTest.sound(3_000))
                        .status());
    }

    private static long blogOf(Person who, String path) {
        return who.get(path + "/blogs/mine").body().get(0).get("id").asLong();
    }

    private void write(Person who, String path) {
        long blog = blogOf(who, path);
        long id = who.post("/api/blogs/" + blog + "/posts", Map.of())
                .body()
                .get("id")
                .asLong();
        int rev = who.put(
                        "/api/posts/" + id + "/draft",
                        Map.of(
                                "rev",
                                1,
                                "title",
                                "On the umbellifer",
                                "html",
                                "<p>A first thought of periwinkle.</p>",
                                "tags",
                                List.of("umbellifer"),
                                "audience",
                                "MY_CLASS"))
                .body()
                .get("rev")
                .asInt();
        rev = who.put(
                        "/api/posts/" + id + "/draft",
                        Map.of(
                                "rev",
                                rev,
                                "title",
                                "On the umbellifer",
                                "html",
                                "<p>A second thought.</p>",
                                "tags",
                                List.of("umbellifer"),
                                "audience",
                                "MY_CLASS"))
                .body()
                .get("rev")
                .asInt();
        who.upload(
                "/api/posts/" + id + "/files",
                "umbellifer.pdf",
                "%PDF-1.7 umbellifer".getBytes(StandardCharsets.UTF_8));
        who.post("/api/posts/" + id + "/hand-in", Map.of("rev", rev));
        who.post(path + "/feed-key", null);
    }

    /**
     * The words that stand in each file, by its name; in the index words stand in small letters and without their
     * endings.
     */
    private static Map<String, List<String>> foundInAllFiles() throws IOException {
        Map<String, List<String>> found = new TreeMap<>();
        try (Stream<Path> files = Files.walk(data)) {
            for (Path each : files.filter(Files::isRegularFile).toList()) {
                String text = new String(Files.readAllBytes(each), StandardCharsets.ISO_8859_1).toLowerCase();
                List<String> words = Stream.of(
                                "zebediah",
                                "quillfeather",
                                "umbellif",
                                "periwinkl",
                                "gooseberr",
                                "thistledown",
                                "thimblerig")
                        .filter(text::contains)
                        .toList();
                if (!words.isEmpty()) found.put(data.relativize(each).toString(), words);
            }
        }
        return found;
    }

    private static List<String> found(byte[] bytes) {
        List<String> found = new ArrayList<>();
        String wide = new String(bytes, StandardCharsets.UTF_16BE);
        String odd = bytes.length > 1 ? new String(bytes, 1, bytes.length - 1, StandardCharsets.UTF_16BE) : "";
        String narrow = new String(bytes, StandardCharsets.ISO_8859_1);
        for (String trace : TRACES)
            if (narrow.contains(trace) || wide.contains(trace) || odd.contains(trace)) found.add(trace);
        return found;
    }

    /** The rows that are there, written out once more without compression, so that no word hides in a packed page. */
    private static byte[] writtenOut() throws IOException {
        Path copy = Files.createTempFile("porch", ".mv.db");
        Files.copy(file(), copy, StandardCopyOption.REPLACE_EXISTING);
        MVStoreTool.compact(copy.toString(), false);
        byte[] bytes = Files.readAllBytes(copy);
        Files.delete(copy);
        return bytes;
    }
}

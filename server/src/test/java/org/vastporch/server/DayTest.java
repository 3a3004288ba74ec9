package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.CRC32;
import javax.imageio.ImageIO;
import javax.xml.parsers.DocumentBuilderFactory;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Made;
import org.vastporch.server.School.Person;
import tools.jackson.databind.JsonNode;

/** Writing, approving, reading and feeds over HTTP: who gets what, and what happens when two act at once. */
@ServerTest
class DayTest {

    @Autowired
    School school;

    @LocalServerPort
    int port;

    Made of;

    @BeforeEach
    void makeClass() {
        of = school.make(port);
    }

    private static Map<String, Object> text(int rev, String title, String html) {
        return Map.of("rev", rev, "title", title, "html", html, "tags", List.of("slugs"), "audience", "MY_CLASS");
    }

    private long draft() {
        return of.first()
                .post("/api/blogs/" + of.blogOfFirst() + "/posts", Map.of())
                .body()
                .get("id")
                .asLong();
    }

    private long handedIn(String html) {
        long id = draft();
        int rev = of.first()
                .put("/api/posts/" + id + "/draft", text(1, "Slugs", html))
                .body()
                .get("rev")
                .asInt();
        assertEquals(
                "WAITING",
                of.first()
                        .post("/api/posts/" + id + "/hand-in", Map.of("rev", rev))
                        .body()
                        .get("state")
                        .asString());
        return id;
    }

    private JsonNode inPile(Person who, long id) {
        for (JsonNode item : who.get("/api/pile").body().get("items"))
            if (item.get("id").asLong() == id && item.get("subject").asString().equals("post")) return item;
        return null;
    }

    @Test
    void onlyAuthorAndStaffReadAPostUntilItIsApproved() {
        long id = handedIn("<p>Eleven leaves with holes.</p>");
        for (Person reader : List.of(of.first(), of.lead(), of.second(), of.moderator()))
            assertEquals(200, reader.get("/api/posts/" + id).status());
        assertEquals(404, of.other().get("/api/posts/" + id).status());
        assertEquals(404, of.guest().get("/api/posts/" + id).status());
        assertEquals(401, school.stranger(port).get("/api/posts/" + id).status());

        assertEquals(
                "PUBLISHED",
                School.decide(of.moderator(), inPile(of.moderator(), id), "APPROVE", "")
                        .body()
                        .get(0)
                        .get("state")
                        .asString());
        assertEquals(200, of.other().get("/api/posts/" + id).status());
        assertEquals(200, of.guest().get("/api/posts/" + id).status());
        assertEquals(
                404, of.moderator().get("/api/posts/" + id).status(), "what no longer waits is not the moderator's");
        JsonNode porch =
                of.other().get("/api/classes/" + of.classId() + "/porch").body();
        assertEquals(1, porch.get("total").asInt());
        String author = porch.get("people").get(0).get("key").asString();
        assertEquals(
                1,
                of.other()
                        .get("/api/classes/" + of.classId() + "/porch?place=" + author)
                        .body()
                        .get("total")
                        .asInt());
        assertEquals(
                404,
                of.moderator().get("/api/classes/" + of.classId() + "/porch").status(),
                "the Porch is not the moderator's either");
    }

    @Test
    void whatIsPastedComesOutClean() {
        long id = draft();
        of.first()
                .put(
                        "/api/posts/" + id + "/draft",
                        text(
                                1,
                                "x",
                                "<p onclick='x()' style='color:red'>Hi<script>1</script></p><img "
                                        + "src='http://t.example/p.gif' width=1>"));
        assertEquals(
                "<p>Hi</p>",
                of.first().get("/api/posts/" + id + "/draft").body().get("html").asString());
    }

    @Test
    void twoTabsDoNotWriteOverEachOther() {
        long id = draft();
        assertEquals(
                200,
                of.first()
                        .put("/api/posts/" + id + "/draft", text(1, "One", "<p>one</p>"))
                        .status());
        Answer second = of.first().put("/api/posts/" + id + "/draft", text(1, "Two", "<p>two</p>"));
        assertEquals(409, second.status());
        assertEquals("changed-elsewhere", second.code());
        assertEquals("<p>one</p>", second.body().get("html").asString());
        assertEquals(
                200,
                of.first()
                        .put(
                                "/api/posts/" + id + "/draft",
                                text(second.body().get("rev").asInt(), "Two", "<p>two</p>"))
                        .status());
    }

    @Test
    void twoTeachersDecideOnce() {
        long id = handedIn("<p>x</p>");
        JsonNode seen = inPile(of.lead(), id);
        School.decide(of.lead(), seen, "RETURN", "How long did it take?");
        Answer late = School.decide(of.second(), seen, "APPROVE", "");
        assertEquals("already-decided", late.body().get(0).get("code").asString());
        assertTrue(late.body().get(0).get("problem").asString().startsWith("Ms Lead"));
        assertEquals(
                "RETURNED",
                of.first().get("/api/posts/" + id).body().get("state").asString());
    }

    @Test
    void anApprovalNeverCoversTextThatWasNotSeen() {
        long id = handedIn("<p>harmless</p>");
        JsonNode seen = inPile(of.lead(), id);
        int rev = of.first()
                .put("/api/posts/" + id + "/draft", text(seen.get("rev").asInt(), "Slugs", "<p>not harmless</p>"))
                .body()
                .get("rev")
                .asInt();
        of.first().post("/api/posts/" + id + "/hand-in", Map.of("rev", rev));
        assertEquals(
                "newer-version",
                School.decide(of.lead(), seen, "APPROVE", "")
                        .body()
                        .get(0)
                        .get("code")
                        .asString());
        assertEquals(404, of.other().get("/api/posts/" + id).status());
    }

    @Test
    void anEditWaitsWhileTheApprovedVersionStaysUpAndUndoRestores() {
        long id = handedIn("<p>first words</p>");
        School.decide(of.lead(), inPile(of.lead(), id), "APPROVE", "");
        int rev = of.first()
                .get("/api/posts/" + id + "/draft")
                .body()
                .get("beside")
                .get("rev")
                .asInt();
        rev = of.first()
                .put("/api/posts/" + id + "/draft", text(rev, "Slugs", "<p>second words</p>"))
                .body()
                .get("rev")
                .asInt();
        of.first().post("/api/posts/" + id + "/hand-in", Map.of("rev", rev));
        assertEquals(
                "<p>first words</p>",
                of.other().get("/api/posts/" + id).body().get("html").asString());
        JsonNode item = inPile(of.lead(), id);
        assertEquals(
                List.of("REMOVED", "ADDED", "SAME"),
                item.get("changes")
                        .get("words")
                        .valueStream()
                        .map(s -> s.get("change").asString())
                        .toList());

        long decision = School.decide(of.lead(), item, "APPROVE", "")
                .body()
                .get(0)
                .get("decision")
                .asLong();
        assertEquals(
                "<p>second words</p>",
                of.other().get("/api/posts/" + id).body().get("html").asString());
        assertEquals(
                200,
                of.second()
                        .post("/api/pile/decisions/" + decision + "/undo", null)
                        .status());
        assertEquals(
                "<p>first words</p>",
                of.other().get("/api/posts/" + id).body().get("html").asString());
        assertEquals(
                409,
                of.second()
                        .post("/api/pile/decisions/" + decision + "/undo", null)
                        .status());
    }

    @Test
    void aPostReachesFurtherOnlyOnceSomebodyApprovedThat() {
        long id = handedIn("<p>x</p>");
        School.decide(of.lead(), inPile(of.lead(), id), "APPROVE", "");
        int rev = of.first()
                .get("/api/posts/" + id + "/draft")
                .body()
                .get("beside")
                .get("rev")
                .asInt();
        Map<String, Object> narrow = new HashMap<>(text(rev, "Slugs", "<p>x</p>"));
        narrow.put("audience", "STAFF_AND_ME");
        rev = of.first()
                .put("/api/posts/" + id + "/draft", narrow)
                .body()
                .get("rev")
                .asInt();
        assertEquals(404, of.other().get("/api/posts/" + id).status(), "narrower at once");
        JsonNode wide = of.first()
                .put("/api/posts/" + id + "/draft", text(rev, "Slugs", "<p>x</p>"))
                .body();
        assertEquals(404, of.other().get("/api/posts/" + id).status(), "wider only after approval");
        of.first()
                .post(
                        "/api/posts/" + id + "/hand-in",
                        Map.of("rev", wide.get("rev").asInt()));
        assertEquals(404, of.other().get("/api/posts/" + id).status());
        JsonNode item = inPile(of.lead(), id);
        assertEquals(
                wide.get("sightline").get("heads").get("readers").asInt(),
                item.get("readers").get("people").asInt(),
                "the one who approves is told how far it will reach");
        School.decide(of.lead(), item, "APPROVE", "");
        assertEquals(200, of.other().get("/api/posts/" + id).status());
        narrow.put("audience", "EVERYBODY");
        assertEquals(
                "audience-unknown",
                of.first()
                        .put("/api/posts/" + id + "/draft", withRev(narrow, id))
                        .code());
    }

    private Map<String, Object> withRev(Map<String, Object> save, long id) {
        save.put(
                "rev",
                of.first()
                        .get("/api/posts/" + id + "/draft")
                        .body()
                        .get("beside")
                        .get("rev")
                        .asInt());
        return save;
    }

    @Test
    void aCommentWaitsAndAGuestsIsHeld() {
        long id = handedIn("<p>x</p>");
        School.decide(of.lead(), inPile(of.lead(), id), "APPROVE", "");
        Answer comment = of.other().post("/api/posts/" + id + "/comments", Map.of("text", "Ring 07700 900 412"));
        assertEquals("WAITING", comment.body().get("state").asString());
        assertEquals(0, of.first().get("/api/posts/" + id + "/comments").body().size());
        assertEquals(
                "comments-for-class",
                of.guest()
                        .post("/api/posts/" + id + "/comments", Map.of("text", "Well done"))
                        .code());
        JsonNode item = of.moderator()
                .get("/api/pile")
                .body()
                .get("items")
                .valueStream()
                .filter(i -> i.get("subject").asString().equals("comment"))
                .findFirst()
                .orElseThrow();
        assertEquals("PHONE", item.get("holds").get(0).get("rule").asString());
        assertEquals(
                "comment-empty",
                of.other()
                        .post("/api/posts/" + id + "/comments", Map.of("text", "  "))
                        .code());
    }

    @Test
    void picturesAreKnownByTheirContentAndServedToReadersOnly() throws IOException {
        long id = draft();
        ByteArrayOutputStream png = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(3000, 1000, BufferedImage.TYPE_INT_RGB), "png", png);
        Answer added = of.first().upload("/api/posts/" + id + "/pictures", "slugs.png", png.toByteArray());
        assertEquals(1600, added.body().get("width").asInt());
        String address = added.body().get("address").asString();
        assertEquals(200, of.lead().get(address).status());
        assertEquals(
                "nosniff",
                of.lead()
                        .get(address)
                        .raw()
                        .headers()
                        .firstValue("X-Content-Type-Options")
                        .orElse(""));
        assertEquals(404, of.other().get(address).status());
        assertEquals(401, school.stranger(port).get(address).status());
        for (String bad : List.of(
                "just text",
                "<svg xmlns='http://www.w3.org/2000/svg'><script>1</script></svg>",
                "\u0089PNG\r\n\u001a\n broken"))
            assertEquals(
                    "picture-not-taken",
                    of.first()
                            .upload(
                                    "/api/posts/" + id + "/pictures",
                                    "a.png",
                                    bad.getBytes(StandardCharsets.ISO_8859_1))
                            .code());
        assertEquals(
                "picture-not-taken",
                of.first()
                        .upload("/api/posts/" + id + "/pictures", "huge.png", pngHeader(20_000, 20_000))
                        .code());
    }

    /** A PNG that says it is huge; nothing of it needs to be there to be refused. */
    private static byte[] pngHeader(int width, int height) throws IOException {
        ByteArrayOutputStream png = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(1, 1, BufferedImage.TYPE_INT_RGB), "png", png);
        byte[] bytes = png.toByteArray();
        ByteBuffer.wrap(bytes).putInt(16, width).putInt(20, height);
        CRC32 crc = new CRC32();
        crc.update(bytes, 12, 17);
        ByteBuffer.wrap(bytes).putInt(29, (int) crc.getValue());
        return bytes;
    }

    @Test
    void feedsCarryWhatTheirReaderMayReadAndNothingElse() {
        long id = handedIn("<p>Only for the class &amp; no one else.</p>");
        School.decide(of.lead(), inPile(of.lead(), id), "APPROVE", "");
        Person stranger = school.stranger(port);
        for (String format : List.of("rss", "atom", "json")) {
            Answer open = stranger.get("/feeds/classes/" + of.classId() + "." + format);
            assertEquals(200, open.status());
            assertFalse(
                    open.text().contains("Only for the class")
                            || open.text().contains("Garden")
                            || open.text().contains("Wren"),
                    open.text());
        }
        String secret = of.other()
                .post("/api/classes/" + of.classId() + "/feed-key", null)
                .body()
                .get("path")
                .asString();
        Answer mine = stranger.get(secret);
        assertTrue(mine.text().contains("Only for the class"));
        String etag = mine.raw().headers().firstValue("ETag").orElseThrow();
        assertEquals(304, stranger.get(secret, "If-None-Match", etag).status());
        assertEquals(200, stranger.get(secret.replace(".rss", ".atom")).status());

        of.lead()
                .post(
                        "/api/classes/" + of.classId() + "/people/" + of.other().id + "/leaving",
                        Map.of("leaving", "KEEP"));
        assertNotEquals(200, stranger.get(secret).status(), "a reader who left reads no more");
        assertEquals(404, of.other().get("/api/posts/" + id).status());
    }

    /**
     * XML has no word for one half of a character, nor for most control characters; wherever somebody puts one, the
     * feeds of the class can be read.
     */
    @Test
    void halfACharacterBreaksNoFeed() throws Exception {
        long id = draft();
        String odd = "a\\ud83d b\\u0001\\ufffe";
        Answer saved = of.first()
                .callText(
                        "PUT",
                        "/api/posts/" + id + "/draft",
                        ("{'rev':1,'title':'" + odd + "','html':'<p>" + odd + "</p>','tags':['" + odd
                                        + "'],'audience':'MY_CLASS'}")
                                .replace('\'', '"'));
        assertEquals(200, saved.status(), saved.text());
        assertEquals(
                200,
                of.first()
                        .post(
                                "/api/posts/" + id + "/hand-in",
                                Map.of("rev", saved.body().get("rev").asInt()))
                        .status());
        School.decide(of.lead(), inPile(of.lead(), id), "APPROVE", "");
        assertEquals(
                "a b", of.lead().get("/api/posts/" + id).body().get("title").asString());
        String secret = of.other()
                .post("/api/classes/" + of.classId() + "/feed-key", null)
                .body()
                .get("path")
                .asString();
        for (String format : List.of(".rss", ".atom")) {
            Answer feed = school.stranger(port).get(secret.replace(".rss", format));
            DocumentBuilderFactory.newInstance()
                    .newDocumentBuilder()
                    .parse(new ByteArrayInputStream(feed.raw().body()));
            assertTrue(feed.text().contains("a b"), feed.text());
        }
    }

    /** Length is looked at before anything is done with a text; what is sent beyond all reason is not even read. */
    @Test
    void whatIsTooLongIsRefusedBeforeItCosts() {
        long id = draft();
        Answer text = of.first().put("/api/posts/" + id + "/draft", text(1, "A title", "<b>".repeat(310_000)));
        assertEquals("text-too-long", text.code());
        assertEquals("html", text.body().get("field").asString());
        assertEquals(
                "too-long",
                of.first()
                        .put("/api/posts/" + id + "/draft", text(1, "A title", "x".repeat(4_100_000)))
                        .code());
        assertEquals(
                413,
                of.first()
                        .callText("POST", "/api/posts/" + id + "/comments", "{\"text\":\"" + "x".repeat(4_100_000))
                        .status());
        Answer many = of.first()
                .put(
                        "/api/posts/" + id + "/draft",
                        text(1, "A title", "<p>Eleven</p>" + "<b>".repeat(45_000) + "leaves"));
        assertEquals(200, many.status(), many.text());
        assertTrue(of.first()
                .get("/api/posts/" + id + "/draft")
                .body()
                .get("html")
                .asString()
                .contains("leaves"));
    }

    @Test
    void badInputIsSaidInWords() {
        long id = draft();
        Answer title = of.first().put("/api/posts/" + id + "/draft", text(1, "x".repeat(10_000), ""));
        assertEquals(422, title.status());
        assertEquals("title", title.body().get("field").asString());
        assertEquals(
                "A title has at most 200 characters; this one has 10000.",
                title.body().get("detail").asString());
        assertEquals(
                "not-ready",
                of.first()
                        .post("/api/posts/" + id + "/hand-in", Map.of("rev", 1))
                        .code());
        assertEquals(
                "note-missing",
                of.lead()
                        .post("/api/pile/decisions", Map.of("step", "RETURN", "note", " ", "items", List.of()))
                        .code());
        assertEquals(
                "roster-no-name",
                of.lead()
                        .post(
                                "/api/classes/" + of.classId() + "/roster/preview",
                                Map.of("text", "E-mail;Form\na@b.example;8Q"))
                        .code());
        assertEquals(
                "table-other-file",
                of.lead()
                        .upload(
                                "/api/classes/" + of.classId() + "/roster/preview-file",
                                "roster.csv",
                                "%PDF-1.7".getBytes(StandardCharsets.UTF_8))
                        .code());
        assertEquals(
                400,
                of.lead()
                        .put("/api/classes/" + of.classId() + "/rules", "not an object")
                        .status());
    }
}

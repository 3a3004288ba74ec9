package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.imageio.ImageIO;
import javax.xml.parsers.DocumentBuilderFactory;
import org.jsoup.Jsoup;
import org.jsoup.parser.Parser;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Made;
import org.vastporch.server.School.Person;
import org.w3c.dom.Document;
import org.w3c.dom.Element;

/** Feeds as they go out: what stands in them for whom, under which ids, and when they change. */
@ServerTest
class FeedsOutTest {

    @Autowired
    School school;

    @LocalServerPort
    int port;

    Made of;
    Person stranger;

    @BeforeEach
    void makeClass() {
        of = school.make(port);
        stranger = school.stranger(port);
    }

    private long published(String title, String html) {
        long id = of.first()
                .post("/api/blogs/" + of.blogOfFirst() + "/posts", Map.of())
                .body()
                .get("id")
                .asLong();
        hand(id, 1, title, html);
        return id;
    }

    private void hand(long id, int rev, String title, String html) {
        int now = of.first()
                .put(
                        "/api/posts/" + id + "/draft",
                        Map.of(
                                "rev",
                                rev,
                                "title",
                                title,
                                "html",
                                html,
                                "tags",
                                List.of("slugs"),
                                "audience",
                                "MY_CLASS"))
                .body()
                .get("rev")
                .asInt();
        of.first().post("/api/posts/" + id + "/hand-in", Map.of("rev", now));
        decide(id, "APPROVE");
    }

    private void decide(long id, String step) {
        of.lead().get("/api/pile").body().get("items").forEach(item -> {
            if (item.get("id").asLong() == id) School.decide(of.lead(), item, step, "");
        });
    }

    private String secret(Person reader) {
        return reader.post("/api/classes/" + of.classId() + "/feed-key", null)
                .body()
                .get("path")
                .asString()
                .replace(".rss", "");
    }

    private Document atom(String address) {
        Answer feed = stranger.get(address);
        assertEquals(200, feed.status(), feed.text());
        try {
            return DocumentBuilderFactory.newInstance()
                    .newDocumentBuilder()
                    .parse(new ByteArrayInputStream(feed.raw().body()));
        } catch (Exception e) {
            throw new AssertionError(feed.text(), e);
        }
    }

    private static List<String> texts(Document feed, String element) {
        List<String> texts = new ArrayList<>();
        for (int i = 0; i < feed.getElementsByTagName(element).getLength(); i++)
            texts.add(feed.getElementsByTagName(element).item(i).getTextContent());
        return texts;
    }

    private static String link(Document feed, String relation) {
        for (int i = 0; i < feed.getElementsByTagName("link").getLength(); i++) {
            Element link = (Element) feed.getElementsByTagName("link").item(i);
            if (link.getAttribute("rel").equals(relation)) return link.getAttribute("href");
        }
        return "";
    }

    /** The path of an address that a feed names. */
    private static String path(String address) {
        return address.replaceFirst("^https?://[^/]+", "");
    }

    @Test
    void idsSayNothingOfAddressesAndSecretsAndStay() {
        long id = published("Slugs", "<p>Eleven leaves.</p>");
        String mine = secret(of.other());
        String token = mine.replace("/feeds/mine/", "");
        Document feed = atom(mine + ".atom");
        List<String> ids = texts(feed, "id");
        assertEquals(2, ids.size());
        for (String one : ids) {
            assertTrue(one.matches("urn:uuid:[0-9a-f-]{36}"), one);
            assertFalse(one.contains(token));
        }
        assertEquals(ids, texts(atom(secret(of.other()) + ".atom"), "id"));
        // Another reader of the same post gets it under the same id, in a feed of another.
        List<String> others = texts(atom(secret(of.lead()) + ".atom"), "id");
        assertEquals(ids.get(1), others.get(1));
        assertNotEquals(ids.get(0), others.get(0));
        Answer elsewhere = stranger.get(mine + ".atom", "X-Forwarded-Host", "evil.example");
        assertFalse(elsewhere.text().contains("evil.example"), elsewhere.text());
        assertEquals(
                "/posts/" + id,
                path(((Element) feed.getElementsByTagName("entry").item(0))
                        .getElementsByTagName("link")
                        .item(0)
                        .getAttributes()
                        .getNamedItem("href")
                        .getTextContent()));
    }

    @Test
    void changesAreToldByTheEntryAndWhatIsTakenBackByTheFeed() throws Exception {
        long id = published("Slugs", "<p>Eleven leaves.</p>");
        String mine = secret(of.other()) + ".atom";
        Document first = atom(mine);
        assertFalse(Instant.parse(texts(first, "updated").get(1))
                .isBefore(Instant.parse(texts(first, "published").get(0))));
        String etag = stranger.get(mine).raw().headers().firstValue("ETag").orElseThrow();
        assertEquals(304, stranger.get(mine, "If-None-Match", etag).status());
        Answer post = of.first().get("/api/posts/" + id + "/draft");
        hand(id, post.body().get("beside").get("rev").asInt(), "Slugs", "<p>Twelve leaves.</p>");
        Document second = atom(mine);
        assertTrue(texts(second, "content").get(0).contains("Twelve"));
        String after = stranger.get(mine).raw().headers().firstValue("ETag").orElseThrow();
        assertNotEquals(etag, after);
        assertEquals(200, of.lead().call("DELETE", "/api/posts/" + id, null).status());
        assertEquals(200, stranger.get(mine, "If-None-Match", after).status());
        Document third = atom(mine);
        assertEquals(List.of(), texts(third, "content"));
        assertFalse(Instant.parse(texts(third, "updated").get(0))
                .isBefore(Instant.parse(texts(second, "updated").get(0))));
    }

    @Test
    void whatHasNotChangedIsAnsweredWithoutTheDatabase() {
        published("Slugs", "<p>Eleven leaves.</p>");
        String mine = secret(of.other()) + ".rss";
        String etag = stranger.get(mine).raw().headers().firstValue("ETag").orElseThrow();
        assertEquals(0, StatementCount.of(() -> stranger.get(mine)));
        assertEquals(304, stranger.get(mine, "If-None-Match", etag).status());
        String open = "/feeds/classes/" + of.classId() + ".json";
        assertEquals(0, StatementCount.of(() -> stranger.get(open)));
    }

    @Test
    void aFeedCanBeNarrowedAsThePorchCan() {
        published("Slugs", "<p>Eleven leaves.</p>");
        String mine = secret(of.other());
        String place = of.other()
                .get("/api/classes/" + of.classId() + "/porch")
                .body()
                .get("people")
                .get(0)
                .get("key")
                .asString();
        for (String filter :
                List.of("tag=slugs", "tag=SLUGS", "place=" + place, "unanswered=true", "blog=" + of.blogOfFirst()))
            assertEquals(1, texts(atom(mine + ".atom?" + filter), "content").size(), filter);
        for (String filter :
                List.of("tag=snails", "place=999999", "prompt=999999", "month=2001-01", "announcements=true"))
            assertEquals(0, texts(atom(mine + ".atom?" + filter), "content").size(), filter);
        Document person = atom(mine + ".atom?place=" + place);
        assertTrue(
                texts(person, "title").get(0).startsWith(texts(person, "name").get(0)), "whose posts they are");
        assertEquals(400, stranger.get(mine + ".atom?place=wren").status());
        assertEquals(422, stranger.get(mine + ".atom?after=nonsense").status());
    }

    /** A stranger learns nothing of what is for the class, by no filter. */
    @Test
    void aPublicFeedIsEmptyForWhatIsNotForAnyone() {
        long id = published("Slugs", "<p>Eleven leaves.</p>");
        of.other().post("/api/posts/" + id + "/comments", Map.of("text", "How many?"));
        String open = "/feeds/classes/" + of.classId();
        for (String address : List.of(
                open + ".atom",
                open + ".atom?blog=" + of.blogOfFirst(),
                open + ".atom?tag=slugs",
                open + ".atom?place=1",
                open + "/comments.atom",
                open + "/comments.atom?post=" + id)) {
            Answer feed = stranger.get(address);
            assertFalse(feed.text().matches("(?s).*(Slugs|leaves|Wren|How many|Garden|slugs</|<entry).*"), feed.text());
            assertEquals(
                    List.of("1970-01-01T00:00:00Z"),
                    texts(atom(address), "updated"),
                    "not even when something happened");
        }
    }

    @Test
    void pagesFollowOneAnotherAndNothingIsLostBetween() {
        for (int i = 0; i < 3; i++) published("Post " + i, "<p>Words " + i + "</p>");
        String mine = secret(of.other()) + ".atom";
        Document all = atom(mine);
        assertEquals("", link(all, "next"));
        assertEquals(mine, path(link(all, "self")));
        Answer porch = of.other().get("/api/classes/" + of.classId() + "/porch?most=2");
        Document rest = atom(mine + "?after=" + porch.body().get("next").asString());
        assertEquals(List.of("<p>Words 0</p>"), texts(rest, "content"));
        assertEquals(mine, path(link(rest, "first")));
        String month = Instant.now().toString().substring(0, 7);
        Document now = atom(mine + "?month=" + month);
        assertEquals(3, texts(now, "content").size());
        assertEquals(mine, path(link(now, "current")));
        assertEquals(0, now.getElementsByTagName("fh:archive").getLength(), "this month is not over");
        assertEquals(
                1,
                atom(mine + "?month=2001-01").getElementsByTagName("fh:archive").getLength());
    }

    /** What one subscribed to goes along as a list: each address gives just that, and is the reader's alone. */
    @Test
    void subscriptionsGoAlongAsAList() {
        long post = published("Slugs", "<p>Eleven leaves.</p>");
        Person reader = of.other();
        long place = of.lead().get("/api/posts/" + post).body().get("place").asLong();
        for (Map<String, Object> to : List.<Map<String, Object>>of(
                Map.of("kind", "CLASS"),
                Map.of("kind", "BLOG", "target", of.blogOfFirst()),
                Map.of("kind", "PERSON", "target", place),
                Map.of("kind", "TAG", "tag", "hedge & holly"),
                Map.of("kind", "THREAD", "target", post))) {
            Map<String, Object> wanted = new HashMap<>(to);
            wanted.put("classId", of.classId());
            assertEquals(200, reader.post("/api/subscriptions", wanted).status());
        }
        String list =
                reader.post("/api/subscriptions/opml", null).body().get("text").asString();
        List<String> addresses =
                Jsoup.parse(list, Parser.xmlParser()).select("outline[xmlUrl]").eachAttr("xmlUrl");
        assertEquals(5, addresses.size(), list);
        List<Integer> entries = addresses.stream()
                .map(a -> {
                    Answer feed = stranger.get(path(a));
                    assertEquals(200, feed.status(), a);
                    return feed.text().split("<item>", -1).length - 1;
                })
                .toList();
        assertEquals(3, entries.stream().filter(n -> n == 1).count(), "class, blog and person: " + entries);
        assertEquals(
                2, entries.stream().filter(n -> n == 0).count(), "another tag, and nobody has answered: " + entries);
        assertEquals(401, stranger.post("/api/subscriptions/opml", null).status());
    }

    @Test
    void commentsHaveFeedsOfTheirOwn() {
        long id = published("Slugs", "<p>Eleven leaves.</p>");
        of.other().post("/api/posts/" + id + "/comments", Map.of("text", "How many whiskers?"));
        of.lead().get("/api/pile").body().get("items").forEach(item -> School.decide(of.lead(), item, "APPROVE", ""));
        String mine = secret(of.first());
        for (String of : List.of("", "?post=" + id, "?blog=" + this.of.blogOfFirst())) {
            Document feed = atom(mine + "/comments.atom" + of);
            assertTrue(texts(feed, "content").get(0).contains("How many whiskers?"), of);
            assertEquals("On “Slugs”", texts(feed, "title").get(1));
        }
        assertEquals(
                0,
                texts(atom(mine + "/comments.atom?post=" + (id + 999)), "content")
                        .size());
    }

    /**
     * A reader's program is not signed in: pictures carry a token for that reader and that picture, ended with the
     * feed's.
     */
    @Test
    void picturesInASecretFeedCanBeFetchedByItsReaderAlone() throws IOException {
        long id = of.first()
                .post("/api/blogs/" + of.blogOfFirst() + "/posts", Map.of())
                .body()
                .get("id")
                .asLong();
        ByteArrayOutputStream png = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(40, 30, BufferedImage.TYPE_INT_RGB), "png", png);
        String picture = of.first()
                .upload("/api/posts/" + id + "/pictures", "a.png", png.toByteArray())
                .body()
                .get("address")
                .asString();
        hand(id, 1, "Picture", "<figure><img src=\"" + picture + "\" alt=\"a bed\"></figure>");
        String mine = secret(of.other());
        String html = texts(atom(mine + ".atom"), "content").get(0);
        Matcher found =
                Pattern.compile("src=\"https?://[^/]+(/feeds/files/[^\"]+)\"").matcher(html);
        assertTrue(found.find(), html);
        String signed = found.group(1);
        assertFalse(signed.contains(mine.replace("/feeds/mine/", "")), "the secret of the feed does not stand in it");
        Answer fetched = stranger.get(signed);
        assertEquals(200, fetched.status());
        assertTrue(fetched.raw().headers().firstValue("Content-Type").orElse("").startsWith("image/"));
        assertEquals(401, stranger.get(picture).status());
        assertEquals(
                404, stranger.get(signed.replaceFirst("/[^/]+$", "/another")).status());
        assertEquals(
                404,
                stranger.get(signed.replaceFirst("files/(\\d+)/.", "files/$1/_"))
                        .status());
        assertEquals(200, of.lead().call("DELETE", "/api/posts/" + id, null).status());
        assertEquals(404, stranger.get(signed).status(), "a post that is gone takes its pictures along");
        assertEquals(
                200,
                of.other()
                        .call("DELETE", "/api/classes/" + of.classId() + "/feed-key", null)
                        .status());
        assertEquals(404, stranger.get(signed).status());
        assertEquals(404, stranger.get(mine + ".atom").status());
    }

    @Test
    void addressesAreRenewedByTheirReadersAndEndedByStaff() {
        published("Slugs", "<p>Eleven leaves.</p>");
        String first = secret(of.other());
        assertEquals(200, stranger.get(first + ".rss").status());
        String second = of.other()
                .put("/api/classes/" + of.classId() + "/feed-key", null)
                .body()
                .get("path")
                .asString();
        assertEquals(404, stranger.get(first + ".rss").status());
        assertEquals(200, stranger.get(second).status());
        String readers = "/api/classes/" + of.classId() + "/feed-readers";
        for (Person other : List.of(of.first(), of.guest(), of.moderator(), stranger))
            assertNotEquals(200, other.get(readers).status());
        Answer list = of.lead().get(readers);
        assertEquals(1, list.body().size(), list.text());
        assertFalse(
                list.text().contains(second.replaceAll("/feeds/mine/|\\.rss", "")), "staff see who, not the secret");
        assertNotNull(list.body().get(0).get("lastUse"));
        long person = list.body().get(0).get("personId").asLong();
        assertNotEquals(
                200, of.first().call("DELETE", readers + "/" + person, null).status());
        assertEquals(200, of.lead().call("DELETE", readers + "/" + person, null).status());
        assertEquals(404, stranger.get(second).status());
    }
}

package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.vastporch.core.access.BlogFacts.Commenters;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.blogs.BlogKind;
import org.vastporch.core.blogs.BlogRules;
import org.vastporch.core.blogs.BlogRules.Window;
import org.vastporch.core.blogs.BlogSettings;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Made;
import org.vastporch.server.School.Person;
import org.vastporch.server.blogs.BlogForm;
import org.vastporch.server.blogs.BlogSetup;
import tools.jackson.databind.JsonNode;

/** Blogs as staff set them: kinds, doors, addresses, looks, rules, order; and the pages through others' eyes. */
@ServerTest
class BlogTest {

    @Autowired
    School school;

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

    private String set() {
        return of.lead().get(path("/blogs")).body().get(0).get("ref").asString();
    }

    private Answer change(Object setup) {
        return of.lead()
                .put(
                        "/api/blog-setups/" + set(),
                        Map.of(
                                "setup",
                                setup,
                                "version",
                                of.lead()
                                        .get("/api/blog-setups/" + set())
                                        .body()
                                        .get("version")));
    }

    private static BlogForm logs(BlogKind kind, LocalDateTime opens, LocalDateTime closes, BlogSettings settings) {
        return new BlogForm(
                kind,
                "Log of {name}",
                "Week by week.",
                "",
                Audience.MY_CLASS,
                Commenters.CLASS,
                null,
                null,
                opens,
                closes,
                null,
                null,
                settings);
    }

    private static BlogSettings ruled(BlogRules rules) {
        return new BlogSettings(BlogSettings.Look.TIDE, false, true, 20, BlogSettings.Grouping.NONE, rules);
    }

    private Answer handIn(Person who, String html) {
        return school.handIn(who, of.blogOfFirst(), Map.of(), "Slugs", html);
    }

    private long published(Person who, long blog, Long prompt) {
        return school.published(of, who, blog, prompt == null ? Map.of() : Map.of("promptId", prompt), "Slugs");
    }

    private long blogOf(Person who) {
        return who.get(path("/blogs/mine")).body().get(0).get("id").asLong();
    }

    @Test
    void anotherKindNarrowsWhatIsReadAtOnceAndTheSightlineSaysSoBefore() {
        long id = published(of.first(), of.blogOfFirst(), null);
        BlogForm journals = logs(BlogKind.JOURNAL, null, null, BlogSettings.USUAL);
        assertEquals(
                3,
                of.lead()
                        .post(path("/blogs/sightline"), journals)
                        .body()
                        .get("heads")
                        .get("readers")
                        .asInt());
        assertEquals(200, of.other().get("/api/posts/" + id).status());
        assertEquals(200, change(journals).status());
        assertEquals(404, of.other().get("/api/posts/" + id).status());
        assertEquals(
                3,
                of.lead()
                        .get(path("/blogs"))
                        .body()
                        .get(0)
                        .get("sightline")
                        .get("heads")
                        .get("readers")
                        .asInt());
        assertEquals(
                "kind-not-possible",
                change(BlogSetup.of(BlogKind.SHARED, "News", "", Audience.MY_CLASS, Commenters.CLASS))
                        .code());
        Map<String, Object> old = Map.of("setup", journals, "version", 1);
        assertEquals(
                "blog-changed",
                of.second().put("/api/blog-setups/" + set(), old).code());
    }

    private Map<String, Object> inTokyo() {
        JsonNode now = of.lead().get(path("")).body();
        Map<String, Object> wanted = new HashMap<>(
                Map.of("zone", "Asia/Tokyo", "breaks", List.of(), "ownPasswords", false, "byGiven", false));
        for (String same : List.of("name", "subject", "level", "terms", "version")) wanted.put(same, now.get(same));
        return wanted;
    }

    @Test
    void aBlogThatIsShutLetsInItsAuthorAndStaffOnlyByTheClockOfTheClass() {
        long id = published(of.first(), of.blogOfFirst(), null);
        of.lead().put(path(""), inTokyo());
        LocalDateTime there = LocalDateTime.now(ZoneId.of("Asia/Tokyo")).truncatedTo(ChronoUnit.SECONDS);
        change(logs(BlogKind.ONE_EACH, there.minusMinutes(1), null, BlogSettings.USUAL));
        assertEquals(200, of.other().get("/api/posts/" + id).status());
        change(logs(BlogKind.ONE_EACH, there.plusHours(1), null, BlogSettings.USUAL));
        assertEquals(
                there.plusHours(1).toString(),
                of.lead()
                        .get("/api/blog-setups/" + set())
                        .body()
                        .get("setup")
                        .get("opensAt")
                        .asString());
        for (Person reader : List.of(of.first(), of.lead()))
            assertEquals(200, reader.get("/api/posts/" + id).status());
        assertEquals("not-open-yet", of.other().get("/api/posts/" + id).code());
        assertEquals(
                "not-open-yet",
                of.other().get(path("/blogs/at/log-of-wren-castellane")).code());
        assertEquals(
                "not-open-yet",
                of.first()
                        .post("/api/blogs/" + of.blogOfFirst() + "/posts", Map.of())
                        .code(),
                "nor does anybody begin to write");
        change(logs(BlogKind.ONE_EACH, null, there.minusSeconds(1), BlogSettings.USUAL));
        assertEquals("closed", of.other().get("/api/posts/" + id).code());
        assertEquals(
                "closes-before-opening",
                change(logs(BlogKind.ONE_EACH, there, there.minusSeconds(9), BlogSettings.USUAL))
                        .code());
    }

    @Test
    void aBlogBelongsAndOpensToGroupsOfItsOwnClassOnly() {
        Made other = school.make(port);
        long elsewhere = other.lead()
                .post("/api/classes/" + other.classId() + "/groups", Map.of("name", "Bed 1"))
                .body()
                .get("id")
                .asLong();
        BlogSetup tied = new BlogSetup(
                BlogKind.ONE_EACH,
                "Log of {name}",
                "",
                "",
                Audience.MY_CLASS,
                Commenters.CLASS,
                null,
                elsewhere,
                null,
                null,
                null,
                BlogSettings.USUAL);
        assertEquals("group-unknown", change(tied).code());
        assertEquals("group-unknown", of.lead().post(path("/blogs"), tied).code());
    }

    @Test
    void anAddressLeadsHereForEverAndToNobodyElse() {
        long blog = of.blogOfFirst();
        assertEquals(
                "slugs-co",
                of.lead()
                        .put("/api/blogs/" + blog + "/address", Map.of("address", "Slugs & Co"))
                        .body()
                        .get("address")
                        .asString());
        JsonNode page = of.other().get(path("/blogs/at/log-of-wren-castellane")).body();
        assertEquals("slugs-co", page.get("address").asString());
        assertEquals(
                "address-given",
                of.lead()
                        .put(
                                "/api/blogs/" + blogOf(of.other()) + "/address",
                                Map.of("address", "log-of-wren-castellane"))
                        .code());
        assertEquals(
                200,
                of.lead()
                        .put("/api/blogs/" + blog + "/address", Map.of("address", "log-of-wren-castellane"))
                        .status(),
                "it can have its own one back");
        of.lead()
                .post(
                        path("/blogs"),
                        BlogSetup.of(BlogKind.SHARED, "Slugs, Co", "", Audience.MY_CLASS, Commenters.CLASS));
        assertEquals(200, of.other().get(path("/blogs/at/slugs-co-2")).status());
    }

    @Test
    void aLookIsTheStudentsUntilItIsFixed() throws IOException {
        String look = "/api/blogs/" + of.blogOfFirst() + "/look";
        assertEquals(200, of.first().put(look, Map.of("look", "HEATHER")).status());
        change(logs(BlogKind.ONE_EACH, null, null, BlogSettings.USUAL));
        assertEquals(
                "HEATHER",
                of.other()
                        .get(path("/blogs/at/log-of-wren-castellane"))
                        .body()
                        .get("look")
                        .asString(),
                "other settings leave a chosen look");
        ByteArrayOutputStream png = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(40, 20, BufferedImage.TYPE_INT_RGB), "png", png);
        String header = "/api/blogs/" + of.blogOfFirst() + "/header";
        assertEquals(200, of.first().upload(header, "x.png", png.toByteArray()).status());
        String address = of.other()
                .get(path("/blogs/at/log-of-wren-castellane"))
                .body()
                .get("header")
                .asString();
        assertEquals(200, of.other().get(address).status());
        assertEquals(401, school.stranger(port).get(address).status());
        change(logs(
                BlogKind.ONE_EACH,
                null,
                null,
                new BlogSettings(BlogSettings.Look.SLATE, true, false, 5, BlogSettings.Grouping.WEEK, BlogRules.FREE)));
        assertEquals("look-fixed", of.first().put(look, Map.of("look", "TIDE")).code());
        JsonNode page = of.other().get(path("/blogs/at/log-of-wren-castellane")).body();
        assertEquals("SLATE", page.get("look").asString());
        assertFalse(page.get("newestFirst").asBoolean());
        String forAll = "/api/blog-setups/" + set() + "/header";
        assertEquals(403, of.first().upload(forAll, "x.png", png.toByteArray()).status());
        assertEquals(200, of.lead().upload(forAll, "x.png", png.toByteArray()).status());
        for (String blog : List.of("log-of-wren-castellane", "log-of-pia-aurelio"))
            assertEquals(
                    200,
                    of.other()
                            .get(of.other()
                                    .get(path("/blogs/at/" + blog))
                                    .body()
                                    .get("header")
                                    .asString())
                            .status(),
                    "one picture for all");
        assertEquals(
                200,
                of.lead()
                        .get(of.lead()
                                .get("/api/blog-setups/" + set())
                                .body()
                                .get("header")
                                .asString())
                        .status());
    }

    @Test
    void rulesBindStudentsAndAreSaidBefore() {
        BlogRules rules = new BlogRules(
                new Window(30), Window.NEVER, false, 0, 1, 3, 6, 1, BlogRules.Period.WEEK, BlogRules.Closing.NEVER);
        change(logs(BlogKind.ONE_EACH, null, null, ruled(rules)));
        Answer tooShort = handIn(of.first(), "<p>Two words.</p>");
        assertEquals(
                "In this blog a post has at least 3 words; yours has 2.",
                tooShort.body().get("detail").asString());
        assertEquals(
                "In this blog a post has at most 6 words; yours has 7.",
                handIn(of.first(), "<p>One two three four five six seven.</p>")
                        .body()
                        .get("detail")
                        .asString());
        long id = published(of.first(), of.blogOfFirst(), null);
        assertEquals(200, of.first().get("/api/posts/" + id + "/draft").status(), "it can be changed for half an hour");
        assertEquals(
                "delete-over",
                of.first().call("DELETE", "/api/posts/" + id, null).code());
        assertEquals(
                "In this blog you can hand in 1 post in a week. You have handed in 1; your draft is kept.",
                handIn(of.first(), "<p>Three words here.</p>")
                        .body()
                        .get("detail")
                        .asString());
        long draft = of.first()
                .post("/api/blogs/" + of.blogOfFirst() + "/posts", Map.of())
                .body()
                .get("id")
                .asLong();
        JsonNode said = of.first().get("/api/posts/" + draft + "/draft").body();
        assertEquals(30, said.get("rules").get("edit").get("minutes").asInt());
        assertTrue(said.get("beside").get("needs").toString().contains("MOST_POSTS"));
        assertEquals(
                "too-many-pictures",
                of.first()
                        .upload("/api/posts/" + draft + "/pictures", "x.png", new byte[] {1})
                        .code());
        long comment = of.other()
                .post("/api/posts/" + id + "/comments", Map.of("text", "Where?"))
                .body()
                .get("id")
                .asLong();
        assertEquals(
                "delete-over",
                of.other().call("DELETE", "/api/comments/" + comment, null).code());
        assertEquals(
                200, of.lead().call("DELETE", "/api/comments/" + comment, null).status());
    }

    @Test
    void whoAnswersFirstReadsTheOthersThen() {
        Map<String, Object> wanted = new HashMap<>(Map.of(
                "title",
                "First thoughts",
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
                Map.of("words", 0, "pictures", 0, "tags", 0, "category", 0, "links", 0, "sources", 0, "comments", 0),
                "answers",
                School.answers(1, true)));
        long prompt = of.lead().post(path("/prompts"), wanted).body().get("id").asLong();
        long id = published(of.first(), of.blogOfFirst(), prompt);
        assertEquals("answer-first", of.other().get("/api/posts/" + id).code());
        assertEquals(
                "First thoughts",
                of.other().get(path("/porch")).body().get("answerFirst").get(0).asString());
        assertEquals(0, of.other().get(path("/porch")).body().get("total").asInt());
        assertEquals(200, of.guest().get("/api/posts/" + id).status());
        published(of.other(), blogOf(of.other()), prompt);
        assertEquals(200, of.other().get("/api/posts/" + id).status());
        assertEquals(2, of.other().get(path("/porch")).body().get("total").asInt());
    }

    @Test
    void postsArePinnedAndReadAsASeries() {
        long one = published(of.first(), of.blogOfFirst(), null);
        long two = published(of.first(), of.blogOfFirst(), null);
        of.first().put("/api/posts/" + two + "/arrangement", Map.of("pinned", true, "series", "The butt", "part", 1));
        of.lead().put("/api/posts/" + one + "/arrangement", Map.of("pinned", false, "series", "The butt", "part", 2));
        JsonNode shelf =
                of.other().get("/api/blogs/" + of.blogOfFirst() + "/shelf").body();
        assertEquals(two, shelf.get("pinned").get(0).get("id").asLong());
        assertEquals(
                List.of(two, one),
                shelf.get("series")
                        .get(0)
                        .get("parts")
                        .valueStream()
                        .map(p -> p.get("postId").asLong())
                        .toList(),
                "by part, whatever the dates");
        assertEquals(
                one,
                of.other()
                        .get("/api/posts/" + two)
                        .body()
                        .get("arranged")
                        .get("after")
                        .get("postId")
                        .asLong());
        JsonNode oldest = of.other()
                .get(path("/porch?blog=" + of.blogOfFirst() + "&oldestFirst=true&most=1"))
                .body();
        assertEquals(one, oldest.get("entries").get(0).get("id").asLong());
        JsonNode next = of.other()
                .get(path("/porch?blog=" + of.blogOfFirst() + "&oldestFirst=true&most=1&after="
                        + oldest.get("next").asString()))
                .body();
        assertEquals(two, next.get("entries").get(0).get("id").asLong());
        JsonNode months =
                of.other().get(path("/rail?blog=" + of.blogOfFirst())).body().get("months");
        assertEquals(2, months.get(0).get("count").asInt());
        assertEquals(
                2,
                of.other()
                        .get(path("/porch?month=" + months.get(0).get("month").asString()))
                        .body()
                        .get("total")
                        .asInt());
    }

    @Test
    void theDirectoryShowsWhatOneMayOpenAndCountsWhatOneMayRead() {
        published(of.first(), of.blogOfFirst(), null);
        JsonNode lines = of.other().get(path("/directory")).body();
        assertEquals(2, lines.size());
        assertEquals(
                "Log of Wren Castellane", lines.get(0).get("title").asString(), "the one written in last comes first");
        assertEquals(1, lines.get(0).get("posts").asInt());
        assertFalse(lines.get(1).has("newest"));
        change(logs(BlogKind.JOURNAL, null, null, BlogSettings.USUAL));
        assertEquals(1, of.other().get(path("/directory")).body().size(), "only the own journal");
        assertEquals(0, of.guest().get(path("/directory")).body().size());
    }

    @Test
    void staffLookThroughOthersEyesAndChangeNothing() {
        long id = published(of.first(), of.blogOfFirst(), null);
        long place = of.lead()
                .get(path("/people"))
                .body()
                .valueStream()
                .filter(p -> p.get("id").asLong() == of.other().id)
                .findFirst()
                .orElseThrow()
                .get("place")
                .asLong();
        String eyes = of.classId() + "/" + place;
        String porch = of.lead().get(path("/porch"), "X-Porch-Eyes", eyes).text();
        assertEquals(porch, of.other().get(path("/porch")).text(), "just what the student gets");
        of.lead().get("/api/posts/" + id, "X-Porch-Eyes", eyes);
        assertEquals(
                1,
                of.other().get(path("/porch")).body().get("unread").asInt(),
                "nothing counts as read by being looked at");
        assertEquals(403, of.lead().get(path("/people"), "X-Porch-Eyes", eyes).status());
        assertEquals(
                401,
                of.lead()
                        .get("/api/posts/" + id, "X-Porch-Eyes", of.classId() + "/stranger")
                        .status());
        assertEquals(
                200,
                of.lead()
                        .get("/api/posts/" + id, "X-Porch-Eyes", of.classId() + "/guest")
                        .status());
        assertEquals(
                "only-eyes",
                of.lead()
                        .call("POST", path("/feed-key"), null, "X-Porch-Eyes", eyes)
                        .code());
        assertEquals(
                "only-eyes", of.lead().get("/api/account", "X-Porch-Eyes", eyes).code());
        assertEquals(
                403,
                of.other()
                        .get(path("/porch"), "X-Porch-Eyes", of.classId() + "/guest")
                        .status());
        assertEquals(
                404,
                of.lead()
                        .get(path("/porch"), "X-Porch-Eyes", of.classId() + "/999999")
                        .status());
        Made other = school.make(port);
        assertEquals(
                404,
                of.lead()
                        .get("/api/classes/" + other.classId() + "/porch", "X-Porch-Eyes", other.classId() + "/guest")
                        .status());
    }
}

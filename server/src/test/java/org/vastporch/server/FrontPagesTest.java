package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.YearMonth;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.beans.factory.annotation.Qualifier;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;
import org.vastporch.core.classes.ClassAddress;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Made;
import org.vastporch.server.School.Person;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** The pages that anyone may read: what stands on them, where they are, and what is not said of anything else. */
@ServerTest
class FrontPagesTest {

    @Autowired
    School school;

    @Autowired
    JdbcClient jdbc;

    @Autowired
    @Qualifier("requestMappingHandlerMapping")
    RequestMappingHandlerMapping mappings;

    @LocalServerPort
    int port;

    Made of;
    Person stranger;
    String at;
    String blog;

    @BeforeEach
    void makeClass() {
        of = school.make(port);
        stranger = school.stranger(port);
        at = "/" + text("select address from class where id = :id", of.classId());
        blog = at + "/" + text("select address from blog where id = :id", of.blogOfFirst());
    }

    private String text(String sql, long id) {
        return jdbc.sql(sql).param("id", id).query(String.class).single();
    }

    /** Lets strangers in, and into the blogs of students. What was written stays for whom it was. */
    private void open() {
        JsonNode view = of.lead().get("/api/classes/" + of.classId()).body();
        ObjectNode rules = (ObjectNode) view.get("rules");
        rules.put("ceiling", "ANYONE").put("open", true);
        of.lead()
                .put("/api/classes/" + of.classId() + "/rules", Map.of("rules", rules, "version", view.get("version")));
        jdbc.sql("update blog set widest = 4, kind_widest = 4, commenters = 'ANYONE' where class_id = :id")
                .param("id", of.classId())
                .update();
    }

    /** A published post for anyone. */
    private long shown(Person author, long blogId, String title) {
        long id = school.published(of, author, blogId, Map.of(), title);
        jdbc.sql("update post set audience = 4 where id = :id").param("id", id).update();
        return id;
    }

    private String page(String path) {
        Answer answer = stranger.get(path);
        assertEquals(200, answer.status(), path + " " + answer.text());
        return answer.text();
    }

    private static String movedTo(Answer answer) {
        assertEquals(302, answer.status(), answer.text());
        return answer.raw().headers().firstValue("Location").orElseThrow();
    }

    private void change(Map<String, Object> wish) {
        Map<String, Object> whole = new HashMap<>(wish);
        whole.putIfAbsent("address", at.substring(1));
        whole.putIfAbsent("findable", false);
        whole.putIfAbsent("peoplePages", false);
        whole.put("version", frontPage().get("version").asInt());
        Answer answer = of.lead().put("/api/classes/" + of.classId() + "/front-page", whole);
        assertEquals(200, answer.status(), answer.text());
    }

    private JsonNode frontPage() {
        return of.lead().get("/api/classes/" + of.classId() + "/front-page").body();
    }

    @Test
    void aClassThatIsShutIsAsGoodAsNone() {
        long id = shown(of.first(), of.blogOfFirst(), "Slugs");
        Answer none = stranger.get("/no-such-class");
        assertEquals(404, none.status());
        for (String path : List.of(at, blog, blog + "/" + id, at + "?person=1", at + "?q=leaves"))
            for (Person reader : List.of(stranger, of.other(), of.lead())) {
                Answer shut = reader.get(path);
                assertEquals(404, shut.status(), path);
                assertEquals(none.text(), shut.text());
            }
        for (String inside : List.of("/classes/" + of.classId() + "/porch", "/posts/" + id)) {
            Answer asks = stranger.get(inside, "Accept", "text/html");
            assertEquals(200, asks.status());
            assertFalse(asks.text().matches("(?s).*(Slugs|Garden|Log of).*"), asks.text());
        }
    }

    @Test
    void whatIsForAnyoneStandsThereAndNothingElse() {
        long slugs = shown(of.first(), of.blogOfFirst(), "Slugs");
        school.published(of, of.other(), otherBlog(), Map.of(), "For the class alone");
        open();
        String front = page(at);
        assertTrue(front.contains(">Slugs</a>"), front);
        assertTrue(front.contains("href=\"" + blog + "/" + slugs + "\""), front);
        assertFalse(front.matches("(?s).*(For the class alone|Pia|Aurelio).*"), front);
        assertFalse(front.contains("<script"), "these pages come without a script");
        String post = page(blog + "/" + slugs);
        assertTrue(post.contains("Eleven leaves with holes."), post);
        String shut = at + "/" + text("select address from blog where id = :id", otherBlog());
        for (String narrowed : List.of("", "?q=leaves", "?tag=x", "?month=2026-01"))
            assertEquals(404, stranger.get(shut + narrowed).status(), narrowed);
        String inside = "/api/classes/" + of.classId() + "/blogs/at" + shut.substring(at.length());
        assertEquals(401, stranger.get(inside).status());
        assertEquals(200, of.first().get(inside).status());
        assertEquals(front, of.lead().get(at).text(), "staff see it with a stranger's eyes");
    }

    @Test
    void aBlogIsSearchedForItselfAndTheClassFromThere() {
        shown(of.first(), of.blogOfFirst(), "Slugs");
        shown(of.other(), otherBlog(), "Snails");
        open();
        Instant end = Instant.now().plusSeconds(15);
        String all = page(at + "?q=leaves");
        while (!all.matches("(?s).*>Slugs<.*") || !all.matches("(?s).*>Snails<.*")) {
            assertTrue(Instant.now().isBefore(end), all);
            all = page(at + "?q=leaves");
        }
        String found = page(blog + "?q=leaves");
        assertTrue(found.contains(">Slugs<"), found);
        assertFalse(found.contains(">Snails<"), found);
        assertTrue(found.contains("Look in all of the class"), found);
    }

    private long otherBlog() {
        return jdbc.sql("select id from blog where owner_id = :id")
                .param("id", of.other().id)
                .query(Long.class)
                .single();
    }

    @Test
    void titlesDescriptionsAndFeedsStandInTheHeadAndNoTextBreaksOut() {
        long id = shown(of.first(), of.blogOfFirst(), "Slugs");
        jdbc.sql("update post_version set title = :title where post_id = :id")
                .param("title", "A \"title\"><script>harm()</script>{{csrf}}")
                .param("id", id)
                .update();
        open();
        for (String path : List.of(at, blog, blog + "/" + id)) {
            String html = page(path);
            assertFalse(html.contains("<script"), html);
            assertTrue(html.contains("A &quot;title&quot;&gt;&lt;script&gt;"), html);
            assertTrue(html.contains("{{csrf}}"), "what is put in is never a template");
            Matcher feed = Pattern.compile("type=\"application/atom\\+xml\"[^>]*href=\"([^\"]*)\"")
                    .matcher(html);
            assertTrue(feed.find(), html);
            assertEquals(200, stranger.get(feed.group(1).replace("&#x3D;", "=")).status(), feed.group(1));
        }
        assertTrue(page(blog + "/" + id).contains("<meta name=\"description\" content=\"Eleven leaves with holes.\">"));
    }

    @Test
    void addressesInsideLeadAStrangerOutAndAMemberIn() {
        long id = shown(of.first(), of.blogOfFirst(), "Slugs");
        open();
        String inside = "/classes/" + of.classId();
        assertEquals(at, movedTo(stranger.get(inside + "/porch")));
        assertEquals(blog, movedTo(stranger.get(inside + "/blog" + blog.substring(at.length()))));
        assertEquals(blog + "/" + id, movedTo(stranger.get("/posts/" + id)));
        assertEquals(blog + "/" + id, movedTo(stranger.get(at + "/another-blog/" + id)));
        assertEquals(at, movedTo(stranger.get(at.toUpperCase())));
        assertEquals(
                200, of.other().get(inside + "/porch", "Accept", "text/html").status());
        assertEquals(200, of.other().get("/posts/" + id, "Accept", "text/html").status());
    }

    @Test
    void pagesFollowOneAnotherAndNothingIsLostBetween() {
        TreeSet<String> titles = new TreeSet<>();
        for (int i = 0; i < 23; i++) {
            shown(of.first(), of.blogOfFirst(), "Leaf " + i);
            titles.add("Leaf " + i);
        }
        open();
        for (String begin : List.of(at, blog, at + "?tag=nothing&month=" + YearMonth.now())) {
            TreeSet<String> read = new TreeSet<>();
            String next = begin.replace("tag=nothing&", "");
            while (next != null) {
                String html = page(next);
                Matcher title = Pattern.compile("<h2><a href=\"[^\"]*\">(Leaf \\d+)</a>")
                        .matcher(html);
                while (title.find()) read.add(title.group(1));
                Matcher older = Pattern.compile("<p class=\"older\"><a href=\"([^\"]*)\"")
                        .matcher(html);
                next = older.find() ? older.group(1).replace("&#x3D;", "=").replace("&amp;", "&") : null;
            }
            assertEquals(titles, read, begin);
        }
        assertEquals(404, stranger.get(at + "?after=nonsense").status());
        assertEquals(400, stranger.get(at + "?month=soon").status());
    }

    @Test
    void onePersonsPageIsThereOnlyIfTheClassShowsIt() {
        shown(of.first(), of.blogOfFirst(), "Slugs");
        open();
        long wren = place(of.first());
        assertFalse(page(at).contains("person"), "no way leads there");
        assertEquals(404, stranger.get(at + "?person=" + wren).status());
        change(Map.of("peoplePages", true));
        assertTrue(page(at).contains("person=" + wren) || page(at).contains("person&#x3D;" + wren), page(at));
        assertTrue(page(at + "?person=" + wren).contains("Only by Wren"), page(at + "?person=" + wren));
        assertEquals(404, stranger.get(at + "?person=" + place(of.other())).status(), "who shows nothing is not there");
    }

    private long place(Person person) {
        return jdbc.sql("select id from membership where class_id = :class and person_id = :person")
                .param("class", of.classId())
                .param("person", person.id)
                .query(Long.class)
                .single();
    }

    @Test
    void searchEnginesFindItOnlyIfTheKeeperAndTheClassSaySo() {
        shown(of.first(), of.blogOfFirst(), "Slugs");
        open();
        assertTrue(isKeptOut(at));
        change(Map.of("findable", true));
        assertTrue(isKeptOut(at), "the keeper has not said so");
        assertTrue(page("/robots.txt").contains("Disallow: /\n"));
        jdbc.sql("merge into school (id, findable) key (id) values (1, true)").update();
        try {
            assertFalse(isKeptOut(at));
            assertFalse(page("/robots.txt").contains("Disallow: /\n"));
            change(Map.of());
            assertTrue(isKeptOut(at));
        } finally {
            jdbc.sql("update school set findable = false").update();
        }
        assertEquals(404, of.lead().get("/api/school/findable").status());
        assertEquals(
                404,
                of.lead().put("/api/school/findable", Map.of("findable", true)).status());
    }

    private boolean isKeptOut(String path) {
        return stranger.get(path)
                .raw()
                .headers()
                .firstValue("X-Robots-Tag")
                .orElse("")
                .contains("noindex");
    }

    @Test
    void anAddressIsWishedForAndTheOneBeforeLeadsThere() {
        shown(of.first(), of.blogOfFirst(), "Slugs");
        open();
        String wished = "what-the-river-gave-" + of.classId();
        change(Map.of("address", "What the River gave " + of.classId()));
        assertEquals("/" + wished, movedTo(stranger.get(at)));
        assertEquals("/" + wished + blog.substring(at.length()), movedTo(stranger.get(blog)));
        assertTrue(page("/" + wished).contains("Slugs"));
        Made another = school.make(port);
        String path = "/api/classes/" + another.classId() + "/front-page";
        int version = another.lead().get(path).body().get("version").asInt();
        for (String taken : List.of(wished, at.substring(1), "API", "sign in", "posts"))
            assertEquals("address-taken", wish(another, path, taken, version).code(), taken);
        assertEquals("address-empty", wish(another, path, " ?! ", version).code());
        assertEquals(
                "class-changed",
                wish(another, path, "new-" + of.classId(), version - 1).code());
        assertEquals(404, wish(of, path, "mine", version).status(), "staff of another class");
        assertEquals(
                "staff-only",
                another.first()
                        .put(path, Map.of("address", "mine", "findable", true, "peoplePages", true, "version", version))
                        .code());
    }

    private static Answer wish(Made who, String path, String address, int version) {
        return who.lead()
                .put(path, Map.of("address", address, "findable", false, "peoplePages", false, "version", version));
    }

    /** Whatever the server has right behind its own address is no class's. */
    @Test
    void noClassTakesAnAddressThatIsTaken() {
        Set<String> first = new TreeSet<>();
        mappings.getHandlerMethods().keySet().forEach(info -> info.getPatternValues()
                .forEach(p -> first.add(p.split("/").length > 1 ? p.split("/")[1] : "")));
        List<String> taken = List.of(ClassAddress.TAKEN.split("\\|"));
        for (String place : first)
            if (!place.startsWith("{") && !place.isEmpty())
                assertTrue(taken.contains(place.replace('.', '-')), place + " is not kept free");
    }

    @Test
    void aVisitorsCommentWaitsAndWhatIsWrongIsSaidBesideWhatWasTyped() throws Exception {
        long id = shown(of.first(), of.blogOfFirst(), "Slugs");
        open();
        String there = blog + "/" + id;
        HttpResponse<String> form = send(there, null, "");
        String cookie = form.headers().allValues("Set-Cookie").get(0).split(";")[0];
        Matcher token = Pattern.compile("name=\"_csrf\" value=\"([^\"]+)\"").matcher(form.body());
        assertTrue(token.find(), form.body());
        String csrf = "_csrf=" + URLEncoder.encode(token.group(1).replace("&#x3D;", "="), StandardCharsets.UTF_8);
        assertEquals(403, send(there, "text=Hello&name=Ida", cookie).statusCode(), "without the token of the form");
        HttpResponse<String> wrong = send(there, csrf + "&text=Hello+%3Cb%3Eyou&name=", cookie);
        assertEquals(422, wrong.statusCode());
        assertTrue(wrong.body().contains("Say who you are"), wrong.body());
        assertTrue(wrong.body().contains("Hello &lt;b&gt;you"), "what was typed is kept");
        HttpResponse<String> sent = send(there, csrf + "&text=From+next+door.&name=Ida", cookie);
        assertEquals(303, sent.statusCode(), sent.body());
        assertEquals(
                there + "?said=true#comments",
                sent.headers().firstValue("Location").orElseThrow());
        assertFalse(page(there).contains("From next door."), "it waits");
        assertTrue(page(there + "?said=true").contains("Somebody of the school looks at it first"));
        assertEquals(
                303, send(there, csrf + "&text=Buy&name=Bot&website=x", cookie).statusCode());
        List<JsonNode> waiting = new ArrayList<>();
        of.lead().get("/api/pile").body().get("items").forEach(waiting::add);
        assertEquals(1, waiting.size(), "what a program wrote is not kept");
        School.decide(of.lead(), waiting.get(0), "APPROVE", "");
        String after = page(there);
        assertTrue(after.contains("From next door.") && after.contains("Ida (visitor)"), after);
        assertEquals(
                413,
                send(there, csrf + "&name=Ida&text=" + "a".repeat(5_000_000), cookie)
                                .statusCode()
                        / 1);
    }

    /** Without a script too: folded up, and nothing of them is fetched before somebody unfolds them. */
    @Test
    void aStrangerReadsThePagesOfADocumentAndPlaysAVideoWhereTheyStand() throws Exception {
        long id = of.first()
                .post("/api/blogs/" + of.blogOfFirst() + "/posts", Map.of())
                .body()
                .get("id")
                .asLong();
        String file = of.first()
                .upload("/api/posts/" + id + "/files", "sheet \"two\".pdf", FilesTest.pdf("One", "Two"))
                .body()
                .get("address")
                .asString();
        String song = of.first()
                .upload("/api/posts/" + id + "/files", "song.mp3", FilesTest.sound(3_000))
                .body()
                .get("address")
                .asString();
        String known = "https://films.example/watch/bean-1";
        String html = "<p>Beans.</p>"
                + figure("document", file)
                + figure("card", known)
                + figure("card", "https://unknown.example/film")
                + figure("sound", song);
        int rev = of.first()
                .get("/api/posts/" + id + "/draft")
                .body()
                .get("beside")
                .get("rev")
                .asInt();
        rev = of.first()
                .put(
                        "/api/posts/" + id + "/draft",
                        Map.of("rev", rev, "title", "Beans", "html", html, "tags", List.of(), "audience", "MY_CLASS"))
                .body()
                .get("rev")
                .asInt();
        Answer in = of.first().post("/api/posts/" + id + "/hand-in", Map.of("rev", rev));
        assertEquals(200, in.status(), in.text());
        School.decide(of.lead(), of.lead().get("/api/pile").body().get("items").get(0), "APPROVE", "");
        jdbc.sql("update post set audience = 4 where id = :id").param("id", id).update();
        open();
        Document page = Jsoup.parse(page(blog + "/" + id));
        Element pages = page.selectFirst("figure[data-kind=document] details:not([open])");
        assertEquals("Read its 2 pages here", pages.selectFirst("summary").text());
        assertEquals(
                List.of("Page 1 of 2 of sheet two.pdf", "Page 2 of 2 of sheet two.pdf"),
                pages.select("img[loading=lazy]").eachAttr("alt"));
        for (Element image : pages.select("img"))
            assertEquals(200, stranger.get(image.attr("src")).status());
        assertEquals(song, page.selectFirst("audio[controls]").attr("src"));
        List<Element> frames = page.select("iframe");
        assertEquals(1, frames.size(), "only hosts that the school has chosen play here");
        Element frame = frames.get(0);
        assertEquals("https://films.example/embed/bean-1", frame.attr("src"));
        assertEquals("lazy", frame.attr("loading"));
        assertEquals("allow-scripts allow-same-origin allow-presentation", frame.attr("sandbox"));
        assertNotNull(frame.closest("details:not([open])"));
        String policy = stranger.get(blog + "/" + id)
                .raw()
                .headers()
                .firstValue("Content-Security-Policy")
                .orElseThrow();
        assertTrue(policy.matches(".*frame-src [^;]*https://films\\.example.*"), policy);
    }

    private static String figure(String kind, String address) {
        return "<figure data-kind=\"" + kind + "\"><a href=\"" + address + "\">A file</a></figure>";
    }

    private HttpResponse<String> send(String path, String form, String cookie) throws Exception {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create("http://localhost:" + port + path))
                // From an address of its own: only so many comments come from one.
                .header("X-Forwarded-For", "198.51.100." + of.classId() % 250)
                .header("Content-Type", "application/x-www-form-urlencoded");
        if (!cookie.isEmpty()) request.header("Cookie", cookie);
        if (form != null) request.POST(HttpRequest.BodyPublishers.ofString(form));
        return HttpClient.newHttpClient().send(request.build(), HttpResponse.BodyHandlers.ofString());
    }
}

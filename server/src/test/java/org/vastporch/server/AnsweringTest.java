package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.vastporch.core.access.BlogFacts.Commenters;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.blogs.BlogKind;
import org.vastporch.core.blogs.BlogRules;
import org.vastporch.core.blogs.BlogRules.Closing;
import org.vastporch.core.blogs.BlogRules.Window;
import org.vastporch.core.blogs.BlogSettings;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Made;
import org.vastporch.server.School.Person;
import org.vastporch.server.blogs.BlogForm;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Answering: comments changed, closed, asked for, written by visitors; private words; threads of the staff. */
@ServerTest
class AnsweringTest {

    @Autowired
    School school;

    @Autowired
    JdbcClient jdbc;

    @LocalServerPort
    int port;

    Made of;
    long post;

    @BeforeEach
    void makePost() {
        of = school.make(port);
        post = school.published(of, of.first(), of.blogOfFirst(), Map.of(), "Slugs");
    }

    private String path(String rest) {
        return "/api/classes/" + of.classId() + rest;
    }

    private Answer comment(Person who, String text) {
        return who.post("/api/posts/" + post + "/comments", Map.of("text", text));
    }

    private void rules(Commenters commenters, Window edit, Closing closing, Audience widest) {
        String set = of.lead().get(path("/blogs")).body().get(0).get("ref").asString();
        BlogRules rules = new BlogRules(edit, Window.ALWAYS, true, 40, 40, 0, 0, 0, BlogRules.Period.WEEK, closing);
        BlogSettings settings =
                new BlogSettings(BlogSettings.Look.LINEN, false, true, 20, BlogSettings.Grouping.NONE, rules);
        Map<String, Object> change = Map.of(
                "setup",
                new BlogForm(
                        BlogKind.ONE_EACH,
                        "Log of {name}",
                        "",
                        "",
                        widest,
                        commenters,
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        settings),
                "version",
                of.lead().get("/api/blog-setups/" + set).body().get("version"));
        assertEquals(200, of.lead().put("/api/blog-setups/" + set, change).status());
    }

    private void approveAll() {
        List<Map<String, Object>> items = new ArrayList<>();
        for (JsonNode i : of.lead().get("/api/pile").body().get("items"))
            items.add(Map.of(
                    "subject",
                    i.get("subject").asString(),
                    "id",
                    i.get("id").asLong(),
                    "version",
                    i.get("version").asInt(),
                    "rev",
                    i.get("rev").asInt()));
        of.lead().post("/api/pile/decisions", Map.of("step", "APPROVE", "note", "", "items", items));
    }

    @Test
    void aChangedCommentIsLookedAtAgainAndTheBlogsWindowHolds() {
        long id = comment(of.other(), "Well seen.").body().get("id").asLong();
        assertEquals(200, school.changeComment(of.other(), id, "Well counted.").status());
        assertEquals(
                404, school.changeComment(of.first(), id, "Mine now.").status(), "what waits is not there for others");
        approveAll();
        assertEquals(
                "WAITING",
                school.changeComment(of.other(), id, "Call me on 07700 900123.")
                        .body()
                        .get("state")
                        .asString());
        assertEquals(
                0,
                of.first().get("/api/posts/" + post + "/comments").body().size(),
                "what changed is not seen before it is approved");
        assertTrue(of.lead().get("/api/pile").body().get("items").toString().contains("PHONE"));
        approveAll();
        rules(Commenters.CLASS, Window.NEVER, Closing.NEVER, Audience.MY_CLASS);
        assertEquals(
                "edit-over", school.changeComment(of.other(), id, "Too late.").code());
        assertFalse(of.other()
                .get("/api/posts/" + post + "/comments")
                .body()
                .get(0)
                .get("mayEdit")
                .asBoolean());
    }

    @Test
    void commentsCloseAndStaffStillAnswer() {
        rules(Commenters.CLASS, Window.ALWAYS, new Closing(3, ""), Audience.MY_CLASS);
        assertEquals(200, comment(of.other(), "In time.").status());
        jdbc.sql("update post set published_at = dateadd('DAY', -3, published_at) where id = :id")
                .param("id", post)
                .update();
        assertEquals("comments-closed", comment(of.other(), "Too late.").code());
        JsonNode page = of.other().get("/api/posts/" + post).body();
        assertFalse(page.get("mayComment").asBoolean());
        assertEquals(
                "Comments on this post are closed.", page.get("commentsShut").asString());
        assertEquals(200, comment(of.lead(), "Still here.").status());
    }

    @Test
    void aReplyToACommentThatIsGoneIsRefusedInWords() {
        long id = comment(of.other(), "Well seen.").body().get("id").asLong();
        approveAll();
        of.other().call("DELETE", "/api/comments/" + id, null);
        assertEquals(
                "parent-gone",
                of.first()
                        .post("/api/posts/" + post + "/comments", Map.of("text", "Thanks.", "parentId", id))
                        .code());
    }

    /**
     * Where a blog lets anyone comment, a visitor's comment always waits, nobody else sees it until then, and programs
     * get nowhere.
     */
    @Test
    void visitorsCommentAndAlwaysWait() {
        Person visitor = school.stranger(port);
        Map<String, Object> said = new HashMap<>(Map.of("text", "From the allotment next door.", "name", "Ida"));
        assertEquals(401, visitor.post("/api/posts/" + post + "/comments", said).status());
        openToAll();
        assertEquals(
                "name-missing",
                visitor.post("/api/posts/" + post + "/comments", Map.of("text", "x"))
                        .code());
        assertEquals(
                "WAITING",
                visitor.post("/api/posts/" + post + "/comments", said)
                        .body()
                        .get("state")
                        .asString());
        assertEquals(0, visitor.get("/api/posts/" + post + "/comments").body().size());
        said.put("website", "http://spam.example");
        assertEquals(200, visitor.post("/api/posts/" + post + "/comments", said).status());
        JsonNode waiting = of.lead().get("/api/pile").body().get("items");
        assertEquals(1, waiting.size(), "what a program wrote is not kept");
        assertTrue(
                waiting.get(0).get("readers").get("strangers").asBoolean(),
                "whoever approves is told that anyone will read it");
        approveAll();
        assertEquals(
                "Ida (visitor)",
                visitor.get("/api/posts/" + post + "/comments")
                        .body()
                        .get(0)
                        .get("author")
                        .asString());
        said.remove("website");
        int last = 0;
        for (int i = 0; i < 8; i++)
            last = visitor.post("/api/posts/" + post + "/comments", said).status();
        assertEquals(429, last);
    }

    private void reachesSchool() {
        JsonNode view = of.lead().get(path("")).body();
        ObjectNode of = (ObjectNode) view.get("rules");
        of.put("ceiling", "SCHOOL").put("commentPolicy", "NONE");
        this.of
                .lead()
                .put(
                        path("/rules"),
                        Map.of("rules", of, "version", view.get("version").asInt()));
        jdbc.sql("update post set audience = 3 where id = :id")
                .param("id", post)
                .update();
    }

    /** Where a blog lets in other classes they comment, wait always, and are named with the class they come from. */
    @Test
    void otherClassesCommentWhereABlogSaysSo() {
        Made elsewhere = school.make(port);
        Person from = elsewhere.first();
        reachesSchool();
        rules(Commenters.GUESTS_TOO, Window.ALWAYS, Closing.NEVER, Audience.SCHOOL);
        assertEquals(200, from.get("/api/posts/" + post).status());
        assertEquals(404, comment(from, "Ours too.").status());
        rules(Commenters.SCHOOL, Window.ALWAYS, Closing.NEVER, Audience.SCHOOL);
        Answer added = comment(from, "Ours have slugs too.");
        assertEquals("WAITING", added.body().get("state").asString(), "though nobody looks at comments here first");
        approveAll();
        assertEquals(401, comment(school.stranger(port), "Buy!").status());
        String name = author(of.other());
        assertTrue(name.matches("Wren C\\. \\(.+\\)"), name);
        assertEquals(name, author(of.lead()), "staff of this class learn no more of somebody of another");
        assertTrue(author(from).startsWith("Wren Castellane ("), "the own name is one's own");
        long comment = added.body().get("id").asLong();
        jdbc.sql("update membership set shown = 'PEN_NAME', pen_name = 'Heron' where person_id = :id")
                .param("id", from.id)
                .update();
        assertTrue(author(of.lead()).startsWith("Heron ("), author(of.lead()));
        assertEquals(200, from.call("DELETE", "/api/comments/" + comment, null).status(), "taken back by who wrote it");
        comment(from, "Here I am again.");
        approveAll();
        jdbc.sql("update membership set ended_at = dateadd('MINUTE', -1, current_timestamp) where person_id = :id")
                .param("id", from.id)
                .update();
        assertEquals("Somebody who left", author(of.lead()));
    }

    /** What a stranger reads where other classes commented names nobody of them. */
    @Test
    void strangersReadNoNameOfAnotherClass() {
        Made elsewhere = school.make(port);
        openToAll();
        comment(elsewhere.first(), "Ours have slugs too.");
        approveAll();
        assertEquals("Somebody of the school", author(school.stranger(port)));
        String feed = school.stranger(port)
                .get("/feeds/classes/" + of.classId() + "/comments.atom")
                .text();
        assertTrue(feed.contains("Ours have slugs too.") && !feed.contains("Wren"), feed);
    }

    private String author(Person reader) {
        return reader.get("/api/posts/" + post + "/comments")
                .body()
                .get(0)
                .get("author")
                .asString();
    }

    private void openToAll() {
        JsonNode view = of.lead().get(path("")).body();
        ObjectNode rules = (ObjectNode) view.get("rules");
        rules.put("ceiling", "ANYONE").put("open", true);
        of.lead()
                .put(
                        path("/rules"),
                        Map.of("rules", rules, "version", view.get("version").asInt()));
        rules(Commenters.ANYONE, Window.ALWAYS, Closing.NEVER, Audience.ANYONE);
        jdbc.sql("update post set audience = 4 where id = :id")
                .param("id", post)
                .update();
    }

    @Test
    void aPrivateWordReachesItsAuthorAndAStaffThreadNoStudent() {
        long comment = comment(of.other(), "Well seen.").body().get("id").asLong();
        approveAll();
        of.second().post("/api/posts/" + post + "/words", Map.of("text", "Come and see me about the ruler."));
        of.second().post("/api/comments/" + comment + "/words", Map.of("text", "A kind answer."));
        of.second().post("/api/posts/" + post + "/staff-thread", Map.of("text", "She was absent on Friday."));
        assertTrue(of.first().get("/api/posts/" + post + "/words").text().contains("ruler"));
        assertFalse(of.first()
                .get("/api/posts/" + post + "/words")
                .body()
                .get("mayWrite")
                .asBoolean());
        assertTrue(of.other().get("/api/comments/" + comment + "/words").text().contains("kind"));
        assertEquals(
                1,
                of.lead()
                        .get("/api/posts/" + post + "/staff-thread")
                        .body()
                        .get("list")
                        .size());
        for (Person other : List.of(of.other(), of.guest(), of.moderator(), school.stranger(port)))
            for (String where : List.of("/api/posts/" + post + "/words", "/api/posts/" + post + "/staff-thread"))
                assertTrue(other.get(where).status() >= 401, where);
        assertEquals(404, of.first().get("/api/comments/" + comment + "/words").status());
        // Through a student's eyes staff see the student's words, and say none.
        String eyes = of.classId() + "/"
                + of.lead().get("/api/posts/" + post).body().get("place").asLong();
        assertEquals(
                200,
                of.lead()
                        .get("/api/posts/" + post + "/words", "X-Porch-Eyes", eyes)
                        .status());
        assertEquals(
                403,
                of.lead()
                        .get("/api/posts/" + post + "/staff-thread", "X-Porch-Eyes", eyes)
                        .status());
    }

    @Test
    void commentsAskedForAreCountedByTheTimeAndLengthAsked() {
        Map<String, Object> wanted = new HashMap<>(Map.of(
                "title",
                "Log",
                "instructions",
                "",
                "questions",
                List.of(),
                "due",
                "2099-01-01T20:00",
                "graceHours",
                0,
                "latePercentPerDay",
                0,
                "lateMostPercent",
                0,
                "points",
                6));
        wanted.put(
                "asked",
                Map.of("words", 0, "pictures", 0, "tags", 0, "category", 0, "links", 0, "sources", 0, "comments", 2));
        wanted.put("commentsDue", "2099-01-03T20:00");
        wanted.put("commentsWords", 3);
        long prompt = of.lead().post(path("/prompts"), wanted).body().get("id").asLong();
        post = school.published(of, of.first(), of.blogOfFirst(), Map.of("promptId", prompt), "For the log");
        for (String text : List.of("Well.", "One two three four.", "Seen it from the bench.", "Late but long enough."))
            comment(of.other(), text);
        approveAll();
        jdbc.sql("""
                                update comment
                                 set created_at = timestamp with time zone '2099-01-04 00:00:00+00:00'
                                 where html like '%Late%'""").update();
        JsonNode own =
                of.other().get("/api/prompts/" + prompt + "/comments-given").body();
        assertEquals(1, own.size());
        assertEquals(2, own.get(0).get("given").asInt());
        assertEquals(
                2,
                of.lead()
                        .get("/api/prompts/" + prompt + "/comments-given")
                        .body()
                        .size());
    }
}

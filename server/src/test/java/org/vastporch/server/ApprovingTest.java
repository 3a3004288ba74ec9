package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.moderation.ModerationTable.Step;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Made;
import org.vastporch.server.School.Person;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.moderation.PileFilter;
import org.vastporch.server.moderation.PileItem;
import org.vastporch.server.moderation.PileService;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** What waits and why, what readers report, and what is kept of every decision. */
@ServerTest
class ApprovingTest {

    @Autowired
    School school;

    @Autowired
    PileService pile;

    @Autowired
    AccessService access;

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

    private void rules(Map<String, Object> changed) {
        JsonNode now = of.lead().get("/api/classes/" + of.classId()).body();
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
        rules.putAll(
                Map.of("takeOver", false, "apart", 1, "holdPictures", false, "firstPosts", 0, "reportsHide", false));
        rules.putAll(changed);
        assertEquals(
                200,
                of.lead()
                        .put(
                                path("/rules"),
                                Map.of("version", now.get("version").asInt(), "rules", rules))
                        .status());
    }

    private List<JsonNode> waiting() {
        return of.lead().get("/api/pile").body().get("items").valueStream().toList();
    }

    private Answer decide(Person who, JsonNode item, String step) {
        return School.decide(who, item, step, step.equals("RETURN") ? "Measure it." : "");
    }

    private long handIn(String title, String html) {
        Answer answer = school.handIn(of.first(), of.blogOfFirst(), Map.of(), title, html);
        assertEquals(200, answer.status(), answer::text);
        return of.first().get(path("/own-posts")).body().get(0).get("id").asLong();
    }

    private int readBy(Person who, long post) {
        return who.get("/api/posts/" + post).status();
    }

    /**
     * Looked at afterwards: readers have it at once, it lies in the pile as well, and can still come back to its
     * author.
     */
    @Test
    void whatIsLookedAtAfterwardsIsUpAndInThePile() {
        rules(Map.of("postPolicy", "AFTER", "commentPolicy", "AFTER"));
        long post = handIn("Slugs", "<p>Eleven leaves.</p>");
        assertEquals(200, readBy(of.other(), post));
        JsonNode item = waiting().get(0);
        assertEquals(
                "PUBLISHED AFTER CLASS",
                item.get("state").asString() + " "
                        + item.get("because").get("policy").asString() + " "
                        + item.get("because").get("source").asString());
        int rev = of.first()
                .get("/api/posts/" + post + "/draft")
                .body()
                .get("beside")
                .get("rev")
                .asInt();
        of.first()
                .put(
                        "/api/posts/" + post + "/draft",
                        Map.of(
                                "rev",
                                rev,
                                "title",
                                "Slugs",
                                "html",
                                "<p>Something else.</p>",
                                "tags",
                                List.of(),
                                "audience",
                                "MY_CLASS"));
        item = waiting().get(0);
        assertTrue(
                item.get("html").asString().contains("Eleven"),
                "who works on the next version does not get out of being looked at");
        assertEquals(1, item.get("version").asInt());
        assertNull(decide(of.lead(), item, "APPROVE").body().get(0).get("problem"));
        assertEquals(List.of(), waiting());
        of.other().post("/api/posts/" + post + "/comments", Map.of("text", "Which kind?"));
        JsonNode comment = waiting().get(0);
        JsonNode returned = decide(of.lead(), comment, "RETURN").body().get(0);
        assertEquals("RETURNED", returned.get("state").asString());
        assertEquals(
                0, of.guest().get("/api/posts/" + post + "/comments").body().size());
        of.lead().post("/api/pile/decisions/" + returned.get("decision").asLong() + "/undo", null);
        assertEquals(1, waiting().size(), "taken back, it is up and in the pile again");
        assertEquals(
                1, of.guest().get("/api/posts/" + post + "/comments").body().size());
    }

    @Test
    void whatIsSetForOneStudentOutweighsClassAndTrust() {
        rules(Map.of("postPolicy", "NONE"));
        String approval = path("/people/" + of.first().id + "/approval");
        assertEquals("NONE CLASS", inForce(of.lead().get(approval)));
        assertEquals("BEFORE STUDENT", inForce(of.lead().put(approval, Map.of("posts", "BEFORE"))));
        handIn("Slugs", "<p>Eleven leaves.</p>");
        assertEquals("STUDENT", waiting().get(0).get("because").get("source").asString());
        assertEquals("NONE CLASS", inForce(of.lead().put(approval, Map.of())));
        assertEquals(
                404,
                of.lead().get(path("/people/" + of.guest().id + "/approval")).status());
    }

    /** A blog can say otherwise than the class; its rule is named as the reason. */
    @Test
    void aRuleOfTheBlogOutweighsThatOfTheClass() {
        String setup = "/api/blog-setups/b" + of.blogOfFirst();
        JsonNode now = of.lead().get(setup).body();
        ObjectNode wanted = (ObjectNode) now.get("setup").deepCopy();
        ((ObjectNode) wanted.get("settings")).put("posts", "AFTER");
        assertEquals(
                200,
                of.lead()
                        .put(
                                setup,
                                Map.of(
                                        "setup",
                                        wanted,
                                        "version",
                                        now.get("version").asInt()))
                        .status());
        long post = handIn("Slugs", "<p>Eleven leaves.</p>");
        assertEquals(200, readBy(of.other(), post));
        assertEquals(
                "AFTER BLOG",
                waiting().get(0).get("because").get("policy").asString() + " "
                        + waiting().get(0).get("because").get("source").asString());
    }

    private static String inForce(Answer answer) {
        return answer.body().get("postsNow").get("policy").asString() + " "
                + answer.body().get("postsNow").get("source").asString();
    }

    /** A changed rule of trust begins the count anew. */
    @Test
    void approvalsBeforeAChangeOfTheRuleDoNotCount() {
        rules(Map.of("trustAfter", 1));
        school.published(of, of.first(), of.blogOfFirst(), Map.of(), "One");
        long second = handIn("Two", "<p>Words.</p>");
        assertEquals(200, readBy(of.other(), second), "trusted after one");
        rules(Map.of("trustAfter", 1, "firstPosts", 0, "open", true));
        assertEquals(200, readBy(of.other(), handIn("Three", "<p>Words.</p>")), "another rule changes nothing");
        rules(Map.of("trustAfter", 2));
        assertEquals(404, readBy(of.other(), handIn("Four", "<p>Words.</p>")));
    }

    @Test
    void firstPostsAndPicturesAreHeldAndAnotherPictureIsLookedAtAgain() {
        rules(Map.of("postPolicy", "NONE", "firstPosts", 1, "holdPictures", true));
        long post = handIn("First", "<p>Words.</p>");
        assertEquals(List.of("FIRST_POST"), rulesOf(waiting().get(0)));
        decide(of.lead(), waiting().get(0), "APPROVE");
        assertEquals(200, readBy(of.other(), handIn("Second", "<p>Words.</p>")));
        School.handInAgain(
                of.first(),
                post,
                Map.of(
                        "title",
                        "First",
                        "html",
                        "<p>Words.</p><figure><img src=\"/media/" + "a".repeat(64) + "\" alt=\"A bed\"></figure>"));
        assertEquals(List.of("PICTURE"), rulesOf(waiting().get(0)));
    }

    private static List<String> rulesOf(JsonNode item) {
        return item.get("holds")
                .valueStream()
                .map(h -> h.get("rule").asString())
                .toList();
    }

    /**
     * A report waits in the pile; its text stays up unless the class says otherwise, cannot be changed meanwhile, and
     * the answer to it is kept.
     */
    @Test
    void aReportIsAHold() {
        long post = school.published(of, of.first(), of.blogOfFirst(), Map.of(), "Slugs");
        assertEquals(
                200,
                of.other()
                        .post("/api/posts/" + post + "/reports", Map.of("reason", "It is about my brother."))
                        .status());
        of.other().post("/api/posts/" + post + "/reports", Map.of("reason", "Again."));
        of.guest().post("/api/posts/" + post + "/reports", Map.of("reason", ""));
        assertEquals(
                "own-text",
                of.first()
                        .post("/api/posts/" + post + "/reports", Map.of("reason", ""))
                        .code());
        JsonNode item = waiting().get(0);
        assertEquals(List.of("REPORT"), rulesOf(item));
        assertEquals(
                List.of("It is about my brother.", ""),
                item.get("reports")
                        .valueStream()
                        .map(r -> r.get("reason").asString())
                        .toList());
        assertEquals(200, readBy(of.guest(), post));
        int rev = of.first()
                .get("/api/posts/" + post + "/draft")
                .body()
                .get("beside")
                .get("rev")
                .asInt();
        assertEquals(
                "being-looked-at",
                of.first()
                        .put(
                                "/api/posts/" + post + "/draft",
                                Map.of(
                                        "rev",
                                        rev,
                                        "title",
                                        "Gone",
                                        "html",
                                        "<p>Gone.</p>",
                                        "tags",
                                        List.of(),
                                        "audience",
                                        "MY_CLASS"))
                        .code());
        assertEquals(
                1,
                of.moderator().get("/api/pile").body().get("items").size(),
                "a moderator reads what is up and was reported");
        JsonNode hidden = decide(of.moderator(), item, "HIDE").body().get(0);
        assertEquals(404, readBy(of.guest(), post));
        assertEquals(
                0, of.lead().get("/api/pile?sort=reported").body().get("total").asInt());
        of.lead().post("/api/pile/decisions/" + hidden.get("decision").asLong() + "/undo", null);
        assertEquals(
                1,
                of.lead().get("/api/pile?sort=reported").body().get("total").asInt(),
                "taken back, the report is open again");
        decide(of.lead(), waiting().get(0), "APPROVE");
        assertEquals(List.of(), waiting());
        assertEquals(200, readBy(of.guest(), post));

        rules(Map.of("commentPolicy", "NONE", "reportsHide", true));
        long comment = of.other()
                .post("/api/posts/" + post + "/comments", Map.of("text", "Yours are always slugs."))
                .body()
                .get("id")
                .asLong();
        of.first().post("/api/comments/" + comment + "/reports", Map.of("reason", "unkind"));
        assertEquals(
                0, of.guest().get("/api/posts/" + post + "/comments").body().size(), "down until somebody has looked");
        decide(of.lead(), waiting().get(0), "APPROVE");
        assertEquals(
                1, of.guest().get("/api/posts/" + post + "/comments").body().size());
        assertEquals(
                404,
                of.moderator()
                        .post("/api/posts/" + post + "/reports", Map.of("reason", ""))
                        .status(),
                "who cannot read it cannot report it");
    }

    /** What staff throw away is undone by staff; its author does not bring it up again. */
    @Test
    void whatStaffThrowAwayIsNotTakenOutByItsAuthor() {
        long post = school.published(of, of.first(), of.blogOfFirst(), Map.of(), "Slugs");
        of.other().post("/api/posts/" + post + "/reports", Map.of("reason", ""));
        JsonNode binned = decide(of.lead(), waiting().get(0), "BIN").body().get(0);
        assertEquals("BINNED", binned.get("state").asString());
        assertEquals(404, readBy(of.other(), post));
        assertEquals(
                "binned-by-staff",
                of.first().post("/api/posts/" + post + "/restore", null).code());
        of.lead().post("/api/pile/decisions/" + binned.get("decision").asLong() + "/undo", null);
        assertEquals(200, readBy(of.other(), post));
        assertEquals(
                1, of.lead().get("/api/pile?sort=reported").body().get("total").asInt());
    }

    /** A decision about what its author has changed since is refused, and says what is new. */
    @Test
    void anOutdatedDecisionShowsTheDifference() {
        long post = handIn("Slugs", "<p>Eleven leaves.</p>");
        JsonNode seen = waiting().get(0);
        School.handInAgain(of.first(), post, Map.of("title", "Slugs", "html", "<p>Eleven eaten leaves.</p>"));
        JsonNode refused = decide(of.lead(), seen, "APPROVE").body().get(0);
        assertEquals("newer-version", refused.get("code").asString());
        assertTrue(refused.get("changes").toString().contains("eaten"), refused::toString);
        assertEquals("WAITING", waiting().get(0).get("state").asString());
    }

    /**
     * What an approval covers is shown: a link behind the same words, a tag and a wider audience are no less a change
     * than a word.
     */
    @Test
    void whatIsNotAWordIsShownAsWell() {
        rules(Map.of("postPolicy", "NONE", "tools", List.of("LINK")));
        long post = handIn("Slugs", "<p>We read <a href=\"https://beds.example/plan\">the plan</a>.</p>");
        JsonNode held = waiting().get(0);
        assertEquals(
                "https://beds.example/plan",
                held.get("holds").get(0).get("found").asString(),
                "a link is held, whatever words it has");
        decide(of.lead(), held, "APPROVE");
        assertEquals(
                200,
                School.handInAgain(
                                of.first(),
                                post,
                                Map.of(
                                        "title",
                                        "Slugs",
                                        "html",
                                        "<p>We read <a href=\"https://else.example/plan\">the plan</a>.</p>",
                                        "tags",
                                        List.of("07700 900461")))
                        .status());
        JsonNode again = waiting().get(0);
        assertEquals(
                List.of("PHONE", "LINK"),
                again.get("holds")
                        .valueStream()
                        .map(h -> h.get("rule").asString())
                        .toList());
        JsonNode changes = again.get("changes");
        assertEquals(1, changes.get("words").size(), "no word is another");
        assertTrue(changes.get("shown").asString().contains("https://else.example/plan"), changes::toString);
        assertEquals(
                "ADDED 07700 900461",
                changes.get("besides").get(0).get("change").asString() + " "
                        + changes.get("besides").get(0).get("text").asString());
        assertEquals(
                List.of("07700 900461"),
                again.get("besides")
                        .get("tags")
                        .valueStream()
                        .map(JsonNode::asString)
                        .toList());
    }

    @Test
    void whatStaffMendAwayHoldsItNoMore() {
        rules(Map.of("postPolicy", "NONE"));
        long post = handIn("Slugs", "<p>Ring 07700 900 462 about them.</p>");
        assertEquals("PHONE", waiting().get(0).get("holds").get(0).get("rule").asString());
        int rev = of.lead()
                .get("/api/posts/" + post + "/draft")
                .body()
                .get("beside")
                .get("rev")
                .asInt();
        assertEquals(
                200,
                of.lead()
                        .put(
                                "/api/posts/" + post + "/draft",
                                Map.of(
                                        "rev",
                                        rev,
                                        "title",
                                        "Slugs",
                                        "html",
                                        "<p>Ask me about them.</p>",
                                        "tags",
                                        List.of(),
                                        "audience",
                                        "MY_CLASS"))
                        .status());
        JsonNode mended = waiting().get(0);
        assertEquals(0, mended.get("holds").size(), mended::toString);
        assertTrue(mended.get("html").asString().contains("Ask me"));
    }

    /** A comment that was changed shows what is new in it; staff mend one where it lies, and it says who did. */
    @Test
    void aChangedCommentShowsWhatIsNewAndStaffCanMendOne() {
        long post = school.published(of, of.first(), of.blogOfFirst(), Map.of(), "Slugs");
        long comment = of.other()
                .post("/api/posts/" + post + "/comments", Map.of("text", "Which kind was it?"))
                .body()
                .get("id")
                .asLong();
        decide(of.lead(), waiting().get(0), "APPROVE");
        assertEquals(
                200,
                school.changeComment(of.other(), comment, "Which stupid kind was it?")
                        .status());
        JsonNode item = waiting().get(0);
        assertTrue(
                item.get("changes")
                        .get("words")
                        .valueStream()
                        .anyMatch(w -> w.get("change").asString().equals("ADDED")
                                && w.get("text").asString().contains("stupid")),
                item::toString);
        assertEquals(
                200,
                school.changeComment(of.lead(), comment, "Which kind of slug was it?")
                        .status());
        assertEquals(
                "newer-version",
                decide(of.lead(), item, "APPROVE").body().get(0).get("code").asString(),
                "nobody approves what was mended since");
        decide(of.lead(), waiting().get(0), "APPROVE");
        JsonNode shown =
                of.first().get("/api/posts/" + post + "/comments").body().get(0);
        assertTrue(shown.get("html").asString().contains("kind of slug"));
        assertEquals(
                of.lead().get("/api/posts/" + post + "/comments").body().get(0).get("editedBy"), shown.get("editedBy"));
        assertNotNull(shown.get("editedBy"));
        assertEquals(403, school.changeComment(of.first(), comment, "Mine now").status());
        assertEquals(403, school.changeComment(of.guest(), comment, "Mine now").status());
    }

    @Test
    void thePileCanBeNarrowedAndCounts() {
        rules(Map.of("commentPolicy", "BEFORE"));
        long post = school.published(of, of.first(), of.blogOfFirst(), Map.of(), "Slugs");
        of.other().post("/api/posts/" + post + "/comments", Map.of("text", "Ring 07700 900 412."));
        of.other().post("/api/posts/" + post + "/comments", Map.of("text", "Fine words."));
        handIn("Waits", "<p>Words.</p>");
        JsonNode all = of.lead().get("/api/pile?most=2").body();
        assertEquals(3, all.get("total").asInt());
        assertEquals(2, all.get("items").size());
        JsonNode counts = all.get("counts").get(0);
        assertEquals(
                "3 1 2 1",
                counts.get("all").asInt() + " " + counts.get("posts").asInt() + " "
                        + counts.get("comments").asInt() + " "
                        + counts.get("held").asInt());
        assertEquals(1, of.lead().get("/api/pile?sort=held").body().get("items").size());
        assertEquals(
                0, of.lead().get("/api/pile?classId=999999").body().get("items").size());
        assertEquals("sort-unknown", of.lead().get("/api/pile?sort=1=1").code());
    }

    /** Two people at one pile of 1,000: each text is decided exactly once, and log and states agree. */
    @Test
    void twoPeopleHammeringOnePileDecideEachTextOnce() throws Exception {
        long post = school.published(of, of.first(), of.blogOfFirst(), Map.of(), "Slugs");
        long at = of.other()
                .post("/api/posts/" + post + "/comments", Map.of("text", "The first."))
                .body()
                .get("id")
                .asLong();
        jdbc.sql("""
                insert into comment (class_id, post_id, author_id, state, html, words, waiting_since, created_at, rev)
                select k.class_id, k.post_id, k.author_id, k.state, '<p>Number ' || n.x || '</p>', 2, k.waiting_since, k.created_at, 1
                  from comment k, system_range(1, 999) n(x)
                 where k.id = :id""").param("id", at).update();
        Viewer lead = access.viewer(of.lead().id);
        Viewer second = access.viewer(of.second().id);
        // The pile gives its oldest part only, so what both have before them is taken from the table.
        List<PileService.Seen> seen = jdbc.sql("select id, rev from comment where post_id = :post order by id")
                .param("post", post)
                .query((row, n) -> new PileService.Seen("comment", row.getLong(1), 1, row.getInt(2)))
                .list();
        assertEquals(1000, seen.size());
        List<PileItem> shown = pile.pile(lead, new PileFilter(null, "", 200)).items();
        assertEquals(200, shown.size());
        ExecutorService two = Executors.newFixedThreadPool(2);
        Future<Integer> one = two.submit(() -> decideAll(lead, seen, Step.APPROVE));
        Future<Integer> other = two.submit(() -> decideAll(second, seen, Step.HIDE));
        int approved = one.get();
        int hidden = other.get();
        two.shutdown();
        assertEquals(1000, approved + hidden);
        assertEquals(
                1000,
                count("select count(distinct subject_id) from decision where subject = 'comment' and class_id = :id"));
        assertEquals(1000, count("select count(*) from decision where subject = 'comment' and class_id = :id"));
        assertEquals(approved, count("select count(*) from comment where class_id = :id and state = 'PUBLISHED'"));
        assertEquals(hidden, count("select count(*) from comment where class_id = :id and state = 'HIDDEN'"));
        assertEquals(0, pile.pile(lead, new PileFilter(null, "", 200)).total());
    }

    private int decideAll(Viewer who, List<PileService.Seen> seen, Step step) {
        int done = 0;
        for (PileService.Seen item : seen)
            if (pile.decide(who, new PileService.Deciding(step, "", List.of(item)))
                            .get(0)
                            .problem()
                    == null) done++;
        return done;
    }

    private int count(String sql) {
        return jdbc.sql(sql).param("id", of.classId()).query(Integer.class).single();
    }

    @Test
    void everyDecisionIsFoundAgainAndCanBeTakenAwayAsATable() {
        long post = school.published(of, of.first(), of.blogOfFirst(), Map.of(), "=SUM(1)");
        of.other().post("/api/posts/" + post + "/comments", Map.of("text", "Which kind?"));
        decide(of.lead(), waiting().get(0), "RETURN");
        JsonNode log = of.lead().get(path("/decisions")).body().get("lines");
        assertEquals(
                List.of("RETURN", "APPROVE"),
                log.valueStream().map(l -> l.get("step").asString()).toList());
        assertEquals(
                1,
                of.lead().get(path("/decisions?q=measure")).body().get("lines").size());
        assertEquals(
                2, of.lead().get(path("/decisions?q=lead")).body().get("lines").size(), "by the name of who decided");
        assertEquals(
                1,
                of.lead()
                        .get(path("/decisions?step=APPROVE"))
                        .body()
                        .get("lines")
                        .size());
        String csv = of.lead().get(path("/decisions.csv")).text();
        assertTrue(csv.contains("Measure it."));
        assertTrue(csv.contains(",'=SUM(1),"), "no cell is a formula");
        assertEquals(403, of.moderator().get(path("/decisions")).status());
    }

    @Test
    void notesAreKeptForOneself() {
        of.lead().post("/api/return-notes", Map.of("text", "Measure it."));
        of.lead().post("/api/return-notes", Map.of("text", "Where was it?"));
        JsonNode notes = of.lead()
                .post("/api/return-notes", Map.of("text", "Measure it."))
                .body();
        assertEquals(
                List.of("Measure it.", "Where was it?"),
                notes.valueStream().map(n -> n.get("text").asString()).toList());
        assertEquals(0, of.second().get("/api/return-notes").body().size());
        of.second().call("DELETE", "/api/return-notes/" + notes.get(0).get("id").asLong(), null);
        assertEquals(2, of.lead().get("/api/return-notes").body().size(), "nobody removes another's");
    }
}

package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Made;
import org.vastporch.server.School.Person;
import org.vastporch.server.subscriptions.DigestService;
import tools.jackson.databind.JsonNode;

/** Subscriptions, what is new, and the mails about it. */
@ServerTest
class NewsTest {

    @Autowired
    School school;

    @Autowired
    PostOffice post;

    @Autowired
    JdbcClient jdbc;

    @Autowired
    DigestService digests;

    @LocalServerPort
    int port;

    Made of;

    @BeforeEach
    void makeClass() {
        of = school.make(port);
    }

    private long subscribe(Person who, Map<String, Object> to) {
        return who.post("/api/subscriptions", to).body().get("id").asLong();
    }

    private List<String> kinds(Person who) {
        return who.get("/api/news")
                .body()
                .get("items")
                .valueStream()
                .map(i -> i.get("kind").asString())
                .toList();
    }

    private void approveComments() {
        for (JsonNode i : of.lead().get("/api/pile").body().get("items"))
            if (i.get("subject").asString().equals("comment"))
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
                                                i.get("id").asLong(),
                                                "version",
                                                1,
                                                "rev",
                                                i.get("rev").asInt()))));
    }

    private void hasAddress(Person who) {
        jdbc.sql("update person set email = :email where id = :id")
                .param("email", "p" + who.id + "@post.example")
                .param("id", who.id)
                .update();
    }

    private List<PostOffice.Letter> letters(Person who) {
        return post.lettersTo("p" + who.id + "@post.example");
    }

    /** As if all that happened so far had happened long enough ago to be told. */
    private void tell() {
        jdbc.sql("update event set at = dateadd('MINUTE', -1, at)").update();
        jdbc.sql("update comment set published_at = dateadd('MINUTE', -1, published_at)")
                .update();
        jdbc.sql("update digest set upto = dateadd('MINUTE', -2, upto)").update();
        digests.writeWhatIsDue();
    }

    @Test
    void theNewsAreAnswersDecisionsAndWhatWasSubscribedTo() {
        subscribe(of.other(), Map.of("classId", of.classId(), "kind", "BLOG", "target", of.blogOfFirst()));
        long post = school.published(of, of.first(), of.blogOfFirst(), Map.of(), "Slugs");
        of.other().post("/api/posts/" + post + "/comments", Map.of("text", "How many leaves?"));
        approveComments();
        of.lead().post("/api/posts/" + post + "/words", Map.of("text", "Bring the ruler."));
        assertEquals(List.of("POST"), kinds(of.other()));
        assertEquals(List.of("WORD", "ANSWER", "APPROVED"), kinds(of.first()));
        assertFalse(of.first().get("/api/news").text().contains("ruler"), "the word itself stands on its page alone");
        assertEquals(3, of.first().get("/api/news").body().get("fresh").asInt());
        of.first().post("/api/news/seen", null);
        assertEquals(0, of.first().get("/api/news").body().get("fresh").asInt());
        of.first().call("DELETE", "/api/posts/" + post, null);
        assertEquals(List.of(), kinds(of.other()), "what is in the bin is no news");
    }

    @Test
    void aSubscriptionIsMadeOnceEndedAndTakenBack() {
        Map<String, Object> tag = Map.of("classId", of.classId(), "kind", "TAG", "tag", "#Slügs");
        long id = subscribe(of.first(), tag);
        assertEquals(id, subscribe(of.first(), tag));
        assertEquals(
                "Posts tagged slugs",
                of.first()
                        .get("/api/subscriptions")
                        .body()
                        .get("list")
                        .get(0)
                        .get("label")
                        .asString());
        of.first().call("DELETE", "/api/subscriptions/" + id, null);
        assertEquals(0, of.first().get("/api/subscriptions").body().get("list").size());
        of.first().post("/api/subscriptions/" + id + "/restore", null);
        assertEquals(1, of.first().get("/api/subscriptions").body().get("list").size());
        Made elsewhere = school.make(port);
        assertEquals(404, elsewhere.first().post("/api/subscriptions", tag).status());
        assertEquals(
                404,
                elsewhere
                        .first()
                        .post(
                                "/api/subscriptions",
                                Map.of("classId", elsewhere.classId(), "kind", "BLOG", "target", of.blogOfFirst()))
                        .status());
        assertEquals(
                "no-address",
                of.first()
                        .put("/api/subscriptions/" + id, Map.of("posts", "AT_ONCE", "comments", "NEVER"))
                        .code());
    }

    /**
     * A new title that waits is for its author and the staff; whoever subscribed to the comments knows the one that is
     * up.
     */
    @Test
    void aSubscriptionNamesThePostAsItIsUp() {
        long post = school.published(of, of.first(), of.blogOfFirst(), Map.of(), "Slugs");
        subscribe(of.other(), Map.of("classId", of.classId(), "kind", "THREAD", "target", post));
        School.handInAgain(of.first(), post, Map.of("title", "Mine alone", "html", "<p>Twelve leaves.</p>"));
        assertEquals(
                "Comments on Slugs",
                of.other()
                        .get("/api/subscriptions")
                        .body()
                        .get("list")
                        .get(0)
                        .get("label")
                        .asString());
    }

    /**
     * One mail with all that is new, in text and HTML that say the same; the next one tells only what came since; a
     * link stops them.
     */
    @Test
    void mailTellsEachThingOnceAndIsStoppedByALink() {
        hasAddress(of.other());
        long id = subscribe(of.other(), Map.of("classId", of.classId(), "kind", "CLASS"));
        of.other().put("/api/subscriptions/" + id, Map.of("posts", "AT_ONCE", "comments", "NEVER"));
        school.published(of, of.first(), of.blogOfFirst(), Map.of(), "Slugs & <b>snails</b>");
        tell();
        PostOffice.Letter letter = letters(of.other()).get(0);
        assertTrue(letter.subject().contains("Slugs"), letter.subject());
        assertTrue(letter.text().contains("Eleven leaves with holes.")
                && letter.html().contains("Eleven leaves with holes."));
        assertTrue(letter.html().contains("&lt;b&gt;snails"), "what people wrote is text");
        digests.writeWhatIsDue();
        assertEquals(1, letters(of.other()).size(), "nothing is told twice");
        school.published(of, of.first(), of.blogOfFirst(), Map.of(), "More slugs");
        tell();
        String token = letter.stop().replaceFirst(".*t=(.*)>", "$1");
        assertEquals(
                200,
                school.stranger(port).post("/api/stop", Map.of("token", token)).status());
        assertEquals(
                404,
                school.stranger(port)
                        .post("/api/stop", Map.of("token", "guess"))
                        .status());
        assertEquals(1, letters(of.other()).size(), "what was still waiting to go does not go either");
    }

    private Answer mail(String rule, String seen) {
        return of.lead().put("/api/classes/" + of.classId() + "/mail", Map.of("rule", rule, "seen", seen));
    }

    private List<String> subscriptions(Person who) {
        return who.get("/api/subscriptions")
                .body()
                .get("list")
                .valueStream()
                .map(s -> s.get("kind").asString() + " " + s.get("posts").asString())
                .toList();
    }

    @Test
    void aClassOffersMailOnceAndTheAnswerHolds() {
        hasAddress(of.first());
        hasAddress(of.other());
        String offers = "/api/subscriptions/offers";
        assertEquals(0, of.first().get(offers).body().size());
        assertEquals(200, mail("OFFERED", "OFF").status());
        assertEquals(409, mail("ON", "OFF").status(), "a second teacher who saw another rule");
        assertEquals(
                403,
                of.first()
                        .put("/api/classes/" + of.classId() + "/mail", Map.of("rule", "ON", "seen", "OFFERED"))
                        .status());
        tell();
        assertEquals(List.of(), subscriptions(of.first()), "nothing is sent before the answer");
        assertEquals(1, of.first().get(offers).body().size());
        assertEquals(0, of.guest().get(offers).body().size(), "who has no address is not asked");
        String answer = offers + "/" + of.classId();
        assertEquals(200, of.first().post(answer, Map.of("posts", "NEVER")).status());
        assertEquals(200, of.other().post(answer, Map.of("posts", "WEEKLY")).status());
        assertEquals(404, of.other().post(answer, Map.of("posts", "DAILY")).status(), "nothing is asked any more");
        assertEquals(List.of(), subscriptions(of.first()));
        assertEquals(List.of("CLASS WEEKLY"), subscriptions(of.other()));
        mail("ON", "OFFERED");
        tell();
        assertEquals(List.of(), subscriptions(of.first()), "no was an answer too");
        assertEquals(List.of("CLASS WEEKLY"), subscriptions(of.other()));
    }

    @Test
    void aClassWritesUntilItIsSwitchedOff() {
        for (Person who : List.of(of.first(), of.other(), of.guest(), of.moderator())) hasAddress(who);
        mail("ON", "OFF");
        tell();
        for (Person who : List.of(of.first(), of.other(), of.guest()))
            assertEquals(List.of("CLASS DAILY"), subscriptions(who));
        assertEquals(List.of(), subscriptions(of.moderator()), "whose world is the pile");
        assertEquals(List.of(), subscriptions(of.lead()), "who has no address");
        of.first().call("DELETE", "/api/subscriptions/" + subscription(of.first()), null);
        of.other()
                .put("/api/subscriptions/" + subscription(of.other()), Map.of("posts", "AT_ONCE", "comments", "NEVER"));
        school.published(of, of.first(), of.blogOfFirst(), Map.of(), "Slugs");
        jdbc.sql("update digest set upto = dateadd('DAY', -2, upto)").update();
        tell();
        PostOffice.Letter letter = letters(of.guest()).get(0);
        assertTrue(letter.text().contains("a class of yours writes to its members"), letter.text());
        assertTrue(letters(of.other()).get(0).text().contains("because you asked for it"));
        assertEquals(0, letters(of.first()).size());
        mail("OFF", "ON");
        assertEquals(List.of(), subscriptions(of.guest()), "what came of the rule goes with it");
        assertEquals(List.of("CLASS AT_ONCE"), subscriptions(of.other()), "what a person wished stays");
    }

    /** Somebody who stopped all mails is not written to by the next class that does so by itself. */
    @Test
    void whoStoppedAllMailsIsLeftInPeace() {
        hasAddress(of.other());
        mail("ON", "OFF");
        tell();
        String token = jdbc.sql("select stop_token from person_mail where person_id = :id")
                .param("id", of.other().id)
                .query(String.class)
                .single();
        school.stranger(port).post("/api/stop", Map.of("token", token));
        jdbc.sql("delete from subscription where person_id = :id")
                .param("id", of.other().id)
                .update();
        tell();
        assertEquals(List.of(), subscriptions(of.other()));
    }

    private static long subscription(Person who) {
        return who.get("/api/subscriptions").body().get("list").get(0).get("id").asLong();
    }

    /**
     * Between its order and its going somebody may lose the right to read part of a mail: the rest goes, once, and
     * nothing holds up what comes later.
     */
    @Test
    void aMailTellsWhatItsReaderMayReadWhenItGoes() {
        hasAddress(of.other());
        long id = subscribe(of.other(), Map.of("classId", of.classId(), "kind", "CLASS"));
        of.other().put("/api/subscriptions/" + id, Map.of("posts", "AT_ONCE", "comments", "AT_ONCE"));
        of.other().put("/api/subscriptions/answers", Map.of("answers", "AT_ONCE"));
        long narrowed = school.published(of, of.first(), of.blogOfFirst(), Map.of(), "Periwinkle");
        long stays = school.published(of, of.first(), of.blogOfFirst(), Map.of(), "Slugs");
        of.other().post("/api/posts/" + narrowed + "/comments", Map.of("text", "Which kind?"));
        of.first().post("/api/posts/" + stays + "/comments", Map.of("text", "I forgot the snails."));
        approveComments();
        long mine = of.other()
                .get("/api/posts/" + narrowed + "/comments")
                .body()
                .get(0)
                .get("id")
                .asLong();
        of.lead().post("/api/comments/" + mine + "/words", Map.of("text", "Well asked."));
        tell();
        jdbc.sql("update post set audience = 0 where id = :id")
                .param("id", narrowed)
                .update();
        assertFalse(
                of.other().get("/api/news").text().contains("Periwinkle"), "a word about it does not tell its title");
        PostOffice.Letter letter = letters(of.other()).get(0);
        assertTrue(letter.text().contains("Slugs") && letter.text().contains("snails"));
        assertFalse(
                letter.text().contains("Periwinkle")
                        || letter.html().contains("Periwinkle")
                        || letter.subject().contains("Periwinkle"),
                letter::text);
        digests.writeWhatIsDue();
        assertEquals(1, letters(of.other()).size());
        assertEquals(
                0,
                jdbc.sql("select count(*) from mail where sent_at is not null and (text <> '' or subject <> '')")
                        .query(Integer.class)
                        .single(),
                "of what was sent no word is kept");

        school.published(of, of.first(), of.blogOfFirst(), Map.of(), "After that");
        tell();
        jdbc.sql("update membership set ended_at = :now where person_id = :id")
                .param("now", Instant.now().atOffset(java.time.ZoneOffset.UTC))
                .param("id", of.other().id)
                .update();
        assertEquals(1, letters(of.other()).size(), "the reader left");
    }

    /** Staff who look through a student's eyes see the news of their own class alone, and mark nothing as seen. */
    @Test
    void borrowedEyesSeeTheNewsOfOneClass() {
        Made elsewhere = school.make(port);
        long there = school.published(elsewhere, elsewhere.first(), elsewhere.blogOfFirst(), Map.of(), "There");
        jdbc.sql("""
                                insert into membership (class_id, person_id, role, shown, joined_at)
                                 values (:classId, :person, 'STUDENT', 'OWN_NAME',
                                    timestamp '2026-01-01 00:00:00+00:00')""")
                .param("classId", elsewhere.classId())
                .param("person", of.first().id)
                .update();
        long comment = of.first()
                .post("/api/posts/" + there + "/comments", Map.of("text", "From next door."))
                .body()
                .get("id")
                .asLong();
        elsewhere.lead().post("/api/comments/" + comment + "/words", Map.of("text", "Kind of you."));
        long here = school.published(of, of.first(), of.blogOfFirst(), Map.of(), "Here");
        assertEquals(List.of("APPROVED", "WORD"), kinds(of.first()));
        String eyes = of.classId() + "/"
                + of.lead().get("/api/posts/" + here).body().get("place").asLong();
        assertEquals(
                List.of("APPROVED"),
                of.lead()
                        .get("/api/news", "X-Porch-Eyes", eyes)
                        .body()
                        .get("items")
                        .valueStream()
                        .map(i -> i.get("kind").asString())
                        .toList());
        assertEquals(
                403,
                of.lead()
                        .call("POST", "/api/news/seen", null, "X-Porch-Eyes", eyes)
                        .status());
    }
}

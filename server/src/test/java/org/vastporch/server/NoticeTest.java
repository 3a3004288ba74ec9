package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Instant;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.vastporch.server.School.Made;
import org.vastporch.server.moderation.NoticeService;
import tools.jackson.databind.JsonNode;

/** Mail about what waits: to whom, when, and what it carries. */
@ServerTest
class NoticeTest {

    @Autowired
    School school;

    @Autowired
    NoticeService notices;

    @Autowired
    PostOffice post;

    @Autowired
    JdbcClient jdbc;

    @LocalServerPort
    int port;

    Made of;
    /** The address of the moderator. */
    String pell;

    private final Map<String, Object> wish = new HashMap<>(
            Map.of("cadence", "AT_ONCE", "address", "", "quietFrom", "00:00:00", "quietUntil", "00:00:00"));

    @BeforeEach
    void makeClass() {
        of = school.make(port);
        wish.put("address", pell = "pell" + of.moderator().id + "@post.example");
    }

    private String path(String rest) {
        return "/api/classes/" + of.classId() + rest;
    }

    private void handIn(String title, String html) {
        assertEquals(
                200,
                school.handIn(of.first(), of.blogOfFirst(), Map.of(), title, html)
                        .status());
    }

    /** As if all that happened so far were long enough ago. */
    private void settle() {
        jdbc.sql("update post set waiting_since = dateadd('MINUTE', -20, waiting_since) where class_id = :id")
                .param("id", of.classId())
                .update();
        jdbc.sql("update notice_wish set told_upto = :then where class_id = :id")
                .param("then", Instant.now().minusSeconds(1500).atOffset(ZoneOffset.UTC))
                .param("id", of.classId())
                .update();
    }

    private List<String> mailsTo(String address) {
        return post.lettersTo(address).stream().map(PostOffice.Letter::text).toList();
    }

    @Test
    void onceForAllThatCameTogetherNeverAtNightAndWithoutAnyText() {
        jdbc.sql("update person set email = :email where id = :id")
                .param("email", pell)
                .param("id", of.moderator().id)
                .update();
        assertEquals(200, of.moderator().put(path("/notice"), wish).status());
        assertEquals(403, of.first().put(path("/notice"), wish).status());
        handIn("One", "<p>A secret of a text.</p>");
        handIn("Two", "<p>Words.</p>");
        notices.tellWhatIsDue();
        assertEquals(List.of(), mailsTo(pell), "it waits for others that come just now");
        settle();
        LocalTime now = LocalTime.now(ZoneId.of("Europe/London"));
        wish.putAll(Map.of(
                "quietFrom",
                now.minusHours(1).withNano(0).toString(),
                "quietUntil",
                now.plusHours(1).withNano(0).toString()));
        of.moderator().put(path("/notice"), wish);
        notices.tellWhatIsDue();
        assertEquals(List.of(), mailsTo(pell), "these are quiet hours");
        wish.putAll(Map.of("quietFrom", "00:00:00", "quietUntil", "00:00:00"));
        of.moderator().put(path("/notice"), wish);
        notices.tellWhatIsDue();
        List<String> mails = mailsTo(pell);
        assertEquals(1, mails.size());
        assertTrue(
                mails.get(0).contains("Post: One, by Wren Castellane")
                        && mails.get(0).contains("/approve?item=post-"),
                mails.get(0));
        assertFalse(mails.get(0).contains("secret"));
        settle();
        notices.tellWhatIsDue();
        assertEquals(1, mailsTo(pell).size(), "nothing is told twice");
    }

    /** Decided on meanwhile, or no longer for this reader to decide on: the mail asks again before it goes. */
    @Test
    void aMailNamesWhatStillWaitsWhenItGoes() {
        jdbc.sql("update person set email = :email where id = :id")
                .param("email", pell)
                .param("id", of.moderator().id)
                .update();
        of.moderator().put(path("/notice"), wish);
        handIn("One", "<p>Words.</p>");
        handIn("Two", "<p>Words.</p>");
        settle();
        notices.tellWhatIsDue();
        JsonNode one = of.lead().get("/api/pile").body().get("items").get(0);
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
                                        "post",
                                        "id",
                                        one.get("id").asLong(),
                                        "version",
                                        1,
                                        "rev",
                                        one.get("rev").asInt()))));
        String mail = mailsTo(pell).get(0);
        assertTrue(mail.contains("Post: Two") && !mail.contains("Post: One"), mail);
        handIn("Three", "<p>Words.</p>");
        settle();
        notices.tellWhatIsDue();
        jdbc.sql("update membership set ended_at = :now where person_id = :id")
                .param("now", Instant.now().atOffset(ZoneOffset.UTC))
                .param("id", of.moderator().id)
                .update();
        assertEquals(1, mailsTo(pell).size(), "whoever left the class is told nothing");
    }

    /**
     * Such mail names students: at an address besides the account's nothing arrives but a question, until somebody
     * there has answered it.
     */
    @Test
    void anotherAddressIsAskedFirst() {
        wish.put("address", "");
        assertEquals("email-missing", of.moderator().put(path("/notice"), wish).code());
        String office = "office" + of.moderator().id + "@post.example";
        wish.put("address", office);
        assertTrue(of.moderator().put(path("/notice"), wish).body().get("waits").asBoolean());
        of.moderator().put(path("/notice"), wish);
        handIn("One", "<p>Words.</p>");
        settle();
        notices.tellWhatIsDue();
        List<String> asked = mailsTo(office);
        assertEquals(1, asked.size(), "asked once, and told nothing");
        assertFalse(asked.get(0).contains("Wren"), asked.get(0));
        String token = asked.get(0).replaceFirst("(?s).*/email\\?t=(\\S+).*", "$1");
        assertEquals(
                200,
                school.stranger(port)
                        .post("/api/email-confirmation", Map.of("token", token))
                        .status());
        assertFalse(of.moderator().get(path("/notice")).body().get("waits").asBoolean());
        assertEquals(
                "",
                of.moderator().get("/api/account").body().get("email").asString(),
                "that of the account is another thing");
        notices.tellWhatIsDue();
        assertTrue(mailsTo(office).get(1).contains("Post: One, by Wren Castellane"), "what came meanwhile is told now");
    }
}

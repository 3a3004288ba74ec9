package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.time.LocalDate;
import java.time.ZoneId;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Made;
import org.vastporch.server.School.Person;
import tools.jackson.databind.JsonNode;

/** Ways in and out of a class, names, groups, passwords. */
@ServerTest
class PeopleTest {

    @Autowired
    School school;

    @Autowired
    PostOffice post;

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

    /** A post of Wren's that is up for the class. */
    private long published(String title) {
        return school.published(of, of.first(), of.blogOfFirst(), Map.of(), title);
    }

    private String leaving(Person who) {
        return path("/people/" + who.id + "/leaving");
    }

    @Test
    void whoLeavesReadsNoMoreAndThePostsStayOrGoAlong() {
        long id = published("Slugs");
        JsonNode before = of.lead().get(leaving(of.first())).body();
        assertEquals(1, before.get("here").get("posts").asInt());
        assertEquals("YOU", before.get("eraser").asString());

        of.lead().post(leaving(of.first()), Map.of("leaving", "KEEP"));
        assertEquals(404, of.first().get(path("/porch")).status());
        assertEquals(200, of.first().get("/api/posts/" + id).status(), "the own writing stays readable for its author");
        assertEquals(200, of.other().get("/api/posts/" + id).status());
        assertEquals(200, of.lead().call("DELETE", leaving(of.first()), null).status());
        assertEquals(200, of.first().get(path("/porch")).status());

        of.lead().post(leaving(of.first()), Map.of("leaving", "HAND_OVER"));
        assertEquals(404, of.other().get("/api/posts/" + id).status());
        assertEquals(0, of.other().get(path("/porch")).body().get("total").asInt());
        for (Person reader : List.of(of.first(), of.lead()))
            assertEquals(200, reader.get("/api/posts/" + id).status());
        of.lead().call("DELETE", leaving(of.first()), null);
        assertEquals(200, of.other().get("/api/posts/" + id).status(), "all of it can be undone");
        assertEquals(
                "lead-stays",
                of.second()
                        .post(path("/people/" + of.lead().id + "/leaving"), Map.of("leaving", "KEEP"))
                        .code());
    }

    @Test
    void aPenNameLeavesNoWayToItsOwner() {
        long id = published("Slugs");
        of.other().post("/api/posts/" + id + "/comments", Map.of("text", "Where?"));
        assertEquals(
                200,
                of.lead()
                        .put(
                                path("/people/" + of.first().id + "/shown"),
                                Map.of("shown", "PEN_NAME", "penName", "Low Water"))
                        .status());
        long place = of.other().get("/api/posts/" + id).body().get("place").asLong();
        String feed =
                of.other().post(path("/feed-key"), null).body().get("path").asString();
        List<String> answers = Stream.of(
                        "/api/posts/" + id,
                        "/api/posts/" + id + "/comments",
                        path("/porch"),
                        path("/porch?place=" + place),
                        path("/rail"),
                        path("/blogs/mine"),
                        path(""),
                        path("/news"),
                        path("/prompts"),
                        path("/blogs/at/log-of-low-water"),
                        "/api/blogs/" + of.blogOfFirst() + "/shelf",
                        feed,
                        feed.replace(".rss", ".atom"),
                        feed.replace(".rss", ".json"))
                .flatMap(p -> Stream.of(of.other(), of.guest())
                        .map(reader -> p + " " + reader.get(p).text()))
                .toList();
        for (String answer : answers)
            for (String trace : List.of(
                    "Wren", "wren", "Castellane", "castellane", "\"" + of.first().id + "\"", ":" + of.first().id + ","))
                assertFalse(answer.contains(trace), trace + " stands in " + answer);
        assertTrue(of.other().get("/api/posts/" + id).text().contains("Low Water"));
        assertEquals(
                404,
                of.other().get(path("/blogs/at/log-of-wren-castellane")).status(),
                "the earlier address no longer tells whose blog it was");
        assertTrue(of.lead().get("/api/posts/" + id).text().contains("Wren Castellane"), "staff see who it is");
        assertFalse(of.moderator().get("/api/pile").text().contains("Wren"));
        assertEquals(
                "pen-name-taken",
                of.lead()
                        .put(
                                path("/people/" + of.other().id + "/shown"),
                                Map.of("shown", "PEN_NAME", "penName", "low wáter"))
                        .code());
        Answer back = of.lead().put(path("/people/" + of.first().id + "/shown"), Map.of("shown", "OWN_NAME"));
        assertEquals(200, back.status());
        assertEquals(404, of.other().get(path("/blogs/at/log-of-low-water")).status());
    }

    @Test
    void numbersThatReadersSeeDoNotFollowTheAlphabet() {
        String list = IntStream.range(0, 14)
                .mapToObj(i -> "Row" + (char) ('a' + i) + ",Ada," + of.classId() + "-" + i)
                .collect(Collectors.joining("\n", "Surname,Forename,Number\n", ""));
        JsonNode rows = of.lead()
                .post(path("/roster/preview"), Map.of("text", list))
                .body()
                .get("rows");
        of.lead().post(path("/roster"), Map.of("rows", rows));
        List<JsonNode> people = List.of();
        while (people.size() < 14)
            people = of.lead()
                    .get(path("/people"))
                    .body()
                    .valueStream()
                    .filter(p -> p.get("sortName").asString().startsWith("Row"))
                    .toList();
        List<Long> places = people.stream().map(p -> p.get("place").asLong()).toList();
        assertNotEquals(places.stream().sorted().toList(), places);
        List<Long> blogs = people.stream()
                .map(p -> of.lead()
                        .get(path("/blogs/at/log-of-ada-"
                                + p.get("sortName").asString().substring(0, 4).toLowerCase()))
                        .body()
                        .get("id")
                        .asLong())
                .toList();
        assertNotEquals(blogs.stream().sorted().toList(), blogs);
    }

    @Test
    void aClassWordWorksUpToADayOfTheClass() {
        String day = LocalDate.now(ZoneId.of("Europe/London")).plusDays(3).toString();
        JsonNode word = of.lead()
                .put(path("/word"), Map.of("keep", false, "until", day))
                .body()
                .get("word");
        assertEquals(day, word.get("until").asString());
        assertTrue(word.get("open").asBoolean());
        for (String far : List.of("2999-01-01", "+999999999-12-31", "1066-10-14")) {
            Answer refused = of.lead().put(path("/word"), Map.of("keep", true, "until", far));
            assertEquals("until-range", refused.code(), refused::text);
            assertEquals("until", refused.body().get("field").asString());
        }
    }

    @Test
    void aClassCodeLetsInAsManyAsItSays() {
        String word = of.lead()
                .put(path("/word"), Map.of("keep", false, "left", 1))
                .body()
                .get("word")
                .get("word")
                .asString();
        Person comer = school.stranger(port);
        assertEquals(
                "word-unknown",
                comer.post("/api/join/class", Map.of("word", "bbbb bbbb")).code());
        Answer joined = comer.post(
                "/api/join",
                Map.of(
                        "word",
                        word.toUpperCase().replace(" ", "-"),
                        "newcomer",
                        Map.of("given", "Ida", "family", "Comer", "password", "three quiet words")));
        assertEquals(200, joined.status(), joined::text);
        assertTrue(joined.body().get("username").asString().startsWith("ida.c"));
        assertEquals(
                "STUDENT",
                comer.get("/api/me").body().get("classes").get(0).get("role").asString());
        assertEquals(1, comer.get(path("/blogs/mine")).body().size(), "an own blog is there at once");
        assertEquals(
                "word-over",
                school.stranger(port)
                        .post(
                                "/api/join",
                                Map.of(
                                        "word",
                                        word,
                                        "newcomer",
                                        Map.of("given", "Ada", "password", "three quiet words")))
                        .code());
        assertEquals(
                "already-here",
                of.first()
                        .post(
                                "/api/join",
                                Map.of(
                                        "word",
                                        of.lead()
                                                .put(path("/word"), Map.of("keep", false))
                                                .body()
                                                .get("word")
                                                .get("word")
                                                .asString(),
                                        "newcomer",
                                        Map.of()))
                        .code());
    }

    @Test
    void anInvitationIsAcceptedOnceAndAppearsByItself() {
        String email = "aunt" + of.classId() + "@post.example";
        Map<String, Object> invite = Map.of("role", "GUEST", "name", "Aunt Ida", "email", email);
        String first = of.lead()
                .post(path("/invitations"), invite)
                .body()
                .get("path")
                .asString()
                .replaceFirst(".*t=", "");
        assertEquals(
                "invited-already", of.lead().post(path("/invitations"), invite).code());
        long id = of.lead().get(path("/invitations")).body().get(0).get("id").asLong();
        String second = of.lead()
                .post("/api/invitations/" + id + "/resend", null)
                .body()
                .get("path")
                .asString()
                .replaceFirst(".*t=", "");
        Person aunt = school.stranger(port);
        assertEquals(
                "invitation-gone",
                aunt.post("/api/invitation", Map.of("token", first)).code(),
                "the newest address alone works");
        assertEquals(
                "Aunt Ida",
                aunt.post("/api/invitation", Map.of("token", second))
                        .body()
                        .get("name")
                        .asString());
        Map<String, Object> newcomer =
                Map.of("title", "Mx", "given", "Ida", "family", "Aunt" + of.classId(), "password", "three quiet words");
        assertEquals(
                200,
                aunt.post("/api/invitation/accept", Map.of("token", second, "newcomer", newcomer))
                        .status());
        assertEquals(
                "GUEST",
                aunt.get("/api/me").body().get("classes").get(0).get("role").asString());
        assertEquals(0, of.lead().get(path("/invitations")).body().size());
        assertTrue(of.lead().get(path("/people")).text().contains("Aunt" + of.classId()));
        assertEquals(
                "invitation-used",
                school.stranger(port)
                        .post("/api/invitation/accept", Map.of("token", second, "newcomer", newcomer))
                        .code());
        assertEquals(
                "email-wrong",
                of.lead()
                        .post(path("/invitations"), Map.of("role", "GUEST", "name", "", "email", "not an address"))
                        .code());
    }

    @Test
    void studentsAreMovedSplitAndPutBack() {
        long bed = of.lead()
                .post(path("/groups"), Map.of("name", "Bed 1"))
                .body()
                .get("id")
                .asLong();
        assertEquals(
                "name-taken",
                of.lead().post(path("/groups"), Map.of("name", "bed 1")).code());
        JsonNode undo = of.lead()
                .post(
                        path("/groups/moves"),
                        Map.of(
                                "moves",
                                List.of(Map.of("people", List.of(of.first().id, of.other().id), "groupId", bed))))
                .body();
        assertEquals(
                "Bed 1",
                of.other()
                        .get("/api/posts/" + published("Slugs"))
                        .body()
                        .get("group")
                        .asString());
        of.lead().post(path("/groups/moves"), undo);
        assertEquals(
                0,
                of.lead()
                        .get(path("/people"))
                        .body()
                        .valueStream()
                        .filter(p -> p.has("group"))
                        .count());
        of.lead().post(path("/groups/split"), Map.of("people", List.of(), "groups", 2, "atRandom", true));
        assertEquals(
                2,
                of.lead()
                        .get(path("/people"))
                        .body()
                        .valueStream()
                        .filter(p -> p.has("group"))
                        .map(p -> p.get("group").asString())
                        .distinct()
                        .count());
        long elsewhere = school.make(port)
                .lead()
                .get("/api/me")
                .body()
                .get("classes")
                .get(0)
                .get("id")
                .asLong();
        assertEquals(
                404,
                of.lead()
                        .post("/api/classes/" + elsewhere + "/groups", Map.of("name", "x"))
                        .status());
    }

    @Test
    void aTeacherIsNobodysStudentWhenItComesToPassPhrases() {
        Person colleague = school.make(port).lead();
        String word = of.lead()
                .put(path("/word"), Map.of("keep", false))
                .body()
                .get("word")
                .get("word")
                .asString();
        assertEquals(
                200,
                colleague
                        .post("/api/join", Map.of("word", word, "newcomer", Map.of()))
                        .status());
        assertEquals(
                "keeper-cares",
                of.lead()
                        .post(path("/people/" + colleague.id + "/pass-phrase"), null)
                        .code());
        assertEquals(
                "NOBODY", of.lead().get(leaving(colleague)).body().get("eraser").asString());
    }

    @Test
    void studentsChangeTheirPasswordWhereTheClassLetsThem() {
        Map<String, Object> change = Map.of("before", School.PASSWORD, "password", "another quiet one");
        JsonNode now = of.lead().get(path("")).body();
        Map<String, Object> kept = Map.of(
                "name",
                now.get("name"),
                "subject",
                "",
                "level",
                "",
                "zone",
                "Europe/London",
                "terms",
                now.get("terms"),
                "breaks",
                List.of(),
                "ownPasswords",
                false,
                "byGiven",
                true,
                "version",
                now.get("version"));
        assertEquals(200, of.lead().put(path(""), kept).status());
        assertEquals(
                "password-kept", of.first().put("/api/account/password", change).code());
        assertFalse(
                of.first().get("/api/account").body().get("mayChangePassword").asBoolean());
        assertEquals("class-changed", of.second().put(path(""), kept).code());
        Map<String, Object> again = new HashMap<>(kept);
        again.put("ownPasswords", true);
        again.put("version", now.get("version").asInt() + 1);
        assertEquals(200, of.lead().put(path(""), again).status());
        assertEquals(
                "before",
                of.first()
                        .put("/api/account/password", Map.of("before", "not this", "password", "another quiet one"))
                        .body()
                        .get("field")
                        .asString());
        assertEquals(200, of.first().put("/api/account/password", change).status());
    }

    /**
     * A slip of the pen must not send what is private to a stranger: an address counts once its mail was answered, and
     * a newer wish ends an older one.
     */
    @Test
    void anAddressCountsOnceItsMailWasAnswered() {
        assertEquals(
                "email-wrong",
                of.lead()
                        .put("/api/account/email", Map.of("email", "quill at home"))
                        .code());
        assertEquals(
                "email-kept",
                of.first()
                        .put("/api/account/email", Map.of("email", "first@post.example"))
                        .code());
        assertEquals(
                200,
                of.lead()
                        .put("/api/account/email", Map.of("email", "slip@post.example"))
                        .status());
        String slip = tokenTo("slip@post.example");
        JsonNode account = of.lead()
                .put("/api/account/email", Map.of("email", "lead@post.example"))
                .body();
        assertEquals(
                " lead@post.example",
                account.get("email").asString() + " "
                        + account.get("emailWaits").asString());
        assertEquals(
                "address-used",
                school.stranger(port)
                        .post("/api/email-confirmation", Map.of("token", slip))
                        .code());
        String token = tokenTo("lead@post.example");
        assertEquals(
                200,
                school.stranger(port)
                        .post("/api/email-confirmation", Map.of("token", token))
                        .status());
        assertEquals(
                "address-used",
                school.stranger(port)
                        .post("/api/email-confirmation", Map.of("token", token))
                        .code());
        account = of.lead().get("/api/account").body();
        assertEquals("lead@post.example", account.get("email").asString());
        assertNull(account.get("emailWaits"));
        assertEquals(
                "",
                of.lead()
                        .put("/api/account/email", Map.of("email", ""))
                        .body()
                        .get("email")
                        .asString());
    }

    private String tokenTo(String address) {
        return post.lettersTo(address)
                .get(post.lettersTo(address).size() - 1)
                .text()
                .replaceFirst("(?s).*/email\\?t=(\\S+).*", "$1");
    }
}

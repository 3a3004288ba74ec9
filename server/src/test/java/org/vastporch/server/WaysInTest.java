package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.io.IOException;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.vastporch.core.people.PersonName;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Made;
import org.vastporch.server.School.Person;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.session.CountedPause;
import tools.jackson.databind.JsonNode;

/** Ways into accounts and classes, and who is kept out. */
@ServerTest
class WaysInTest {

    @Autowired
    School school;

    @Autowired
    PeopleService people;

    @Autowired
    PostOffice post;

    @Autowired
    CountedPause pause;

    @Autowired
    JdbcClient jdbc;

    @LocalServerPort
    int port;

    Made of;

    @BeforeEach
    void makeClass() {
        of = school.make(port);
        pause.taken();
    }

    private String path(String rest) {
        return "/api/classes/" + of.classId() + rest;
    }

    private static Map<String, Object> newcomer(String given, String family) {
        return Map.of("given", given, "family", family, "password", "a quiet new one");
    }

    /**
     * A teacher of another class enrols a student by number: she joins, and her account stays with those who had it in
     * their care.
     */
    @Test
    void enrollingSomebodyElsesStudentGivesNoWayIntoHerAccount() {
        Made other = school.make(port);
        String number = jdbc.sql("select school_no from person where id = :id")
                .param("id", of.first().id)
                .query(String.class)
                .single();
        jdbc.sql("update person set slip_phrase = null where id = :id")
                .param("id", of.first().id)
                .update();
        String at = "/api/classes/" + other.classId();
        JsonNode rows = other.lead()
                .post(
                        at + "/roster/preview",
                        Map.of(
                                "text",
                                "Surname,Forename,Student no.,E-mail\nGull,Evil," + number + ",evil@post.example"))
                .body()
                .get("rows");
        assertEquals("JOINS", rows.get(0).get("outcome").asString());
        importRows(other.lead(), at, rows);
        assertEquals("Wren Castellane", named(other, of.first().id), "joining renames nobody");
        assertEquals(
                "keeper-cares",
                other.lead()
                        .post(at + "/people/" + of.first().id + "/pass-phrase", null)
                        .code());
        assertEquals(
                "keeper-cares",
                of.lead()
                        .post(path("/people/" + of.first().id + "/pass-phrase"), null)
                        .code(),
                "from now on her own teacher asks the keeper, too");
        JsonNode again = other.lead()
                .post(
                        at + "/roster/preview",
                        Map.of(
                                "text",
                                "Surname,Forename,Student no.,E-mail\nGull,Evil," + number + ",evil@post.example"))
                .body()
                .get("rows");
        assertEquals("ALREADY", again.get(0).get("outcome").asString());
        importRows(other.lead(), at, again);
        assertEquals("Wren Castellane", named(other, of.first().id));
        assertEquals(
                "keeper-cares",
                other.lead()
                        .put(at + "/people/" + of.first().id + "/name", Map.of("given", "Evil", "family", "Gull"))
                        .code());
        JsonNode told = of.lead().get(path("/today")).body().get("enrolled");
        assertEquals("Wren Castellane", told.get(0).get("name").asString(), "her own teachers see who enrolled her");
        assertTrue(told.get(0).get("className").asString().startsWith("Garden"));
        assertFalse(other.lead()
                .get(at + "/people")
                .body()
                .valueStream()
                .filter(p -> p.get("id").asLong() == of.first().id)
                .findFirst()
                .orElseThrow()
                .get("care")
                .asBoolean());
    }

    private void importRows(Person who, String at, JsonNode rows) {
        String job =
                who.post(at + "/roster", Map.of("rows", rows)).body().get("id").asString();
        while (who.get("/api/imports/" + job).body().get("state").asString().equals("running")) Thread.onSpinWait();
    }

    private String named(Made in, long person) {
        return in.lead()
                .get("/api/classes/" + in.classId() + "/people")
                .body()
                .valueStream()
                .filter(p -> p.get("id").asLong() == person)
                .findFirst()
                .orElseThrow()
                .get("name")
                .asString();
    }

    private static Answer guess(Person who, String username, String password, String from) {
        return who.call(
                "POST", "/api/session", Map.of("username", username, "password", password), "X-Forwarded-For", from);
    }

    /** Wrong tries wait longer and longer; the right password works all the same, from elsewhere nearly at once. */
    @Test
    void guessingIsSlowAndLocksNobodyOut() {
        String wren = people.usernameOf(of.first().id);
        Person guesser = school.stranger(port);
        for (int i = 0; i < 9; i++)
            assertEquals(401, guess(guesser, wren, "guess", "203.0.113.9").status());
        assertEquals(List.of(1L, 2L, 4L, 8L, 16L, 30L), pause.taken());
        assertEquals(
                200,
                guess(school.stranger(port), wren, School.PASSWORD, "203.0.113.10")
                        .status());
        assertEquals(List.of(), pause.taken(), "from another address it is answered at once");
        assertEquals(
                200,
                guess(school.stranger(port), wren, School.PASSWORD, "203.0.113.9")
                        .status());
        assertEquals(List.of(30L), pause.taken(), "behind the same address it is late, and not refused");
    }

    @Test
    void aDeviceThatSignedInBeforeDoesNotWaitForThoseWhoGuess() {
        String wren = people.usernameOf(of.first().id);
        Person home = school.stranger(port);
        assertEquals(200, guess(home, wren, School.PASSWORD, "203.0.113.20").status());
        Person guesser = school.stranger(port);
        for (int i = 0; i < 6; i++) guess(guesser, wren, "guess", "203.0.113.20");
        pause.taken();
        assertEquals(200, guess(home, wren, School.PASSWORD, "203.0.113.20").status());
        assertEquals(List.of(), pause.taken());
    }

    /**
     * A computer of the school at which one student signs in after another: each of them is known there, and stays so.
     */
    @Test
    void aDeviceThatSeveralPeopleShareIsKnownToEachOfThem() {
        String wren = people.usernameOf(of.first().id);
        String pia = people.usernameOf(of.other().id);
        Person shared = school.stranger(port);
        for (String username : List.of(wren, pia))
            assertEquals(
                    200,
                    guess(shared, username, School.PASSWORD, "203.0.113.25").status());
        Person guesser = school.stranger(port);
        for (String username : List.of(wren, pia))
            for (int i = 0; i < 6; i++) guess(guesser, username, "guess", "203.0.113.25");
        pause.taken();
        for (String username : List.of(wren, pia))
            assertEquals(
                    200,
                    guess(shared, username, School.PASSWORD, "203.0.113.25").status());
        assertEquals(List.of(), pause.taken());
    }

    @Test
    void thePersonIsToldOfTriesAndTheKeeperLiftsThem() {
        String wren = people.usernameOf(of.first().id);
        Person guesser = school.stranger(port);
        for (int i = 0; i < 5; i++) guess(guesser, wren, "guess", "203.0.113.30");
        assertEquals(
                5, of.first().get("/api/me").body().get("tries").get("count").asInt());
        assertEquals(200, of.first().call("DELETE", "/api/account/tries", null).status());
        assertFalse(of.first().get("/api/me").body().has("tries"));
        for (int i = 0; i < 5; i++) guess(guesser, wren, "guess", "203.0.113.30");
        long id = people.addKeeper("keeper" + of.first().id, new PersonName("Keeper", "Ada"));
        people.setPassword(id, School.PASSWORD);
        assertEquals(
                404,
                of.lead()
                        .call("DELETE", "/api/school/people/" + of.first().id + "/tries", null)
                        .status());
        assertEquals(
                200,
                school.new Person(port, id)
                        .call("DELETE", "/api/school/people/" + of.first().id + "/tries", null)
                        .status());
        pause.taken();
        guess(guesser, wren, "guess", "203.0.113.30");
        assertEquals(List.of(), pause.taken());
    }

    /**
     * Whatever a sender writes of where it came from, the address that counts is the last one that is none of our own
     * web servers.
     */
    @Test
    void onlyWhatTheTrustedProxySawCounts() {
        String wren = people.usernameOf(of.first().id);
        Person guesser = school.stranger(port);
        for (int i = 0; i < 4; i++)
            guess(guesser, wren, "guess", "198.51.100." + i + ", 10.0.0." + i + ", 203.0.113.40, 10.9.9.9");
        assertEquals(List.of(1L), pause.taken(), "one client, whatever it forges before its own address");
        guess(guesser, wren, "guess", "203.0.113.40, 203.0.113.41, 10.9.9.9");
        assertEquals(List.of(), pause.taken(), "another client");
    }

    @Test
    void wrongCodesAreSlowAndCloseJoiningForNobody() {
        String word = of.lead()
                .put(path("/word"), Map.of("keep", false))
                .body()
                .get("word")
                .get("word")
                .asString();
        Person guesser = school.stranger(port);
        for (int i = 0; i < 32; i++)
            assertEquals(
                    422,
                    guesser.call(
                                    "POST",
                                    "/api/join/class",
                                    Map.of("word", "nobody nowhere"),
                                    "X-Forwarded-For",
                                    "203.0.113.50")
                            .status());
        assertEquals(List.of(1L, 2L), pause.taken());
        assertEquals(
                200,
                guesser.call("POST", "/api/join/class", Map.of("word", word), "X-Forwarded-For", "203.0.113.50")
                        .status());
    }

    @Test
    void aNewPasswordEndsOtherSessionsAndOneTimeAddresses() {
        Person here = of.first();
        Person there = school.new Person(port, here.id);
        assertEquals(200, here.get("/api/me").status());
        assertEquals(200, there.get("/api/me").status());
        for (int i = 0; i < 5; i++)
            assertEquals(
                    "password-wrong",
                    here.put("/api/account/password", Map.of("before", "guess", "password", "another quiet one"))
                            .code());
        assertEquals(List.of(1L, 2L), pause.taken(), "the old one is not guessed there either");
        assertEquals(
                1,
                here.put("/api/account/password", Map.of("before", School.PASSWORD, "password", "another quiet one"))
                        .body()
                        .get("signedOut")
                        .asInt());
        assertEquals(200, here.get("/api/me").status());
        assertEquals(401, there.get("/api/me").status());

        long keeper = people.addKeeper("keeper" + here.id, new PersonName("Keeper", "Ada"));
        people.setPassword(keeper, School.PASSWORD);
        String address = school.new Person(port, keeper)
                .post("/api/school/people/" + of.other().id + "/one-time", null)
                .body()
                .get("path")
                .asString();
        assertEquals(
                200,
                of.lead()
                        .post(path("/people/" + of.other().id + "/pass-phrase"), null)
                        .status());
        assertEquals(
                "address-used",
                school.stranger(port)
                        .post(
                                "/api/first-password",
                                Map.of("token", address.replaceFirst(".*t=", ""), "password", "a quiet new one"))
                        .code());
    }

    @Test
    void whoWasPutOutOfAClassComesBackThroughItsStaffAlone() {
        String word = of.lead()
                .put(path("/word"), Map.of("keep", false))
                .body()
                .get("word")
                .get("word")
                .asString();
        of.lead().post(path("/invitations"), Map.of("role", "STUDENT", "name", "Wren", "email", "wren@post.example"));
        String token =
                post.lettersTo("wren@post.example").get(0).text().replaceFirst("(?s).*invitation\\?t=(\\S+).*", "$1");
        String leaving = path("/people/" + of.first().id + "/leaving");
        assertEquals(200, of.lead().post(leaving, Map.of("leaving", "KEEP")).status());
        assertEquals(
                "place-ended",
                of.first()
                        .post("/api/join", Map.of("word", word, "newcomer", Map.of()))
                        .code());
        assertEquals(
                "place-ended",
                of.first()
                        .post("/api/invitation/accept", Map.of("token", token, "newcomer", Map.of()))
                        .code());
        jdbc.sql("update membership set ended_at = dateadd('DAY', -31, ended_at) where person_id = :id")
                .param("id", of.first().id)
                .update();
        assertEquals(
                "already-ended",
                of.lead().post(leaving, Map.of("leaving", "HAND_OVER")).code());
        assertEquals(
                "too-long-ago",
                of.lead().call("DELETE", leaving, null).code(),
                "ending it again does not begin the 30 days anew");
    }

    @Test
    void aNameThatCouldBeSomebodyElsesIsAskedBeforeItShows() {
        String word = of.lead()
                .put(path("/word"), Map.of("keep", false))
                .body()
                .get("word")
                .get("word")
                .asString();
        String staff = of.lead()
                .get(path("/people"))
                .body()
                .valueStream()
                .filter(p -> p.get("role").asString().equals("LEAD"))
                .findFirst()
                .orElseThrow()
                .get("name")
                .asString();
        long evil = joined(word, newcomer("Ms", "Quill"));
        long copy = joined(word, newcomer(staff.split(" ")[0], staff.split(" ")[1]));
        long plain = joined(word, newcomer("Robin", "Nettle"));
        assertEquals(
                List.of(true, true, false),
                List.of(evil, copy, plain).stream().map(this::asked).toList());
        JsonNode today = of.lead().get(path("/today")).body();
        assertEquals(2, today.get("askedNames").size());
        assertEquals(3, today.get("byWord").size());
        assertFalse(
                of.other().get(path("/directory")).text().contains("Quill"), "not in the title of the own blog either");
        assertTrue(of.other().get(path("/directory")).text().contains("A new student"));
        assertEquals(
                403,
                of.other()
                        .put(path("/people/" + evil + "/name"), Map.of("given", "Ms", "family", "Quill"))
                        .status());
        assertEquals(
                200,
                of.lead()
                        .put(path("/people/" + evil + "/name"), Map.of("given", "Maisie", "family", "Quill"))
                        .status());
        assertTrue(of.other().get(path("/directory")).text().contains("Maisie Quill"));
        assertEquals(1, of.lead().get(path("/today")).body().get("askedNames").size());
    }

    private long joined(String word, Map<String, Object> newcomer) {
        Answer answer = school.stranger(port).post("/api/join", Map.of("word", word, "newcomer", newcomer));
        assertEquals(200, answer.status(), answer::text);
        return jdbc.sql("select id from person where username = :name")
                .param("name", answer.body().get("username").asString())
                .query(Long.class)
                .single();
    }

    private boolean asked(long person) {
        return jdbc.sql("select name_asked from membership where person_id = :id")
                .param("id", person)
                .query(Boolean.class)
                .single();
    }

    /** What a request says of where it went is chosen by whoever sends it: links in mails do not follow it. */
    @Test
    void linksInMailsBeginWithTheSchoolsOwnAddress() throws IOException {
        String email = "guest" + of.lead().id + "@post.example";
        String body =
                "{\"role\":\"GUEST\",\"name\":\"Dear customer, see http://evil.example\",\"email\":\"" + email + "\"}";
        String answer = asHost(of.lead(), "evil.example", path("/invitations"), body);
        assertTrue(answer.startsWith("HTTP/1.1 200"), answer);
        String mail = post.lettersTo(email).get(0).text();
        assertFalse(mail.contains("evil"), mail);
        assertTrue(mail.contains("http://localhost:" + port + "/invitation?t="), mail);
        Map<String, Object> named = new HashMap<>(Map.of(
                "name",
                "See www.evil.example",
                "subject",
                "",
                "level",
                "",
                "zone",
                "Europe/London",
                "firstDay",
                "2026-09-01",
                "lastDay",
                "2026-12-01",
                "breaks",
                List.of()));
        assertEquals("name-address", of.lead().post("/api/classes", named).code());
        named.put("name", "Two\r\nlines\u0007");
        long id = of.lead().post("/api/classes", named).body().get("id").asLong();
        assertEquals(
                "Two  lines",
                of.lead().get("/api/classes/" + id).body().get("name").asString());
    }

    private String asHost(Person who, String host, String path, String body) throws IOException {
        who.get("/api/me");
        try (Socket socket = new Socket("localhost", port)) {
            socket.getOutputStream()
                    .write(("POST " + path + " HTTP/1.1\r\nHost: " + host + "\r\nX-Forwarded-Host: " + host
                                    + "\r\nConnection: close\r\nContent-Type: application/json\r\nContent-Length: "
                                    + body.length() + "\r\nCookie: " + who.cookie() + "\r\nX-XSRF-TOKEN: " + who.csrf()
                                    + "\r\n\r\n" + body)
                            .getBytes(StandardCharsets.UTF_8));
            return new String(socket.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    /** What the web server itself refuses is said as everything is, and tells nothing of what runs here. */
    @Test
    void anAddressThatCannotBeOneIsRefusedInOurForm() throws IOException {
        for (String odd : List.of("/api/classes/1%00", "/api/classes/1/porch?a=%zz|", "/api/..%2f..%2f%00")) {
            try (Socket socket = new Socket("localhost", port)) {
                socket.getOutputStream()
                        .write(("GET " + odd + " HTTP/1.1\r\nHost: localhost\r\nConnection: close\r\n\r\n")
                                .getBytes(StandardCharsets.UTF_8));
                String answer = new String(socket.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
                assertTrue(answer.startsWith("HTTP/1.1 400"), answer);
                assertTrue(answer.contains("application/problem+json"), answer);
                assertTrue(answer.contains("This request could not be understood."), answer);
                assertFalse(answer.contains("<html"), answer);
            }
        }
    }

    @Test
    void noAnswerIsKeptOnTheWay() {
        for (String at : List.of("/api/me", path("/porch"), "/api/posts/0"))
            assertEquals(
                    "private, no-store",
                    of.first()
                            .get(at)
                            .raw()
                            .headers()
                            .firstValue("Cache-Control")
                            .orElse(""));
    }

    @Test
    void theKeeperConfirmsTheAddressOnce() {
        long id = people.addKeeper("keeper" + of.lead().id, new PersonName("Keeper", "Ada"));
        people.setPassword(id, School.PASSWORD);
        Person keeper = school.new Person(port, id);
        assertFalse(keeper.get("/api/school/address").body().get("fixed").asBoolean());
        for (String wrong : List.of(
                "porch.example",
                "javascript:alert(1)",
                "http://porch.example/evil",
                "http://a@porch.example",
                "http://porch.example?x"))
            assertEquals(
                    "address-wrong",
                    keeper.put("/api/school/address", Map.of("address", wrong)).code(),
                    wrong);
        assertEquals(
                "http://localhost:" + port,
                keeper.put("/api/school/address", Map.of("address", "http://localhost:" + port + "/"))
                        .body()
                        .get("address")
                        .asString());
        assertTrue(keeper.get("/api/school/address").body().get("sure").asBoolean());
    }
}

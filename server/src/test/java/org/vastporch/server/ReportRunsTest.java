package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.io.IOException;
import java.time.LocalDate;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.jsoup.Jsoup;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.vastporch.server.PostOffice.Letter;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Person;
import org.vastporch.server.reports.ReportRunService;
import tools.jackson.databind.JsonNode;

/** Reports of a week made for several students: what is filed and mailed, once, and what only its reader reads. */
@ServerTest
class ReportRunsTest extends Assessing {

    @Autowired
    ReportRunService runs;

    @Autowired
    PostOffice post;

    private String address;
    private LocalDate monday;

    @BeforeEach
    void address() {
        address = "reader" + of.first().id + "@example.org";
        jdbc.sql("update person set email = :email where id = :id")
                .param("email", address)
                .param("id", of.first().id)
                .update();
        LocalDate today = LocalDate.now(LONDON);
        monday = today.minusDays(today.getDayOfWeek().getValue() - 1L);
    }

    @AfterEach
    void open() {
        post.close(false);
    }

    private String week(String ending) {
        return "/api/classes/" + of.classId() + "/weeks/" + monday + "/reports" + ending;
    }

    private Answer begin(Person by, String note, Person... students) {
        return by.post(
                week(""),
                Map.of(
                        "template",
                        "letter",
                        "reports",
                        Stream.of(students)
                                .map(s -> Map.of("student", s.id, "note", note))
                                .toList()));
    }

    /** Makes them, and says what became of each. */
    private List<String> run(String note, Person... students) {
        assertEquals(200, begin(of.lead(), note, students).status());
        runs.makeWhatWaits();
        JsonNode run = of.lead().get(week("")).body().get("run");
        assertTrue(run.has("ended"));
        assertEquals(students.length, run.get("done").asInt());
        return Stream.of(students)
                .map(s -> run.get("lines")
                        .valueStream()
                        .filter(l -> l.get("studentId").asLong() == s.id)
                        .findFirst()
                        .orElseThrow()
                        .get("outcome")
                        .asString())
                .toList();
    }

    private JsonNode lineOfFirst() {
        return of.lead()
                .get(week(""))
                .body()
                .get("lines")
                .valueStream()
                .filter(l -> l.get("studentId").asLong() == of.first().id)
                .findFirst()
                .orElseThrow();
    }

    private String mine() {
        List<JsonNode> all = of.first()
                .get("/api/classes/" + of.classId() + "/my-reports")
                .body()
                .valueStream()
                .toList();
        assertEquals(1, all.size());
        return "/api/week-reports/" + all.get(0).get("id").asLong();
    }

    private String filed() {
        return Jsoup.parse(of.first().get(mine()).body().get("html").asString()).text();
    }

    private static String text(byte[] pdf) throws IOException {
        try (PDDocument of = Loader.loadPDF(pdf)) {
            return new PDFTextStripper().getText(of);
        }
    }

    @Test
    void oneIsFiledForWhoeverHasNoAddressAndMailedToTheOther() throws IOException {
        handIn(set(open("Slugs", in(20))), "Two slugs");
        assertEquals(List.of("MAILED", "FILED"), run("Well <done>.", of.first(), of.other()));
        List<Letter> letters = post.lettersTo(address);
        assertEquals(1, letters.size());
        assertTrue(
                letters.get(0).subject().startsWith("Your report of week"),
                letters.get(0).subject());
        String enclosed = text(letters.get(0).enclosed());
        assertTrue(enclosed.contains("“Two slugs”") && enclosed.contains("Well <done>."), enclosed);
        assertEquals("sent", lineOfFirst().get("told").get("mail").asString());
        Answer own = of.first().get(mine());
        assertTrue(own.body().get("own").asBoolean());
        assertTrue(own.body().get("html").asString().contains("Well &lt;done&gt;."));
        assertTrue(text(of.first().get(mine() + ".pdf").raw().body()).contains("Two slugs"));
        assertTrue(letters.get(0)
                .text()
                .contains("/reports/" + own.body().get("id").asLong()));
        String both = text(of.lead().get(week(".pdf")).raw().body());
        assertEquals(2, both.split("Dear ", -1).length - 1);
    }

    @Test
    void againTellsOnlyWhatChanged() {
        long prompt = set(open("Slugs", in(20)));
        assertEquals(List.of("MAILED", "FILED"), run("", of.first(), of.other()));
        assertEquals(List.of("SAME", "SAME"), run("", of.first(), of.other()));
        handIn(prompt, "Two slugs");
        assertEquals(List.of("MAILED", "SAME"), run("", of.first(), of.other()));
        assertEquals(List.of("MAILED", "FILED"), run("A note.", of.first(), of.other()));
        List<Letter> letters = post.lettersTo(address);
        // Those that had not gone when the next one was made said nothing: what is told last counts.
        Set<String> ids = new HashSet<>(letters.stream().map(Letter::id).toList());
        assertEquals(ids.size(), letters.size());
        assertEquals("A note.", lineOfFirst().get("told").get("note").asString());
        mine();
    }

    @Test
    void whatIsTakenBackWhileTheMailWaitsIsNotInIt() throws IOException {
        long prompt = set(open("Slugs", LocalDate.now(LONDON).atTime(23, 59)));
        handIn(prompt, "Two slugs");
        mark(prompt, 4, 2);
        release(prompt);
        assertEquals(List.of("MAILED"), run("", of.first()));
        assertTrue(filed().contains("6 of 9 points"), filed());
        jdbc.sql("update marking set released_at = null where prompt_id = :id")
                .param("id", prompt)
                .update();
        List<Letter> letters = post.lettersTo(address);
        assertEquals(1, letters.size());
        assertFalse(text(letters.get(0).enclosed()).contains("points"));
        assertFalse(filed().contains("points"), "what is filed is what was sent");
    }

    @Test
    void aClosedPostOfficeHoldsUpNothingAndTheMailKeepsItsIdentity() {
        post.close(true);
        assertEquals(List.of("MAILED", "FILED"), run("", of.first(), of.other()));
        assertTrue(post.lettersTo(address).isEmpty());
        assertTrue(lineOfFirst().get("told").get("mail").asString().startsWith("failed"));
        post.close(false);
        jdbc.sql("update mail set next_try = created_at where recipient = :to")
                .param("to", address)
                .update();
        Letter first = post.lettersTo(address).get(0);
        // Killed between sending and noting it: the same mail goes once more, and is known again.
        jdbc.sql("update mail set next_try = created_at, sent_at = null where recipient = :to")
                .param("to", address)
                .update();
        List<Letter> letters = post.lettersTo(address);
        assertEquals(2, letters.size());
        assertEquals(first.id(), letters.get(1).id());
        assertTrue(first.id().matches("<porch-\\d+-\\d+@[a-z.]+>"), first.id());
    }

    @Test
    void whoLeavesIsToldNothingAndWhoMayNotMarkSendsNothing() {
        begin(of.second(), "", of.first(), of.other());
        of.lead()
                .post(
                        "/api/classes/" + of.classId() + "/people/" + of.other().id + "/leaving",
                        Map.of("leaving", "KEEP"));
        runs.makeWhatWaits();
        String lines = of.lead().get(week("")).body().get("run").get("lines").toString();
        assertTrue(lines.contains("MAILED") && lines.contains("LEFT"), lines);
        handIn(set(open("Slugs", in(20))), "Two slugs");
        begin(of.second(), "", of.first());
        jdbc.sql("update membership set ended_at = current_timestamp where class_id = :class and person_id = :id")
                .param("class", of.classId())
                .param("id", of.second().id)
                .update();
        runs.makeWhatWaits();
        lines = of.lead().get(week("")).body().get("run").get("lines").toString();
        assertTrue(lines.contains("FAILED"), lines);
        assertTrue(post.lettersTo(address).isEmpty(), "whoever sent it may not any more");
    }

    @Test
    void stoppedNothingMoreIsMade() {
        long run = begin(of.lead(), "", of.first(), of.other()).body().get("id").asLong();
        assertEquals("run-under-way", begin(of.second(), "", of.first()).code());
        String path = "/api/classes/" + of.classId() + "/report-runs/" + run;
        assertEquals(403, of.first().call("DELETE", path, null).status());
        Answer stopped = of.lead().call("DELETE", path, null);
        assertTrue(stopped.body().has("ended"));
        runs.makeWhatWaits();
        assertFalse(lineOfFirst().has("told"));
        assertEquals(2, stopped.body().get("done").asInt());
        assertEquals(200, begin(of.lead(), "", of.first()).status());
    }

    @Test
    void badWishesAreSaidAndChangeNothing() {
        assertEquals("nobody", begin(of.lead(), "").code());
        assertEquals(
                "note-too-long", begin(of.lead(), "x".repeat(2001), of.first()).code());
        assertEquals("not-in-class", begin(of.lead(), "", of.guest()).code());
        assertEquals(
                404,
                of.lead()
                        .post(
                                week(""),
                                Map.of(
                                        "template",
                                        "nothing",
                                        "reports",
                                        List.of(Map.of("student", of.first().id, "note", ""))))
                        .status());
        assertEquals(404, of.lead().get(week(".pdf")).status());
        assertFalse(of.lead().get(week("")).body().has("run"));
    }

    @Test
    void onlyItsStudentAndThoseWhoMarkReadIt() {
        run("Only for you.", of.first());
        String path = mine();
        for (Person no : new Person[] {of.other(), of.guest(), of.moderator(), school.stranger(port)})
            for (String ending : new String[] {"", ".pdf"}) {
                Answer answer = no.get(path + ending);
                assertTrue(answer.status() >= 401, answer.text());
                assertEquals(no.get("/api/week-reports/987654321" + ending).status(), answer.status());
            }
        assertFalse(of.second().get(path).body().get("own").asBoolean());
        assertEquals(
                0,
                of.other()
                        .get("/api/classes/" + of.classId() + "/my-reports")
                        .body()
                        .size());
        assertEquals(
                1,
                of.lead()
                        .get("/api/classes/" + of.classId() + "/students/" + of.first().id + "/reports")
                        .body()
                        .size());
    }

    @Test
    void itsStudentAnswersItWithAPrivateWord() {
        String words = "/api/classes/" + of.classId() + "/words";
        assertEquals(
                "no-word", of.first().post(words, Map.of("text", "Too early")).code());
        run("", of.first());
        assertTrue(of.first().get(words).body().get("mayWrite").asBoolean());
        assertEquals(200, of.first().post(words, Map.of("text", "Thank you")).status());
        assertTrue(of.lead()
                .get("/api/classes/" + of.classId() + "/people/" + of.first().id + "/words")
                .text()
                .contains("Thank you"));
        assertEquals(
                "no-word",
                of.other().post(words, Map.of("text", "Nobody told me")).code());
    }
}

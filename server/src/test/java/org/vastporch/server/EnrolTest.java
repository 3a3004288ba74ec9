package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.locks.LockSupport;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.cos.COSName;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.vastporch.core.access.BlogFacts.Commenters;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.blogs.BlogKind;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Made;
import org.vastporch.server.School.Person;
import org.vastporch.server.blogs.BlogSetup;
import tools.jackson.databind.JsonNode;

/** Classes, people, blogs and their sightlines over HTTP. */
@ServerTest
class EnrolTest {

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

    private JsonNode preview(String text) {
        return of.lead()
                .post(path("/roster/preview"), Map.of("text", text))
                .body()
                .get("rows");
    }

    /** Imports rows and waits for the end. */
    private JsonNode imported(JsonNode rows) {
        JsonNode job = of.lead().post(path("/roster"), Map.of("rows", rows)).body();
        while (job.get("state").asString().equals("running")) {
            LockSupport.parkNanos(20_000_000);
            job = of.lead().get("/api/imports/" + job.get("id").asString()).body();
        }
        assertEquals("done", job.get("state").asString(), job::toString);
        return job.get("result");
    }

    @Test
    void aChangedListShowsWhatItWouldChangeAndTakesItOver() {
        String number = "c" + of.classId();
        imported(preview("Surname,Forename,Number,Group\nAurelio,Ada," + number + ",Bed 1"));
        JsonNode rows = preview("Surname,Forename,Number,Group\nAurelio,Adela," + number + ",Bed 2");
        assertEquals(List.of("CHANGES"), outcomes(rows));
        assertEquals(
                "Here already; name: Ada Aurelio becomes Adela Aurelio; group: Bed 1 becomes Bed 2",
                rows.get(0).get("message").asString());
        assertEquals(1, imported(rows).get("changed").asInt());
        assertEquals(
                List.of("ALREADY"),
                outcomes(preview("Surname,Forename,Number,Group\nAurelio,Adela," + number + ",Bed 2")));
        assertTrue(of.lead().get(path("/blogs/mine")).status() == 200);
        assertTrue(
                of.lead().get(path("/blogs/at/log-of-adela-aurelio")).status() == 200,
                "the own blog carries the new name");
    }

    private static List<String> outcomes(JsonNode rows) {
        return rows.valueStream().map(r -> r.get("outcome").asString()).toList();
    }

    @Test
    void previewSavesNothingAndImportTakesTheGoodRows() {
        String list = "Surname,Forename,E-mail\nQuispe,Illari,i.quispe" + of.classId()
                + "@post.example\nBad,Row,not-an-address\nSørbye,Thora,t" + of.classId() + "@post.example";
        JsonNode rows = preview(list);
        assertEquals(List.of("NEW", "BAD", "NEW"), outcomes(rows));
        assertEquals(6, of.lead().get(path("/people")).body().size());

        JsonNode taken = imported(rows);
        assertEquals(2, taken.get("enrolled").size());
        assertEquals("BAD", taken.get("left").get(0).get("outcome").asString());
        assertEquals(
                List.of("ALREADY", "BAD", "ALREADY"), outcomes(preview(list)), "the same list twice changes nothing");
        JsonNode line = of.lead().get(path("/blogs")).body().get(0);
        assertEquals(4, line.get("blogs").asInt(), "each later arrival has an own blog");
        // Four students, the lead, the co-teacher and the guest; the moderator sees only what waits.
        assertEquals(7, line.get("sightline").get("heads").get("readers").asInt());
    }

    @Test
    void aKnownPersonJoinsWithTheAccountThatIsThere() {
        Made other = school.make(port);
        String email = "same" + of.classId() + "@post.example";
        imported(preview("Name,E-mail\nNerea Hollis," + email));
        Answer there = other.lead()
                .post(
                        "/api/classes/" + other.classId() + "/roster/preview",
                        Map.of("text", "Name,E-mail\nNerea Hollis," + email));
        assertEquals(List.of("JOINS"), outcomes(there.body().get("rows")));
    }

    /** The preview says what it took as what; a person can say otherwise, of pasted rows and of a file. */
    @Test
    void columnsOfAListAreSaidAndCanBeChanged() {
        String list = "Class 8Q\nSurname,Forename,House\nKowhai,Tama,Heron\n";
        JsonNode seen =
                of.lead().post(path("/roster/preview"), Map.of("text", list)).body();
        assertEquals(
                "[FAMILY, GIVEN, LEFT]",
                seen.get("columns")
                        .valueStream()
                        .map(c -> c.get("as").asString())
                        .toList()
                        .toString());
        assertTrue(seen.get("notes").get(0).asString().contains("Class 8Q"));
        assertEquals(
                "Tama Kowhai, line 3",
                seen.get("rows").get(0).get("given").asString() + " "
                        + seen.get("rows").get(0).get("family").asString() + ", line "
                        + seen.get("rows").get(0).get("line").asInt());
        JsonNode turned = of.lead()
                .post(path("/roster/preview"), Map.of("text", list, "columns", List.of("GIVEN", "FAMILY", "GROUP")))
                .body()
                .get("rows")
                .get(0);
        assertEquals(
                "Kowhai Tama Heron",
                turned.get("given").asString() + " " + turned.get("family").asString() + " "
                        + turned.get("group").asString());
        JsonNode file = of.lead()
                .upload(
                        path("/roster/preview-file?columns=GIVEN,FAMILY,GROUP"),
                        "list.csv",
                        list.getBytes(StandardCharsets.UTF_8))
                .body()
                .get("rows")
                .get(0);
        assertEquals(turned, file);
        assertEquals(
                400,
                of.lead()
                        .upload(
                                path("/roster/preview-file?columns=NOSE"),
                                "list.csv",
                                list.getBytes(StandardCharsets.UTF_8))
                        .status());
        assertEquals(
                "roster-no-name",
                of.lead()
                        .post(path("/roster/preview"), Map.of("text", list, "columns", List.of("LEFT", "LEFT", "LEFT")))
                        .code());
    }

    @Test
    void aNamesakeIsTakenOnlyWhenTheTeacherSaysSo() {
        JsonNode rows = preview("Name\nTama Kowhai\nTama Kowhai");
        assertEquals(List.of("NEW", "QUESTION"), outcomes(rows));
        assertNotEquals(
                rows.get(0).get("username").asString(),
                rows.get(1).get("username").asString());
        assertEquals(1, imported(rows).get("enrolled").size());
    }

    @Test
    void aNewPassPhraseSignsOutAndTheOldOneNoLongerWorks() {
        assertEquals(200, of.first().get("/api/me").status());
        Answer renewed = of.lead().post(path("/people/" + of.first().id + "/pass-phrase"), null);
        assertTrue(renewed.body().get("phrase").asString().matches("[a-z]+ [a-z]+ [a-z]+"), renewed.text());
        assertEquals(401, of.first().get("/api/me").status());
        Person stranger = school.stranger(port);
        String username = renewed.body().get("username").asString();
        assertEquals(
                "wrong-password",
                stranger.post("/api/session", Map.of("username", username, "password", School.PASSWORD))
                        .code());
        assertEquals(
                200,
                stranger.post(
                                "/api/session",
                                Map.of(
                                        "username",
                                        username.toUpperCase(),
                                        "password",
                                        " " + renewed.body().get("phrase").asString() + " "))
                        .status());
        assertEquals(
                "not-a-student",
                of.lead()
                        .post(path("/people/" + of.second().id + "/pass-phrase"), null)
                        .code());
    }

    @Test
    void aOneTimeAddressWorksOnce() {
        Answer welcome = of.lead()
                .post(
                        path("/helpers"),
                        Map.of("role", "ASSISTANT", "title", "Mr", "given", "Bram", "family", "Helper", "email", ""));
        String token = welcome.body().get("path").asString().replaceFirst(".*t=", "");
        Person stranger = school.stranger(port);
        assertEquals(
                "password-unfit",
                stranger.post("/api/first-password", Map.of("token", token, "password", "short"))
                        .code());
        assertEquals(
                200,
                stranger.post("/api/first-password", Map.of("token", token, "password", "long enough"))
                        .status());
        assertEquals(
                "address-used",
                school.stranger(port)
                        .post("/api/first-password", Map.of("token", token, "password", "long enough"))
                        .code());
    }

    @Test
    void eachRoleGetsJustItsOwn() {
        assertEquals(403, of.first().get(path("/people")).status());
        assertEquals(403, of.guest().get(path("/blogs")).status());
        assertEquals(403, of.moderator().get(path("/today")).status());
        assertEquals(
                403,
                of.first()
                        .post(path("/roster/preview"), Map.of("text", "Name\nA B"))
                        .status());
        assertEquals(403, of.moderator().post(path("/prompts"), prompt()).status());
        assertEquals(
                0, of.first().get(path("")).body().get("rules").get("heldWords").size());
        assertEquals(404, of.lead().get("/api/school/staff").status());
        assertEquals(
                404, school.make(port).lead().get(path("/today")).status(), "another teacher's class is not there");
    }

    private static Map<String, Object> prompt() {
        return Map.of(
                "title",
                "x",
                "instructions",
                "",
                "questions",
                List.of(),
                "due",
                "2030-01-01T10:00:00",
                "graceHours",
                0,
                "latePercentPerDay",
                0,
                "lateMostPercent",
                0,
                "points",
                1,
                "asked",
                Map.of("words", 0, "pictures", 0, "tags", 0, "category", 0, "links", 0, "sources", 0, "comments", 0));
    }

    @Test
    void theSightlineIsKnownBeforeABlogIsSaved() {
        JsonNode line = of.lead()
                .post(
                        path("/blogs/sightline"),
                        BlogSetup.of(BlogKind.JOURNAL, "Journal", "", Audience.ANYONE, Commenters.CLASS))
                .body();
        assertEquals("STAFF_AND_ME", line.get("audience").asString());
        assertEquals(3, line.get("heads").get("readers").asInt(), "its author and two teachers: " + line);
        assertEquals(1, line.get("heads").get("writers").asInt());
        assertEquals(
                "title-missing",
                of.lead()
                        .post(
                                path("/blogs"),
                                BlogSetup.of(BlogKind.SHARED, " ", "", Audience.MY_CLASS, Commenters.CLASS))
                        .code());
    }

    @Test
    void rulesAreChangedOnTopOfWhatWasSeen() {
        JsonNode view = of.lead().get(path("")).body();
        Map<String, Object> change = Map.of(
                "rules", view.get("rules"), "version", view.get("version").asInt());
        assertEquals(200, of.lead().put(path("/rules"), change).status());
        assertEquals("class-changed", of.second().put(path("/rules"), change).code());
    }

    @Test
    void slipsArePrintedUntilTheFirstSignIn() {
        Answer slips = of.lead().get(path("/slips.pdf"));
        assertEquals("%PDF", slips.text().substring(0, 4));
        assertEquals(
                "no-store", slips.raw().headers().firstValue("Cache-Control").orElse(""));
        assertEquals(403, of.first().get(path("/slips.pdf")).status());
    }

    /** A name in a script that the slips' font lacks is drawn as the family writes it, each as a picture. */
    @Test
    void slipsCarryNamesAsFamiliesWriteThem() throws IOException {
        imported(preview("Name\nÑandú Łęcka\nسمير حداد\n小龙 李"));
        try (PDDocument slips =
                Loader.loadPDF(of.lead().get(path("/slips.pdf")).raw().body())) {
            assertTrue(new PDFTextStripper().getText(slips).contains("Ñandú Łęcka"));
            int pictures = 0;
            for (PDPage page : slips.getPages())
                for (COSName name : page.getResources().getXObjectNames())
                    if (page.getResources().isImageXObject(name)) pictures++;
            assertEquals(2, pictures);
        }
    }

    /** Whatever the names and the paper, a slip begins and ends on one page, with as many on a page as fit. */
    @Test
    void noSlipIsCutInTwo() throws IOException {
        String longest = "Maximiliana-Theodora ".repeat(4).strip();
        StringBuilder list = new StringBuilder("Given name,Family name,Group\n");
        for (int i = 0; i < 19; i++)
            list.append(i % 4 == 0 ? longest : "Ida")
                    .append(',')
                    .append(i % 5 == 0 ? "O'Shaughnessy-Featherstonehaugh" : "Moss")
                    .append((char) ('a' + i))
                    .append(",A group with quite a long name\n");
        imported(preview(list.toString()));
        for (String paper : List.of("A4", "LETTER"))
            try (PDDocument slips = Loader.loadPDF(
                    of.lead().get(path("/slips.pdf?paper=" + paper)).raw().body())) {
                assertEquals(3, slips.getNumberOfPages(), paper);
                PDFTextStripper reader = new PDFTextStripper();
                for (int page = 1; page <= 3; page++) {
                    reader.setStartPage(page);
                    reader.setEndPage(page);
                    String text = reader.getText(slips);
                    int here = page < 3 ? 10 : 1;
                    for (String part : List.of("Go to", "Username", "Pass phrase"))
                        assertEquals(here, text.split(part, -1).length - 1, paper + " " + page + ": " + part);
                }
                assertEquals(
                        paper.equals("A4") ? 842 : 792,
                        slips.getPage(0).getMediaBox().getHeight(),
                        1);
            }
        assertEquals(400, of.lead().get(path("/slips.pdf?paper=NAPKIN")).status());
    }

    @Test
    void aClassNeedsANameAndATermThatEnds() {
        Map<String, Object> wanted = Map.of(
                "name",
                " ",
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
                List.of());
        assertEquals(
                "name",
                of.lead().post("/api/classes", wanted).body().get("field").asString());
        assertEquals(
                "term-order",
                of.lead()
                        .post("/api/classes", with(wanted, "lastDay", "2026-08-01"))
                        .code());
        assertEquals(
                "zone-unknown",
                of.lead()
                        .post("/api/classes", with(wanted, "zone", "Mars/Crater"))
                        .code());
        assertEquals(
                403,
                of.first().post("/api/classes", with(wanted, "name", "Mine")).status());
        assertEquals(
                "roster-empty",
                of.lead()
                        .upload(path("/roster/preview-file"), "x.csv", new byte[0])
                        .code());
        assertEquals(
                "roster-too-long",
                of.lead()
                        .upload(
                                path("/roster/preview-file"),
                                "x.csv",
                                ("Name\n" + "A B\n".repeat(5000)).getBytes(StandardCharsets.UTF_8))
                        .code());
    }

    private static Map<String, Object> with(Map<String, Object> map, String key, Object value) {
        Map<String, Object> changed = new HashMap<>(map);
        changed.put("name", "A class");
        changed.put(key, value);
        return changed;
    }
}

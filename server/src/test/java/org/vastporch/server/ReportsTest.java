package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.io.IOException;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.util.Map;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.jsoup.Jsoup;
import org.junit.jupiter.api.Test;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Person;

/** A report of one student and one week: what stands in it, on paper too, and what never does. */
@ServerTest
class ReportsTest extends Assessing {

    /** The week in which a prompt is due that was handed in. */
    private LocalDate monday(long prompt) {
        LocalDate due = jdbc.sql("select due_at from prompt where id = :id")
                .param("id", prompt)
                .query((row, n) -> row.getObject(1, OffsetDateTime.class))
                .single()
                .atZoneSameInstant(LONDON)
                .toLocalDate();
        return due.minusDays(due.getDayOfWeek().getValue() - 1L);
    }

    private String path(LocalDate monday, Person student, String ending) {
        return "/api/classes/" + of.classId() + "/weeks/" + monday + "/students/" + student.id + "/report" + ending;
    }

    private String text(LocalDate monday, String template) {
        Answer answer = of.lead().get(path(monday, of.first(), "?template=" + template));
        assertEquals(200, answer.status(), answer.text());
        return Jsoup.parse(answer.body().get("html").asString()).text();
    }

    @Test
    void marksStandInItOnceTheyAreShown() {
        long prompt = set(open("Slugs & snails", in(1)));
        handIn(prompt, "Two slugs");
        mark(prompt, 4, 2);
        assertEquals(
                200,
                of.lead()
                        .put(
                                at(prompt) + "/word",
                                Map.of(
                                        "seen",
                                        school.seen(of.lead(), prompt, of.first().id),
                                        "word",
                                        "Count x < 5 <b>twice</b>."))
                        .status());
        LocalDate monday = monday(prompt);
        for (String template : new String[] {"letter", "home", "scores"}) {
            String before = text(monday, template);
            assertTrue(before.contains("Slugs & snails"), before);
            assertFalse(before.contains("points") || before.contains("twice"), before);
        }
        release(prompt);
        for (String template : new String[] {"letter", "home", "scores"}) {
            String shown = text(monday, template);
            assertTrue(shown.contains("6 of 9 points"), shown);
            assertTrue(shown.contains("Count x < 5 <b>twice</b>."), shown);
        }
    }

    @Test
    void whatIsHiddenOrWaitsIsNotInIt() {
        LocalDate today = LocalDate.now(LONDON);
        LocalDate monday = today.minusDays(today.getDayOfWeek().getValue() - 1L);
        long post = handIn(set(open("Slugs", in(40))), "Two slugs");
        assertTrue(text(monday, "letter").contains("“Two slugs”"));
        jdbc.sql("update post set state = 'HIDDEN' where id = :id")
                .param("id", post)
                .update();
        assertFalse(text(monday, "letter").contains("Two slugs"));
        school.handIn(of.first(), of.blogOfFirst(), Map.of(), "It waits", "<p>Eleven.</p>");
        assertFalse(text(monday, "letter").contains("It waits"));
    }

    @Test
    void onPaperItCanBeListenedTo() throws IOException {
        long prompt = set(open("Slugs שלום", in(1)));
        handIn(prompt, "Two slugs");
        LocalDate monday = monday(prompt);
        Answer answer = of.lead().get(path(monday, of.first(), ".pdf"));
        assertEquals(
                "application/pdf",
                answer.raw().headers().firstValue("content-type").orElse(""));
        try (PDDocument pdf = Loader.loadPDF(answer.raw().body())) {
            assertTrue(pdf.getDocumentCatalog().getMarkInfo().isMarked());
            assertEquals("en", pdf.getDocumentCatalog().getLanguage());
            assertNotNull(pdf.getDocumentCatalog().getStructureTreeRoot());
            assertTrue(pdf.getDocumentInformation().getTitle().contains("week"));
            String text = new PDFTextStripper().getText(pdf);
            assertTrue(text.contains("Dear") && text.contains("Handed in"), text);
            for (var font : pdf.getPage(0).getResources().getFontNames())
                assertTrue(pdf.getPage(0).getResources().getFont(font).isEmbedded());
        }
    }

    @Test
    void itIsForThoseWhoMark() {
        long prompt = set(open("Slugs", in(1)));
        handIn(prompt, "Two slugs");
        LocalDate monday = monday(prompt);
        for (Person no : new Person[] {of.first(), of.other(), of.guest(), of.moderator(), school.stranger(port)}) {
            assertTrue(no.get(path(monday, of.first(), "")).status() >= 401);
            assertFalse(no.get(path(monday, of.first(), ".pdf")).text().contains("Slugs"));
        }
        assertEquals(404, of.lead().get(path(monday, of.guest(), "")).status());
        assertEquals(
                404, of.lead().get(path(monday.minusYears(3), of.first(), "")).status());
        assertEquals(
                404,
                of.lead().get(path(monday, of.first(), "?template=nothing")).status());
    }
}

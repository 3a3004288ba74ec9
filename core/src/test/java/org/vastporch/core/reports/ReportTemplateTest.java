package org.vastporch.core.reports;

import static org.junit.jupiter.api.Assertions.*;

import java.time.LocalDate;
import java.util.List;
import org.jsoup.Jsoup;
import org.junit.jupiter.api.Test;
import org.vastporch.core.Refusal;
import org.vastporch.core.reports.ReportFacts.Due;
import org.vastporch.core.reports.ReportFacts.Paper;
import org.vastporch.core.reports.ReportFacts.Post;
import org.vastporch.core.reports.ReportFacts.Score;
import org.vastporch.core.reports.ReportFacts.Step;

class ReportTemplateTest {

    private static final LocalDate MONDAY = LocalDate.of(2026, 11, 16);

    private static ReportFacts facts(List<Post> posts, List<Paper> papers, List<Due> next) {
        return facts(posts, papers, next, "");
    }

    private static ReportFacts facts(List<Post> posts, List<Paper> papers, List<Due> next, String note) {
        return new ReportFacts(
                "Wren <b>Castellane</b>",
                "Plot to Plate",
                "week 6",
                MONDAY,
                MONDAY.plusDays(6),
                posts,
                papers,
                "1 of 1",
                2,
                3,
                next,
                note);
    }

    private static final ReportFacts FULL = facts(
            List.of(new Post("Slugs & snails", MONDAY), new Post("Beans", MONDAY.plusDays(1))),
            List.of(
                    new Paper(
                            "Week 6 log",
                            "Marked",
                            true,
                            new Score(
                                    "12.5",
                                    "18",
                                    "Count twice.",
                                    List.of(
                                            new Step("Observation", "careful", 3, 4, "Says what.", "Good."),
                                            new Step("Reflection", "asks", 3, 4, "", "")))),
                    new Paper("Two answers", "Nothing came", false, null)),
            List.of(new Due("Week 7 log", MONDAY.plusDays(13))));

    private static String filled(String html, ReportFacts facts) {
        return new ReportTemplate("t", "T", html).checked().fill(facts);
    }

    private static Refusal refused(String html) {
        return assertThrows(Refusal.class, () -> new ReportTemplate("t", "T", html).checked());
    }

    @Test
    void fieldsPartsAndConditions() {
        String html = """
            <p>For <span data-field="student"></span></p><ul><div data-each="paper"><li><span data-field="prompt"></span><b data-if="late">late</b>\
            <div data-each="criterion">[<span data-field="criterion"></span> <span data-field="step"></span> of <span data-field="prompt"></span>]</div>\
            </li></div></ul><p data-if="no-posts">Nothing</p>""";
        assertEquals(
                "<p>For Wren &lt;b&gt;Castellane&lt;/b&gt;</p><ul><li>Week 6 log<b>late</b>[Observation 3 of 4 of Week 6 log]"
                        + "[Reflection 3 of 4 of Week 6 log]</li><li>Two answers</li></ul>",
                filled(html, FULL));
        assertTrue(filled(html, facts(List.of(), List.of(), List.of())).endsWith("<ul></ul><p>Nothing</p>"));
    }

    @Test
    void aFieldThatMeansNothingSaysWhere() {
        Refusal unknown = refused("<p>Well done</p><p>Your <span data-field='shoe-size'></span> size</p>");
        assertEquals("field-unknown", unknown.code());
        assertTrue(unknown.getMessage().contains("“shoe-size”")
                && unknown.getMessage().contains("“Your size”"));
        assertEquals(
                "field-misplaced",
                refused("<p><span data-field='level'></span></p>").code());
        assertEquals(
                "field-misplaced",
                refused("<p><span data-field='student'></span></p><div data-each='criterion'>x</div>")
                        .code());
        assertEquals(
                "field-misplaced",
                refused("<p data-if='late'>x</p><span data-field='student'></span>")
                        .code());
        assertEquals(
                "field-unknown",
                refused("<p data-if='rich'><span data-field='student'></span></p>")
                        .code());
        assertEquals(
                "field-unknown",
                refused("<p data-each='shoe'><span data-field='student'></span></p>")
                        .code());
        assertEquals("no-field", refused("<p>Dear all</p>").code());
        assertEquals(
                "template-too-long",
                refused("<p>" + "x".repeat(500_000) + "</p>").code());
        assertDoesNotThrow(
                () -> filled("<div data-each='post'><p><span data-field='student'>", FULL),
                "whatever is not closed ends");
    }

    @Test
    void theShippedOnesHoldAndSayWhatThereIs() {
        for (ReportTemplate template : ShippedTemplates.ALL) {
            String text = Jsoup.parse(template.checked().fill(FULL)).text();
            for (String part : List.of(
                    "Wren <b>Castellane</b>",
                    "Week 6 log",
                    "12.5 of 18 points",
                    "It came late",
                    "careful",
                    "step 3 of 4",
                    "Good.",
                    "Count twice.",
                    "Two answers",
                    "Nothing came")) assertTrue(text.contains(part), template.key() + " lacks " + part + ": " + text);
            String bare = Jsoup.parse(template.fill(facts(List.of(), List.of(), List.of())))
                    .text();
            assertFalse(bare.contains("points"), bare);
            assertFalse(bare.contains("comes next"), bare);
        }
        assertEquals(
                2,
                Jsoup.parse(ShippedTemplates.ALL.get(0).fill(FULL))
                        .select("ul")
                        .get(0)
                        .select("> li")
                        .size(),
                "an item for each, and none around them");
        String letter = Jsoup.parse(ShippedTemplates.ALL.get(0).fill(FULL)).text();
        assertTrue(letter.contains("“Slugs & snails”, Monday 16 November"), letter);
        assertTrue(letter.contains("You gave classmates 2 comments, and got 3 comments from them."), letter);
        assertTrue(letter.contains("Week 7 log, due Sunday 29 November"), letter);
        assertTrue(letter.contains("from Monday 16 November to Sunday 22 November"), letter);
    }

    @Test
    void aNoteIsTextAndIsNeverLost() {
        ReportFacts noted = facts(List.of(), List.of(), List.of(), "Well <done>.");
        assertEquals(
                "<i>Well &lt;done&gt;.</i><b>2 comments</b>",
                filled(
                        "<i data-if=\"note\"><span data-field=\"note\"></span></i><b><span data-field=\"given\"></span></b>",
                        noted));
        assertEquals(
                "<b>2 comments</b><p>Well &lt;done&gt;.</p>",
                filled("<b><span data-field=\"given\"></span></b>", noted));
        for (ReportTemplate shipped : ShippedTemplates.ALL) {
            String told = shipped.fill(noted);
            assertEquals(1, told.split("Well &lt;done&gt;", -1).length - 1, shipped.key());
        }
    }

    @Test
    void whatWasToldIsNotToldAgain() {
        Report told = new Report("Wren, week 6", "<p>Two posts</p>");
        assertEquals(Report.Outcome.MAILED, told.outcome(null, true));
        assertEquals(Report.Outcome.FILED, told.outcome(null, false));
        assertEquals(Report.Outcome.SAME, told.outcome(told.fingerprint(), true));
        assertEquals(Report.Outcome.SAME, told.outcome(told.fingerprint(), false));
        // Moved from the title into the text, it is another report.
        for (Report other : List.of(
                new Report("Wren, week 7", told.html()),
                new Report(told.title(), "<p>One post</p>"),
                new Report("Wren, week", " 6<p>Two posts</p>"))) {
            assertNotEquals(told.fingerprint(), other.fingerprint());
            assertEquals(Report.Outcome.MAILED, other.outcome(told.fingerprint(), true));
        }
        assertTrue(told.fingerprint().matches("[0-9a-f]{64}"));
    }
}

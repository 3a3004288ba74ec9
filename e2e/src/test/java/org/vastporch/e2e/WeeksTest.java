package org.vastporch.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.junit.jupiter.api.Assertions.*;
import static org.vastporch.e2e.Stage.as;
import static org.vastporch.e2e.Stage.button;
import static org.vastporch.e2e.Stage.link;
import static org.vastporch.e2e.Stage.named;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import java.io.IOException;
import java.nio.file.Files;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** How a class goes over its weeks. */
class WeeksTest {

    /** From the line on Today to those it is about, into one of their weeks, and along as a table. */
    @Test
    void aTeacherFindsWhoFellSilent() throws IOException {
        Page teacher = as("quill", "/classes/1/today");
        assertThat(teacher.getByText("handed in nothing for two weeks")).isVisible();
        link(teacher, "See their weeks").click();
        assertThat(named(teacher, AriaRole.HEADING, "^The weeks$")).isVisible();
        assertThat(named(teacher, AriaRole.ROWHEADER, "^Natsuo Iwasaki")).isVisible();
        assertThat(named(teacher, AriaRole.ROWHEADER, "^Tunde Ainsworth-Bello")).hasCount(0);
        named(teacher, AriaRole.BUTTON, "^Natsuo Iwasaki, week 6: Nothing came$")
                .click();
        Locator beside = teacher.getByRole(AriaRole.DIALOG);
        assertThat(beside.getByText("Week 6 log")).isVisible();
        teacher.keyboard().press("Escape");
        assertThat(beside).hasCount(0);
        teacher.getByLabel("Group").selectOption("");
        Locator first = named(teacher, AriaRole.BUTTON, "^Tunde Ainsworth-Bello, week 4: ");
        first.focus();
        teacher.keyboard().press("ArrowDown");
        // Over the break, in which nothing can be opened.
        teacher.keyboard().press("ArrowRight");
        assertThat(named(teacher, AriaRole.BUTTON, "^Pia Aurelio, week 5: ")).isFocused();
        link(teacher, "By prompt").click();
        named(teacher, AriaRole.BUTTON, "^Pia Aurelio, Week 2 log: ").click();
        assertThat(beside.getByText("Mark it")).isVisible();
        teacher.keyboard().press("Escape");
        link(teacher, "By any post").click();
        assertThat(named(teacher, AriaRole.BUTTON, "^Pia Aurelio, week 2: Published"))
                .isVisible();
        teacher.reload();
        assertThat(link(teacher, "By any post")).hasAttribute("aria-current", "page");
        link(teacher, "By week").click();
        Download table =
                teacher.waitForDownload(() -> link(teacher, "Take along (CSV)").click());
        String csv = Files.readString(table.path());
        assertTrue(csv.contains("Natsuo Iwasaki") && csv.contains("nothing came"), csv);
    }

    /** A student has the own weeks as a line, and nobody else's. */
    @Test
    void aStudentSeesTheOwnWeeks() {
        Page student = Stage.as("pia.a", "/classes/1/my-writing", 375, 800, ColorScheme.LIGHT);
        assertThat(named(student, AriaRole.HEADING, "^My weeks$")).isVisible();
        assertThat(named(student, AriaRole.IMG, "^Released$").first()).isVisible();
        assertThat(student.getByText("on time")).isVisible();
        student.navigate("/classes/1/weeks");
        assertThat(named(student, AriaRole.HEADING, "^This page is not there, or it is not for you$"))
                .isVisible();
        assertThat(student.getByText("Tunde Ainsworth-Bello")).hasCount(0);
    }

    /** What the picture says, and a post that is put up is the first that a classmate is offered. */
    @Test
    void aTeacherPutsUpWhatNobodyAnswered() {
        Page teacher = as("quill", "/classes/1/weeks");
        link(teacher, "Who answers whom").click();
        assertThat(teacher.getByText("Thora Sørbye and Marisol Vasquez-Lind answer nobody but each other"))
                .isVisible();
        Locator picture = teacher.getByLabel("Who answers whom, as a picture");
        picture.focus();
        teacher.keyboard().press("ArrowDown");
        teacher.keyboard().press("ArrowRight");
        assertThat(teacher.getByText(Pattern.compile("^.* to .*: .* back\\.$"))).isVisible();
        Locator never = teacher.getByLabel("Kahu Tāne");
        assertThat(never.getByText("never answered")).isVisible();
        String title = never.getByRole(AriaRole.LINK).nth(1).textContent();
        Page classmate = as("pia.a", "/classes/1/porch");
        Locator offered = classmate.getByLabel("Without an answer");
        assertThat(offered).containsText("have no answer yet");
        assertThat(offered.getByRole(AriaRole.LINK).first()).not().hasText(title);
        button(teacher, title + ": put it up for an answer").click();
        assertThat(button(teacher, title + ": up for an answer; take it down")).isVisible();
        classmate.reload();
        assertThat(offered.getByRole(AriaRole.LINK).first()).hasText(title);
        assertThat(classmate.getByText("never answered")).hasCount(0);
        offered.getByRole(AriaRole.LINK).first().click();
        assertThat(named(classmate, AriaRole.HEADING, "^" + title + "$")).isVisible();
        button(teacher, title + ": up for an answer; take it down").click();
        assertThat(button(teacher, title + ": put it up for an answer")).isVisible();

        button(teacher, "As a table").click();
        assertThat(named(teacher, AriaRole.ROW, "^Thora Sørbye")).containsText("Marisol Vasquez-Lind");
        teacher.reload();
        assertThat(button(teacher, "As a picture")).isVisible();
        link(teacher, "In circles").click();
        assertThat(link(teacher, "In circles")).hasAttribute("aria-current", "page");
    }

    @Test
    void aTeacherWritesToWhoFellSilentAndIsAnswered() {
        Page teacher = as("quill", "/classes/1/weeks?group=%20quiet");
        button(teacher, "Write a private word to them").click();
        Locator dialog = teacher.getByRole(AriaRole.DIALOG);
        assertThat(dialog.getByLabel("Natsuo Iwasaki")).isChecked();
        dialog.getByLabel("What you write").fill("Is all well? Come and see me on Monday.");
        button(teacher, "Send to 1 student").click();
        assertThat(dialog.getByText("Written to 1 student.")).isVisible();
        Page student = Stage.as("natsuo.i", "/classes/1/porch", 375, 800, ColorScheme.LIGHT);
        assertThat(student.getByText("Ms Quill wrote to you, and to nobody else"))
                .isVisible();
        link(student, "Read it").click();
        assertThat(student.getByText("Come and see me on Monday.")).isVisible();
        student.getByLabel("Answer; only your teachers read it").fill("My wrist is broken.");
        button(student, "Send it").click();
        assertThat(student.getByLabel("Private words").getByText("My wrist is broken."))
                .isVisible();
        link(student, "Porch").click();
        assertThat(student.getByText("wrote to you, and to nobody else")).hasCount(0);
        teacher.keyboard().press("Escape");
        named(teacher, AriaRole.BUTTON, "^Natsuo Iwasaki, week 6: Nothing came$")
                .click();
        assertThat(teacher.getByRole(AriaRole.DIALOG).getByText("My wrist is broken."))
                .isVisible();
    }

    /** From a cell to the week as a report, in another template, and as PDF. */
    @Test
    void aTeacherLooksAtAReport() {
        Page teacher = as("quill", "/classes/1/weeks");
        named(teacher, AriaRole.BUTTON, "^Chidubem Eze, week 4: Released, late$")
                .click();
        link(teacher, "As a report").click();
        Locator sheet = named(teacher, AriaRole.ARTICLE, "^Chidubem Eze, week 4$");
        assertThat(sheet).containsText("Dear Chidubem Eze");
        assertThat(sheet).containsText("of 18 points. It came late.");
        teacher.getByLabel("Template").selectOption("home");
        assertThat(sheet).containsText("Handed in on time: 0 of 1");
        teacher.reload();
        assertThat(sheet).containsText("Handed in on time: 0 of 1");
        String pdf = link(teacher, "As PDF").getAttribute("href");
        assertEquals(
                "application/pdf",
                teacher.request().get(Stage.demo().address() + pdf).headers().get("content-type"));
        // Whoever comes from one student's cell sends to that student alone.
        assertThat(button(teacher, "Make and send 1 report")).isEnabled();
    }

    /** Reports of a week are sent with a note, read and answered by a student; sent again, only one has changed. */
    @Test
    void reportsAreSentReadAndAnswered() {
        Page teacher = as("tremaine", "/classes/2/weeks");
        link(teacher, "Reports").click();
        button(teacher, "Nobody").click();
        for (String name : new String[] {"Liesel", "Lew"})
            named(teacher, AriaRole.CHECKBOX, "^A report for " + name).check();
        named(teacher, AriaRole.BUTTON, "^Liesel").click();
        teacher.getByLabel(Pattern.compile("^A note to Liesel")).fill("Your rain was a joy.");
        button(teacher, "Make and send 2 reports").click();
        assertThat(teacher.getByText(Pattern.compile("^Made .*: 2 reports sent")))
                .isVisible();
        teacher.getByLabel(Pattern.compile("^A note to Liesel")).fill("Your rain was a great joy.");
        button(teacher, "Make and send 2 reports").click();
        assertThat(teacher.getByText(Pattern.compile("1 report sent; 1 the same as before, so not sent again")))
                .isVisible();

        Page student = as("liesel.b", "/classes/2/my-writing");
        named(student, AriaRole.LINK, "^week ").first().click();
        assertThat(named(student, AriaRole.ARTICLE, "^Liesel")).containsText("Your rain was a great joy.");
        student.getByLabel("Only your teachers read it").fill("It was the gutter.");
        button(student, "Send it").click();
        assertThat(student.getByText("It was the gutter.").first()).isVisible();
        // A classmate has no way to it.
        Page other = as("lew.k", student.url().replaceFirst("^https?://[^/]*", ""));
        assertThat(other.getByText("This page is not there, or it is not for you."))
                .isVisible();
        assertThat(other.getByText("great joy")).hasCount(0);
    }

    @Test
    void theKeeperSeesTheClassesByWeeks() {
        Page keeper = as("hester", "/school");
        link(keeper, "Classes by weeks").click();
        Locator row = named(keeper, AriaRole.ROW, "^Plot to Plate");
        // Twelve weeks, the usual wait, what waits now.
        assertThat(row.getByRole(AriaRole.CELL)).hasCount(14);
        assertThat(row.getByRole(AriaRole.CELL).nth(10)).containsText(Pattern.compile("[1-9]"));
        assertThat(keeper.getByText("Pia Aurelio")).hasCount(0);
    }

    /** A student gives what is due to a calendar: the address has what the page says. */
    @Test
    void aStudentHasWhatIsDueInACalendar() {
        Page student = as("pia.a", "/classes/1/write");
        button(student, "Have what is due in my calendar").click();
        Locator address = student.getByLabel("My feed address");
        assertThat(address).hasValue(Pattern.compile(".*/feeds/mine/.*\\.ics$"));
        String calendar = student.request().get(address.inputValue()).text();
        assertTrue(calendar.startsWith("BEGIN:VCALENDAR") && calendar.contains("SUMMARY:Week 7 log"), calendar);
    }
}

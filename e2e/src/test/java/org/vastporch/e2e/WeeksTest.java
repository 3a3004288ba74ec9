package org.vastporch.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.junit.jupiter.api.Assertions.*;
import static org.vastporch.e2e.Stage.as;
import static org.vastporch.e2e.Stage.link;
import static org.vastporch.e2e.Stage.named;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import java.io.IOException;
import java.nio.file.Files;
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
}

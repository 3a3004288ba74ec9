package org.vastporch.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.vastporch.e2e.Stage.as;
import static org.vastporch.e2e.Stage.button;
import static org.vastporch.e2e.Stage.link;
import static org.vastporch.e2e.Stage.named;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** Papers that are not one student's post: a group's one, and comments alone; and the ways through all of them. */
class TogetherTest {

    private static void comment(Page student, String text) {
        student.getByLabel("Your comment").fill(text);
        button(student, "Send").click();
        assertThat(student.getByText(text)).isVisible();
    }

    /** One hands in for the bed, the marker chooses the steps once, and another of the bed reads them. */
    @Test
    void aGroupHandsInOnePaper() {
        Page student = as("barnaby.u", "/classes/1/write");
        assertThat(student.getByText("One for your group: ")).isVisible();
        button(student, "Write A plan for spring").click();
        student.getByLabel("Title").fill("Bed 6 goes up the fence");
        student.getByLabel("Your text").click();
        student.keyboard().type("Peas and beans climb the fence, and what hates shade stands before them.");
        assertThat(student.getByText("Draft, saved")).isVisible();
        button(student, "Publish").click();
        assertThat(named(student, AriaRole.HEADING, "^Bed 6 goes up the fence$"))
                .isVisible();

        Page teacher = as("quill", "/classes/1/mark/9");
        named(teacher, AriaRole.BUTTON, "^B6, Bed 6").click();
        assertThat(named(teacher, AriaRole.HEADING, "^Bed 6 goes up the fence$"))
                .isVisible();
        assertThat(teacher.getByText("Thora Sørbye, Kahu Tāne, Barnaby Underhay"))
                .isVisible();
        for (String key : new String[] {"3", "Enter", "2", "Enter", "3", "Enter", "4"})
            teacher.keyboard().press(key);
        assertThat(named(teacher, AriaRole.BUTTON, "^B6, Bed 6: Marked")).isVisible();
        button(teacher, "Who handed this in").click();
        Locator dialog = teacher.getByRole(AriaRole.DIALOG);
        dialog.getByLabel("marked apart: Barnaby Underhay").check();
        button(teacher, "Keep it").click();
        assertThat(named(teacher, AriaRole.BUTTON, "^BU, Barnaby Underhay: Marked"))
                .isVisible();
        button(teacher, "Release this one").click();
        assertThat(teacher.getByText("3 scores are released")).isVisible();

        Page other = as("kahu.t", "/classes/1/feedback");
        assertThat(other.getByText("Bed 6 goes up the fence").first()).isVisible();
    }

    @Test
    void commentsAreTheWholeTask() {
        Page student = as("maeve.o", "/classes/1/write");
        Locator task = student.getByRole(AriaRole.ARTICLE, new Page.GetByRoleOptions())
                .filter(new Locator.FilterOptions().setHasText("Two answers"));
        assertThat(task.getByText("0 of 2 comments given")).isVisible();
        student.navigate("/classes/1/posts/101");
        comment(student, "Our spinach did the same thing in the second week.");
        comment(student, "Which side of the bed did you water first?");

        Page teacher = as("quill", "/classes/1/approve");
        named(teacher, AriaRole.BUTTON, "^Approve all 2").last().click();
        teacher.navigate("/classes/1/mark/10");
        named(teacher, AriaRole.BUTTON, "^MO, Maeve").click();
        assertThat(named(teacher, AriaRole.HEADING, "^2 comments given, 2 asked for$"))
                .isVisible();
        assertThat(teacher.getByText("Which side of the bed did you water first?"))
                .isVisible();
        teacher.keyboard().press("2");
        assertThat(teacher.getByText("So far, 3 steps open")).isVisible();

        student.navigate("/classes/1/write");
        assertThat(named(student, AriaRole.HEADING, "^What will you write")).isVisible();
        assertThat(task).hasCount(0);
    }

    /** One criterion through all papers, then the next; no page is loaded on the way. */
    @Test
    void byCriterionAndWithoutNames() {
        Page teacher = as("quill", "/classes/1/mark/6");
        teacher.getByLabel("Way through the papers").selectOption("criterion");
        Locator current = teacher.locator("[aria-label='Students'] [aria-current='true']");
        String first = current.getAttribute("aria-label");
        teacher.evaluate("window.sameDocument = true");
        teacher.keyboard().press("2");
        assertThat(teacher.getByText(Pattern.compile("^So far, \\d steps? open$")))
                .isVisible();
        teacher.keyboard().press("n");
        assertThat(current).not().hasAttribute("aria-label", first);
        assertThat(named(teacher, AriaRole.RADIOGROUP, "^Observation$")
                        .getByRole(AriaRole.RADIO)
                        .first())
                .isVisible();
        assertThat(teacher.getByText("4 steps open")).isVisible();

        teacher.getByLabel("Way through the papers").selectOption("blind");
        assertThat(teacher.getByText(Pattern.compile("^Paper \\d+$"))).isVisible();
        assertThat(named(teacher, AriaRole.BUTTON, "^1, Paper 1:")).isVisible();
        assertThat(teacher.getByRole(AriaRole.MAIN)).not().containsText("Fairweather");
        assertThat(link(teacher, "Rowan Fairweather")).hasCount(0);
        assertEquals(true, teacher.evaluate("window.sameDocument"));
    }

    /** Asked under a prompt, answered for all, and read by a classmate who does not learn whose question it was. */
    @Test
    void aQuestionUnderAPrompt() {
        Page student = as("natsuo.i", "/classes/1/write");
        link(student, "Week 7 log").click();
        student.getByLabel("Something unclear?").fill("Does frost count as something that I saw?");
        button(student, "Ask").click();
        assertThat(student.getByText("· your teachers read it")).isVisible();

        Page teacher = as("quill", "/classes/1/today");
        assertThat(teacher.getByText("under Week 7 log")).isVisible();
        teacher.navigate("/classes/1/prompt/7");
        teacher.getByLabel("Your answer").fill("Yes, if you say where and when.");
        button(teacher, "Answer for all").click();
        assertThat(button(teacher, "Answer for all")).hasCount(0);

        Page other = as("zofia.j", "/classes/1/prompt/7");
        assertThat(other.getByText("Yes, if you say where and when.")).isVisible();
        assertThat(other.getByText("Somebody of the class").first()).isVisible();
        student.navigate("/news");
        assertThat(student.getByText("answered your question under").first()).isVisible();
    }
}

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
import java.io.IOException;
import java.nio.file.Files;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** From a prompt to scores: set week by week, changed, handed in by two posts, marked, released, changed, summed. */
class AssessTest {

    @Test
    void aPromptForEachWeekOfTheTermAndOneOfThemChanged() {
        Page teacher = as("quill", "/classes/new");
        teacher.getByLabel("Name of the class").fill("Bees on the roof");
        button(teacher, "Make the class").click();
        link(teacher, "Prompts").click();
        link(teacher, "Set a prompt").click();
        teacher.getByLabel("Title").fill("Hive log {week}");
        teacher.getByLabel("What to write").fill("What did the bees do this week?");
        button(teacher, Pattern.compile("^One post of each student")).click();
        teacher.getByLabel("Posts", new Page.GetByLabelOptions().setExact(true)).fill("2");
        assertThat(button(teacher, Pattern.compile("^Two posts of each student")))
                .isVisible();
        button(teacher, "Repeat weekly").click();
        Locator logs = named(teacher, AriaRole.HEADING, "^Hive log \\d+$");
        assertThat(logs.first()).isVisible();
        int many = logs.count();
        assertTrue(many > 3, () -> many + " prompts");
        named(teacher, AriaRole.LINK, "^Change Hive log").first().click();
        assertThat(teacher.getByLabel("What to write")).hasText("What did the bees do this week?");
        assertThat(button(teacher, "Keep the change")).isDisabled();
        teacher.getByLabel("Title").fill("The last hive log");
        button(teacher, "Keep the change").click();
        assertThat(named(teacher, AriaRole.HEADING, "^The last hive log$")).isVisible();
        assertThat(logs).hasCount(many - 1);
        // From the first one on: all that follow are changed with it.
        named(teacher, AriaRole.LINK, "^Change Hive log").last().click();
        teacher.getByLabel("What to write").fill("What did the queen do this week?");
        teacher.getByLabel(Pattern.compile("that follow changes? with it$")).check();
        button(teacher, "Keep the change").click();
        assertThat(teacher.getByText("What did the queen do this week?")).hasCount(many);
    }

    /** Looked at in the other class before it is set there, its criteria put in another order by dragging one. */
    @Test
    void aPromptIsTakenToAnotherClassWithItsRubricInAnotherOrder() {
        Page teacher = as("quill", "/classes/new");
        teacher.getByLabel("Name of the class").fill("Meadow");
        button(teacher, "Make the class").click();
        assertThat(link(teacher, "Prompts")).isVisible();
        teacher.navigate("/classes/1/prompts");
        teacher.getByLabel("Copy to another class: A plan for spring").selectOption("Meadow");
        assertThat(teacher.getByLabel("Title")).hasValue("A plan for spring");
        String first = teacher.getByLabel("Name of criterion 1").inputValue();
        String second = teacher.getByLabel("Name of criterion 2").inputValue();
        Locator grips = teacher.getByTitle("Drag it to another place");
        grips.nth(1).dragTo(teacher.getByLabel("Name of criterion 1"));
        assertThat(teacher.getByLabel("Name of criterion 1")).hasValue(second);
        assertThat(teacher.getByLabel("Name of criterion 2")).hasValue(first);
        button(teacher, "Set it").click();
        assertThat(named(teacher, AriaRole.HEADING, "^A plan for spring$")).isVisible();
        assertThat(teacher.getByText("Meadow").first()).isVisible();
        named(teacher, AriaRole.LINK, "^Change A plan for spring").click();
        assertThat(teacher.getByLabel("Name of criterion 1")).hasValue(second);
        teacher.navigate("/classes/1/prompts");
        named(teacher, AriaRole.LINK, "^Change A plan for spring").click();
        assertThat(teacher.getByLabel("Name of criterion 1")).hasValue(first);
    }

    /** Two posts make one paper; the page says how far it is. */
    @Test
    void aPaperOfTwoPosts() {
        Page student = as("rowan.f", "/classes/1/write");
        for (String title : new String[] {"What we carried", "What we would leave"}) {
            button(student, "Write What our bed gave").click();
            student.getByLabel("Title").fill(title);
            student.getByLabel("Your text").click();
            student.keyboard().type("Four crates of kale, and a bucket of beans that nobody counted.");
            assertThat(student.getByText("Draft, saved")).isVisible();
            button(student, "Hand in").click();
            assertThat(student.getByText("It goes to your teacher for approval."))
                    .isVisible();
            link(student, "Write").click();
            assertThat(named(student, AriaRole.HEADING, "What will you write")).isVisible();
            if (title.equals("What we carried"))
                assertThat(student.getByText("1 of 2 posts handed in.")).isVisible();
        }
        assertThat(button(student, "Write What our bed gave")).hasCount(0);
    }

    @Test
    void aScoreThatWasSeenChangesWithAReasonThatItsStudentReads() {
        Page teacher = as("quill", "/classes/1/mark/3/29");
        Locator steps = named(teacher, AriaRole.RADIOGROUP, "^Observation$");
        assertThat(steps).isVisible();
        boolean lowest = steps.getByRole(AriaRole.RADIO).first().isChecked();
        teacher.keyboard().press(lowest ? "4" : "1");
        teacher.getByLabel("Why does it change? The student reads this.").fill("I had read the wrong log.");
        button(teacher, "Change it").click();
        assertThat(steps.getByRole(AriaRole.RADIO).nth(lowest ? 3 : 0)).isChecked();
        // The reason holds for as long as one stays with this paper.
        teacher.keyboard().press("u");
        assertThat(steps.getByRole(AriaRole.RADIO).nth(lowest ? 3 : 0)).not().isChecked();
        teacher.getByText("What happened to this score").click();
        assertThat(teacher.getByText("“I had read the wrong log.”").first()).isVisible();
        Page student = as("kahu.t", "/classes/1/feedback");
        assertThat(student.getByText("I had read the wrong log.")).isVisible();
        student.navigate("/news");
        assertThat(student.getByText("changed your score for").first()).isVisible();
    }

    /** What a marker writes beside words comes with the marks, and is answered by whom it is for. */
    @Test
    void aNoteBesideWordsIsReadAndAnswered() {
        Page teacher = as("quill", "/classes/1/mark/4/11");
        assertThat(button(teacher, "Take the score back")).isVisible();
        Stage.select(teacher, 12);
        assertThat(named(teacher, AriaRole.BUTTON, "^Write beside it")).isVisible();
        teacher.keyboard().press("b");
        teacher.getByLabel(Pattern.compile("^Beside “")).fill("How long is that in days?");
        teacher.keyboard().press("Enter");
        assertThat(button(teacher, "Take away")).isVisible();
        assertThat(teacher.getByText("How long is that in days?")).isVisible();
        teacher.keyboard().press("e");
        assertThat(teacher.getByText(Pattern.compile("^Week 3 log: \\w+, \\d of \\d"))
                        .first())
                .isVisible();
        Page student = as("wren.c", "/classes/1/feedback");
        Locator week = student.getByLabel("Week 4 log");
        week.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName(Pattern.compile("beside your words$")))
                .click();
        assertThat(week.getByText("How long is that in days?")).isVisible();
        week.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Answer"))
                .click();
        week.getByLabel("Say something to whoever marked this").fill("Nine days, I looked it up.");
        week.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Send it"))
                .click();
        assertThat(week.getByLabel("Say something to whoever marked this")).hasValue("");
        teacher.navigate("/news");
        teacher.getByText("answered to the marks for").first().waitFor();
        link(teacher, "Week 4 log").first().click();
        assertThat(teacher.getByText("Nine days, I looked it up.")).isVisible();
        button(teacher, "Release later").click();
        teacher.getByLabel("Release them").fill("2020-01-01T10:00");
        button(teacher, "Keep it").click();
        assertThat(teacher.getByText("This moment is over.").first()).isVisible();
    }

    @Test
    void theScoreSheetIsWalkedByKeysAndTakenAlong() throws IOException {
        Page teacher = as("quill", "/classes/1/scores");
        Locator first = named(teacher, AriaRole.BUTTON, "^Tunde Ainsworth-Bello, Week 1 log: Released, ");
        first.focus();
        teacher.keyboard().press("ArrowDown");
        teacher.keyboard().press("ArrowRight");
        assertThat(named(teacher, AriaRole.BUTTON, "^Pia Aurelio, Week 2 log: "))
                .isFocused();
        teacher.keyboard().press("Enter");
        Locator beside = teacher.getByRole(AriaRole.DIALOG);
        assertThat(beside.getByText("A week with the parsley")).isVisible();
        teacher.keyboard().press("Escape");
        assertThat(beside).hasCount(0);
        named(teacher, AriaRole.BUTTON, "why: Tunde Ainsworth-Bello, Weekly logs$")
                .click();
        assertThat(teacher.getByText("All that students have seen counts.")).isVisible();
        teacher.keyboard().press("Escape");
        link(teacher, "The class’s picture").click();
        assertThat(teacher.getByText("Strongest in")).isVisible();
        assertThat(named(teacher, AriaRole.TABLE, "^Observation").first()).isVisible();
        link(teacher, "Scores").last().click();
        teacher.getByLabel("Group").selectOption("Bed 3");
        assertThat(named(teacher, AriaRole.ROWHEADER, "Bed 3").first()).isVisible();
        assertThat(named(teacher, AriaRole.ROWHEADER, "Bed 1")).hasCount(0);
        Download scores =
                teacher.waitForDownload(() -> link(teacher, "Take along (CSV)").click());
        String csv = Files.readString(scores.path());
        assertTrue(csv.contains("Week 1 log (of 18)"), csv);
        assertTrue(csv.contains("Weekly logs (%)"), csv);
    }
}

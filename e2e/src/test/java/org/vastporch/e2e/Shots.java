package org.vastporch.e2e;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;

/** Takes the pictures of docs/screenshots from the demo school; no test of anything, and run only when asked for. */
@EnabledIfSystemProperty(named = "porch.shots", matches = ".+")
class Shots {

    @Test
    void take() {
        Page teacher = Stage.as("quill", "/classes/1/today", 1280, 800, ColorScheme.LIGHT);
        shot(teacher, "/classes/1/today", "today");
        shot(teacher, "/classes/1/porch?weeks=6", "porch");
        shot(teacher, "/classes/1/approve", "approve");
        teacher.navigate("/classes/1/mark/6");
        Stage.settled(teacher);
        for (String key : new String[] {"4", "Enter", "3", "Enter"})
            teacher.keyboard().press(key);
        teacher.getByText("So far, 2 steps open").waitFor();
        keep(teacher, "mark");
        shot(teacher, "/classes/1/scores", "scores");
        prompt(teacher);
        shot(teacher, "/classes/1/weeks", "weeks");
        shot(teacher, "/classes/1/weeks/who-answers-whom?by=TOGETHER", "who-answers-whom");
        String lastWeek = LocalDate.now().minusWeeks(1).toString();
        shot(teacher, "/classes/1/weeks/reports?week=" + lastWeek, "reports");
        sources(teacher);
        Page student = Stage.as("wren.c", "/classes/1/porch", 375, 800, ColorScheme.LIGHT);
        shot(student, "/classes/1/porch?weeks=6", "phone-porch");
        Page judging = Stage.as("quentin.a", "/classes/2/feedback", 375, 800, ColorScheme.LIGHT);
        shot(judging, "/classes/2/feedback", "phone-feedback");
        write();
        eyes();
        margin();
        Page listener = Stage.as("halloway", "/classes/2/agreement?prompt=11", 1280, 800, ColorScheme.LIGHT);
        shot(listener, "/classes/2/agreement?prompt=11", "agreement");
        shot(listener, "/classes/2/sameness/16", "sameness");
        shot(listener, "/classes/2/reviews/round/14", "reviews");
        Page sign = Stage.window(Stage.demo().address());
        shot(sign, "/river-boats-thursday-evenings/what-the-river-gave-back", "front-page");
    }

    private static void margin() {
        Page teacher = Stage.as("quill", "/classes/1/today", 1280, 800, ColorScheme.LIGHT);
        teacher.getByText("student asks for help: Pia Aurelio")
                .locator("xpath=..")
                .getByRole(AriaRole.LINK)
                .click();
        teacher.getByText("Their are three beetroots").waitFor();
        Stage.select(teacher, 9);
        Stage.button(teacher, "Write beside “Their are”").click();
        teacher.getByRole(AriaRole.TEXTBOX, new Page.GetByRoleOptions().setName("Note"))
                .fill("A place, not an owner.");
        Stage.button(teacher, "Propose other words").click();
        teacher.getByLabel("Instead of these words").fill("There are");
        keep(teacher, "margin");
    }

    private static void prompt(Page teacher) {
        teacher.navigate("/classes/1/prompts/6");
        Stage.button(teacher, Pattern.compile("^Due ")).click();
        String due = teacher.getByLabel("Due", new Page.GetByLabelOptions().setExact(true))
                .inputValue();
        teacher.getByLabel("Due", new Page.GetByLabelOptions().setExact(true))
                .fill(LocalDateTime.parse(due).minusDays(3).toString());
        teacher.getByText("What this changes").waitFor();
        keep(teacher, "prompt");
    }

    private static void eyes() {
        Page teacher = Stage.as("quill", "/classes/1/people?find=brightwater", 1280, 800, ColorScheme.LIGHT);
        Stage.button(teacher, "More for Odalys Brightwater").click();
        teacher.getByText("End the enrolment").click();
        teacher.getByText("Let the writing go along").waitFor();
        teacher.keyboard().press("Escape");
        Stage.button(teacher, "More for Odalys Brightwater").click();
        teacher.getByText("Look through their eyes").click();
        teacher.getByText("as Odalys Brightwater sees it").waitFor();
        teacher.getByText("Ice in the watering can").waitFor();
        keep(teacher, "eyes");
    }

    private static void sources(Page teacher) {
        teacher.navigate("/classes/1/sources");
        teacher.getByLabel("Address of the blog").fill(Stage.demo().outside().base() + "/rowlock/");
        Stage.button(teacher, "Look").click();
        teacher.getByText("Whose it is").first().waitFor();
        keep(teacher, "outside-blogs");
    }

    private static void write() {
        Page student = Stage.as("wren.c", "/classes/1/write", 1280, 800, ColorScheme.LIGHT);
        Stage.button(student, "Write Week 7 log").click();
        student.getByLabel("Title").fill("What the shells did");
        student.getByLabel("Your text").click();
        student.keyboard()
                .type("The holes changed sides. On Monday there were nine leaves with holes on the "
                        + "side without shells, and two on the side with them. So it was the shells, "
                        + "and not the shade.");
        student.keyboard().press("Enter");
        student.keyboard().type("Next week I want to know how many shells it takes. One bucket was a lot to carry.");
        student.getByLabel("Tags").fill("slugs");
        student.getByText("Draft, saved a moment ago").waitFor();
        keep(student, "write");
    }

    private static void shot(Page page, String path, String name) {
        page.navigate(path);
        Stage.settled(page);
        page.getByRole(AriaRole.MAIN).first().waitFor();
        keep(page, name);
    }

    private static void keep(Page page, String name) {
        page.evaluate("document.fonts.ready");
        page.screenshot(
                new Page.ScreenshotOptions().setPath(Path.of(System.getProperty("porch.shots"), name + ".png")));
    }
}

package org.vastporch.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.junit.jupiter.api.Assertions.*;
import static org.vastporch.e2e.Stage.as;
import static org.vastporch.e2e.Stage.button;
import static org.vastporch.e2e.Stage.link;
import static org.vastporch.e2e.Stage.named;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.FilePayload;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.regex.Pattern;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;

/** What comes to marks and prompts from elsewhere: an assistant, a table, the drawer, the library, one's own voice. */
class MarkElsewhereTest {

    /** The assistant marks; it counts once the teacher has taken it over, by one key or all at once. */
    @Test
    void whatAnAssistantHasMarkedIsTakenOver() {
        Page assistant = as("tremaine", "/classes/2/mark");
        link(assistant, "Under water").click();
        named(assistant, AriaRole.BUTTON, "to be taken over").first().click();
        assertThat(assistant.getByText("It counts once a teacher has taken it over."))
                .isVisible();
        assertThat(named(assistant, AriaRole.BUTTON, "^Take")).hasCount(0);
        Page teacher = as("halloway", "/classes/2/mark");
        link(teacher, "Under water").click();
        Locator waiting = named(teacher, AriaRole.BUTTON, "to be taken over");
        waiting.first().click();
        assertThat(teacher.getByText("It counts once you take it over.")).isVisible();
        teacher.keyboard().press("t");
        assertThat(teacher.getByText("1 paper is taken over and can be released."))
                .isVisible();
        named(teacher, AriaRole.BUTTON, "^Take over \\d+$").click();
        assertThat(teacher.getByText(Pattern.compile("^\\d+ papers are taken over and can be released\\.$")))
                .isVisible();
        assertThat(waiting).hasCount(0);
        named(teacher, AriaRole.BUTTON, "^Release \\d+$").click();
        assertThat(teacher.getByText(Pattern.compile("scores are released"))).isVisible();
    }

    @Test
    void marksFromASpreadsheetAreLookedAtAndTaken() {
        Page teacher = as("quill", "/classes/1/scores");
        link(teacher, "Bring marks in").click();
        teacher.getByLabel("For the prompt").selectOption("Week 3 log");
        teacher.getByLabel("Rows")
                .fill("Username;Observation;Comment\nchidubem.e;shown;Well seen\nchidubem.e2;6;\npia.a;exact;");
        button(teacher, "Look at the rows").click();
        assertThat(teacher.getByText("“shown” is neither points nor a level of Observation."))
                .isVisible();
        assertThat(teacher.getByText("Nobody here is “chidubem.e2”.")).isVisible();
        button(teacher, "Another table").click();
        teacher.getByLabel("Rows").fill("Username;Observation;Comment\nchidubem.e;5,5;Well seen");
        button(teacher, "Look at the rows").click();
        assertThat(teacher.getByText("1 row read; 1 can be taken. Nothing is saved yet."))
                .isVisible();
        teacher.getByLabel(Pattern.compile("^Some of these scores were released"))
                .fill("Marked on paper as well.");
        button(teacher, "Take the marks of 1 student").click();
        assertThat(teacher.getByText("Marks of 1 student are taken.")).isVisible();
        Page student = as("chidubem.e", "/classes/1/feedback");
        assertThat(student.getByText("Marked on paper as well.")).isVisible();
    }

    @Test
    void whatLiesInTheDrawerIsPutIntoATextAndAPrompt() throws IOException {
        ByteArrayOutputStream leaf = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(60, 40, BufferedImage.TYPE_INT_RGB), "png", leaf);
        Page teacher = as("quill", "/classes/1/drawer");
        teacher.getByLabel("Pictures and files for the drawer")
                .setInputFiles(new FilePayload("hedge.png", "image/png", leaf.toByteArray()));
        assertThat(teacher.getByLabel("Name of hedge.png")).isVisible();
        link(teacher, "Prompts").click();
        link(teacher, "Set a prompt").click();
        teacher.getByLabel("Title").fill("Under the hedge");
        teacher.getByLabel("What to write").fill("What lives here?");
        button(teacher, "Drawer").click();
        named(teacher, AriaRole.BUTTON, "^hedge.png").click();
        teacher.getByLabel("For those who cannot see it: what is in the picture?")
                .fill("A hedge in May");
        // Steps are taken from those that are kept; closing what one keeps sets no prompt.
        button(teacher, Pattern.compile("^My rubrics")).click();
        button(teacher, "Take these steps").first().click();
        button(teacher, Pattern.compile("^My rubrics")).click();
        teacher.getByLabel("A name for the steps of this page").fill("Steps for hedges");
        button(teacher, "Keep them").click();
        assertThat(teacher.getByLabel("Name of Steps for hedges")).isVisible();
        teacher.keyboard().press("Escape");
        button(teacher, "Set it").click();
        String prompt = link(teacher, "Under the hedge").first().getAttribute("href");
        Page student = as("zofia.j", "/classes/1/write");
        button(student, "Write Under the hedge").click();
        student.getByLabel("Title").fill("A wren");
        student.getByLabel("Your text").click();
        student.keyboard().type("It went in low and came out high.");
        button(student, "Drawer").click();
        named(student, AriaRole.BUTTON, "^hedge.png").click();
        assertThat(student.getByLabel("For those who cannot see it: what is in the picture?"))
                .isVisible();
        assertThat(student.getByText("Draft, saved")).isVisible();
        student.navigate(prompt);
        assertThat(student.getByText("What lives here?")).isVisible();
        assertThat(named(student, AriaRole.IMG, "^A hedge in May$")).isVisible();
    }

    @Test
    void aMarkerSaysItAndItsStudentHearsItWithTheMarks() {
        Page teacher = as("quill", "/classes/1/mark");
        link(teacher, "Week 6 log").click();
        named(teacher, AriaRole.BUTTON, "Pia Aurelio").click();
        teacher.keyboard().press("v");
        button(teacher, "My voice").click();
        button(teacher, "Record").click();
        teacher.getByLabel("1 seconds recorded").waitFor();
        button(teacher, "Stop").click();
        teacher.getByLabel("In a few words, for whoever cannot listen").fill("Count them twice.");
        button(teacher, "Keep it").click();
        assertThat(teacher.getByLabel("Spoken feedback").getByText("Count them twice."))
                .isVisible();
        Page student = as("pia.a", "/classes/1/feedback");
        assertThat(student.getByLabel("Week 5 log").first()).isVisible();
        assertThat(student.getByText("Count them twice.")).hasCount(0);
        button(teacher, "Release this one").click();
        assertThat(button(teacher, "Release this one")).hasCount(0);
        student.reload();
        assertThat(student.getByText("Count them twice.")).isVisible();
    }

    /** The screen with the voice, as the browser gives it; the student's browser plays it. */
    @Test
    void aMarkerShowsTheScreenAndItsStudentPlaysIt() {
        Page teacher = as("quill", "/classes/1/mark");
        link(teacher, "Week 6 log").click();
        named(teacher, AriaRole.BUTTON, "Odalys Brightwater").click();
        teacher.keyboard().press("v");
        button(teacher, "The screen, with my voice").click();
        button(teacher, "Record").click();
        teacher.getByLabel("2 seconds recorded").waitFor();
        button(teacher, "Stop").click();
        assertThat(teacher.getByLabel("What was recorded")).hasJSProperty("readyState", 4);
        teacher.getByLabel("In a few words, for whoever cannot listen").fill("Here, in the second line.");
        button(teacher, "Keep it").click();
        assertThat(teacher.getByLabel("Spoken feedback").getByText("Here, in the second line."))
                .isVisible();
        button(teacher, "Release this one").click();
        assertThat(button(teacher, "Release this one")).hasCount(0);
        Page student = as("odalys.b", "/classes/1/feedback");
        assertThat(student.getByText("Here, in the second line.")).isVisible();
        Locator video = student.locator("video").first();
        video.scrollIntoViewIfNeeded();
        assertEquals(true, video.evaluate("""
                v => v.play().then(() => new Promise(done => {
                  v.ontimeupdate = () => v.currentTime > 0 && v.videoWidth > 0 && done(true);
                }))"""));
    }
}

package org.vastporch.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.vastporch.e2e.Stage.*;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** Many eyes on one paper: its author's, a second marker's, and those that see what two papers share. */
class ManyEyesTest {

    /** On the phone, step by step; the teacher finds it beside the own steps. */
    @Test
    void aStudentSaysHowTheySeeAPaper() {
        Page student = Stage.as("lew.k", "/classes/2/feedback", 375, 800, ColorScheme.LIGHT);
        Locator ask = student.getByRole(AriaRole.MAIN)
                .locator("p.tell")
                .filter(new Locator.FilterOptions().setHasText("A room I know"));
        ask.getByRole(AriaRole.LINK).click();
        assertThat(named(student, AriaRole.HEADING, "^How do you see it")).isVisible();
        for (String step : new String[] {"^1 tells apart$", "^3 exact$", "^2 doubts$"})
            named(student, AriaRole.RADIO, step).click();
        assertThat(student.getByText("That is all of it, and it is kept.")).isVisible();
        student.getByLabel("Why this step? Reflection").fill("I only heard the echo when I listened again.");
        student.getByLabel("Why this step? Reflection").blur();
        assertThat(student.getByText("Being kept")).hasCount(0);
        student.reload();
        assertThat(student.getByLabel("Why this step? Reflection"))
                .hasValue("I only heard the echo when I listened again.");
        assertThat(named(student, AriaRole.RADIO, "^3 exact$")).isChecked();

        Page teacher = as("halloway", "/classes/2/mark/14");
        named(teacher, AriaRole.BUTTON, "Lew Kaczmarek").click();
        assertThat(teacher.getByText("I only heard the echo when I listened again."))
                .isVisible();
        assertThat(named(teacher, AriaRole.RADIO, "^3 exact, the student")).isVisible();
    }

    /** Two readings that lie too far apart come back; a teacher sets what counts, and both stay. */
    @Test
    void aTeacherSettlesASecondReading() {
        Page teacher = as("halloway", "/classes/2/mark");
        teacher.getByRole(AriaRole.ROW)
                .filter(new Locator.FilterOptions().setHasText("The station at six"))
                .getByText("second readings")
                .click();
        assertThat(teacher.getByText(Pattern.compile("^17 of 17 done"))).isVisible();
        Locator back = teacher.getByRole(AriaRole.ROW)
                .filter(new Locator.FilterOptions().setHasText("two steps higher in Reflection"))
                .first();
        String name = back.getByRole(AriaRole.LINK).textContent();
        back.getByRole(AriaRole.LINK).click();
        assertThat(teacher.getByText("That is further apart than this class lets pass"))
                .isVisible();
        button(teacher, "Set what counts").click();
        button(teacher, "The second reading counts").click();
        assertThat(teacher.getByRole(AriaRole.ALERT).first()).isVisible();
        teacher.getByLabel("Why", new Page.GetByLabelOptions().setExact(true))
                .fill("The last paragraph does look back.");
        button(teacher, "The second reading counts").click();
        assertThat(teacher.getByText("has settled it: the second reading count"))
                .isVisible();

        teacher.navigate("/classes/2/agreement?prompt=11");
        assertThat(teacher.getByText("17 papers, 17 read by both")).isVisible();
        assertThat(teacher.getByLabel("Reflection").getByText("about half a step more"))
                .isVisible();
        assertThat(named(teacher, AriaRole.LINK, "^" + name + "$").first()).isVisible();
        button(teacher, "Show").click();
        assertThat(named(teacher, AriaRole.ROW, "^Reflection 17")).isVisible();
    }

    /** A colleague reads what was asked of them, without the first marks. */
    @Test
    void aColleagueReadsBlind() {
        Page reader = as("tremaine", "/classes/2/mark");
        reader.getByRole(AriaRole.MAIN)
                .locator("p.tell")
                .filter(new Locator.FilterOptions().setHasText("A room I know"))
                .getByRole(AriaRole.LINK)
                .click();
        assertThat(reader.getByText("You read this without the first marks.")).isVisible();
        for (String step : new String[] {"^2 places$", "^2 found$", "^2 doubts$"})
            named(reader, AriaRole.RADIO, step).click();
        assertThat(reader.getByText("so your reading stays as it is")).isVisible();
        assertThat(named(reader, AriaRole.RADIO, "^2 places$")).isDisabled();
    }

    /** Two answers side by side, walked by keys, and put aside. */
    @Test
    void whatTwoPapersShare() {
        Page teacher = as("halloway", "/classes/2/mark");
        teacher.getByRole(AriaRole.ROW)
                .filter(new Locator.FilterOptions().setHasText("The loudest place"))
                .getByText("shared passages")
                .click();
        assertThat(teacher.getByText("6 texts, 2 pairs share words")).isVisible();
        Locator now = teacher.locator("mark[class*='now']");
        assertThat(now.first()).containsText("Under it there is a hum");
        teacher.keyboard().press("ArrowDown");
        assertThat(now.first()).containsText("A bag with wheels");
        teacher.keyboard().press("n");
        assertThat(now.first()).containsText("A place is never silent");
        teacher.keyboard().press("p");
        teacher.getByLabel("Why this pair need not be looked at again").fill("Both quote page nine of our book.");
        button(teacher, "Put it aside").click();
        assertThat(teacher.getByText("6 texts, 1 pair shares words")).isVisible();
        button(teacher, "1 put aside").click();
        assertThat(teacher.getByText("put aside: Both quote page nine of our book."))
                .isVisible();
    }
}

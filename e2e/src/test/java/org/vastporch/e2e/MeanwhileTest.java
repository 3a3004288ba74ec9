package org.vastporch.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.vastporch.e2e.Stage.as;
import static org.vastporch.e2e.Stage.button;
import static org.vastporch.e2e.Stage.link;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** Two people, or one in two windows, at the same thing; and what is left on a computer that others use. */
class MeanwhileTest {

    private static Locator step(Page page, String name) {
        return page.getByRole(AriaRole.RADIO, new Page.GetByRoleOptions().setName(Pattern.compile(name)))
                .first();
    }

    /** Does something that gives a step, until the server has it: a page shows it before that. */
    private static void kept(Page marker, Runnable gives) {
        marker.waitForResponse(r -> r.url().contains("/criteria/") && r.status() == 200, gives);
    }

    /** Two teachers mark one paper: the second sees what the first gave beside the own wish, and chooses. */
    @Test
    void theSecondMarkerSeesBothAndChooses() {
        Page quill = as("quill", "/classes/1/mark/6/13");
        Page fennimore = as("fennimore", "/classes/1/mark/6/13");
        // Two steps that nobody has given yet.
        assertThat(step(quill, "^2 ")).isVisible();
        List<String> free = Stream.of("0", "2", "4", "6")
                .filter(s -> !step(quill, "^" + s + " ").isChecked())
                .limit(2)
                .toList();
        String his = "^" + free.get(0) + " ";
        String hers = "^" + free.get(1) + " ";
        kept(fennimore, () -> step(fennimore, his).click());
        fennimore.reload();
        assertThat(step(fennimore, his)).isChecked();
        step(quill, hers).click();
        Locator both = quill.getByRole(AriaRole.ALERT);
        assertThat(both).containsText("Mr Fennimore has marked here since you opened this. Nothing was written over.");
        assertThat(both).containsText("Observation: " + free.get(0));
        assertThat(both).containsText("Observation: " + free.get(1));
        assertThat(step(quill, his)).isChecked();
        kept(quill, () -> button(quill, "Give mine").click());
        assertThat(both).isHidden();
        assertThat(step(quill, hers)).isChecked();
        fennimore.reload();
        assertThat(step(fennimore, hers)).isChecked();
    }

    /** A comment changed in two windows: the second shows both texts and writes nothing over unasked. */
    @Test
    void aCommentInTwoWindowsShowsBoth() {
        Page one = as("zofia.j", "/classes/1/porch?tag=frost");
        link(one, "First frost, first loss").click();
        one.getByLabel("Your comment", new Page.GetByLabelOptions().setExact(true))
                .fill("It froze at our end, too.");
        button(one, "Send").click();
        assertThat(one.getByText("It froze at our end, too.")).isVisible();
        Page two = one.context().newPage();
        two.navigate(one.url());
        button(two, "Change").click();
        change(one, "It froze at our end of the garden, too.");
        assertThat(one.getByText("at our end of the garden")).isVisible();
        changed(two).fill("It froze everywhere.");
        button(two, "Keep the change").click();
        assertThat(two.getByText(
                        "This comment was changed in another window or by somebody else. Nothing was written over."))
                .isVisible();
        assertThat(two.getByText("It froze at our end of the garden, too.")).isVisible();
        button(two, "Keep mine instead").click();
        assertThat(two.getByText("It froze everywhere.")).isVisible();
    }

    private static void change(Page page, String text) {
        button(page, "Change").click();
        changed(page).fill(text);
        button(page, "Keep the change").click();
    }

    /** The box in which a comment is changed; the one for a new comment stands below all of them. */
    private static Locator changed(Page page) {
        return page.getByRole(AriaRole.TEXTBOX, new Page.GetByRoleOptions().setName(Pattern.compile("^Your comment")))
                .first();
    }

    /** Words that were typed and not sent: whoever signs out on a computer that others use takes them away. */
    @Test
    void typedWordsAreTakenAwayAtSigningOut() {
        Page page = as("tama.k", "/classes/1/porch?tag=frost");
        link(page, "First frost, first loss").click();
        Locator box = page.getByLabel("Your comment", new Page.GetByLabelOptions().setExact(true));
        box.fill("I do not know yet what I think");
        button(page, "Tama K.: your menu").click();
        page.getByRole(AriaRole.MENUITEM, new Page.GetByRoleOptions().setName("Sign out"))
                .click();
        assertThat(page.getByText("Words that you typed and did not send lie in this browser (1 place)"))
                .isVisible();
        button(page, "Take them away and sign out").click();
        page.waitForURL("**/sign-in");
        Stage.signIn(page, "tama.k", "porch-demo");
        page.navigate("/classes/1/porch?tag=frost");
        link(page, "First frost, first loss").click();
        assertThat(box).hasValue("");
    }

    /** Somebody comes in by the class word as "Ms Quill": the class sees "A new student" until a teacher has looked. */
    @Test
    void aNameThatCouldBeTheTeachersIsLookedAtFirst() {
        Page teacher = as("quill", "/classes/1/people/ways");
        if (button(teacher, "Switch it on").isVisible())
            button(teacher, "Switch it on").click();
        String word = teacher.locator("main p")
                .filter(new Locator.FilterOptions().setHasText(Pattern.compile("^[a-z]{3,8} [a-z]{3,8}$")))
                .textContent();
        Page comer = Stage.window(Stage.demo().address());
        comer.navigate("/join?word=" + word);
        comer.getByLabel("Given name").fill("Ms");
        comer.getByLabel("Family name").fill("Quill");
        comer.getByLabel(Pattern.compile("[Pp]assword")).first().fill("a quiet new one");
        button(comer, "Come in").click();
        comer.waitForURL(Pattern.compile("/(classes|join)"));
        Page pupil = as("pia.a", "/classes/1/blog");
        assertThat(pupil.getByText("A new student").first()).isVisible();
        teacher.navigate("/classes/1/today");
        assertThat(teacher.getByText("name is to be looked at")).isVisible();
        teacher.navigate("/classes/1/people?find=quill");
        button(teacher, "look at the name").click();
        teacher.getByLabel("Given name").fill("Maisie");
        button(teacher, "Let the name show").click();
        assertThat(button(teacher, "look at the name")).hasCount(0);
        pupil.reload();
        assertThat(pupil.getByText("Maisie Quill").first()).isVisible();
    }
}

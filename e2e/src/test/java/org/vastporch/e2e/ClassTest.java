package org.vastporch.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.junit.jupiter.api.Assertions.*;
import static org.vastporch.e2e.Stage.button;
import static org.vastporch.e2e.Stage.link;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.vastporch.standins.PostOffice.Letter;

/**
 * A class is set up as a school needs it: people come in, move, change their names and leave; a blog changes; a teacher
 * looks through their eyes.
 */
class ClassTest {

    private static Page teacher(String path) {
        return Stage.as("halloway", path, 1280, 800, ColorScheme.LIGHT);
    }

    private static Locator menuItem(Page page, String person, String item) {
        button(page, "More for " + person).click();
        return page.getByRole(AriaRole.MENUITEM, new Page.GetByRoleOptions().setName(item));
    }

    @Test
    void aStudentComesInByTheClassWord() {
        Page teacher = teacher("/classes/2/people/ways");
        button(teacher, "Switch it on").click();
        teacher.getByLabel("for so many").fill("1");
        button(teacher, "Set").click();
        assertThat(teacher.getByText("1 more person can come")).isVisible();
        String word = teacher.locator("main p")
                .filter(new Locator.FilterOptions().setHasText(Pattern.compile("^[a-z]{3,8} [a-z]{3,8}$")))
                .innerText();

        Page comer = Stage.window(Stage.demo().address(), 375, 800, ColorScheme.LIGHT);
        comer.navigate("/");
        comer.getByLabel("Class word").fill(word.toUpperCase());
        button(comer, "Come in").click();
        comer.getByLabel("Given name").fill("Sunniva");
        comer.getByLabel("Family name").fill("Arrived");
        comer.getByLabel("Choose a password").fill("three quiet words");
        button(comer, "Come in").click();
        assertThat(comer.getByText("sunniva.a")).isVisible();
        button(comer, "Go in").click();
        assertThat(comer.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("The whole term")))
                .isVisible();
        link(comer, "Write").click();
        assertThat(comer.getByText("Walks of Sunniva Arrived")).isVisible();
        teacher.reload();
        assertThat(teacher.getByText("Everybody it was meant for has come")).isVisible();
    }

    @Test
    void anInvitationComesByMailAndIsAccepted() {
        Page teacher = teacher("/classes/2/people/ways");
        teacher.getByLabel("E-mail", new Page.GetByLabelOptions().setExact(true))
                .fill("listener@post.example");
        teacher.getByLabel("Name, for the list below").fill("Odd Listener");
        button(teacher, "Invite").click();
        assertThat(teacher.getByRole(
                        AriaRole.CELL,
                        new Page.GetByRoleOptions().setName("sent").setExact(true)))
                .isVisible();
        Letter letter = Stage.demo().post().letters().stream()
                .filter(l -> l.to().equals("listener@post.example"))
                .findFirst()
                .orElseThrow();
        assertTrue(
                letter.text()
                        .contains("Dr Halloway invites you to the class \"Sound Walks\" on Vast Porch, "
                                + "as a guest who reads along."),
                letter.text());
        Matcher address = Pattern.compile("/invitation\\?t=\\S+").matcher(letter.text());
        assertTrue(address.find());

        Page guest = Stage.window(Stage.demo().address());
        guest.navigate(address.group());
        assertThat(guest.getByText("Dr Halloway invites you to")).isVisible();
        assertThat(guest.getByLabel("Family name")).hasValue("Listener");
        guest.getByLabel("Choose a password").fill("three quiet words");
        button(guest, "Come in").click();
        button(guest, "Go in").click();
        assertThat(guest.getByLabel("Places").getByRole(AriaRole.LINK)).hasCount(1);
        teacher.navigate("/classes/2/people?find=listener");
        assertThat(teacher.getByRole(AriaRole.CELL, new Page.GetByRoleOptions().setName("Listener, Odd")))
                .isVisible();
    }

    @Test
    void whoLeavesCanBeTakenBack() {
        Page teacher = Stage.as("quill", "/classes/1/people?find=quispe", 1280, 800, ColorScheme.LIGHT);
        menuItem(teacher, "Illari Quispe", "End the enrolment").click();
        assertThat(teacher.getByText("stay for the readers they have, under the name “Illari Quispe”"))
                .isVisible();
        teacher.getByText("Let the writing go along").click();
        assertThat(teacher.getByText("disappear from the Porch")).isVisible();
        button(teacher, "Let it go along").click();
        assertThat(teacher.getByText("Nobody here fits")).isVisible();
        button(teacher, "who left 1").click();
        assertThat(teacher.getByText("with the writing")).isVisible();
        button(teacher, "Take back Illari Quispe").click();
        assertThat(button(teacher, "More for Illari Quispe")).isVisible();
    }

    @Test
    void groupsAreChangedByKeyboardAndUndone() {
        Page teacher = teacher("/classes/2/groups");
        teacher.getByLabel("Name of a new group").fill("Harbour");
        teacher.keyboard().press("Enter");
        Locator harbour = teacher.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName("Harbour"));
        assertThat(harbour).isVisible();
        for (String student : new String[] {"Eskola, Aino", "Strand, Eskil"}) {
            button(teacher, student).focus();
            teacher.keyboard().press("Enter");
        }
        teacher.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName("What to do with the groups"))
                .getByText("Harbour")
                .click();
        assertThat(harbour.getByText("Strand, Eskil")).isVisible();
        button(teacher, "Undo").click();
        assertThat(harbour.getByText("Nobody")).isVisible();
    }

    @Test
    void anotherKindOfBlogIsSaidBeforeItIsSaved() {
        Page teacher = Stage.as("vantongeren", "/classes/3/blogs", 1280, 800, ColorScheme.LIGHT);
        assertThat(teacher.getByText("2 people can read it")).isVisible();
        teacher.getByLabel("Settings of Bench book of each student").click();
        teacher.getByLabel("One each").check();
        Locator then = teacher.getByText("After you change it").locator("..");
        assertThat(then).containsText("can read it: 12 students");
        teacher.getByLabel("Journal").check();
        assertThat(then).containsText("2 people can read it");
        teacher.getByLabel("Introduction").fill("What the wood said today.");
        button(teacher, "Change it").click();
        assertThat(teacher.getByText("It holds from now on")).isVisible();
    }

    @Test
    void theClassIsSeenThroughAStudentsEyesAndAPenNameHolds() {
        Page teacher = Stage.as("quill", "/classes/1/people?find=gulbrandsen", 1280, 800, ColorScheme.LIGHT);
        menuItem(teacher, "Solveig Gulbrandsen", "The name that readers see").click();
        teacher.getByLabel("A pen name").check();
        teacher.getByLabel("Pen name", new Page.GetByLabelOptions().setExact(true))
                .fill("Frost Watch");
        button(teacher, "Use this name").click();
        assertThat(teacher.getByRole(AriaRole.CELL, new Page.GetByRoleOptions().setName("Frost Watch (pen name)")))
                .isVisible();
        teacher.navigate("/classes/1/people?find=brightwater");
        menuItem(teacher, "Odalys Brightwater", "Look through their eyes").click();
        assertThat(teacher.getByText("as Odalys Brightwater sees it")).isVisible();
        assertThat(link(teacher, "My writing")).isVisible();
        assertThat(teacher.getByText("Frost Watch").first()).isVisible();
        assertThat(teacher.getByText("Solveig")).hasCount(0);
        button(teacher, "Be yourself again").click();
        link(teacher, "Porch").click();
        assertThat(teacher.getByText("Solveig Gulbrandsen").first()).isVisible();
        teacher.navigate("/classes/1/people?find=gulbrandsen");
        menuItem(teacher, "Solveig Gulbrandsen", "The name that readers see").click();
        teacher.getByLabel("Own name").check();
        button(teacher, "Use this name").click();
        assertThat(teacher.getByRole(AriaRole.CELL, new Page.GetByRoleOptions().setName("own name")))
                .isVisible();
    }

    /** A student's own blog elsewhere: asked for, seen on the teacher's day, let in with one press. */
    @Test
    void aStudentAsksToBringInABlogAndATeacherSaysYes() {
        Page teacher = Stage.as("halloway", "/classes/2/sources", 1280, 800, ColorScheme.LIGHT);
        teacher.getByLabel("Students may register their own; staff say yes first")
                .check();
        Page student = Stage.as("lew.k", "/classes/2/my-writing", 375, 800, ColorScheme.LIGHT);
        student.getByLabel("Do you write on a blog somewhere else?")
                .fill(Stage.demo().outside().base() + "/saltwort/");
        button(student, "Look").click();
        button(student, "This is mine: Saltwort & Sorrel").click();
        assertThat(student.getByText("Your teacher looks at it")).isVisible();
        assertThat(student.getByText("waits for a yes")).isVisible();

        teacher.navigate("/classes/2/today");
        assertThat(teacher.getByText("outside blog waits for a yes: Saltwort & Sorrel"))
                .isVisible();
        teacher.navigate("/classes/2/sources");
        button(teacher, "Let it in: Saltwort & Sorrel").click();
        assertThat(button(teacher, "Let it rest: Saltwort & Sorrel")).isVisible();
        teacher.getByText("Refresh now").first().click();
        assertThat(teacher.getByText("lively").first()).isVisible();
        student.reload();
        assertThat(student.getByText("waits for a yes")).hasCount(0);
        assertThat(student.getByText("lively").first()).isVisible();
    }
}

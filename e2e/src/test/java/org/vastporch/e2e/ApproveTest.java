package org.vastporch.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.vastporch.e2e.Stage.as;
import static org.vastporch.e2e.Stage.button;
import static org.vastporch.e2e.Stage.link;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/**
 * Going through the pile: several at once with one note, two people at one pile, texts that change meanwhile, reports.
 */
class ApproveTest {

    private static void comment(Page page, String words) {
        page.getByLabel("Your comment", new Page.GetByLabelOptions().setExact(true))
                .fill(words);
        button(page, "Send").click();
        assertThat(page.getByText(words)).isVisible();
    }

    private static Page aPost(String who) {
        Page page = as(who, "/classes/1/porch?tag=frost");
        link(page, "First frost, first loss").click();
        page.getByLabel("Your comment", new Page.GetByLabelOptions().setExact(true))
                .waitFor();
        return page;
    }

    private static Locator entry(Page page, String words) {
        return page.getByRole(AriaRole.ARTICLE).filter(new Locator.FilterOptions().setHasText(words));
    }

    /** Two comments go back with one note, which is kept; the whole lot is taken back with one key and approved. */
    @Test
    void severalGoBackWithOneNoteAndAreTakenBackAsALot() {
        Page pupil = aPost("odalys.b");
        comment(pupil, "The first thing that I noticed was the mulch.");
        comment(pupil, "The second thing was the smell of it.");
        Page teacher = as("quill", "/classes/1/approve?sort=comments");
        entry(teacher, "noticed was the mulch").click();
        teacher.keyboard().press("Space");
        entry(teacher, "the smell of it").click();
        teacher.keyboard().press("Space");
        assertThat(teacher.getByText("2 picked; a decision is for all of them")).isVisible();
        teacher.keyboard().press("r");
        teacher.getByLabel("What should be changed in these 2?").fill("Say what you would ask her.");
        teacher.getByLabel("Keep this note for next time").check();
        teacher.keyboard().press("Control+Enter");
        assertThat(button(teacher, "Take all 2 back")).isVisible();
        pupil.reload();
        assertThat(pupil.getByText("“Say what you would ask her.”")).hasCount(2);
        teacher.keyboard().press("u");
        assertThat(entry(teacher, "noticed was the mulch")).isVisible();
        entry(teacher, "noticed was the mulch").click();
        teacher.keyboard().press("r");
        assertThat(button(teacher, Pattern.compile("Alt 1 Say what you would ask her")))
                .isVisible();
        teacher.keyboard().press("Escape");
        teacher.keyboard().press("a");
        entry(teacher, "the smell of it").click();
        teacher.keyboard().press("a");
        assertThat(entry(teacher, "the smell of it")).hasCount(0);
        link(teacher, "What was decided").click();
        teacher.getByLabel("Find by title, note or name").fill("say what you would");
        assertThat(teacher.getByRole(AriaRole.CELL, new Page.GetByRoleOptions().setName("Returned, taken back")))
                .hasCount(2);
    }

    /** A classmate reports a post; a moderator decides, and on the teacher's page it folds away by itself. */
    @Test
    void aReportIsDecidedByOneOfTwoPeopleAtThePile() {
        Page pupil = Stage.as("pia.a", "/classes/1/porch", 375, 800, ColorScheme.LIGHT);
        link(pupil, "Bed 4 has a frog").click();
        pupil.getByText("Where it stands").waitFor();
        button(pupil, "Report it").last().click();
        pupil.getByLabel("What is wrong with it? You can leave this empty.").fill("It says where we hide the key.");
        button(pupil, "Tell a teacher").click();
        assertThat(pupil.getByText("Nobody else learns that you told us.")).isVisible();
        Page teacher = as("quill", "/classes/1/approve?sort=reported");
        assertThat(teacher.getByText("“It says where we hide the key.”")).isVisible();
        Page moderator = as("ardizzone", "/classes/1/approve?sort=reported");
        assertThat(entry(moderator, "Bed 4 has a frog")).isVisible();
        moderator.keyboard().press("a");
        assertThat(moderator.getByText("Nothing waits")).isVisible();
        assertThat(teacher.getByText("Here no more: decided by somebody else, or changed"))
                .isVisible(new LocatorAssertions.IsVisibleOptions().setTimeout(25_000));
    }

    /** What its author changed while it lay on the page is not approved unseen: the change is shown first. */
    @Test
    void aTextThatChangedMeanwhileIsShownBeforeItIsApproved() {
        Page pupil = as("tunde.a", "/classes/1/write");
        button(pupil, "Garden news").click();
        pupil.getByLabel("Title", new Page.GetByLabelOptions().setExact(true)).fill("The robin on the fork");
        Locator text = pupil.getByRole(AriaRole.TEXTBOX, new Page.GetByRoleOptions().setName("Your text"));
        text.fill("It sat there for nine minutes and Cosmo Pomeroy held his breath.");
        button(pupil, "Hand in").click();
        pupil.waitForURL(Pattern.compile("/posts/\\d+$"));
        Page teacher = as("quill", "/classes/1/approve?sort=held");
        entry(teacher, "The robin on the fork").click();
        link(pupil, "Change it").click();
        text.fill("It sat there for eleven minutes and Cosmo Pomeroy held his breath.");
        button(pupil, "Hand in").click();
        pupil.waitForURL(Pattern.compile("/posts/\\d+$"));
        teacher.keyboard().press("a");
        assertThat(teacher.getByText(
                        "The author has changed this since you opened it. Look at what changed, then decide."))
                .isVisible();
        assertThat(entry(teacher, "The robin on the fork").locator("ins")).containsText("eleven");
        entry(teacher, "The robin on the fork").click();
        teacher.keyboard().press("a");
        assertThat(entry(teacher, "The robin on the fork")).hasCount(0);
    }

    /**
     * What is nearly right is mended by staff without leaving the pile: a comment where it lies, a post in the editor
     * over it.
     */
    @Test
    void staffMendWithoutLeavingThePile() {
        Page pupil = aPost("chidubem.e");
        comment(pupil, "Ring me about it on 07700 900 431.");
        Page teacher = as("quill", "/classes/1/approve?sort=held");
        entry(teacher, "07700 900 431").click();
        teacher.keyboard().press("e");
        teacher.getByLabel("The comment of Chidubem Eze").fill("Ask me about it on Monday.");
        button(teacher, "Keep the change").click();
        // Without the number it is held no more, so it lies in another part of the pile.
        assertThat(teacher.getByText("Here no more: decided by somebody else, or changed"))
                .isVisible();
        teacher.navigate("/classes/1/approve?sort=comments");
        entry(teacher, "Ask me about it on Monday.").click();
        teacher.keyboard().press("a");
        assertThat(entry(teacher, "Ask me about it on Monday.")).hasCount(0);
        assertThat(button(teacher, "Take back")).isVisible();
        pupil.reload();
        assertThat(pupil.getByText("changed by Ms Quill")).isVisible();

        pupil.navigate("/classes/1/write");
        button(pupil, "Garden news").click();
        pupil.getByLabel("Title", new Page.GetByLabelOptions().setExact(true)).fill("The tap dirps");
        pupil.getByRole(AriaRole.TEXTBOX, new Page.GetByRoleOptions().setName("Your text"))
                .fill("One drop every four seconds, and Cosmo Pomeroy counted them.");
        button(pupil, "Hand in").click();
        pupil.waitForURL(Pattern.compile("/posts/\\d+$"));
        teacher.navigate("/classes/1/approve?sort=posts");
        entry(teacher, "The tap dirps").click();
        teacher.keyboard().press("e");
        Locator editor = teacher.getByRole(AriaRole.DIALOG);
        editor.getByLabel("Title", new Locator.GetByLabelOptions().setExact(true))
                .fill("The tap drips");
        editor.getByText("Back to the pile").click();
        assertThat(entry(teacher, "The tap drips")).isVisible();
        teacher.keyboard().press("a");
        assertThat(entry(teacher, "The tap drips")).hasCount(0);
        assertThat(teacher.getByText("Take back")).isVisible();
        pupil.reload();
        assertThat(pupil.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("The tap drips")))
                .isVisible();
    }
}

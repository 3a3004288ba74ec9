package org.vastporch.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.junit.jupiter.api.Assertions.*;
import static org.vastporch.e2e.Stage.button;
import static org.vastporch.e2e.Stage.link;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import com.microsoft.playwright.options.FilePayload;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** Students write, are helped, publish, are found and followed. */
class WriteTest {

    private static Page student(String name, String path) {
        return Stage.as(name, path, 1280, 800, ColorScheme.LIGHT);
    }

    private static Locator text(Page page) {
        return page.getByRole(AriaRole.TEXTBOX, new Page.GetByRoleOptions().setName("Your text"));
    }

    private static void begin(Page page, String title, String words) {
        button(page, Pattern.compile("^Plot log of")).click();
        page.getByLabel("Title", new Page.GetByLabelOptions().setExact(true)).fill(title);
        save(page, () -> text(page).fill(words));
    }

    private static void save(Page page, Runnable act) {
        assertEquals(
                200,
                page.waitForResponse(
                                r -> r.url().endsWith("/draft")
                                        && r.request().method().equals("PUT"),
                                act)
                        .status());
    }

    /**
     * Any address of a post that was written elsewhere is enough; one that leads to no post says what it is and offers
     * what was found there.
     */
    @Test
    void aPostFromElsewhereIsBroughtInByItsAddress() {
        String outside = Stage.demo().outside().base();
        Page page = student("rowan.f", "/classes/1/write");
        button(page, "Bring in a post from elsewhere").click();
        page.getByLabel("Address of your post").fill(outside + "/members/");
        button(page, "Look").click();
        assertThat(page.getByText("One has to sign in to read this page")).isVisible();
        page.getByLabel("Address of your post").fill(outside + "/rowlock/");
        button(page, "Look").click();
        assertThat(page.getByText(
                        "This is the front page of a blog, not one post. Which of these is the post you mean?"))
                .isVisible();
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Bring it in: Rope for beans"))
                .click();
        assertThat(page.getByLabel("Title", new Page.GetByLabelOptions().setExact(true)))
                .hasValue("Rope for beans");
        assertThat(text(page)).not().isEmpty();
    }

    /**
     * What comes along with a paste is kept or it is said why not; a player plays where it stands, and nothing outside
     * is asked before.
     */
    @Test
    void whatIsPastedIsKeptAndPlaysInPlace() {
        String outside = Stage.demo().outside().base();
        Page page = student("parwin.h", "/classes/1/write");
        begin(page, "Beans, a plan", "Our plan for the beans.");
        save(
                page,
                () -> paste(
                        page,
                        "text/html",
                        "<p>From a page</p><img src=\"" + outside
                                + "/picture.png\"><img src=\"http://10.0.0.7/x.png\">"));
        assertThat(page.getByRole(AriaRole.ALERT))
                .containsText(
                        "The picture from 10.0.0.7 was not taken along: This address leads into a private network");
        assertThat(text(page).locator("img[src^='/media/']")).hasCount(1);
        save(page, () -> paste(page, "text/plain", "<iframe src=\"" + outside + "/embed/b1\"></iframe>"));
        assertThat(page.getByText("/watch/b1").first()).isVisible();
        String id = page.url().replaceAll(".*/write/(\\d+).*", "$1");
        page.navigate("/classes/1/posts/" + id);
        assertThat(page.locator("iframe")).hasCount(0);
        button(page, "Play it here").click();
        assertThat(page.locator("iframe")).hasAttribute("sandbox", Pattern.compile("allow-scripts"));
        assertThat(page.frameLocator("iframe").getByRole(AriaRole.IMG)).isVisible();
    }

    private static void paste(Page page, String type, String what) {
        text(page).click();
        text(page)
                .evaluate(
                        "(box, [type, what]) => { const data = new DataTransfer(); data.setData(type,"
                                + " what); box.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data,"
                                + " bubbles: true, cancelable: true })); }",
                        List.of(type, what));
    }

    /**
     * A text is helped along in its margin, earlier versions are there to be brought back, and what was published is
     * found and followed.
     */
    @Test
    void aTextIsHelpedAlongPublishedFoundAndFollowed() {
        Page pupil = student("ilka.d", "/classes/1/write");
        begin(
                pupil,
                "The shrew in the compost",
                "Their is a shrew in bay two and it looked at me for a long time before it went. I "
                        + "did not move because I wanted to count its whiskers.");
        button(pupil, "Ask a teacher to look at it").click();
        assertThat(button(pupil, "A teacher was asked. Take it back")).isVisible();

        Page teacher = Stage.as("quill", "/classes/1/today", 1280, 800, ColorScheme.LIGHT);
        teacher.getByText("student asks for help: Ilka Dragomir")
                .locator("xpath=..")
                .getByRole(AriaRole.LINK)
                .click();
        teacher.getByText("Their is a shrew").waitFor();
        Stage.select(teacher, 8);
        button(teacher, "Write beside “Their is”").click();
        teacher.getByRole(AriaRole.TEXTBOX, new Page.GetByRoleOptions().setName("Note"))
                .fill("A place, not an owner.");
        button(teacher, "Propose other words").click();
        teacher.getByLabel("Instead of these words").fill("There is");
        button(teacher, "Put it there").click();
        assertThat(teacher.getByText("A place, not an owner.")).isVisible();

        pupil.reload();
        button(pupil, "Take it over").click();
        assertThat(text(pupil)).containsText("There is a shrew in bay two");
        pupil.getByText("1 note answered").click();
        assertThat(pupil.getByText(Pattern.compile("taken over"))).isVisible();
        save(pupil, () -> text(pupil).fill("Gone by mistake."));
        button(pupil, "Versions").click();
        assertThat(pupil.getByRole(AriaRole.DIALOG).locator("del", new Locator.LocatorOptions().setHasText("whiskers")))
                .isVisible();
        button(pupil, "Bring it back").click();
        assertThat(text(pupil)).containsText("count its whiskers");
        pupil.getByLabel("Choose files")
                .setInputFiles(new FilePayload(
                        "Shrew sheet.pdf", "application/pdf", "%PDF-1.7 a shrew".getBytes(StandardCharsets.UTF_8)));
        assertThat(pupil.getByText("Document · Shrew sheet.pdf")).isVisible();
        button(pupil, "Add a source").click();
        pupil.getByRole(AriaRole.GROUP, new Page.GetByRoleOptions().setName("A source"))
                .getByLabel("Title")
                .fill("Small beasts of heaps");
        save(pupil, () -> button(pupil, "Add it").click());
        button(pupil, Pattern.compile("^(Hand in|Publish)$")).click();
        pupil.waitForURL(Pattern.compile("/posts/\\d+$"));
        if (pupil.getByText("It goes to your teacher for approval.").isVisible()) {
            teacher.navigate("/classes/1/approve");
            teacher.getByRole(AriaRole.ARTICLE, new Page.GetByRoleOptions().setName("The shrew in the compost"))
                    .click();
            teacher.keyboard().press("a");
            assertThat(button(teacher, "Take back")).isVisible();
        }

        Page mate = student("pia.a", "/classes/1/porch");
        mate.keyboard().press("Control+k");
        mate.getByLabel("Search, or go to a place").fill("shrews whisker");
        mate.getByRole(
                        AriaRole.OPTION,
                        new Page.GetByRoleOptions().setName(Pattern.compile("The shrew in the compost")))
                .click();
        assertThat(mate.getByText("Small beasts of heaps")).isVisible();
        assertThat(mate.getByText(Pattern.compile("^PDF · "))).isVisible();
        button(mate, "Subscribe to its comments").click();
        mate.getByLabel("Your comment").fill("How many whiskers?");
        button(mate, "Send").click();
        mate.navigate("/subscriptions");
        assertThat(link(mate, "Comments on The shrew in the compost")).isVisible();
        mate.getByRole(
                        AriaRole.BUTTON,
                        new Page.GetByRoleOptions().setName("End: Comments on The shrew in the compost"))
                .click();
        button(mate, "Take back").click();
        assertThat(link(mate, "Comments on The shrew in the compost")).isVisible();
    }

    /** What comes from a word processor comes out as plain headings, lists and words. */
    @Test
    void aPasteFromAWordProcessorComesOutClean() {
        Page page = student("rowan.f", "/classes/1/write");
        begin(page, "Pasted", "Before.");
        text(page).press("Enter");
        save(page, () -> text(page).evaluate("""
            element => {
              const data = new DataTransfer();
              data.setData('text/html', `<html><!--StartFragment--><h1 style="mso-x:1">Beds</h1><p class=MsoListParagraph style='mso-list:l0'><span>·&nbsp;&nbsp; </span>kale</p>
                <p class=MsoListParagraph style='mso-list:l0'><span>·&nbsp;&nbsp; </span>chard</p><p style="font-family:Comic"><b>wet</b><script>alert(1)</script><o:p></o:p></p></html>`);
              element.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
            }"""));
        assertThat(text(page).locator("h2")).hasText("Beds");
        assertThat(text(page).locator("li")).hasText(new String[] {"kale", "chard"});
        page.reload();
        assertThat(text(page).locator("li")).hasText(new String[] {"kale", "chard"});
        assertThat(text(page).locator("strong")).hasText("wet");
        assertEquals(0, text(page).locator("[style]").count());
    }
}

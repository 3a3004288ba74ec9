package org.vastporch.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.junit.jupiter.api.Assertions.*;
import static org.vastporch.e2e.Stage.button;
import static org.vastporch.e2e.Stage.link;

import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import java.io.IOException;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** Nothing typed is lost: without a network, through a killed server, after the session, in two tabs, by two people. */
class KeepingTest {

    /**
     * Ten minutes without a network end with the tab closed: what was typed is there when the page is opened again, and
     * reaches the server.
     */
    @Test
    void withoutTheNetwork() {
        Page page = Stage.as("chidubem.e", "/classes/1/write", 1280, 800, ColorScheme.LIGHT);
        button(page, Pattern.compile("^Plot log of")).click();
        saved(page, () -> text(page).fill("Four rows are covered."));
        String address = page.url();
        BrowserContext browser = page.context();
        browser.setOffline(true);
        text(page).fill("Four rows are covered, and the fifth is a test.");
        assertThat(page.getByText("Kept in this browser.")).isVisible();
        page.close();
        browser.setOffline(false);
        Page again = browser.newPage();
        assertEquals(200, saved(again, () -> again.navigate(address)));
        assertThat(text(again)).hasText("Four rows are covered, and the fifth is a test.");
        assertThat(again.getByText("Draft, saved")).isVisible();
        Page elsewhere =
                Stage.as("chidubem.e", address.substring(address.indexOf("/classes")), 1280, 800, ColorScheme.LIGHT);
        assertThat(text(elsewhere)).hasText("Four rows are covered, and the fifth is a test.");
    }

    /** A marker goes on without a network and closes the page; opened again, all of it is sent. */
    @Test
    void marksWithoutTheNetwork() {
        Page page = Stage.as("quill", "/classes/1/mark/6", 1280, 800, ColorScheme.LIGHT);
        assertThat(stair(page, "Observation")).isVisible();
        BrowserContext browser = page.context();
        String address = page.url();
        browser.setOffline(true);
        page.keyboard().press("3");
        page.keyboard().press("Enter");
        page.keyboard().press("2");
        assertThat(page.getByText(Pattern.compile("steps are kept on this computer")))
                .isVisible();
        page.close();
        browser.setOffline(false);
        Page again = browser.newPage();
        again.navigate("/classes/1/mark");
        link(again, "what you gave here is not sent yet: open it to send it").click();
        again.navigate(address);
        assertThat(stair(again, "Observation").getByRole(AriaRole.RADIO).nth(2)).isChecked();
        assertThat(stair(again, "Evidence").getByRole(AriaRole.RADIO).nth(1)).isChecked();
        Page elsewhere =
                Stage.as("fennimore", address.substring(address.indexOf("/classes")), 1280, 800, ColorScheme.LIGHT);
        assertThat(stair(elsewhere, "Observation").getByRole(AriaRole.RADIO).nth(2))
                .isChecked();
        assertThat(stair(elsewhere, "Evidence").getByRole(AriaRole.RADIO).nth(1))
                .isChecked();
    }

    private static Locator stair(Page page, String criterion) {
        return page.getByRole(
                AriaRole.RADIOGROUP, new Page.GetByRoleOptions().setName(Pattern.compile("^" + criterion + "$")));
    }

    /**
     * What a browser kept while it was cut off does not come back over what was written at home since: its author reads
     * both, and chooses.
     */
    @Test
    void twoPlacesOneAfterTheOther() {
        Page school = Stage.as("chidubem.e", "/classes/1/write", 1280, 800, ColorScheme.LIGHT);
        button(school, "Garden news").click();
        saved(school, () -> text(school).fill("The heap is warm."));
        String address = school.url();
        BrowserContext browser = school.context();
        browser.setOffline(true);
        text(school).fill("The heap is warm at the top.");
        assertThat(school.getByText("Kept in this browser.")).isVisible();
        school.close();
        Page home =
                Stage.as("chidubem.e", address.substring(address.indexOf("/classes")), 1280, 800, ColorScheme.LIGHT);
        assertEquals(200, saved(home, () -> text(home).fill("The heap is warm, 41 degrees.")));
        browser.setOffline(false);
        Page again = browser.newPage();
        assertEquals(409, saved(again, () -> again.navigate(address)));
        assertThat(text(again)).hasText("The heap is warm at the top.");
        again.getByText("Show the other one").click();
        assertThat(again.getByText("The heap is warm, 41 degrees.")).isVisible();
        button(again, "Take the other one").click();
        assertThat(text(again)).hasText("The heap is warm, 41 degrees.");
        home.reload();
        assertThat(text(home)).hasText("The heap is warm, 41 degrees.");
    }

    /** The server is killed between two words and comes back: the page was never left, and it saves by itself. */
    @Test
    void throughARestartOfTheServer() throws IOException, InterruptedException {
        try (School school = new School("keeping")) {
            Page page = Stage.window(school.address());
            page.navigate("/classes/1/write");
            Stage.signIn(page, "wren.c", "porch-demo");
            button(page, Pattern.compile("^Plot log of")).click();
            text(page).click();
            assertEquals(200, saved(page, () -> page.keyboard().type("I counted the leaves")));
            page.keyboard().type(" by");
            school.kill();
            page.keyboard().type(" torchlight.");
            assertThat(page.getByText("Kept in this browser.")).isVisible();
            assertThat(text(page)).hasText("I counted the leaves by torchlight.");
            page.keyboard().type(" There were more");
            school.start();
            page.keyboard().type(" than by day.");
            assertThat(page.getByText("Draft, saved")).isVisible();
            page.evaluate("localStorage.clear()");
            page.reload();
            assertThat(text(page)).hasText("I counted the leaves by torchlight. There were more than by day.");
        }
    }

    /** What was spoken while the server was away lies in the browser, and goes out when it is back. */
    @Test
    void whatWasSaidWithoutTheNetwork() {
        Page page = Stage.as("fennimore", "/classes/1/mark/6", 1280, 800, ColorScheme.LIGHT);
        page.getByLabel("Students")
                .getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName(Pattern.compile("Tama Kowhai")))
                .click();
        assertThat(page.getByRole(AriaRole.MAIN)).containsText("Tama Kowhai");
        page.context().setOffline(true);
        page.keyboard().press("v");
        button(page, "My voice").click();
        button(page, "Record").click();
        page.getByLabel("1 seconds recorded").waitFor();
        button(page, "Stop").click();
        page.getByLabel("In a few words, for whoever cannot listen").fill("Say it once more in June.");
        button(page, "Keep it").click();
        assertThat(page.getByText("The recording is kept on this computer")).isVisible();
        assertThat(page.getByLabel("Recorded, not sent").getByText("Say it once more in June."))
                .isVisible();
        page.context().setOffline(false);
        assertThat(page.getByLabel("Spoken feedback").getByText("Say it once more in June."))
                .isVisible();
        assertThat(page.getByText("Not sent yet.")).hasCount(0);
    }

    @Test
    void afterTheSession() {
        Page page = Stage.as("tunde.a", "/classes/1/write", 1280, 800, ColorScheme.LIGHT);
        button(page, "Garden news").click();
        assertEquals(200, typeTitle(page, "A net is missing"));
        page.context().clearCookies(new BrowserContext.ClearCookiesOptions().setName("porch_session"));
        assertEquals(401, typeTitle(page, "A net is missing again"));
        assertThat(page.getByText("Your session has ended.")).isVisible();
        assertEquals(200, saved(page, () -> Stage.signIn(page, "tunde.a", "porch-demo")));
        page.reload();
        assertThat(page.getByLabel("Title")).hasValue("A net is missing again");
    }

    @Test
    void inTwoTabs() {
        Page one = Stage.as("odalys.b", "/classes/1/write", 1280, 800, ColorScheme.LIGHT);
        button(one, "Garden news").click();
        assertEquals(200, typeTitle(one, "First"));
        Page two = one.context().newPage();
        two.navigate(one.url());
        assertEquals(200, typeTitle(two, "Second"));
        assertEquals(409, typeTitle(one, "First again"));
        assertThat(one.getByText("This post was changed in another window")).isVisible();
        assertEquals(200, saved(one, () -> button(one, "Go on with this one").click()));
        two.reload();
        assertThat(two.getByLabel("Title")).hasValue("First again");
        link(two, "My writing").click();
        assertThat(two.getByText("First again")).isVisible();
    }

    /** A teacher mends a text while its author is at it: the author reads both, and chooses. */
    @Test
    void byTwoPeople() {
        Page author = Stage.as("rowan.f", "/classes/1/write", 1280, 800, ColorScheme.LIGHT);
        button(author, Pattern.compile("^Plot log of")).click();
        assertEquals(200, typeTitle(author, "The onoins are up"));
        assertEquals(200, saved(author, () -> text(author).fill("Two rows of onions, and one of weeds.")));
        String address = author.url();
        button(author, "Hand in").click();
        assertThat(author.getByText("It goes to your teacher for approval.")).isVisible();
        author.navigate(address);
        Page teacher =
                Stage.as("fennimore", address.substring(address.indexOf("/classes")), 1280, 800, ColorScheme.LIGHT);
        assertEquals(200, typeTitle(teacher, "The onions are up"));
        assertEquals(409, saved(author, () -> text(author).fill("Two rows of onions, and two of weeds.")));
        author.getByText("Show the other one").click();
        assertThat(author.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("The onions are up")))
                .isVisible();
        button(author, "Take the other one").click();
        assertThat(author.getByLabel("Title")).hasValue("The onions are up");
        assertEquals(200, saved(author, () -> text(author).fill("Two rows of onions, and two of weeds.")));
        teacher.reload();
        assertThat(text(teacher)).hasText("Two rows of onions, and two of weeds.");
    }

    private static Locator text(Page page) {
        return page.getByRole(AriaRole.TEXTBOX, new Page.GetByRoleOptions().setName("Your text"));
    }

    private static int typeTitle(Page page, String title) {
        return saved(page, () -> page.getByLabel("Title").fill(title));
    }

    /** Does something after which the draft is saved, and gives the status of that. */
    private static int saved(Page page, Runnable act) {
        return page.waitForResponse(
                        r -> r.url().endsWith("/draft") && r.request().method().equals("PUT"), act)
                .status();
    }
}

package org.vastporch.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.vastporch.e2e.Stage.button;
import static org.vastporch.e2e.Stage.link;

import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** Reading and answering: on a phone, as somebody from outside, and at a computer that others use too. */
class ReadTest {

    private static Locator comment(Page page) {
        return page.getByRole(AriaRole.TEXTBOX, new Page.GetByRoleOptions().setName("Your comment"));
    }

    private static void choose(Page page, String field, String option) {
        page.getByRole(AriaRole.COMBOBOX, new Page.GetByRoleOptions().setName(field))
                .or(page.getByRole(AriaRole.TEXTBOX, new Page.GetByRoleOptions().setName(field)))
                .click();
        page.getByRole(
                        AriaRole.OPTION,
                        new Page.GetByRoleOptions().setName(option).setExact(true))
                .click();
    }

    /** The filters lie over the posts, say how many are left, and stand in the address. */
    @Test
    void thePorchIsNarrowedOnAPhone() {
        Page page = Stage.as("ilka.d", "/classes/1/porch?weeks=6", 375, 800, ColorScheme.LIGHT);
        button(page, "Filter").click();
        Locator filter = page.getByRole(AriaRole.COMPLEMENTARY, new Page.GetByRoleOptions().setName("Filter"));
        filter.getByLabel("One person")
                .selectOption(filter.getByRole(
                                AriaRole.OPTION,
                                new Locator.GetByRoleOptions().setName(Pattern.compile("^Thora Sørbye")))
                        .textContent());
        button(page, "Show 1 post").click();
        assertThat(filter).isHidden();
        assertThat(link(page, "Names for the beds")).isVisible();
        page.reload();
        assertThat(page.getByText("1 post,")).isVisible();
        button(page, "Show everything").click();
        assertThat(page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("The whole term")))
                .isVisible();
    }

    /**
     * A teacher opens a blog to the world; a stranger reads and answers, waits, and is read; then the comments are
     * shut, in words.
     */
    @Test
    void somebodyFromOutsideReadsAndAnswers() {
        Page teacher = Stage.as("halloway", "/classes/2/rules", 1280, 800, ColorScheme.LIGHT);
        choose(teacher, "Posts of this class reach at most", "Anyone");
        teacher.getByLabel("Strangers may come in and read what is for anyone").check();
        button(teacher, "Change the rules").click();
        assertThat(teacher.getByText("The rules are changed")).isVisible();
        teacher.navigate("/classes/2/blogs/new");
        teacher.getByLabel("Teacher's").check();
        teacher.getByLabel("Title").fill("Open ears");
        choose(teacher, "Its posts reach at most", "Anyone");
        choose(teacher, "Who comments", "anyone; visitors always wait");
        assertThat(teacher.getByText("Anyone on the internet can read it.").first())
                .isVisible();
        button(teacher, "Make it").click();
        teacher.waitForURL(url -> !url.endsWith("/new"));
        teacher.navigate("/classes/2/write");
        button(teacher, "Open ears").click();
        teacher.getByLabel("Title").fill("What the bridge sounds like");
        teacher.getByRole(AriaRole.TEXTBOX, new Page.GetByRoleOptions().setName("Your text"))
                .fill("Stand under it at eight and count the trains by ear.");
        teacher.getByLabel("Who will read it").selectOption("ANYONE");
        button(teacher, "Publish").click();
        teacher.waitForURL(Pattern.compile(".*/posts/\\d+"));
        String post = teacher.url().replaceFirst(".*/classes/2", "");

        Page visitor = Stage.window(Stage.demo().address());
        visitor.navigate(post);
        Stage.settled(visitor);
        assertThat(visitor.getByText("count the trains by ear")).isVisible();
        comment(visitor).fill("I counted seven, with my eyes shut.");
        visitor.getByLabel("Your name, as others read it").fill("Mrs Ostrowe");
        button(visitor, "Send").click();
        assertThat(visitor.getByText("Somebody of the school looks at it first"))
                .isVisible();
        visitor.reload();
        assertThat(visitor.getByText("Nobody has answered yet")).isVisible();

        link(visitor, "Sound Walks").click();
        visitor.waitForURL(Pattern.compile(".*/sound-walks"));
        visitor.getByLabel("Search here").fill("trains");
        button(visitor, "Search").click();
        assertThat(visitor.getByText("Only “trains”.")).isVisible();
        link(visitor, "What the bridge sounds like").click();
        assertThat(visitor.getByText("count the trains by ear")).isVisible();
        link(visitor, "Open ears").click();
        assertThat(visitor.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("Open ears")))
                .isVisible();
        visitor.goBack();
        teacher.navigate("/classes/2/porch");
        Page asStrangers = teacher.waitForPopup(
                () -> link(teacher, "As strangers see this class").click());
        assertThat(link(asStrangers, "What the bridge sounds like")).isVisible();

        teacher.navigate("/classes/2/approve");
        Locator entry =
                teacher.getByRole(AriaRole.ARTICLE).filter(new Locator.FilterOptions().setHasText("with my eyes shut"));
        entry.click();
        assertThat(entry.getByText("anyone on the internet")).isVisible();
        teacher.keyboard().press("a");
        assertThat(entry).hasCount(0);
        assertThat(button(teacher, "Take back")).isVisible();
        visitor.reload();
        assertThat(link(visitor, "Answer Mrs Ostrowe (visitor)")).isVisible();

        teacher.navigate("/classes/2/blogs");
        link(teacher, "Settings of Open ears").click();
        choose(teacher, "Who comments", "nobody");
        button(teacher, "Change it").click();
        assertThat(teacher.getByText("It holds from now on")).isVisible();
        visitor.reload();
        assertThat(visitor.getByText("Comments are switched off here.")).isVisible();
        assertThat(comment(visitor)).hasCount(0);
    }

    /**
     * What one has typed and not sent is for nobody else who signs in at the same computer, and is there when one comes
     * back.
     */
    @Test
    void atOneComputerOneAfterTheOther() {
        Page page = Stage.as("odalys.b", "/classes/1/porch?tag=frost", 1280, 800, ColorScheme.LIGHT);
        link(page, "First frost, first loss").click();
        comment(page).fill("I never told anybody that");
        Stage.settled(page);
        page.context().clearCookies(new BrowserContext.ClearCookiesOptions().setName("porch_session"));
        comment(page).fill("I never told anybody that I drowned them.");
        // Should the page itself have asked for something meanwhile, it says so over the button already.
        button(page, "Send").dispatchEvent("click");
        assertThat(page.getByText("Your session has ended.")).isVisible();
        String post = page.url();
        Stage.signIn(page, "chidubem.e", "porch-demo");
        page.waitForURL(Pattern.compile(".*/porch"));
        page.navigate(post);
        assertThat(comment(page)).hasValue("");
        signOut(page, "Chidubem");
        Stage.signIn(page, "odalys.b", "porch-demo");
        page.navigate(post);
        assertThat(comment(page)).hasValue("I never told anybody that I drowned them.");
    }

    /** Whoever borrowed somebody's eyes takes them along when signing out. */
    @Test
    void borrowedEyesAreNotLeftForTheNext() {
        Page page = Stage.as("fennimore", "/classes/1/porch", 1280, 800, ColorScheme.LIGHT);
        button(page, Pattern.compile("^Mr Fennimore")).click();
        page.getByRole(AriaRole.MENUITEM, new Page.GetByRoleOptions().setName("See this page as a guest"))
                .click();
        assertThat(page.getByText("You can only read.")).isVisible();
        signOut(page, "Mr Fennimore");
        Stage.signIn(page, "tunde.a", "porch-demo");
        assertThat(link(page, "My writing")).isVisible();
        assertThat(page.getByText("You can only read.")).hasCount(0);
    }

    private static void signOut(Page page, String name) {
        button(page, Pattern.compile("^" + name)).click();
        page.getByRole(AriaRole.MENUITEM, new Page.GetByRoleOptions().setName("Sign out"))
                .click();
    }
}

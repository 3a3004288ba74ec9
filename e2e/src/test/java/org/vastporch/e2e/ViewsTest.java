package org.vastporch.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.junit.jupiter.api.Assertions.*;
import static org.vastporch.e2e.Stage.button;
import static org.vastporch.e2e.Stage.named;

import com.deque.html.axecore.args.AxeRunOptions;
import com.deque.html.axecore.playwright.AxeBuilder;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/**
 * The main views of the demo school: nothing that axe finds, nothing too wide for a phone, each person sees just their
 * places.
 */
class ViewsTest {

    private static final List<String> OF_TEACHERS = List.of(
            "/classes/1/today",
            "/classes/1/porch?weeks=6",
            "/classes/1/approve",
            "/classes/1/mark",
            "/classes/1/mark/6",
            "/classes/1/people",
            "/classes/1/people/roster",
            "/classes/1/blogs",
            "/classes/1/prompts",
            "/classes/1/prompts/new",
            "/classes/1/prompts/6",
            "/classes/1/weeks",
            "/classes/1/weeks?by=PROMPT",
            "/classes/1/weeks/who-answers-whom",
            "/classes/1/weeks/reports",
            "/classes/1/weeks/who-answers-whom?table=yes",
            "/classes/1/scores",
            "/classes/1/scores/picture",
            "/classes/1/mark/8/12",
            "/classes/1/mark/9",
            "/classes/1/prompt/7",
            "/classes/1/drawer",
            "/classes/1/scores/bring-in",
            "/classes/1/sources",
            "/classes/1/rules",
            "/classes/new",
            "/classes/1/people/ways",
            "/classes/1/groups",
            "/classes/1/blogs/s1",
            "/classes/1/blogs/new",
            "/classes/1/term",
            "/classes/1/blog/garden-news",
            "/account",
            "/classes/1/posts/101",
            "/classes/1/posts/101/margin",
            "/classes/1/search?q=frost",
            "/classes/1/decisions");
    /** What several readers of one paper give to see. */
    private static final List<String> OF_SOUND_WALKS = List.of(
            "/classes/2/mark",
            "/classes/2/mark/11",
            "/classes/2/second-readings/11",
            "/classes/2/agreement?prompt=11",
            "/classes/2/sameness/16",
            "/classes/2/reviews",
            "/classes/2/reviews/round/14",
            "/classes/2/reviews/warm-up-papers/14",
            "/classes/2/approve?sort=reviews",
            "/classes/2/prompts/15");

    private static final List<String> OF_STUDENTS = List.of(
            "/classes/1/porch",
            "/classes/1/write",
            "/classes/1/my-writing",
            "/classes/1/prompt/7",
            "/classes/1/feedback",
            "/classes/1/posts/101",
            "/classes/1/blog/garden-news",
            "/classes/1/blog/plot-log-of-wren-castellane",
            "/classes/1/blog",
            "/account",
            "/news",
            "/subscriptions",
            "/classes/1/search?q=frost",
            "/stop?t=x",
            "/email?t=x");

    private static final String FRONT = "/river-boats-thursday-evenings";
    private static final List<String> OF_STRANGERS = List.of(
            FRONT, FRONT + "/what-the-river-gave-back", FRONT + "?q=green", FRONT + "?tag=paint", "/nothing-here");

    /** Good practice is among them, and that a label begins with what is seen (an experimental rule there). */
    private static final List<String> RULES =
            List.of("wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice", "experimental");

    private static final List<String> NOT_OURS =
            List.of("focus-order-semantics", "hidden-content", "table-fake-caption", "td-has-header", "p-as-heading");

    /** What lies behind a dialog cannot be reached, so its landmarks are not there twice. */
    private static final Pattern BEHIND_A_DIALOG = Pattern.compile(
            "a dialog of .*: landmark-(no-duplicate-banner|no-duplicate-main|unique) .*", Pattern.DOTALL);

    @Test
    void axeFindsNothingAndNothingIsTooWideForAPhone() {
        List<String> found = new ArrayList<>();
        Page sign = Stage.window(Stage.demo().address());
        sign.navigate("/");
        sign.getByLabel("Username").waitFor();
        look(sign, "sign in", found);
        for (String path : OF_STRANGERS) visit(sign, path, found);
        sign.navigate(FRONT);
        Stage.link(sign, "Four in the afternoon").click();
        look(sign, "a post for strangers", found);
        Page teacher = Stage.as("quill", "/classes/1/today", 1280, 800, ColorScheme.LIGHT);
        for (String path : OF_TEACHERS) visit(teacher, path, found);
        Page listener = Stage.as("halloway", "/classes/2/today", 1280, 800, ColorScheme.LIGHT);
        for (String path : OF_SOUND_WALKS) visit(listener, path, found);
        Page judging = Stage.as("quentin.a", "/classes/2/feedback", 1280, 800, ColorScheme.LIGHT);
        for (String path : List.of("/classes/2/feedback", "/classes/2/own-view/15")) visit(judging, path, found);
        dialog(
                teacher,
                "/classes/1/approve",
                () -> button(teacher, "Being told").click(),
                found);
        dialog(
                teacher,
                "/classes/1/people",
                () -> {
                    button(teacher, "More for Pia Aurelio").click();
                    teacher.getByRole(
                                    AriaRole.MENUITEM,
                                    new Page.GetByRoleOptions().setName("How their texts are approved"))
                            .click();
                },
                found);
        dialog(
                teacher,
                "/classes/1/approve?sort=posts",
                () -> teacher.keyboard().press("e"),
                found);
        dialog(
                teacher,
                "/classes/1/scores",
                () -> button(teacher, "Bundles and weights").click(),
                found);
        Page student = Stage.as("wren.c", "/classes/1/porch", 375, 800, ColorScheme.LIGHT);
        for (String path : OF_STUDENTS) visit(student, path, found);
        Page reviewer = Stage.as("liesel.b", "/classes/2/reviews", 375, 800, ColorScheme.LIGHT);
        visit(reviewer, "/classes/2/reviews", found);
        String review =
                named(reviewer, AriaRole.LINK, "of a classmate$").first().getAttribute("href");
        for (String path : List.of(review, "/classes/2/reviews/of/11", "/classes/2/reviews/warm-up/2"))
            visit(reviewer, path, found);
        dialog(
                student,
                "/classes/1/posts/101",
                () -> button(student, "Report it").first().click(),
                found);
        dialog(
                student,
                "/classes/1/write",
                () -> button(student, "Bring in a post from elsewhere").first().click(),
                found);
        visit(Stage.as("hester", "/school", 1280, 800, ColorScheme.LIGHT), "/school", found);
        found.removeIf(fault -> BEHIND_A_DIALOG.matcher(fault).matches());
        assertEquals(List.of(), found);
    }

    private static void visit(Page page, String path, List<String> found) {
        page.navigate(path);
        Stage.settled(page);
        look(page, path, found);
    }

    private static void dialog(Page page, String path, Runnable opening, List<String> found) {
        page.navigate(path);
        Stage.settled(page);
        opening.run();
        page.getByRole(AriaRole.DIALOG).waitFor();
        assertThat(page.getByLabel("One moment")).hasCount(0);
        look(page, "a dialog of " + path, found);
    }

    /** At night a page differs in its colours alone, so only these are looked at again. */
    private static void look(Page page, String name, List<String> found) {
        violations(axe(page).withTags(RULES).disableRules(NOT_OURS), name, found);
        page.emulateMedia(new Page.EmulateMediaOptions().setColorScheme(ColorScheme.DARK));
        violations(axe(page).withRules(List.of("color-contrast")), name + " at night", found);
        page.emulateMedia(new Page.EmulateMediaOptions().setColorScheme(ColorScheme.LIGHT));
        int width = page.viewportSize().width;
        page.setViewportSize(375, 800);
        if (!(Boolean) page.evaluate("document.documentElement.scrollWidth <= 375"))
            found.add(name + " is wider than a phone");
        page.setViewportSize(width, 800);
    }

    /** What is right need not be told of each element, which takes half the time. */
    private static AxeBuilder axe(Page page) {
        AxeRunOptions options = new AxeRunOptions();
        options.setResultTypes(List.of("violations"));
        return new AxeBuilder(page).options(options);
    }

    private static void violations(AxeBuilder axe, String name, List<String> found) {
        // There are no frames, for which alone the other mode opens a page of its own each time.
        axe.setLegacyMode(true)
                .analyze()
                .getViolations()
                .forEach(v -> found.add(
                        name + ": " + v.getId() + " " + v.getNodes().get(0).getHtml() + " "
                                + v.getNodes().get(0).getAny()));
    }

    @Test
    void moderatorsAndGuestsSeeTheirPlacesOnly() {
        Page moderator = Stage.as("ardizzone", "/", 1280, 800, ColorScheme.LIGHT);
        assertThat(moderator.getByLabel("Places").getByRole(AriaRole.LINK)).hasCount(1);
        assertThat(moderator.getByText("The wheelbarrow question")).isVisible();
        assertThat(moderator.locator("mark", new Page.LocatorOptions().setHasText("07700 900 412")))
                .isVisible();
        assertThat(button(moderator, "Edit E")).hasCount(0);
        Page guest = Stage.as("crake", "/", 1280, 800, ColorScheme.LIGHT);
        assertThat(guest.getByLabel("Places").getByRole(AriaRole.LINK)).hasCount(1);
        assertThat(guest.getByText("Our compost is 41 degrees and I can prove it"))
                .isVisible();
    }

    @Test
    void theRailChoosesAndTheAddressKeepsIt() {
        Page page = Stage.as("wren.c", "/classes/1/porch", 1280, 800, ColorScheme.LIGHT);
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Week 6,"))
                .click();
        assertThat(page.getByRole(
                        AriaRole.HEADING,
                        new Page.GetByRoleOptions().setName("Week 6").setExact(true)))
                .isVisible();
        page.keyboard().press("ArrowLeft");
        assertThat(page.getByRole(
                        AriaRole.HEADING,
                        new Page.GetByRoleOptions().setName("Week 5").setExact(true)))
                .isVisible();
        page.reload();
        assertThat(page.getByRole(
                        AriaRole.HEADING,
                        new Page.GetByRoleOptions().setName("Week 5").setExact(true)))
                .isVisible();
        button(page, "Show everything").click();
        assertThat(page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("The whole term")))
                .isVisible();
    }
}

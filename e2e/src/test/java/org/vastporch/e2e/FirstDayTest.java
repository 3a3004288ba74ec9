package org.vastporch.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.junit.jupiter.api.Assertions.*;
import static org.vastporch.e2e.Stage.button;
import static org.vastporch.e2e.Stage.link;

import com.microsoft.playwright.APIResponse;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.FilePayload;
import com.microsoft.playwright.options.RequestOptions;
import com.rometools.rome.feed.synd.SyndFeed;
import com.rometools.rome.io.FeedException;
import com.rometools.rome.io.SyndFeedInput;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.StringReader;
import java.nio.file.Path;
import java.time.Instant;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.imageio.ImageIO;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.boot.SpringApplication;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.vastporch.server.VastPorch;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.session.SessionService;
import org.vastporch.standins.OutsideHost;

/** The first working day, from an empty school to a released score, as the people of it live it. */
class FirstDayTest {

    private static final String PASSWORD = "three calm words";

    private OutsideHost outside;
    private ConfigurableApplicationContext server;
    private String address;
    private Page teacher;

    @BeforeEach
    void openTheSchool() {
        outside = new OutsideHost(0, Instant.now());
        server = SpringApplication.run(
                VastPorch.class,
                "--server.port=0",
                "--vastporch.quiet=true",
                "--vastporch.data=" + Stage.folder("day"),
                "--vastporch.feeds.allowed-private-hosts=" + outside.hostAndPort(),
                "--vastporch.feeds.check-every=PT1S");
        address = "http://localhost:" + server.getEnvironment().getProperty("local.server.port");
    }

    @AfterEach
    void close() {
        server.close();
        outside.close();
    }

    @Test
    void fromAnEmptySchoolToAReleasedScore() throws IOException, FeedException {
        teacher = keeperMakesATeacher();
        makeClassAndEnrol();
        String slips = slips();
        setPrompt();
        Page wren = studentSignsIn(slips, "Wren Castellane");
        Page pia = studentSignsIn(slips, "Pia Aurelio");
        writeAndHandIn(wren);
        returnWithANote();
        mendAndHandInAgain(wren);
        approveByKey(pia);
        commentAndApprove(pia, wren);
        feedOut(pia);
        feedIn(pia);
        markByKeys();
        assertFeedback(wren, pia);
    }

    private Page keeperMakesATeacher() {
        long keeper =
                server.getBean(PeopleService.class).keeperWithoutPassword().orElseThrow();
        Page page = Stage.window(address);
        setFirstPassword(
                page,
                "/first-password?t=" + server.getBean(SessionService.class).oneTime(keeper));
        page.getByLabel("Title").fill("Ms");
        page.getByLabel("Given name").fill("Ottoline");
        page.getByLabel("Family name").fill("Quill");
        button(page, "Add the teacher").click();
        String path =
                page.getByText(Pattern.compile("http.*/first-password\\?t=.*")).textContent();
        Page quill = Stage.window(address);
        setFirstPassword(quill, path);
        return quill;
    }

    private static void setFirstPassword(Page page, String path) {
        page.navigate(path);
        page.getByLabel("Password", new Page.GetByLabelOptions().setExact(true)).fill(PASSWORD);
        page.getByLabel("The same again").fill(PASSWORD);
        button(page, "Set the password").click();
        page.waitForURL(url -> !url.contains("first-password"));
    }

    private void makeClassAndEnrol() {
        teacher.getByLabel("Name of the class").fill("Plot to Plate");
        teacher.getByLabel("Year or level").fill("year 8");
        button(teacher, "Make the class").click();
        teacher.getByLabel("Roster file")
                .setInputFiles(new FilePayload("list.csv", "text/csv", "%PDF-1.4 not a list".getBytes()));
        assertThat(teacher.getByText("This is a PDF document, whatever its name says."))
                .isVisible();
        teacher.getByLabel("Roster file")
                .setInputFiles(Path.of("../demo/src/main/resources/rosters/roster-plot-to-plate.csv"));
        assertThat(teacher.getByText("24 rows read; 24 can come in. Nothing is saved yet."))
                .isVisible();
        assertThat(teacher.getByRole(
                        AriaRole.ROW, new Page.GetByRoleOptions().setName(Pattern.compile("Bożena.*bozena.l"))))
                .isVisible();
        button(teacher, "Enrol 24 students").click();
        assertThat(teacher.getByText("24 students are enrolled")).isVisible();
        link(teacher, "Blogs").click();
        assertThat(teacher.getByText("one each, 24 blogs so far")).isVisible();
        assertThat(teacher.getByText("25 people can read it").first()).isVisible();
    }

    private String slips() throws IOException {
        byte[] pdf = teacher.request().get(address + "/api/classes/1/slips.pdf").body();
        try (PDDocument document = Loader.loadPDF(pdf)) {
            String text = new PDFTextStripper().getText(document);
            assertTrue(text.contains("Bożena Łukaszewicz"), "names of any European script are printed");
            assertEquals(3, document.getNumberOfPages());
            return text;
        }
    }

    private void setPrompt() {
        link(teacher, "Prompts").click();
        link(teacher, "Set a prompt").click();
        button(teacher, "Set it").click();
        assertThat(teacher.getByText("Give the prompt a title.")).isVisible();
        teacher.getByLabel("Title").fill("Week 1 log");
        teacher.getByLabel("What to write").fill("One thing that you saw in your bed.");
        button(teacher, Pattern.compile("^One post of each student")).click();
        teacher.getByLabel("Words", new Page.GetByLabelOptions().setExact(true)).fill("10");
        button(teacher, "Set it").click();
        assertThat(teacher.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("Week 1 log")))
                .isVisible();
    }

    private Page studentSignsIn(String slips, String name) {
        Matcher slip = Pattern.compile(
                        name + ".*?Username\\s+(\\S+)\\s+Pass phrase\\s+([a-z]+ [a-z]+ [a-z]+)", Pattern.DOTALL)
                .matcher(slips);
        assertTrue(slip.find(), () -> "no slip of " + name + " in " + slips);
        Page page = Stage.window(address);
        page.navigate("/");
        Stage.signIn(page, slip.group(1), slip.group(2));
        return page;
    }

    private void writeAndHandIn(Page wren) throws IOException {
        link(wren, "Write").click();
        button(wren, "Write Week 1 log").click();
        assertThat(button(wren, "Hand in")).isDisabled();
        wren.getByLabel("Title").fill("What the slugs left us");
        wren.getByLabel("Your text").click();
        wren.keyboard().type("I counted before I watered: eleven leaves with holes, four without.");
        wren.getByLabel("Choose pictures")
                .setInputFiles(new FilePayload("note.png", "image/png", "no picture at all".getBytes()));
        assertThat(wren.getByText("This is not a picture, whatever its name says."))
                .isVisible();
        ByteArrayOutputStream png = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(900, 500, BufferedImage.TYPE_INT_RGB), "png", png);
        wren.getByLabel("Choose pictures").setInputFiles(new FilePayload("slugs.png", "image/png", png.toByteArray()));
        wren.getByLabel("For those who cannot see it").fill("A leaf with eleven holes");
        wren.getByLabel("Tags").fill("slugs, lettuce");
        assertThat(wren.getByText("Every picture described, done")).isVisible();
        assertThat(wren.getByText("25 people can read it")).isVisible();
        assertThat(wren.getByText("Draft, saved a moment ago")).isVisible();
        wren.reload();
        assertThat(wren.getByLabel("Title")).hasValue("What the slugs left us");
        button(wren, "Preview").click();
        assertThat(wren.getByAltText("A leaf with eleven holes")).isVisible();
        button(wren, "Hand in").click();
        assertThat(wren.getByText("It goes to your teacher for approval.")).isVisible();
    }

    private void returnWithANote() {
        link(teacher, "Today").click();
        assertThat(teacher.getByText("waits for approval")).isVisible();
        link(teacher, "Approve").first().click();
        assertThat(teacher.getByRole(AriaRole.ARTICLE)).containsText("Once approved, 25 people can read it.");
        teacher.keyboard().press("r");
        teacher.getByLabel("What should be changed?").fill("Which side were they on?");
        teacher.keyboard().press("Control+Enter");
        assertThat(teacher.getByText("Nothing waits")).isVisible();
        assertThat(teacher.getByText("Take back")).isVisible();
    }

    private void mendAndHandInAgain(Page wren) {
        link(wren, "My writing").click();
        assertThat(wren.getByText("Ms Quill wrote: “Which side were they on?”")).isVisible();
        link(wren, "What the slugs left us").click();
        wren.getByLabel("Your text").getByText("I counted").click();
        wren.keyboard().press("End");
        wren.keyboard().type(" The ones without were on the side of the shells.");
        assertThat(wren.getByText("Draft, saved a moment ago")).isVisible();
        button(wren, "Hand in").click();
        assertThat(wren.getByText("It goes to your teacher for approval.")).isVisible();
    }

    private void approveByKey(Page pia) {
        pia.navigate("/classes/1/porch");
        assertThat(pia.getByText("Nothing is published yet.")).isVisible();
        teacher.reload();
        Locator item = teacher.getByRole(AriaRole.ARTICLE);
        assertThat(item.locator("ins")).containsText("The ones without were on the side of the shells.");
        teacher.keyboard().press("a");
        assertThat(teacher.getByText("Take back")).isVisible();
        teacher.keyboard().press("u");
        assertThat(teacher.getByText("1 waits")).isVisible();
        teacher.keyboard().press("a");
        assertThat(teacher.getByText("Take back")).isVisible();
        pia.reload();
        assertThat(pia.getByText("Nobody has answered yet")).isVisible();
        link(pia, "Wren Castellane").click();
        assertThat(pia.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("Wren Castellane")))
                .isVisible();
        link(pia, "What the slugs left us").click();
    }

    private void commentAndApprove(Page pia, Page wren) {
        pia.getByLabel("Your comment").fill("Did you count them at the same hour?");
        button(pia, "Send").click();
        assertThat(pia.getByText("A teacher looks at it first.")).isVisible();
        wren.reload();
        assertThat(wren.getByText("Nobody has answered yet")).isVisible();
        teacher.reload();
        assertThat(teacher.getByText("1 comment on What the slugs left us")).isVisible();
        teacher.keyboard().press("a");
        assertThat(teacher.getByText("Nothing waits")).isVisible();
        assertThat(teacher.getByText("Take back")).isVisible();
        wren.reload();
        assertThat(wren.getByText("Did you count them at the same hour?")).isVisible();
    }

    private void feedOut(Page pia) throws FeedException {
        link(pia, "Porch").click();
        button(pia, "Show my feed address").click();
        String feed = pia.getByLabel("My feed address").inputValue();
        Page stranger = Stage.window(address);
        APIResponse answer = stranger.request().get(feed);
        SyndFeed read = new SyndFeedInput().build(new StringReader(answer.text()));
        assertEquals("What the slugs left us", read.getEntries().get(0).getTitle());
        assertEquals("Wren Castellane", read.getEntries().get(0).getAuthor());
        assertEquals(
                304,
                stranger.request()
                        .get(
                                feed,
                                RequestOptions.create()
                                        .setHeader(
                                                "If-None-Match",
                                                answer.headers().get("etag")))
                        .status());
        SyndFeed open = new SyndFeedInput()
                .build(new StringReader(stranger.request()
                        .get(address + "/feeds/classes/1.atom")
                        .text()));
        assertEquals(0, open.getEntries().size());
    }

    private void feedIn(Page pia) {
        // From wherever one stands: the page beneath, with what is typed there, stays as it is.
        teacher.navigate("/classes/1/blogs/new");
        teacher.getByLabel("Introduction").first().fill("Half a sentence");
        teacher.keyboard().press("Control+k");
        teacher.getByRole(AriaRole.COMBOBOX, new Page.GetByRoleOptions().setName("Search, or go to a place"))
                .fill(outside.base() + "/rowlock/");
        teacher.getByRole(AriaRole.OPTION, new Page.GetByRoleOptions().setName(Pattern.compile("Bring in writing.*")))
                .click();
        assertThat(teacher.getByText("A bed where the skiff stood")).isVisible();
        teacher.getByPlaceholder("Choose").fill("Tama");
        teacher.getByRole(AriaRole.OPTION, new Page.GetByRoleOptions().setName(Pattern.compile("Tama Kowhai.*")))
                .click();
        button(teacher, "Gather it").click();
        assertThat(teacher.getByText("It is gathered now")).isVisible();
        teacher.keyboard().press("Escape");
        assertThat(teacher.getByLabel("Introduction").first()).hasValue("Half a sentence");
        teacher.navigate("/classes/1/sources");
        assertThat(teacher.getByText("Posts of Tama Kowhai")).isVisible();
        button(teacher, "Entries of Rowlock").click();
        assertThat(link(teacher, "The post")).hasCount(3);
        link(teacher, "Approve")
                .or(teacher.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Approve 3")))
                .first()
                .click();
        for (int left = 3; left > 0; left--) {
            assertThat(teacher.getByText(left == 1 ? "1 waits" : left + " wait").first())
                    .isVisible();
            teacher.keyboard().press("a");
        }
        assertThat(teacher.getByText("Take back")).hasCount(3);
        pia.reload();
        assertThat(pia.getByText("from Rowlock").first()).isVisible();

        outside.publish("rowlock", "A new entry", "<p>Written just now.</p><script>harm()</script>");
        server.getBean(JdbcClient.class)
                .sql("update source set next_check_at = now()")
                .update();
        assertThat(teacher.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("A new entry")))
                .isVisible(new LocatorAssertions.IsVisibleOptions().setTimeout(30_000));
        teacher.keyboard().press("a");
        assertThat(teacher.getByText("Take back")).hasCount(4);
    }

    private void markByKeys() {
        link(teacher, "Mark").first().click();
        link(teacher, "Week 1 log").click();
        assertThat(teacher.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("What the slugs left us")))
                .isVisible();
        for (String key : new String[] {"4", "Enter", "3", "Enter", "3", "Enter", "4"}) {
            if (key.equals("Enter")) teacher.keyboard().press(key);
            else
                teacher.waitForResponse(r -> r.url().contains("/criteria/"), () -> teacher.keyboard()
                        .press(key));
        }
        // 18 × (2·6/6 + 2·4/6 + 1·2/3 + 1·3/3) / 6
        assertThat(teacher.getByTestId("total")).hasText("15");
        teacher.keyboard().press("w");
        teacher.getByLabel("A word on the whole").fill("You counted. Keep doing that.");
        teacher.keyboard().press("Enter");
        button(teacher, "Release 1").click();
        assertThat(teacher.getByText("1 score is released.")).isVisible();
    }

    private void assertFeedback(Page wren, Page pia) {
        link(wren, "Feedback").click();
        assertThat(wren.getByText("You counted. Keep doing that.")).isVisible();
        assertThat(wren.getByRole(AriaRole.RADIO, new Page.GetByRoleOptions().setName("6 exact")))
                .isChecked();
        assertThat(wren.getByLabel("Week 1 log")).containsText("15 of 18");
        link(pia, "Feedback").click();
        assertThat(pia.getByText("Nothing here yet.")).isVisible();
    }
}

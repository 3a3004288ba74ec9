package org.vastporch.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.vastporch.e2e.Stage.*;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import java.time.LocalDateTime;
import java.time.temporal.ChronoUnit;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** Classmates read each other's papers. */
class PeersTest {

    /** Asked for in the rules of a prompt, looked at as a plan, changed by hand, and given out. */
    @Test
    void aTeacherGivesOutThePapersAfterALook() {
        Page teacher = as("halloway", "/classes/2/prompts/16");
        named(teacher, AriaRole.BUTTON, "^Classmates do not review it").click();
        teacher.getByLabel("Papers that each student reviews").fill("2");
        teacher.getByLabel("Reviews are due")
                .fill(LocalDateTime.now()
                        .plusDays(20)
                        .truncatedTo(ChronoUnit.MINUTES)
                        .toString());
        teacher.getByLabel("And answer, one question a line").fill("Which word is the loudest?");
        named(teacher, AriaRole.BUTTON, "^Keep").click();
        assertThat(teacher.getByRole(AriaRole.ALERT)).hasCount(0);

        teacher.navigate("/classes/2/prompt/16");
        named(teacher, AriaRole.LINK, "^Reviews by classmates$").click();
        assertThat(named(teacher, AriaRole.HEADING, "^Give out the papers$")).isVisible();
        assertThat(teacher.getByText("6 papers are there; each student reads 2 papers"))
                .isVisible();
        Locator first = named(teacher, AriaRole.BUTTON, "^Keep: Ani Petrosyan").first();
        String kept = first.getAttribute("aria-label");
        first.click();
        assertThat(teacher.getByLabel(kept)).hasText("Kept");
        button(teacher, "Another plan").click();
        assertThat(teacher.getByLabel(kept)).hasText("Kept");
        button(teacher, "Give them out").click();
        assertThat(named(teacher, AriaRole.HEADING, "^Who has done theirs$")).isVisible();
        assertThat(teacher.getByText(Pattern.compile("^0 of 12 sent"))).isVisible();

        Page student = as("ani.p", "/classes/2/reviews");
        assertThat(student.getByText("The loudest place").first()).isVisible();
    }

    /** On the phone, from what waits under Write to the review that is sent; the teacher passes on what is missing. */
    @Test
    void aStudentReviewsAPaper() {
        Page student = Stage.as("quentin.a", "/classes/2/write", 375, 800, ColorScheme.LIGHT);
        named(student, AriaRole.LINK, "^Read and review$").click();
        named(student, AriaRole.LINK, "of a classmate$").first().click();
        assertThat(named(student, AriaRole.HEADING, "^A classmate’s paper$")).isVisible();
        assertThat(button(student, "Send the review")).isDisabled();
        for (String step : new String[] {"^2 places$", "^3 exact$", "^1 repeats$"})
            named(student, AriaRole.RADIO, step).click();
        student.getByLabel("Why this step? Reflection").fill("Say at which minute you noticed it.");
        student.getByLabel("What would you ask whoever stood there?").fill("How long did you stand there?");
        student.getByLabel("What would you ask whoever stood there?").blur();
        assertThat(button(student, "Send the review")).isEnabled();
        student.reload();
        assertThat(student.getByLabel("Why this step? Reflection")).hasValue("Say at which minute you noticed it.");
        button(student, "Send the review").click();
        assertThat(student.getByText("You have sent it, and its author can read it."))
                .isVisible();

        Page teacher = as("halloway", "/classes/2/reviews");
        named(teacher, AriaRole.LINK, "^A room I know$").click();
        assertThat(teacher.getByText("far from all others").first()).isVisible();
        Locator pass = named(teacher, AriaRole.BUTTON, "^Pass on: Aino Eskola").first();
        String of = pass.getAttribute("aria-label");
        pass.click();
        assertThat(teacher.getByLabel(of)).hasCount(0);
    }

    /**
     * On the phone: three papers that the teacher has marked come first, each with the teacher's steps after the own
     * ones.
     */
    @Test
    void aReviewerWarmsUpFirst() {
        Page student = Stage.as("aino.e", "/classes/2/reviews", 375, 800, ColorScheme.LIGHT);
        named(student, AriaRole.LINK, "of a classmate$").first().click();
        assertThat(student.getByText("This paper opens once you have warmed up"))
                .isVisible();
        named(student, AriaRole.LINK, "^Begin$").click();
        for (int i = 1; i <= 3; i++) {
            assertThat(named(student, AriaRole.HEADING, "^Warm up, paper " + i + " of 3$"))
                    .isVisible();
            assertThat(button(student, "See how near I came")).isDisabled();
            for (String step : new String[] {"^2 places$", "^3 exact$", "^1 repeats$"})
                named(student, AriaRole.RADIO, step).click();
            assertThat(student.getByText("What your teacher says of it")).hasCount(0);
            button(student, "See how near I came").click();
            assertThat(student.getByText(Pattern.compile("^You chose the same step on"))
                            .first())
                    .isVisible();
            assertThat(student.getByText("What your teacher says of it")).isVisible();
            named(student, AriaRole.LINK, i < 3 ? "^The next paper to warm up on$" : "^Now the first paper")
                    .click();
        }
        assertThat(named(student, AriaRole.HEADING, "^A classmate’s paper$")).isVisible();
        assertThat(button(student, "Send the review")).isVisible();
    }

    /** A new one is nobody's before it has all its steps. */
    @Test
    void aTeacherWritesAPaperToWarmUpOn() {
        Page teacher = as("halloway", "/classes/2/reviews/round/14");
        named(teacher, AriaRole.LINK, "^The warm-up papers$").click();
        assertThat(named(teacher, AriaRole.HEADING, "^Warm-up papers$")).isVisible();
        assertThat(teacher.getByText(Pattern.compile("students have judged it")).first())
                .isVisible();
        button(teacher, "Write another one").click();
        teacher.getByLabel("Title").fill("The lift");
        teacher.getByLabel("The text of the paper").click();
        teacher.keyboard().type("It hums on one note, and stops a little below it.");
        button(teacher, "Add it, and mark it").click();
        assertThat(named(teacher, AriaRole.HEADING, "^5. The lift$")).isVisible();
        assertThat(teacher.getByText("Not given to anybody before every stair has a step.")
                        .last())
                .isVisible();
        named(teacher, AriaRole.RADIO, "^2 places$").last().click();
        assertThat(teacher.getByText("2 stairs are still open")).isVisible();
        named(teacher, AriaRole.BUTTON, "^Take out: The lift$").click();
        assertThat(named(teacher, AriaRole.HEADING, "^5. The lift$")).hasCount(0);
    }

    /** The question on the phone, and what the teacher learns of it; given and taken back. */
    @Test
    void anAuthorGivesAPostToWarmUpOn() {
        Page author = Stage.as("mika.g", "/classes/2/my-writing", 375, 800, ColorScheme.LIGHT);
        Locator question = author.getByLabel("Your post as a warm-up: The last bench of platform four");
        assertThat(question.getByText("without your name")).isVisible();
        button(author, "Yes, they may").click();
        assertThat(question.getByText("Reviewers warm up on")).isVisible();

        Page teacher = as("halloway", "/classes/2/reviews/warm-up-papers/14");
        assertThat(teacher.getByText("Mika Grünwald gives it, without the name. Not given to anybody"))
                .isVisible();
        assertThat(named(teacher, AriaRole.BUTTON, "^Fold it: The last bench of platform four$"))
                .isVisible();
        assertThat(named(teacher, AriaRole.RADIO, "^2 places$").first()).isVisible();
        assertThat(named(teacher, AriaRole.BUTTON, "^Change the text: The last bench"))
                .hasCount(0);

        button(author, "Take that back").click();
        assertThat(question).hasCount(0);
        teacher.reload();
        assertThat(teacher.getByText("Mika Grünwald would rather not.")).isVisible();
        assertThat(named(teacher, AriaRole.BUTTON, "^Fold it: The last bench of platform four$"))
                .hasCount(0);
    }

    /** What many say folds away in both texts, and opens where it stands. */
    @Test
    void whatManyShareFoldsAway() {
        Page teacher = as("halloway", "/classes/2/sameness/16");
        Locator fold =
                named(teacher, AriaRole.BUTTON, "^12 words that many share").first();
        fold.click();
        assertThat(teacher.getByText("I stayed ten minutes in the loudest place that I could find."))
                .hasCount(1);
        named(teacher, AriaRole.BUTTON, "^12 words in 6 of 6 texts").click();
        assertThat(teacher.getByText("I stayed ten minutes in the loudest place that I could find"))
                .hasCount(2);
        fold.click();
        assertThat(teacher.getByText("I stayed ten minutes in the loudest place that I could find"))
                .hasCount(1);
    }

    /** What is held waits in the pile without its points; then its author reads it, and says that it helped. */
    @Test
    void wordsThatAreHeldReachTheAuthorOnceTheyWereLookedAt() {
        Page teacher = as("halloway", "/classes/2/approve?sort=reviews");
        Locator held = teacher.getByRole(AriaRole.ARTICLE)
                .filter(new Locator.FilterOptions().setHasText("About the paper of Imani Calloway"));
        assertThat(held.getByText("07700 900417")).isVisible();
        held.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Approve"))
                .click();
        assertThat(teacher.getByText("Nothing of this waits.")).isVisible();

        Page author = as("imani.c", "/classes/2/feedback");
        author.getByText("reviewed your paper for A room I know")
                .getByRole(AriaRole.LINK)
                .click();
        Locator review = author.getByLabel(Pattern.compile("^Reviewer \\d$"))
                .filter(new Locator.FilterOptions().setHasText("If you like we can go there together"));
        review.getByText("This helped").click();
        author.getByLabel("What helped, and how?").fill("I went back there.");
        button(author, "This helped").first().click();
        assertThat(author.getByText("I went back there.")).isVisible();
        assertThat(author.getByText("Ani Petrosyan")).hasCount(0);
    }
}

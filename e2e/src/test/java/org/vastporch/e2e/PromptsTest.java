package org.vastporch.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.vastporch.e2e.Stage.as;
import static org.vastporch.e2e.Stage.button;
import static org.vastporch.e2e.Stage.link;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** What a prompt can say of its answers beside what they are marked by: where they go, whose names stand there. */
class PromptsTest {

    private static Locator rule(Page page, String name) {
        return page.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName(name));
    }

    @Test
    void answersGoIntoACommonBlogWithoutNames() {
        Page teacher = as("halloway", "/classes/2/prompts/new");
        teacher.getByLabel("Title").fill("What I cannot say aloud");
        rule(teacher, "Where answers go").getByRole(AriaRole.BUTTON).first().click();
        teacher.getByRole(AriaRole.COMBOBOX, new Page.GetByRoleOptions().setName("Answers go into"))
                .click();
        teacher.getByRole(AriaRole.OPTION, new Page.GetByRoleOptions().setName("Heard together"))
                .click();
        rule(teacher, "Who reads the answers")
                .getByRole(AriaRole.BUTTON)
                .first()
                .click();
        teacher.getByLabel("Names are kept from classmates").check();
        assertThat(rule(teacher, "Who reads the answers")).containsText("at once, without names.");
        rule(teacher, "What is asked for").getByRole(AriaRole.BUTTON).first().click();
        for (String none : new String[] {"Words", "Tags"})
            teacher.getByLabel(none, new Page.GetByLabelOptions().setExact(true))
                    .fill("0");
        button(teacher, "Set it").click();
        assertThat(link(teacher, "What I cannot say aloud").first()).isVisible();

        Page author = as("quentin.a", "/classes/2/write");
        assertThat(author.getByText("It goes into “Heard together”. Classmates do not read your name on it")
                        .first())
                .isVisible();
        button(author, "Write What I cannot say aloud").click();
        author.getByLabel("Title").fill("The lift");
        author.getByLabel("Your text").click();
        author.keyboard().type("It hums a note that I know from somewhere.");
        assertThat(author.getByText("Names are kept back here")).isVisible();
        assertThat(author.getByText("Draft, saved")).isVisible();
        button(author, "Publish").click();
        assertThat(author.getByText("The lift").first()).isVisible();

        Page classmate = as("liesel.b", "/classes/2/porch");
        link(classmate, "The lift").first().click();
        assertThat(classmate.getByText("Somebody in the class").first()).isVisible();
        assertThat(classmate.getByText("Abernethy")).hasCount(0);
        classmate.getByLabel("Your comment").fill("I hear it too.");
        button(classmate, "Send").click();
        assertThat(classmate.getByText("Liesel Böhm").first()).isVisible();
        String address = classmate.url();

        author.navigate(address);
        assertThat(author.getByText("Reader 1")).isVisible();
        assertThat(author.getByText("Liesel")).hasCount(0);
        teacher.navigate(address);
        assertThat(teacher.getByText("Quentin Abernethy").first()).isVisible();
        assertThat(teacher.getByText("Liesel Böhm").first()).isVisible();
    }

    @Test
    void aPostIsAnExampleAsLongAsItsAuthorLikes() {
        Page classmate = as("zofia.j", "/classes/1/prompt/7");
        assertThat(classmate.getByText("by Wren Castellane")).hasCount(0);
        Page author = as("wren.c", "/classes/1/my-writing");
        assertThat(author.getByText(Pattern.compile("would like to show"))).isVisible();
        button(author, "Yes, with my name").click();
        assertThat(author.getByText(Pattern.compile("is shown as an example with “Week 7 log”")))
                .isVisible();
        classmate.reload();
        classmate.getByText("by Wren Castellane").click();
        Page teacher = as("quill", "/classes/1/prompt/7");
        assertThat(teacher.getByText("shown, with the name.")).isVisible();
        button(author, "Take that back").click();
        assertThat(author.getByText(Pattern.compile("is shown as an example"))).hasCount(0);
        classmate.reload();
        assertThat(classmate.getByText("An example").first()).isVisible();
        assertThat(classmate.getByText("by Wren Castellane")).hasCount(0);
        teacher.reload();
        assertThat(teacher.getByText("its author would rather not.")).isVisible();
    }
}

package org.vastporch.core.classes;

import static org.junit.jupiter.api.Assertions.*;

import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastporch.core.Refusal;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.moderation.Author;
import org.vastporch.core.moderation.HoldRules;
import org.vastporch.core.moderation.Policy;
import org.vastporch.core.writing.Tool;

class ClassRulesTest {

    private final ClassRules rules = new ClassRules(
            Audience.SCHOOL,
            true,
            Policy.BEFORE,
            Policy.AFTER,
            3,
            List.of(" slug ", "", "  ", "slug", "frog"),
            false,
            true,
            2,
            true,
            Set.of(Tool.PICTURE),
            true,
            2);

    private static ClassRules with(int trustAfter, int firstPosts) {
        return with(trustAfter, firstPosts, 1);
    }

    private static ClassRules with(int trustAfter, int firstPosts, int apart) {
        return new ClassRules(
                Audience.MY_CLASS,
                false,
                Policy.BEFORE,
                Policy.BEFORE,
                trustAfter,
                List.of(),
                true,
                false,
                firstPosts,
                false,
                Tool.ALL,
                false,
                apart);
    }

    @Test
    void twoReadingsMayLieSoFarApart() {
        assertEquals(0, with(0, 0, 0).apart());
        assertEquals(7, with(0, 0, 7).apart());
        for (int apart : new int[] {-1, 8})
            assertEquals(
                    "apart",
                    assertThrows(Refusal.class, () -> with(0, 0, apart)).field());
    }

    @ParameterizedTest
    @CsvSource({
        "0, 0, ''",
        "100, 20, ''",
        "-1, 0, trustAfter",
        "101, 0, trustAfter",
        "0, -1, firstPosts",
        "0, 21, firstPosts"
    })
    void staysWithinBounds(int trustAfter, int firstPosts, String field) {
        if (field.isEmpty())
            assertEquals(trustAfter, with(trustAfter, firstPosts).trustAfter());
        else
            assertEquals(
                    field,
                    assertThrows(Refusal.class, () -> with(trustAfter, firstPosts))
                            .field());
    }

    @Test
    void theWordListIsTidiedAndKnownToTheStaffAlone() {
        assertEquals(List.of("slug", "frog"), rules.heldWords());
        assertEquals(List.of(), rules.withoutWords().heldWords());
        assertEquals(rules.tools(), rules.withoutWords().tools());
        assertEquals(rules.firstPosts(), rules.withoutWords().firstPosts());
    }

    @Test
    void staffFindEveryTool() {
        assertEquals(Tool.ALL, rules.toolsOf(true));
        assertEquals(Set.of(Tool.PICTURE), rules.toolsOf(false));
    }

    @Test
    void holdsWhatItSays() {
        assertEquals(
                new HoldRules(List.of("slug", "frog"), List.of("Wren Castellane"), false, true, 2),
                rules.holding(List.of("Wren Castellane")));
    }

    @Test
    void aRuleOfTheBlogComesBeforeThatOfTheClass() {
        assertEquals(new Policy.InForce(Policy.BEFORE, Policy.Source.CLASS), rules.forPosts(Author.OUTSIDE, null));
        assertEquals(new Policy.InForce(Policy.AFTER, Policy.Source.CLASS), rules.forComments(Author.OUTSIDE, null));
        assertEquals(new Policy.InForce(Policy.NONE, Policy.Source.BLOG), rules.forPosts(Author.OUTSIDE, Policy.NONE));
        assertEquals(
                new Policy.InForce(Policy.NONE, Policy.Source.BLOG), rules.forComments(Author.OUTSIDE, Policy.NONE));
    }

    @Test
    void aNewClassIsSafe() {
        assertFalse(ClassRules.SAFE.open());
        assertEquals(Audience.MY_CLASS, ClassRules.SAFE.ceiling());
        assertEquals(Policy.BEFORE, ClassRules.SAFE.postPolicy());
        assertEquals(Policy.BEFORE, ClassRules.SAFE.commentPolicy());
        assertEquals(0, ClassRules.SAFE.trustAfter());
    }
}

package org.vastporch.core.prompts;

import static org.junit.jupiter.api.Assertions.*;

import java.math.BigDecimal;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastporch.core.Refusal;
import org.vastporch.core.comments.CommentsAsked;
import org.vastporch.core.marking.Allowance;
import org.vastporch.core.marking.LateRule;
import org.vastporch.core.writing.HandIn;

class PromptTest {

    private static final Instant DUE = Instant.parse("2026-11-22T20:00:00Z");
    private static final Duration DAY = Duration.ofDays(1);

    /** What a prompt of this test has that is not as usual. */
    private record Wish(
            String title,
            Instant opens,
            Duration grace,
            @Nullable Instant closes,
            String points,
            String floor,
            int comments,
            Answers answers) {

        static final Wish USUAL =
                new Wish("Log", DUE.minus(DAY.multipliedBy(7)), DAY, null, "18", "0", 0, Answers.ONE_POST);

        Wish points(String points, String floor) {
            return new Wish(title, opens, grace, closes, points, floor, comments, answers);
        }

        Wish times(Instant opens, Duration grace, @Nullable Instant closes) {
            return new Wish(title, opens, grace, closes, points, floor, comments, answers);
        }

        Wish answers(int comments, Answers answers) {
            return new Wish(title, opens, grace, closes, points, floor, comments, answers);
        }

        Wish title(String title) {
            return new Wish(title, opens, grace, closes, points, floor, comments, answers);
        }

        Prompt prompt() {
            return prompt(1, null, null);
        }

        Prompt prompt(long id, @Nullable String tag, @Nullable Instant commentsDue) {
            return prompt(id, tag, DUE, commentsDue, Reviews.NONE);
        }

        Prompt prompt(long id, @Nullable String tag, Instant due, @Nullable Instant commentsDue, Reviews reviews) {
            return new Prompt(
                    id,
                    1,
                    title,
                    "",
                    List.of(),
                    tag,
                    opens,
                    due,
                    grace,
                    new LateRule(BigDecimal.ZERO, BigDecimal.ZERO, new BigDecimal(floor)),
                    new BigDecimal(points),
                    1,
                    new HandIn.Asked(0, 0, 0, 0, 0, 0, comments),
                    commentsDue,
                    0,
                    "",
                    "",
                    answers,
                    closes,
                    null,
                    null,
                    false,
                    null,
                    reviews,
                    1);
        }
    }

    private static Answers answers(int posts, List<Long> named, Answers.Also also) {
        return new Answers(posts, false, false, false, named, also, null, null);
    }

    private static void refused(String field, String code, Wish wish) {
        Refusal refusal = assertThrows(Refusal.class, () -> wish.prompt().checked());
        assertEquals(field + " " + code, refusal.field() + " " + refusal.code());
    }

    @Test
    void whatCannotBeSetSaysWhy() {
        Wish usual = Wish.USUAL;
        assertEquals(usual.prompt(), usual.prompt().checked());
        refused("title", "title-missing", usual.title(""));
        refused("title", "title-too-long", usual.title("x".repeat(161)));
        usual.title("x".repeat(160)).prompt().checked();
        refused("due", "due-before-opening", usual.times(DUE, DAY, null));
        refused("closes", "closes-before-due", usual.times(DUE.minus(DAY), DAY, DUE.minusSeconds(1)));
        usual.times(DUE.minus(DAY), DAY, DUE).prompt().checked();
        refused("graceHours", "grace-range", usual.times(DUE.minus(DAY), Duration.ofHours(1441), null));
        refused("graceHours", "grace-range", usual.times(DUE.minus(DAY), Duration.ofHours(-1), null));
        usual.times(DUE.minus(DAY), Duration.ofHours(1440), null).prompt().checked();
        refused("points", "points-range", usual.points("-1", "0"));
        refused("points", "points-range", usual.points("10000.0001", "0"));
        refused("points", "points-places", usual.points("3.33333333", "0"));
        usual.points("10000", "0").prompt().checked();
        usual.points("3.3333", "3.3333").prompt().checked();
        refused("lateFloor", "late-floor", usual.points("3", "3.5"));
        refused("askedPosts", "posts-range", usual.answers(0, answers(21, List.of(), Answers.Also.NOTHING)));
        refused("askedPosts", "posts-range", usual.answers(0, answers(-1, List.of(), Answers.Also.NOTHING)));
        refused("askedPosts", "nothing-asked", usual.answers(0, answers(0, List.of(), Answers.Also.NOTHING)));
        refused("commentOn", "no-comments-asked", usual.answers(0, answers(1, List.of(7L), Answers.Also.NOTHING)));
        List<Long> many = new ArrayList<>();
        for (long id = 1; id <= 41; id++) many.add(id);
        refused("commentOn", "too-many-named", usual.answers(2, answers(0, many, Answers.Also.NOTHING)));
        usual.answers(2, answers(0, many.subList(0, 40), Answers.Also.NOTHING))
                .prompt()
                .checked();
    }

    private static Prompt dated(Instant due, @Nullable Instant commentsDue, @Nullable Instant reviewsDue) {
        Peers peers = reviewsDue == null
                ? null
                : new Peers(2, Peers.When.BY_HAND, null, reviewsDue, true, true, List.of(), List.of(), 0, true);
        return Wish.USUAL.prompt(1, null, due, commentsDue, new Reviews(Reviews.Self.NOT_ASKED, 0, peers));
    }

    @Test
    void datesMoveForPostsCommentsAndReviews() {
        Prompt before = dated(DUE, DUE.plus(DAY), DUE.plus(DAY));
        assertFalse(dated(DUE, DUE.plus(DAY), DUE.plus(DAY)).movesDatesOf(before));
        assertFalse(dated(DUE, null, null).movesDatesOf(dated(DUE, null, null)));
        assertTrue(dated(DUE.plus(DAY), DUE.plus(DAY), DUE.plus(DAY)).movesDatesOf(before));
        assertTrue(dated(DUE, null, DUE.plus(DAY)).movesDatesOf(before));
        assertTrue(dated(DUE, DUE.plus(DAY), DUE.plus(DAY.multipliedBy(2))).movesDatesOf(before));
        assertTrue(dated(DUE, DUE.plus(DAY), null).movesDatesOf(before));
    }

    @Test
    void aDateOfOnesOwnIsNotCutByClosing() {
        Prompt prompt = Wish.USUAL.times(DUE.minus(DAY), DAY, DUE.plus(DAY)).prompt();
        Allowance later = new Allowance(DUE.plus(DAY.multipliedBy(3)), false, false);
        assertFalse(prompt.isClosed(DUE.plus(DAY), Allowance.NONE), "closing is the last moment that is open");
        assertTrue(prompt.isClosed(DUE.plus(DAY).plusMillis(1), Allowance.NONE));
        assertFalse(prompt.isClosed(DUE.plus(DAY.multipliedBy(4)), later));
        assertTrue(prompt.isClosed(DUE.plus(DAY.multipliedBy(4)).plusMillis(1), later));
    }

    /** What a student chose stays from the moment at which a paper is late. */
    @Test
    void whichPostsCountIsChosenWhileThereIsTime() {
        Prompt prompt = Wish.USUAL.prompt();
        assertFalse(prompt.isChoosable(prompt.opens().minusMillis(1), Allowance.NONE));
        assertTrue(prompt.isChoosable(prompt.opens(), Allowance.NONE));
        assertTrue(prompt.isChoosable(DUE.plus(DAY), Allowance.NONE));
        assertFalse(prompt.isChoosable(DUE.plus(DAY).plusMillis(1), Allowance.NONE));
        assertTrue(prompt.isChoosable(DUE.plus(DAY).plusMillis(1), new Allowance(DUE.plusSeconds(1), false, false)));
    }

    @Test
    void commentsThatAreTheWholeTaskCountUntilItWouldBeLate() {
        Wish alone = Wish.USUAL.answers(2, answers(0, List.of(), Answers.Also.NOTHING));
        CommentsAsked asked = alone.prompt().commentsAsked(Allowance.NONE);
        assertEquals(DUE.plus(DAY), asked.due());
        assertTrue(asked.counts(new CommentsAsked.Given(DUE.plus(DAY), 1)));
        assertFalse(asked.counts(new CommentsAsked.Given(DUE.plus(DAY).plusMillis(1), 1)));
        Instant own = DUE.plus(DAY.multipliedBy(5));
        assertEquals(
                own.plus(DAY),
                alone.prompt().commentsAsked(new Allowance(own, false, false)).due());
        assertEquals(
                DUE, alone.prompt(1, null, DUE).commentsAsked(Allowance.NONE).due());
        assertNull(
                Wish.USUAL
                        .answers(2, Answers.ONE_POST)
                        .prompt()
                        .commentsAsked(Allowance.NONE)
                        .due(),
                "beside posts they always count");
    }

    @ParameterizedTest
    @CsvSource(nullValues = "-", textBlock = """
                    # tags,     category, by tag, by category, by time, found
                    Log,        -,        true,   -,           false,   TAG
                    LOG,        -,        true,   -,           false,   TAG
                    plot six,   -,        true,   -,           false,   TAG
                    other,      -,        true,   -,           false,   -
                    Log,        -,        false,  -,           false,   -
                    other,      4,        false,  4,           false,   CATEGORY
                    other,      5,        false,  4,           false,   -
                    other,      -,        false,  4,           false,   -
                    Log,        4,        true,   4,           true,    TAG
                    other,      4,        true,   4,           true,    CATEGORY
                    other,      -,        false,  -,           true,    TIME
                    """)
    void anOwnPostAnswersByWhatThePromptSays(
            String tag,
            @Nullable Long category,
            boolean byTag,
            @Nullable Long byCategory,
            boolean byTime,
            PromptMatch.@Nullable By found) {
        Prompt prompt = Wish.USUAL
                .answers(0, answers(1, List.of(), new Answers.Also(byCategory, byTag, byTime)))
                .prompt(1, "Plot six", null);
        assertEquals(
                Optional.ofNullable(found).map(by -> new PromptMatch.Own(1, by)),
                PromptMatch.own(List.of(tag), category, DUE, List.of(prompt)));
        assertEquals(
                Optional.empty(),
                PromptMatch.own(List.of(tag), category, prompt.opens().minusMillis(1), List.of(prompt)),
                "before it opens nothing answers it");
    }

    @Test
    void timeAloneTellsNothingOfTwoPrompts() {
        Wish byTime = Wish.USUAL.answers(0, answers(1, List.of(), new Answers.Also(null, false, true)));
        List<Prompt> two = List.of(byTime.prompt(1, null, null), byTime.prompt(2, null, null));
        assertEquals(Optional.empty(), PromptMatch.own(List.of(), null, DUE, two));
        List<Prompt> oneAndAnother = List.of(byTime.prompt(1, null, null), Wish.USUAL.prompt(2, null, null));
        assertEquals(
                Optional.of(new PromptMatch.Own(1, PromptMatch.By.TIME)),
                PromptMatch.own(List.of(), null, DUE, oneAndAnother));
        Wish comments = Wish.USUAL.answers(2, answers(0, List.of(), new Answers.Also(null, true, true)));
        assertEquals(Optional.empty(), PromptMatch.own(List.of("Log"), null, DUE, List.of(comments.prompt())));
    }

    @Test
    void aPostMatchesByTagElseByTheOnlyOpenPrompt() {
        var first = new PromptMatch.Candidate(1, "Week 6 log", "plot-6", DUE.minusSeconds(100), DUE);
        var second = new PromptMatch.Candidate(2, "Oars", null, DUE.minusSeconds(100), null);
        var both = List.of(first, second);
        assertEquals(
                new PromptMatch.Match(first, PromptMatch.By.TAG),
                PromptMatch.find(List.of("Plot 6"), DUE, both).orElseThrow());
        assertEquals(
                new PromptMatch.Match(second, PromptMatch.By.TAG),
                PromptMatch.find(List.of("OARS"), DUE.minusSeconds(9), both).orElseThrow());
        assertEquals(
                new PromptMatch.Match(second, PromptMatch.By.TIME),
                PromptMatch.find(List.of(), DUE, both).orElseThrow());
        assertTrue(PromptMatch.find(List.of(), DUE.minusSeconds(9), both).isEmpty());
    }
}

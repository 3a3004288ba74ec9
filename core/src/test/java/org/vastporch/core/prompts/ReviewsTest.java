package org.vastporch.core.prompts;

import static org.junit.jupiter.api.Assertions.*;

import java.math.BigDecimal;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastporch.core.Refusal;
import org.vastporch.core.prompts.Reviews.Self;
import org.vastporch.core.rubrics.Rubric;

class ReviewsTest {

    private static final Instant DUE = Instant.parse("2026-11-29T20:00:00Z");

    private static Peers peers(int each, Peers.When when, Instant at, Instant due, int share, String... questions) {
        return new Peers(each, when, at, due, true, true, List.of(), List.of(questions), share, true);
    }

    private static Peers plain(int each, int share) {
        return peers(each, Peers.When.BY_HAND, null, DUE.plusSeconds(1), share);
    }

    @ParameterizedTest
    @CsvSource({
        "NOT_ASKED, 0, false, false, ''",
        "NOT_ASKED, 0, false, true, ''",
        "NOT_ASKED, 1, true, false, selfShare share-of-nobody",
        "NOT_ASKED, -1, true, false, selfShare share-range",
        "ASKED, 0, true, false, ''",
        "ASKED, 100, true, false, ''",
        "ASKED, 101, true, false, selfShare share-range",
        "ASKED, 0, false, false, self no-rubric",
        "FIRST, 20, true, false, ''",
        "FIRST, 0, true, true, self rubric-hidden",
    })
    void whatAPromptCanAskFor(Self self, int share, boolean hasRubric, boolean hidden, String refused) {
        Reviews wanted = new Reviews(self, share);
        if (refused.isEmpty()) {
            assertSame(wanted, wanted.checked(hasRubric, hidden, DUE, 1));
            return;
        }
        Refusal refusal = assertThrows(Refusal.class, () -> wanted.checked(hasRubric, hidden, DUE, 1));
        assertEquals(refused, refusal.field() + " " + refusal.code());
    }

    @ParameterizedTest
    @CsvSource({
        "1, 0, 0, true, false, 1, ''",
        "6, 100, 0, true, false, 20, ''",
        "6, 60, 40, true, false, 1, ''",
        "0, 0, 0, true, false, 1, each each-range",
        "7, 0, 0, true, false, 1, each each-range",
        "1, -1, 0, true, false, 1, peersShare share-range",
        "1, 101, 0, true, false, 1, peersShare share-range",
        "1, 61, 40, true, false, 1, peersShare shares-range",
        "1, 0, 0, false, false, 1, peers no-rubric",
        "1, 0, 0, true, true, 1, peers rubric-hidden",
        "1, 0, 0, true, false, 0, peers no-posts",
    })
    void whatClassmatesCanBeAskedFor(
            int each, int share, int selfShare, boolean hasRubric, boolean hidden, int posts, String refused) {
        Reviews wanted = new Reviews(selfShare > 0 ? Self.ASKED : Self.NOT_ASKED, selfShare, plain(each, share));
        if (refused.isEmpty()) {
            assertSame(wanted, wanted.checked(hasRubric, hidden, DUE, posts));
            return;
        }
        Refusal refusal = assertThrows(
                Refusal.class, () -> (selfShare > 0 ? wanted : new Reviews(Self.NOT_ASKED, 0, plain(each, share)))
                        .checked(hasRubric, hidden, DUE, posts));
        assertEquals(refused, refusal.field() + " " + refusal.code());
    }

    @Test
    void reviewsAreDueAfterThePapersAndAfterTheyAreGivenOut() {
        Instant late = DUE.plusSeconds(60);
        assertRefused("due-before-papers", peers(1, Peers.When.BY_HAND, null, DUE, 0));
        assertRefused("given-at-missing", peers(1, Peers.When.AT, null, late, 0));
        assertRefused("due-before-giving-out", peers(1, Peers.When.AT, late, late, 0));
        Peers fine = peers(1, Peers.When.AT, late.minusMillis(1), late, 0);
        assertSame(fine, fine.checked(DUE));
    }

    private static void assertRefused(String code, Peers peers) {
        assertEquals(code, assertThrows(Refusal.class, () -> peers.checked(DUE)).code());
    }

    @Test
    void questionsAreFewAndShort() {
        Instant due = DUE.plusSeconds(1);
        Peers most = peers(1, Peers.When.BY_HAND, null, due, 0, "1", "2", "3", "4", "5", "6", "7", "8", "  ");
        assertEquals(8, most.checked(DUE).questions().size(), "an empty one is none");
        assertRefused(
                "too-many", peers(1, Peers.When.BY_HAND, null, due, 0, "1", "2", "3", "4", "5", "6", "7", "8", "9"));
        peers(1, Peers.When.BY_HAND, null, due, 0, "q".repeat(300)).checked(DUE);
        assertRefused("question-too-long", peers(1, Peers.When.BY_HAND, null, due, 0, "q".repeat(301)));
    }

    @Test
    void papersAreGivenOutAsThePromptSays() {
        Instant at = DUE.plusSeconds(60);
        Peers timed = peers(1, Peers.When.AT, at, at.plusSeconds(60), 0);
        assertFalse(timed.areGivenOut(at.minusMillis(1), true));
        assertTrue(timed.areGivenOut(at, false));
        assertFalse(plain(1, 0).areGivenOut(at, true));
        Peers all = peers(1, Peers.When.ALL_IN, at, at, 0);
        assertNull(all.at(), "a time belongs to AT alone");
        assertFalse(all.areGivenOut(at, false));
        assertTrue(all.areGivenOut(DUE.minusSeconds(99), true));
    }

    @Test
    void aRoundIsOverTwoWeeksAfterItIsDue() {
        Peers peers = plain(1, 0);
        assertFalse(peers.isOver(peers.due().plus(Peers.LATEST)));
        assertTrue(peers.isOver(peers.due().plus(Peers.LATEST).plusMillis(1)));
    }

    @Test
    void whoHasNotSentTheirsIsRemindedOnTheDayBefore() {
        Peers peers = plain(1, 0);
        assertFalse(peers.isTimeToRemind(peers.due().minus(Duration.ofDays(1)).minusMillis(1)));
        assertTrue(peers.isTimeToRemind(peers.due().minus(Duration.ofDays(1))));
        assertTrue(peers.isTimeToRemind(peers.due().minusMillis(1)));
        assertFalse(peers.isTimeToRemind(peers.due()));
    }

    @Test
    void onlyWhatWasChosenOfARubricIsJudged() {
        List<Rubric.Level> levels =
                List.of(new Rubric.Level("low", BigDecimal.ZERO, ""), new Rubric.Level("high", BigDecimal.ONE, ""));
        Rubric rubric = new Rubric(List.of(
                new Rubric.Criterion("a", "Evidence", BigDecimal.ONE, levels),
                new Rubric.Criterion("b", "Voice", BigDecimal.ONE, levels)));
        assertEquals(rubric, plain(1, 0).asked(rubric));
        Peers one =
                new Peers(1, Peers.When.BY_HAND, null, DUE, false, false, List.of("b", "gone"), List.of(), 0, false);
        assertEquals(
                List.of("Voice"),
                one.asked(rubric).criteria().stream()
                        .map(Rubric.Criterion::name)
                        .toList());
        Peers none = new Peers(1, Peers.When.BY_HAND, null, DUE, false, false, List.of("gone"), List.of(), 0, false);
        assertEquals(rubric, none.asked(rubric), "nothing that was chosen is left");
    }
}

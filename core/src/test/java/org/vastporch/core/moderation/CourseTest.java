package org.vastporch.core.moderation;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNotNull;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.vastporch.core.moderation.Course.Circumstances;
import org.vastporch.core.moderation.ModerationTable.Step;

class CourseTest {

    private static final Instant MONDAY = Instant.parse("2026-11-23T09:00:00Z");
    private static final Instant TUESDAY = Instant.parse("2026-11-24T09:00:00Z");
    private static final Instant FRIDAY = Instant.parse("2026-11-27T09:00:00Z");

    private static Circumstances on(Instant now, Policy policy, boolean held) {
        return new Circumstances(now, policy, held, false, false);
    }

    private static Course handedIn(Policy policy, boolean held) {
        return Course.draft().handedIn(null, on(MONDAY, policy, held)).orElseThrow();
    }

    private static Course decided(Course course, Step step, Instant at) {
        return course.decided(step, Circumstances.at(at)).orElseThrow();
    }

    @Test
    void whatWaitsWaitsSinceItWasHandedInAndGoesUpWhenItIsApproved() {
        Course waits = handedIn(Policy.BEFORE, false);
        assertEquals(State.WAITING, waits.standing().state());
        assertEquals(MONDAY, waits.waitingSince());
        assertEquals(MONDAY, waits.handedInAt());
        assertNull(waits.publishedAt());
        Course up = decided(waits, Step.APPROVE, TUESDAY);
        assertEquals(new Course(new Standing(State.PUBLISHED, 1, null), null, TUESDAY, MONDAY, null), up);
    }

    @Test
    void approvingAgainMakesNobodyLateNorAnythingNew() {
        Course mended = decided(handedIn(Policy.BEFORE, false), Step.APPROVE, MONDAY)
                .written(false, true, false)
                .orElseThrow();
        Course again = mended.handedIn(null, on(TUESDAY, Policy.BEFORE, false)).orElseThrow();
        assertEquals(TUESDAY, again.waitingSince());
        assertEquals(MONDAY, again.handedInAt(), "the first time counts");
        Course up = decided(again, Step.APPROVE, FRIDAY);
        assertEquals(MONDAY, up.publishedAt(), "it was up on Monday already");
        assertEquals(2, up.standing().live());
    }

    @Test
    void whatIsLookedAtAfterwardsIsUpAndInThePile() {
        Course up = handedIn(Policy.AFTER, false);
        assertEquals(State.PUBLISHED, up.standing().state());
        assertEquals(MONDAY, up.waitingSince());
        assertTrue(up.inPile());
        Course goesOn = up.written(false, true, false).orElseThrow();
        assertEquals(MONDAY, goesOn.waitingSince(), "it stays there while its author works on the next version");
        assertNull(decided(goesOn, Step.APPROVE, TUESDAY).waitingSince());
        assertFalse(handedIn(Policy.NONE, false).inPile());
        assertEquals(State.WAITING, handedIn(Policy.NONE, true).standing().state(), "what is held waits all the same");
    }

    @Test
    void anAuthorWhoTakesBackWhatWaitsTakesItOutOfThePile() {
        assertNull(handedIn(Policy.BEFORE, false)
                .written(false, true, false)
                .orElseThrow()
                .waitingSince());
        Course mended =
                handedIn(Policy.BEFORE, false).written(true, false, false).orElseThrow();
        assertEquals(MONDAY, mended.waitingSince(), "what staff mend goes on waiting");
        assertEquals(2, mended.standing().newest());
        assertEquals(
                2, mended.written(true, true, false).orElseThrow().standing().newest());
        assertEquals(
                3, mended.written(true, true, true).orElseThrow().standing().newest());
        assertEquals(
                3, mended.written(true, false, false).orElseThrow().standing().newest());
    }

    @Test
    void aVersionGoesOnUnlessAnotherHandOrTimeBeginsANewOne() {
        assertEquals(
                1,
                Course.draft()
                        .written(false, true, false)
                        .orElseThrow()
                        .standing()
                        .newest());
        assertEquals(
                2,
                Course.draft()
                        .written(false, true, true)
                        .orElseThrow()
                        .standing()
                        .newest());
        assertEquals(
                2,
                Course.draft()
                        .written(false, false, false)
                        .orElseThrow()
                        .standing()
                        .newest());
        Course up = decided(handedIn(Policy.BEFORE, false), Step.APPROVE, MONDAY);
        assertEquals(
                2,
                up.written(false, false, true).orElseThrow().standing().newest(),
                "a version that begins anyway begins once");
    }

    @Test
    void whatIsSetForATimeGoesUpThen() {
        Course set =
                Course.draft().handedIn(FRIDAY, on(MONDAY, Policy.NONE, false)).orElseThrow();
        assertEquals(State.SCHEDULED, set.standing().state());
        assertNull(set.waitingSince());
        assertTrue(set.due(on(TUESDAY, Policy.NONE, false)).isEmpty());
        Course up = set.due(on(FRIDAY, Policy.NONE, false)).orElseThrow();
        assertEquals(FRIDAY, up.publishedAt());
        assertNull(up.waitingSince());
        Course late = set.due(on(FRIDAY.plus(Duration.ofHours(3)), Policy.AFTER, false))
                .orElseThrow();
        assertEquals(FRIDAY, late.publishedAt(), "it counts as published at the time that was asked for");
        assertEquals(FRIDAY.plus(Duration.ofHours(3)), late.waitingSince());
        assertTrue(
                handedIn(Policy.NONE, false).due(on(FRIDAY, Policy.NONE, false)).isEmpty());
    }

    @Test
    void whatIsApprovedBeforeItsTimeGoesUpThenAndAfterItAtOnce() {
        Course waits = Course.draft()
                .handedIn(FRIDAY, on(MONDAY, Policy.BEFORE, false))
                .orElseThrow();
        Course early = decided(waits, Step.APPROVE, TUESDAY);
        assertEquals(State.SCHEDULED, early.standing().state());
        assertNull(early.publishedAt());
        assertNull(early.waitingSince());
        Course late = decided(waits, Step.APPROVE, FRIDAY);
        assertEquals(State.PUBLISHED, late.standing().state());
        assertEquals(FRIDAY, late.publishedAt());
        // A comment that is up already does not come down for a time.
        Course up = new Course(new Standing(State.HIDDEN, 1, null), MONDAY, MONDAY, MONDAY, FRIDAY);
        assertEquals(
                State.PUBLISHED, decided(up, Step.APPROVE, TUESDAY).standing().state());
    }

    @Test
    void whatMayNotGoUpAnyMoreWaitsForAPerson() {
        Course set =
                Course.draft().handedIn(FRIDAY, on(MONDAY, Policy.NONE, false)).orElseThrow();
        Course waits = set.heldBack(FRIDAY);
        assertEquals(State.WAITING, waits.standing().state());
        assertEquals(FRIDAY, waits.waitingSince());
        assertNull(waits.publishedAt());
    }

    @Test
    void anOutsidePostStandsAtTheDayOnWhichItWasWritten() {
        Circumstances outside = new Circumstances(FRIDAY, Policy.NONE, false, false, true);
        Course up = Course.draft().writtenOn(MONDAY).handedIn(null, outside).orElseThrow();
        assertEquals(MONDAY, up.publishedAt());
        assertEquals(MONDAY, up.writtenOn(TUESDAY).handedInAt(), "the first day that was said stays");
        Course waits = Course.draft()
                .writtenOn(MONDAY)
                .handedIn(null, new Circumstances(TUESDAY, Policy.BEFORE, false, false, true))
                .orElseThrow();
        assertEquals(MONDAY, waits.decided(Step.APPROVE, outside).orElseThrow().publishedAt());
    }

    @Test
    void aReportBringsATextIntoThePileAndDownIfTheClassWantsThat() {
        Course up = handedIn(Policy.NONE, false);
        assertEquals(TUESDAY, up.reported(false, TUESDAY).waitingSince());
        assertEquals(State.PUBLISHED, up.reported(false, TUESDAY).standing().state());
        Course down = up.reported(true, TUESDAY);
        assertEquals(State.HIDDEN, down.standing().state());
        assertTrue(down.inPile());
        assertEquals(
                MONDAY, handedIn(Policy.AFTER, false).reported(false, TUESDAY).waitingSince());
        Course shown = decided(down, Step.APPROVE, FRIDAY);
        assertEquals(MONDAY, shown.publishedAt());
        assertNull(shown.waitingSince());
    }

    @Test
    void whatComesOutOfTheBinIsWhereItWasAndInThePileIfItBelongsThere() {
        Circumstances reported = new Circumstances(FRIDAY, Policy.NONE, false, true, false);
        Course binned = handedIn(Policy.BEFORE, false).moved(Step.BIN, reported).orElseThrow();
        assertNull(binned.waitingSince());
        assertFalse(binned.inPile());
        Course back = binned.restored(State.WAITING, reported).orElseThrow();
        assertEquals(FRIDAY, back.waitingSince());
        Course up = handedIn(Policy.NONE, false).moved(Step.BIN, reported).orElseThrow();
        assertNull(up.waitingSince(), "nobody is asked to look into the bin");
        assertEquals(
                FRIDAY, up.restored(State.PUBLISHED, reported).orElseThrow().waitingSince());
        assertNull(up.restored(State.PUBLISHED, Circumstances.at(FRIDAY))
                .orElseThrow()
                .waitingSince());
        assertNull(up.restored(State.HIDDEN, reported).orElseThrow().waitingSince());
        assertTrue(handedIn(Policy.NONE, false).restored(State.DRAFT, reported).isEmpty());
    }

    @Test
    void aDecisionThatIsTakenBackLeavesNothingBehind() {
        Course waits = handedIn(Policy.BEFORE, false);
        Course up = decided(waits, Step.APPROVE, TUESDAY);
        assertEquals(waits, up.backTo(waits.standing(), waits.waitingSince(), waits.publishedAt()));
    }

    @Test
    void itIsSaidBeforehandWhetherATextWillWait() {
        for (Policy policy : Policy.values())
            for (boolean held : new boolean[] {true, false})
                assertEquals(
                        handedIn(policy, held).standing().state() == State.WAITING, Course.wouldWait(policy, held));
    }

    private interface Law {
        void holds(Course before, String step, Course after, Instant now);
    }

    /** Long random lives of texts, with every step at any time. */
    private static void onRandomLives(Law law) {
        Random chance = new Random(29);
        for (int life = 0; life < 2_000; life++) {
            Course course = Course.draft();
            State thrownFrom = null;
            Instant now = MONDAY;
            for (int i = 0; i < 40; i++) {
                now = now.plus(Duration.ofHours(chance.nextInt(1, 30)));
                Circumstances of = new Circumstances(
                        now,
                        Policy.values()[chance.nextInt(3)],
                        chance.nextBoolean(),
                        chance.nextBoolean(),
                        life % 5 == 0);
                Instant at = chance.nextInt(3) > 0 ? null : now.plus(Duration.ofHours(chance.nextInt(1, 90)));
                String step = List.of("write", "mend", "hand in", "decide", "report", "due", "hold", "move", "restore")
                        .get(chance.nextInt(9));
                Optional<Course> after = taken(course, step, at, of, thrownFrom, chance);
                if (after.isEmpty()) continue;
                if (after.get().standing().state() == State.BINNED)
                    thrownFrom = course.standing().state();
                law.holds(course, step, after.get(), now);
                course = after.get();
            }
        }
    }

    private static Optional<Course> taken(
            Course course, String step, @Nullable Instant at, Circumstances of, @Nullable State from, Random chance) {
        State state = course.standing().state();
        boolean up = course.standing().live() != null && state != State.HIDDEN && state != State.BINNED;
        return switch (step) {
            case "write" -> course.written(false, chance.nextBoolean(), chance.nextBoolean());
            case "mend" ->
                state == State.WAITING
                        ? course.written(true, chance.nextBoolean(), chance.nextBoolean())
                        : Optional.empty();
            case "hand in" -> course.handedIn(at, of);
            case "decide" ->
                course.decided(
                        List.of(Step.APPROVE, Step.RETURN, Step.HIDE, Step.BIN).get(chance.nextInt(4)), of);
            case "report" ->
                up && !state.waits() ? Optional.of(course.reported(chance.nextBoolean(), of.now())) : Optional.empty();
            case "due" -> course.due(of);
            case "hold" -> state == State.SCHEDULED ? Optional.of(course.heldBack(of.now())) : Optional.empty();
            case "move" -> course.moved(chance.nextBoolean() ? Step.BIN : Step.SHOW, of);
            default -> course.restored(from, of);
        };
    }

    @Test
    void whenItWentUpAndWhenItWasHandedInNeverChange() {
        onRandomLives((before, step, after, now) -> {
            if (before.publishedAt() != null) assertEquals(before.publishedAt(), after.publishedAt(), step);
            if (before.handedInAt() != null) assertEquals(before.handedInAt(), after.handedInAt(), step);
        });
    }

    @Test
    void whatWaitsSaysSinceWhenAndWhatNobodyIsAskedAboutDoesNot() {
        onRandomLives((before, step, after, now) -> {
            State state = after.standing().state();
            if (state.waits()) assertNotNull(after.waitingSince(), () -> before + " " + step + " " + after);
            if (state == State.BINNED || after.standing().live() == null && !state.waits())
                assertNull(after.waitingSince(), () -> before + " " + step + " " + after);
            if (after.waitingSince() != null) assertFalse(after.waitingSince().isAfter(now));
        });
    }

    @Test
    void whatIsUpHasADayAndWhatIsSetForATimeHasOne() {
        onRandomLives((before, step, after, now) -> {
            if (after.standing().state() == State.PUBLISHED) assertNotNull(after.publishedAt(), step);
            if (after.standing().state() == State.SCHEDULED && before.standing().state() != State.SCHEDULED)
                assertTrue(after.publishAt().isAfter(now), () -> before + " " + step + " " + after);
        });
    }
}

package org.vastporch.core.moderation;

import static org.junit.jupiter.api.Assertions.*;

import java.util.HashSet;
import java.util.Objects;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.vastporch.core.moderation.ModerationTable.Step;

/** Laws of the table, on long random histories of texts. */
class ModerationLawsTest {

    private static final Set<Step> STAFF = Set.of(Step.APPROVE, Step.RETURN, Step.HIDE);

    private interface Law {
        void holds(Standing before, Step step, Policy policy, boolean held, Standing after);
    }

    private static void onRandomHistories(Law law) {
        Random random = new Random(17);
        for (int history = 0; history < 3000; history++) {
            Standing now = Standing.draft();
            State thrownFrom = null;
            for (int i = 0; i < 40; i++) {
                Step step = Step.values()[random.nextInt(Step.values().length)];
                Policy policy = Policy.values()[random.nextInt(3)];
                boolean held = random.nextBoolean();
                Optional<Standing> after = step == Step.RESTORE
                        ? ModerationTable.restored(now, thrownFrom)
                        : ModerationTable.after(now, step, policy, held);
                if (after.isEmpty()) continue;
                if (step == Step.BIN) thrownFrom = now.state();
                law.holds(now, step, policy, held, after.get());
                now = after.get();
            }
        }
    }

    @Test
    void nothingGoesUpUnlessSomebodyApprovedItOrNobodyHasTo() {
        onRandomHistories((before, step, policy, held, after) -> {
            boolean wentUp = after.live() != null && !after.live().equals(before.live());
            if (wentUp)
                assertTrue(
                        step == Step.APPROVE
                                || step == Step.PUBLISH
                                || step == Step.HAND_IN && policy != Policy.BEFORE && !held,
                        before + " " + step + " " + after);
            // What is to go up later was approved, or nobody has to look at it.
            if (after.state() == State.SCHEDULED && before.state() != State.SCHEDULED)
                assertTrue(before.state() == State.WAITING || policy != Policy.BEFORE && !held, before + " " + step);
        });
    }

    @Test
    void whatGoesUpIsTheNewestVersionAndVersionsOnlyGrow() {
        onRandomHistories((before, step, policy, held, after) -> {
            assertTrue(
                    after.newest() >= before.newest() && after.newest() <= before.newest() + 1,
                    before + " " + step + " " + after);
            if (after.live() != null && !after.live().equals(before.live()))
                assertEquals(before.newest(), after.live());
            if (after.live() != null && after.working() != null)
                assertTrue(after.live() < after.working(), after::toString);
        });
    }

    @Test
    void aVersionThatWaitsOrWasReturnedIsNeverWrittenOver() {
        onRandomHistories((before, step, policy, held, after) -> {
            if ((step == Step.SAVE || step == Step.EDIT) && before.state() != State.DRAFT)
                assertEquals(before.newest() + 1, after.newest());
        });
    }

    @Test
    void anAuthorTakesNothingDownButIntoTheBin() {
        onRandomHistories((before, step, policy, held, after) -> {
            if (!STAFF.contains(step) && before.live() != null) assertNotNull(after.live(), before + " " + step);
        });
    }

    @Test
    void everyStateCanBeReachedAndEveryRowIsUsed() {
        Set<State> reached = new HashSet<>();
        Set<Step> used = new HashSet<>();
        onRandomHistories((before, step, policy, held, after) -> {
            reached.add(after.state());
            used.add(step);
        });
        assertEquals(
                Set.of(
                        State.DRAFT,
                        State.WAITING,
                        State.PUBLISHED,
                        State.RETURNED,
                        State.SCHEDULED,
                        State.HIDDEN,
                        State.BINNED),
                reached);
        assertEquals(Step.values().length, used.size());
    }

    @Test
    void theBinChangesNeitherVersionsNorWhoDecidedAndOnlyStaffShowWhatWasHidden() {
        onRandomHistories((before, step, policy, held, after) -> {
            if (step == Step.BIN || step == Step.RESTORE)
                assertTrue(
                        Objects.equals(before.live(), after.live())
                                && Objects.equals(before.working(), after.working()),
                        before + " " + after);
            if (before.state() == State.HIDDEN && after.state() != State.HIDDEN && after.state() != State.BINNED)
                assertTrue(
                        Set.of(Step.SHOW, Step.APPROVE, Step.RETURN).contains(step), before + " " + step + " " + after);
        });
    }

    @Test
    void whatIsUpHasNoNewerVersionThatLiesNowhere() {
        onRandomHistories((before, step, policy, held, after) -> {
            if (after.state() == State.PUBLISHED) assertNull(after.working(), before + " " + step + " " + after);
        });
    }
}

package org.vastporch.core.moderation;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Duration;
import java.time.LocalTime;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastporch.core.moderation.ModerationTable.Step;

class ModerationTableTest {

    /** A standing as "STATE live working", with - for none. */
    private static String text(Standing s) {
        return s.state() + " " + (s.live() == null ? "-" : s.live()) + " " + (s.working() == null ? "-" : s.working());
    }

    private static Standing standing(String text) {
        String[] parts = text.split(" ");
        return new Standing(
                State.valueOf(parts[0]),
                parts[1].equals("-") ? null : Integer.valueOf(parts[1]),
                parts[2].equals("-") ? null : Integer.valueOf(parts[2]));
    }

    @ParameterizedTest
    @CsvSource({
        // step, policy, held, before, after
        "SAVE,    BEFORE, false, DRAFT - 1,     DRAFT - 1",
        "SAVE,    BEFORE, false, WAITING - 1,   DRAFT - 2",
        "SAVE,    BEFORE, false, RETURNED - 1,  DRAFT - 2",
        "SAVE,    BEFORE, false, PUBLISHED 1 -, DRAFT 1 2",
        "SAVE,    BEFORE, false, DRAFT 1 2,     DRAFT 1 2",
        "EDIT,    BEFORE, false, WAITING 1 2,   WAITING 1 3",
        "HAND_IN, BEFORE, false, DRAFT - 1,     WAITING - 1",
        "HAND_IN, BEFORE, true,  DRAFT - 1,     WAITING - 1",
        "HAND_IN, AFTER,  false, DRAFT - 1,     PUBLISHED 1 -",
        "HAND_IN, AFTER,  true,  DRAFT - 1,     WAITING - 1",
        "HAND_IN, NONE,   false, DRAFT - 1,     PUBLISHED 1 -",
        "HAND_IN, NONE,   true,  DRAFT - 1,     WAITING - 1",
        "HAND_IN, NONE,   false, RETURNED - 2,  PUBLISHED 2 -",
        "HAND_IN, BEFORE, false, DRAFT 1 2,     WAITING 1 2",
        "APPROVE, BEFORE, true,  WAITING - 1,   PUBLISHED 1 -",
        "APPROVE, BEFORE, false, WAITING 1 2,   PUBLISHED 2 -",
        "APPROVE, AFTER,  false, PUBLISHED 1 -, PUBLISHED 1 -",
        "RETURN,  BEFORE, false, WAITING - 1,   RETURNED - 1",
        "RETURN,  BEFORE, false, WAITING 1 2,   RETURNED 1 2",
        "RETURN,  AFTER,  false, PUBLISHED 1 -, RETURNED - 1",
        "SCHEDULE, BEFORE, false, WAITING 1 2,  SCHEDULED 1 2",
        "SCHEDULE, NONE,  false, DRAFT - 1,     SCHEDULED - 1",
        "PUBLISH, BEFORE, true,  SCHEDULED 1 2, PUBLISHED 2 -",
        "RETURN,  BEFORE, false, SCHEDULED - 1, RETURNED - 1",
        "SAVE,    NONE,   false, SCHEDULED 1 2, DRAFT 1 3",
        "HIDE,    BEFORE, false, WAITING 1 2,   HIDDEN 1 2",
        "HIDE,    NONE,   false, PUBLISHED 1 -, HIDDEN 1 -",
        "REPORT,  NONE,   false, PUBLISHED 1 -, HIDDEN 1 -",
        "REPORT,  NONE,   false, DRAFT 1 2,     HIDDEN 1 2",
        "APPROVE, NONE,   false, HIDDEN 1 -,    PUBLISHED 1 -",
        "APPROVE, AFTER,  false, DRAFT 1 2,     DRAFT 1 2",
        "RETURN,  AFTER,  false, DRAFT 1 2,     RETURNED - 2",
        "HIDE,    AFTER,  false, DRAFT 1 2,     HIDDEN 1 2",
        "APPROVE, NONE,   false, HIDDEN 1 2,    DRAFT 1 2",
        "RETURN,  NONE,   false, HIDDEN 1 -,    RETURNED - 1",
        "HIDE,    NONE,   false, HIDDEN 1 -,    HIDDEN 1 -",
        "SHOW,    BEFORE, false, HIDDEN 1 -,    PUBLISHED 1 -",
        "SHOW,    BEFORE, false, HIDDEN 1 2,    DRAFT 1 2",
        "SHOW,    BEFORE, false, HIDDEN - 1,    WAITING - 1",
        "BIN,     BEFORE, false, DRAFT - 1,     BINNED - 1",
        "HOLD_BACK, NONE, false, SCHEDULED - 1, WAITING - 1",
        "HOLD_BACK, NONE, false, SCHEDULED 1 2, WAITING 1 2",
    })
    void goesWhereTheTableSays(Step step, Policy policy, boolean held, String before, String after) {
        assertEquals(
                Optional.of(after),
                ModerationTable.after(standing(before), step, policy, held).map(ModerationTableTest::text));
    }

    @ParameterizedTest
    @CsvSource({
        "BINNED - 1, DRAFT,     DRAFT - 1",
        "BINNED 1 2, WAITING,   WAITING 1 2",
        "BINNED - 1, WAITING,   WAITING - 1",
        "BINNED - 2, RETURNED,  RETURNED - 2",
        "BINNED 1 -, PUBLISHED, PUBLISHED 1 -",
        "BINNED 1 2, PUBLISHED, PUBLISHED 1 2",
        "BINNED 1 -, HIDDEN,    HIDDEN 1 -",
        "BINNED - 1, SCHEDULED, DRAFT - 1",
        "BINNED 1 2, SCHEDULED, DRAFT 1 2",
        "BINNED 1 -, ,          PUBLISHED 1 -",
        "BINNED 1 2, ,          DRAFT 1 2",
        "BINNED - 1, ,          DRAFT - 1",
        "HIDDEN 1 -, PUBLISHED, impossible",
        "DRAFT - 1,  DRAFT,     impossible",
    })
    void comesOutOfTheBinAsItWentIn(String binned, State before, String after) {
        assertEquals(
                after,
                ModerationTable.restored(standing(binned), before)
                        .map(ModerationTableTest::text)
                        .orElse("impossible"));
    }

    @ParameterizedTest
    @CsvSource({
        "PUBLISH, WAITING - 1",
        "SCHEDULE, PUBLISHED 1 -",
        "HAND_IN, PUBLISHED 1 -",
        "HAND_IN, HIDDEN 1 -",
        "APPROVE, DRAFT - 1",
        "APPROVE, HIDDEN - 1",
        "REPORT, DRAFT - 1",
        "REPORT, WAITING 1 2",
        "APPROVE, RETURNED - 1",
        "RETURN, DRAFT - 1",
        "SAVE, HIDDEN 1 -",
        "SAVE, BINNED - 1",
        "BIN, BINNED - 1",
        "SHOW, BINNED 1 -",
        "RESTORE, HIDDEN 1 -",
        "HOLD_BACK, PUBLISHED 1 -"
    })
    void refusesWhatIsNotInTheTable(Step step, String before) {
        assertTrue(ModerationTable.after(standing(before), step, Policy.BEFORE, false)
                .isEmpty());
    }

    @Test
    void theNearestPolicyWinsAndTrustOpensBefore() {
        assertEquals("AFTER BLOG", inForce(null, Policy.AFTER, Policy.BEFORE, false));
        assertEquals("BEFORE STUDENT", inForce(Policy.BEFORE, Policy.NONE, Policy.NONE, false));
        assertEquals("BEFORE CLASS", inForce(null, null, Policy.BEFORE, false));
        assertEquals("NONE TRUST", inForce(null, null, Policy.BEFORE, true));
        assertEquals("AFTER CLASS", inForce(null, null, Policy.AFTER, true));
        assertEquals(
                "BEFORE STUDENT",
                inForce(Policy.BEFORE, null, Policy.NONE, true),
                "what was set for this very student outweighs trust");
        assertFalse(Policy.isTrusted(0, 99));
        assertTrue(Policy.isTrusted(5, 5));
    }

    @Test
    void staffWaitForNobodyAndTrustIsEarnedWithPostsAlone() {
        Author teacher = new Author(Author.Place.STAFF, null, null, 0, 0);
        assertEquals("NONE STAFF", said(teacher.ofPosts(Policy.BEFORE, Policy.BEFORE, 3)));
        assertEquals("NONE STAFF", said(teacher.ofComments(Policy.BEFORE, Policy.BEFORE)));
        Author trusted = new Author(Author.Place.MEMBER, null, null, 3, 3);
        assertEquals("NONE TRUST", said(trusted.ofPosts(null, Policy.BEFORE, 3)));
        assertEquals("BEFORE CLASS", said(trusted.ofPosts(null, Policy.BEFORE, 4)));
        assertEquals("BEFORE CLASS", said(trusted.ofPosts(null, Policy.BEFORE, 0)));
        assertEquals("BEFORE CLASS", said(trusted.ofComments(null, Policy.BEFORE)));
        Author watched = new Author(Author.Place.MEMBER, Policy.BEFORE, Policy.AFTER, 9, 9);
        assertEquals("BEFORE STUDENT", said(watched.ofPosts(Policy.NONE, Policy.NONE, 3)));
        assertEquals("AFTER STUDENT", said(watched.ofComments(Policy.NONE, Policy.NONE)));
        assertEquals("AFTER BLOG", said(Author.OUTSIDE.ofComments(Policy.AFTER, Policy.NONE)));
    }

    private static String said(Policy.InForce found) {
        return found.policy() + " " + found.source();
    }

    private static String inForce(Policy student, Policy blog, Policy ofClass, boolean trusted) {
        return said(Policy.inForce(student, blog, ofClass, trusted));
    }

    @Test
    void aDecisionIsAboutWhatReadersGetOrElseAboutTheNewest() {
        assertEquals(1, standing("PUBLISHED 1 2").judged());
        assertEquals(1, standing("DRAFT 1 2").judged());
        assertEquals(1, standing("HIDDEN 1 2").judged());
        assertEquals(2, standing("WAITING 1 2").judged());
        assertEquals(3, standing("HIDDEN - 3").judged());
    }

    @ParameterizedTest
    @CsvSource({
        "22:00, 07:00, 23:30, true",
        "22:00, 07:00, 06:59, true",
        "22:00, 07:00, 07:00, false",
        "12:00, 13:00, 12:00, true",
        "12:00, 13:00, 13:00, false",
        "08:00, 08:00, 08:00, false"
    })
    void quietHoursMayGoOverMidnight(LocalTime from, LocalTime until, LocalTime at, boolean quiet) {
        assertEquals(quiet, new QuietHours(from, until).holdAt(at));
    }

    @Test
    void theUsualWaitIsThatOfThreeInFour() {
        assertEquals(Optional.empty(), UsualWait.of(List.of(Duration.ofHours(1), Duration.ofHours(2))));
        assertEquals(
                Optional.of(Duration.ofHours(6)),
                UsualWait.of(
                        Stream.of(9, 1, 6, 2, 3, 8, 4, 5).map(Duration::ofHours).toList()));
    }

    /** What its author writes on after handing in is not what is marked. */
    @Test
    void theVersionThatIsMarkedIsTheOneThatWasHandedIn() {
        assertEquals(2, new Standing(State.WAITING, 1, 2).marked(2));
        assertEquals(2, new Standing(State.RETURNED, null, 2).marked(2));
        assertEquals(3, new Standing(State.PUBLISHED, 3, null).marked(3));
        assertEquals(3, new Standing(State.DRAFT, 3, 4).marked(3), "a draft beside what is up");
        assertEquals(2, new Standing(State.DRAFT, null, 3).marked(2), "taken back, and written on");
        assertEquals(3, new Standing(State.DRAFT, null, 3).marked(null));
    }
}

package org.vastporch.core.marking;

import static org.junit.jupiter.api.Assertions.*;

import java.util.Arrays;
import java.util.Collections;
import java.util.EnumSet;
import java.util.List;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.vastporch.core.marking.PaperState.Comments;
import org.vastporch.core.moderation.State;

class PaperStateTest {

    @ParameterizedTest
    @CsvSource(nullValues = "-", textBlock = """
                    # posts,             asked, given, criteria, released, over, let off, state
                    -,                   1,     0,     3,        false,    false, false,  NOT_HANDED_IN
                    -,                   1,     0,     3,        false,    true,  false,  MISSING
                    -,                   1,     3,     3,        true,     true,  false,  RELEASED
                    -,                   1,     3,     3,        false,    true,  false,  MISSING
                    -,                   1,     0,     3,        false,    true,  true,   LET_OFF
                    WAITING,             1,     0,     3,        false,    true,  false,  WAITING
                    RETURNED,            1,     0,     3,        false,    true,  false,  RETURNED
                    PUBLISHED,           1,     0,     3,        false,    false, false,  HANDED_IN
                    DRAFT,               1,     0,     3,        false,    true,  false,  HANDED_IN
                    HIDDEN,              1,     0,     3,        false,    true,  false,  HANDED_IN
                    SCHEDULED,           1,     0,     3,        false,    true,  false,  HANDED_IN
                    WAITING,             1,     1,     3,        false,    true,  false,  BEING_MARKED
                    PUBLISHED,           1,     2,     3,        false,    true,  false,  BEING_MARKED
                    RETURNED,            1,     3,     3,        false,    true,  false,  MARKED
                    PUBLISHED,           1,     3,     3,        true,     true,  false,  RELEASED
                    PUBLISHED,           1,     1,     3,        true,     true,  false,  RELEASED
                    PUBLISHED,           1,     3,     3,        true,     true,  true,   LET_OFF
                    PUBLISHED,           1,     0,     0,        false,    true,  false,  HANDED_IN
                    PUBLISHED,           2,     0,     3,        false,    false, false,  IN_PART
                    PUBLISHED,           2,     0,     3,        false,    true,  false,  HANDED_IN
                    PUBLISHED,           2,     1,     3,        false,    false, false,  BEING_MARKED
                    PUBLISHED PUBLISHED, 2,     0,     3,        false,    false, false,  HANDED_IN
                    PUBLISHED WAITING,   2,     0,     3,        false,    false, false,  WAITING
                    WAITING RETURNED,    2,     0,     3,        false,    true,  false,  RETURNED
                    PUBLISHED WAITING,   3,     0,     3,        false,    true,  false,  WAITING
                    """)
    void standsWhereItsFactsPutIt(
            String posts,
            int asked,
            int given,
            int criteria,
            boolean released,
            boolean over,
            boolean letOff,
            PaperState state) {
        List<State> states = posts == null
                ? List.of()
                : Arrays.stream(posts.split(" ")).map(State::valueOf).toList();
        assertEquals(
                state,
                PaperState.of(
                        new PaperState.Facts(states, asked, Comments.NONE, given, criteria, false, released, letOff),
                        over));
    }

    @ParameterizedTest
    @CsvSource(textBlock = """
                    # posts, asked, comments, asked, given, over,  state
                    0,       0,     0,        2,     0,     false, NOT_HANDED_IN
                    0,       0,     0,        2,     0,     true,  MISSING
                    0,       0,     1,        2,     0,     false, IN_PART
                    0,       0,     1,        2,     0,     true,  HANDED_IN
                    0,       0,     2,        2,     0,     false, HANDED_IN
                    0,       0,     2,        2,     1,     false, BEING_MARKED
                    0,       0,     2,        2,     3,     false, MARKED
                    1,       1,     1,        2,     0,     false, IN_PART
                    1,       1,     1,        2,     0,     true,  HANDED_IN
                    1,       1,     2,        2,     0,     false, HANDED_IN
                    0,       1,     2,        2,     0,     false, NOT_HANDED_IN
                    0,       1,     2,        2,     0,     true,  MISSING
                    """)
    void isReadyOnlyWithItsCommentsWhereItNeedsThem(
            int posts, int askedPosts, int comments, int askedComments, int given, boolean over, PaperState state) {
        PaperState.Facts facts = new PaperState.Facts(
                Collections.nCopies(posts, State.PUBLISHED),
                askedPosts,
                new Comments(comments, askedComments),
                given,
                3,
                false,
                false,
                false);
        assertEquals(state, PaperState.of(facts, over));
    }

    @Test
    void withoutARubricNothingIsEverFinished() {
        assertFalse(new PaperState.Facts(List.of(State.PUBLISHED), 1, Comments.NONE, 0, 0, false, false, false)
                .isFinished());
        assertTrue(new PaperState.Facts(List.of(State.PUBLISHED), 1, Comments.NONE, 1, 1, false, false, false)
                .isFinished());
    }

    /** What an assistant gave is no mark before a teacher has taken it over; what was shown stays shown. */
    @Test
    void whatAnAssistantGaveWaitsForATeacher() {
        for (int given = 0; given <= 3; given++) {
            PaperState.Facts alone = awaited(given, true, false);
            assertFalse(alone.isFinished());
            assertEquals(given == 0 ? PaperState.HANDED_IN : PaperState.BEING_MARKED, PaperState.of(alone, true));
            assertEquals(
                    given == 3 ? PaperState.MARKED : PaperState.of(alone, true),
                    PaperState.of(awaited(given, false, false), true));
            assertEquals(PaperState.RELEASED, PaperState.of(awaited(given, true, true), true));
        }
    }

    private static PaperState.Facts awaited(int given, boolean isAwaited, boolean released) {
        return new PaperState.Facts(List.of(State.PUBLISHED), 1, Comments.NONE, given, 3, isAwaited, released, false);
    }

    @Test
    void thoseThatCameLastCount() {
        List<Integer> came = List.of(1, 2, 3);
        assertEquals(List.of(3), PaperState.counted(came, 1));
        assertEquals(List.of(2, 3), PaperState.counted(came, 2));
        assertEquals(came, PaperState.counted(came, 3));
        assertEquals(came, PaperState.counted(came, 4));
        assertEquals(List.of(), PaperState.counted(came, 0));
        assertEquals(List.of(), PaperState.counted(List.of(), 2));
    }

    @ParameterizedTest
    @EnumSource(PaperState.class)
    void whatIsToMarkIsNotMarked(PaperState state) {
        assertFalse(state.isToMark() && state.isMarked());
    }

    @Test
    void onTheDeskLiesWhatIsReadyOrBegun() {
        assertEquals(
                EnumSet.of(PaperState.HANDED_IN, PaperState.BEING_MARKED),
                Arrays.stream(PaperState.values()).filter(PaperState::isToMark).collect(Collectors.toSet()));
        assertEquals(
                EnumSet.of(PaperState.MARKED, PaperState.RELEASED),
                Arrays.stream(PaperState.values()).filter(PaperState::isMarked).collect(Collectors.toSet()));
    }

    @Test
    void itsStudentLearnsOfMarksOnceTheyAreShown() {
        for (PaperState state : PaperState.values()) {
            assertEquals(state, state.toItsStudent(true));
            boolean isAboutMarks = state.isMarked() || state == PaperState.BEING_MARKED;
            assertEquals(isAboutMarks ? PaperState.HANDED_IN : state, state.toItsStudent(false));
        }
    }
}

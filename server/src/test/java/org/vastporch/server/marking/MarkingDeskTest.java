package org.vastporch.server.marking;

import static org.junit.jupiter.api.Assertions.*;
import static org.mockito.Mockito.*;

import java.math.BigDecimal;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.vastporch.core.calendar.Term;
import org.vastporch.core.classes.ClassRules;
import org.vastporch.core.marking.LateRule;
import org.vastporch.core.moderation.State;
import org.vastporch.core.prompts.Answers;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.core.prompts.Reviews;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.core.writing.HandIn;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.comments.GivenCommentService;
import org.vastporch.server.log.ClassChanges;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PaperMembers;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.reviews.PaperReviews;
import org.vastporch.server.writing.Posts;
import org.vastporch.server.writing.Posts.Handed;

/** When the desk is counted anew. What it counts is tried on the real server. */
class MarkingDeskTest {

    private static final long CLASS = 1;
    private static final Instant DUE = Instant.parse("2026-11-22T20:00:00Z");

    private final MarkingStore store = mock();
    private final PaperReviews reviews = mock();
    private final PromptService prompts = mock();
    private final Posts posts = mock();
    private final PeopleService people = mock();
    private final ClassService classes = mock();
    private final GivenCommentService comments = mock();
    private final PaperMembers members = mock();
    private final ClassChanges changes = new ClassChanges();
    private Instant now = DUE.plus(Duration.ofHours(30));
    private MarkingDesk desk;

    private final Clock clock = new Clock() {
        @Override
        public Instant instant() {
            return now;
        }

        @Override
        public ZoneId getZone() {
            return ZoneOffset.UTC;
        }

        @Override
        public Clock withZone(ZoneId zone) {
            return this;
        }
    };

    @BeforeEach
    void makeDesk() {
        desk = new MarkingDesk(
                store,
                reviews,
                prompts,
                posts,
                people,
                classes,
                comments,
                members,
                changes,
                Duration.ofHours(2),
                clock);
        Rubric rubric = new Rubric(List.of(new Rubric.Criterion(
                "",
                "Observation",
                BigDecimal.ONE,
                List.of(new Rubric.Level("a", BigDecimal.ZERO, ""), new Rubric.Level("b", BigDecimal.ONE, "")))));
        Prompt prompt = new Prompt(
                7,
                CLASS,
                "Week log",
                "",
                List.of(),
                null,
                DUE.minusSeconds(1_000_000),
                DUE,
                Duration.ofHours(24),
                LateRule.NONE,
                BigDecimal.TEN,
                1,
                HandIn.Asked.NOTHING,
                null,
                0,
                "",
                "",
                Answers.ONE_POST,
                null,
                null,
                null,
                false,
                rubric,
                Reviews.NONE,
                1);
        ClassService.ClassRecord of = mock();
        when(classes.get(CLASS)).thenReturn(of);
        when(of.rules()).thenReturn(ClassRules.SAFE);
        when(of.term())
                .thenReturn(new Term(
                        LocalDate.parse("2026-09-07"), LocalDate.parse("2026-12-18"), List.of(), ZoneOffset.UTC));
        when(prompts.all(CLASS)).thenReturn(List.of(prompt));
        when(people.students(CLASS)).thenReturn(List.of(11L, 12L));
        when(posts.handedFirst(List.of(7L)))
                .thenReturn(List.of(new Handed(7, 11, 101, 1, State.PUBLISHED, DUE.minusSeconds(60), null, List.of())));
    }

    private void anotherComesIn() {
        when(posts.handedFirst(List.of(7L)))
                .thenReturn(List.of(
                        new Handed(7, 11, 101, 1, State.PUBLISHED, DUE.minusSeconds(60), null, List.of()),
                        new Handed(7, 12, 102, 1, State.PUBLISHED, DUE.minusSeconds(30), null, List.of())));
    }

    @Test
    void isCountedOnceWhileNothingHappens() {
        assertEquals(List.of(new MarkingDesk.Pile(7, "Week log", DUE, 1, 0, 1)), desk.of(CLASS));
        anotherComesIn();
        assertEquals(1, desk.of(CLASS).get(0).toMark(), "nobody said that something happened");
        verify(prompts, times(1)).all(CLASS);
    }

    @Test
    void isCountedAnewWhenSomethingHappensInTheClass() {
        desk.of(CLASS);
        anotherComesIn();
        changes.note(2);
        assertEquals(1, desk.of(CLASS).get(0).toMark());
        changes.note(CLASS);
        assertEquals(List.of(new MarkingDesk.Pile(7, "Week log", DUE, 2, 0, 0)), desk.of(CLASS));
    }

    @Test
    void isCountedAnewAfterAWhileInAnyCase() {
        desk.of(CLASS);
        anotherComesIn();
        now = now.plus(Duration.ofHours(2));
        assertEquals(2, desk.of(CLASS).get(0).toMark());
    }

    /** A prompt that comes due lies on the desk at that moment; what is missing is missing when grace is over. */
    @Test
    void isCountedAnewWhenAPromptIsOver() {
        now = DUE.minusSeconds(1);
        assertEquals(List.of(), desk.of(CLASS));
        now = DUE;
        assertEquals(List.of(new MarkingDesk.Pile(7, "Week log", DUE, 1, 0, 0)), desk.of(CLASS));
        now = DUE.plus(Duration.ofHours(23));
        assertEquals(0, desk.of(CLASS).get(0).missing());
        now = DUE.plus(Duration.ofHours(24));
        desk.of(CLASS);
        now = now.plusMillis(1);
        assertEquals(1, desk.of(CLASS).get(0).missing());
    }
}

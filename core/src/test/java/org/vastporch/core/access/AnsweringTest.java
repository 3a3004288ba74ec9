package org.vastporch.core.access;

import static org.junit.jupiter.api.Assertions.*;
import static org.vastporch.core.access.Worlds.NOW;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.vastporch.core.access.BlogFacts.Commenters;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.blogs.BlogKind;
import org.vastporch.core.blogs.BlogRules;
import org.vastporch.core.blogs.BlogRules.Window;
import org.vastporch.core.moderation.State;

/** Who comments, changes and deletes comments, says a private word and arranges a blog: role by role, and why not. */
class AnsweringTest {

    private static final long AUTHOR = 4;
    private static final Instant WENT_UP = NOW.minus(Duration.ofHours(2));

    private static Viewer member(long id, Role role) {
        return new Viewer(id, false, List.of(new Membership(1, role, null, null)));
    }

    /** Somebody for each place there is, by number; 99 is of another class. */
    private static final Map<String, Viewer> PEOPLE = new TreeMap<>(Map.of(
            "lead", member(10, Role.LEAD),
            "co-teacher", member(11, Role.CO_TEACHER),
            "assistant", member(12, Role.ASSISTANT),
            "moderator", member(13, Role.MODERATOR),
            "author", member(AUTHOR, Role.STUDENT),
            "classmate", member(15, Role.STUDENT),
            "guest", member(16, Role.GUEST),
            "other class", new Viewer(99, false, List.of(new Membership(2, Role.LEAD, null, null))),
            "stranger", Viewer.STRANGER,
            "borrowed eyes", member(15, Role.STUDENT).throughLens(1)));

    private static BlogFacts blog(BlogKind kind, Commenters commenters, BlogRules rules) {
        Long owner = kind == BlogKind.ONE_EACH ? AUTHOR : null;
        return new BlogFacts(
                1, 1, Audience.ANYONE, true, kind, Audience.ANYONE, commenters, owner, null, null, null, null, rules);
    }

    private static PostFacts post(Commenters commenters, State state, BlogRules rules) {
        return new PostFacts(
                1,
                blog(BlogKind.ONE_EACH, commenters, rules),
                AUTHOR,
                null,
                state,
                state != State.DRAFT,
                Audience.ANYONE,
                state == State.DRAFT ? null : WENT_UP,
                null,
                false,
                false,
                false,
                KeptNames.NONE);
    }

    private static BlogRules rules(Window edit, boolean deleteComments, int closedAfterDays) {
        return new BlogRules(
                edit,
                Window.ALWAYS,
                deleteComments,
                40,
                40,
                0,
                0,
                0,
                BlogRules.Period.WEEK,
                new BlogRules.Closing(closedAfterDays, ""));
    }

    private static Reason comment(String who, PostFacts post) {
        return AccessEngine.decide(PEOPLE.get(who), Act.COMMENT, post, NOW);
    }

    @ParameterizedTest
    @CsvSource({
        // who comments: nobody, the class, guests too, the school, anyone
        "lead,          IS_STAFF,            IS_STAFF,            IS_STAFF,            IS_STAFF,            IS_STAFF",
        "assistant,     IS_STAFF,            IS_STAFF,            IS_STAFF,            IS_STAFF,            IS_STAFF",
        "moderator,     AUDIENCE_TOO_NARROW, AUDIENCE_TOO_NARROW, AUDIENCE_TOO_NARROW, AUDIENCE_TOO_NARROW, AUDIENCE_TOO_NARROW",
        "author,        COMMENTS_OFF,        BLOG_ALLOWS,         BLOG_ALLOWS,         BLOG_ALLOWS,         BLOG_ALLOWS",
        "classmate,     COMMENTS_OFF,        BLOG_ALLOWS,         BLOG_ALLOWS,         BLOG_ALLOWS,         BLOG_ALLOWS",
        "guest,         COMMENTS_OFF,        COMMENTS_FOR_CLASS,  BLOG_ALLOWS,         BLOG_ALLOWS,         BLOG_ALLOWS",
        "other class,   COMMENTS_OFF,        NOT_A_MEMBER,        NOT_A_MEMBER,        BLOG_ALLOWS,         BLOG_ALLOWS",
        "stranger,      COMMENTS_OFF,        SIGN_IN_FIRST,       SIGN_IN_FIRST,       SIGN_IN_FIRST,       BLOG_ALLOWS",
        "borrowed eyes, ONLY_EYES,           ONLY_EYES,           ONLY_EYES,           ONLY_EYES,           ONLY_EYES"
    })
    void theBlogSaysWhoComments(
            String who, Reason nobody, Reason ofClass, Reason guests, Reason school, Reason anyone) {
        assertEquals(nobody, comment(who, post(Commenters.NOBODY, State.PUBLISHED, BlogRules.FREE)));
        assertEquals(ofClass, comment(who, post(Commenters.CLASS, State.PUBLISHED, BlogRules.FREE)));
        assertEquals(guests, comment(who, post(Commenters.GUESTS_TOO, State.PUBLISHED, BlogRules.FREE)));
        assertEquals(school, comment(who, post(Commenters.SCHOOL, State.PUBLISHED, BlogRules.FREE)));
        assertEquals(anyone, comment(who, post(Commenters.ANYONE, State.PUBLISHED, BlogRules.FREE)));
    }

    @Test
    void commentsCloseForAllButStaffAtThatVeryMoment() {
        PostFacts closing = post(Commenters.ANYONE, State.PUBLISHED, rules(Window.ALWAYS, true, 3));
        Instant end = WENT_UP.plus(Duration.ofDays(3));
        for (String who : List.of("author", "classmate", "guest", "stranger")) {
            Viewer viewer = PEOPLE.get(who);
            assertEquals(
                    Reason.BLOG_ALLOWS, AccessEngine.decide(viewer, Act.COMMENT, closing, end.minusMillis(1)), who);
            assertEquals(Reason.COMMENTS_CLOSED, AccessEngine.decide(viewer, Act.COMMENT, closing, end), who);
        }
        assertEquals(Reason.IS_STAFF, AccessEngine.decide(PEOPLE.get("lead"), Act.COMMENT, closing, end));
    }

    @Test
    void onWhatIsNotUpStaffAloneComment() {
        PostFacts draft = post(Commenters.ANYONE, State.DRAFT, BlogRules.FREE);
        assertEquals(Reason.NOT_PUBLISHED, comment("author", draft));
        assertEquals(Reason.IS_STAFF, comment("lead", draft));
        assertEquals(Reason.NOT_PUBLISHED, comment("classmate", draft));
    }

    @ParameterizedTest
    @CsvSource({
        // one's own comment, somebody else's, one's own when the time for changes is over
        "lead,          IS_AUTHOR,           IS_STAFF,            IS_AUTHOR",
        "co-teacher,    IS_AUTHOR,           IS_STAFF,            IS_AUTHOR",
        "assistant,     IS_AUTHOR,           AUTHOR_ONLY,         IS_AUTHOR",
        "moderator,     AUDIENCE_TOO_NARROW, AUDIENCE_TOO_NARROW, AUDIENCE_TOO_NARROW",
        "classmate,     IS_AUTHOR,           AUTHOR_ONLY,         EDIT_OVER",
        "guest,         COMMENTS_FOR_CLASS,  COMMENTS_FOR_CLASS,  COMMENTS_FOR_CLASS",
        "other class,   NOT_A_MEMBER,        NOT_A_MEMBER,        NOT_A_MEMBER",
        "borrowed eyes, ONLY_EYES,           ONLY_EYES,           ONLY_EYES"
    })
    void aCommentIsChangedByItsAuthorAndByThoseWhoManage(String who, Reason own, Reason others, Reason late) {
        Viewer viewer = PEOPLE.get(who);
        BlogRules hour = rules(new Window(60), true, 0);
        PostFacts post = post(Commenters.CLASS, State.PUBLISHED, hour);
        Instant fresh = NOW.minus(Duration.ofMinutes(59));
        Instant stale = NOW.minus(Duration.ofMinutes(60));
        assertEquals(own, AccessEngine.editComment(viewer, post, viewer.personId(), fresh, NOW));
        assertEquals(own, AccessEngine.editComment(viewer, post, viewer.personId(), null, NOW), "while it waits");
        assertEquals(others, AccessEngine.editComment(viewer, post, 77, fresh, NOW));
        assertEquals(late, AccessEngine.editComment(viewer, post, viewer.personId(), stale, NOW));
    }

    @Test
    void nobodyChangesTheCommentOfAVisitorButThoseWhoManage() {
        PostFacts post = post(Commenters.ANYONE, State.PUBLISHED, BlogRules.FREE);
        assertEquals(Reason.AUTHOR_ONLY, AccessEngine.editComment(Viewer.STRANGER, post, 0, NOW, NOW));
        assertEquals(Reason.IS_STAFF, AccessEngine.editComment(PEOPLE.get("lead"), post, 0, NOW, NOW));
    }

    @ParameterizedTest
    @CsvSource({
        // one's own where students may, one's own where they may not, somebody else's
        "lead,          IS_STAFF,      IS_STAFF,      IS_STAFF",
        "co-teacher,    IS_STAFF,      IS_STAFF,      IS_STAFF",
        "assistant,     IS_AUTHOR,     IS_AUTHOR,     AUTHOR_ONLY",
        "moderator,     IS_AUTHOR,     DELETE_OVER,   AUTHOR_ONLY",
        "classmate,     IS_AUTHOR,     DELETE_OVER,   AUTHOR_ONLY",
        "guest,         IS_AUTHOR,     DELETE_OVER,   AUTHOR_ONLY",
        "other class,   IS_AUTHOR,     DELETE_OVER,   NOT_A_MEMBER",
        "stranger,      SIGN_IN_FIRST, SIGN_IN_FIRST, SIGN_IN_FIRST",
        "borrowed eyes, ONLY_EYES,     ONLY_EYES,     ONLY_EYES"
    })
    void aCommentIsDeletedByThoseWhoManageAndByItsAuthorWhereTheBlogLets(
            String who, Reason may, Reason mayNot, Reason others) {
        Viewer viewer = PEOPLE.get(who);
        PostFacts free = post(Commenters.CLASS, State.PUBLISHED, rules(Window.ALWAYS, true, 0));
        PostFacts strict = post(Commenters.CLASS, State.PUBLISHED, rules(Window.ALWAYS, false, 0));
        assertEquals(may, AccessEngine.deleteComment(viewer, free, viewer.personId(), NOW));
        assertEquals(mayNot, AccessEngine.deleteComment(viewer, strict, viewer.personId(), NOW));
        assertEquals(others, AccessEngine.deleteComment(viewer, free, 77, NOW));
    }

    @ParameterizedTest
    @CsvSource({
        // of a comment that is up, that waits in the pile, that was thrown away; the first two for its author too
        "lead,        IS_STAFF,         IS_STAFF,      IS_STAFF",
        "assistant,   IS_STAFF,         IS_STAFF,      IS_STAFF",
        "author,      IS_AUTHOR,        NOT_PUBLISHED, NOT_PUBLISHED",
        "classmate,   AUDIENCE_REACHES, NOT_PUBLISHED, NOT_PUBLISHED",
        "guest,       AUDIENCE_REACHES, NOT_PUBLISHED, NOT_PUBLISHED",
        "stranger,    AUDIENCE_REACHES, NOT_PUBLISHED, NOT_PUBLISHED"
    })
    void aCommentIsReadOnceItIsUp(String who, Reason up, Reason waiting, Reason gone) {
        Viewer viewer = PEOPLE.get(who);
        PostFacts post = post(Commenters.CLASS, State.PUBLISHED, BlogRules.FREE);
        assertEquals(up, AccessEngine.readComment(viewer, post, 77, true, false, NOW));
        assertEquals(waiting, AccessEngine.readComment(viewer, post, 77, false, true, NOW));
        assertEquals(gone, AccessEngine.readComment(viewer, post, 77, false, false, NOW));
        if (!viewer.isStranger())
            assertEquals(Reason.IS_AUTHOR, AccessEngine.readComment(viewer, post, viewer.personId(), false, true, NOW));
        assertEquals(Reason.NOT_PUBLISHED, AccessEngine.readComment(Viewer.STRANGER, post, 0, false, true, NOW));
    }

    @ParameterizedTest
    @CsvSource({
        "lead, true, true", "co-teacher, true, true", "assistant, true, true", "moderator, false, false",
        "author, true, false", "classmate, false, false", "guest, false, false", "other class, false, false",
        "stranger, false, false", "borrowed eyes, false, false"
    })
    void aPrivateWordIsBetweenTheStaffAndWhomItIsFor(String who, boolean reads, boolean writes) {
        Viewer viewer = PEOPLE.get(who);
        assertEquals(reads, AccessEngine.readWord(viewer, 1, AUTHOR, NOW).allows());
        assertEquals(writes, AccessEngine.writeAside(viewer, 1, NOW).allows());
    }

    @Test
    void borrowedEyesReadThePrivateWordsOfThatClassAlone() {
        Viewer eyes = PEOPLE.get("author").throughLens(1);
        assertEquals(Reason.IS_AUTHOR, AccessEngine.readWord(eyes, 1, AUTHOR, NOW));
        assertEquals(Reason.NOT_A_MEMBER, AccessEngine.readWord(eyes, 2, AUTHOR, NOW));
        assertEquals(
                Reason.ONLY_EYES, AccessEngine.writeAside(PEOPLE.get("lead").throughLens(1), 1, NOW));
        assertEquals(Reason.SIGN_IN_FIRST, AccessEngine.readWord(Viewer.STRANGER, 1, 0, NOW));
    }

    @ParameterizedTest
    @CsvSource({
        "lead, IS_STAFF, IS_STAFF",
        "assistant, STAFF_ONLY, STAFF_ONLY",
        "author, IS_AUTHOR, STAFF_ONLY",
        "classmate, STAFF_ONLY, STAFF_ONLY",
        "other class, NOT_A_MEMBER, NOT_A_MEMBER",
        "stranger, SIGN_IN_FIRST, SIGN_IN_FIRST",
        "borrowed eyes, ONLY_EYES, ONLY_EYES"
    })
    void aBlogIsArrangedByItsOwnerAndByThoseWhoManage(String who, Reason own, Reason shared) {
        Viewer viewer = PEOPLE.get(who);
        assertEquals(own, AccessEngine.arrange(viewer, blog(BlogKind.ONE_EACH, Commenters.CLASS, BlogRules.FREE), NOW));
        assertEquals(
                shared, AccessEngine.arrange(viewer, blog(BlogKind.SHARED, Commenters.CLASS, BlogRules.FREE), NOW));
    }

    @Test
    void whatIsKeptForOnePersonIsForThatPersonInPerson() {
        assertEquals(Reason.IS_SELF, AccessEngine.own(PEOPLE.get("author")));
        assertEquals(Reason.ONLY_EYES, AccessEngine.own(PEOPLE.get("borrowed eyes")));
        assertEquals(Reason.SIGN_IN_FIRST, AccessEngine.own(Viewer.STRANGER));
    }

    @ParameterizedTest
    @EnumSource(Role.class)
    void theRoleSaysWhatOneMayDoInAClass(Role role) {
        Viewer viewer = member(30, role);
        assertEquals(
                role != Role.MODERATOR,
                AccessEngine.inClass(viewer, Act.READ_CLASS, 1, NOW).allows());
        assertTrue(AccessEngine.inClass(viewer, Act.ENTER_CLASS, 1, NOW).allows());
        boolean manages = role == Role.LEAD || role == Role.CO_TEACHER;
        assertEquals(
                manages, AccessEngine.inClass(viewer, Act.MANAGE_CLASS, 1, NOW).allows());
        assertEquals(
                manages || role == Role.MODERATOR,
                AccessEngine.inClass(viewer, Act.APPROVE, 1, NOW).allows());
        assertEquals(
                manages || role == Role.ASSISTANT,
                AccessEngine.inClass(viewer, Act.MARK, 1, NOW).allows());
        assertFalse(AccessEngine.inClass(viewer, Act.ENTER_CLASS, 2, NOW).allows());
    }

    @Test
    void aHiddenPostIsForTheStaffToChange() {
        PostFacts hidden = post(Commenters.CLASS, State.HIDDEN, BlogRules.FREE);
        Viewer author = PEOPLE.get("author");
        assertEquals(Reason.STAFF_ONLY, AccessEngine.decide(author, Act.EDIT, hidden, NOW));
        Viewer left = new Viewer(AUTHOR, false, List.of());
        PostFacts up = post(Commenters.CLASS, State.PUBLISHED, BlogRules.FREE);
        assertEquals(Reason.NOT_A_MEMBER, AccessEngine.decide(left, Act.EDIT, up, NOW));
        assertEquals(Reason.NOT_A_MEMBER, AccessEngine.decide(PEOPLE.get("other class"), Act.EDIT, up, NOW));
        assertEquals(Reason.AUTHOR_ONLY, AccessEngine.decide(PEOPLE.get("classmate"), Act.DELETE, up, NOW));
    }

    @ParameterizedTest
    @CsvSource({
        "lead,          STAFF_ONLY,          STAFF_ONLY",
        "assistant,     STAFF_ONLY,          STAFF_ONLY",
        "moderator,     AUDIENCE_TOO_NARROW, AUDIENCE_TOO_NARROW",
        "classmate,     IS_MEMBER,           STAFF_ONLY",
        "guest,         STAFF_ONLY,          STAFF_ONLY",
        "other class,   NOT_A_MEMBER,        NOT_A_MEMBER",
        "stranger,      SIGN_IN_FIRST,       SIGN_IN_FIRST",
        "borrowed eyes, ONLY_EYES,           ONLY_EYES"
    })
    void studentsRegisterBlogsWhereTheirClassLetsThem(String who, Reason lets, Reason letsNot) {
        Viewer viewer = PEOPLE.get(who);
        assertEquals(lets, AccessEngine.registerSource(viewer, 1, true, NOW));
        assertEquals(letsNot, AccessEngine.registerSource(viewer, 1, false, NOW));
    }

    @Test
    void anOpenClassHasAFrontPageForEverybodyAndAShutOneForNobody() {
        assertEquals(Reason.AUDIENCE_REACHES, AccessEngine.frontPage(true));
        assertEquals(Reason.SIGN_IN_FIRST, AccessEngine.frontPage(false));
    }
}

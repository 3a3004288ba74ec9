package org.vastporch.core.access;

import static org.junit.jupiter.api.Assertions.*;
import static org.vastporch.core.access.Worlds.NOW;

import java.time.Duration;
import java.time.Instant;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.function.BiConsumer;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.blogs.BlogKind;
import org.vastporch.core.blogs.BlogRules;
import org.vastporch.core.moderation.State;

class AccessEngineTest {

    private static final int WORLDS = 60_000;

    private static void inWorlds(BiConsumer<Viewer, PostFacts> law) {
        Worlds worlds = new Worlds(7);
        for (int i = 0; i < WORLDS; i++) law.accept(worlds.viewer(), worlds.post());
    }

    private static boolean reads(Viewer viewer, PostFacts post) {
        return AccessEngine.decide(viewer, Act.READ, post, NOW).allows();
    }

    /** A slow, obvious second reading of the rules, kept apart from the engine. */
    private static boolean obviouslyReads(Viewer v, PostFacts p) {
        BlogFacts b = p.blog();
        if (v.lens() != null && v.lens() != b.classId()) return false;
        if (v.personId() != 0 && v.personId() == p.authorId()) return true;
        Membership here = v.memberships().stream()
                .filter(m -> m.classId() == b.classId() && (m.endedAt() == null || NOW.isBefore(m.endedAt())))
                .findFirst()
                .orElse(null);
        Role role = here == null ? null : here.role();
        if (role == Role.LEAD || role == Role.CO_TEACHER || role == Role.ASSISTANT) return true;
        if (role == Role.MODERATOR
                && (p.state() == State.WAITING || p.awaited() && p.hasLive() && p.state() != State.BINNED)) return true;
        if (role == Role.MODERATOR
                && p.commentInPile()
                && p.hasLive()
                && p.state() != State.HIDDEN
                && p.state() != State.BINNED) return true;
        if (!p.hasLive() || p.state() == State.HIDDEN || p.state() == State.BINNED) return false;
        if (b.opensAt() != null && NOW.isBefore(b.opensAt())) return false;
        if (b.closesAt() != null && !NOW.isBefore(b.closesAt())) return false;
        if (b.onlyGroup() != null && (here == null || !b.onlyGroup().equals(here.groupId()))) return false;
        if (role == Role.STUDENT && p.answerFirst() != null && !v.answered().contains(p.answerFirst())) return false;
        if (p.takenAlong()) return false;
        int width = Math.min(
                Math.min(p.audience().ordinal(), b.widest().ordinal()),
                b.classCeiling().ordinal());
        if (b.kind() == BlogKind.JOURNAL) width = 0;
        if (b.kind() == BlogKind.GROUP) width = Math.min(width, 2);
        if (width == 4 && b.classOpen()) return true;
        boolean ofSchool = v.keeper()
                || v.memberships().stream()
                        .anyMatch(m -> (m.endedAt() == null || NOW.isBefore(m.endedAt()))
                                && m.role() != Role.GUEST
                                && m.role() != Role.MODERATOR);
        if (width >= 3 && ofSchool && v.personId() != 0) return true;
        if (role != Role.STUDENT && role != Role.GUEST) return false;
        Long group = b.groupId() != null ? b.groupId() : p.authorGroup();
        return width >= 2 || width == 1 && role == Role.STUDENT && group != null && group.equals(here.groupId());
    }

    @Test
    void agreesWithTheObviousReading() {
        inWorlds((v, p) -> assertEquals(obviouslyReads(v, p), reads(v, p), () -> v + " " + p));
    }

    @Test
    void scopeAndEngineAgree() {
        inWorlds((v, p) -> assertEquals(reads(v, p), Scope.of(v, NOW).contains(p), () -> v + " " + p));
    }

    @Test
    void wideningAnAudienceNeverRemovesAReader() {
        inWorlds((v, p) -> {
            for (Audience wider : Audience.values())
                if (wider.reaches(p.audience()) && reads(v, p)) assertTrue(reads(v, p.withAudience(wider)));
        });
    }

    private static PostFacts where(PostFacts p, BlogFacts.Commenters comment) {
        BlogFacts b = p.blog();
        BlogFacts blog = new BlogFacts(
                b.id(),
                b.classId(),
                b.classCeiling(),
                b.classOpen(),
                b.kind(),
                b.widest(),
                comment,
                b.ownerId(),
                b.groupId(),
                b.onlyGroup(),
                b.opensAt(),
                b.closesAt(),
                b.rules());
        return new PostFacts(
                p.id(),
                blog,
                p.authorId(),
                p.authorGroup(),
                p.state(),
                p.hasLive(),
                p.audience(),
                p.publishedAt(),
                p.answerFirst(),
                p.takenAlong(),
                p.awaited(),
                p.commentInPile(),
                KeptNames.NONE);
    }

    @Test
    void eachChoiceOfWhoCommentsLetsInThoseBeforeItToo() {
        inWorlds((v, p) -> {
            boolean before = false;
            for (BlogFacts.Commenters who : BlogFacts.Commenters.values()) {
                boolean now =
                        AccessEngine.decide(v, Act.COMMENT, where(p, who), NOW).allows();
                if (before) assertTrue(now, () -> who + " " + v + " " + p);
                if (now && who != BlogFacts.Commenters.ANYONE) assertFalse(v.isStranger());
                if (now) assertTrue(reads(v, p), "nobody comments on what they cannot read");
                before = now;
            }
        });
    }

    @Test
    void aGuestNeverReadsWhatAStudentThereCannotWhoAnsweredEverything() {
        inWorlds((v, p) -> {
            long classId = p.blog().classId();
            Viewer guest = new Viewer(901, false, List.of(new Membership(classId, Role.GUEST, null, null)));
            Viewer student = new Viewer(
                    902,
                    false,
                    List.of(new Membership(classId, Role.STUDENT, null, null)),
                    Set.of(0L, 1L, 2L, 3L),
                    null);
            if (reads(guest, p)) assertTrue(reads(student, p), p::toString);
        });
    }

    @Test
    void aStrangerReadsOnlyWhatIsForAnyoneInOpenClasses() {
        inWorlds((v, p) -> {
            if (reads(Viewer.STRANGER, p))
                assertTrue(
                        p.isUp()
                                && p.effectiveAudience() == Audience.ANYONE
                                && p.blog().classOpen(),
                        p::toString);
        });
    }

    @Test
    void moderatorsNeitherMarkNorSeeNamesNorReadWhatDoesNotWait() {
        inWorlds((v, p) -> {
            long classId = p.blog().classId();
            Viewer moderator = new Viewer(903, false, List.of(new Membership(classId, Role.MODERATOR, null, null)));
            assertFalse(AccessEngine.decide(moderator, Act.MARK, p, NOW).allows());
            assertFalse(AccessEngine.seeRealName(moderator, 5, classId, NOW).allows());
            if (reads(moderator, p))
                assertTrue(p.inPile() || p.isUp() && p.commentInPile() || reads(Viewer.STRANGER, p));
            Knowledge knows = AccessEngine.knows(moderator, p, NOW);
            assertNotEquals(Knowledge.ALL, knows);
            assertEquals(p.inPile(), knows == Knowledge.JUDGED);
        });
    }

    @Test
    void endingAnEnrolmentEndsReadingAtThatMoment() {
        inWorlds((v, p) -> {
            var ended = v.memberships().stream()
                    .map(m -> new Membership(m.classId(), m.role(), m.groupId(), NOW))
                    .toList();
            Viewer left = new Viewer(v.personId(), false, ended, v.answered(), null);
            if (left.personId() != p.authorId()) assertEquals(reads(Viewer.STRANGER, p), reads(left, p));
        });
    }

    @Test
    void borrowedEyesSeeNoMoreThanThePersonAndNothingElsewhere() {
        inWorlds((v, p) -> {
            if (!v.isInPerson()) return;
            Viewer eyes = v.throughLens(1);
            if (reads(eyes, p)) assertTrue(reads(v, p) && p.blog().classId() == 1, () -> v + " " + p);
            for (Act act : List.of(Act.EDIT, Act.DELETE, Act.COMMENT))
                assertFalse(AccessEngine.decide(eyes, act, p, NOW).allows());
            assertFalse(AccessEngine.write(eyes, p.blog(), NOW).allows());
            assertFalse(AccessEngine.deleteComment(eyes, p, v.personId(), NOW).allows());
        });
    }

    @Test
    void whoLeavesWithTheWritingLeavesNothingForReaders() {
        inWorlds((v, p) -> {
            boolean staff = v.in(p.blog().classId(), NOW)
                    .map(m -> m.role().readsAsStaff() || m.role() == Role.MODERATOR)
                    .orElse(false);
            if (p.takenAlong() && !staff && v.personId() != p.authorId()) assertFalse(reads(v, p));
        });
    }

    @Test
    void thePageOfABlogOpensToWhoeverReadsAPostInIt() {
        inWorlds((v, p) -> {
            boolean moderator = v.in(p.blog().classId(), NOW)
                    .map(m -> m.role() == Role.MODERATOR)
                    .orElse(false);
            boolean ofTheBlog = p.blog().ownerId() == null || p.blog().ownerId() == p.authorId();
            boolean sameGroup = p.blog().groupId() != null || p.effectiveAudience() != Audience.MY_GROUP;
            if (reads(v, p) && v.personId() != p.authorId() && !moderator && ofTheBlog && sameGroup)
                assertTrue(AccessEngine.readBlog(v, p.blog(), NOW).allows(), () -> v + " " + p);
        });
    }

    @Test
    void anOwnBlogInWhichNothingIsShownIsThereForItsClassAlone() {
        inWorlds((v, p) -> {
            Reason page = AccessEngine.readBlog(v, p.blog(), NOW);
            assertEquals(page, AccessEngine.openBlog(v, p.blog(), true, NOW));
            boolean from = v.in(p.blog().classId(), NOW).isPresent()
                    || p.blog().ownerId() == null
                    || p.blog().ownerId() == v.personId();
            Reason empty = AccessEngine.openBlog(v, p.blog(), false, NOW);
            if (from) assertEquals(page, empty);
            else assertFalse(empty.allows(), () -> v + " " + p.blog());
        });
    }

    @ParameterizedTest
    @CsvSource({"-1, 5000, true", "0, 0, false", "30, 29, true", "30, 30, false"})
    void studentsChangeWhatIsUpWhileTheWindowIsOpen(int minutes, int after, boolean may) {
        BlogRules rules = new BlogRules(
                new BlogRules.Window(minutes),
                BlogRules.Window.NEVER,
                false,
                1,
                1,
                0,
                0,
                0,
                BlogRules.Period.DAY,
                new BlogRules.Closing(1, ""));
        BlogFacts blog = new BlogFacts(
                1,
                1,
                Audience.MY_CLASS,
                false,
                BlogKind.SHARED,
                Audience.MY_CLASS,
                BlogFacts.Commenters.CLASS,
                null,
                null,
                null,
                null,
                null,
                rules);
        PostFacts up = new PostFacts(
                1,
                blog,
                4,
                null,
                State.PUBLISHED,
                true,
                Audience.MY_CLASS,
                NOW,
                null,
                false,
                false,
                false,
                KeptNames.NONE);
        PostFacts draft = new PostFacts(
                1,
                blog,
                4,
                null,
                State.DRAFT,
                false,
                Audience.MY_CLASS,
                null,
                null,
                false,
                false,
                false,
                KeptNames.NONE);
        Viewer author = new Viewer(4, false, List.of(new Membership(1, Role.STUDENT, null, null)));
        Viewer teacher = new Viewer(7, false, List.of(new Membership(1, Role.LEAD, null, null)));
        var then = NOW.plus(Duration.ofMinutes(after));
        assertEquals(may ? Reason.IS_AUTHOR : Reason.EDIT_OVER, AccessEngine.decide(author, Act.EDIT, up, then));
        assertEquals(Reason.DELETE_OVER, AccessEngine.decide(author, Act.DELETE, up, then));
        assertEquals(Reason.DELETE_OVER, AccessEngine.deleteComment(author, up, 4, then));
        assertEquals(Reason.IS_AUTHOR, AccessEngine.decide(author, Act.EDIT, draft, then));
        assertEquals(Reason.IS_STAFF, AccessEngine.decide(teacher, Act.DELETE, up, then));
    }

    @Test
    void staffBorrowTheEyesOfStudentsGuestsAndStrangersOnly() {
        Viewer assistant = new Viewer(7, false, List.of(new Membership(1, Role.ASSISTANT, null, null)));
        Viewer student = new Viewer(4, false, List.of(new Membership(1, Role.STUDENT, null, null)));
        for (Role whose : Role.values())
            assertEquals(
                    whose == Role.STUDENT || whose == Role.GUEST,
                    AccessEngine.throughEyes(assistant, 1, whose, NOW).allows());
        assertTrue(AccessEngine.throughEyes(assistant, 1, null, NOW).allows());
        assertFalse(AccessEngine.throughEyes(assistant, 2, Role.STUDENT, NOW).allows());
        assertFalse(AccessEngine.throughEyes(student, 1, null, NOW).allows());
    }

    @Test
    void onlyStaffAndThePersonSeeARealName() {
        inWorlds((v, p) -> {
            boolean staff = v.in(p.blog().classId(), NOW)
                    .map(m -> m.role().readsAsStaff())
                    .orElse(false);
            assertEquals(
                    staff || (v.personId() == 3),
                    AccessEngine.seeRealName(v, 3, p.blog().classId(), NOW).allows());
        });
    }

    @Test
    void saysWhy() {
        BlogFacts own = new BlogFacts(
                1,
                1,
                Audience.MY_CLASS,
                false,
                BlogKind.ONE_EACH,
                Audience.ANYONE,
                BlogFacts.Commenters.CLASS,
                4L,
                null,
                null,
                NOW.plus(Duration.ofDays(1)),
                null);
        PostFacts post = new PostFacts(1, own, 4, null, State.PUBLISHED, true, Audience.ANYONE);
        Viewer classmate = new Viewer(5, false, List.of(new Membership(1, Role.STUDENT, null, null)));
        assertEquals(Reason.NOT_OPEN_YET, AccessEngine.decide(classmate, Act.READ, post, NOW));
        assertEquals(
                Reason.NOT_YOUR_BLOG,
                AccessEngine.write(
                        classmate,
                        new BlogFacts(
                                1,
                                1,
                                Audience.ANYONE,
                                true,
                                BlogKind.ONE_EACH,
                                Audience.ANYONE,
                                BlogFacts.Commenters.CLASS,
                                4L,
                                null,
                                null,
                                null,
                                null),
                        NOW));
        assertEquals(Reason.SIGN_IN_FIRST, AccessEngine.inClass(Viewer.STRANGER, Act.ENTER_CLASS, 1, NOW));
    }

    @Test
    void theSightlineCountsThoseWhomTheEngineLetsIn() {
        BlogFacts blog = new BlogFacts(
                1,
                1,
                Audience.MY_CLASS,
                false,
                BlogKind.ONE_EACH,
                Audience.MY_CLASS,
                BlogFacts.Commenters.CLASS,
                4L,
                null,
                null,
                null,
                null);
        List<Viewer> people = List.of(
                new Viewer(4, false, List.of(new Membership(1, Role.STUDENT, null, null))),
                new Viewer(5, false, List.of(new Membership(1, Role.STUDENT, null, null))),
                new Viewer(6, false, List.of(new Membership(1, Role.GUEST, null, null))),
                new Viewer(7, false, List.of(new Membership(1, Role.LEAD, null, null))),
                new Viewer(8, false, List.of(new Membership(1, Role.MODERATOR, null, null))),
                new Viewer(9, false, List.of(new Membership(2, Role.STUDENT, null, null))));
        Sightline line = Sightline.ofBlog(blog, people, NOW);
        assertEquals(List.of(4L, 5L, 6L, 7L), line.readers());
        assertEquals(List.of(4L, 5L, 7L), line.commenters());
        assertEquals(List.of(4L, 7L), line.writers());
        assertFalse(line.strangers());
    }

    @Test
    void whoeverMayNotReadLearnsFromARefusalOnlyThatItIsNotThere() {
        Set<Reason> silent = EnumSet.of(
                Reason.SIGN_IN_FIRST,
                Reason.NOT_A_MEMBER,
                Reason.NOT_PUBLISHED,
                Reason.AUDIENCE_TOO_NARROW,
                Reason.FOR_A_GROUP);
        Set<Reason> spoken = EnumSet.of(Reason.NOT_OPEN_YET, Reason.CLOSED, Reason.ANSWER_FIRST);
        inWorlds((v, p) -> {
            Reason read = AccessEngine.decide(v, Act.READ, p, NOW);
            if (read.allows()) return;
            // Doors and rules are told to those alone whom the post is for.
            if (spoken.contains(read)) {
                BlogFacts b = p.blog();
                BlogFacts open = new BlogFacts(
                        b.id(),
                        b.classId(),
                        b.classCeiling(),
                        b.classOpen(),
                        b.kind(),
                        b.widest(),
                        b.commenters(),
                        b.ownerId(),
                        b.groupId(),
                        b.onlyGroup(),
                        null,
                        null,
                        b.rules());
                PostFacts freed = new PostFacts(
                        p.id(),
                        open,
                        p.authorId(),
                        p.authorGroup(),
                        p.state(),
                        p.hasLive(),
                        p.audience(),
                        p.publishedAt(),
                        null,
                        p.takenAlong(),
                        p.awaited(),
                        p.commentInPile(),
                        KeptNames.NONE);
                Reason then = AccessEngine.decide(v, Act.READ, freed, NOW);
                assertTrue(then.allows() || then == Reason.FOR_A_GROUP, () -> v + " " + p);
            } else {
                assertTrue(silent.contains(read), () -> read + " " + v + " " + p);
            }
            if (!v.isInPerson() || v.personId() == p.authorId()) return;
            for (Act act : List.of(Act.EDIT, Act.DELETE, Act.HAND_IN, Act.COMMENT))
                assertEquals(read, AccessEngine.decide(v, act, p, NOW), () -> v + " " + p);
            assertEquals(read, AccessEngine.readComment(v, p, v.personId(), true, true, NOW));
        });
    }

    @Test
    void aRefusalToWriteSaysNoMoreThanThePageOfTheBlog() {
        inWorlds((v, p) -> {
            if (!v.isInPerson()) return;
            Reason page = AccessEngine.readBlog(v, p.blog(), NOW);
            Reason write = AccessEngine.write(v, p.blog(), NOW);
            if (!page.allows()) assertEquals(page, write, () -> v + " " + p.blog());
        });
    }

    @Test
    void aModeratorDecidesOnWhatLiesInThePileAndTakesBackTheOwnDecisions() {
        Viewer moderator = new Viewer(8, false, List.of(new Membership(1, Role.MODERATOR, null, null)));
        Viewer lead = new Viewer(7, false, List.of(new Membership(1, Role.LEAD, null, null)));
        Viewer assistant = new Viewer(6, false, List.of(new Membership(1, Role.ASSISTANT, null, null)));
        assertEquals(Reason.IS_MODERATOR_OF_WAITING, AccessEngine.judge(moderator, 1, true, NOW));
        assertEquals(Reason.NOT_PUBLISHED, AccessEngine.judge(moderator, 1, false, NOW));
        assertEquals(Reason.IS_STAFF, AccessEngine.judge(lead, 1, false, NOW));
        assertEquals(Reason.APPROVERS_ONLY, AccessEngine.judge(assistant, 1, true, NOW));
        assertEquals(Reason.NOT_A_MEMBER, AccessEngine.judge(moderator, 2, true, NOW));
        assertEquals(Reason.ONLY_EYES, AccessEngine.judge(lead.throughLens(1), 1, true, NOW));
        assertEquals(Reason.IS_SELF, AccessEngine.undo(moderator, 1, 8, NOW));
        assertEquals(Reason.NOT_PUBLISHED, AccessEngine.undo(moderator, 1, 7, NOW));
        assertEquals(Reason.IS_STAFF, AccessEngine.undo(lead, 1, 8, NOW));
    }

    @Test
    void aModeratorReadsOfAThreadWhatIsToBeDecided() {
        Viewer moderator = new Viewer(8, false, List.of(new Membership(1, Role.MODERATOR, null, null)));
        Viewer classmate = new Viewer(5, false, List.of(new Membership(1, Role.STUDENT, null, null)));
        BlogFacts blog = new BlogFacts(
                1,
                1,
                Audience.MY_CLASS,
                false,
                BlogKind.SHARED,
                Audience.MY_CLASS,
                BlogFacts.Commenters.CLASS,
                null,
                null,
                null,
                null,
                null);
        PostFacts post = new PostFacts(
                1,
                blog,
                4,
                null,
                State.PUBLISHED,
                true,
                Audience.MY_CLASS,
                NOW,
                null,
                false,
                false,
                true,
                KeptNames.NONE);
        assertTrue(
                AccessEngine.readComment(moderator, post, 5, false, true, NOW).allows());
        assertFalse(
                AccessEngine.readComment(moderator, post, 5, true, false, NOW).allows());
        assertTrue(
                AccessEngine.readComment(classmate, post, 6, true, false, NOW).allows());
        assertFalse(
                AccessEngine.readComment(classmate, post, 6, false, true, NOW).allows());
        assertTrue(
                AccessEngine.readComment(classmate, post, 5, false, true, NOW).allows());
        assertFalse(AccessEngine.readComment(Viewer.STRANGER, post, 0, true, false, NOW)
                .allows());
    }

    @Test
    void anOldDraftIsHandedInByTheRightToWriteAsItIsThen() {
        Instant closing = NOW.plus(Duration.ofHours(1));
        BlogFacts blog = new BlogFacts(
                1,
                1,
                Audience.MY_CLASS,
                false,
                BlogKind.GROUP,
                Audience.MY_CLASS,
                BlogFacts.Commenters.CLASS,
                null,
                10L,
                null,
                null,
                closing);
        PostFacts draft = new PostFacts(1, blog, 4, 11L, State.DRAFT, false, Audience.MY_CLASS);
        Viewer member = new Viewer(4, false, List.of(new Membership(1, Role.STUDENT, 10L, null)));
        Viewer moved = new Viewer(4, false, List.of(new Membership(1, Role.STUDENT, 11L, null)));
        Viewer lead = new Viewer(7, false, List.of(new Membership(1, Role.LEAD, null, null)));
        assertEquals(Reason.BLOG_ALLOWS, AccessEngine.decide(member, Act.HAND_IN, draft, closing.minusNanos(1)));
        assertEquals(Reason.CLOSED, AccessEngine.decide(member, Act.HAND_IN, draft, closing));
        assertEquals(Reason.NOT_YOUR_BLOG, AccessEngine.decide(moved, Act.HAND_IN, draft, NOW));
        assertEquals(Reason.IS_AUTHOR, AccessEngine.decide(moved, Act.EDIT, draft, NOW));
        assertEquals(Reason.IS_STAFF, AccessEngine.decide(lead, Act.HAND_IN, draft, closing));
    }

    @Test
    void namesOfReadersAreForTheClassHeadsForItsGuests() {
        for (Role role : Role.values()) {
            Viewer member = new Viewer(4, false, List.of(new Membership(1, role, null, null)));
            assertEquals(
                    role == Role.GUEST || role == Role.MODERATOR ? Sightline.Detail.HEADS : Sightline.Detail.NAMES,
                    AccessEngine.sightlineDetail(member, 1, NOW));
            assertEquals(Sightline.Detail.AUDIENCE, AccessEngine.sightlineDetail(member, 2, NOW));
        }
        assertEquals(Sightline.Detail.AUDIENCE, AccessEngine.sightlineDetail(Viewer.STRANGER, 1, NOW));
    }

    @Test
    void aFileThatStandsInNoPostIsForStaffAndForThoseToWhomItIsShown() {
        for (Role role : Role.values())
            for (int bits = 0; bits < 8; bits++) {
                FileFacts file = new FileFacts(1, (bits & 1) > 0, (bits & 2) > 0, (bits & 4) > 0);
                Viewer viewer = new Viewer(5, false, List.of(new Membership(1, role, null, null)));
                boolean expected =
                        switch (role) {
                            case MODERATOR -> false;
                            case STUDENT, GUEST -> bits > 0;
                            default -> true;
                        };
                assertEquals(expected, AccessEngine.readFile(viewer, file, NOW).allows(), () -> role + " " + file);
                Viewer left = new Viewer(5, false, List.of(new Membership(1, role, null, NOW)));
                assertFalse(AccessEngine.readFile(left, file, NOW).allows());
                Viewer elsewhere = new Viewer(5, false, List.of(new Membership(2, role, null, null)));
                assertEquals(Reason.NOT_A_MEMBER, AccessEngine.readFile(elsewhere, file, NOW));
                assertEquals(Reason.SIGN_IN_FIRST, AccessEngine.readFile(Viewer.STRANGER, file, NOW));
            }
    }

    @Test
    void namesAreKeptFromEverybodyButThoseWhoWorkForTheClassUntilTheTimeIsOver() {
        Worlds worlds = new Worlds(12);
        for (int i = 0; i < WORLDS; i++) {
            Viewer viewer = worlds.viewer();
            PostFacts post = worlds.post();
            long classId = post.blog().classId();
            boolean works = (viewer.lens() == null || viewer.lens() == classId)
                    && viewer.memberships().stream()
                            .anyMatch(m -> m.classId() == classId
                                    && (m.endedAt() == null || NOW.isBefore(m.endedAt()))
                                    && m.role() != Role.STUDENT
                                    && m.role() != Role.GUEST);
            Instant until = post.names().until();
            boolean kept = !works && until != null && NOW.isBefore(until);
            assertEquals(kept, AccessEngine.keepsNames(viewer, post, NOW), () -> viewer + " " + post);
            boolean own = !viewer.isStranger() && viewer.personId() == post.authorId();
            boolean toldOtherwise = post.blog().kind() == BlogKind.ONE_EACH
                    || post.blog().kind() == BlogKind.JOURNAL
                    || post.names().gathered()
                    || post.names().authorWorks();
            assertEquals(
                    !kept || own || toldOtherwise,
                    AccessEngine.namesAuthor(viewer, post, NOW),
                    () -> viewer + " " + post);
            if (until != null) assertFalse(AccessEngine.keepsNames(viewer, post, until), "that moment is over");
        }
    }

    @Test
    void theLaterOfTwoEndsCounts() {
        Instant later = NOW.plusSeconds(1);
        assertNull(KeptNames.later(null, null));
        assertEquals(NOW, KeptNames.later(NOW, null));
        assertEquals(NOW, KeptNames.later(null, NOW));
        assertEquals(later, KeptNames.later(NOW, later));
        assertEquals(later, KeptNames.later(later, NOW));
        assertEquals(KeptNames.FOR_GOOD, KeptNames.later(KeptNames.FOR_GOOD, later));
    }
}

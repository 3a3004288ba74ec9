package org.vastporch.core.access;

import static org.junit.jupiter.api.Assertions.*;
import static org.vastporch.core.access.Worlds.NOW;

import java.time.Duration;
import java.util.List;
import java.util.function.BiConsumer;
import org.junit.jupiter.api.Test;
import org.vastporch.core.blogs.BlogKind;
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
        if (v.personId() != 0 && v.personId() == p.authorId()) return true;
        Membership here = v.memberships().stream().filter(m -> m.classId() == b.classId() && (m.endedAt() == null || NOW.isBefore(m.endedAt()))).findFirst().orElse(null);
        Role role = here == null ? null : here.role();
        if (role == Role.LEAD || role == Role.CO_TEACHER || role == Role.ASSISTANT) return true;
        if (role == Role.MODERATOR && p.state() == State.WAITING) return true;
        if (!p.hasLive() || p.state() == State.HIDDEN || p.state() == State.BINNED) return false;
        if (b.opensAt() != null && NOW.isBefore(b.opensAt())) return false;
        if (b.closesAt() != null && !NOW.isBefore(b.closesAt())) return false;
        if (b.onlyGroup() != null && (here == null || !b.onlyGroup().equals(here.groupId()))) return false;
        int width = Math.min(Math.min(p.audience().ordinal(), b.widest().ordinal()), b.classCeiling().ordinal());
        if (b.kind() == BlogKind.JOURNAL) width = 0;
        if (b.kind() == BlogKind.GROUP) width = Math.min(width, 2);
        if (width == 4 && b.classOpen()) return true;
        boolean ofSchool = v.keeper() || v.memberships().stream().anyMatch(m -> (m.endedAt() == null || NOW.isBefore(m.endedAt()))
            && m.role() != Role.GUEST && m.role() != Role.MODERATOR);
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
                if (wider.reaches(p.audience()) && reads(v, p))
                    assertTrue(reads(v, new PostFacts(p.id(), p.blog(), p.authorId(), p.authorGroup(), p.state(), p.hasLive(), wider)));
        });
    }

    @Test
    void aGuestNeverReadsWhatAStudentThereCannot() {
        inWorlds((v, p) -> {
            long classId = p.blog().classId();
            Viewer guest = new Viewer(901, false, List.of(new Membership(classId, Role.GUEST, null, null)));
            Viewer student = new Viewer(902, false, List.of(new Membership(classId, Role.STUDENT, null, null)));
            if (reads(guest, p)) assertTrue(reads(student, p), p::toString);
        });
    }

    @Test
    void aStrangerReadsOnlyWhatIsForAnyoneInOpenClasses() {
        inWorlds((v, p) -> {
            if (reads(Viewer.STRANGER, p))
                assertTrue(p.isUp() && p.effectiveAudience() == Audience.ANYONE && p.blog().classOpen(), p::toString);
        });
    }

    @Test
    void moderatorsNeitherMarkNorSeeNamesNorReadWhatDoesNotWait() {
        inWorlds((v, p) -> {
            long classId = p.blog().classId();
            Viewer moderator = new Viewer(903, false, List.of(new Membership(classId, Role.MODERATOR, null, null)));
            assertFalse(AccessEngine.decide(moderator, Act.MARK, p, NOW).allows());
            assertFalse(AccessEngine.seeRealName(moderator, 5, classId, NOW).allows());
            if (reads(moderator, p)) assertTrue(p.state() == State.WAITING || reads(Viewer.STRANGER, p));
        });
    }

    @Test
    void endingAnEnrolmentEndsReadingAtThatMoment() {
        inWorlds((v, p) -> {
            var ended = v.memberships().stream().map(m -> new Membership(m.classId(), m.role(), m.groupId(), NOW)).toList();
            Viewer left = new Viewer(v.personId(), false, ended);
            if (left.personId() != p.authorId()) assertEquals(reads(Viewer.STRANGER, p), reads(left, p));
        });
    }

    @Test
    void onlyStaffAndThePersonSeeARealName() {
        inWorlds((v, p) -> {
            boolean staff = v.in(p.blog().classId(), NOW).map(m -> m.role().readsAsStaff()).orElse(false);
            assertEquals(staff || (v.personId() == 3), AccessEngine.seeRealName(v, 3, p.blog().classId(), NOW).allows());
        });
    }

    @Test
    void saysWhy() {
        BlogFacts own = new BlogFacts(1, 1, Audience.MY_CLASS, false, BlogKind.ONE_EACH, Audience.ANYONE, BlogFacts.Commenters.CLASS,
            4L, null, null, NOW.plus(Duration.ofDays(1)), null);
        PostFacts post = new PostFacts(1, own, 4, null, State.PUBLISHED, true, Audience.ANYONE);
        Viewer classmate = new Viewer(5, false, List.of(new Membership(1, Role.STUDENT, null, null)));
        assertEquals(Reason.NOT_OPEN_YET, AccessEngine.decide(classmate, Act.READ, post, NOW));
        assertEquals(Reason.NOT_YOUR_BLOG, AccessEngine.write(classmate, new BlogFacts(1, 1, Audience.ANYONE, true, BlogKind.ONE_EACH,
            Audience.ANYONE, BlogFacts.Commenters.CLASS, 4L, null, null, null, null), NOW));
        assertEquals(Reason.SIGN_IN_FIRST, AccessEngine.inClass(Viewer.STRANGER, Act.ENTER_CLASS, 1, NOW));
    }

    @Test
    void theSightlineCountsThoseWhomTheEngineLetsIn() {
        BlogFacts blog = new BlogFacts(1, 1, Audience.MY_CLASS, false, BlogKind.ONE_EACH, Audience.MY_CLASS, BlogFacts.Commenters.CLASS, 4L, null, null, null, null);
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
}

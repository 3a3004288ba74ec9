package org.vastporch.server.feeds;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.feeds.GonePosts;
import org.vastporch.core.feeds.OutsideTime;
import org.vastporch.core.feeds.OwnSources;
import org.vastporch.core.prompts.PromptMatch;
import org.vastporch.server.http.Problem;
import org.vastporch.server.moderation.PileItem;
import org.vastporch.server.subscriptions.NewsService;
import org.vastporch.server.writing.AnsweredPromptService;
import org.vastporch.server.writing.OutsideTimeService;
import org.vastporch.standins.Trouble;

/**
 * What people decide about outside blogs and what comes from them: whose, which prompt, which time, what becomes of it.
 */
class SourceDecisionsTest extends IntakeWorld {

    @Test
    void aSourceThatIsEditedGoesOnForSomebodyElse() {
        long source = add("/clinker/feed.xml", null);
        assertEquals(0, waiting().size());
        sources.edit(teacher, source, new SourceService.SourceEdit("Clinker of Tama", student, null));
        assertEquals("Clinker of Tama", view(source).title());
        OUTSIDE.publish("clinker", "After the move " + source, "<p>New</p>");
        sources.refresh(teacher, source);
        assertEquals(
                List.of("After the move " + source),
                waiting().stream().map(PileItem::title).toList(),
                "what came before stays news");
        assertThrows(
                Problem.class,
                () -> sources.edit(access.viewer(student), source, new SourceService.SourceEdit("x", null, null)));
        assertEquals(
                "not-a-student",
                assertThrows(
                                Problem.class,
                                () -> sources.edit(
                                        teacher, source, new SourceService.SourceEdit("x", teacher.personId(), null)))
                        .code());
    }

    /** What is new in it is looked at as a text of the one who wrote it. */
    @Test
    void aChangedPostStaysWithWhomItCameFor() {
        long source = add("/clinker/feed.xml", student);
        PileItem before = waiting().get(0);
        sources.edit(teacher, source, new SourceService.SourceEdit("Clinker", other().personId(), null));
        jdbc.sql("update source_entry set content_hash = 'old' where source_id = :source")
                .param("source", source)
                .update();
        jdbc.sql("update source set etag = null, body_hash = null where id = :source")
                .param("source", source)
                .update();
        sources.refresh(teacher, source);
        PileItem after = waiting().stream()
                .filter(i -> i.id() == before.id())
                .findFirst()
                .orElseThrow();
        assertEquals(2, after.version());
        assertEquals(before.author(), after.author());
        assertEquals(before.holds(), after.holds());
    }

    @Test
    void whoeverTakesASourceOutSaysWhatBecomesOfItsPosts() {
        long source = add("/clinker/feed.xml", student);
        assertTrue(waiting().size() > 0);
        sources.remove(teacher, source, true);
        assertEquals(0, waiting().size());
        assertTrue(sources.ofClass(teacher, classId).isEmpty());
    }

    @Test
    void anAuthorHasTheOwnBlogLookedAtAndNoOther() {
        add("/clinker/feed.xml", student);
        add("/slowtide/feed.xml", null);
        Viewer author = access.viewer(student);
        assertEquals(1, sources.ofAuthor(author, classId).size());
        OUTSIDE.publish("clinker", "Just now " + classId, "<p>Words</p>");
        sources.justPublished(author, classId);
        assertTrue(waiting().stream().anyMatch(i -> i.title().equals("Just now " + classId)));
        for (int i = 0; i < 11; i++) sources.justPublished(author, classId);
        assertThrows(Problem.class, () -> sources.justPublished(author, classId), "an allowance, since it asks others");
        assertThrows(Problem.class, () -> sources.refreshAll(author, classId));
        assertEquals(2, sources.refreshAll(teacher, classId));
    }

    @Test
    void aStudentRegistersAnOwnBlogAsTheClassSays() {
        Viewer tama = access.viewer(student);
        assertEquals("staff-only", refused(() -> own.add(tama, classId, own("/rowlock/feed.xml"))));
        assertEquals("staff-only", refused(() -> own.look(tama, classId, OUTSIDE.base() + "/rowlock/")));
        own.setRule(teacher, classId, OwnSources.ASKED, OwnSources.STAFF_ONLY);
        assertEquals("staff-only", refused(() -> own.add(teacher, classId, own("/rowlock/feed.xml"))));
        assertEquals("only-eyes", refused(() -> own.add(tama.throughLens(classId), classId, own("/rowlock/feed.xml"))));
        assertEquals(
                1,
                own.look(tama, classId, OUTSIDE.base() + "/rowlock/")
                        .candidates()
                        .size());
        long id = own.add(tama, classId, own("/rowlock/feed.xml"));
        assertTrue(view(id).asked());
        assertEquals(student, view(id).personId());
        assertEquals(0, view(id).entries(), "nothing comes before somebody has said yes");
        sources.refreshAll(teacher, classId);
        assertEquals("source-asked", refused(() -> sources.refresh(teacher, id)));
        sources.justPublished(tama, classId);
        assertEquals(List.of(), waiting());
        sources.setPaused(teacher, id, false);
        assertFalse(view(id).asked());
        sources.refresh(teacher, id);
        assertTrue(view(id).entries() > 0);
        assertEquals(view(id).entries(), waiting().size(), "its posts are looked at as others are");
        assertEquals("source-added", refused(() -> own.takeBack(tama, id)));
    }

    @Test
    void whatStillWaitsIsTakenBackByItsStudentAlone() {
        Viewer tama = access.viewer(student);
        own.setRule(teacher, classId, OwnSources.ASKED, OwnSources.STAFF_ONLY);
        long id = own.add(tama, classId, own("/rowlock/feed.xml"));
        assertEquals("not-there", refused(() -> own.takeBack(teacher, id)));
        own.takeBack(tama, id);
        assertEquals(List.of(), sources.ofAuthor(tama, classId));
        own.setRule(teacher, classId, OwnSources.FREE, OwnSources.ASKED);
        long again = own.add(tama, classId, own("/rowlock/feed.xml"));
        assertFalse(view(again).asked());
        assertTrue(view(again).entries() > 0);
        assertEquals(view(again).entries(), waiting().size(), "where the class trusts, it comes in at once");
        assertEquals("source-known", refused(() -> own.add(tama, classId, own("/rowlock/feed.xml"))));
        own.add(tama, classId, own("/oakum/feed.xml"));
        own.add(tama, classId, own("/clinker/feed.xml"));
        assertEquals("too-many-sources", refused(() -> own.add(tama, classId, own("/saltwort/feed.xml"))));
    }

    /** An outside server takes its time: what the class says when its entries are here is what counts. */
    @Test
    void aRuleThatChangesWhileABlogIsFetchedCounts() {
        Viewer tama = access.viewer(student);
        own.setRule(teacher, classId, OwnSources.FREE, OwnSources.STAFF_ONLY);
        OUTSIDE.whenAskedNext(() -> own.setRule(teacher, classId, OwnSources.ASKED, OwnSources.FREE));
        long id = own.add(tama, classId, own("/rowlock/feed.xml"));
        assertTrue(view(id).asked());
        assertEquals(List.of(), waiting());
        OUTSIDE.whenAskedNext(() -> own.setRule(teacher, classId, OwnSources.STAFF_ONLY, OwnSources.ASKED));
        assertEquals("staff-only", refused(() -> own.add(tama, classId, own("/oakum/feed.xml"))));
        assertEquals(
                "rule-changed",
                refused(() -> own.setRule(teacher, classId, OwnSources.FREE, OwnSources.ASKED)),
                "a second teacher who saw another rule");
    }

    /** What a person says of a post holds, whatever its blog says later. */
    @Test
    void aPersonSaysWhichPromptAPostAnswersAndThatStays() {
        long source = add("/rowlock/feed.xml", student);
        long post = jdbc.sql("select min(id) from post where source_id = :id")
                .param("id", source)
                .query(Long.class)
                .single();
        Viewer tama = access.viewer(student);
        assertNull(answered.get(tama, post).promptId());
        assertNull(answered.get(tama, post).by());
        long prompt = prompt("Oars", 0);
        long later = prompt("Later", 5);
        assertEquals(
                List.of("Oars"),
                answered.get(tama, post).choices().stream().map(c -> c.title()).toList(),
                "nothing of a prompt that has not opened");
        assertEquals("prompt-unknown", refused(() -> answered.set(tama, post, later)));
        assertEquals("prompt-unknown", refused(() -> answered.set(tama, post, 999_999L)));
        assertEquals(prompt, answered.set(tama, post, prompt).promptId());
        assertEquals(PromptMatch.By.PERSON, answered.get(teacher, post).by());
        assertEquals(
                List.of(post),
                answered.ofPrompt(teacher, prompt).stream()
                        .map(AnsweredPromptService.OutsideAnswer::postId)
                        .toList());
        assertEquals(
                1,
                sources.entries(teacher, source).stream()
                        .filter(e -> "Oars".equals(e.prompt()))
                        .count());
        assertThrows(Problem.class, () -> answered.ofPrompt(tama, prompt));
        OUTSIDE.publish("rowlock", "Another knot " + post, "<p>Round and round.</p>");
        sources.refresh(teacher, source);
        assertEquals(prompt, answered.get(teacher, post).promptId(), "a later look changes nothing");
        answered.set(teacher, post, null);
        assertNull(answered.get(tama, post).promptId());
        assertEquals(PromptMatch.By.PERSON, answered.get(tama, post).by());
        assertEquals("only-eyes", refused(() -> answered.set(tama.throughLens(classId), post, prompt)));
        assertThrows(Problem.class, () -> answered.get(Viewer.STRANGER, post));
        long here = posts.begin(tama, blogs.homeOf(classId, student).orElseThrow(), null);
        assertEquals(List.of(), answered.get(tama, here).choices(), "a draft answers what it was begun for");
    }

    /** Whose blog it is and those who manage the class are told once; nobody else is. */
    @Test
    void aBlogThatCannotBeReadForDaysIsNewsOnce() {
        long source = add("/rowlock/feed.xml", student);
        Viewer tama = access.viewer(student);
        OUTSIDE.trouble("rowlock", Trouble.PAGE);
        sources.refresh(teacher, source);
        assertEquals(List.of(), sourceNews(tama));
        jdbc.sql("update source set faltering_since = dateadd('DAY', -3, faltering_since) where id = :id")
                .param("id", source)
                .update();
        sources.refresh(teacher, source);
        sources.refresh(teacher, source);
        assertEquals(List.of("/classes/" + classId + "/my-writing"), sourceNews(tama));
        assertEquals(List.of("/classes/" + classId + "/sources"), sourceNews(teacher));
        assertEquals(List.of(), sourceNews(other()), "a classmate");
        sources.remove(teacher, source, false);
        assertEquals(List.of(), sourceNews(tama), "what was taken out is no news");
    }

    /** Who blogs where: what is gathered, what rests, what is private; nothing of what still waits for a yes. */
    @Test
    void theDirectoryKnowsWhoBlogsWhereOutside() {
        long gathered = add("/rowlock/feed.xml", student);
        sources.setPaused(teacher, add("/oakum/feed.xml", null), true);
        Viewer tama = access.viewer(student);
        own.setRule(teacher, classId, OwnSources.ASKED, OwnSources.STAFF_ONLY);
        own.add(tama, classId, own("/clinker/feed.xml"));
        long note = directory.note(
                teacher,
                classId,
                new OutsideDirectoryService.PrivateWish("members.example/blog", " Behind a door ", student));
        assertEquals(
                List.of("GATHERED true", "PRIVATE true", "RESTING false"),
                directory.list(tama, classId).stream()
                        .map(l -> l.gathering() + " " + (l.person() != null))
                        .sorted()
                        .toList());
        OutsideDirectoryService.OutsideLine line = directory.list(tama, classId).stream()
                .filter(l -> l.note() != null)
                .findFirst()
                .orElseThrow();
        assertEquals("Behind a door", line.title());
        assertEquals("https://members.example/blog", line.address());
        assertEquals(
                "source-known",
                refused(() -> directory.note(
                        teacher,
                        classId,
                        new OutsideDirectoryService.PrivateWish("https://members.example/blog", "Again", null))));
        assertThrows(Problem.class, () -> directory.remove(tama, note));
        assertThrows(Problem.class, () -> directory.list(Viewer.STRANGER, classId));
        directory.remove(teacher, note);
        sources.remove(teacher, gathered, false);
        assertEquals(1, directory.list(tama, classId).size());
    }

    /** A post that its site says twice, a day apart, not to have: staff are asked, or the class has said it for all. */
    @Test
    void whatIsTakenAwayOutsideIsMarkedAndStaffSayWhatBecomesOfIt() {
        OUTSIDE.publish("netshed", "Lost " + classId, "<p>Not for long.</p>");
        OUTSIDE.publish("netshed", "Lost too " + classId, "<p>Nor this.</p>");
        long source = add("/netshed/feed.xml", student);
        OUTSIDE.takeAway("netshed", "lost-" + classId);
        sources.refresh(teacher, source);
        assertEquals(List.of(), gone(), "once is not enough");
        aDayLater(source);
        sources.refresh(teacher, source);
        assertEquals(List.of("Lost " + classId), gone());
        Viewer tama = access.viewer(student);
        assertThrows(Problem.class, () -> goneOnes.ofClass(tama, classId));
        long post = goneOnes.ofClass(teacher, classId).posts().get(0).postId();
        assertThrows(Problem.class, () -> goneOnes.settle(tama, post, true));
        goneOnes.settle(teacher, post, false);
        assertEquals(List.of(), gone());
        assertEquals("WAITING", state(post), "it stays where it stood");

        goneOnes.setRule(teacher, classId, GonePosts.HIDE, GonePosts.ASK);
        assertEquals("rule-changed", refused(() -> goneOnes.setRule(teacher, classId, GonePosts.KEEP, GonePosts.ASK)));
        OUTSIDE.takeAway("netshed", "lost-too-" + classId);
        sources.refresh(teacher, source);
        aDayLater(source);
        sources.refresh(teacher, source);
        long hidden = jdbc.sql("select post_id from source_entry where source_id = :id and title like 'Lost too%'")
                .param("id", source)
                .query(Long.class)
                .single();
        assertEquals("HIDDEN", state(hidden));
        assertEquals(List.of(), gone(), "there is nothing to ask");
        long other = jdbc.sql("select post_id from source_entry where source_id = :id and title like 'A bowline%'")
                .param("id", source)
                .query(Long.class)
                .single();
        assertEquals("not-gone", refused(() -> goneOnes.settle(teacher, other, true)));
    }

    /** Anybody can write any date into a feed: one that was seen here much later counts once a person says so. */
    @Test
    void aTimeThatWasSeenLateIsDecidedByAPerson() {
        LocalDateTime now = LocalDateTime.now();
        long prompt = prompt("Knots", now.minusDays(9), now.minusDays(3));
        long source = add("/rowlock/feed.xml", student);
        Viewer tama = access.viewer(student);
        List<Long> old = jdbc.sql("select id from post where source_id = :id order by handed_in_at")
                .param("id", source)
                .query(Long.class)
                .list();
        long post = old.stream()
                .filter(id -> {
                    answered.set(teacher, id, prompt);
                    return times.get(teacher, id).asked();
                })
                .findFirst()
                .orElseThrow();
        OutsideTimeService.OutsideTimeView view = times.get(tama, post);
        assertEquals(0, view.daysLateSays());
        assertTrue(view.daysLateSeen() >= 3, () -> view.toString());
        assertEquals(OutsideTime.Counts.SAYS, view.counts(), "what nobody has decided is not held against its author");
        assertFalse(view.mayDecide());
        assertThrows(Problem.class, () -> times.decide(tama, post, OutsideTime.Counts.SAYS, view.rev()));
        OutsideTimeService.OutsideTimeView decided =
                times.decide(teacher, post, OutsideTime.Counts.FIRST_SEEN, view.rev());
        assertFalse(decided.asked());
        assertEquals(handedIn(post), decided.firstSeen());
        assertEquals(
                "post-changed",
                refused(() -> times.decide(teacher, post, OutsideTime.Counts.SAYS, view.rev())),
                "a second teacher who saw it undecided");
        OUTSIDE.publish("rowlock", "One more knot " + post, "<p>Round.</p>");
        sources.refresh(teacher, source);
        assertEquals(handedIn(post), decided.firstSeen(), "a later look changes nothing");
        times.decide(teacher, post, OutsideTime.Counts.SAYS, decided.rev());
        assertEquals(handedIn(post), view.says());
        long newest = jdbc.sql("select max(id) from post where source_id = :id")
                .param("id", source)
                .query(Long.class)
                .single();
        answered.set(teacher, newest, prompt);
        assertFalse(times.get(teacher, newest).asked(), "seen as soon as it was written");
        long here = posts.begin(tama, blogs.homeOf(classId, student).orElseThrow(), null);
        assertEquals("not-there", refused(() -> times.get(tama, here)), "a post written here has one time");
        assertThrows(Problem.class, () -> times.get(Viewer.STRANGER, post));
    }

    private SourceService.WantedSource own(String feed) {
        return SourceService.WantedSource.of(OUTSIDE.base() + feed, "", "", "", null);
    }

    private static String refused(Runnable act) {
        return assertThrows(Problem.class, act::run).code();
    }

    private List<String> sourceNews(Viewer viewer) {
        return news.news(viewer, 14).items().stream()
                .filter(i -> i.kind().equals("SOURCE"))
                .map(NewsService.NewsItem::to)
                .toList();
    }

    private Viewer other() {
        rosters.importRows(
                teacher,
                classId,
                rosters.preview(teacher, classId, "Name,Number\nPia Aurelio,P" + NUMBER.get(), List.of())
                        .rows());
        return access.viewer(people.students(classId).stream()
                .filter(s -> s != student)
                .findFirst()
                .orElseThrow());
    }

    private List<String> gone() {
        return goneOnes.ofClass(teacher, classId).posts().stream()
                .map(GonePostService.GoneLine::title)
                .toList();
    }

    private String state(long post) {
        return jdbc.sql("select state from post where id = :id")
                .param("id", post)
                .query(String.class)
                .single();
    }

    private void aDayLater(long source) {
        jdbc.sql("update source_entry set missed_at = dateadd('DAY', -1, missed_at), look_at = dateadd('DAY', -1,"
                        + " look_at) where source_id = :id and missed_at is not null")
                .param("id", source)
                .update();
    }

    private Instant handedIn(long post) {
        return jdbc.sql("select handed_in_at from post where id = :id")
                .param("id", post)
                .query(OffsetDateTime.class)
                .single()
                .toInstant();
    }
}

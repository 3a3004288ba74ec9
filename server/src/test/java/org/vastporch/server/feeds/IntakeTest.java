package org.vastporch.server.feeds;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.http.Problem;
import org.vastporch.server.moderation.PileItem;
import org.vastporch.server.writing.PostService;
import org.vastporch.standins.Trouble;

/** Outside posts coming in: each once, changed ones again, and in words when something is wrong. */
class IntakeTest extends IntakeWorld {

    @Test
    void eachEntryComesOnceAndWaitsLikeAPostWrittenHere() {
        long source = add("/rowlock/feed.xml", student);
        int first = waiting().size();
        assertTrue(first >= 3);
        assertEquals("Tama Kowhai", waiting().get(0).author());
        assertNotNull(waiting().get(0).outside());
        sources.refresh(teacher, source);
        assertEquals(first, waiting().size(), "the same entries again change nothing");
        OUTSIDE.publish("rowlock", "One more " + source, "<p>New</p><script>harm()</script>");
        sources.refresh(teacher, source);
        PileItem fresh = waiting().stream()
                .filter(i -> i.title().equals("One more " + source))
                .findFirst()
                .orElseThrow();
        assertEquals("<p>New</p>", fresh.html());
        assertEquals("LIVELY", view(source).health());
    }

    @Test
    void aChangedEntryIsLookedAtAgain() {
        long source = add("/clinker/feed.xml", student);
        int many = waiting().size();
        String title = waiting().get(0).title();
        jdbc.sql("update source_entry set content_hash = 'old' where source_id = :source and title = :title")
                .param("source", source)
                .param("title", title)
                .update();
        jdbc.sql("update source set etag = null, body_hash = null where id = :source")
                .param("source", source)
                .update();
        sources.refresh(teacher, source);
        PileItem again = waiting().stream()
                .filter(i -> i.title().equals(title))
                .findFirst()
                .orElseThrow();
        assertEquals(2, again.version());
        assertEquals(many, waiting().size(), "it is the same post, not another one");
    }

    /** Half of a feed is half of an entry at its end: nothing that is known is cut by it. */
    @Test
    void halfAFeedLosesNothingAndIsSaidToBeUntidy() {
        long source = add("/rowlock/feed.xml", student);
        List<String> before = waiting().stream().map(PileItem::html).toList();
        assertFalse(view(source).untidy());
        OUTSIDE.trouble("rowlock", Trouble.BROKEN);
        sources.refresh(teacher, source);
        assertEquals("LIVELY", view(source).health());
        assertTrue(view(source).untidy());
        assertEquals(before, waiting().stream().map(PileItem::html).toList());
        OUTSIDE.trouble("rowlock", Trouble.NONE);
        sources.refresh(teacher, source);
        assertFalse(view(source).untidy());
        assertEquals(before, waiting().stream().map(PileItem::html).toList());
    }

    @Test
    void aSourceThatAnswersWithAPageFaltersAndIsSaidInWords() {
        long source = add("/rowlock/feed.xml", student);
        int before = waiting().size();
        Instant next = view(source).nextCheck();
        OUTSIDE.trouble("rowlock", Trouble.PAGE);
        sources.refresh(teacher, source);
        assertEquals("FALTERING", view(source).health());
        assertEquals("It answers with a page instead of a feed.", view(source).lastError());
        assertEquals(before, waiting().size());
        OUTSIDE.trouble("rowlock", Trouble.NONE);
        sources.refresh(teacher, source);
        assertEquals("LIVELY", view(source).health());
        assertNull(view(source).lastError());
        assertTrue(view(source).nextCheck().isAfter(next.minusSeconds(86_400)));
    }

    @Test
    void newsStandsBesideAndNeverInThePile() {
        add("/slowtide/feed.xml", null);
        assertEquals(0, waiting().size());
        assertEquals(
                "Frost is likely on Friday night",
                sources.news(teacher, classId).get(0).title());
    }

    @Test
    void aSourceIsGatheredOnce() {
        add("/clinker/feed.xml", student);
        assertTrue(waiting().stream().allMatch(i -> i.prompt() == null));
        assertThrows(RuntimeException.class, () -> add("/clinker/feed.xml", student), "a source is gathered once");
    }

    /** What a student may paste, what it is called, and whether the very post was found. */
    @ParameterizedTest
    @CsvSource({
        "/rowlock/rope-for-beans, SINGLE_POST, true",
        "/rowlock/rope-for-beans?utm_source=mail#end, SINGLE_POST, true",
        "/rowlock/, SITE_WITH_FEEDS, false",
        "/rowlock/feed.xml, FEED, false",
        "/oakum/how-tight-is-tight/edit, EDITING_ADDRESS, false",
        "/members/, SIGN_IN_PAGE, false"
    })
    void saysWhatAStudentPasted(String path, String kind, boolean exact) {
        ElsewhereService.Elsewhere found = elsewhere.look(access.viewer(student), home(), OUTSIDE.base() + path);
        assertEquals(kind, found.kind(), found.sentence());
        assertEquals(exact, found.exact() != null, found.sentence());
        assertEquals(
                kind.equals("SIGN_IN_PAGE"),
                found.exact() == null && found.posts().isEmpty(),
                "others are offered");
        if (exact)
            assertEquals(
                    OUTSIDE.base() + "/rowlock/rope-for-beans", found.exact().address());
    }

    @Test
    void aPostThatIsBroughtInIsADraftAndItsFeedMakesNoSecondOne() {
        Viewer author = access.viewer(student);
        String address = OUTSIDE.base() + "/rowlock/rope-for-beans";
        long draft = elsewhere.bring(author, home(), null, address);
        assertEquals(
                draft, elsewhere.bring(author, home(), null, address + "/?utm_source=x"), "the same post once more");
        PostService.Draft text = posts.draft(author, draft);
        assertFalse(text.title().isBlank());
        assertFalse(text.html().contains("<h1"), "the title stands once");
        assertTrue(waiting().isEmpty(), "nothing is handed in for anybody");
        add("/rowlock/feed.xml", student);
        assertTrue(waiting().stream().noneMatch(i -> i.title().equals(text.title())), "the feed knows it");
        Problem problem =
                assertThrows(Problem.class, () -> elsewhere.bring(author, home(), null, OUTSIDE.base() + "/rowlock/"));
        assertEquals("no-post-there", problem.code());
        assertThrows(Problem.class, () -> elsewhere.look(Viewer.STRANGER, home(), address));
    }

    /** Before: they overwrote each other at each check, and what was approved went back to waiting each time. */
    @Test
    void entriesThatShareAnIdAreTwoPostsAndStayAsTheyAre() {
        long source = add("/hostile/same-id.xml", student);
        assertEquals(
                List.of("Ash", "Oak"),
                waiting().stream().map(PileItem::title).sorted().toList());
        List<Integer> versions = waiting().stream().map(PileItem::version).toList();
        jdbc.sql("update source set etag = null where id = :source")
                .param("source", source)
                .update();
        sources.refresh(teacher, source);
        sources.refresh(teacher, source);
        assertEquals(versions, waiting().stream().map(PileItem::version).toList());
    }

    @Test
    void whatIsNoAddressOfAPageIsNoLink() {
        add("/hostile/links.xml", student);
        assertEquals(3, waiting().size());
        for (String column : List.of("link", "clean_link"))
            assertEquals(
                    List.of("", "", ""),
                    jdbc.sql(
                                    "select e." + column
                                            + " from source_entry e join source s on s.id = e.source_id where s.class_id = :class")
                            .param("class", classId)
                            .query(String.class)
                            .list());
    }

    @Test
    void ofASourceThatCannotBeReadNothingIsKeptUnlessItIsToBeTriedAgain() {
        for (String address : List.of(
                OUTSIDE.base() + "/nothing-here",
                "http://nowhere.invalid/feed.xml",
                OUTSIDE.base() + "/rowlock/",
                "http://10.0.0.1/feed.xml",
                OUTSIDE.base() + "/hostile/file")) {
            SourceService.WantedSource wanted = SourceService.WantedSource.of(address, "", "", "", student);
            Problem problem = assertThrows(Problem.class, () -> sources.add(teacher, classId, wanted));
            assertEquals("source-unread", problem.code(), problem.getMessage());
            assertTrue(problem.getMessage().endsWith("It was not added."), problem.getMessage());
        }
        assertEquals(0, sources.ofClass(teacher, classId).size());
        long source = sources.add(
                teacher,
                classId,
                new SourceService.WantedSource(
                        "http://nowhere.invalid/feed.xml", "", "", "", student, null, null, true));
        assertEquals("FALTERING", view(source).health());
        assertEquals(
                "There is no server of the name nowhere.invalid.", view(source).lastError());
        assertTrue(view(source).nextCheck().isAfter(Instant.now().plusSeconds(12 * 60)), "left in peace for a while");
    }

    @Test
    void aSourceRestsAndGoesOn() {
        long source = add("/clinker/feed.xml", student);
        sources.setPaused(teacher, source, true);
        assertTrue(view(source).paused());
        assertThrows(Problem.class, () -> sources.setPaused(access.viewer(student), source, false));
        sources.setPaused(teacher, source, false);
        assertFalse(view(source).paused());
        assertFalse(view(source).nextCheck().isAfter(Instant.now()), "it is looked at at once");
    }

    @Test
    void whatCameFromASourceThatIsTakenOutStaysAndComesNoSecondTime() {
        long source = add("/rowlock/feed.xml", student);
        int came = waiting().size();
        assertThrows(Problem.class, () -> sources.remove(access.viewer(student), source, false));
        sources.remove(teacher, source, false);
        assertEquals(List.of(), sources.ofClass(teacher, classId));
        assertEquals(came, waiting().size());
        assertThrows(Problem.class, () -> sources.refresh(teacher, source));
        assertThrows(Problem.class, () -> sources.remove(teacher, source, false));
        add("/rowlock/feed.xml", student);
        assertEquals(came, waiting().size(), "added again, its posts are known");
    }

    @Test
    void whatComesBeginsOnADayAndLeavesOutWhatWasNotTicked() {
        SourceFinder.Candidate there = sources.look(teacher, classId, OUTSIDE.base() + "/clinker/feed.xml")
                .candidates()
                .get(0);
        SourceFinder.EntryPreview unwanted = there.preview().get(0);
        long source = addFrom("/clinker/feed.xml", null, List.of(unwanted.key()));
        assertEquals(there.entries() - 1, waiting().size());
        assertTrue(waiting().stream().noneMatch(i -> i.title().equals(unwanted.title())));
        SourceService.EntryLine line = sources.entries(teacher, source).stream()
                .filter(SourceService.EntryLine::leftOut)
                .findFirst()
                .orElseThrow();
        assertEquals(unwanted.title(), line.title());
        sources.refresh(teacher, source);
        assertEquals(there.entries() - 1, waiting().size(), "what was left out stays out");
        sources.setLeftOut(teacher, source, line.key(), false);
        sources.refresh(teacher, source);
        assertEquals(there.entries(), waiting().size(), "until it is let in");
        assertEquals(
                "entry-is-post",
                assertThrows(Problem.class, () -> sources.setLeftOut(teacher, source, line.key(), true))
                        .code());
        sources.remove(teacher, source, false);
        long later = addFrom("/clinker/feed.xml", LocalDate.now().plusDays(1), null);
        assertTrue(sources.entries(teacher, later).stream().allMatch(SourceService.EntryLine::leftOut));
        assertEquals(0, view(later).entries());
    }

    /** A feed that carries only beginnings is completed from the pages of its entries, once; else it says so. */
    @Test
    void aBeginningIsCompletedFromItsOwnPageOrSaysSo() {
        OUTSIDE.trouble("netshed", Trouble.BEGINNINGS);
        long source = add("/netshed/feed.xml", student);
        assertEquals(List.of("COMPLETED", "COMPLETED"), excerpts(source));
        String whole = jdbc.sql("select v.html from post p join post_version v on v.post_id = p.id"
                        + " where p.source_id = :id and v.title = 'A bowline for every day'")
                .param("id", source)
                .query(String.class)
                .single();
        assertTrue(whole.contains("The others I do not speak of.") && !whole.contains("Read on"), whole);
        int versions = versions(source);
        sources.refresh(teacher, source);
        OUTSIDE.publish("netshed", "A hitch " + source, "<p>Round the post.</p>");
        sources.refresh(teacher, source);
        assertEquals(versions + 1, versions(source), "what is completed stays as it is");
        assertEquals(
                List.of("COMPLETED", "COMPLETED", "COMPLETED"), excerpts(source), "its page has no more than its feed");
        OUTSIDE.trouble("netshed", Trouble.NONE);
        sources.refresh(teacher, source);
        assertEquals(List.of(), excerpts(source), "a feed that carries the whole again");
        assertEquals(
                List.of("BEGINNING"),
                excerpts(add("/hostile/beginning.xml", student)),
                "one has to sign in to read it");
    }

    /** What was here whole stays whole, whatever its feed carries later. */
    @Test
    void aBeginningDoesNotTakeThePlaceOfTheWhole() {
        long source = add("/netshed/feed.xml", student);
        int versions = versions(source);
        OUTSIDE.trouble("netshed", Trouble.BEGINNINGS_OF_LOST_PAGES);
        sources.refresh(teacher, source);
        assertEquals(versions, versions(source));
        assertEquals(List.of(), excerpts(source));
    }

    /** Several who gather one address are served by one fetch; each keeps what is theirs. */
    @Test
    void anAddressThatSeveralGatherIsFetchedOnce() {
        long mine = add("/clinker/feed.xml", student);
        Viewer otherTeacher = teacher;
        long firstClass = classId;
        makeClass();
        long theirs = add("/clinker/feed.xml", student);
        long resting = add("/rowlock/feed.xml", student);
        sources.setPaused(teacher, resting, true);
        OUTSIDE.publish("clinker", "For all " + theirs, "<p>One fetch.</p>");
        int before = OUTSIDE.fetches("clinker");
        sources.refresh(otherTeacher, mine);
        assertEquals(before + 1, OUTSIDE.fetches("clinker"));
        assertEquals(
                List.of(1, 1),
                List.of(firstClass, classId).stream()
                        .map(id -> jdbc.sql("select count(*) from post p join post_version v on v.post_id = p.id"
                                        + " where p.class_id = :id and v.title like 'For all%'")
                                .param("id", id)
                                .query(Integer.class)
                                .single())
                        .toList());
    }

    private long home() {
        return blogs.homeOf(classId, student).orElseThrow();
    }

    private long addFrom(String feed, LocalDate from, List<String> without) {
        return sources.add(
                teacher,
                classId,
                new SourceService.WantedSource(OUTSIDE.base() + feed, "", "", "", student, from, without, null));
    }

    private List<String> excerpts(long source) {
        return jdbc.sql("select excerpt from post where source_id = :id and excerpt is not null order by published_at"
                        + " desc, id desc")
                .param("id", source)
                .query(String.class)
                .list();
    }

    private int versions(long source) {
        return jdbc.sql("select count(*) from post_version v join post p on p.id = v.post_id where p.source_id = :id")
                .param("id", source)
                .query(Integer.class)
                .single();
    }
}

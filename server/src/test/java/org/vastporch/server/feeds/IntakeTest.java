package org.vastporch.server.feeds;

import static org.junit.jupiter.api.Assertions.*;

import java.math.BigDecimal;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;
import org.vastporch.core.access.BlogFacts.Commenters;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.blogs.BlogKind;
import org.vastporch.core.feeds.GonePosts;
import org.vastporch.core.feeds.OutsideTime;
import org.vastporch.core.feeds.OwnSources;
import org.vastporch.core.feeds.PromptMatch;
import org.vastporch.core.people.PersonName;
import org.vastporch.core.writing.HandIn;
import org.vastporch.server.ServerTest;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.blogs.BlogService;
import org.vastporch.server.blogs.BlogSetup;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.enrolment.RosterService;
import org.vastporch.server.http.Problem;
import org.vastporch.server.moderation.PileFilter;
import org.vastporch.server.moderation.PileItem;
import org.vastporch.server.moderation.PileService;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.subscriptions.NewsService;
import org.vastporch.server.writing.AnsweredPromptService;
import org.vastporch.server.writing.OutsideTimeService;
import org.vastporch.server.writing.PostService;
import org.vastporch.standins.OutsideHost;
import org.vastporch.standins.Trouble;

/** Outside posts coming in: each once, changed ones again, and in words when something is wrong. */
@ServerTest
class IntakeTest {

    static final OutsideHost OUTSIDE = new OutsideHost(0, Instant.now());
    private static final AtomicInteger NUMBER = new AtomicInteger();

    @Autowired
    SourceService sources;

    @Autowired
    OwnSourceService own;

    @Autowired
    AnsweredPromptService answered;

    @Autowired
    OutsideTimeService times;

    @Autowired
    NewsService news;

    @Autowired
    OutsideDirectoryService directory;

    @Autowired
    GonePostService goneOnes;

    @Autowired
    PromptService prompts;

    @Autowired
    ElsewhereService elsewhere;

    @Autowired
    PostService posts;

    @Autowired
    PileService pile;

    @Autowired
    PeopleService people;

    @Autowired
    ClassService classes;

    @Autowired
    RosterService rosters;

    @Autowired
    BlogService blogs;

    @Autowired
    AccessService access;

    @Autowired
    JdbcClient jdbc;

    Viewer teacher;
    long classId;
    long student;

    @DynamicPropertySource
    static void allow(DynamicPropertyRegistry registry) {
        registry.add("vastporch.feeds.allowed-private-hosts", OUTSIDE::hostAndPort);
    }

    @BeforeEach
    void makeClass() {
        for (String site : List.of("rowlock", "clinker", "oakum", "netshed")) OUTSIDE.trouble(site, Trouble.NONE);
        long lead = people.addStaff(
                Viewer.STRANGER, "Mr", new PersonName("Vantongeren" + NUMBER.incrementAndGet(), "Osric"), "", true);
        classId = classes.create(
                access.viewer(lead),
                new ClassService.NewClass(
                        "Boats",
                        "",
                        "",
                        "Europe/London",
                        LocalDate.now().minusDays(30),
                        LocalDate.now().plusDays(30),
                        List.of()));
        teacher = access.viewer(lead);
        blogs.create(
                teacher,
                classId,
                BlogSetup.of(BlogKind.ONE_EACH, "Log of {name}", "", Audience.MY_CLASS, Commenters.CLASS));
        rosters.importRows(
                teacher,
                classId,
                rosters.preview(teacher, classId, "Name,Number\nTama Kowhai,T" + NUMBER.get(), List.of())
                        .rows());
        student = people.students(classId).get(0);
    }

    private long add(String feed, Long person) {
        return sources.add(teacher, classId, SourceService.WantedSource.of(OUTSIDE.base() + feed, "", "", "", person));
    }

    private List<PileItem> waiting() {
        return pile.pile(teacher, new PileFilter(null, "", 200)).items();
    }

    private SourceService.SourceView view(long id) {
        return sources.ofClass(teacher, classId).stream()
                .filter(s -> s.id() == id)
                .findFirst()
                .orElseThrow();
    }

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

    private long home() {
        return blogs.homeOf(classId, student).orElseThrow();
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

    private long addFrom(String feed, LocalDate from, List<String> without) {
        return sources.add(
                teacher,
                classId,
                new SourceService.WantedSource(OUTSIDE.base() + feed, "", "", "", student, from, without, null));
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

    private SourceService.WantedSource own(String feed) {
        return SourceService.WantedSource.of(OUTSIDE.base() + feed, "", "", "", null);
    }

    private static String refused(Runnable act) {
        return assertThrows(Problem.class, act::run).code();
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
        assertEquals("not-there", refused(() -> answered.get(tama, here)), "a post written here has its own prompt");
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

    private Instant handedIn(long post) {
        return jdbc.sql("select handed_in_at from post where id = :id")
                .param("id", post)
                .query(OffsetDateTime.class)
                .single()
                .toInstant();
    }

    private long prompt(String title, int opensInDays) {
        LocalDateTime now = LocalDateTime.now();
        return prompt(title, opensInDays == 0 ? null : now.plusDays(opensInDays), now.plusDays(9));
    }

    private long prompt(String title, LocalDateTime opens, LocalDateTime due) {
        return prompts.set(
                teacher,
                classId,
                new PromptService.WantedPrompt(
                        title,
                        "Write.",
                        List.of(),
                        null,
                        opens,
                        due,
                        0,
                        BigDecimal.ZERO,
                        BigDecimal.ZERO,
                        BigDecimal.TEN,
                        new HandIn.Asked(0, 0, 0, 0, 0, 0, 0),
                        null,
                        null,
                        null,
                        false,
                        null));
    }
}

package org.vastporch.server.feeds;

import static org.junit.jupiter.api.Assertions.*;

import java.math.BigDecimal;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.BeforeEach;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;
import org.vastporch.core.access.BlogFacts.Commenters;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.blogs.BlogKind;
import org.vastporch.core.people.PersonName;
import org.vastporch.core.writing.HandIn;
import org.vastporch.server.ServerTest;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.blogs.BlogService;
import org.vastporch.server.blogs.BlogSetup;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.enrolment.RosterService;
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

/** A class with a student who has a blog, beside the host that stands for the outside world. */
@ServerTest
abstract class IntakeWorld {

    static final OutsideHost OUTSIDE = new OutsideHost(0, Instant.now());
    static final AtomicInteger NUMBER = new AtomicInteger();

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

    long add(String feed, Long person) {
        return sources.add(teacher, classId, SourceService.WantedSource.of(OUTSIDE.base() + feed, "", "", "", person));
    }

    List<PileItem> waiting() {
        return pile.pile(teacher, new PileFilter(null, "", 200)).items();
    }

    SourceService.SourceView view(long id) {
        return sources.ofClass(teacher, classId).stream()
                .filter(s -> s.id() == id)
                .findFirst()
                .orElseThrow();
    }

    long prompt(String title, int opensInDays) {
        LocalDateTime now = LocalDateTime.now();
        return prompt(title, opensInDays == 0 ? null : now.plusDays(opensInDays), now.plusDays(9));
    }

    long prompt(String title, LocalDateTime opens, LocalDateTime due) {
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
                        null,
                        BigDecimal.TEN,
                        HandIn.Asked.NOTHING,
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        null));
    }
}

package org.vastporch.demo;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.time.Clock;
import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.time.temporal.TemporalAdjusters;
import java.util.List;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.BlogFacts.Commenters;
import org.vastporch.core.access.Role;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.blogs.BlogKind;
import org.vastporch.core.blogs.BlogSettings;
import org.vastporch.core.blogs.BlogSettings.Grouping;
import org.vastporch.core.blogs.BlogSettings.Look;
import org.vastporch.core.classes.ClassRules;
import org.vastporch.core.moderation.Policy;
import org.vastporch.core.people.PersonName;
import org.vastporch.core.writing.Tool;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.blogs.BlogForm;
import org.vastporch.server.blogs.BlogService;
import org.vastporch.server.blogs.BlogSetup;
import org.vastporch.server.blogs.BlogSetupService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.enrolment.RosterService;
import org.vastporch.server.feeds.SourceService;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.people.PlaceService;

/**
 * Makes Marrowfield Community School through the same services as the screens use. The term is laid around today: week
 * 7 of 13, with one week of break behind us.
 */
@Component
class DemoSchool {

    static final String PASSWORD = "porch-demo";
    static final ZoneId ZONE = ZoneId.of("Europe/London");
    /** Weeks of the term before this one: six of school and one of break. */
    private static final int WEEKS_BEHIND = 7;

    private static final int BREAK_WEEK = 4;

    private final DemoClock clock;
    private final PeopleService people;
    private final ClassService classes;
    private final RosterService rosters;
    private final PlaceService places;
    private final BlogService blogs;
    private final BlogSetupService setups;
    private final SourceService sources;
    private final AccessService access;
    private final PlotToPlate plotToPlate;

    DemoSchool(
            Clock clock,
            PeopleService people,
            ClassService classes,
            RosterService rosters,
            PlaceService places,
            BlogService blogs,
            BlogSetupService setups,
            SourceService sources,
            AccessService access,
            PlotToPlate plotToPlate) {
        this.clock = (DemoClock) clock;
        this.people = people;
        this.classes = classes;
        this.rosters = rosters;
        this.places = places;
        this.blogs = blogs;
        this.setups = setups;
        this.sources = sources;
        this.access = access;
        this.plotToPlate = plotToPlate;
    }

    /** Makes the school unless it is there. */
    void make(String outside) {
        if (people.credentials("hester").isPresent()) {
            clock.run();
            return;
        }
        Instant now = Instant.now().truncatedTo(ChronoUnit.MICROS);
        LocalDate monday = now.atZone(ZONE)
                .toLocalDate()
                .with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY))
                .minusWeeks(WEEKS_BEHIND);
        clock.set(at(monday.minusDays(3), 9, 0));
        long hester = people.addKeeper("hester", new PersonName("Lindqvist", "Hester"));
        people.setPassword(hester, PASSWORD);
        people.signedIn(hester);
        long quill = staff("Ms", "Ottoline", "Quill", true);
        long halloway = staff("Dr", "Ines", "Halloway", true);
        long vantongeren = staff("Mr", "Osric", "Vantongeren", true);

        long garden = makeClass(quill, "Plot to Plate", "Gardening and science", "year 8", monday);
        helper(garden, Role.CO_TEACHER, "Mr", "Bram", "Fennimore");
        helper(garden, Role.MODERATOR, "Mrs", "Pell", "Ardizzone");
        helper(garden, Role.GUEST, "Mr", "Tobiah", "Crake");
        Viewer teacher = access.viewer(quill);
        classes.setRules(
                teacher,
                garden,
                new ClassRules(
                        Audience.ANYONE,
                        false,
                        Policy.BEFORE,
                        Policy.BEFORE,
                        5,
                        List.of("idiot", "loser", "shut up"),
                        true,
                        false,
                        1,
                        false,
                        Tool.ALL),
                1);
        blogs.create(
                teacher,
                garden,
                BlogSetup.of(
                        BlogKind.SHARED,
                        "Garden news",
                        "What everybody should know about the beds.",
                        Audience.MY_CLASS,
                        Commenters.GUESTS_TOO));
        blogs.create(
                teacher,
                garden,
                BlogSetup.of(
                        BlogKind.ONE_EACH,
                        "Plot log of {name}",
                        "One entry a week: what you saw, measured and asked.",
                        Audience.MY_CLASS,
                        Commenters.GUESTS_TOO));
        blogs.create(
                teacher,
                garden,
                BlogSetup.of(
                        BlogKind.TEACHERS, "From Ms Quill", "Plans and thanks.", Audience.ANYONE, Commenters.CLASS));
        enrol(teacher, garden, "plot-to-plate");
        blogs.create(
                teacher,
                garden,
                BlogSetup.of(
                        BlogKind.GROUP, "Notes of {name}", "For the six of you.", Audience.MY_CLASS, Commenters.CLASS));
        plotToPlate.fill(teacher, garden, monday, now, outside);
        looks(teacher, garden);

        long sounds = makeClass(halloway, "Sound Walks", "Listening", "year 12", monday);
        helper(sounds, Role.ASSISTANT, "Ms", "Juno", "Tremaine");
        Viewer listener = access.viewer(halloway);
        classes.setRules(
                listener,
                sounds,
                new ClassRules(
                        Audience.MY_CLASS,
                        false,
                        Policy.AFTER,
                        Policy.NONE,
                        0,
                        List.of(),
                        true,
                        false,
                        0,
                        true,
                        Tool.ALL),
                1);
        blogs.create(
                listener,
                sounds,
                BlogSetup.of(
                        BlogKind.ONE_EACH,
                        "Walks of {name}",
                        "Five minutes of one place.",
                        Audience.MY_CLASS,
                        Commenters.CLASS));
        enrol(listener, sounds, "sound-walks");

        long boats = makeClass(vantongeren, "River Boats, Thursday evenings", "Boat repair", "adult learners", monday);
        Viewer boatman = access.viewer(vantongeren);
        blogs.create(
                boatman,
                boats,
                BlogSetup.of(
                        BlogKind.JOURNAL,
                        "Bench book of {name}",
                        "For you and me.",
                        Audience.STAFF_AND_ME,
                        Commenters.CLASS));
        enrol(boatman, boats, "river-boats");
        penNames(boatman, boats);
        clock.run();
        sources.add(
                boatman,
                boats,
                SourceService.WantedSource.of(
                        outside + "/slowtide/feed.xml",
                        outside + "/slowtide/",
                        "The Slow Tide",
                        "River weather and levels",
                        null));
    }

    /** The garden's blogs get looks of their own: the shared one an introduction, the logs an order by week. */
    private void looks(Viewer teacher, long garden) {
        for (BlogSetupService.BlogLine line : setups.lines(teacher, garden)) {
            BlogSetupService.Current now = setups.current(teacher, line.ref());
            BlogForm before = now.setup();
            Look look =
                    switch (before.kind()) {
                        case SHARED -> Look.ORCHARD;
                        case ONE_EACH -> Look.LINEN;
                        case GROUP -> Look.TIDE;
                        default -> Look.BRICK;
                    };
            BlogSettings settings = new BlogSettings(
                    look,
                    false,
                    true,
                    20,
                    before.kind() == BlogKind.ONE_EACH ? Grouping.WEEK : Grouping.NONE,
                    before.settings().rules());
            String intro = before.kind() == BlogKind.SHARED
                    ? "What happens in the beds behind the bike sheds, told by whoever was there."
                    : before.kind() == BlogKind.ONE_EACH ? "One entry a week, from the bed to the plate." : "";
            setups.change(
                    teacher,
                    line.ref(),
                    new BlogForm(
                            before.kind(),
                            before.title(),
                            intro,
                            before.about(),
                            before.widest(),
                            before.commenters(),
                            before.groupId(),
                            before.onlyGroup(),
                            before.opensAt(),
                            before.closesAt(),
                            before.commentsCloseAt(),
                            settings),
                    now.version());
        }
    }

    /** Adult learners, some of whom write under another name. */
    private void penNames(Viewer boatman, long boats) {
        String[] pens = {"Tarred Twine", "Low Water", "Second Oar", "Copper Rove"};
        List<Long> learners = people.students(boats);
        for (int i = 0; i < pens.length; i++)
            places.setShown(boatman, boats, learners.get(i * 3), PersonName.Shown.PEN_NAME, pens[i]);
    }

    private long staff(String title, String given, String family, boolean teacher) {
        long id = people.addStaff(Viewer.STRANGER, title, new PersonName(family, given), "", teacher);
        people.setPassword(id, PASSWORD);
        people.signedIn(id);
        return id;
    }

    private void helper(long classId, Role role, String title, String given, String family) {
        people.enrol(classId, staff(title, given, family, false), role, "", PersonName.Shown.OWN_NAME, null);
    }

    private long makeClass(long teacher, String name, String subject, String level, LocalDate monday) {
        return classes.create(
                access.viewer(teacher),
                new ClassService.NewClass(
                        name,
                        subject,
                        level,
                        ZONE.getId(),
                        monday,
                        monday.plusWeeks(14).minusDays(3),
                        List.of(new ClassService.Spell(
                                monday.plusWeeks(BREAK_WEEK),
                                monday.plusWeeks(BREAK_WEEK).plusDays(6)))));
    }

    private void enrol(Viewer teacher, long classId, String roster) {
        try (InputStream file = DemoSchool.class.getResourceAsStream("/rosters/roster-" + roster + ".csv")) {
            rosters.importRows(
                    teacher,
                    classId,
                    rosters.preview(teacher, classId, file.readAllBytes(), List.of())
                            .rows());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        people.setPassword(people.students(classId), PASSWORD);
        people.students(classId).forEach(people::signedIn);
    }

    static Instant at(LocalDate day, int hour, int minute) {
        return LocalDateTime.of(day, LocalTime.of(hour, minute)).atZone(ZONE).toInstant();
    }
}

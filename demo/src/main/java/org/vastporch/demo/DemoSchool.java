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
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.BlogFacts.Commenters;
import org.vastporch.core.access.Role;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.blogs.BlogKind;
import org.vastporch.core.blogs.BlogSettings;
import org.vastporch.core.blogs.BlogSettings.Grouping;
import org.vastporch.core.blogs.BlogSettings.Look;
import org.vastporch.core.calendar.Terms;
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
import org.vastporch.server.people.PeopleService;

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
    private final BlogService blogs;
    private final BlogSetupService setups;
    private final AccessService access;
    private final PlotToPlate plotToPlate;
    private final HarvestProject harvest;
    private final SoundWalks soundWalks;
    private final BorrowedWords borrowed;
    private final RiverBoats riverBoats;
    private final LastWeeksReports reports;

    DemoSchool(
            Clock clock,
            PeopleService people,
            ClassService classes,
            RosterService rosters,
            BlogService blogs,
            BlogSetupService setups,
            AccessService access,
            PlotToPlate plotToPlate,
            HarvestProject harvest,
            SoundWalks soundWalks,
            BorrowedWords borrowed,
            RiverBoats riverBoats,
            LastWeeksReports reports) {
        this.clock = (DemoClock) clock;
        this.people = people;
        this.classes = classes;
        this.rosters = rosters;
        this.blogs = blogs;
        this.setups = setups;
        this.access = access;
        this.plotToPlate = plotToPlate;
        this.harvest = harvest;
        this.soundWalks = soundWalks;
        this.borrowed = borrowed;
        this.riverBoats = riverBoats;
        this.reports = reports;
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
                        Tool.ALL,
                        false,
                        1),
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
        harvest.fill(teacher, garden, monday, now);
        looks(
                teacher,
                garden,
                Map.of(
                        "Garden news",
                        "What happens in the beds behind the bike sheds, told by whoever was there.",
                        "Plot log of {name}",
                        "One entry a week, from the bed to the plate."));

        clock.set(at(monday.minusDays(3), 9, 0));
        long sounds = makeClass(halloway, "Sound Walks", "Listening", "year 12", monday);
        long tremaine = helper(sounds, Role.ASSISTANT, "Ms", "Juno", "Tremaine");
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
                        Tool.ALL,
                        true,
                        1),
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
        soundWalks.fill(listener, access.viewer(tremaine), sounds, monday, now);
        borrowed.fill(listener, sounds, now.atZone(ZONE).toLocalDate());

        List<LocalDate> terms = List.of(monday.minusWeeks(34), monday.minusWeeks(17), monday);
        clock.set(at(terms.get(0).minusDays(3), 9, 0));
        long boats =
                makeClass(vantongeren, "River Boats, Thursday evenings", "Boat repair", "adult learners", terms.get(0));
        Viewer boatman = access.viewer(vantongeren);
        setTerms(boatman, boats, terms);
        classes.setRules(
                boatman,
                boats,
                new ClassRules(
                        Audience.ANYONE,
                        true,
                        Policy.AFTER,
                        Policy.NONE,
                        0,
                        List.of(),
                        false,
                        false,
                        0,
                        false,
                        Tool.ALL,
                        false,
                        1),
                2);
        riverBoats.makeBlogs(boatman, boats);
        looks(
                boatman,
                boats,
                Map.of(
                        "What the river gave back",
                        "Two old skiffs, twelve learners and a shed by the slip: what we find, and what we make of it."
                                + " Neighbours are welcome to answer."));
        // The office sent no address for him that a letter could reach; he was added by hand.
        rosters.importRows(
                boatman,
                boats,
                rosters.preview(boatman, boats, "Name\nGil Abravanel", List.of())
                        .rows());
        enrol(boatman, boats, "river-boats");
        riverBoats.fill(boatman, boats, terms, now);

        LocalDate thisWeek = now.atZone(ZONE).toLocalDate().with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY));
        Instant toldAt = at(thisWeek, 8, 0);
        clock.set(toldAt.isBefore(now) ? toldAt : now);
        reports.send(teacher, garden, thisWeek.minusWeeks(1), "letter");
        reports.send(listener, sounds, thisWeek.minusWeeks(1), "home");
        reports.send(boatman, boats, thisWeek.minusWeeks(1), "letter");
        clock.run();
        riverBoats.gather(boatman, boats, outside);
    }

    /** Three terms, one after the other, each with a week of break. */
    private void setTerms(Viewer teacher, long classId, List<LocalDate> mondays) {
        ClassService.ClassRecord of = classes.get(classId);
        List<String> names = List.of("First term", "Second term", "Third term");
        List<Terms.Days> terms = new ArrayList<>();
        List<ClassService.Spell> breaks = new ArrayList<>();
        for (LocalDate monday : mondays) {
            terms.add(new Terms.Days(
                    names.get(terms.size()), monday, monday.plusWeeks(14).minusDays(3)));
            LocalDate rest = monday.plusWeeks(BREAK_WEEK);
            breaks.add(new ClassService.Spell(rest, rest.plusDays(6)));
        }
        classes.change(
                teacher,
                classId,
                new ClassService.ClassChange(
                        of.name(),
                        of.subject(),
                        of.level(),
                        ZONE.getId(),
                        terms,
                        breaks,
                        of.ownPasswords(),
                        of.byGiven(),
                        of.version()));
    }

    /** Blogs get looks of their own and introductions by their titles; logs an order by week. */
    private void looks(Viewer teacher, long classId, Map<String, String> intros) {
        for (BlogSetupService.BlogLine line : setups.lines(teacher, classId)) {
            BlogSetupService.Current now = setups.current(teacher, line.ref());
            BlogForm before = now.setup();
            Look look =
                    switch (before.kind()) {
                        case SHARED -> before.widest() == Audience.ANYONE ? Look.TIDE : Look.ORCHARD;
                        case ONE_EACH -> Look.LINEN;
                        case GROUP -> Look.TIDE;
                        case JOURNAL -> Look.SLATE;
                        default -> Look.BRICK;
                    };
            BlogSettings settings = new BlogSettings(
                    look,
                    false,
                    true,
                    20,
                    before.kind() == BlogKind.ONE_EACH ? Grouping.WEEK : Grouping.NONE,
                    before.settings().rules());
            String intro = intros.getOrDefault(before.title(), "");
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
                            before.namesKept(),
                            settings),
                    now.version());
        }
    }

    private long staff(String title, String given, String family, boolean teacher) {
        long id = people.addStaff(Viewer.STRANGER, title, new PersonName(family, given), "", teacher);
        people.setPassword(id, PASSWORD);
        people.signedIn(id);
        return id;
    }

    private long helper(long classId, Role role, String title, String given, String family) {
        long id = staff(title, given, family, false);
        people.enrol(classId, id, role, "", PersonName.Shown.OWN_NAME, null);
        return id;
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

    static LocalDate day(Instant moment) {
        return moment.atZone(ZONE).toLocalDate();
    }

    static Instant at(LocalDate day, int hour, int minute) {
        return LocalDateTime.of(day, LocalTime.of(hour, minute)).atZone(ZONE).toInstant();
    }
}

package org.vastporch.demo;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.blogs.BlogKind;
import org.vastporch.core.marking.PaperState;
import org.vastporch.core.moderation.ModerationTable.Step;
import org.vastporch.core.moderation.State;
import org.vastporch.core.rubrics.Counted;
import org.vastporch.core.rubrics.Measure;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.core.text.TextFacts;
import org.vastporch.core.writing.HandIn;
import org.vastporch.core.writing.WorkUsed;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.blogs.BlogService;
import org.vastporch.server.comments.CommentService;
import org.vastporch.server.feeds.SourceService;
import org.vastporch.server.margin.MarginService;
import org.vastporch.server.marking.MarkingService;
import org.vastporch.server.marking.PaperNoteService;
import org.vastporch.server.marking.PaperService;
import org.vastporch.server.marking.ReleaseService;
import org.vastporch.server.media.MediaService;
import org.vastporch.server.media.Upload;
import org.vastporch.server.media.UploadFolder;
import org.vastporch.server.moderation.PileFilter;
import org.vastporch.server.moderation.PileItem;
import org.vastporch.server.moderation.PileService;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.PromptService;
import org.vastporch.server.reading.PorchService;
import org.vastporch.server.reading.ReadingService;
import org.vastporch.server.subscriptions.SubscriptionService;
import org.vastporch.server.writing.CategoryService;
import org.vastporch.server.writing.OwnPostService;
import org.vastporch.server.writing.PostService;

/** Six weeks of a kitchen garden behind the bike sheds: written, approved, answered and marked. */
@Component
class PlotToPlate {

    private static final int WHEELBARROW = 6;

    private final DemoClock clock;
    private final PeopleService people;
    private final BlogService blogs;
    private final PromptService prompts;
    private final PostService posts;
    private final PorchService porch;
    private final ReadingService reading;
    private final OwnPostService ownPosts;
    private final PileService pile;
    private final CommentService comments;
    private final MarkingService marking;
    private final PaperService papers;
    private final ReleaseService releases;
    private final PaperNoteService notes;
    private final MediaService media;
    private final UploadFolder uploads;
    private final SourceService sources;
    private final CategoryService categories;
    private final MarginService margin;
    private final SubscriptionService subscriptions;
    private final AccessService access;
    private List<CategoryService.Category> kept = List.of();
    private final Random random = new Random(8);

    PlotToPlate(
            Clock clock,
            PeopleService people,
            BlogService blogs,
            PromptService prompts,
            PostService posts,
            PorchService porch,
            ReadingService reading,
            OwnPostService ownPosts,
            PileService pile,
            CommentService comments,
            MarkingService marking,
            PaperService papers,
            ReleaseService releases,
            PaperNoteService notes,
            MediaService media,
            UploadFolder uploads,
            SourceService sources,
            CategoryService categories,
            MarginService margin,
            SubscriptionService subscriptions,
            AccessService access) {
        this.clock = (DemoClock) clock;
        this.people = people;
        this.blogs = blogs;
        this.prompts = prompts;
        this.posts = posts;
        this.porch = porch;
        this.reading = reading;
        this.ownPosts = ownPosts;
        this.pile = pile;
        this.comments = comments;
        this.marking = marking;
        this.papers = papers;
        this.releases = releases;
        this.notes = notes;
        this.media = media;
        this.uploads = uploads;
        this.sources = sources;
        this.categories = categories;
        this.margin = margin;
        this.subscriptions = subscriptions;
        this.access = access;
    }

    void fill(Viewer teacher, long classId, LocalDate monday, Instant now, String outside) {
        List<Long> students = people.students(classId);
        kept = categories.set(
                teacher,
                classId,
                Stream.of("Pests", "Soil", "Weather", "Harvest")
                        .map(name -> new CategoryService.Wanted(null, name))
                        .toList());
        for (int week = 1; week <= 6; week++) {
            LocalDate start = monday.plusWeeks(week <= 4 ? week - 1 : week);
            clock.set(DemoSchool.at(start, 8, 0));
            long prompt = setPrompt(teacher, classId, week, start);
            writeAll(teacher, classId, students, week, prompt, start, now);
            clock.set(earlier(DemoSchool.at(start.plusDays(week < 6 ? 8 : 6), 20, 30), now));
            answer(classId, students, week);
            approve(teacher);
            if (week < 6) markAll(teacher, prompt, start);
        }
        news(teacher, classId, students, monday.plusWeeks(1));
        LocalDate start = monday.plusWeeks(7);
        clock.set(earlier(DemoSchool.at(start, 8, 0), now));
        long current = setPrompt(teacher, classId, 7, start);
        lastWeek(teacher, classId, students, now, current, outside);
    }

    /** Falls behind before the break, and comes back after it. */
    private static final int COMES_BACK = 18;
    /** Whose posts nobody answers. */
    private static final int UNANSWERED = 21;
    /** Two who answer nobody but each other. */
    private static final List<Integer> TWO = List.of(20, 23);

    private static boolean misses(int student, int week) {
        if (student == COMES_BACK) return week == 4;
        return week == 6 ? student == 10 || student == 17 : (student * 7 + week * 5) % 13 == 0;
    }

    /** Some at any time, many in the week before the break. */
    private static boolean isLate(int student, int week) {
        if (student == COMES_BACK) return week == 2 || week == 3;
        return (student * 3 + week) % 17 == 0 || week == 4 && student % 3 == 2;
    }

    private long setPrompt(Viewer teacher, long classId, int week, LocalDate start) {
        return prompts.set(
                teacher,
                classId,
                new PromptService.WantedPrompt(
                        "Week " + week + " log",
                        "Write about one thing that you saw in your bed this week. Measure or count "
                                + "something, and say what you would do to find out more.",
                        List.of(
                                "What did you see this week that you did not expect?",
                                "What would you do to find out why?"),
                        null,
                        null,
                        LocalDateTime.of(start.plusDays(6), LocalTime.of(20, 0)),
                        24,
                        new BigDecimal("5"),
                        new BigDecimal("50"),
                        null,
                        new BigDecimal("18"),
                        new HandIn.Asked(60, 0, 1, 0, 0, 0, 2),
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        garden(),
                        null,
                        null));
    }

    static Rubric garden() {
        return new Rubric(List.of(
                criterion(
                        "Observation",
                        "2",
                        List.of("0", "2", "4", "6"),
                        List.of("none", "some", "careful", "exact"),
                        List.of(
                                "Says nothing of what was seen.",
                                "Says what was seen.",
                                "Says what was seen, where and when.",
                                "Measured or counted, with units, more than once."),
                        new Measure(Counted.PICTURES, List.of()),
                        new Measure(Counted.DESCRIBED, List.of())),
                criterion(
                        "Evidence",
                        "2",
                        List.of("0", "2", "4", "6"),
                        List.of("none", "told", "shown", "tested"),
                        List.of(
                                "No reason is given.",
                                "Says that it is so.",
                                "Says what the claim rests on.",
                                "Tried it another way to see whether it holds."),
                        new Measure(Counted.LINKS, List.of()),
                        new Measure(Counted.WORKS, List.of())),
                criterion(
                        "Reflection",
                        "1",
                        List.of("0", "1", "2", "3"),
                        List.of("none", "likes", "asks", "changes"),
                        List.of(
                                "No thought of one's own.",
                                "Says what was good or bad.",
                                "Asks a question that could be answered.",
                                "Says what will be done differently, and why."),
                        new Measure(Counted.COMMENTS, List.of())),
                criterion(
                        "Writing for readers",
                        "1",
                        List.of("0", "1", "2", "3"),
                        List.of("lost", "found", "led", "kept"),
                        List.of(
                                "A reader is lost.",
                                "A reader can follow.",
                                "A reader is led from one thing to the next.",
                                "A reader wants to know how it goes on."),
                        new Measure(Counted.WORDS, List.of(30, 60)),
                        new Measure(Counted.TAGS, List.of()))));
    }

    private static Rubric.Criterion criterion(
            String name,
            String weight,
            List<String> points,
            List<String> names,
            List<String> descriptors,
            Measure... counted) {
        List<Rubric.Level> levels = new ArrayList<>();
        for (int i = 0; i < points.size(); i++)
            levels.add(new Rubric.Level(names.get(i), new BigDecimal(points.get(i)), descriptors.get(i)));
        return new Rubric.Criterion("", name, new BigDecimal(weight), levels, List.of(counted));
    }

    /** The students of a week write in the order of their days; somebody looks at each post the same evening. */
    private void writeAll(
            Viewer teacher, long classId, List<Long> students, int week, long prompt, LocalDate start, Instant now) {
        SortedMap<Instant, Integer> moments = new TreeMap<>();
        for (int s = 0; s < students.size(); s++) {
            if (misses(s, week)) continue;
            Instant wanted = DemoSchool.at(
                            start.plusDays(isLate(s, week) ? 8 : 1 + random.nextInt(6)),
                            15 + random.nextInt(4),
                            random.nextInt(60))
                    .plusSeconds(s);
            moments.put(earlier(wanted, now.minus(Duration.ofMinutes(20L * s))), s);
        }
        moments.forEach((moment, s) -> {
            clock.set(moment);
            DemoTexts.Text text = week == 6
                    ? DemoTexts.LAST_WEEK.get(s - (s > 10 ? 1 : 0) - (s > 17 ? 1 : 0))
                    : DemoTexts.log(s, week);
            handIn(
                    students.get(s),
                    classId,
                    prompt,
                    text,
                    s != WHEELBARROW && (week == 6 ? s % 3 == 0 : s % 7 == week),
                    s + week);
            clock.set(moment.plus(Duration.ofMinutes(40 + random.nextInt(50))));
            approve(teacher);
        });
    }

    private MediaService.Uploaded draw(Viewer author, long post, int seed) {
        try (Upload upload = uploads.of(Pictures.garden(seed), "garden.png")) {
            return media.addPicture(author, post, upload);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private long handIn(long student, long classId, Long prompt, DemoTexts.Text text, boolean picture, int seed) {
        Viewer author = access.viewer(student);
        long blog = blogs.homeOf(classId, student).orElseThrow();
        long id = posts.begin(author, blog, prompt);
        String html = text.html();
        if (picture) {
            MediaService.Uploaded added = draw(author, id, seed);
            html = html.replaceFirst(
                    "</p>",
                    "</p><figure><img src=\"" + added.address()
                            + "\" alt=\"The bed as it looked on the day, drawn from a "
                            + "photograph\"><figcaption>Before school.</figcaption></figure>");
        }
        int rev = posts.draft(author, id).beside().rev();
        rev = posts.save(
                        author,
                        id,
                        new PostService.Save(
                                rev,
                                text.title(),
                                html,
                                text.tags(),
                                "MY_CLASS",
                                seed % 5 == 4 ? null : kept.get(seed % 5).id(),
                                null))
                .rev();
        posts.handIn(author, id, new PostService.HandingIn(rev, null, null));
        return id;
    }

    /** Ms Quill goes through the pile; one post comes back. */
    private void approve(Viewer teacher) {
        for (PileItem item : pile.pile(teacher, new PileFilter(null, "", 200)).items()) {
            boolean comesBack = item.title().equals("The wheelbarrow question");
            decide(
                    teacher,
                    item,
                    comesBack ? Step.RETURN : Step.APPROVE,
                    comesBack ? "How long did each load take? Time a few, then we can all work it out." : "");
        }
    }

    private void decide(Viewer teacher, PileItem item, Step step, String note) {
        pile.decide(
                teacher,
                new PileService.Deciding(
                        step,
                        note,
                        List.of(new PileService.Seen(item.subject(), item.id(), item.version(), item.rev()))));
    }

    /** Classmates answer some of the posts of a week. */
    private void answer(long classId, List<Long> students, int week) {
        Instant from = clock.instant();
        Names names = people.namesForReaders(classId);
        List<PorchService.EntryView> entries = porch.porch(
                        access.viewer(students.get(0)), classId, PorchService.Wish.ofWeek(week <= 4 ? week - 1 : week))
                .entries();
        for (int i = 0; i < entries.size(); i++) {
            PorchService.EntryView entry = entries.get(i);
            int author = IntStream.range(0, students.size())
                    .filter(s -> names.placeOf(students.get(s)) == entry.place())
                    .findFirst()
                    .orElse(-1);
            if (author == UNANSWERED) continue;
            int many = week == 6 ? i % 4 : i % 3;
            for (int c = 0; c < many; c++) {
                int by = (i * 5 + c * 7 + week) % students.size();
                if (by == author || TWO.contains(by)) continue;
                clock.set(from.plus(Duration.ofMinutes(3L * i + c)));
                comment(students.get(by), entry, i + c * 3 + week);
            }
            if (TWO.contains(author)) {
                clock.set(from.plus(Duration.ofMinutes(3L * i + many)));
                comment(students.get(TWO.get(1 - TWO.indexOf(author))), entry, i + week);
            }
        }
        clock.set(from.plus(Duration.ofMinutes(90)));
    }

    private void comment(long by, PorchService.EntryView entry, int which) {
        comments.add(access.viewer(by), entry.id(), DemoTexts.COMMENTS.get(which % DemoTexts.COMMENTS.size()), null);
    }

    private void markAll(Viewer teacher, long prompt, LocalDate start) {
        clock.set(DemoSchool.at(start.plusDays(10), 17, 0));
        for (PaperService.StripView student : papers.strip(teacher, prompt).students())
            if (student.standing() == PaperState.HANDED_IN) {
                mark(teacher, prompt, student.studentId());
                noteBeside(teacher, prompt, student.studentId());
            }
        releases.release(
                teacher,
                prompt,
                papers.strip(teacher, prompt).students().stream()
                        .filter(s -> s.standing() == PaperState.MARKED)
                        .map(s -> new ReleaseService.SeenPaper(s.studentId(), s.seen()))
                        .toList());
    }

    /** A few words beside the first words of every fourth paper. */
    private void noteBeside(Viewer teacher, long prompt, long student) {
        if ((student + prompt) % 4 > 0) return;
        PaperService.PaperPost post =
                papers.paper(teacher, prompt, student).posts().get(0);
        String line = TextFacts.of(post.html()).plain().lines().findFirst().orElse("");
        int end = line.indexOf(' ', Math.min(24, line.length()));
        if (end < 0) return;
        notes.add(
                teacher,
                prompt,
                student,
                new PaperNoteService.NewPaperNote(
                        post.postId(),
                        post.version(),
                        line.substring(0, end),
                        0,
                        student % 2 == 0
                                ? "A good way in: one sees it."
                                : "Which day was it, and what was the weather?"));
    }

    private void mark(Viewer teacher, long prompt, long student) {
        List<Rubric.Criterion> criteria = garden().criteria();
        for (int c = 0; c < criteria.size(); c++)
            marking.mark(
                    teacher,
                    prompt,
                    student,
                    seen(teacher, prompt, student),
                    criteria.get(c).id(),
                    new MarkingService.Given(
                            criteria.get(c).levels().get(1 + random.nextInt(3)).points(), false, "", ""));
        marking.word(
                teacher,
                prompt,
                student,
                seen(teacher, prompt, student),
                random.nextBoolean()
                        ? "You measured before you said. Keep doing that."
                        : "A good question. What would settle it?",
                "");
    }

    private PaperService.Seen seen(Viewer teacher, long prompt, long student) {
        return papers.paper(teacher, prompt, student).given().seen();
    }

    /** A story in three parts, told in the shared blog by three of bed 6, and a pinned notice. */
    private void news(Viewer teacher, long classId, List<Long> students, LocalDate start) {
        long shared = blogs.writable(teacher, classId).stream()
                .filter(b -> b.kind() == BlogKind.SHARED)
                .findFirst()
                .orElseThrow()
                .id();
        String[][] texts = {
            {
                "The water butt, part one: where it stands",
                "The butt behind the sheds holds 210 litres and it was dry in week 2. We looked for "
                        + "the leak with a sheet of newspaper under each hoop. The third one was wet."
            },
            {
                "The water butt, part two: the third hoop",
                "We turned the hoop a hand's width and the stave under it moved. Mr Crake lent us tar"
                        + " and a blunt chisel. It dripped every nine seconds before, and every forty after."
            },
            {
                "The water butt, part three: full",
                "It rained on Tuesday and by Friday the butt was full to the second mark. Nine "
                        + "seconds, forty seconds, nothing. We will measure again when it freezes."
            }
        };
        for (int i = 0; i < texts.length; i++) {
            clock.set(DemoSchool.at(start.plusDays(7L * i), 16, 10));
            long id = share(access.viewer(students.get(20 + i)), shared, texts[i][0], texts[i][1], "water");
            clock.set(DemoSchool.at(start.plusDays(7L * i), 17, 30));
            approve(teacher);
            reading.arrange(teacher, id, new ReadingService.Arrange(false, "The water butt", i + 1));
        }
        clock.set(DemoSchool.at(start.plusDays(15), 8, 20));
        long notice = share(
                teacher,
                shared,
                "Gloves, and who has which key",
                "Gloves hang inside the left shed door. Bed 1 has the key on Mondays, bed 2 on "
                        + "Tuesdays and so on; bed 6 takes the weekend. Put the hose back before you lock up.",
                "keys");
        reading.arrange(teacher, notice, new ReadingService.Arrange(true, null, null));
    }

    /**
     * Two announcements, of which one goes up by itself on Friday morning, a draft whose author asks for help, and who
     * wants to hear of what.
     */
    private void around(Viewer teacher, long classId, List<Long> students, Instant now) {
        long board = blogs.writable(teacher, classId).stream()
                .filter(b -> b.kind() == BlogKind.TEACHERS)
                .findFirst()
                .orElseThrow()
                .id();
        clock.set(now.minus(Duration.ofHours(30)));
        announce(
                teacher,
                board,
                "Bring boots on Monday",
                "The path by the hedge is under water. Whoever has none finds a pair beside the shed door.",
                null);
        clock.set(now.minus(Duration.ofMinutes(90)));
        announce(
                teacher,
                board,
                "What we cook on Friday",
                "Leek and potato soup, with the chard of beds 3 and 4. Bring a jar if you want to take some home.",
                LocalDate.ofInstant(now, DemoSchool.ZONE).plusDays(2).atTime(8, 0));
        Viewer pia = access.viewer(students.get(1));
        long draft = posts.begin(pia, blogs.homeOf(classId, students.get(1)).orElseThrow(), null);
        posts.save(
                pia,
                draft,
                new PostService.Save(
                        posts.draft(pia, draft).beside().rev(),
                        "Why the beetroot split",
                        "<p>Their are three beetroots with cracks and they are the biggest ones. "
                                + "I think it is because of the rain after the dry week. The small ones are hole.</p>",
                        List.of("beetroot"),
                        "MY_CLASS",
                        null,
                        List.of(new WorkUsed(
                                "Cracks in root crops",
                                "Saltwort & Sorrel",
                                "2024",
                                "",
                                "https://saltwort.example/cracks"))));
        margin.ask(pia, draft, true);
        subscriptions.add(
                access.viewer(students.get(3)), new SubscriptionService.Wanted(classId, "TAG", null, "slugs"));
        subscriptions.add(access.viewer(students.get(3)), new SubscriptionService.Wanted(classId, "CLASS", null, null));
    }

    private void announce(Viewer teacher, long board, String title, String text, LocalDateTime at) {
        long id = posts.begin(teacher, board, null);
        posts.save(
                teacher,
                id,
                new PostService.Save(
                        posts.draft(teacher, id).beside().rev(),
                        title,
                        "<p>" + text + "</p>",
                        List.of(),
                        "MY_CLASS",
                        null,
                        null));
        posts.announce(teacher, id, true);
        posts.handIn(
                teacher,
                id,
                new PostService.HandingIn(posts.draft(teacher, id).beside().rev(), at, null));
    }

    private long share(Viewer author, long blog, String title, String text, String tag) {
        long id = posts.begin(author, blog, null);
        int rev = posts.draft(author, id).beside().rev();
        rev = posts.save(
                        author,
                        id,
                        new PostService.Save(rev, title, "<p>" + text + "</p>", List.of(tag), "MY_CLASS", null, null))
                .rev();
        posts.handIn(author, id, new PostService.HandingIn(rev, null, null));
        return id;
    }

    /** The days before now: some posts and comments wait, one with a telephone number in it, two come from outside. */
    private void lastWeek(
            Viewer teacher, long classId, List<Long> students, Instant now, long current, String outside) {
        clock.set(now.minus(Duration.ofHours(28)));
        List<PaperService.StripView> strip = papers.strip(teacher, current - 1).students();
        int marked = 0;
        for (PaperService.StripView student : strip)
            if (student.standing() == PaperState.HANDED_IN && marked++ < 8)
                mark(teacher, current - 1, student.studentId());

        clock.set(now.minus(Duration.ofHours(22)));
        Viewer rowan = access.viewer(students.get(WHEELBARROW));
        ownPosts.own(rowan, classId).stream()
                .filter(p -> p.state() == State.RETURNED)
                .findFirst()
                .ifPresent(p -> {
                    PostService.Draft before = posts.draft(rowan, p.id());
                    int rev = posts.save(
                                    rowan,
                                    p.id(),
                                    new PostService.Save(
                                            before.beside().rev(),
                                            p.title(),
                                            DemoTexts.WHEELBARROW_SECOND.html(),
                                            DemoTexts.WHEELBARROW_SECOND.tags(),
                                            "MY_CLASS",
                                            before.category(),
                                            null))
                            .rev();
                    posts.handIn(rowan, p.id(), new PostService.HandingIn(rev, null, null));
                });
        clock.set(now.minus(Duration.ofHours(20)));
        write7(
                classId,
                students,
                8,
                current,
                "Ice in the watering can",
                "On Monday the can was frozen to the ground and I could not lift it. I marked the "
                        + "height of the ice: 4 centimetres at the wall, 7 by the hedge. "
                        + "The hedge keeps the sun off, so the ice stays. I will put a can on each side"
                        + " of the hedge tonight and look at eight.",
                "frost",
                "measuring");
        clock.set(now.minus(Duration.ofHours(19)));
        write7(
                classId,
                students,
                15,
                current,
                "The frog moved",
                "It is now under the second board. I know that it is the same frog because of the "
                        + "dark spot behind its left eye. "
                        + "Full names of helpers this time: Cosmo Pomeroy held the board and I held the"
                        + " ruler. Between the boards are 3.4 metres.",
                "animals");
        clock.set(now.minus(Duration.ofHours(6)));
        write7(
                classId,
                students,
                22,
                current,
                "Five jars on a window sill",
                "Old compost, new compost, boiled compost, sand and nothing. A thermometer in each. "
                        + "After one day: 19, 21, 18, 18 and 18 degrees. "
                        + "It is too early to say, but the new compost is winning. More at "
                        + "https://saltwort.example/heat if you want to read how others did it.",
                "compost",
                "measuring");
        List<PorchService.EntryView> entries = porch.porch(
                        access.viewer(students.get(0)), classId, PorchService.Wish.ofWeek(null))
                .entries();
        long compost = entries.stream()
                .filter(e -> e.title().startsWith("Our compost"))
                .findFirst()
                .orElse(entries.get(0))
                .id();
        long rain = entries.stream()
                .filter(e -> e.title().startsWith("Rain"))
                .findFirst()
                .orElse(entries.get(1))
                .id();
        say(students.get(4), compost, DemoTexts.COMMENTS.get(0), now.minus(Duration.ofHours(15)));
        say(students.get(18), compost, DemoTexts.COMMENTS.get(1), now.minus(Duration.ofMinutes(14 * 60 + 54)));
        say(
                students.get(11),
                rain,
                "Our cup by the wall had 5 millimetres, so it is the same on our side.",
                now.minus(Duration.ofHours(5)));
        around(teacher, classId, students, now);
        clock.run();
        sources.add(
                teacher,
                classId,
                SourceService.WantedSource.of(
                        outside + "/saltwort/feed.xml",
                        outside + "/saltwort/",
                        "Saltwort & Sorrel",
                        "A seed keeper on the tidal flats",
                        null));
        sources.add(
                teacher,
                classId,
                SourceService.WantedSource.of(
                        outside + "/slowtide/feed.xml",
                        outside + "/slowtide/",
                        "The Slow Tide",
                        "River weather and levels",
                        null));
    }

    private void write7(
            long classId, List<Long> students, int s, long prompt, String title, String text, String... tags) {
        handIn(students.get(s), classId, prompt, new DemoTexts.Text(title, List.of(tags), text), s != 14, s);
    }

    private void say(long student, long post, String text, Instant at) {
        clock.set(at);
        comments.add(access.viewer(student), post, text, null);
    }

    private static Instant earlier(Instant wanted, Instant now) {
        Instant latest = now.minus(Duration.ofHours(32));
        return wanted.isBefore(latest) ? wanted : latest;
    }
}

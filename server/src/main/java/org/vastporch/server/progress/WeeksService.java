package org.vastporch.server.progress;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.calendar.Term;
import org.vastporch.core.calendar.Terms;
import org.vastporch.core.moderation.State;
import org.vastporch.core.progress.CellState;
import org.vastporch.core.progress.Weeks;
import org.vastporch.core.progress.WhoAnswersWhom;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.http.Csv;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.marking.PaperStandings;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.progress.WeeksStore.Written;
import org.vastporch.server.prompts.PromptService;

/** Students by weeks, by prompts, or by whatever they wrote; for those who mark, and a student's own row. */
@Service
public class WeeksService {

    /** What the cells tell of. */
    public enum By {
        /** What is due in each week. */
        WEEK,
        /** One prompt each. */
        PROMPT,
        /** Any post of each week. */
        POST
    }

    /**
     * What stands above a column.
     *
     * @param name the title of a prompt, of a week its number; empty for a break
     * @param term the name of the term that begins with it; left out for all others and for terms without names
     * @param day the Monday of a week; of a prompt the day on which it is due
     * @param isNow whether it is the week that is now
     * @param promptId left out for a week
     */
    public record WeeksHead(
            String name,
            @Optionally String term,
            LocalDate day,
            boolean isBreak,
            boolean isNow,
            @Optionally Long promptId) {}

    /** @param parts how many papers or posts it tells of */
    public record WeeksCell(CellState state, boolean late, boolean ownDate, int parts) {}

    /**
     * @param place the number of the student's place in the class
     * @param comments how many were given to others in the time that is shown
     * @param quiet whether nothing came in the last two weeks in which something was due
     */
    public record WeeksLine(
            long studentId,
            long place,
            String name,
            @Optionally String group,
            List<WeeksCell> cells,
            int onTime,
            int of,
            int streak,
            int comments,
            boolean quiet) {}

    /** @param students who handed in nothing in the last two weeks in which something was due, by name */
    public record Quiet(List<String> students) {}

    /**
     * @param terms the names or days of the terms, the earliest first
     * @param term which of them is shown; left out for all of them
     */
    public record WeeksView(
            By by, List<String> terms, @Optionally Integer term, List<WeeksHead> heads, List<WeeksLine> lines) {}

    /** @param line left out for who is no student of the class */
    public record OwnWeeks(
            List<WeeksHead> heads, @Optionally WeeksLine line) {}

    /** A post of a week. */
    public record WeekPost(long postId, String title, Instant at, CellState state) {}

    /** A paper that was due in a week. */
    public record WeekPaper(long promptId, String title, CellState state, boolean late) {}

    public record WeekOfStudent(String name, List<WeekPaper> papers, List<WeekPost> posts) {}

    /**
     * A week as its student may know it.
     *
     * @param posts those that are up
     * @param onTime of the papers that count
     * @param given comments to classmates
     * @param received comments of classmates
     */
    public record OwnWeek(List<WeekPaper> papers, List<WeekPost> posts, int onTime, int of, int given, int received) {}

    /** The weeks that are shown, and what belongs to them. */
    private record Shown(By by, List<Term.Week> weeks, List<WeeksHead> heads, List<Prompt> prompts) {

        Instant from() {
            return weeks.get(0).start();
        }

        Instant to() {
            return weeks.get(weeks.size() - 1).end();
        }
    }

    /** Of all terms. */
    public static final int ALL = -1;

    private final WeeksStore store;
    private final WhoAnswersWhomService answering;
    private final PaperStandings papers;
    private final PromptService prompts;
    private final ClassService classes;
    private final PeopleService people;
    private final AccessService access;
    private final Clock clock;

    WeeksService(
            WeeksStore store,
            WhoAnswersWhomService answering,
            PaperStandings papers,
            PromptService prompts,
            ClassService classes,
            PeopleService people,
            AccessService access,
            Clock clock) {
        this.store = store;
        this.answering = answering;
        this.papers = papers;
        this.prompts = prompts;
        this.classes = classes;
        this.people = people;
        this.access = access;
        this.clock = clock;
    }

    /** @param term the place of a term in their order, {@link #ALL} for all of them; null for the one that is now */
    public WeeksView weeks(Viewer viewer, long classId, By by, @Nullable Integer term) {
        access.require(viewer, Act.MARK, classId);
        ClassService.ClassRecord in = classes.get(classId);
        Instant now = clock.instant();
        int chosen = term == null
                ? in.terms().indexAt(now)
                : Math.min(term, in.terms().inOrder().size() - 1);
        Shown shown = shown(in, by, chosen, now);
        Names names = people.names(viewer, classId);
        Map<Long, List<Weeks.Asked>> asked = by == By.POST ? Map.of() : papers.of(viewer, classId, shown.prompts());
        Map<Long, List<Written>> written = by == By.POST
                ? store.posts(classId, shown.from(), shown.to()).stream()
                        .collect(Collectors.groupingBy(Written::authorId))
                : Map.of();
        Map<Long, Instant> joined = people.joined(classId);
        Map<Long, Integer> comments = store.comments(classId, shown.from(), shown.to());
        List<WeeksLine> lines = new ArrayList<>();
        for (long student : people.students(classId)) {
            Weeks.Line line = lineOf(
                    shown,
                    now,
                    joined.getOrDefault(student, Instant.MIN),
                    asked.getOrDefault(student, List.of()),
                    written.getOrDefault(student, List.of()));
            boolean quiet = by == By.WEEK && Weeks.isQuiet(line);
            lines.add(line(student, names, line, comments.getOrDefault(student, 0), quiet));
        }
        return new WeeksView(by, names(in.terms()), chosen < 0 ? null : Integer.valueOf(chosen), shown.heads(), lines);
    }

    /** Who handed in nothing for two weeks of the term that is now. */
    public Quiet quiet(Viewer viewer, long classId) {
        access.require(viewer, Act.MARK, classId);
        ClassService.ClassRecord in = classes.get(classId);
        Instant now = clock.instant();
        Shown shown = shown(in, By.WEEK, in.terms().indexAt(now), now);
        Map<Long, List<Weeks.Asked>> asked = papers.of(viewer, classId, shown.prompts());
        Names names = people.names(viewer, classId);
        return new Quiet(people.students(classId).stream()
                .filter(student -> Weeks.isQuiet(Weeks.byWeek(shown.weeks(), asked.getOrDefault(student, List.of()))))
                .map(names::of)
                .toList());
    }

    /** The viewer's own row of the term that is now, with what they may know of their papers. */
    public OwnWeeks own(Viewer viewer, long classId) {
        access.require(viewer, Act.READ_CLASS, classId);
        ClassService.ClassRecord in = classes.get(classId);
        Instant now = clock.instant();
        Shown shown = shown(in, By.WEEK, in.terms().indexAt(now), now);
        long me = viewer.personId();
        if (!people.students(classId).contains(me)) return new OwnWeeks(List.of(), null);
        Weeks.Line line = Weeks.byWeek(shown.weeks(), papers.ofOne(classId, shown.prompts(), me));
        int comments = store.comments(classId, shown.from(), shown.to()).getOrDefault(me, 0);
        return new OwnWeeks(shown.heads(), line(me, people.names(viewer, classId), line, comments, false));
    }

    /** What stands behind one cell: the papers that were due in a week, and the posts that came in it. */
    public WeekOfStudent week(Viewer viewer, long classId, LocalDate monday, long student) {
        access.require(viewer, Act.MARK, classId);
        ClassService.ClassRecord in = classes.get(classId);
        Term.Week week = in.terms().weeks().stream()
                .filter(w -> w.monday().equals(monday))
                .findFirst()
                .orElseThrow(Problem::missing);
        if (!people.students(classId).contains(student)) throw Problem.missing();
        List<Prompt> due = opened(classId, clock.instant()).stream()
                .filter(p -> week.contains(p.due()))
                .toList();
        List<Weeks.Asked> asked = papers.of(viewer, classId, due).getOrDefault(student, List.of());
        return new WeekOfStudent(
                people.names(viewer, classId).of(student),
                IntStream.range(0, due.size())
                        .mapToObj(i -> {
                            Weeks.Cell cell = Weeks.byPrompt(List.of(asked.get(i)))
                                    .cells()
                                    .get(0);
                            return new WeekPaper(due.get(i).id(), due.get(i).title(), cell.state(), cell.late());
                        })
                        .toList(),
                store.posts(classId, week.start(), week.end()).stream()
                        .filter(p -> p.authorId() == student)
                        .map(p -> new WeekPost(p.postId(), p.title(), p.at(), CellState.of(p.state())))
                        .toList());
    }

    /** What a student may know of a week of theirs; whoever asks has seen to the right to do so. */
    public OwnWeek ownWeek(long classId, Term.Week week, long student) {
        List<Prompt> due = opened(classId, clock.instant()).stream()
                .filter(p -> week.contains(p.due()))
                .toList();
        Weeks.Line line = Weeks.byPrompt(papers.ofOne(classId, due, student));
        WhoAnswersWhom.Voice voice = answering.voice(classId, week, student);
        return new OwnWeek(
                IntStream.range(0, due.size())
                        .mapToObj(i -> new WeekPaper(
                                due.get(i).id(),
                                due.get(i).title(),
                                line.cells().get(i).state(),
                                line.cells().get(i).late()))
                        .toList(),
                store.posts(classId, week.start(), week.end()).stream()
                        .filter(p -> p.authorId() == student && p.state() == State.PUBLISHED)
                        .map(p -> new WeekPost(p.postId(), p.title(), p.at(), CellState.PUBLISHED))
                        .toList(),
                line.onTime(),
                line.of(),
                voice.given(),
                voice.received());
    }

    /** One row a student, for a spreadsheet. */
    public String csv(Viewer viewer, long classId, By by, @Nullable Integer term) {
        WeeksView view = weeks(viewer, classId, by, term);
        List<List<Object>> rows = new ArrayList<>();
        List<Object> head = new ArrayList<>(List.of("Student", "Group"));
        for (WeeksHead h : view.heads())
            head.add(h.promptId() != null ? h.name() : (h.isBreak() ? "Break, " : "Week " + h.name() + ", ") + h.day());
        head.addAll(List.of("On time", "Of", "In a row", "Comments"));
        rows.add(head);
        for (WeeksLine line : view.lines()) {
            List<Object> row = new ArrayList<>();
            row.add(line.name());
            row.add(line.group() == null ? "" : line.group());
            for (WeeksCell cell : line.cells()) row.add(written(cell));
            row.addAll(List.of(line.onTime(), line.of(), line.streak(), line.comments()));
            rows.add(row);
        }
        return Csv.table(rows);
    }

    private static String written(WeeksCell cell) {
        String state =
                switch (cell.state()) {
                    case NOTHING, NOT_HANDED_IN -> "";
                    case BREAK -> "break";
                    case NOT_HERE -> "not in the class yet";
                    case MISSING -> "nothing came";
                    default -> cell.state().name().toLowerCase(Locale.ROOT).replace('_', ' ');
                };
        return cell.late() ? state + ", late" : state;
    }

    private Shown shown(ClassService.ClassRecord in, By by, int term, Instant now) {
        List<Term.Week> weeks =
                term < 0 ? in.terms().weeks() : in.terms().get(term).weeks();
        Instant from = weeks.get(0).start();
        Instant to = weeks.get(weeks.size() - 1).end();
        List<Prompt> due = opened(in.id(), now).stream()
                .filter(p -> !p.due().isBefore(from) && p.due().isBefore(to))
                .toList();
        List<WeeksHead> heads = by == By.PROMPT
                ? due.stream()
                        .map(p -> new WeeksHead(p.title(), null, in.term().dayOf(p.due()), false, false, p.id()))
                        .toList()
                : weekHeads(in.terms(), weeks, now);
        return new Shown(by, weeks, heads, due);
    }

    private static List<WeeksHead> weekHeads(Terms terms, List<Term.Week> weeks, Instant now) {
        return weeks.stream()
                .map(w -> new WeeksHead(
                        w.isBreak() ? "" : String.valueOf(w.number()),
                        terms.inOrder().stream()
                                .filter(t -> t.term().weeks().get(0).monday().equals(w.monday()))
                                .map(Terms.Named::name)
                                .filter(name -> !name.isEmpty())
                                .findFirst()
                                .orElse(null),
                        w.monday(),
                        w.isBreak(),
                        w.contains(now),
                        null))
                .toList();
    }

    private static List<String> names(Terms terms) {
        return terms.inOrder().stream()
                .map(t ->
                        t.name().isEmpty() ? t.term().first() + " – " + t.term().last() : t.name())
                .toList();
    }

    /** The prompts that students have seen, the one due first first. */
    private List<Prompt> opened(long classId, Instant now) {
        return prompts.all(classId).stream()
                .filter(p -> p.isOpen(now))
                .sorted(Comparator.comparing(Prompt::due).thenComparing(Prompt::id))
                .toList();
    }

    private static Weeks.Line lineOf(
            Shown shown, Instant now, Instant joined, List<Weeks.Asked> asked, List<Written> written) {
        return switch (shown.by()) {
            case WEEK -> Weeks.byWeek(shown.weeks(), asked);
            case PROMPT -> Weeks.byPrompt(asked);
            case POST ->
                Weeks.byPost(
                        shown.weeks(),
                        now,
                        joined,
                        written.stream()
                                .map(w -> new Weeks.Wrote(w.at(), w.state()))
                                .toList());
        };
    }

    private static WeeksLine line(long student, Names names, Weeks.Line line, int comments, boolean quiet) {
        return new WeeksLine(
                student,
                names.placeOf(student),
                names.of(student),
                names.groupOf(student),
                line.cells().stream()
                        .map(c -> new WeeksCell(c.state(), c.late(), c.ownDate(), c.parts()))
                        .toList(),
                line.onTime(),
                line.of(),
                line.streak(),
                comments,
                quiet);
    }
}

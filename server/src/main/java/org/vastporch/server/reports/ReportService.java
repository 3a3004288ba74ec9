package org.vastporch.server.reports;

import java.math.BigDecimal;
import java.time.Instant;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.calendar.Term;
import org.vastporch.core.reports.Report;
import org.vastporch.core.reports.ReportFacts;
import org.vastporch.core.reports.ReportTemplate;
import org.vastporch.core.reports.ShippedTemplates;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.http.Problem;
import org.vastporch.server.marking.DueService;
import org.vastporch.server.marking.FeedbackService;
import org.vastporch.server.marking.PaperService;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.progress.WeeksService;

/**
 * What can be told of a student and a week, for those who mark. It is gathered as that student, so that nothing stands
 * in a report that its student may not read.
 */
@Service
public class ReportService {

    public record TemplateName(String key, String name) {}

    /** @param name such as "week 6" */
    public record WeekName(LocalDate monday, String name) {}

    /** @param html clean */
    public record WeekReport(String title, String student, String week, String html) {
        Report asReport() {
            return new Report(title, html);
        }
    }

    private static final int NEXT = 4;
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMMM", Locale.UK);

    private final WeeksService weeks;
    private final FeedbackService feedback;
    private final DueService due;
    private final ClassService classes;
    private final PeopleService people;
    private final AccessService access;

    ReportService(
            WeeksService weeks,
            FeedbackService feedback,
            DueService due,
            ClassService classes,
            PeopleService people,
            AccessService access) {
        this.weeks = weeks;
        this.feedback = feedback;
        this.due = due;
        this.classes = classes;
        this.people = people;
        this.access = access;
    }

    public List<TemplateName> templates(Viewer viewer, long classId) {
        access.require(viewer, Act.MARK, classId);
        return ShippedTemplates.ALL.stream()
                .map(t -> new TemplateName(t.key(), t.name()))
                .toList();
    }

    /** @param note what is said to this student alone; empty for nothing */
    public WeekReport report(Viewer viewer, long classId, LocalDate monday, long student, String key, String note) {
        access.require(viewer, Act.MARK, classId);
        if (!people.students(classId).contains(student)) throw Problem.missing();
        ReportTemplate template = template(key);
        ReportFacts facts = facts(viewer, classId, monday, student, note);
        return new WeekReport(
                facts.student() + ", " + facts.week(), facts.student(), facts.week(), template.fill(facts));
    }

    ReportTemplate template(String key) {
        return ShippedTemplates.ALL.stream()
                .filter(t -> t.key().equals(key))
                .findFirst()
                .orElseThrow(Problem::missing);
    }

    /** What a week of a class is called in a report, also one that is in no term any more. */
    String week(long classId, LocalDate monday) {
        return week(classes.get(classId), monday)
                .map(ReportService::inWords)
                .orElseGet(() -> "the week of " + DAY.format(monday));
    }

    /** The day that a moment is where a class is. */
    LocalDate day(long classId, Instant at) {
        return classes.get(classId).term().dayOf(at);
    }

    /** The weeks of a class that have begun by a day, the newest first. */
    List<WeekName> weeks(long classId, LocalDate day) {
        return classes.get(classId).terms().weeks().stream()
                .filter(w -> !w.monday().isAfter(day))
                .map(w -> new WeekName(w.monday(), inWords(w)))
                .sorted(Comparator.comparing(WeekName::monday).reversed())
                .toList();
    }

    /** The same of a week in a term of the class. */
    String requireWeek(long classId, LocalDate monday) {
        return inWords(week(classes.get(classId), monday).orElseThrow(Problem::missing));
    }

    private static Optional<Term.Week> week(ClassService.ClassRecord in, LocalDate monday) {
        return in.terms().weeks().stream()
                .filter(w -> w.monday().equals(monday))
                .findFirst();
    }

    private static String inWords(Term.Week week) {
        return week.isBreak() ? "the break" : "week " + week.number();
    }

    private ReportFacts facts(Viewer viewer, long classId, LocalDate monday, long student, String note) {
        ClassService.ClassRecord in = classes.get(classId);
        Term.Week week = week(in, monday).orElseThrow(Problem::missing);
        Viewer reader = access.viewer(student);
        WeeksService.OwnWeek own = weeks.ownWeek(classId, week, student);
        Map<Long, FeedbackService.Feedback> shown = feedback.feedback(reader, classId).papers().stream()
                .collect(Collectors.toMap(FeedbackService.Feedback::promptId, Function.identity()));
        return new ReportFacts(
                people.names(viewer, classId).of(student),
                in.name(),
                inWords(week),
                monday,
                monday.plusDays(6),
                own.posts().stream()
                        .map(p -> new ReportFacts.Post(
                                p.title().isEmpty() ? "Without a title" : p.title(),
                                in.term().dayOf(p.at())))
                        .toList(),
                own.papers().stream()
                        .map(p -> new ReportFacts.Paper(
                                p.title(), ReportFacts.inWords(p.state()), p.late(), score(shown.get(p.promptId()))))
                        .toList(),
                own.onTime() + " of " + own.of(),
                own.given(),
                own.received(),
                due.due(reader, classId).stream()
                        .filter(d -> !d.letOff()
                                && (d.owesPosts() || d.owesComments())
                                && !d.due().isBefore(week.end()))
                        .sorted(Comparator.comparing(DueService.DueLine::due))
                        .limit(NEXT)
                        .map(d -> new ReportFacts.Due(d.title(), in.term().dayOf(d.due())))
                        .toList(),
                note);
    }

    private static ReportFacts.@Nullable Score score(FeedbackService.@Nullable Feedback shown) {
        if (shown == null) return null;
        List<ReportFacts.Step> steps = new ArrayList<>();
        for (Rubric.Criterion criterion : shown.rubric().criteria())
            shown.marks().stream()
                    .filter(m -> m.criterion().equals(criterion.id()) && !m.notCounted() && m.points() != null)
                    .findFirst()
                    .ifPresent(mark -> steps.add(step(criterion, mark)));
        return new ReportFacts.Score(
                plain(shown.score().points()), plain(shown.score().outOf()), shown.word(), steps);
    }

    private static ReportFacts.Step step(Rubric.Criterion criterion, PaperService.MarkView mark) {
        Rubric.Level level = criterion.reached(mark.points());
        return new ReportFacts.Step(
                criterion.name(),
                level.name(),
                criterion.levels().indexOf(level) + 1,
                criterion.levels().size(),
                level.descriptor(),
                mark.remark());
    }

    private static String plain(BigDecimal points) {
        return points.stripTrailingZeros().toPlainString();
    }
}

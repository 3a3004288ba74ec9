package org.vastporch.core.reports;

import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.progress.CellState;
import org.vastporch.core.reports.ReportField.Each;
import org.vastporch.core.reports.ReportField.When;

/**
 * What a report can say of one student and one week: only what that student may read too.
 *
 * @param week what the week is called, such as "week 6"
 * @param papers what was due in the week
 * @param onTime how many of them came in time, in words
 * @param given comments to classmates in the week
 * @param received comments of classmates in the week
 * @param next what is due after the week, the soonest first
 * @param note what staff wrote to this student alone; empty for nothing
 */
public record ReportFacts(
        String student,
        String className,
        String week,
        LocalDate first,
        LocalDate last,
        List<Post> posts,
        List<Paper> papers,
        String onTime,
        int given,
        int received,
        List<Due> next,
        String note) {

    /** A post that went up in the week. */
    public record Post(String title, LocalDate day) {}

    /**
     * @param state where it stands, in words
     * @param score null while it is not shown
     */
    public record Paper(
            String prompt,
            String state,
            boolean late,
            @Nullable Score score) {}

    /** @param word what its marker wrote; empty for nothing */
    public record Score(String points, String outOf, String word, List<Step> steps) {}

    /**
     * @param step counted from 1
     * @param remark empty for none
     */
    public record Step(String criterion, String level, int step, int steps, String descriptor, String remark) {}

    public record Due(String prompt, LocalDate day) {}

    /** Where a paper stands, as a report says it; of marks nothing but that they are shown. */
    public static String inWords(CellState state) {
        return switch (state) {
            case MISSING -> "Nothing came";
            case NOT_HANDED_IN -> "Not handed in yet";
            case IN_PART -> "Handed in in part";
            case RETURNED -> "Came back to be mended";
            case WAITING -> "Waits to be approved";
            case LET_OFF -> "Let off";
            case NOT_HERE -> "Not in the class yet";
            case RELEASED -> "Marked";
            default -> "Handed in";
        };
    }

    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("EEEE d MMMM", Locale.UK);

    /** The values of a part of a report, what holds in it, and the parts in it. */
    record Scope(Map<ReportField, String> values, Set<When> holds, Map<Each, List<Scope>> parts) {

        static Scope empty() {
            return new Scope(new EnumMap<>(ReportField.class), EnumSet.noneOf(When.class), new EnumMap<>(Each.class));
        }

        Scope with(ReportField field, String value) {
            values.put(field, value);
            return this;
        }

        Scope when(When condition, boolean holds) {
            if (holds) this.holds.add(condition);
            return this;
        }
    }

    Scope scope() {
        Scope scope = Scope.empty()
                .with(ReportField.STUDENT, student)
                .with(ReportField.CLASS, className)
                .with(ReportField.WEEK, week)
                .with(ReportField.DAYS, DAY.format(first) + " to " + DAY.format(last))
                .with(ReportField.ON_TIME, onTime)
                .with(ReportField.GIVEN, comments(given))
                .with(ReportField.RECEIVED, comments(received))
                .with(ReportField.NOTE, note)
                .when(When.POSTS, !posts.isEmpty())
                .when(When.NO_POSTS, posts.isEmpty())
                .when(When.PAPERS, !papers.isEmpty())
                .when(When.NEXT, !next.isEmpty())
                .when(When.NOTE, !note.isEmpty());
        scope.parts()
                .put(
                        Each.POST,
                        posts.stream()
                                .map(p -> Scope.empty()
                                        .with(ReportField.POST_TITLE, p.title())
                                        .with(ReportField.POST_DAY, DAY.format(p.day())))
                                .toList());
        scope.parts().put(Each.PAPER, papers.stream().map(ReportFacts::paper).toList());
        scope.parts()
                .put(
                        Each.NEXT,
                        next.stream()
                                .map(d -> Scope.empty()
                                        .with(ReportField.NEXT_PROMPT, d.prompt())
                                        .with(ReportField.NEXT_DUE, DAY.format(d.day())))
                                .toList());
        return scope;
    }

    private static String comments(int many) {
        return many == 0 ? "no comment" : many == 1 ? "one comment" : many + " comments";
    }

    private static Scope paper(Paper paper) {
        Scope scope = Scope.empty()
                .with(ReportField.PROMPT, paper.prompt())
                .with(ReportField.STATE, paper.state())
                .when(When.LATE, paper.late());
        Score score = paper.score();
        List<Scope> steps = new ArrayList<>();
        if (score != null) {
            scope.with(ReportField.SCORE, score.points())
                    .with(ReportField.OUT_OF, score.outOf())
                    .with(ReportField.WORD, score.word())
                    .when(When.SCORED, true)
                    .when(When.WORD, !score.word().isEmpty());
            for (Step step : score.steps())
                steps.add(Scope.empty()
                        .with(ReportField.CRITERION, step.criterion())
                        .with(ReportField.LEVEL, step.level())
                        .with(ReportField.STEP, step.step() + " of " + step.steps())
                        .with(ReportField.DESCRIPTOR, step.descriptor())
                        .with(ReportField.REMARK, step.remark())
                        .when(When.REMARK, !step.remark().isEmpty()));
        }
        scope.parts().put(Each.CRITERION, steps);
        return scope;
    }
}

package org.vastporch.server.marking;

import java.math.BigDecimal;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.marking.Bundle;
import org.vastporch.core.marking.PaperScore;
import org.vastporch.core.marking.PaperState;
import org.vastporch.core.marking.ScoreSheet;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.core.rubrics.Fraction;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Csv;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.marking.MarkingStore.Mark;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.prompts.BundleService;
import org.vastporch.server.prompts.BundleService.BundleView;
import org.vastporch.server.prompts.PromptService;

/** The scores of a class: students by prompts, and what they come to. For those who mark there. */
@Service
public class ScoreSheetService {

    /** @param bundle the place of its bundle; left out if it is in none and counts nowhere */
    public record SheetPrompt(
            long id,
            String title,
            Instant due,
            BigDecimal points,
            boolean hasRubric,
            @Optionally Integer bundle) {}

    /**
     * @param points the score as it stands; left out while nothing is given
     * @param counts whether it is in the total
     */
    public record Cell(
            PaperState state,
            boolean late,
            boolean ownDate,
            boolean changed,
            boolean provisional,
            @Optionally BigDecimal points,
            boolean counts) {}

    /**
     * @param cells in the order of the prompts
     * @param percents what each bundle comes to, in the order of the bundles; nothing where nothing counts yet
     * @param total in per cent; left out if nothing counts yet
     */
    public record StudentLine(
            long studentId,
            String name,
            @Optionally String group,
            List<Cell> cells,
            List<Percent> percents,
            @Optionally BigDecimal total) {}

    public record Percent(@Optionally BigDecimal value) {}

    /** @param prompts the one due first comes first */
    public record Sheet(List<SheetPrompt> prompts, List<BundleView> bundles, List<StudentLine> students) {}

    private static final BigDecimal HUNDRED = BigDecimal.valueOf(100);

    private final MarkingDesk desk;
    private final PromptService prompts;
    private final BundleService bundles;
    private final PeopleService people;
    private final AccessService access;

    ScoreSheetService(
            MarkingDesk desk,
            PromptService prompts,
            BundleService bundles,
            PeopleService people,
            AccessService access) {
        this.desk = desk;
        this.prompts = prompts;
        this.bundles = bundles;
        this.people = people;
        this.access = access;
    }

    public Sheet sheet(Viewer viewer, long classId) {
        access.require(viewer, Act.MARK, classId);
        List<Prompt> all = inOrder(classId);
        List<BundleView> kept = bundles.ofClass(viewer, classId).bundles();
        Map<Long, Integer> places = new HashMap<>();
        for (int b = 0; b < kept.size(); b++) for (long prompt : kept.get(b).prompts()) places.put(prompt, b);
        List<Bundle> rules = kept.stream().map(BundleView::rule).toList();
        Names names = people.names(viewer, classId);
        Map<Long, List<MarkingDesk.Paper>> papers = desk.papers(viewer, classId, all);
        List<Long> students = people.students(classId);
        Map<Long, Instant> joined = people.joined(classId);
        List<StudentLine> lines = new ArrayList<>();
        for (int s = 0; s < students.size(); s++) {
            int at = s;
            Instant since = joined.getOrDefault(students.get(s), Instant.MIN);
            List<MarkingDesk.Paper> of =
                    all.stream().map(p -> papers.get(p.id()).get(at)).toList();
            List<Optional<PaperScore>> scores =
                    of.stream().map(p -> Optional.ofNullable(p.score())).toList();
            ScoreSheet.Line line = ScoreSheet.line(
                    rules,
                    IntStream.range(0, of.size())
                            .mapToObj(i -> counting(of.get(i), scores.get(i).orElse(null), since))
                            .toList(),
                    all.stream().map(p -> places.getOrDefault(p.id(), -1)).toList());
            lines.add(new StudentLine(
                    students.get(s),
                    names.of(students.get(s)),
                    names.groupOf(students.get(s)),
                    IntStream.range(0, of.size())
                            .mapToObj(i -> cell(
                                    of.get(i),
                                    scores.get(i).orElse(null),
                                    line.counts().get(i)))
                            .toList(),
                    line.shares().stream()
                            .map(share -> new Percent(percent(share)))
                            .toList(),
                    percent(line.total())));
        }
        return new Sheet(
                all.stream()
                        .map(p -> new SheetPrompt(
                                p.id(), p.title(), p.due(), p.points(), p.rubric() != null, places.get(p.id())))
                        .toList(),
                kept,
                lines);
    }

    /** One row a student, for a spreadsheet. */
    public String csv(Viewer viewer, long classId) {
        Sheet sheet = sheet(viewer, classId);
        List<List<?>> rows = new ArrayList<>();
        List<String> head = new ArrayList<>(List.of("Student", "Group"));
        sheet.prompts()
                .forEach(p -> head.add(
                        p.title() + " (of " + p.points().stripTrailingZeros().toPlainString() + ")"));
        sheet.bundles().forEach(b -> head.add(b.name() + " (%)"));
        head.add("Total (%)");
        rows.add(head);
        for (StudentLine line : sheet.students()) {
            List<Object> row = new ArrayList<>();
            row.add(line.name());
            row.add(line.group() == null ? "" : line.group());
            line.cells().forEach(c -> row.add(written(c)));
            line.percents().forEach(p -> row.add(p.value() == null ? "" : p.value()));
            row.add(line.total() == null ? "" : line.total());
            rows.add(row);
        }
        return Csv.table(rows);
    }

    private static Object written(Cell cell) {
        if (cell.state() == PaperState.LET_OFF) return "let off";
        if (cell.state() == PaperState.MISSING) return "nothing came";
        return cell.points() == null || cell.provisional() ? "" : cell.points();
    }

    /** One row a criterion, for a spreadsheet; only what was given. */
    public String csvByCriterion(Viewer viewer, long classId) {
        access.require(viewer, Act.MARK, classId);
        List<Prompt> all = inOrder(classId);
        Names names = people.names(viewer, classId);
        Map<Long, List<MarkingDesk.Paper>> papers = desk.papers(viewer, classId, all);
        List<List<?>> rows = new ArrayList<>();
        rows.add(List.of(
                "Student", "Group", "Prompt", "Criterion", "Points", "Of", "Level", "Counts", "Days late", "Released"));
        for (Prompt prompt : all)
            for (MarkingDesk.Paper paper : papers.get(prompt.id()))
                for (Mark mark : paper.marks()) {
                    Rubric.Criterion of = prompt.rubric().find(mark.criterion()).orElseThrow();
                    String group = names.groupOf(paper.studentId());
                    rows.add(List.of(
                            names.of(paper.studentId()),
                            group == null ? "" : group,
                            prompt.title(),
                            of.name(),
                            mark.points() == null ? "" : mark.points(),
                            of.highest(),
                            mark.points() == null
                                    ? ""
                                    : of.reached(mark.points()).name(),
                            mark.notCounted() ? "no" : "yes",
                            paper.daysLate(),
                            paper.isShown() ? "yes" : "no"));
                }
        return Csv.table(rows);
    }

    private List<Prompt> inOrder(long classId) {
        return prompts.all(classId).stream()
                .sorted(Comparator.comparing(Prompt::due).thenComparing(Prompt::id))
                .toList();
    }

    /** @param joined since when the student has been in the class */
    private static Bundle.Paper counting(MarkingDesk.Paper paper, @Nullable PaperScore score, Instant joined) {
        Prompt prompt = paper.prompt();
        boolean wasHere = joined.isBefore(prompt.deadline(paper.allowance()).end());
        Bundle.Standing standing = ScoreSheet.standing(paper.state(), wasHere);
        // What cannot be marked counts for nobody, also not for those who did nothing.
        boolean counts = prompt.rubric() != null && (score != null || standing != Bundle.Standing.SCORED);
        return new Bundle.Paper(
                counts ? standing : Bundle.Standing.UNRELEASED,
                score == null ? Fraction.ZERO : score.score().exact(),
                Fraction.of(prompt.points()));
    }

    private static Cell cell(MarkingDesk.Paper paper, @Nullable PaperScore score, boolean counts) {
        return new Cell(
                paper.state(),
                paper.daysLate() > 0,
                paper.allowance().due() != null,
                paper.isChangedSinceMarked(),
                score != null && score.before().provisional(),
                score == null ? null : score.score().rounded(paper.prompt().places()),
                counts);
    }

    private static @Nullable BigDecimal percent(@Nullable Fraction share) {
        return share == null ? null : share.times(Fraction.of(HUNDRED)).rounded(1);
    }
}

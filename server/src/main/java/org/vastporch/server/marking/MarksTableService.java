package org.vastporch.server.marking;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.vastporch.core.Refusal;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.marking.MarkedStudents;
import org.vastporch.core.marking.MarksTable;
import org.vastporch.core.marking.MarksTable.Outcome;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.core.tables.TableFile;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;

/** Marks of a prompt as a table: taken along, and brought in from elsewhere, looked at row by row before. */
@Service
public class MarksTableService {

    /** @param points left out where the table says none */
    public record TableMark(
            String criterion,
            @Optionally BigDecimal points,
            boolean notCounted,
            @Optionally String remark) {}

    /**
     * A row of a table as it would be taken.
     *
     * @param called the student as the table names them
     * @param student left out if it cannot be told who that is
     * @param seen the paper as it stands now; left out with the student
     * @param before what is given there now, for the criteria of which the table says something
     * @param word left out where the table says none
     * @param problem why it cannot be taken; empty if it can
     * @param needsReason whether the student has seen the score that would change
     */
    public record MarksRow(
            int line,
            String called,
            @Optionally Long student,
            @Optionally String name,
            @Optionally PaperService.Seen seen,
            List<TableMark> marks,
            List<TableMark> before,
            @Optionally String word,
            Outcome outcome,
            String problem,
            boolean needsReason) {}

    /** @param notes what of the table was left or mended, in words */
    public record MarksPreview(List<MarksRow> rows, List<String> notes) {}

    /** A row that is to be taken, for a paper as it was seen. */
    public record WantedRow(
            long student,
            PaperService.Seen seen,
            List<TableMark> marks,
            @Optionally String word) {}

    /**
     * @param taken how many rows
     * @param left names of those that were not taken, each with the reason
     */
    public record MarksTaken(int taken, List<MarksLeft> left) {}

    public record MarksLeft(String name, String why) {}

    private static final int MOST_ROWS = 500;

    private final MarkingStore store;
    private final MarkingDesk desk;
    private final PaperService papers;
    private final MarkingService marking;
    private final PeopleService people;
    private final AccessService access;

    MarksTableService(
            MarkingStore store,
            MarkingDesk desk,
            PaperService papers,
            MarkingService marking,
            PeopleService people,
            AccessService access) {
        this.store = store;
        this.desk = desk;
        this.papers = papers;
        this.marking = marking;
        this.people = people;
        this.access = access;
    }

    /** What is given so far, as a table that can be filled in elsewhere. */
    public String csv(Viewer viewer, long promptId) {
        Prompt prompt = papers.requireMarking(viewer, promptId);
        Map<Long, Map<String, MarksTable.Mark>> marks = marks(prompt);
        Map<Long, MarkingDesk.Paper> onDesk = onDesk(prompt);
        return MarksTable.write(
                rubric(prompt),
                students(viewer, prompt.classId()).stream()
                        .map(s ->
                                new MarksTable.Given(s, marks.getOrDefault(s.id(), Map.of()), word(onDesk.get(s.id()))))
                        .toList());
    }

    public MarksPreview preview(Viewer viewer, long promptId, byte[] file) {
        return preview(viewer, promptId, TableFile.text(file));
    }

    /** What a table would do, row by row; nothing is changed by looking. */
    public MarksPreview preview(Viewer viewer, long promptId, String text) {
        Prompt prompt = papers.requireMarking(viewer, promptId);
        MarksTable.Marks read =
                MarksTable.read(text, prompt.title(), rubric(prompt), students(viewer, prompt.classId()));
        Names names = people.names(viewer, prompt.classId());
        Map<Long, Map<String, MarksTable.Mark>> marks = marks(prompt);
        Map<Long, MarkingDesk.Paper> onDesk = onDesk(prompt);
        Map<Long, String> together = new HashMap<>();
        List<MarksRow> rows = new ArrayList<>();
        for (MarksTable.Row row : read.rows()) {
            if (row.studentId() == null) {
                rows.add(new MarksRow(
                        row.line(),
                        row.called(),
                        null,
                        null,
                        null,
                        marksOf(row),
                        List.of(),
                        row.word(),
                        Outcome.LEFT,
                        row.problem(),
                        false));
                continue;
            }
            long student = row.studentId();
            MarkingDesk.Paper paper = onDesk.get(student);
            MarksTable.Row looked = looked(row, paper, together);
            if (looked.problem().isEmpty()) for (long with : paper.markedWith()) together.put(with, names.of(student));
            Map<String, MarksTable.Mark> before = marks.getOrDefault(student, Map.of());
            Outcome outcome = looked.outcome(before, word(paper));
            rows.add(new MarksRow(
                    row.line(),
                    row.called(),
                    student,
                    names.of(student),
                    paper.seen(),
                    marksOf(row),
                    row.marks().stream()
                            .flatMap(m -> Stream.ofNullable(before.get(m.criterion())))
                            .map(MarksTableService::tableMark)
                            .toList(),
                    row.word(),
                    outcome,
                    looked.problem(),
                    paper.isReleased() && outcome != Outcome.SAME && outcome != Outcome.LEFT));
        }
        return new MarksPreview(rows, read.notes());
    }

    private static MarksTable.Row looked(MarksTable.Row row, MarkingDesk.Paper paper, Map<Long, String> together) {
        if (!row.problem().isEmpty() || row.isEmpty()) return row;
        if (paper.allowance().letOff()) return row.left("This student was let off.");
        if (paper.isEmpty()) return row.left("Nothing was handed in yet.");
        String with = together.get(paper.studentId());
        return with == null ? row : row.left("One paper with " + with + ", and taken with it.");
    }

    /**
     * Takes rows, each for itself: what stands otherwise than it was seen, or cannot be taken, holds up no other. Who
     * asks twice finds the second time that nothing is left to do.
     *
     * @param reason why scores change that were seen by their students; may be empty if there are none
     */
    public MarksTaken take(Viewer viewer, long promptId, List<WantedRow> rows, String reason) {
        Prompt prompt = papers.requireMarking(viewer, promptId);
        if (rows.size() > MOST_ROWS)
            throw Problem.invalid("rows", "marks-too-long", "At most " + MOST_ROWS + " rows are taken at once.");
        Names names = people.names(viewer, prompt.classId());
        Set<Long> done = new HashSet<>();
        List<MarksLeft> left = new ArrayList<>();
        for (WantedRow row : rows) {
            try {
                marking.markWhole(viewer, promptId, row.student(), row.seen(), said(row), row.word(), reason);
                done.add(row.student());
            } catch (Problem | Refusal problem) {
                left.add(new MarksLeft(names.of(row.student()), problem.getMessage()));
            }
        }
        return new MarksTaken(done.size(), left);
    }

    private static Rubric rubric(Prompt prompt) {
        if (prompt.rubric() == null)
            throw Problem.stale("no-rubric", "This prompt has no rubric, so there is nothing to mark it by.");
        return prompt.rubric();
    }

    private List<MarkedStudents.Student> students(Viewer viewer, long classId) {
        access.require(viewer, Act.SEE_REAL_NAME, classId);
        Map<Long, PeopleService.MemberLine> members = people.members(viewer, classId).stream()
                .collect(Collectors.toMap(PeopleService.MemberLine::id, m -> m, (one, other) -> one));
        return people.students(classId).stream()
                .map(members::get)
                .map(m -> new MarkedStudents.Student(m.id(), m.name(), m.username(), m.schoolNo(), m.email()))
                .toList();
    }

    private Map<Long, MarkingDesk.Paper> onDesk(Prompt prompt) {
        return desk.papers(prompt.classId(), List.of(prompt)).get(prompt.id()).stream()
                .collect(Collectors.toMap(MarkingDesk.Paper::studentId, p -> p));
    }

    private Map<Long, Map<String, MarksTable.Mark>> marks(Prompt prompt) {
        Map<Long, Map<String, MarksTable.Mark>> marks = new HashMap<>();
        for (MarkingStore.Mark mark : store.marksOfPrompt(prompt.id()))
            if (rubric(prompt).find(mark.criterion()).isPresent())
                marks.computeIfAbsent(mark.studentId(), s -> new HashMap<>())
                        .put(
                                mark.criterion(),
                                new MarksTable.Mark(mark.criterion(), mark.points(), mark.notCounted(), mark.remark()));
        return marks;
    }

    private static List<TableMark> marksOf(MarksTable.Row row) {
        return row.marks().stream().map(MarksTableService::tableMark).toList();
    }

    private static TableMark tableMark(MarksTable.Mark mark) {
        return new TableMark(mark.criterion(), mark.points(), mark.notCounted(), mark.remark());
    }

    private static List<MarksTable.Mark> said(WantedRow row) {
        return row.marks().stream()
                .map(m -> new MarksTable.Mark(m.criterion(), m.points(), m.notCounted(), m.remark()))
                .toList();
    }

    private static String word(MarkingDesk.@Nullable Paper paper) {
        return paper == null || paper.marking() == null ? "" : paper.marking().word();
    }
}

package org.vastporch.core.marking;

import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.Refusal;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.core.rubrics.Rubric.Criterion;
import org.vastporch.core.tables.Table;
import org.vastporch.core.tables.Table.Line;
import org.vastporch.core.text.Folding;
import org.vastporch.core.text.TableCell;

/**
 * Marks for one prompt that were given elsewhere, in a table. It has a row for each student with a column for each
 * criterion, named as in the rubric; or a row for each criterion, with the columns Criterion and Points. Students are
 * told by username, school number, e-mail or name; where a row gives several of these, all have to be of one student. A
 * mark is a number of points (with a point or a comma) or the name of a level; a cell with nothing in it leaves what is
 * given as it is.
 */
public final class MarksTable {

    /**
     * What a table says about one criterion of a paper.
     *
     * @param points null if it says none
     * @param notCounted whether it says that the criterion does not count for this paper
     * @param remark null if it says none
     */
    public record Mark(
            String criterion,
            @Nullable BigDecimal points,
            boolean notCounted,
            @Nullable String remark) {}

    /**
     * What a table says about one paper.
     *
     * @param line its first in the table, from 1
     * @param called the student as the table names them
     * @param studentId null if that is nobody here, or it cannot be told who
     * @param word on the whole; null if the table says none
     * @param problem why none of it can be taken, in words; empty if it can
     */
    public record Row(
            int line,
            String called,
            @Nullable Long studentId,
            List<Mark> marks,
            @Nullable String word,
            String problem) {

        /** Whether the table says nothing about this paper. */
        public boolean isEmpty() {
            return marks.isEmpty() && word == null && problem.isEmpty();
        }

        /** The same row, which cannot be taken. */
        public Row left(String why) {
            return new Row(line, called, studentId, marks, word, why);
        }

        /**
         * What taking it would do to a paper.
         *
         * @param before what is given there for each criterion, with its remark
         * @param wordBefore empty for none
         */
        public Outcome outcome(Map<String, Mark> before, String wordBefore) {
            if (!problem.isEmpty()) return Outcome.LEFT;
            boolean adds = false;
            for (Mark mark : marks) {
                Mark was = before.get(mark.criterion());
                boolean saysPoints = mark.points() != null || mark.notCounted();
                boolean hadPoints = was != null && (was.points() != null || was.notCounted());
                if (saysPoints && hadPoints && !samePoints(mark, was)) return Outcome.CHANGES;
                adds |= saysPoints && !hadPoints;
                String remark = was == null || was.remark() == null ? "" : was.remark();
                if (mark.remark() != null && !mark.remark().equals(remark)) {
                    if (!remark.isEmpty()) return Outcome.CHANGES;
                    adds = true;
                }
            }
            if (word != null && !word.equals(wordBefore)) {
                if (!wordBefore.isEmpty()) return Outcome.CHANGES;
                adds = true;
            }
            return adds ? Outcome.NEW : Outcome.SAME;
        }

        private static boolean samePoints(Mark mark, Mark was) {
            if (mark.notCounted() || was.notCounted()) return mark.notCounted() == was.notCounted();
            return mark.points().compareTo(was.points()) == 0;
        }
    }

    public enum Outcome {
        /** Something is given that was not given before, and nothing else changes. */
        NEW,
        /** Something that was given before becomes something else. */
        CHANGES,
        SAME,
        /** Nothing of it can be taken. */
        LEFT
    }

    /** @param notes what was left or mended, in words */
    public record Marks(List<Row> rows, List<String> notes) {}

    /** What is given for one paper, to be written out. */
    public record Given(MarkedStudents.Student student, Map<String, Mark> marks, String word) {}

    private enum Column {
        STUDENT,
        GIVEN,
        FAMILY,
        USERNAME,
        NUMBER,
        EMAIL,
        PROMPT,
        CRITERION,
        POINTS,
        COUNTS,
        COMMENT
    }

    private static final String NOT_COUNTED = "not counted";
    private static final String COMMENT_ON = "Comment on ";
    private static final int MOST_ROWS = 5_000;
    private static final int LONGEST_REMARK = 4_000;
    private static final int LONGEST_WORD = 10_000;
    private static final Map<String, Column> HEADS = heads();

    private final Rubric rubric;
    private final MarkedStudents who;
    private final Line head;
    private final Map<Column, Integer> columns = new HashMap<>();
    private final Map<Integer, Criterion> points = new LinkedHashMap<>();
    private final Map<Integer, Criterion> remarks = new LinkedHashMap<>();

    private MarksTable(Rubric rubric, List<MarkedStudents.Student> students, Line head) {
        this.rubric = rubric;
        this.who = new MarkedStudents(students);
        this.head = head;
        for (int i = 0; i < head.cells().size(); i++) {
            String name = bare(head.cell(i));
            Criterion criterion = criterion(name);
            Criterion commented =
                    name.startsWith("comment on ") ? criterion(name.substring("comment on ".length())) : null;
            Column column = HEADS.get(name.replaceAll("[^\\p{L}]", ""));
            if (criterion != null) points.putIfAbsent(i, criterion);
            else if (commented != null) remarks.putIfAbsent(i, commented);
            else if (column != null) columns.putIfAbsent(column, i);
        }
    }

    /**
     * @param prompt the title of the prompt: rows that name another one are left
     * @throws Refusal for a table that does not say who or what it is about
     */
    public static Marks read(String text, String prompt, Rubric rubric, List<MarkedStudents.Student> students) {
        Table table = Table.of(text);
        if (table.lines().isEmpty())
            throw wrong("marks-empty", "There are no rows in this table. Its first row names the columns.");
        if (table.lines().size() > MOST_ROWS)
            throw wrong("marks-too-long", "At most " + MOST_ROWS + " rows are taken at once.");
        MarksTable marks = new MarksTable(rubric, students, table.lines().get(0));
        List<Line> below = table.lines().subList(1, table.lines().size());
        List<String> notes = new ArrayList<>(table.notes());
        boolean byCriterion = marks.columns.containsKey(Column.CRITERION) && marks.columns.containsKey(Column.POINTS);
        marks.requireColumns(byCriterion);
        if (below.isEmpty()) throw wrong("marks-empty", "This table has column names but no rows under them.");
        marks.noteLeft(byCriterion, notes);
        List<Row> rows = byCriterion
                ? marks.byCriterion(below, prompt, notes)
                : below.stream().map(marks::wide).toList();
        return new Marks(once(rows), List.copyOf(notes));
    }

    /** A table of what is given, one row a student, that can be filled in elsewhere and read back. */
    public static String write(Rubric rubric, List<Given> papers) {
        StringWriter text = new StringWriter();
        try (CSVPrinter csv = new CSVPrinter(text, CSVFormat.RFC4180)) {
            List<String> head = new ArrayList<>(List.of("Student", "Username"));
            for (Criterion criterion : rubric.criteria())
                head.add(TableCell.of(criterion.name() + " (of "
                        + criterion.highest().stripTrailingZeros().toPlainString() + ")"));
            for (Criterion criterion : rubric.criteria()) head.add(COMMENT_ON + criterion.name());
            head.add("Comment");
            csv.printRecord(head);
            for (Given paper : papers) {
                List<String> row = new ArrayList<>();
                row.add(TableCell.of(paper.student().name()));
                row.add(TableCell.of(paper.student().username()));
                for (Criterion criterion : rubric.criteria())
                    row.add(written(paper.marks().get(criterion.id())));
                for (Criterion criterion : rubric.criteria()) {
                    Mark mark = paper.marks().get(criterion.id());
                    row.add(mark == null || mark.remark() == null ? "" : TableCell.of(mark.remark()));
                }
                row.add(TableCell.of(paper.word()));
                csv.printRecord(row);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return text.toString();
    }

    private static String written(@Nullable Mark mark) {
        if (mark == null) return "";
        if (mark.notCounted()) return NOT_COUNTED;
        return mark.points() == null ? "" : mark.points().stripTrailingZeros().toPlainString();
    }

    private void requireColumns(boolean byCriterion) {
        Set<Column> who = new HashSet<>(columns.keySet());
        who.retainAll(
                Set.of(Column.STUDENT, Column.GIVEN, Column.FAMILY, Column.USERNAME, Column.NUMBER, Column.EMAIL));
        if (who.isEmpty())
            throw wrong(
                    "marks-no-student",
                    "No column says whose marks these are. Name one Student, Username, School number or E-mail.");
        if (!byCriterion && points.isEmpty() && remarks.isEmpty() && !columns.containsKey(Column.COMMENT))
            throw wrong(
                    "marks-no-criterion",
                    "No column is named like a criterion of this prompt: "
                            + rubric.criteria().stream().map(Criterion::name).collect(Collectors.joining(", "))
                            + ".");
    }

    private void noteLeft(boolean byCriterion, List<String> notes) {
        List<String> left = new ArrayList<>();
        for (int i = 0; i < head.cells().size(); i++) {
            boolean taken =
                    !byCriterion && (points.containsKey(i) || remarks.containsKey(i)) || columns.containsValue(i);
            if (!taken && !head.cell(i).isEmpty()) left.add(head.cell(i));
        }
        if (!left.isEmpty())
            notes.add((left.size() == 1
                            ? "This column says nothing that is taken: "
                            : "These columns say nothing that is taken: ")
                    + String.join(", ", left) + ".");
    }

    /** A row of one student with all criteria. */
    private Row wide(Line line) {
        List<String> problems = new ArrayList<>();
        Long student = who.tell(signs(line), problems);
        Map<String, Mark> marks = new LinkedHashMap<>();
        points.forEach((at, criterion) -> {
            Mark mark = mark(criterion, TableCell.back(line.cell(at)), null, problems);
            if (mark != null) add(marks, mark, criterion, problems);
        });
        remarks.forEach((at, criterion) -> {
            String remark = remark(TableCell.back(line.cell(at)), LONGEST_REMARK, problems);
            if (remark == null) return;
            Mark mark = marks.getOrDefault(criterion.id(), new Mark(criterion.id(), null, false, null));
            marks.put(criterion.id(), new Mark(mark.criterion(), mark.points(), mark.notCounted(), remark));
        });
        String word = remark(cell(line, Column.COMMENT), LONGEST_WORD, problems);
        return new Row(
                line.no(),
                signs(line).called(),
                student,
                List.copyOf(marks.values()),
                word,
                String.join(" ", problems));
    }

    /** Rows of one criterion each, put together by student. */
    private List<Row> byCriterion(List<Line> lines, String prompt, List<String> notes) {
        Map<MarkedStudents.Signs, List<Line>> ofStudents = new LinkedHashMap<>();
        int others = 0;
        for (Line line : lines) {
            String of = cell(line, Column.PROMPT);
            if (!of.isEmpty() && !bare(of).equals(bare(prompt))) others++;
            else ofStudents.computeIfAbsent(signs(line), w -> new ArrayList<>()).add(line);
        }
        if (others > 0)
            notes.add((others == 1 ? "A row is" : others + " rows are") + " about another prompt and "
                    + (others == 1 ? "was" : "were") + " left.");
        return ofStudents.values().stream().map(this::together).toList();
    }

    private Row together(List<Line> lines) {
        Line first = lines.get(0);
        List<String> problems = new ArrayList<>();
        Long student = who.tell(signs(first), problems);
        Map<String, Mark> marks = new LinkedHashMap<>();
        for (Line line : lines) {
            String name = cell(line, Column.CRITERION);
            Criterion criterion = criterion(bare(name));
            if (criterion == null) {
                problems.add("“" + shortened(name) + "” is no criterion of this prompt.");
                continue;
            }
            boolean not = Folding.fold(cell(line, Column.COUNTS)).equals("no");
            String remark = remark(cell(line, Column.COMMENT), LONGEST_REMARK, problems);
            Mark mark = mark(criterion, not ? NOT_COUNTED : cell(line, Column.POINTS), remark, problems);
            if (mark != null) add(marks, mark, criterion, problems);
        }
        return new Row(
                first.no(),
                signs(first).called(),
                student,
                List.copyOf(marks.values()),
                null,
                String.join(" ", problems));
    }

    private static void add(Map<String, Mark> marks, Mark mark, Criterion criterion, List<String> problems) {
        if (marks.putIfAbsent(mark.criterion(), mark) != null)
            problems.add("“" + criterion.name() + "” is given twice.");
    }

    /** @return null if the cell says nothing, or nothing that can be a mark */
    private static @Nullable Mark mark(
            Criterion criterion, String cell, @Nullable String remark, List<String> problems) {
        if (cell.isEmpty()) return remark == null ? null : new Mark(criterion.id(), null, false, remark);
        String folded = Folding.fold(cell);
        if (folded.equals(NOT_COUNTED)) return new Mark(criterion.id(), null, true, remark);
        for (Rubric.Level level : criterion.levels())
            if (!level.name().isEmpty() && Folding.fold(level.name()).equals(folded))
                return new Mark(criterion.id(), level.points(), false, remark);
        try {
            BigDecimal points = new BigDecimal(cell.length() > 40 ? "" : cell.replace(',', '.'));
            criterion.require(points);
            return new Mark(criterion.id(), points, false, remark);
        } catch (NumberFormatException e) {
            problems.add("“" + shortened(cell) + "” is neither points nor a level of " + criterion.name() + ".");
        } catch (Refusal refusal) {
            problems.add(refusal.getMessage());
        }
        return null;
    }

    private static @Nullable String remark(String cell, int longest, List<String> problems) {
        if (cell.isEmpty()) return null;
        if (cell.length() <= longest) return cell;
        problems.add("A comment has more than " + longest + " characters.");
        return null;
    }

    /** Of several rows of one student none can be taken. */
    private static List<Row> once(List<Row> rows) {
        Map<Long, List<Row>> ofStudent =
                rows.stream().filter(r -> r.studentId() != null).collect(Collectors.groupingBy(Row::studentId));
        return rows.stream()
                .map(row -> {
                    List<Row> same = row.studentId() == null ? List.of() : ofStudent.get(row.studentId());
                    if (same.size() < 2) return row;
                    String lines = same.stream()
                            .filter(other -> other.line() != row.line())
                            .map(other -> String.valueOf(other.line()))
                            .collect(Collectors.joining(", "));
                    return row.left("This student stands in line " + lines + " as well.");
                })
                .toList();
    }

    private MarkedStudents.Signs signs(Line line) {
        String name = cell(line, Column.STUDENT);
        return new MarkedStudents.Signs(
                name.isEmpty() ? (cell(line, Column.GIVEN) + " " + cell(line, Column.FAMILY)).strip() : name,
                cell(line, Column.USERNAME),
                cell(line, Column.NUMBER),
                cell(line, Column.EMAIL));
    }

    private String cell(Line line, Column column) {
        return TableCell.back(line.cell(columns.getOrDefault(column, -1)));
    }

    private @Nullable Criterion criterion(String bare) {
        return rubric.criteria().stream()
                .filter(c -> bare(c.name()).equals(bare))
                .findFirst()
                .orElse(null);
    }

    /** A head without what it is out of: "Observation (of 6)" is Observation. */
    private static String bare(String head) {
        return Folding.fold(TableCell.back(head))
                .replaceAll("\\s+", " ")
                .replaceAll("\\s*\\((of )?[0-9.,]+\\)$", "")
                .strip();
    }

    static String shortened(String text) {
        return text.length() > 60 ? text.substring(0, 60) + "…" : text;
    }

    private static Refusal wrong(String code, String sentence) {
        return new Refusal("table", code, sentence);
    }

    private static Map<String, Column> heads() {
        Map<Column, String> words = Map.ofEntries(
                Map.entry(Column.STUDENT, "student name studentname fullname pupil learner"),
                Map.entry(Column.GIVEN, "given givenname forename firstname"),
                Map.entry(Column.FAMILY, "family familyname surname lastname"),
                Map.entry(Column.USERNAME, "username signin"),
                Map.entry(Column.NUMBER, "number no schoolno schoolnumber studentno studentnumber"),
                Map.entry(Column.EMAIL, "email mail emailaddress"),
                Map.entry(Column.PROMPT, "prompt"),
                Map.entry(Column.CRITERION, "criterion"),
                Map.entry(Column.POINTS, "points"),
                Map.entry(Column.COUNTS, "counts"),
                Map.entry(Column.COMMENT, "comment comments remark feedback"));
        Map<String, Column> heads = new HashMap<>();
        words.forEach((column, all) -> {
            for (String word : all.split(" ")) heads.put(word, column);
        });
        return Map.copyOf(heads);
    }
}

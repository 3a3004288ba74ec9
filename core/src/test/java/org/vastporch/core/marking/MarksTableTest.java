package org.vastporch.core.marking;

import static org.junit.jupiter.api.Assertions.*;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastporch.core.Refusal;
import org.vastporch.core.marking.MarkedStudents.Student;
import org.vastporch.core.marking.MarksTable.Mark;
import org.vastporch.core.marking.MarksTable.Outcome;
import org.vastporch.core.marking.MarksTable.Row;
import org.vastporch.core.rubrics.Rubric;
import org.vastporch.core.rubrics.Rubric.Criterion;
import org.vastporch.core.rubrics.Rubric.Level;

class MarksTableTest {

    private static final Rubric RUBRIC =
            new Rubric(List.of(criterion("o", "Observation", 2, 4, 6), criterion("r", "Reflection", 0, 2, 3)));

    private static final List<Student> CLASS = List.of(
            new Student(1, "Wren Castellane", "w.castellane", "2041", "wren@pelham.example"),
            new Student(2, "Pia Aurelio", "p.aurelio", "2042", ""),
            new Student(3, "Łukasz Ó Briain", "l.obriain", "2043", ""),
            new Student(4, "Pia Aurelio", "p.aurelio2", "", ""));

    private static Criterion criterion(String id, String name, int low, int mid, int high) {
        return new Criterion(
                id, name, BigDecimal.ONE, List.of(level("told", low), level("shown", mid), level("shared", high)));
    }

    private static Level level(String name, int points) {
        return new Level(name, BigDecimal.valueOf(points), "");
    }

    private static MarksTable.Marks read(String... lines) {
        return MarksTable.read(String.join("\n", lines), "Slugs", RUBRIC, CLASS);
    }

    private static Row row(String... lines) {
        return read(lines).rows().get(0);
    }

    private static Mark mark(String criterion, String points) {
        return new Mark(criterion, new BigDecimal(points), false, null);
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', nullValues = "-", textBlock = """
        # cell       | points | says
        4            | 4      |
        3.5          | 3.5    |
        "3,5"        | 3.5    |
        Shown        | 4      |
        sHaReD       | 6      |
        2            | 2      |
        6.01         | -      | goes from 2 to 6
        1.9          | -      | goes from 2 to 6
        -1           | -      | goes from 2 to 6
        1e9          | -      | goes from 2 to 6
        well done    | -      | neither points nor a level of Observation
        """)
    void aCellIsPointsOrALevel(String cell, String points, String says) {
        Row row = row("Username,Observation", "w.castellane," + cell);
        if (points != null) {
            assertEquals("", row.problem());
            assertEquals(0, new BigDecimal(points).compareTo(row.marks().get(0).points()), () -> row.marks()
                    .toString());
        } else {
            assertTrue(row.problem().contains(says), row::problem);
            assertEquals(Outcome.LEFT, row.outcome(Map.of(), ""));
        }
    }

    @Test
    void whatATableDoesNotSayIsLeft() {
        Row row = row("Student;Observation (of 6);Reflection;Total;Comment", "Wren Castellane;;Shared;9;Well seen");
        assertEquals(1L, row.studentId());
        assertEquals(List.of(mark("r", "3")), row.marks());
        assertEquals("Well seen", row.word());
        assertEquals(
                List.of("This column says nothing that is taken: Total."),
                read("Student;Observation;Total", "Wren Castellane;3;9").notes());
        assertEquals(
                Outcome.SAME, row("Student,Observation", "Wren Castellane,").outcome(Map.of(), ""), "nothing is given");
    }

    @Test
    void aRemarkStandsBesideItsCriterionWithPointsOrWithout() {
        Row row = row(
                "Student,Observation,Comment on Observation,Comment on Reflection", "Wren Castellane,4,Close.,Why?");
        assertEquals(
                List.of(new Mark("o", new BigDecimal("4"), false, "Close."), new Mark("r", null, false, "Why?")),
                row.marks());
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', nullValues = "-", textBlock = """
        # name              | username     | number | who | says
        Wren Castellane     |              |        | 1   |
        Castellane, Wren    |              |        | 1   |
        WREN  castellane    |              |        | 1   |
        O Briain Lukasz     |              |        | 3   |
                            | W.CASTELLANE |        | 1   |
                            |              | 2041   | 1   |
        Pia Aurelio         |              |        | -   | Several students here are called
        Pia Aurelio         | p.aurelio2   |        | 4   |
        Pia Aurelio         |              | 2042   | 2   |
        Wren Castellane     | p.aurelio    |        | -   | two different students
        Wren Castellane     |              | 2042   | -   | two different students
        Wren Castellan      |              |        | -   | Nobody here is
        Wren Castellan      | w.castellane |        | -   | Nobody here is
                            |              |        | -   | does not say whose
        """)
    void allThatTellsAStudentHasToTellTheSame(String name, String username, String number, Long who, String says) {
        Row row = row(
                "Student|Username|School number|Reflection",
                cell(name) + "|" + cell(username) + "|" + cell(number) + "|2");
        assertEquals(who, row.studentId());
        if (who == null) assertTrue(row.problem().contains(says), row::problem);
        else assertEquals("", row.problem());
    }

    private static String cell(String given) {
        return given == null ? "" : given;
    }

    @Test
    void rowsOfOneCriterionEachArePutTogether() {
        MarksTable.Marks marks = read(
                "Student,Group,Prompt,Criterion,Points,Of,Level,Counts",
                "Wren Castellane,North,Slugs,Observation,5,6,shown,yes",
                "Łukasz Ó Briain,North,Slugs,Observation,2,6,told,yes",
                "Wren Castellane,North,Slugs,Reflection,,3,,no",
                "Wren Castellane,North,Roots,Observation,2,6,told,yes",
                "Łukasz Ó Briain,North,Slugs,Depth,2,6,told,yes");
        assertEquals(
                List.of(mark("o", "5"), new Mark("r", null, true, null)),
                marks.rows().get(0).marks());
        assertEquals(
                "“Depth” is no criterion of this prompt.", marks.rows().get(1).problem());
        assertTrue(marks.notes().contains("A row is about another prompt and was left."), marks.notes()::toString);
    }

    @Test
    void ofTwoRowsOfOneStudentNoneIsTaken() {
        List<Row> rows = read("Username,Observation", "w.castellane,4", "p.aurelio,4", "w.castellane,5")
                .rows();
        assertEquals("This student stands in line 4 as well.", rows.get(0).problem());
        assertEquals("", rows.get(1).problem());
        assertEquals("This student stands in line 2 as well.", rows.get(2).problem());
        assertEquals(
                "“Observation” is given twice.",
                row("Student,Criterion,Points", "Wren Castellane,Observation,4", "Wren Castellane,Observation,5")
                        .problem());
    }

    @Test
    void saysWhatIsWrongWithTheWhole() {
        assertEquals("marks-empty", refused("\n"));
        assertEquals("marks-empty", refused("Student,Observation"));
        assertEquals("marks-no-student", refused("Group,Observation\nNorth,3"));
        assertEquals("marks-no-criterion", refused("Student,Depth\nWren Castellane,3"));
        assertEquals("marks-too-long", refused("Username,Observation\n" + "x,1\n".repeat(5_001)));
        assertEquals("table-too-long", refused("Username,Observation\n" + "x".repeat(1_000_000)));
    }

    private static String refused(String text) {
        return assertThrows(Refusal.class, () -> read(text)).code();
    }

    @Test
    void saysWhatTakingItWouldDo() {
        Row row = row(
                "Username,Observation,Reflection,Comment on Reflection,Comment",
                "w.castellane,4,not counted,Why?,Good");
        Map<String, Mark> before = new HashMap<>();
        assertEquals(Outcome.NEW, row.outcome(before, ""));
        before.put("o", new Mark("o", new BigDecimal("4.0"), false, ""));
        assertEquals(Outcome.NEW, row.outcome(before, ""));
        before.put("r", new Mark("r", null, true, "Why?"));
        assertEquals(Outcome.NEW, row.outcome(before, ""));
        assertEquals(Outcome.SAME, row.outcome(before, "Good"));
        assertEquals(Outcome.CHANGES, row.outcome(before, "Better"));
        before.put("r", new Mark("r", BigDecimal.ONE, false, "Why?"));
        assertEquals(Outcome.CHANGES, row.outcome(before, "Good"));
        before.put("r", new Mark("r", null, true, "Because"));
        assertEquals(Outcome.CHANGES, row.outcome(before, "Good"));
        before.put("r", new Mark("r", null, true, "Why?"));
        before.put("o", new Mark("o", new BigDecimal("5"), false, ""));
        assertEquals(Outcome.CHANGES, row.outcome(before, "Good"));
    }

    /** What is written out is read back as it was, whatever stands in it, and changes nothing. */
    @Test
    void whatGoesOutComesBackAsItWas() {
        Random random = new Random(16);
        String[] remarks = {"", "Close.", "=1+1", "-3", "a, b; \"c\"", "'so'", "Łąka"};
        for (int i = 0; i < 500; i++) {
            List<MarksTable.Given> given = new ArrayList<>();
            for (Student student : CLASS) {
                Map<String, Mark> marks = new HashMap<>();
                for (Criterion criterion : RUBRIC.criteria()) {
                    boolean not = random.nextInt(4) == 0;
                    BigDecimal points = BigDecimal.valueOf(200 + random.nextInt(100), 2);
                    if (random.nextInt(3) > 0)
                        marks.put(
                                criterion.id(),
                                new Mark(criterion.id(), not ? null : points, not, remarks[random.nextInt(7)]));
                }
                given.add(new MarksTable.Given(student, marks, remarks[random.nextInt(7)]));
            }
            Map<Long, Row> rows = new HashMap<>();
            for (Row row : MarksTable.read(MarksTable.write(RUBRIC, given), "Slugs", RUBRIC, CLASS)
                    .rows()) rows.put(row.studentId(), row);
            for (MarksTable.Given of : given) {
                Row row = rows.get(of.student().id());
                assertEquals(Outcome.SAME, row.outcome(of.marks(), of.word()), () -> row + " was " + of);
                assertEquals(
                        of.marks().keySet(),
                        row.marks().stream().map(Mark::criterion).collect(Collectors.toSet()));
            }
        }
    }
}

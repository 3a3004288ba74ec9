package org.vastporch.core.enrolment;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.vastporch.core.Refusal;
import org.vastporch.core.tables.Table;
import org.vastporch.core.tables.Table.Line;
import org.vastporch.core.tables.TableFile;

/**
 * Reads a list of students as school offices export it: encoding, separator, head and columns are found by looking, and
 * it is said what was taken as what.
 */
public final class RosterReader {

    /** More rows than this are not taken at once. */
    public static final int MOST_ROWS = 2500;

    /** What a column is. A whole name has its given name first, unless it has a comma or the column says otherwise. */
    public enum Column {
        FAMILY,
        GIVEN,
        FULL,
        FULL_FAMILY_FIRST,
        EMAIL,
        NUMBER,
        GROUP,
        LEFT
    }

    /**
     * One row as it was read.
     *
     * @param line its number in the file, from 1; empty texts stand for cells that were not there
     * @param note what is odd about the line, in words; empty if nothing is
     */
    public record Row(
            int line, String family, String given, String email, String schoolNo, String group, String note) {}

    /**
     * A column as it was taken.
     *
     * @param head the words at its head; empty if the list has none
     * @param sample the first cell of it that says something
     */
    public record ColumnTaken(String head, String sample, Column as) {}

    /** @param notes what was left or mended, in words */
    public record Roster(List<ColumnTaken> columns, List<Row> rows, List<String> notes) {}

    private RosterReader() {}

    /** Reads a file's bytes; {@code columns} says what the columns are, or is empty to let that be found. */
    public static Roster read(byte[] bytes, List<Column> columns) {
        return read(TableFile.text(bytes), columns);
    }

    /** Reads pasted text, in the same way. */
    public static Roster read(String text, List<Column> columns) {
        Table table = Table.of(text, RosterColumns::areNames);
        List<Line> lines = table.lines();
        if (lines.isEmpty())
            throw new Refusal(
                    "roster",
                    "roster-empty",
                    "There are no rows in this roster. Paste the names, one to a line, or choose a file.");
        RosterColumns.Head found = RosterColumns.of(lines);
        List<Column> as = columns.isEmpty() ? found.columns() : columns;
        boolean names = as.stream()
                .anyMatch(c ->
                        c == Column.FAMILY || c == Column.GIVEN || c == Column.FULL || c == Column.FULL_FAMILY_FIRST);
        if (!names)
            throw new Refusal(
                    "roster",
                    "roster-no-name",
                    "No column of names was found. The first row reads \""
                            + shortened(String.join(", ", lines.get(0).cells()))
                            + "\"; it should name the columns, such as: Surname, Forename, E-mail, Group.");
        List<Line> below = lines.subList(found.at() + 1, lines.size());
        List<Row> rows = below.stream()
                .map(line -> row(
                        line,
                        as,
                        found.at() < 0 ? 0 : lines.get(found.at()).cells().size()))
                .filter(row -> !(row.family() + row.given() + row.email() + row.schoolNo()).isEmpty())
                .toList();
        if (rows.isEmpty())
            throw new Refusal("roster", "roster-empty", "This roster has column names but no rows under them.");
        if (rows.size() > MOST_ROWS)
            throw new Refusal(
                    "roster",
                    "roster-too-long",
                    "This roster has " + rows.size() + " rows. At most " + MOST_ROWS
                            + " are taken at once; please split the file.");
        return new Roster(taken(lines, found.at(), below, as), rows, notes(table, found, columns.isEmpty()));
    }

    private static List<ColumnTaken> taken(List<Line> lines, int head, List<Line> below, List<Column> as) {
        List<ColumnTaken> taken = new ArrayList<>();
        for (int i = 0; i < as.size(); i++) {
            int at = i;
            String sample = below.stream()
                    .map(l -> l.cell(at))
                    .filter(c -> !c.isEmpty())
                    .findFirst()
                    .orElse("");
            taken.add(
                    new ColumnTaken(head < 0 ? "" : shortened(lines.get(head).cell(i)), shortened(sample), as.get(i)));
        }
        return taken;
    }

    private static List<String> notes(Table table, RosterColumns.Head found, boolean guessed) {
        List<String> notes = new ArrayList<>(table.notes());
        if (found.at() > 0) {
            String left = table.lines().subList(0, found.at()).stream()
                    .map(l -> String.join(" ", l.cells()).strip())
                    .map(RosterReader::shortened)
                    .collect(Collectors.joining("”, “"));
            notes.add((found.at() == 1 ? "A line" : found.at() + " lines") + " above the names of the columns "
                    + (found.at() == 1 ? "was" : "were") + " left: “" + left + "”.");
        }
        List<Column> columns = found.columns();
        if (guessed && found.at() < 0 && columns.contains(Column.FAMILY))
            notes.add("No line says which name is which: look whether given and family names stand right.");
        if (guessed && columns.contains(Column.FULL_FAMILY_FIRST))
            notes.add("The list is sorted by the first word of each name, so that was taken as the family name.");
        return notes;
    }

    private static Row row(Line line, List<Column> columns, int head) {
        String family = cell(line, columns, Column.FAMILY);
        String given = cell(line, columns, Column.GIVEN);
        boolean familyFirst = columns.contains(Column.FULL_FAMILY_FIRST);
        String full = cell(line, columns, familyFirst ? Column.FULL_FAMILY_FIRST : Column.FULL);
        if (family.isEmpty() && given.isEmpty() && !full.isEmpty()) {
            int comma = full.indexOf(',');
            int space = familyFirst ? full.indexOf(' ') : full.lastIndexOf(' ');
            String before = comma >= 0 ? full.substring(0, comma) : space < 0 ? "" : full.substring(0, space);
            String after = full.substring((comma >= 0 ? comma : space) + 1);
            family = comma >= 0 || familyFirst && space >= 0 ? before : after;
            given = comma >= 0 || familyFirst && space >= 0 ? after : before;
        }
        return new Row(
                line.no(),
                family.strip(),
                given.strip(),
                cell(line, columns, Column.EMAIL),
                cell(line, columns, Column.NUMBER),
                cell(line, columns, Column.GROUP),
                note(line, columns, head));
    }

    private static String cell(Line line, List<Column> columns, Column column) {
        return line.cell(columns.indexOf(column));
    }

    /** A line that has another number of cells than the head, if that may have moved or lost something. */
    private static String note(Line line, List<Column> columns, int head) {
        if (head == 0) return "";
        int has = line.cells().size();
        if (line.cells().stream().skip(head).anyMatch(c -> !c.isEmpty()))
            return "This line has " + has + " cells and the head has " + head
                    + ": look whether each stands in its place";
        boolean lost = has < head && columns.stream().skip(has).anyMatch(c -> c != Column.LEFT);
        return lost ? "This line ends after " + has + (has == 1 ? " cell" : " cells") + "; the head has " + head : "";
    }

    private static String shortened(String text) {
        return text.length() <= 80 ? text : text.substring(0, 79) + "…";
    }
}

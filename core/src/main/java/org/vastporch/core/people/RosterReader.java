package org.vastporch.core.people;

import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVRecord;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.Refusal;
import org.vastporch.core.text.Folding;

/** Reads a roster as school offices export it: encoding, separator and columns are found by looking. */
public final class RosterReader {

    /** More rows than this are not taken at once. */
    public static final int MOST_ROWS = 2500;
    private static final int MOST_CELL = 200;

    /** One row as it was read. {@code line} is its number in the file, from 1; empty texts stand for cells that were not there. */
    public record Row(int line, String family, String given, String email, String schoolNo, String group) {}

    enum Column { FAMILY, GIVEN, FULL, EMAIL, NUMBER, GROUP }

    private static final Map<String, Column> HEADERS = headers();

    private RosterReader() {}

    /** Reads a file's bytes. */
    public static List<Row> read(byte[] bytes) {
        refuseOtherFiles(bytes);
        return read(decode(bytes));
    }

    /** Reads pasted text. Without a header line the first column is taken as the names, if it looks like names. */
    public static List<Row> read(String text) {
        List<CSVRecord> lines = parse(text.startsWith("\uFEFF") ? text.substring(1) : text);
        if (lines.isEmpty()) throw new Refusal("roster", "roster-empty", "There are no rows in this roster. Paste the names, one to a line, or choose a file.");
        Map<Column, Integer> columns = columnsOf(lines.get(0));
        boolean headed = !columns.isEmpty();
        if (!headed && looksLikeName(cell(lines.get(0), 0))) columns.put(Column.FULL, 0);
        if (!columns.containsKey(Column.FULL) && !columns.containsKey(Column.FAMILY) && !columns.containsKey(Column.GIVEN))
            throw new Refusal("roster", "roster-no-name",
                "No column with names was found. The first line should name the columns, for example: Surname, Forename, E-mail. It reads: "
                    + shortened(String.join(", ", lines.get(0).toList())));
        List<Row> rows = new ArrayList<>();
        for (CSVRecord line : lines.subList(headed ? 1 : 0, lines.size())) {
            Row row = row(line, columns);
            if (!(row.family() + row.given() + row.email() + row.schoolNo()).isEmpty()) rows.add(row);
        }
        if (rows.isEmpty()) throw new Refusal("roster", "roster-empty", "This roster has column names but no rows under them.");
        if (rows.size() > MOST_ROWS)
            throw new Refusal("roster", "roster-too-long", "This roster has " + rows.size() + " rows. At most "
                + MOST_ROWS + " are taken at once; please split the file.");
        return rows;
    }

    private static Row row(CSVRecord line, Map<Column, Integer> columns) {
        String family = cell(line, columns.get(Column.FAMILY));
        String given = cell(line, columns.get(Column.GIVEN));
        String full = cell(line, columns.get(Column.FULL));
        if (family.isEmpty() && given.isEmpty() && !full.isEmpty()) {
            int comma = full.indexOf(',');
            int space = full.lastIndexOf(' ');
            family = comma >= 0 ? full.substring(0, comma) : full.substring(space + 1);
            given = comma >= 0 ? full.substring(comma + 1) : space < 0 ? "" : full.substring(0, space);
        }
        return new Row((int) line.getRecordNumber(), family.strip(), given.strip(), cell(line, columns.get(Column.EMAIL)),
            cell(line, columns.get(Column.NUMBER)), cell(line, columns.get(Column.GROUP)));
    }

    private static String cell(CSVRecord line, @Nullable Integer index) {
        if (index == null || index >= line.size()) return "";
        String text = line.get(index).replaceAll("[\\p{Cntrl}\\p{Cf}]", " ").replaceAll("[\\s\\u00a0]+", " ").strip();
        return text.length() <= MOST_CELL ? text : text.substring(0, MOST_CELL);
    }

    private static Map<Column, Integer> columnsOf(CSVRecord header) {
        Map<Column, Integer> columns = new EnumMap<>(Column.class);
        for (int i = 0; i < header.size(); i++) {
            Column column = HEADERS.get(Folding.fold(header.get(i)).replaceAll("[^\\p{L}]", ""));
            if (column != null) columns.putIfAbsent(column, i);
        }
        return columns;
    }

    private static boolean looksLikeName(String cell) {
        return cell.matches("[\\p{L}\\p{M}'’ .,-]{2,80}") && cell.chars().anyMatch(Character::isLetter);
    }

    private static List<CSVRecord> parse(String text) {
        CSVFormat format = CSVFormat.DEFAULT.builder().setDelimiter(separatorOf(text)).setIgnoreEmptyLines(true)
            .setIgnoreSurroundingSpaces(true).setTrim(true).setLenientEof(true).setTrailingData(true).get();
        try (var parser = format.parse(new StringReader(text))) {
            return parser.getRecords();
        } catch (IOException | UncheckedIOException e) {
            throw new Refusal("roster", "roster-broken", "This file cannot be read as rows: a quotation mark seems to be missing.");
        }
    }

    /** The separator that stands most often, outside quotation marks, in the first lines. */
    private static char separatorOf(String text) {
        String head = text.lines().filter(l -> !l.isBlank()).limit(5).reduce("", (a, b) -> a + "\n" + b).replaceAll("\"[^\"]*\"", "");
        char best = ',';
        long most = 0;
        for (char candidate : new char[] {'\t', ';', ',', '|'}) {
            long count = head.chars().filter(c -> c == candidate).count();
            if (count > most) {
                most = count;
                best = candidate;
            }
        }
        // Names typed one to a line as "Family, Given" have commas that part nothing.
        boolean names = best == ',' && text.lines().filter(l -> !l.isBlank()).limit(5)
            .allMatch(l -> l.chars().filter(c -> c == ',').count() == 1 && !l.contains("@") && looksLikeName(l.strip())
                && !HEADERS.containsKey(Folding.fold(l.split(",")[0]).replaceAll("[^\\p{L}]", "")));
        return names ? '\t' : best;
    }

    private static void refuseOtherFiles(byte[] bytes) {
        String start = new String(bytes, 0, Math.min(bytes.length, 8), StandardCharsets.ISO_8859_1);
        String kind = start.startsWith("%PDF") ? "a PDF document" : start.startsWith("PK") ? "a spreadsheet or an archive"
            : start.startsWith("\u00d0\u00cf\u0011\u00e0") ? "an old spreadsheet" : start.startsWith("\u0089PNG") || start.startsWith("\u00ff\u00d8") ? "a picture" : "";
        if (!kind.isEmpty())
            throw new Refusal("roster", "roster-other-file", "This is " + kind + ", whatever its name says. Save the list as CSV and try again, or paste the rows.");
    }

    private static String decode(byte[] b) {
        if (b.length >= 2 && (b[0] & 0xff) == 0xff && (b[1] & 0xff) == 0xfe) return new String(b, 2, b.length - 2, StandardCharsets.UTF_16LE);
        if (b.length >= 2 && (b[0] & 0xff) == 0xfe && (b[1] & 0xff) == 0xff) return new String(b, 2, b.length - 2, StandardCharsets.UTF_16BE);
        int evenZero = 0;
        int oddZero = 0;
        int looked = Math.min(b.length, 400);
        for (int i = 0; i < looked; i++) {
            if (b[i] == 0 && i % 2 == 0) evenZero++;
            if (b[i] == 0 && i % 2 == 1) oddZero++;
        }
        if (oddZero > looked / 4) return new String(b, StandardCharsets.UTF_16LE);
        if (evenZero > looked / 4) return new String(b, StandardCharsets.UTF_16BE);
        if (evenZero + oddZero > 0) throw new Refusal("roster", "roster-other-file", "This is not a text file. Save the list as CSV and try again, or paste the rows.");
        try {
            return StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(b)).toString();
        } catch (CharacterCodingException e) {
            return new String(b, Charset.forName("windows-1252"));
        }
    }

    private static String shortened(String text) {
        return text.length() <= 120 ? text : text.substring(0, 119) + "…";
    }

    private static Map<String, Column> headers() {
        Map<Column, List<String>> synonyms = Map.of(
            Column.FAMILY, List.of("surname", "familyname", "lastname", "nachname", "familienname", "nom", "achternaam", "apellido", "apellidos", "cognome"),
            Column.GIVEN, List.of("forename", "firstname", "givenname", "vorname", "prenom", "voornaam", "nombre", "preferredname", "christianname"),
            Column.FULL, List.of("name", "fullname", "student", "studentname", "learner", "pupil", "pupilname", "nameofstudent", "nomcomplet"),
            Column.EMAIL, List.of("email", "mail", "emailaddress", "adresseemail", "schoolemail", "correo"),
            Column.NUMBER, List.of("studentno", "studentnumber", "number", "no", "nummer", "id", "studentid", "schoolno", "schoolnumber", "admissionno", "pupilnumber"),
            Column.GROUP, List.of("group", "team", "set", "bed", "gruppe", "groupe", "tablegroup"));
        Map<String, Column> headers = new HashMap<>();
        synonyms.forEach((column, words) -> words.forEach(word -> headers.put(word, column)));
        return Map.copyOf(headers);
    }
}

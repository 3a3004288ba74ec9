package org.vastporch.core.rubrics;

import java.io.IOException;
import java.io.StringReader;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVPrinter;
import org.apache.commons.csv.CSVRecord;
import org.vastporch.core.Refusal;
import org.vastporch.core.rubrics.Rubric.Criterion;
import org.vastporch.core.rubrics.Rubric.Level;
import org.vastporch.core.text.TableCell;

/**
 * A rubric as a table: a row for each level, with the columns Criterion, Weight, Level, Points, Descriptor, Counted and
 * Id. Counted names in the lowest row what is counted, and in the others from how many on it speaks for the level, such
 * as "words 50, pictures 1". Read back it is the same rubric. What a spreadsheet makes of such a table is read as well:
 * semicolons or tabs between the cells, decimal commas, a mark at the beginning, a criterion that is named in its first
 * row alone.
 */
public final class RubricCsv {

    private static final String CRITERION = "criterion";
    private static final String WEIGHT = "weight";
    private static final String LEVEL = "level";
    private static final String POINTS = "points";
    private static final String DESCRIPTOR = "descriptor";
    private static final String COUNTED = "counted";
    private static final String ID = "id";
    private static final int LONGEST = 300_000;
    private static final Pattern COUNT = Pattern.compile("([\\p{L} ]{1,20}?)(?: (\\d{1,7}))?");
    private static final int MOST_ROWS = Rubric.MOST_CRITERIA * Rubric.MOST_LEVELS;

    /** A criterion of which rows are still read. */
    private record Begun(
            String id, String name, BigDecimal weight, List<Level> levels, Map<Counted, List<Integer>> counted) {}

    private RubricCsv() {}

    public static String write(Rubric rubric) {
        StringWriter text = new StringWriter();
        try (CSVPrinter csv = new CSVPrinter(text, CSVFormat.RFC4180)) {
            csv.printRecord("Criterion", "Weight", "Level", "Points", "Descriptor", "Counted", "Id");
            for (Criterion criterion : rubric.criteria())
                for (int l = 0; l < criterion.levels().size(); l++) {
                    Level level = criterion.levels().get(l);
                    csv.printRecord(
                            TableCell.of(criterion.name()),
                            criterion.weight().toPlainString(),
                            TableCell.of(level.name()),
                            level.points().toPlainString(),
                            TableCell.of(level.descriptor()),
                            counted(criterion, l),
                            TableCell.of(criterion.id()));
                }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return text.toString();
    }

    /** @throws Refusal with the number of the row, if it cannot be a rubric */
    public static Rubric read(String text) {
        if (text.length() > LONGEST) throw wrong("rubric-too-long", "This is longer than any rubric.");
        String whole = text.startsWith("\uFEFF") ? text.substring(1) : text;
        String head = whole.lines().findFirst().orElse("");
        char separator = head.contains("\t") ? '\t' : head.contains(";") ? ';' : ',';
        CSVFormat format = CSVFormat.RFC4180
                .builder()
                .setDelimiter(separator)
                .setIgnoreEmptyLines(true)
                .get();
        Map<String, Begun> begun = new LinkedHashMap<>();
        try (CSVParser parser = CSVParser.parse(new StringReader(whole), format)) {
            Map<String, Integer> columns = Map.of();
            String name = "";
            int rows = 0;
            for (CSVRecord row : parser) {
                if (columns.isEmpty()) {
                    columns = columns(row);
                    continue;
                }
                if (++rows > MOST_ROWS)
                    throw wrong(
                            "rubric-too-long", "A rubric has at most " + MOST_ROWS + " rows: 12 criteria of 8 levels.");
                long no = row.getRecordNumber();
                if (!cell(row, columns, CRITERION).isEmpty()) name = cell(row, columns, CRITERION);
                if (name.isEmpty()) throw wrong("criterion-name", "Row " + no + " names no criterion.");
                String weight = cell(row, columns, WEIGHT);
                Begun of = begun.get(name.toLowerCase(Locale.ROOT));
                if (of == null) {
                    of = new Begun(
                            cell(row, columns, ID),
                            name,
                            weight.isEmpty() ? BigDecimal.ONE : number(weight, "The weight", no),
                            new ArrayList<>(),
                            new EnumMap<>(Counted.class));
                    begun.put(name.toLowerCase(Locale.ROOT), of);
                }
                of.levels()
                        .add(new Level(
                                cell(row, columns, LEVEL),
                                number(cell(row, columns, POINTS), "Points", no),
                                cell(row, columns, DESCRIPTOR)));
                readCounted(cell(row, columns, COUNTED), of.counted(), no);
            }
        } catch (IOException | UncheckedIOException | IllegalStateException e) {
            throw wrong("rubric-unreadable", "This table cannot be read: a quotation mark in it is not closed.");
        }
        return new Rubric(begun.values().stream()
                .map(b -> new Criterion(
                        b.id(),
                        b.name(),
                        b.weight(),
                        b.levels(),
                        b.counted().entrySet().stream()
                                .map(e -> new Measure(e.getKey(), e.getValue()))
                                .toList()))
                .toList());
    }

    private static String counted(Criterion criterion, int level) {
        List<String> parts = new ArrayList<>();
        for (Measure measure : criterion.counted()) {
            String word = measure.what().word();
            if (level == 0) parts.add(word);
            else if (level <= measure.atLeast().size())
                parts.add(word + " " + measure.atLeast().get(level - 1));
        }
        return String.join(", ", parts);
    }

    /** Adds what a row says to what its criterion counts. */
    private static void readCounted(String cell, Map<Counted, List<Integer>> counted, long row) {
        for (String part : cell.split("[,;]")) {
            if (part.isBlank()) continue;
            Matcher read = COUNT.matcher(part.strip());
            Counted what = read.matches() ? Counted.called(read.group(1)).orElse(null) : null;
            if (what == null)
                throw wrong(
                        "measure-unknown",
                        "Nothing is counted that is called \"" + part.strip() + "\", in row " + row + ".");
            List<Integer> atLeast = counted.computeIfAbsent(what, w -> new ArrayList<>());
            if (read.group(2) != null) atLeast.add(Integer.parseInt(read.group(2)));
        }
    }

    private static Map<String, Integer> columns(CSVRecord head) {
        Map<String, Integer> columns = new LinkedHashMap<>();
        for (int i = 0; i < head.size(); i++)
            columns.putIfAbsent(head.get(i).strip().toLowerCase(Locale.ROOT), i);
        for (String needed : List.of(CRITERION, POINTS))
            if (!columns.containsKey(needed))
                throw wrong(
                        "rubric-columns",
                        "The first row names the columns: Criterion, Weight, Level, Points, Descriptor. \"" + needed
                                + "\" is missing.");
        return columns;
    }

    private static String cell(CSVRecord row, Map<String, Integer> columns, String name) {
        Integer at = columns.get(name);
        if (at == null || at >= row.size()) return "";
        return TableCell.back(row.get(at).strip());
    }

    private static BigDecimal number(String text, String what, long row) {
        try {
            if (text.length() <= 40) return new BigDecimal(text.replace(',', '.'));
        } catch (NumberFormatException e) {
            // said below
        }
        throw wrong(
                "rubric-number",
                what + " in row " + row + (text.isEmpty() ? " are missing." : " are no number: \"" + text + "\"."));
    }

    private static Refusal wrong(String code, String sentence) {
        return new Refusal("rubric", code, sentence);
    }
}

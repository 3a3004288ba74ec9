package org.vastporch.core.tables;

import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.text.Normalizer;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.vastporch.core.Refusal;
import org.vastporch.core.text.OneLine;

/**
 * A table as somebody pasted or saved it, as lines of cells: the separator is found by looking.
 *
 * @param lines those that are not empty
 * @param notes what had to be mended to read it, in words
 */
public record Table(List<Line> lines, List<String> notes) {

    /** @param no number of the line in the file, from 1 */
    public record Line(int no, List<String> cells) {

        /** The cell at an index; empty if the line ends before it. */
        public String cell(int index) {
            return index < 0 || index >= cells.size() ? "" : cells.get(index);
        }

        boolean isEmpty() {
            return cells.stream().allMatch(String::isEmpty);
        }
    }

    /** More characters than this are no table of a class. */
    private static final int LONGEST = 1_000_000;

    private static final int MOST_CELLS = 200;
    /** A cell over more lines than this is a quotation mark that nobody closed. */
    private static final int MOST_LINES_OF_A_CELL = 3;

    private static final char NONE = '\0';
    private static final Pattern SAYS_SEPARATOR = Pattern.compile("(?i)^\\s*\"?sep=(.)\"?\\s*$");
    private static final Pattern QUOTED = Pattern.compile("\"[^\"]*\"");

    /** @throws Refusal for a table that is too long or cannot be read as rows */
    public static Table of(String text) {
        return of(text, head -> false);
    }

    /** @param areNames says of the first lines whether the one comma in each parts a family from a given name */
    public static Table of(String text, Predicate<List<String>> areNames) {
        if (text.length() > LONGEST)
            throw new Refusal(
                    "table",
                    "table-too-long",
                    "This list is longer than any class. Please take the rows of one class.");
        String whole = text.startsWith("\uFEFF") ? text.substring(1) : text;
        if (!whole.endsWith("\n")) whole = whole + "\n";
        int end = whole.indexOf('\n');
        Matcher says = SAYS_SEPARATOR.matcher(whole.substring(0, end).strip());
        char separator = says.matches() ? says.group(1).charAt(0) : separatorOf(whole, areNames);
        if (says.matches()) whole = whole.substring(end);
        List<Line> lines = read(whole, separator, '"');
        if (lines != null) return new Table(lines, List.of());
        return new Table(
                read(whole, separator, NONE),
                List.of("A quotation mark was opened and not closed, so quotation marks were read as any other sign."));
    }

    /** Null if a quotation mark was not closed. */
    private static List<Line> read(String text, char separator, char quote) {
        CSVFormat.Builder format = CSVFormat.DEFAULT
                .builder()
                .setDelimiter(separator)
                .setIgnoreEmptyLines(true)
                .setIgnoreSurroundingSpaces(true)
                .setTrim(true)
                .setLenientEof(true)
                .setTrailingData(true);
        try (CSVParser parser =
                format.setQuote(quote == NONE ? null : quote).get().parse(new StringReader(text))) {
            List<Line> lines = new ArrayList<>();
            for (CSVRecord record : parser) {
                for (String cell : record)
                    if (cell.chars().filter(c -> c == '\n').count() > MOST_LINES_OF_A_CELL) return null;
                Line line = new Line(
                        (int) parser.getCurrentLineNumber(),
                        record.stream()
                                .limit(MOST_CELLS)
                                .map(cell -> tidy(cell, quote))
                                .toList());
                if (!line.isEmpty()) lines.add(line);
            }
            return lines;
        } catch (IOException | UncheckedIOException | IllegalStateException e) {
            if (quote != NONE) return null;
            throw new Refusal("table", "table-broken", "This file cannot be read as rows.");
        }
    }

    /**
     * Composed as names are written everywhere else; signs of no width that stand between no letters are no blanks,
     * they are nothing.
     */
    private static String tidy(String cell, char quote) {
        String bare = quote == NONE && cell.length() > 1 && cell.startsWith("\"") && cell.endsWith("\"")
                ? cell.substring(1, cell.length() - 1)
                : cell;
        return Normalizer.normalize(
                OneLine.of(bare)
                        .replaceAll("[\u00ad\u200b\u2060\ufeff\u200e\u200f]", "")
                        .replaceAll("[\\s\u00a0]+", " ")
                        .strip(),
                Normalizer.Form.NFC);
    }

    /** The separator that stands most often, outside quotation marks, in the first lines. */
    private static char separatorOf(String text, Predicate<List<String>> areNames) {
        List<String> head = text.lines()
                .filter(l -> !l.isBlank())
                .limit(12)
                .map(l -> QUOTED.matcher(l).replaceAll(""))
                .toList();
        char best = ',';
        long most = 0;
        for (char candidate : new char[] {'\t', ';', ',', '|'}) {
            long count = head.stream()
                    .mapToLong(l -> l.chars().filter(c -> c == candidate).count())
                    .sum();
            if (count > most) {
                most = count;
                best = candidate;
            }
        }
        // Names typed one to a line as "Family, Given" have commas that part nothing.
        boolean names = best == ','
                && head.stream().allMatch(l -> l.chars().filter(c -> c == ',').count() == 1)
                && areNames.test(head);
        return names ? '\t' : best;
    }
}

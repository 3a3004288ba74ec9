package org.vastporch.server.http;

import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.vastporch.core.text.TableCell;

/** Tables that are taken along. */
public final class Csv {

    private Csv() {}

    /**
     * A table as text. Words are written so that no spreadsheet takes them for a formula; nothing is an empty cell.
     *
     * @param rows the head first
     */
    public static String table(List<? extends List<?>> rows) {
        StringWriter text = new StringWriter();
        try (CSVPrinter csv = new CSVPrinter(text, CSVFormat.RFC4180)) {
            for (List<?> row : rows)
                csv.printRecord(row.stream()
                        .map(cell -> cell instanceof String words ? TableCell.of(words) : cell)
                        .toList());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return text.toString();
    }

    /** Begins with a mark of byte order: spreadsheets take a table without one for one in an old encoding. */
    public static ResponseEntity<byte[]> file(String text, String name) {
        return ResponseEntity.ok()
                .contentType(new MediaType("text", "csv", StandardCharsets.UTF_8))
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment().filename(name).build().toString())
                .body(("\ufeff" + text).getBytes(StandardCharsets.UTF_8));
    }
}

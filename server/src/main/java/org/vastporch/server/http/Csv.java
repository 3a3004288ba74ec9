package org.vastporch.server.http;

import java.nio.charset.StandardCharsets;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;

/** Tables that are taken along. */
public final class Csv {

    private Csv() {}

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

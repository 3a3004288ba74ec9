package org.vastporch.server;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Map;

/** A table in a file of its own, written by hand to be read by people: a name and what stands beside it. */
final class Table {

    private Table() {}

    /** @param name of the file in the folder of the proofs */
    static Map<String, String> read(String name) {
        try (var file = Table.class.getResourceAsStream("/proof/" + name)) {
            Map<String, String> lines = new LinkedHashMap<>();
            new String(file.readAllBytes(), StandardCharsets.UTF_8)
                    .lines()
                    .filter(l -> !l.isBlank() && !l.startsWith("#"))
                    .forEach(l -> lines.put(
                            l.split("\\s{2,}", 2)[0].strip(),
                            l.contains("  ") ? l.split("\\s{2,}", 2)[1].strip() : ""));
            return lines;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}

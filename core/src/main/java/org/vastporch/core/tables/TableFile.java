package org.vastporch.core.tables;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import org.vastporch.core.Refusal;

/** The bytes of a table as an office saved it: its encoding is found by looking. */
public final class TableFile {

    private TableFile() {}

    /** @throws Refusal for a file that is no text */
    public static String text(byte[] bytes) {
        refuseOtherFiles(bytes);
        return decode(bytes);
    }

    private static void refuseOtherFiles(byte[] bytes) {
        String start = new String(bytes, 0, Math.min(bytes.length, 8), StandardCharsets.ISO_8859_1);
        String kind = start.startsWith("%PDF")
                ? "a PDF document"
                : start.startsWith("PK")
                        ? "a spreadsheet or an archive"
                        : start.startsWith("\u00d0\u00cf\u0011\u00e0")
                                ? "an old spreadsheet"
                                : start.startsWith("\u0089PNG") || start.startsWith("\u00ff\u00d8") ? "a picture" : "";
        if (!kind.isEmpty())
            throw new Refusal(
                    "table",
                    "table-other-file",
                    "This is " + kind
                            + ", whatever its name says. Save the list as CSV and try again, or paste the rows.");
    }

    private static String decode(byte[] b) {
        if (b.length >= 2 && (b[0] & 0xff) == 0xff && (b[1] & 0xff) == 0xfe)
            return new String(b, 2, b.length - 2, StandardCharsets.UTF_16LE);
        if (b.length >= 2 && (b[0] & 0xff) == 0xfe && (b[1] & 0xff) == 0xff)
            return new String(b, 2, b.length - 2, StandardCharsets.UTF_16BE);
        int evenZero = 0;
        int oddZero = 0;
        int looked = Math.min(b.length, 400);
        for (int i = 0; i < looked; i++) {
            if (b[i] == 0 && i % 2 == 0) evenZero++;
            if (b[i] == 0 && i % 2 == 1) oddZero++;
        }
        if (oddZero > looked / 4) return new String(b, StandardCharsets.UTF_16LE);
        if (evenZero > looked / 4) return new String(b, StandardCharsets.UTF_16BE);
        if (evenZero + oddZero > 0)
            throw new Refusal(
                    "table",
                    "table-other-file",
                    "This is not a text file. Save the list as CSV and try again, or paste the rows.");
        try {
            return StandardCharsets.UTF_8
                    .newDecoder()
                    .decode(ByteBuffer.wrap(b))
                    .toString();
        } catch (CharacterCodingException e) {
            return new String(b, Charset.forName("windows-1252"));
        }
    }
}

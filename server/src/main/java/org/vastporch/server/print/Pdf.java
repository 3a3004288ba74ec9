package org.vastporch.server.print;

import com.openhtmltopdf.pdfboxout.PdfRendererBuilder;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Objects;

/** Pages for print. Their font is in them, under the name {@code main}. */
public final class Pdf {

    private Pdf() {}

    /** @param html well-formed; every letter in it is one of the main font's */
    public static byte[] of(String html) {
        return made(html, false);
    }

    /**
     * The same with tags, so that it can be listened to (PDF/UA).
     *
     * @param html with a language, a title and a word for every picture
     */
    public static byte[] tagged(String html) {
        return made(html, true);
    }

    private static byte[] made(String html, boolean tagged) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            new PdfRendererBuilder()
                    .usePdfUaAccessibility(tagged)
                    .useFont(
                            () -> Objects.requireNonNull(Pdf.class.getResourceAsStream(Lettering.MAIN), Lettering.MAIN),
                            "main")
                    .withHtmlContent(html, null)
                    .toStream(out)
                    .run();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }
}

package org.vastporch.server.enrolment;

import com.google.zxing.BarcodeFormat;
import com.google.zxing.WriterException;
import com.google.zxing.common.BitMatrix;
import com.google.zxing.qrcode.QRCodeWriter;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import org.jsoup.nodes.Entities;
import org.springframework.stereotype.Service;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.text.Latin;
import org.vastporch.server.http.Problem;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.print.Lettering;
import org.vastporch.server.print.Pdf;

/** Prints sign-in slips, each whole on its page, with a code that leads to the sign-in page. */
@Service
public class SlipPrinter {

    /** What the printer is loaded with. */
    public enum Paper {
        A4("210mm 297mm", "55mm"),
        LETTER("8.5in 11in", "51.5mm");

        private final String size;
        /** Of a slip. */
        private final String height;

        Paper(String size, String height) {
            this.size = size;
            this.height = height;
        }
    }

    /** Two beside each other and five below each other fit on either paper. */
    private static final int ROWS = 5;

    private static final String STYLE = """
        @page { size: %s; margin: 10mm }
        body { font-family: main; font-size: 9.5pt; color: #22303a; margin: 0 }
        table { border-collapse: collapse } table.page { width: 100%%; table-layout: fixed; page-break-inside: avoid }
        table.next { page-break-before: always }
        td.slip { width: 50%%; height: %s; border: 0.6pt dashed #9aa5a9; padding: 4mm 5mm; vertical-align: top }
        .name { font-size: 13pt; margin-bottom: 0.5mm } .class { color: #55626b; margin-bottom: 2.5mm }
        .label { color: #55626b; font-size: 8.5pt } .word { font-size: 12.5pt; margin-bottom: 1.8mm }
        .code { float: right; width: 26mm; height: 26mm }
        """;
    private static final int LONGEST_CLASS = 44;
    private static final int LONG_NAME = 36;
    private static final int LONG_ADDRESS = 60;
    private static final int LONGEST_NAME = 90;

    private final PeopleService people;

    SlipPrinter(PeopleService people) {
        this.people = people;
    }

    /**
     * The slips of a class, or of one student.
     *
     * @param personId 0 for the whole class
     * @param address the address of the sign-in page
     */
    public byte[] print(Viewer viewer, long classId, String className, long personId, String address, Paper paper) {
        List<PeopleService.Slip> students = people.slips(viewer, classId, personId);
        if (students.isEmpty())
            throw Problem.invalid(
                    "person", "no-students", "There is nobody here to print a slip for. Enrol students first.");
        StringBuilder html = new StringBuilder(
                "<html><head><style>" + STYLE.formatted(paper.size, paper.height) + "</style></head><body>");
        String code = code(address);
        for (int i = 0; i < students.size(); i += 2) {
            if (i % (2 * ROWS) == 0)
                html.append(i == 0 ? "" : "</table>")
                        .append("<table class='page")
                        .append(i == 0 ? "'>" : " next'>");
            html.append("<tr>").append(slip(students.get(i), className, address, code));
            html.append(i + 1 < students.size() ? slip(students.get(i + 1), className, address, code) : "<td></td>")
                    .append("</tr>");
        }
        return Pdf.of(html.append("</table></body></html>").toString());
    }

    private String slip(PeopleService.Slip student, String className, String address, String code) {
        String phrase = student.inUse()
                ? "your own, already in use"
                : student.phrase() != null ? student.phrase() : "on your first slip, or from the school keeper";
        String name = shortened(student.name().full(), LONGEST_NAME);
        float size = name.length() > LONG_NAME ? 9 : 13;
        String in = printable(shortened(className, LONGEST_CLASS), "", 9.5f)
                + (student.group() == null
                        ? ""
                        : ", " + printable(shortened(student.group(), LONGEST_CLASS / 2), "", 9.5f));
        return "<td class='slip'><div class='name' style='font-size:" + size + "pt'>"
                + printable(name, student.username(), size) + "</div><div class='class'>" + in + "</div>" + code
                + "<div class='label'>Go to</div><div class='word' style='font-size:"
                + (address.length() > LONG_ADDRESS ? 7 : 9.5) + "pt'>" + breakable(address) + "</div>"
                + "<div class='label'>Username</div><div class='word'>" + breakable(student.username()) + "</div>"
                + "<div class='label'>Pass phrase</div><div class='word' style='margin:0'>" + Entities.escape(phrase)
                + "</div></td>";
    }

    private static String shortened(String text, int most) {
        return text.length() <= most
                ? text
                : text.substring(
                                        0,
                                        text.offsetByCodePoints(
                                                0, Math.min(most - 1, text.codePointCount(0, text.length()))))
                                .strip()
                        + "…";
    }

    /** A text without blanks that may go on in a new line after each dot, stroke and dash. */
    private static String breakable(String text) {
        return Entities.escape(text).replaceAll("(?<=[./-])(?=[^./-])", "<wbr/>");
    }

    /**
     * A text in its own letters, as HTML; in signs that no shipped font has, in plain letters, and where these are not
     * known either {@code instead}.
     */
    private static String printable(String text, String instead, float points) {
        String own = Lettering.html(text, points);
        if (!own.isEmpty()) return own;
        String latin = Arrays.stream(text.split("\\s+"))
                .map(Latin::of)
                .filter(w -> !w.isEmpty())
                .map(w -> w.substring(0, 1).toUpperCase(Locale.ROOT) + w.substring(1))
                .collect(Collectors.joining(" "));
        return Entities.escape(latin.isEmpty() ? instead : latin);
    }

    /** The code as squares of SVG, so that it prints sharp; the PDF library draws it from a table of cells. */
    private static String code(String address) {
        try {
            BitMatrix matrix = new QRCodeWriter().encode(address, BarcodeFormat.QR_CODE, 0, 0);
            StringBuilder cells = new StringBuilder("<div class='code'><table style='width:26mm;height:26mm'>");
            String size = String.format(java.util.Locale.ROOT, "%.3fmm", 26.0 / matrix.getWidth());
            for (int y = 0; y < matrix.getHeight(); y++) {
                cells.append("<tr>");
                for (int x = 0; x < matrix.getWidth(); x++)
                    cells.append("<td style='padding:0;width:")
                            .append(size)
                            .append(";height:")
                            .append(size)
                            .append(matrix.get(x, y) ? ";background:#22303a" : "")
                            .append("'></td>");
                cells.append("</tr>");
            }
            return cells.append("</table></div>").toString();
        } catch (WriterException e) {
            throw new IllegalArgumentException("This address is too long for a printed code: " + address, e);
        }
    }
}

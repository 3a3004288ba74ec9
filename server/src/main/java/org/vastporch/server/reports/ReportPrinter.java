package org.vastporch.server.reports;

import java.util.List;
import org.jsoup.Jsoup;
import org.jsoup.nodes.DataNode;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;
import org.jsoup.nodes.Entities;
import org.jsoup.nodes.TextNode;
import org.vastporch.core.reports.Report;
import org.vastporch.core.text.Latin;
import org.vastporch.server.print.Lettering;
import org.vastporch.server.print.Pdf;

/** A report on paper, tagged so that it can be listened to; words in any script as they are written. */
final class ReportPrinter {

    private static final String STYLE = """
        @page { size: A4; margin: 22mm 24mm 20mm 24mm }
        body { font-family: main; font-size: 11pt; line-height: 1.45; color: #22303a; margin: 0 }
        h1 { font-size: 19pt; margin: 0 0 6mm } h2 { font-size: 13pt; margin: 6mm 0 1mm }
        .report + .report { page-break-before: always }
        p { margin: 0 0 2.5mm } ul { margin: 0 0 3mm; padding-left: 5mm } li { margin: 0 0 1mm }
        """;
    private static final float POINTS = 11;

    private ReportPrinter() {}

    static byte[] pdf(Report report) {
        return pdf(report.title(), List.of(report));
    }

    /** Each begins on a page of its own. */
    static byte[] pdf(String title, List<Report> reports) {
        Document page = Document.createShell("");
        page.outputSettings().prettyPrint(false).syntax(Document.OutputSettings.Syntax.xml);
        page.selectFirst("html").attr("lang", "en");
        page.title(title);
        page.head().appendElement("style").appendChild(new DataNode(STYLE));
        page.head().appendElement("meta").attr("name", "subject").attr("content", title);
        for (Report report : reports)
            page.body().appendElement("div").addClass("report").html(report.html());
        page.body().select("*").forEach(ReportPrinter::letter);
        return Pdf.tagged(page.html());
    }

    /** Sets the words that stand right in an element, as pictures where the main font lacks a letter. */
    private static void letter(Element in) {
        for (TextNode words : in.textNodes()) {
            String text = words.getWholeText();
            if (text.isBlank()) continue;
            String html = Lettering.html(text, POINTS);
            if (html.isEmpty()) html = Entities.escape(Latin.of(text));
            if (!html.startsWith("<img")) {
                words.text(Jsoup.parseBodyFragment(html).body().wholeText());
                continue;
            }
            for (var node : Jsoup.parseBodyFragment(html).body().childNodesCopy()) words.before(node);
            words.remove();
        }
    }
}

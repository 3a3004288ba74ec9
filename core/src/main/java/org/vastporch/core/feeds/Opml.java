package org.vastporch.core.feeds;

import java.io.StringWriter;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Stream;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Attribute;
import org.jsoup.nodes.Element;
import org.jsoup.parser.Parser;
import org.vastporch.core.text.Sayable;

/** Lists of feeds as programs hand them to one another (OPML 2.0), read as tolerantly as feeds are. */
public final class Opml {

    public static final int MOST_LINES = 500;
    private static final int DEEPEST = 60;
    private static final int LONGEST_TITLE = 300;

    /**
     * A feed in a list.
     *
     * @param title in plain words; the address if it has none
     * @param feed its address; empty if what the list says is none
     * @param said what the list says for it
     * @param site the address of its pages; empty if the list does not say
     * @param folder the outlines that it lies in, the outermost first, with a stroke between; empty for none
     * @param again whether its address stands further up already
     */
    public record Line(String title, String feed, String said, String site, String folder, boolean again) {}

    private Opml() {}

    /** The feeds of a list, in its order, at most {@value #MOST_LINES}; empty if it is none. */
    public static List<Line> read(byte[] file) {
        String text = FeedBytes.read(file, "").text();
        if (!text.substring(0, Math.min(text.length(), 5_000))
                .toLowerCase(Locale.ROOT)
                .contains("<opml")) return List.of();
        Element root = Jsoup.parse(text, "", Parser.xmlParser().setMaxDepth(DEEPEST));
        List<Line> lines = new ArrayList<>();
        Set<String> seen = new HashSet<>();
        for (Element outline : root.getAllElements()) {
            if (!isOutline(outline) || lines.size() == MOST_LINES) continue;
            String said = said(outline, "xmlurl", "url").strip();
            if (said.isEmpty()) continue;
            String feed = PastedAddress.normalise(said);
            String title = FeedText.plain(said(outline, "title", "text"), LONGEST_TITLE);
            lines.add(new Line(
                    title.isEmpty() ? said : title,
                    feed,
                    said,
                    WebLink.of(said(outline, "htmlurl")),
                    folder(outline),
                    !feed.isEmpty() && !seen.add(feed)));
        }
        return lines;
    }

    private static boolean isOutline(Element element) {
        return element.tagName().equalsIgnoreCase("outline");
    }

    /** The first of some attributes that says anything, however its name is written. */
    private static String said(Element outline, String... names) {
        return Stream.of(names)
                .flatMap(name -> outline.attributes().asList().stream()
                        .filter(a -> a.getKey().equalsIgnoreCase(name))
                        .map(Attribute::getValue))
                .filter(value -> !value.isBlank())
                .findFirst()
                .orElse("");
    }

    private static String folder(Element outline) {
        List<String> folders = new ArrayList<>();
        for (Element above : outline.parents())
            if (isOutline(above)) folders.add(0, FeedText.plain(said(above, "text", "title"), 100));
        return String.join(" / ", folders.stream().filter(f -> !f.isEmpty()).toList());
    }

    /** A list of feeds as a file. */
    public static String write(String title, List<Line> lines) {
        StringWriter text = new StringWriter();
        try {
            XMLStreamWriter out = XMLOutputFactory.newInstance().createXMLStreamWriter(text);
            out.writeStartDocument("UTF-8", "1.0");
            out.writeStartElement("opml");
            out.writeAttribute("version", "2.0");
            out.writeStartElement("head");
            out.writeStartElement("title");
            out.writeCharacters(Sayable.of(title));
            out.writeEndElement();
            out.writeEndElement();
            out.writeStartElement("body");
            for (String folder : lines.stream().map(Line::folder).distinct().toList()) {
                if (!folder.isEmpty()) {
                    out.writeStartElement("outline");
                    out.writeAttribute("text", Sayable.of(folder));
                }
                for (Line line : lines) if (line.folder().equals(folder)) write(out, line);
                if (!folder.isEmpty()) out.writeEndElement();
            }
            out.writeEndDocument();
            out.close();
        } catch (XMLStreamException e) {
            throw new IllegalStateException("A list of feeds could not be written", e);
        }
        return text.toString();
    }

    private static void write(XMLStreamWriter out, Line line) throws XMLStreamException {
        out.writeEmptyElement("outline");
        out.writeAttribute("type", "rss");
        out.writeAttribute("text", Sayable.of(line.title()));
        out.writeAttribute("title", Sayable.of(line.title()));
        out.writeAttribute("xmlUrl", line.feed());
        if (!line.site().isEmpty()) out.writeAttribute("htmlUrl", line.site());
    }
}

package org.vastporch.core.feeds;

import static org.junit.jupiter.api.Assertions.*;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.vastporch.core.feeds.Opml.Line;

/** Lists of feeds, in and out. */
class OpmlTest {

    private static List<Line> read(String text) {
        return Opml.read(text.getBytes(StandardCharsets.UTF_8));
    }

    @Test
    void outlinesAreReadHoweverDeepAndHoweverTheyAreWritten() {
        List<Line> lines = read("""
                <?xml version="1.0"?><opml version="1.0"><head><title>x</title></head><body>
                <outline text="Rowers"><outline text="Inner &amp; outer">
                  <outline type="rss" text="Rowlock" title="Rowlock &amp; oar" xmlUrl="http://r.example/f?a=1&b=2" htmlUrl="http://r.example/"/>
                </outline></outline>
                <outline xmlurl="feed://c.example/f"/>
                <OUTLINE TEXT="<b>Tide</b>" XMLURL="t.example/f">
                <outline text="no feed"/>
                <outline text="harm" xmlUrl="javascript:x()"/>
                <outline text="again" xmlUrl="http://r.example/f?a=1&amp;b=2"/>
                <outline text="typed as a link" type="link" url="http://l.example/f"/>
                </body></opml>""");
        assertEquals(
                List.of("Rowlock & oar", "feed://c.example/f", "Tide", "harm", "again", "typed as a link"),
                lines.stream().map(Line::title).toList());
        assertEquals(
                List.of(
                        "http://r.example/f?a=1&b=2",
                        "https://c.example/f",
                        "https://t.example/f",
                        "",
                        "http://r.example/f?a=1&b=2",
                        "http://l.example/f"),
                lines.stream().map(Line::feed).toList());
        assertEquals("Rowers / Inner & outer", lines.get(0).folder());
        assertEquals("http://r.example/", lines.get(0).site());
        assertEquals("", lines.get(1).folder());
        assertEquals("javascript:x()", lines.get(3).said());
        assertEquals(List.of(4), indices(lines));
    }

    private static List<Integer> indices(List<Line> lines) {
        List<Integer> again = new ArrayList<>();
        for (int i = 0; i < lines.size(); i++) if (lines.get(i).again()) again.add(i);
        return again;
    }

    @Test
    void anyLettersAreRead() {
        String list = "<opml><body><outline text='Łódź' xmlUrl='http://l.example/f'/></body></opml>";
        for (String charset : List.of("UTF-8", "UTF-16", "UTF-16LE", "iso-8859-2")) {
            String said = charset.startsWith("iso") ? "<?xml version='1.0' encoding='iso-8859-2'?>" + list : list;
            assertEquals(
                    "Łódź",
                    Opml.read(said.getBytes(Charset.forName(charset))).get(0).title(),
                    charset);
        }
    }

    @Test
    void whatIsNoListIsNone() {
        assertEquals(List.of(), read(""));
        assertEquals(List.of(), read("<rss><channel><title>x</title></channel></rss>"));
        assertEquals(List.of(), read("<opml><body></body></opml>"));
        assertEquals(
                500,
                read("<opml><body>" + "<outline xmlUrl='http://x.example/'/>".repeat(900))
                        .size());
    }

    /** Law: what is written is read back, whatever names and folders. */
    @Test
    void whatGoesOutComesBack() {
        Random random = new Random(2);
        String[] words = {"Salt", "& Sorrel", "\"Tide\"", "Łódź", "'", "a < b", "川"};
        for (int round = 0; round < 200; round++) {
            List<Line> lines = new ArrayList<>();
            for (int folder = 0; folder < 3; folder++)
                for (int i = 0; i < random.nextInt(4); i++)
                    lines.add(new Line(
                            words[random.nextInt(words.length)] + " " + i,
                            "http://x.example/" + folder + "/" + i + "?a=1&b=2",
                            "http://x.example/" + folder + "/" + i + "?a=1&b=2",
                            random.nextBoolean() ? "" : "http://x.example/",
                            folder == 0 ? "" : words[folder] + folder,
                            false));
            assertEquals(lines, read(Opml.write("A list", lines)));
        }
    }
}

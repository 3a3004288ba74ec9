package org.vastporch.server;

import static org.junit.jupiter.api.Assertions.*;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import javax.imageio.ImageIO;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.font.PDType1Font;
import org.apache.pdfbox.pdmodel.font.Standard14Fonts;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.vastporch.server.School.Answer;
import org.vastporch.server.School.Made;
import org.vastporch.server.School.Person;
import org.vastporch.server.blogs.BlogService;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** Files in posts: what is taken, who gets them, and jumping within them. */
@ServerTest
class FilesTest {

    private static final JsonMapper JSON = new JsonMapper();

    @Autowired
    School school;

    @Autowired
    BlogService blogs;

    @LocalServerPort
    int port;

    Made of;
    String files;

    @BeforeEach
    void makeDraft() {
        of = school.make(port);
        files = "/api/posts/"
                + of.first()
                        .post("/api/blogs/" + of.blogOfFirst() + "/posts", Map.of())
                        .body()
                        .get("id")
                        .asLong() + "/files";
    }

    /** Something that begins as a sound does and is longer than a chunk of the store. */
    static byte[] sound(int size) {
        byte[] bytes = new byte[size];
        for (int i = 0; i < size; i++) bytes[i] = (byte) (i * 31 + i / 256);
        System.arraycopy(
                "ID3\3\0\0\0\0\0\0\u00ff\u00fb\u0090\0".getBytes(StandardCharsets.ISO_8859_1), 0, bytes, 0, 14);
        return bytes;
    }

    /**
     * Cut out of one post and put into another, it is there for the readers of that one, and no longer hangs on the
     * first.
     */
    @Test
    void whatIsPutIntoAnotherPostBelongsToThatToo() throws IOException {
        String from = files.substring(0, files.length() - "/files".length());
        String sound = of.first()
                .upload(files, "song.mp3", sound(3_000))
                .body()
                .get("address")
                .asString();
        BufferedImage leaf = new BufferedImage(40, 30, BufferedImage.TYPE_INT_RGB);
        ByteArrayOutputStream png = new ByteArrayOutputStream();
        ImageIO.write(leaf, "png", png);
        String picture = of.first()
                .upload(from + "/pictures", "leaf.png", png.toByteArray())
                .body()
                .get("address")
                .asString();
        String html = "<p>From last week.</p><figure><img src=\"" + picture
                + "\" alt=\"A leaf\"></figure><figure data-kind=\"sound\"><a href=\"" + sound
                + "\">song.mp3</a></figure>";
        int first = of.first()
                .put(
                        from + "/draft",
                        Map.of(
                                "rev",
                                of.first()
                                        .get(from + "/draft")
                                        .body()
                                        .get("beside")
                                        .get("rev")
                                        .asInt(),
                                "title",
                                "Last week",
                                "html",
                                html,
                                "tags",
                                List.of(),
                                "audience",
                                "MY_CLASS"))
                .body()
                .get("rev")
                .asInt();
        of.first().post(from + "/hand-in", Map.of("rev", first));
        long post = of.first()
                .post("/api/blogs/" + of.blogOfFirst() + "/posts", Map.of())
                .body()
                .get("id")
                .asLong();
        String to = "/api/posts/" + post;
        JsonNode draft = of.first().get(to + "/draft").body();
        JsonNode saved = draft;
        for (int i = 0; i < 2; i++) {
            int rev = of.first()
                    .get(to + "/draft")
                    .body()
                    .get("beside")
                    .get("rev")
                    .asInt();
            Answer answer = of.first()
                    .put(
                            to + "/draft",
                            Map.of(
                                    "rev",
                                    rev,
                                    "title",
                                    "Last week again",
                                    "html",
                                    html,
                                    "tags",
                                    List.of(),
                                    "audience",
                                    "MY_CLASS"));
            assertEquals(200, answer.status(), answer::text);
            String before = saved.get("html").asString();
            saved = of.first().get(to + "/draft").body();
            if (i == 1) assertEquals(before, saved.get("html").asString(), "the same copies each time");
        }
        String own = saved.get("html").asString();
        assertFalse(own.contains(picture), own);
        assertFalse(own.contains(sound), own);
        assertEquals(1, of.first().get(to + "/files").body().size());
        of.first().call("DELETE", from, null);
        String ownPicture = own.replaceAll("(?s).*<img src=\"([^\"]+)\".*", "$1");
        assertEquals(200, of.first().get(ownPicture).status());
        assertEquals(404, of.other().get(ownPicture).status(), "a draft is nobody else's");
        of.first()
                .post(
                        to + "/hand-in",
                        Map.of("rev", saved.get("beside").get("rev").asInt()));
        approve(post);
        assertEquals(200, of.other().get(ownPicture).status());
        assertEquals(404, of.other().get(picture).status());
    }

    /** What one does not know all of stays where it is: nobody gets at a picture by naming it in a text of the own. */
    @Test
    void anothersPictureIsNotCopied() throws IOException {
        String from = files.substring(0, files.length() - "/files".length());
        String sound = of.first()
                .upload(files, "song.mp3", sound(3_000))
                .body()
                .get("address")
                .asString();
        long blog = blogs.homeOf(of.classId(), of.other().id).orElseThrow();
        long post = of.other()
                .post("/api/blogs/" + blog + "/posts", Map.of())
                .body()
                .get("id")
                .asLong();
        of.other()
                .put(
                        "/api/posts/" + post + "/draft",
                        Map.of(
                                "rev",
                                1,
                                "title",
                                "T",
                                "html",
                                "<figure data-kind=\"sound\"><a href=\"" + sound + "\">song.mp3</a></figure>",
                                "tags",
                                List.of(),
                                "audience",
                                "MY_CLASS"));
        assertEquals(0, of.other().get("/api/posts/" + post + "/files").body().size());
        assertEquals(404, of.other().get(sound).status());
        assertEquals(200, of.first().get(from + "/draft").status());
    }

    private void approve(long post) {
        JsonNode item = of.lead()
                .get("/api/pile?most=500")
                .body()
                .get("items")
                .valueStream()
                .filter(i -> i.get("id").asLong() == post
                        && i.get("subject").asString().equals("post"))
                .findFirst()
                .orElseThrow();
        of.lead()
                .post(
                        "/api/pile/decisions",
                        Map.of(
                                "step",
                                "APPROVE",
                                "note",
                                "",
                                "items",
                                List.of(Map.of(
                                        "subject",
                                        "post",
                                        "id",
                                        post,
                                        "version",
                                        item.get("version").asInt(),
                                        "rev",
                                        item.get("rev").asInt()))));
    }

    @Test
    void aPlayerCanJumpAndNobodyElseGetsAByte() {
        byte[] bytes = sound(700_000);
        JsonNode file = of.first().upload(files, "wren.mp3", bytes).body();
        assertEquals("SOUND", file.get("kind").asString());
        String address = file.get("address").asString();
        assertArrayEquals(bytes, of.first().get(address).raw().body());
        for (int[] range : new int[][] {{0, 0}, {262_143, 262_144}, {10, 699_999}, {524_288, 600_000}}) {
            Answer part = of.lead().get(address, "Range", "bytes=" + range[0] + "-" + range[1]);
            assertEquals(206, part.status());
            assertEquals(
                    "bytes " + range[0] + "-" + range[1] + "/700000",
                    part.raw().headers().firstValue("Content-Range").orElse(""));
            assertArrayEquals(
                    Arrays.copyOfRange(bytes, range[0], range[1] + 1),
                    part.raw().body());
        }
        assertEquals(100, of.lead().get(address, "Range", "bytes=-100").raw().body().length);
        assertEquals(416, of.lead().get(address, "Range", "bytes=700000-").status());
        assertEquals(
                "nosniff",
                of.lead()
                        .get(address)
                        .raw()
                        .headers()
                        .firstValue("X-Content-Type-Options")
                        .orElse(""));
        for (School.Person other : List.of(of.other(), of.guest(), of.moderator(), school.stranger(port)))
            assertTrue(other.get(address).status() >= 401, "a draft's file is for its author and the staff");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "x.pdf  | %PDF-1.7 x                     | DOCUMENT",
                "x.txt  | just words                     | DOCUMENT",
                "x.pdf  | MZ\u0090\u0000\u0003 program   | Its name says .pdf, but that is not what is in this file.",
                "x.mp3  | <html><script>1</script></html> | Files of this kind are not taken. Sound, "
                        + "video, PDF, text and office documents are.",
                "x.docx | just words                     | Its name says .docx, but that is not what is in this file.",
                "x.html | <html></html>                  | Files of this kind are not taken. Sound, "
                        + "video, PDF, text and office documents are.",
                "x.pdf  | ''                             | This file is empty.",
            })
    void whatAFileIsIsSeenFromItsContent(String name, String content, String expected) {
        JsonNode answer = of.first()
                .upload(files, name, content.getBytes(StandardCharsets.ISO_8859_1))
                .body();
        assertEquals(
                expected,
                answer.has("kind")
                        ? answer.get("kind").asString()
                        : answer.get("detail").asString());
    }

    /**
     * Name and content fit each other, so that nobody saves a program as a song; what has no ending gets the one of its
     * kind.
     */
    @ParameterizedTest
    @CsvSource({
        "song.mp3.bat, Its name says .bat",
        "song.exe, Its name says .exe",
        "song, song.mp3",
        "My song. Part two, My song. Part two.mp3",
        "song.MP3, song.MP3",
        "song.mp3., song.mp3",
        "'song.mp3   ', song.mp3"
    })
    void aSoundIsNamedAsOne(String name, String expected) {
        JsonNode answer = of.first().upload(files, name, sound(4_000)).body();
        assertTrue(
                (answer.has("name")
                                ? answer.get("name").asString()
                                : answer.get("detail").asString())
                        .startsWith(expected),
                answer::toString);
    }

    /** A head that says "sound" with a page behind it is a page. */
    @Test
    void aPageWithTheHeadOfASoundIsNotTaken() {
        byte[] page = "ID3\3\0\0\0\0\0\0<html><script>harm()</script></html>".getBytes(StandardCharsets.ISO_8859_1);
        assertEquals(
                "file-not-taken", of.first().upload(files, "song.mp3", page).code());
        byte[] hidden = "ID3\3\0\0\0\0\0\12AAAAAAAAAA<html></html>".getBytes(StandardCharsets.ISO_8859_1);
        assertEquals(
                "file-not-taken", of.first().upload(files, "song.mp3", hidden).code());
    }

    @Test
    void anArchiveIsADocumentOnlyIfItHasWhatOneHas() throws IOException {
        assertEquals(
                "DOCUMENT",
                of.first()
                        .upload(files, "a.docx", zip("word/document.xml", "<w/>"))
                        .body()
                        .get("kind")
                        .asString());
        assertEquals(
                "file-not-taken",
                of.first().upload(files, "b.docx", zip("setup.exe", "MZ")).code());
        assertEquals(
                "DOCUMENT",
                of.first()
                        .upload(files, "c.odt", zip("mimetype", "application/vnd.oasis.opendocument.text"))
                        .body()
                        .get("kind")
                        .asString());
        assertEquals(
                "file-not-taken",
                of.first()
                        .upload(files, "d.odt", zip("mimetype", "application/epub+zip"))
                        .code());
        Answer program =
                of.first().upload(files, "e.docx", zip("word/document.xml", "<w/>", "word/vbaProject.bin", "x"));
        assertTrue(program.text().contains("carries a program"), program.text());
    }

    private static byte[] zip(String... parts) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
            for (int i = 0; i < parts.length; i += 2) {
                zip.putNextEntry(new ZipEntry(parts[i]));
                zip.write(parts[i + 1].getBytes(StandardCharsets.UTF_8));
            }
        }
        return bytes.toByteArray();
    }

    /** A PDF is read where it stands: its pages are drawn for whoever may have it, and for nobody else. */
    @Test
    void thePagesOfAPdfAreDrawnForItsReaders() throws IOException {
        JsonNode file = of.first()
                .upload(files, "plan.pdf", pdf("Eleven leaves", "Twelve leaves"))
                .body();
        assertEquals(2, file.get("pages").asInt());
        String page = file.get("address").asString() + "/pages/";
        BufferedImage first = ImageIO.read(
                new ByteArrayInputStream(of.lead().get(page + 1).raw().body()));
        assertTrue(first.getWidth() >= 1_000, "large enough to be read");
        assertNotEquals(
                of.first().get(page + 1).text(), of.first().get(page + 2).text());
        assertEquals(
                "default-src 'none'; sandbox",
                of.first()
                        .get(page + 1)
                        .raw()
                        .headers()
                        .firstValue("Content-Security-Policy")
                        .orElse(""));
        for (String no : List.of("0", "3", "-1"))
            assertEquals(404, of.first().get(page + no).status());
        for (School.Person other : List.of(of.other(), of.guest(), of.moderator(), school.stranger(port)))
            assertTrue(other.get(page + 1).status() >= 401, "a draft's file is for its author and the staff");
        assertEquals(
                0,
                of.first()
                        .upload(files, "broken.pdf", "%PDF-1.7 x".getBytes(StandardCharsets.US_ASCII))
                        .body()
                        .get("pages")
                        .asInt(),
                "what cannot be drawn is a file all the same");
    }

    static byte[] pdf(String... pages) throws IOException {
        try (PDDocument document = new PDDocument()) {
            for (String words : pages) {
                PDPage page = new PDPage();
                document.addPage(page);
                try (PDPageContentStream on = new PDPageContentStream(document, page)) {
                    on.beginText();
                    on.setFont(new PDType1Font(Standard14Fonts.FontName.HELVETICA), 40);
                    on.newLineAtOffset(80, 500);
                    on.showText(words);
                    on.endText();
                }
            }
            ByteArrayOutputStream bytes = new ByteArrayOutputStream();
            document.save(bytes);
            return bytes.toByteArray();
        }
    }

    /** Which video pages play in place is the school's choice. */
    @Test
    void aVideoOfAPageThatWasNotChosenIsNotFramed() {
        Person stranger = school.stranger(port);
        assertFalse(stranger.get("/api/video?address=https://v.example/watch/b1")
                .body()
                .has("video"));
        assertTrue(stranger.get("/api/video?address=https://films.example/watch/b1")
                .body()
                .has("video"));
        String policy = of.first()
                .get("/api/me")
                .raw()
                .headers()
                .firstValue("Content-Security-Policy")
                .orElse("");
        assertTrue(policy.matches(".*frame-src https://films\\.example(;.*)?"), policy);
    }

    @Test
    void manyAndSwitchedOffAreRefusedAndNamesAreTidied() {
        assertEquals(
                "passwd.pdf",
                of.first()
                        .upload(files, "../../etc/pass\u202Ewd.pdf", "%PDF-1.7".getBytes())
                        .body()
                        .get("name")
                        .asString());
        for (int i = 1; i < 10; i++) of.first().upload(files, i + ".pdf", ("%PDF-1.7 " + i).getBytes());
        assertEquals(
                "too-many-files",
                of.first().upload(files, "11.pdf", "%PDF-1.7".getBytes()).code());
        assertEquals(10, of.first().get(files).body().size());
        JsonNode view = of.lead().get("/api/classes/" + of.classId()).body();
        ObjectNode rules = (ObjectNode) view.get("rules");
        List<String> tools = new ArrayList<>();
        rules.get("tools").forEach(t -> {
            if (!List.of("DOCUMENT", "HEADING").contains(t.asString())) tools.add(t.asString());
        });
        rules.set("tools", JSON.valueToTree(tools));
        assertEquals(
                200,
                of.lead()
                        .put(
                                "/api/classes/" + of.classId() + "/rules",
                                Map.of(
                                        "rules",
                                        rules,
                                        "version",
                                        view.get("version").asInt()))
                        .status());
        assertEquals(
                "tool-off",
                of.first().upload(files, "x.pdf", "%PDF-1.7".getBytes()).code());
        Map<String, Object> within = Map.of("address", "http://127.0.0.1:9/leaf.png");
        assertEquals(
                "picture-not-fetched",
                of.first()
                        .post(files.replace("/files", "/pictures/from-address"), within)
                        .code());
        tools.remove("PICTURE");
        rules.set("tools", JSON.valueToTree(tools));
        int version = of.lead()
                .get("/api/classes/" + of.classId())
                .body()
                .get("version")
                .asInt();
        assertEquals(
                200,
                of.lead()
                        .put("/api/classes/" + of.classId() + "/rules", Map.of("rules", rules, "version", version))
                        .status());
        assertEquals(
                "tool-off",
                of.first()
                        .post(files.replace("/files", "/pictures/from-address"), within)
                        .code(),
                "nothing is fetched where there are no pictures");
        String draft = files.replace("/files", "/draft");
        of.first()
                .put(
                        draft,
                        Map.of(
                                "rev",
                                1,
                                "title",
                                "x",
                                "html",
                                "<h2>Slugs</h2><p>Eleven</p>",
                                "tags",
                                List.of(),
                                "audience",
                                "MY_CLASS"));
        assertEquals(
                "<p>Slugs</p><p>Eleven</p>",
                of.first().get(draft).body().get("html").asString());
    }
}

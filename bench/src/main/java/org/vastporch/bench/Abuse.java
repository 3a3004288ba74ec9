package org.vastporch.bench;

import java.awt.Color;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.http.HttpClient;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicBoolean;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageWriteParam;
import javax.imageio.ImageWriter;
import javax.imageio.stream.ImageOutputStream;
import tools.jackson.databind.json.JsonMapper;

/**
 * What somebody does who wants to stall the school: the largest that each field takes and ten times as much, in the
 * shapes that are worst for whatever reads them, while somebody else reads the Porch.
 */
final class Abuse {

    private static final int TIMES = 3;
    /** What a post takes, less the paragraph around it. */
    private static final int LARGEST = 149_900;

    private static final JsonMapper JSON = new JsonMapper();

    private final String address;
    private final Figures figures;
    private final HttpClient http = HttpClient.newHttpClient();
    private final Map<String, List<Double>> slowest = new LinkedHashMap<>();

    Abuse(String address, Figures figures) {
        this.address = address;
        this.figures = figures;
    }

    private interface Call {
        void go() throws Exception;
    }

    void run() throws Exception {
        Person student = new Person(address, http, "wren.c");
        Person teacher = new Person(address, http, "quill");
        Person reader = new Person(address, http, "pia.a");
        double usual = Figures.median(60, () -> reader.send("GET", "/api/classes/1/porch", null, "application/json"));
        AtomicBoolean over = new AtomicBoolean();
        List<Double> meanwhile = new ArrayList<>();
        Thread reading = new Thread(
                () -> {
                    try {
                        while (!over.get()) {
                            long begin = System.nanoTime();
                            reader.send("GET", "/api/classes/1/porch", null, "application/json");
                            meanwhile.add((System.nanoTime() - begin) / 1e6);
                        }
                    } catch (IOException e) {
                        throw new UncheckedIOException(e);
                    } catch (InterruptedException e) {
                        Thread.currentThread().interrupt();
                    }
                },
                "reader");
        Peak.reset();
        reading.start();
        long blog = student.json("GET", "/api/classes/1/blogs/mine", null)
                .get(0)
                .get("id")
                .asLong();
        texts(student, blog);
        besides(student, blog);
        words(student, teacher);
        files(student, blog);
        over.set(true);
        reading.join();
        double[] all = slowest.values().stream()
                .flatMap(List::stream)
                .mapToDouble(Double::doubleValue)
                .toArray();
        slowest.entrySet().stream()
                .sorted(Comparator.comparing(shape -> -Collections.max(shape.getValue())))
                .limit(8)
                .forEach(shape ->
                        figures.add("abuse", Collections.max(shape.getValue()), "ms slowest", 0, shape.getKey()));
        figures.add(
                "abuse",
                Figures.percentile(all, 0.99),
                "ms p99",
                0,
                "of " + all.length + " calls in " + slowest.size() + " shapes");
        double[] others = meanwhile.stream().mapToDouble(Double::doubleValue).toArray();
        figures.add(
                "abuse",
                Figures.median(others),
                "ms median",
                Figures.median(others) / usual,
                "the usual time of the Porch, for somebody else meanwhile");
        figures.add("abuse", Peak.megabytes(), "MB at most", 0, "heap, with what this measurement itself holds");
    }

    private void tried(String shape, Call call) throws Exception {
        for (int i = 0; i < TIMES; i++) timed(shape, call);
    }

    private void timed(String shape, Call call) throws Exception {
        long begin = System.nanoTime();
        call.go();
        slowest.computeIfAbsent(shape, s -> new ArrayList<>()).add((System.nanoTime() - begin) / 1e6);
    }

    /**
     * A draft with one piece over and over, at the largest that is taken and ten times as long; then handed in, so that
     * holds are looked for.
     */
    private void texts(Person student, long blog) throws Exception {
        for (String piece : List.of(
                "<b>",
                "</b>",
                "<p>x<img src=\"/media/x\">",
                "<a href=\"x\">",
                "@abc ",
                "one-",
                "A a ",
                "07",
                "a@a.",
                "&amp",
                "\u0301",
                "<p>Wren </p>",
                "Wren Castellane ",
                "http://a.b "))
            for (int times : new int[] {1, 10}) {
                String html = piece.repeat(LARGEST * times / piece.length());
                long id = student.json("POST", "/api/blogs/" + blog + "/posts", Map.of())
                        .path("id")
                        .asLong(0);
                String shape = "text of " + piece.strip() + (times > 1 ? ", ten times too long" : "");
                for (int i = 0; i < TIMES; i++) {
                    timed(shape + ", read", () -> student.json("GET", "/api/posts/" + id + "/draft", null));
                    int before = rev(student, id);
                    timed(
                            shape + ", saved",
                            () -> student.json(
                                    "PUT",
                                    "/api/posts/" + id + "/draft",
                                    Map.of(
                                            "rev",
                                            before,
                                            "title",
                                            "T",
                                            "html",
                                            html,
                                            "tags",
                                            List.of(),
                                            "audience",
                                            "MY_CLASS")));
                    int saved = rev(student, id);
                    if (times == 1)
                        timed(
                                shape + ", handed in",
                                () -> student.json("POST", "/api/posts/" + id + "/hand-in", Map.of("rev", saved)));
                }
                student.json("DELETE", "/api/posts/" + id, null);
            }
    }

    /** What stands beside a text: titles, tags and sources. */
    private void besides(Person student, long blog) throws Exception {
        long id = student.json("POST", "/api/blogs/" + blog + "/posts", Map.of())
                .path("id")
                .asLong(0);
        for (int times : new int[] {1, 10}) {
            String more = times > 1 ? ", ten times too long" : "";
            List<String> tags = new ArrayList<>();
            for (int i = 0; i < 12 * times; i++) tags.add("#".repeat(30 * times) + "\u0301 \u200b" + i);
            List<Map<String, Object>> works = new ArrayList<>();
            for (int i = 0; i < 60 * times; i++)
                works.add(Map.of(
                        "title",
                        "07 ".repeat(160 * times),
                        "author",
                        "a@a.".repeat(120 * times),
                        "date",
                        "",
                        "publisher",
                        "@abc ".repeat(100 * times),
                        "address",
                        "https://a.b/" + "a/".repeat(900 * times)));
            for (Map.Entry<String, Map<String, Object>> field : Map.<String, Map<String, Object>>of(
                            "tags",
                            Map.of("tags", tags),
                            "sources",
                            Map.of("works", works),
                            "title",
                            Map.of("title", "Wren \u202e".repeat(25 * times)),
                            "very many tags",
                            Map.of("tags", Collections.nCopies(300_000, "#a")))
                    .entrySet()) {
                Map<String, Object> draft = new HashMap<>(Map.of(
                        "rev",
                        rev(student, id),
                        "title",
                        "T",
                        "html",
                        "<p>Beans.</p>",
                        "tags",
                        List.of(),
                        "audience",
                        "MY_CLASS"));
                draft.putAll(field.getValue());
                tried(field.getKey() + more, () -> student.json("PUT", "/api/posts/" + id + "/draft", draft));
            }
            tried(
                    "filters of the Porch" + more,
                    () -> student.send(
                            "GET",
                            "/api/classes/1/porch?most=100&oldestFirst=true&unanswered=true&tag="
                                    + "%CC%81a".repeat(20 * times) + "&after=" + "A".repeat(500 * times),
                            null,
                            "application/json"));
        }
        student.json("DELETE", "/api/posts/" + id, null);
    }

    private static int rev(Person student, long post) throws Exception {
        return student.json("GET", "/api/posts/" + post + "/draft", null)
                .path("beside")
                .path("rev")
                .asInt(1);
    }

    /** Titles, tags, comments, search words, lists of students: long, longer, and odd. */
    private void words(Person student, Person teacher) throws Exception {
        for (int times : new int[] {1, 10}) {
            String more = times > 1 ? ", ten times too long" : "";
            tried(
                    "comment" + more,
                    () -> student.json("POST", "/api/posts/1/comments", Map.of("text", "@abc ".repeat(1_000 * times))));
            tried(
                    "search" + more,
                    () -> student.send(
                            "GET", "/api/search?q=" + "a%20b%20".repeat(25 * times), null, "application/json"));
            tried(
                    "list of students, all quotation marks" + more,
                    () -> teacher.json(
                            "POST", "/api/classes/1/roster/preview", Map.of("text", "\"a,".repeat(300_000 * times))));
            tried(
                    "list of students, all separators" + more,
                    () -> teacher.json(
                            "POST", "/api/classes/1/roster/preview", Map.of("text", ",;|\t".repeat(240_000 * times))));
            tried(
                    "list of students, many names" + more,
                    () -> teacher.json(
                            "POST",
                            "/api/classes/1/roster/preview",
                            Map.of("text", "Name\n" + "Ada Quill\n".repeat(2_400 * times))));
            tried(
                    "words to be held" + more,
                    () -> teacher.json(
                            "POST", "/api/classes/1/holds/try", Map.of("text", "l o l o ".repeat(30_000 * times))));
        }
    }

    private void files(Person student, long blog) throws Exception {
        long id = student.json("POST", "/api/blogs/" + blog + "/posts", Map.of())
                .path("id")
                .asLong(0);
        byte[] png = picture(8_000, 5_000, "png", false);
        byte[] passes = picture(5_400, 3_700, "jpeg", true);
        byte[] tooManyPasses = picture(6_000, 5_000, "jpeg", true);
        tried("picture of 40 megapixels", () -> student.upload("/api/posts/" + id + "/pictures", "a.png", png));
        tried(
                "picture of 20 megapixels in passes",
                () -> student.upload("/api/posts/" + id + "/pictures", "a.jpg", passes));
        tried(
                "picture of 30 megapixels in passes",
                () -> student.upload("/api/posts/" + id + "/pictures", "a.jpg", tooManyPasses));
        byte[] sound = ("ID3\3\0\0\0\0\0\0" + "\0".repeat(200_000)).getBytes(StandardCharsets.ISO_8859_1);
        tried("sound of nothing", () -> student.upload("/api/posts/" + id + "/files", "a.mp3", sound));
        byte[] pdf = ("%PDF-1.7\n" + "1 0 obj<</Kids[1 0 R]/Type/Pages/Count 1>>endobj\n".repeat(100_000))
                .getBytes(StandardCharsets.ISO_8859_1);
        tried("document of circles", () -> student.upload("/api/posts/" + id + "/files", "a.pdf", pdf));
        tried("file of 30 MB", () -> student.upload("/api/posts/" + id + "/files", "a.txt", new byte[30_000_000]));
    }

    private static byte[] picture(int width, int height, String format, boolean inPasses) throws IOException {
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        image.createGraphics().fillRect(0, 0, width, height);
        for (int i = 0; i < 4_000; i++) image.setRGB((i * 7919) % width, (i * 104_729) % height, Color.RED.getRGB());
        ImageWriter writer = ImageIO.getImageWritersByFormatName(format).next();
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (ImageOutputStream out = ImageIO.createImageOutputStream(bytes)) {
            writer.setOutput(out);
            ImageWriteParam param = writer.getDefaultWriteParam();
            if (inPasses) param.setProgressiveMode(ImageWriteParam.MODE_DEFAULT);
            writer.write(null, new IIOImage(image, null, null), param);
        }
        return bytes.toByteArray();
    }
}

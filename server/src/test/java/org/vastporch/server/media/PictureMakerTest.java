package org.vastporch.server.media;

import static org.junit.jupiter.api.Assertions.*;

import java.awt.Color;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Arrays;
import java.util.zip.CRC32;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageWriteParam;
import javax.imageio.ImageWriter;
import javax.imageio.stream.ImageOutputStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastporch.server.http.Problem;
import org.vastporch.server.media.PictureMaker.Made;

/** What becomes of a picture that comes in: its size, which way up it is, and what cannot be read said in words. */
class PictureMakerTest {

    private final PictureMaker maker = new PictureMaker(2, 6, Duration.ofSeconds(8), () -> false);
    private UploadFolder uploads;

    @BeforeEach
    void makeFolder(@TempDir Path folder) throws IOException {
        uploads = new UploadFolder(folder);
    }

    private Made make(byte[] bytes) throws IOException {
        try (Upload upload = uploads.of(bytes, "picture")) {
            return maker.make(upload);
        }
    }

    private String refused(byte[] bytes) {
        Problem problem = assertThrows(Problem.class, () -> make(bytes));
        return problem.getMessage();
    }

    /** Left half red, right half blue. */
    private static BufferedImage halves(int width, int height) {
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        for (int x = 0; x < width; x++)
            for (int y = 0; y < height; y++) image.setRGB(x, y, (x < width / 2 ? Color.RED : Color.BLUE).getRGB());
        return image;
    }

    private static byte[] jpeg(BufferedImage image, boolean inPasses) throws IOException {
        ImageWriter writer = ImageIO.getImageWritersByFormatName("jpeg").next();
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (ImageOutputStream out = ImageIO.createImageOutputStream(bytes)) {
            writer.setOutput(out);
            ImageWriteParam param = writer.getDefaultWriteParam();
            param.setProgressiveMode(inPasses ? ImageWriteParam.MODE_DEFAULT : ImageWriteParam.MODE_DISABLED);
            writer.write(null, new IIOImage(image, null, null), param);
        } finally {
            writer.dispose();
        }
        return bytes.toByteArray();
    }

    /** The same JPEG with a segment of Exif that gives its orientation, behind another segment and a comment. */
    private static byte[] turned(byte[] jpeg, int orientation) {
        ByteBuffer exif = ByteBuffer.allocate(36)
                .putShort((short) 0xffe1)
                .putShort((short) 34)
                .put("Exif\0\0MM\0*".getBytes())
                .putInt(8)
                .putShort((short) 1)
                .putShort((short) 0x0112)
                .putShort((short) 3)
                .putInt(1)
                .putShort((short) orientation)
                .putShort((short) 0);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.writeBytes(Arrays.copyOf(jpeg, 20));
        out.writeBytes(new byte[] {(byte) 0xff, (byte) 0xfe, 0, 6, 'n', 'o', 't', 'e'});
        out.writeBytes(new byte[] {(byte) 0xff, (byte) 0xe2, 0, 4, 1, 2});
        out.writeBytes(exif.array());
        out.writeBytes(Arrays.copyOfRange(jpeg, 20, jpeg.length));
        return out.toByteArray();
    }

    @Test
    void aSmallPictureStaysSmallAndALargeOneFitsTheColumn() throws IOException {
        Made small = make(jpeg(halves(40, 20), false));
        assertEquals("40 x 20", small.width() + " x " + small.height());
        BufferedImage thumb = ImageIO.read(new ByteArrayInputStream(small.small()));
        assertEquals("40 x 20", thumb.getWidth() + " x " + thumb.getHeight());
        Made large = make(jpeg(halves(4000, 1000), false));
        assertEquals("1600 x 400", large.width() + " x " + large.height());
        assertEquals(400, ImageIO.read(new ByteArrayInputStream(large.small())).getWidth());
    }

    /**
     * Where the red half is afterwards, for each way in which a camera can be held; wherever in the file that is said.
     */
    @ParameterizedTest
    @CsvSource({"1, left", "2, right", "3, right", "4, left", "5, top", "6, top", "7, bottom", "8, bottom"})
    void aPictureStandsUprightHoweverTheCameraWasHeld(int orientation, String red) throws IOException {
        Made made = make(turned(jpeg(halves(80, 40), false), orientation));
        BufferedImage image = ImageIO.read(new ByteArrayInputStream(made.bytes()));
        assertEquals(orientation >= 5 ? "40 x 80" : "80 x 40", image.getWidth() + " x " + image.getHeight());
        int w = image.getWidth();
        int h = image.getHeight();
        int[] at =
                switch (red) {
                    case "left" -> new int[] {w / 8, h / 2};
                    case "right" -> new int[] {w - w / 8, h / 2};
                    case "top" -> new int[] {w / 2, h / 8};
                    default -> new int[] {w / 2, h - h / 8};
                };
        Color there = new Color(image.getRGB(at[0], at[1]));
        assertTrue(there.getRed() > 180 && there.getBlue() < 80, there.toString());
    }

    @Test
    void giantsAreRefusedBeforeTheyAreRead() throws IOException {
        assertEquals(
                "This picture has 42 million points; at most 40 million can be read. Make it smaller first.",
                refused(sized(jpeg(halves(16, 16), false), 7000, 6000)));
        assertEquals(
                "This picture has 31 million points; at most 30 million can be read of its kind. Make"
                        + " it smaller first.",
                refused(sized(jpeg(halves(16, 16), true), 6200, 5000)));
    }

    /** A file of a few kilobytes could keep the school busy for minutes: each pass is drawn whole. */
    @Test
    void aSmallFileOfVeryManyPassesIsRefusedBeforeItIsRead() throws IOException {
        byte[] usual = jpeg(halves(600, 400), true);
        int passes = JpegPasses.count(new ByteArrayInputStream(usual));
        assertTrue(passes > 4 && passes < 15, passes + " passes");
        assertEquals(1, JpegPasses.count(new ByteArrayInputStream(jpeg(halves(600, 400), false))));
        assertEquals("600 x 400", make(usual).width() + " x " + make(usual).height());
        byte[] many = lastPassAgain(usual, 1_000);
        assertEquals(passes + 1_000, JpegPasses.count(new ByteArrayInputStream(many)));
        assertEquals(
                "This picture is built up in " + (passes + 1_000) + " passes, which takes too long at its size. Save it"
                        + " without “progressive”, or make it smaller first.",
                refused(many));
    }

    /**
     * What stands in the file ahead of and between the passes is not taken for one: a small picture in its head, say.
     */
    @Test
    void onlyPassesOfThePictureItselfAreCounted() throws IOException {
        byte[] jpeg = jpeg(halves(40, 20), false);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.writeBytes(Arrays.copyOf(jpeg, 20));
        out.writeBytes(
                new byte[] {(byte) 0xff, (byte) 0xe1, 0, 8, (byte) 0xff, (byte) 0xda, 0, 2, (byte) 0xff, (byte) 0xd9});
        out.writeBytes(Arrays.copyOfRange(jpeg, 20, jpeg.length));
        out.writeBytes(jpeg);
        assertEquals(1, JpegPasses.count(new ByteArrayInputStream(out.toByteArray())));
        assertEquals(0, JpegPasses.count(new ByteArrayInputStream("GIF89a".getBytes())));
        assertEquals(0, JpegPasses.count(new ByteArrayInputStream(new byte[0])));
        assertEquals(0, JpegPasses.count(new ByteArrayInputStream(new byte[] {(byte) 0xff, (byte) 0xd8, (byte) 0xff})));
    }

    private static byte[] lastPassAgain(byte[] jpeg, int times) {
        int begin = jpeg.length - 2;
        while ((jpeg[begin] & 0xff) != 0xff || (jpeg[begin + 1] & 0xff) != 0xda) begin--;
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.write(jpeg, 0, jpeg.length - 2);
        for (int i = 0; i < times; i++) out.write(jpeg, begin, jpeg.length - 2 - begin);
        out.write(jpeg, jpeg.length - 2, 2);
        return out.toByteArray();
    }

    /** A JPEG that says that it is larger than it is. */
    private static byte[] sized(byte[] jpeg, int width, int height) {
        for (int i = 0; i < jpeg.length - 9; i++)
            if ((jpeg[i] & 0xff) == 0xff && ((jpeg[i + 1] & 0xff) == 0xc0 || (jpeg[i + 1] & 0xff) == 0xc2)) {
                ByteBuffer.wrap(jpeg).putShort(i + 5, (short) height).putShort(i + 7, (short) width);
                return jpeg;
            }
        throw new AssertionError("no frame");
    }

    @Test
    void whatIsBrokenIsSaidInWords() throws IOException {
        byte[] whole = jpeg(halves(300, 300), false);
        assertEquals("This picture cannot be read. It may be damaged.", refused(Arrays.copyOf(whole, 200)));
        assertEquals("This picture cannot be read. It may be damaged.", refused(withoutPalette()));
        assertEquals(
                "This is not a picture, whatever its name says. JPEG, PNG and GIF are taken.",
                refused("just words".getBytes()));
        assertEquals(
                "SVG drawings can carry programs, so they are not taken. Save the drawing as PNG.",
                refused("<svg xmlns=\"http://www.w3.org/2000/svg\"/>".getBytes()));
    }

    /** A PNG with colours by number and no list of colours. */
    private static byte[] withoutPalette() {
        ByteArrayOutputStream png = new ByteArrayOutputStream();
        png.writeBytes(new byte[] {(byte) 0x89, 'P', 'N', 'G', 13, 10, 26, 10});
        chunk(
                png,
                "IHDR",
                ByteBuffer.allocate(13)
                        .putInt(4)
                        .putInt(4)
                        .put(new byte[] {8, 3, 0, 0, 0})
                        .array());
        chunk(png, "IDAT", new byte[] {120, -100, 1, 0, 0, -1, -1});
        chunk(png, "IEND", new byte[0]);
        return png.toByteArray();
    }

    private static void chunk(ByteArrayOutputStream png, String name, byte[] content) {
        CRC32 crc = new CRC32();
        crc.update(name.getBytes());
        crc.update(content);
        png.writeBytes(ByteBuffer.allocate(4).putInt(content.length).array());
        png.writeBytes(name.getBytes());
        png.writeBytes(content);
        png.writeBytes(ByteBuffer.allocate(4).putInt((int) crc.getValue()).array());
    }

    @Test
    void whoComesWhenManyAreInLineIsAskedToComeBack() throws IOException {
        try (Upload upload = uploads.of(jpeg(halves(40, 20), false), "picture")) {
            for (PictureMaker busy : new PictureMaker[] {
                new PictureMaker(0, 0, Duration.ZERO, () -> false),
                new PictureMaker(0, 3, Duration.ofMillis(5), () -> false)
            }) {
                Problem problem = assertThrows(Problem.class, () -> busy.make(upload));
                assertEquals(
                        "Very many pictures are coming in at this moment. Please try again in a few seconds.",
                        problem.getMessage());
            }
        }
    }

    @Test
    void whatNobodyWaitsForAnyMoreIsNotMade() throws IOException {
        PictureMaker leftAlone = new PictureMaker(1, 0, Duration.ZERO, () -> true);
        try (Upload upload = uploads.of(jpeg(halves(40, 20), false), "picture")) {
            assertThrows(Problem.class, () -> leftAlone.make(upload));
            assertThrows(Problem.class, () -> leftAlone.make(upload), "the place in line is given back");
        }
    }
}

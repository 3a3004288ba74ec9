package org.vastporch.server.media;

import com.drew.imaging.ImageMetadataReader;
import com.drew.metadata.Metadata;
import com.drew.metadata.exif.ExifDirectoryBase;
import com.drew.metadata.jpeg.JpegDirectory;
import com.drew.metadata.png.PngDirectory;
import java.awt.geom.AffineTransform;
import java.awt.image.AffineTransformOp;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.time.Duration;
import java.util.Iterator;
import java.util.Set;
import java.util.function.BooleanSupplier;
import javax.imageio.ImageIO;
import javax.imageio.ImageReadParam;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;
import net.coobird.thumbnailator.Thumbnails;
import org.apache.tika.Tika;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;
import org.vastporch.server.http.Asker;
import org.vastporch.server.http.InTurn;
import org.vastporch.server.http.Problem;

/**
 * Makes an uploaded picture fit to be kept: known by its content, not its name; turned upright, scaled down to the
 * column and written anew, so that nothing of the camera's or the sender's data is left in it.
 *
 * <p>Two are made at a time, a few more wait their turn for some seconds, and whoever comes then is asked to come back,
 * so that threads are left for everybody else. What nobody waits for any more when its turn comes is not made.
 */
@Component
class PictureMaker {

    private static final int COLUMN = 1600;
    private static final int SMALL = 400;
    private static final long MOST_PIXELS = 40_000_000;
    /** A picture that comes in passes is held whole while it is read. */
    private static final long MOST_IN_PASSES = 30_000_000;
    /**
     * Points times passes: what takes about two seconds to read. A picture in the usual ten passes may have 20 million.
     */
    private static final long MOST_PASSED_OVER = 200_000_000;

    private static final Set<String> READABLE =
            Set.of("image/jpeg", "image/png", "image/gif", "image/bmp", "image/x-ms-bmp");

    private static final int AT_ONCE = 2;
    private static final int MAY_WAIT = 6;
    private static final Duration PATIENCE = Duration.ofSeconds(8);

    static {
        ImageIO.setUseCache(false);
    }

    record Made(String type, byte[] bytes, byte[] small, int width, int height) {}

    private final Tika tika = new Tika();
    private final InTurn turns;
    private final BooleanSupplier askerGone;

    @Autowired
    PictureMaker(Asker asker) {
        this(AT_ONCE, MAY_WAIT, PATIENCE, asker::isGone);
    }

    PictureMaker(int atOnce, int mayWait, Duration patience, BooleanSupplier askerGone) {
        this.turns = new InTurn(atOnce, mayWait, patience, PictureMaker::busy);
        this.askerGone = askerGone;
    }

    /**
     * @throws Problem if it is not a picture that can be read, or is too large, or too many are being made, or whoever
     *     sent it has left meanwhile
     */
    Made make(Upload upload) throws IOException {
        String type = tika.detect(upload.file());
        if (type.equals("image/svg+xml"))
            throw notTaken("SVG drawings can carry programs, so they are not taken. Save the drawing as PNG.");
        if (type.equals("image/heic") || type.equals("image/webp") || type.equals("image/avif"))
            throw notTaken(
                    "Pictures of this kind (" + type.substring(6) + ") cannot be read here. Save it as JPEG or PNG.");
        if (!READABLE.contains(type))
            throw notTaken("This is not a picture, whatever its name says. JPEG, PNG and GIF are taken.");
        return turns.take(() -> {
            if (askerGone.getAsBoolean()) throw busy();
            return made(upload, type);
        });
    }

    private static Made made(Upload upload, String type) {
        try {
            Metadata about = metadata(upload);
            BufferedImage column = upright(read(upload, inPasses(about), passes(upload)), orientation(about));
            column = scaled(column, COLUMN);
            boolean png = !type.equals("image/jpeg") && column.getColorModel().hasAlpha();
            return new Made(
                    png ? "image/png" : "image/jpeg",
                    write(column, png),
                    write(scaled(column, SMALL), png),
                    column.getWidth(),
                    column.getHeight());
        } catch (Problem e) {
            throw e;
        } catch (IOException | RuntimeException e) {
            // Readers of pictures fail in many ways on a broken one: a palette without colours, a length below nothing.
            throw notTaken("This picture cannot be read. It may be damaged.");
        }
    }

    /** What the picture says of itself, wherever in the file that stands; nothing if it cannot be read. */
    private static Metadata metadata(Upload upload) {
        try (InputStream in = upload.open()) {
            return ImageMetadataReader.readMetadata(in, upload.size());
        } catch (Exception e) {
            return new Metadata();
        }
    }

    private static boolean inPasses(Metadata about) {
        JpegDirectory jpeg = about.getFirstDirectoryOfType(JpegDirectory.class);
        if (jpeg != null
                && jpeg.getInteger(JpegDirectory.TAG_COMPRESSION_TYPE) != null
                && jpeg.getInteger(JpegDirectory.TAG_COMPRESSION_TYPE) == 2) return true;
        PngDirectory png = about.getFirstDirectoryOfType(PngDirectory.class);
        return png != null
                && png.getInteger(PngDirectory.TAG_INTERLACE_METHOD) != null
                && png.getInteger(PngDirectory.TAG_INTERLACE_METHOD) != 0;
    }

    private static int passes(Upload upload) throws IOException {
        try (InputStream in = upload.open()) {
            return JpegPasses.count(in);
        }
    }

    private static int orientation(Metadata about) {
        for (ExifDirectoryBase exif : about.getDirectoriesOfType(ExifDirectoryBase.class)) {
            Integer orientation = exif.getInteger(ExifDirectoryBase.TAG_ORIENTATION);
            if (orientation != null && orientation >= 1 && orientation <= 8) return orientation;
        }
        return 1;
    }

    /** Reads the picture, thinned out while it is read if it is much larger than what is kept. */
    private static BufferedImage read(Upload upload, boolean inPasses, int passes) throws IOException {
        try (InputStream bytes = upload.open();
                ImageInputStream in = ImageIO.createImageInputStream(bytes)) {
            Iterator<ImageReader> readers = ImageIO.getImageReaders(in);
            if (!readers.hasNext()) throw notTaken("This picture cannot be read. It may be damaged.");
            ImageReader reader = readers.next();
            try {
                reader.setInput(in);
                int width = reader.getWidth(0);
                int height = reader.getHeight(0);
                refuseGiants((long) width * height, inPasses, passes);
                // What is drawn in passes is drawn anew for each, so it is thinned out as far as the column allows.
                int longest = Math.max(width, height);
                int every = Math.max(1, inPasses ? longest / COLUMN : longest * 2 / (3 * COLUMN));
                ImageReadParam param = reader.getDefaultReadParam();
                param.setSourceSubsampling(Math.min(every, width), Math.min(every, height), 0, 0);
                return reader.read(0, param);
            } finally {
                reader.dispose();
            }
        }
    }

    private static void refuseGiants(long pixels, boolean inPasses, int passes) {
        long most = inPasses ? MOST_IN_PASSES : MOST_PIXELS;
        if (pixels > most)
            throw notTaken("This picture has " + (pixels + 999_999) / 1_000_000 + " million points; at most "
                    + most / 1_000_000 + " million can be read" + (inPasses ? " of its kind" : "")
                    + ". Make it smaller first.");
        if (passes > 1 && pixels * passes > MOST_PASSED_OVER)
            throw notTaken(
                    "This picture is built up in " + passes + " passes, which takes too long at its size. Save it"
                            + " without “progressive”, or make it smaller first.");
    }

    /** The picture as it was seen through the camera. The numbers are those of Exif 2.3, 4.6.4. */
    private static BufferedImage upright(BufferedImage image, int orientation) {
        if (orientation == 1) return image;
        int w = image.getWidth();
        int h = image.getHeight();
        AffineTransform turn =
                switch (orientation) {
                    case 2 -> new AffineTransform(-1, 0, 0, 1, w, 0);
                    case 3 -> new AffineTransform(-1, 0, 0, -1, w, h);
                    case 4 -> new AffineTransform(1, 0, 0, -1, 0, h);
                    case 5 -> new AffineTransform(0, 1, 1, 0, 0, 0);
                    case 6 -> new AffineTransform(0, 1, -1, 0, h, 0);
                    case 7 -> new AffineTransform(0, -1, -1, 0, h, w);
                    default -> new AffineTransform(0, -1, 1, 0, 0, w);
                };
        boolean onItsSide = orientation >= 5;
        BufferedImage turned = new BufferedImage(
                onItsSide ? h : w,
                onItsSide ? w : h,
                image.getColorModel().hasAlpha() ? BufferedImage.TYPE_INT_ARGB : BufferedImage.TYPE_INT_RGB);
        turned.createGraphics()
                .drawImage(image, new AffineTransformOp(turn, AffineTransformOp.TYPE_NEAREST_NEIGHBOR), 0, 0);
        return turned;
    }

    /** At most so long and so wide; one that is smaller stays as it is. */
    private static BufferedImage scaled(BufferedImage image, int longest) throws IOException {
        if (Math.max(image.getWidth(), image.getHeight()) <= longest) return image;
        return Thumbnails.of(image).size(longest, longest).asBufferedImage();
    }

    private static byte[] write(BufferedImage image, boolean png) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        Thumbnails.of(image)
                .scale(1)
                .imageType(png ? BufferedImage.TYPE_INT_ARGB : BufferedImage.TYPE_INT_RGB)
                .outputFormat(png ? "png" : "jpg")
                .outputQuality(0.85)
                .toOutputStream(out);
        return out.toByteArray();
    }

    private static Problem busy() {
        return Problem.tooMany("Very many pictures are coming in at this moment. Please try again in a few seconds.")
                .retryAfter(Duration.ofSeconds(5));
    }

    private static Problem notTaken(String sentence) {
        return Problem.invalid("picture", "picture-not-taken", sentence);
    }
}

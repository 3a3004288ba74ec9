package org.vastporch.server.media;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.Iterator;
import java.util.Set;
import java.util.concurrent.Semaphore;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;
import net.coobird.thumbnailator.Thumbnails;
import org.apache.tika.Tika;
import org.springframework.stereotype.Component;
import org.vastporch.server.http.Problem;

/**
 * Makes an uploaded picture fit to be kept: known by its content, not its name; turned upright, scaled to the column and written
 * anew, so that nothing of the camera's or the sender's data is left in it.
 */
@Component
class PictureMaker {

    private static final int COLUMN = 1600;
    private static final int SMALL = 400;
    private static final long MOST_PIXELS = 100_000_000;
    private static final Set<String> READABLE = Set.of("image/jpeg", "image/png", "image/gif", "image/bmp", "image/x-ms-bmp");

    static {
        // Large pictures are thinned out while they are read.
        System.setProperty("thumbnailator.conserveMemoryWorkaround", "true");
        ImageIO.setUseCache(false);
    }

    record Made(String type, byte[] bytes, byte[] small, int width, int height) {}

    private final Tika tika = new Tika();
    private final Semaphore few = new Semaphore(2);

    /** @throws Problem if it is not a picture that can be read, or is too large */
    Made make(byte[] upload) {
        String type = tika.detect(upload);
        if (type.equals("image/svg+xml")) throw notTaken("SVG drawings can carry programs, so they are not taken. Save the drawing as PNG.");
        if (type.equals("image/heic") || type.equals("image/webp") || type.equals("image/avif"))
            throw notTaken("Pictures of this kind (" + type.substring(6) + ") cannot be read here. Save it as JPEG or PNG.");
        if (!READABLE.contains(type)) throw notTaken("This is not a picture, whatever its name says. JPEG, PNG and GIF are taken.");
        few.acquireUninterruptibly();
        try {
            refuseGiants(upload);
            boolean clear = type.equals("image/png") || type.equals("image/gif");
            BufferedImage column = Thumbnails.of(new ByteArrayInputStream(upload)).size(COLUMN, COLUMN).useExifOrientation(true).asBufferedImage();
            if (column.getWidth() <= 0) throw notTaken("This picture cannot be read. It may be damaged.");
            boolean png = clear && column.getColorModel().hasAlpha();
            return new Made(png ? "image/png" : "image/jpeg", write(column, COLUMN, png), write(column, SMALL, png), column.getWidth(), column.getHeight());
        } catch (IOException | IllegalArgumentException | IndexOutOfBoundsException e) {
            throw notTaken("This picture cannot be read. It may be damaged.");
        } finally {
            few.release();
        }
    }

    private static byte[] write(BufferedImage image, int longest, boolean png) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        int width = Math.min(longest, image.getWidth());
        int height = Math.min(longest, image.getHeight());
        Thumbnails.of(image).size(width, height).imageType(png ? BufferedImage.TYPE_INT_ARGB : BufferedImage.TYPE_INT_RGB)
            .outputFormat(png ? "png" : "jpg").outputQuality(0.85).toOutputStream(out);
        return out.toByteArray();
    }

    private static void refuseGiants(byte[] upload) throws IOException {
        try (ImageInputStream in = ImageIO.createImageInputStream(new ByteArrayInputStream(upload))) {
            Iterator<ImageReader> readers = ImageIO.getImageReaders(in);
            if (!readers.hasNext()) throw notTaken("This picture cannot be read. It may be damaged.");
            ImageReader reader = readers.next();
            reader.setInput(in);
            long pixels = (long) reader.getWidth(0) * reader.getHeight(0);
            reader.dispose();
            if (pixels > MOST_PIXELS)
                throw notTaken("This picture has " + pixels / 1_000_000 + " million points; at most 100 million can be read. Make it smaller first.");
        }
    }

    private static Problem notTaken(String sentence) {
        return Problem.invalid("picture", "picture-not-taken", sentence);
    }
}

package org.vastporch.server.media;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.time.Duration;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import javax.imageio.ImageIO;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.rendering.PDFRenderer;
import org.springframework.stereotype.Component;
import org.vastporch.server.http.Problem;

/** The pages of a PDF as pictures, so that it is read where it stands and nothing of it runs in a browser. One page is drawn at a time, within some seconds. */
@Component
class PdfPages {

    /** Further pages are read in the file itself. */
    static final int MOST_SHOWN = 200;
    private static final int WIDTH = 1_100;
    private static final int HIGHEST = 3_000;
    private static final long KEPT_BYTES = 24L << 20;
    private static final Duration LONGEST = Duration.ofSeconds(10);
    private static final Duration PATIENCE = Duration.ofSeconds(8);

    private record Page(String sha, int no) {}

    private final Cache<Page, byte[]> drawn = Caffeine.newBuilder().maximumWeight(KEPT_BYTES).<Page, byte[]>weigher((page, bytes) -> bytes.length).expireAfterAccess(Duration.ofHours(1)).build();
    private final Semaphore one = new Semaphore(1, true);
    private final ExecutorService hand = Executors.newCachedThreadPool(task -> {
        Thread thread = new Thread(task, "pdf-pages");
        thread.setDaemon(true);
        return thread;
    });

    interface Source {
        Upload file() throws IOException;
    }

    /** How many pages can be shown; 0 for a file that is none, is locked, or cannot be read. */
    int count(Upload upload) {
        try {
            return within(() -> {
                try (PDDocument document = Loader.loadPDF(upload.file().toFile())) {
                    return Math.min(MOST_SHOWN, document.getNumberOfPages());
                }
            });
        } catch (Problem e) {
            return 0;
        }
    }

    /** @param no from 1 */
    byte[] draw(String sha, int no, Source source) {
        byte[] known = drawn.getIfPresent(new Page(sha, no));
        if (known != null) return known;
        byte[] fresh = within(() -> {
            try (Upload file = source.file(); PDDocument document = Loader.loadPDF(file.file().toFile())) {
                if (no > document.getNumberOfPages()) throw Problem.missing();
                return picture(document, no - 1);
            }
        });
        drawn.put(new Page(sha, no), fresh);
        return fresh;
    }

    private static byte[] picture(PDDocument document, int index) throws IOException {
        float width = Math.max(1, document.getPage(index).getCropBox().getWidth());
        float height = Math.max(1, document.getPage(index).getCropBox().getHeight());
        BufferedImage image = new PDFRenderer(document).renderImage(index, Math.min(WIDTH / width, HIGHEST / height));
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, "png", out);
        return out.toByteArray();
    }

    private interface Work<T> {
        T go() throws IOException;
    }

    /** Does work with a file of somebody's in its own time: what takes too long is left to end by itself, and holds up nobody but the next page. */
    private <T> T within(Work<T> work) {
        try {
            if (!one.tryAcquire(PATIENCE.toMillis(), TimeUnit.MILLISECONDS))
                throw Problem.tooMany("Many pages are being drawn at this moment. Please try again in a few seconds.").retryAfter(Duration.ofSeconds(5));
            Future<T> result = hand.submit(() -> {
                try {
                    return work.go();
                } finally {
                    one.release();
                }
            });
            return result.get(LONGEST.toMillis(), TimeUnit.MILLISECONDS);
        } catch (ExecutionException e) {
            if (e.getCause() instanceof Problem problem) throw problem;
            throw Problem.missing();
        } catch (TimeoutException e) {
            throw Problem.missing();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw Problem.missing();
        }
    }
}

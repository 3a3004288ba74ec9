package org.vastporch.server.media;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.time.Duration;
import java.util.Optional;
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
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;
import org.vastporch.server.http.Problem;

/**
 * The pages of a PDF as pictures, so that it is read where it stands and nothing of it runs in a browser. One page is
 * drawn at a time, within some seconds; a file that took longer once is not tried again, and what goes on with it holds
 * nobody up.
 */
@Component
class PdfPages {

    /** Further pages are read in the file itself. */
    static final int MOST_SHOWN = 200;

    private static final int WIDTH = 1_100;
    private static final int HIGHEST = 3_000;
    private static final long KEPT_BYTES = 24L << 20;
    private static final Duration LONGEST = Duration.ofSeconds(10);
    private static final int MOST_LEFT = 2;
    private static final Duration PATIENCE = Duration.ofSeconds(8);

    private record Page(String sha, int no) {}

    private final Cache<Page, byte[]> drawn = Caffeine.newBuilder()
            .maximumWeight(KEPT_BYTES)
            .<Page, byte[]>weigher((page, bytes) -> bytes.length)
            .expireAfterAccess(Duration.ofHours(1))
            .build();
    /** Files that took too long, by their hashes. */
    private final Cache<String, Boolean> endless = Caffeine.newBuilder()
            .maximumSize(10_000)
            .expireAfterWrite(Duration.ofDays(1))
            .build();

    private final Semaphore one = new Semaphore(1, true);
    /** So many may go on with files that nobody waits for any more; a further one keeps its turn until it is over. */
    private final Semaphore left = new Semaphore(MOST_LEFT);

    private final ExecutorService hand = Executors.newCachedThreadPool(task -> {
        Thread thread = new Thread(task, "pdf-pages");
        thread.setDaemon(true);
        thread.setPriority(Thread.MIN_PRIORITY);
        return thread;
    });
    private final Duration longest;
    private final Duration patience;

    @Autowired
    PdfPages() {
        this(LONGEST, PATIENCE);
    }

    PdfPages(Duration longest, Duration patience) {
        this.longest = longest;
        this.patience = patience;
    }

    interface Source {
        Upload file() throws IOException;
    }

    /**
     * How many pages can be shown; 0 for a file that is none, is locked, or cannot be read.
     *
     * @throws Problem if too many are being drawn to find that out now
     */
    int count(String sha, Upload upload) {
        return within(sha, () -> {
                    try (PDDocument document = Loader.loadPDF(upload.file().toFile())) {
                        return Math.min(MOST_SHOWN, document.getNumberOfPages());
                    }
                })
                .orElse(0);
    }

    /** @param no from 1 */
    byte[] draw(String sha, int no, Source source) {
        byte[] known = drawn.getIfPresent(new Page(sha, no));
        if (known != null) return known;
        byte[] fresh = within(sha, () -> {
                    try (Upload file = source.file();
                            PDDocument document = Loader.loadPDF(file.file().toFile())) {
                        if (no > document.getNumberOfPages()) throw Problem.missing();
                        return picture(document, no - 1);
                    }
                })
                .orElseThrow(Problem::missing);
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

    interface Work<T> {
        T go() throws IOException;
    }

    /** The right to draw. It ends with the work, or before that if somebody else is to have it. */
    private final class Turn {
        private boolean over;
        private boolean leftAlone;

        synchronized void end() {
            if (leftAlone) left.release();
            else if (!over) one.release();
            over = true;
        }

        /** The work is left to end by itself, and the next may begin, unless too many are so already. */
        synchronized void leave() {
            if (over || !left.tryAcquire()) return;
            leftAlone = true;
            one.release();
        }
    }

    /** Does work with a file of somebody's in its own time; empty if it does not end, or fails. */
    <T> Optional<T> within(String sha, Work<T> work) {
        if (endless.getIfPresent(sha) != null) return Optional.empty();
        try {
            if (!one.tryAcquire(patience.toMillis(), TimeUnit.MILLISECONDS))
                throw Problem.tooMany("Many pages are being drawn at this moment. Please try again in a few seconds.")
                        .retryAfter(Duration.ofSeconds(5));
            Turn turn = new Turn();
            Future<T> result = hand.submit(() -> {
                try {
                    return work.go();
                } finally {
                    turn.end();
                }
            });
            try {
                return Optional.of(result.get(longest.toMillis(), TimeUnit.MILLISECONDS));
            } catch (TimeoutException e) {
                endless.put(sha, true);
                turn.leave();
                return Optional.empty();
            }
        } catch (ExecutionException e) {
            if (e.getCause() instanceof Problem problem) throw problem;
            return Optional.empty();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return Optional.empty();
        }
    }
}

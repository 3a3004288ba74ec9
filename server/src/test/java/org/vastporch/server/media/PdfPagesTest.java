package org.vastporch.server.media;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.vastporch.server.http.Problem;

class PdfPagesTest {

    private final PdfPages pages = new PdfPages(Duration.ofMillis(60), Duration.ofMillis(60));
    private final List<CountDownLatch> endless = new ArrayList<>();

    @AfterEach
    void letAllEnd() {
        endless.forEach(CountDownLatch::countDown);
    }

    /** Work that goes on until the test is over. */
    private PdfPages.Work<Integer> withoutEnd() {
        CountDownLatch over = new CountDownLatch(1);
        endless.add(over);
        return () -> {
            try {
                over.await();
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
            return 0;
        };
    }

    @Test
    void aFileThatIsDrawnWithoutEndHoldsUpNobodyElse() {
        assertEquals(Optional.empty(), pages.within("circles", withoutEnd()));
        assertEquals(Optional.of(3), pages.within("leaves", () -> 3));
    }

    @Test
    void itIsNotTriedAgain() {
        pages.within("circles", withoutEnd());
        assertEquals(Optional.empty(), pages.within("circles", () -> fail("tried again")));
    }

    @Test
    void soManyAreLeftAloneAndNoMore() {
        for (String file : List.of("first", "second", "third"))
            assertEquals(Optional.empty(), pages.within(file, withoutEnd()));
        Problem busy = assertThrows(Problem.class, () -> pages.within("leaves", () -> 3));
        assertTrue(busy.getMessage().contains("being drawn"), busy::getMessage);
    }

    @Test
    void whenOneOfThemEndsTheNextMayBegin() {
        for (String file : List.of("first", "second", "third")) pages.within(file, withoutEnd());
        endless.get(2).countDown();
        Optional<Integer> found = Optional.empty();
        // The third gives its turn back in a thread of its own.
        for (int i = 0; i < 50 && found.isEmpty(); i++) found = tried(pages);
        assertEquals(Optional.of(3), found);
    }

    private static Optional<Integer> tried(PdfPages pages) {
        try {
            return pages.within("leaves", () -> 3);
        } catch (Problem busy) {
            return Optional.empty();
        }
    }

    @Test
    void whatCannotBeReadHasNoPages() {
        assertEquals(Optional.empty(), pages.within("broken", () -> {
            throw new IllegalStateException("no pages");
        }));
        assertEquals(Optional.of(3), pages.within("broken", () -> 3), "a failure is no reason not to try again");
    }
}

package org.vastporch.server.feeds;

import java.time.Duration;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.vastporch.server.feeds.SafeFetcher.FetchException;

/**
 * What a whole look or check may cost, however many addresses it leads to: time, requests, 5 MB on the wire and 10 MB
 * once it is unpacked. Of those that get more than a megabyte two go on at a time, until what they got is read, so that
 * what hosts send bounds what memory is used for it.
 */
final class Budget implements AutoCloseable {

    static final int MOST_SENT = 5 * 1024 * 1024;
    static final int MOST_UNPACKED = 10 * 1024 * 1024;

    private static final int LARGE = 1024 * 1024;
    private static final Semaphore LARGE_ONES = new Semaphore(2);
    private static final int PATIENCE_SECONDS = 8;

    /** In all, redirects and everything that a page announces included. */
    private static final Duration LONGEST = Duration.ofSeconds(20);

    private final long end = System.nanoTime() + LONGEST.toNanos();
    private int requests;
    private int sent;
    private int unpacked;
    private boolean large;

    private Budget(int requests) {
        this.requests = requests;
    }

    /** For one address and where it leads. */
    static Budget ofOne() {
        return new Budget(6);
    }

    /** For a page and what is found on it. */
    static Budget ofPage() {
        return new Budget(13);
    }

    /** Takes one request; tells how long it may take. */
    Duration take() throws FetchException {
        long left = end - System.nanoTime();
        if (left <= 0) throw new FetchException("too-slow", "What stands at this address took too long to come.");
        if (requests-- <= 0) throw new FetchException("redirects", "This address sends one on and on.");
        return Duration.ofNanos(left);
    }

    /** So much more came over the wire. */
    void sent(int bytes) throws SentBody.Refused {
        sent += bytes;
        if (sent > MOST_SENT)
            throw new SentBody.Refused(
                    "too-large", "What stands at this address is larger than 5 MB and was not read.");
    }

    /** So much more was made of it. */
    void unpacked(int bytes) throws SentBody.Refused {
        unpacked += bytes;
        if (unpacked > MOST_UNPACKED)
            throw new SentBody.Refused(
                    "too-large", "What stands at this address is larger than 10 MB and was not read.");
        if (unpacked > LARGE && !large) large = waitForRoom();
    }

    private static boolean waitForRoom() throws SentBody.Refused {
        try {
            if (LARGE_ONES.tryAcquire(PATIENCE_SECONDS, TimeUnit.SECONDS)) return true;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        throw new SentBody.Refused("busy", "Several very large pages are being read just now. Try again in a minute.");
    }

    /** What was got is read: somebody else may get something large. */
    @Override
    public void close() {
        if (large) LARGE_ONES.release();
        large = false;
    }

    boolean isSpent() {
        return requests <= 0 || end - System.nanoTime() <= 0;
    }
}

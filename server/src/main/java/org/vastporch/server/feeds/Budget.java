package org.vastporch.server.feeds;

import java.time.Duration;
import org.vastporch.server.feeds.SafeFetcher.FetchException;

/** What a whole look or check may cost, however many addresses it leads to: time and requests. */
final class Budget {

    /** In all, redirects and everything that a page announces included. */
    private static final Duration LONGEST = Duration.ofSeconds(20);

    private final long end = System.nanoTime() + LONGEST.toNanos();
    private int requests;

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

    boolean isSpent() {
        return requests <= 0 || end - System.nanoTime() <= 0;
    }
}

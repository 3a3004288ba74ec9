package org.vastporch.core.feeds;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.random.RandomGenerator;

/** How often a source is looked at: as often as it publishes, never oftener than it asks, ever less while it fails. */
public final class Pace {

    public static final Duration SHORTEST = Duration.ofMinutes(15);
    public static final Duration LONGEST = Duration.ofHours(24);
    /** A source that is not there is given up after so many failures in a row … */
    public static final int NOT_FOUND_LIMIT = 10;
    /** … over at least this time. */
    public static final Duration NOT_FOUND_SPELL = Duration.ofDays(7);
    /** An address that moved for good is taken over after so many checks that say so. */
    public static final int MOVED_LIMIT = 3;

    private static final double JITTER = 0.1;

    private Pace() {}

    /**
     * The wait until the next check: half the median gap of the last ten entries, between 15 minutes and 24 hours, not
     * shorter than the source asks, doubled for each failure in a row up to 24 hours, then varied by up to 10 %.
     *
     * @param published when the last entries were published, in any order; the newest ten count
     * @param asked the shortest wait that the source asks for; zero if it asks for none
     * @param failures failures in a row, 0 after a success
     * @param random seeds the variation; the same seed gives the same wait
     */
    public static Duration next(List<Instant> published, Duration asked, int failures, RandomGenerator random) {
        Duration wait = clamp(medianGap(published).dividedBy(2));
        if (wait.compareTo(asked) < 0) wait = asked;
        for (int i = 0; i < failures && wait.compareTo(LONGEST) < 0; i++) wait = wait.multipliedBy(2);
        if (failures > 0 && wait.compareTo(LONGEST) > 0 && asked.compareTo(LONGEST) <= 0) wait = LONGEST;
        double factor = 1 + JITTER * (2 * random.nextDouble() - 1);
        Duration varied = Duration.ofMillis(Math.round(wait.toMillis() * factor));
        return varied.compareTo(asked) < 0 ? asked : varied;
    }

    /**
     * Tells whether a source is given up: it said that it is gone (410), or was not found (404) ten times over a week.
     */
    public static boolean isStopped(int status, int notFoundInARow, Duration sinceFirstNotFound) {
        return status == 410
                || (status == 404
                        && notFoundInARow >= NOT_FOUND_LIMIT
                        && sinceFirstNotFound.compareTo(NOT_FOUND_SPELL) >= 0);
    }

    private static Duration medianGap(List<Instant> published) {
        List<Instant> newest = new ArrayList<>(published);
        newest.sort(Collections.reverseOrder());
        if (newest.size() > 10) newest = newest.subList(0, 10);
        if (newest.size() < 2) return LONGEST;
        List<Duration> gaps = new ArrayList<>();
        for (int i = 1; i < newest.size(); i++) gaps.add(Duration.between(newest.get(i), newest.get(i - 1)));
        Collections.sort(gaps);
        int middle = gaps.size() / 2;
        return gaps.size() % 2 == 1
                ? gaps.get(middle)
                : gaps.get(middle - 1).plus(gaps.get(middle)).dividedBy(2);
    }

    private static Duration clamp(Duration wait) {
        if (wait.compareTo(SHORTEST) < 0) return SHORTEST;
        return wait.compareTo(LONGEST) > 0 ? LONGEST : wait;
    }
}

package org.vastporch.core.feeds;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.random.RandomGenerator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

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

    private static final Duration BEFORE_DUE = Duration.ofDays(1);
    private static final Duration SPREAD = Duration.ofMinutes(5);
    private static final double JITTER = 0.1;
    private static final Pattern MAX_AGE = Pattern.compile("(?i)(?<![\\w-])max-age\\s*=\\s*\"?(\\d{1,8})");

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

    /** Why a source is looked at as often as it is. */
    public enum Why {
        /** It could not be read lately. */
        FAILURES,
        /** Something of its author is due. */
        DUE,
        /** Its site asks to be left alone for longer. */
        ASKED,
        /** As often as it publishes. */
        HABIT,
        /** Once a day: it publishes seldom. */
        SELDOM
    }

    /**
     * What decides how often a source is looked at now, by the same rules as {@link #next} and {@link #hurried}.
     *
     * @param published when the last entries were published, in any order; the newest ten count
     * @param asked the shortest wait that the source asks for
     * @param failures failures in a row
     */
    public static Why why(List<Instant> published, Duration asked, int failures, List<Rush> rushes, Instant now) {
        if (failures > 0) return Why.FAILURES;
        Duration own = clamp(medianGap(published).dividedBy(2));
        boolean rushed = rushes.stream().anyMatch(r -> !now.isBefore(r.from()) && !now.isAfter(r.to()));
        Duration quick = asked.compareTo(SHORTEST) > 0 ? asked : SHORTEST;
        if (rushed && quick.compareTo(own) < 0) return Why.DUE;
        if (asked.compareTo(own) > 0) return Why.ASKED;
        return own.equals(LONGEST) ? Why.SELDOM : Why.HABIT;
    }

    /**
     * A time when nobody should wait for what somebody has just published: from a day before a prompt is due until its
     * grace ends.
     */
    public record Rush(Instant from, Instant to) {
        public static Rush around(Instant due, Duration grace) {
            return new Rush(due.minus(BEFORE_DUE), due.plus(grace));
        }
    }

    /**
     * When to look next if there are such times: every 15 minutes within one, and at its beginning, unless the source
     * asks for more. Sources are spread over the first minutes, so that they do not all come at once.
     *
     * @param next when it would be looked at otherwise
     */
    public static Instant hurried(
            Instant next, List<Rush> rushes, Duration asked, Instant now, RandomGenerator random) {
        Instant soonest = now.plus(asked.compareTo(SHORTEST) > 0 ? asked : SHORTEST);
        Duration spread = Duration.ofMillis(Math.round(SPREAD.toMillis() * random.nextDouble()));
        Instant found = next;
        for (Rush rush : rushes) {
            Instant begin = rush.from().plus(spread);
            Instant at = begin.isAfter(soonest) ? begin : soonest;
            if (!at.isAfter(rush.to()) && at.isBefore(found)) found = at;
        }
        return found;
    }

    /**
     * The longest of what an answer and a feed ask for, at most a day.
     *
     * @param cacheControl the header of that name; null if there is none
     * @param retryAfter the same: seconds, or a date (RFC 9110, 10.2.3)
     * @param feed what the feed itself asks for; null if none was read, as when nothing has changed
     * @return null if none of them says anything
     */
    public static @Nullable Duration asked(
            @Nullable String cacheControl, @Nullable String retryAfter, @Nullable Duration feed, Instant now) {
        if (cacheControl == null && retryAfter == null && feed == null) return null;
        long seconds = feed == null ? 0 : feed.toSeconds();
        Matcher age = MAX_AGE.matcher(cacheControl == null ? "" : cacheControl);
        if (age.find()) seconds = Math.max(seconds, Long.parseLong(age.group(1)));
        if (retryAfter != null && retryAfter.strip().matches("\\d{1,8}"))
            seconds = Math.max(seconds, Long.parseLong(retryAfter.strip()));
        else if (retryAfter != null)
            seconds = Math.max(
                    seconds,
                    FeedDates.of(retryAfter)
                            .map(at -> Duration.between(now, at).toSeconds())
                            .orElse(0L));
        return Duration.ofSeconds(Math.min(seconds, LONGEST.toSeconds()));
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

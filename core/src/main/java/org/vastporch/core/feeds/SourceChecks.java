package org.vastporch.core.feeds;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.function.Predicate;
import java.util.random.RandomGenerator;
import org.jspecify.annotations.Nullable;

/**
 * What checks have found out about a source so far, and when the next one is due. A check is one step: {@link #after}.
 *
 * @param etag of the last answer that was read
 * @param lastModified the same
 * @param bodyHash of the bytes that were read last; null if none were
 * @param untidy whether its feed is broken somewhere, so that it was read by guess
 * @param asked the shortest wait that the source asks for; zero if it asks for none
 * @param failures failed checks in a row
 * @param faltering since when, and whether that was told; null if the last check could read it
 * @param notFound answers in a row that there is nothing (404)
 * @param notFoundSince the first of them; null while it is found
 * @param movedTo where it says to have moved for good; null if it says nothing
 * @param movedSeen how many checks in a row said that
 * @param stopped whether it was given up
 * @param lastError what went wrong at the last check, in words; null if nothing did
 */
public record SourceChecks(
        String feedAddress,
        @Nullable String etag,
        @Nullable String lastModified,
        @Nullable String bodyHash,
        boolean untidy,
        Duration asked,
        int failures,
        @Nullable Faltering faltering,
        int notFound,
        @Nullable Instant notFoundSince,
        @Nullable String movedTo,
        int movedSeen,
        boolean stopped,
        @Nullable String lastError,
        @Nullable Instant lastCheck,
        Instant nextCheck) {

    /**
     * What came of asking.
     *
     * @param status of the answer; 0 if none came
     * @param bodyHash of the bytes that were read; null if none were
     * @param untidy whether they had to be read by guess
     * @param permanent the address to which every redirect on the way led for good; null if there was none
     * @param asked the shortest wait that the answer asks for; null if it says nothing of that
     * @param error why nothing could be read, in words; null if it could, or if nothing has changed
     */
    public record Answer(
            int status,
            @Nullable String etag,
            @Nullable String lastModified,
            @Nullable String bodyHash,
            boolean untidy,
            @Nullable String permanent,
            @Nullable Duration asked,
            @Nullable String error) {

        /** Nothing came. */
        public static Answer none(String error) {
            return new Answer(0, null, null, null, false, null, null, error);
        }

        /** The same answer if what it carried could not be read after all. */
        public Answer failed(String why) {
            return new Answer(status, null, null, null, untidy, permanent, asked, why);
        }
    }

    private static final Duration LONGEST_ASKED = Duration.ofDays(1);

    /** A source before its first check, which is due at once. */
    public static SourceChecks begin(String feedAddress, Instant now) {
        return new SourceChecks(
                feedAddress, null, null, null, false, Duration.ZERO, 0, null, 0, null, null, 0, false, null, null, now);
    }

    /**
     * The source after a check.
     *
     * @param published when its last entries were published; the newest ten count
     * @param isTaken tells whether an address is that of another source already, so that it cannot be moved there
     * @param rushes when something of its author is due; while it fails they hurry nobody
     * @param random varies the wait by a tenth, see {@link Pace#next}
     */
    public SourceChecks after(
            Answer answer,
            List<Instant> published,
            Predicate<String> isTaken,
            List<Pace.Rush> rushes,
            Instant now,
            RandomGenerator random) {
        boolean failed = answer.error() != null;
        boolean absent = answer.status() == 404;
        int missed = absent ? notFound + 1 : 0;
        Instant since = !absent ? null : notFoundSince == null ? now : notFoundSince;
        Duration missing = since == null ? Duration.ZERO : Duration.between(since, now);
        String moved = answer.permanent();
        int seen = moved == null ? 0 : moved.equals(movedTo) ? movedSeen + 1 : 1;
        boolean takeOver = seen >= Pace.MOVED_LIMIT && !isTaken.test(moved);
        Duration wish = answer.asked() == null ? asked : shorter(answer.asked(), LONGEST_ASKED);
        int inRow = failed ? failures + 1 : 0;
        boolean stops = Pace.isStopped(answer.status(), missed, missing);
        boolean fresh = !failed && answer.status() == 200;
        Instant next = now.plus(Pace.next(published, wish, inRow, random));
        return new SourceChecks(
                takeOver ? moved : feedAddress,
                fresh ? answer.etag() : etag,
                fresh ? answer.lastModified() : lastModified,
                fresh ? answer.bodyHash() : bodyHash,
                fresh ? answer.untidy() : untidy,
                wish,
                inRow,
                Faltering.after(faltering, failed, stops, now),
                missed,
                since,
                takeOver ? null : moved,
                takeOver ? 0 : seen,
                stops,
                answer.error(),
                now,
                failed ? next : Pace.hurried(next, rushes, wish, now, random));
    }

    /**
     * Whether now is the moment to tell that it falters.
     *
     * @param before the source before the check
     */
    public boolean isToTell(SourceChecks before) {
        return faltering != null && faltering.told() && (before.faltering == null || !before.faltering.told());
    }

    private static Duration shorter(Duration a, Duration b) {
        return a.compareTo(b) <= 0 ? a : b;
    }
}

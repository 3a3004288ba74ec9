package org.vastporch.core.marking;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * When a post counts as handed in, and which version of it is to be marked. Handed in once, it counts from that moment.
 * What staff asked to be mended counts from the first time, in the newest version so mended. What its author changed
 * unasked in time is simply the newest. What its author changed unasked after that is handed in again: it is marked,
 * and late, only if the marker takes it.
 */
public final class HandIns {

    /**
     * A version that was handed in after the first one.
     *
     * @param before the version that stood there when it came, below this one
     * @param asked whether staff had asked for it
     * @param taken whether a marker takes it, though it came unasked and after the time
     */
    public record Again(int version, int before, Instant at, boolean asked, boolean taken) {}

    /**
     * @param at when it counts as handed in
     * @param upTo the version to be marked; null for the newest
     * @param newer the newest version that was handed in again, and is not taken; null if there is none
     */
    public record Counts(
            Instant at, @Nullable Integer upTo, @Nullable Integer newer) {}

    private HandIns() {}

    /**
     * @param first when it was first handed in
     * @param again what followed, in order
     * @param end the last moment that is on time
     */
    public static Counts of(Instant first, List<Again> again, Instant end) {
        Instant at = first;
        Integer upTo = null;
        Integer newer = null;
        for (Again next : again) {
            if (next.asked() || next.taken()) {
                upTo = null;
                newer = null;
                if (!next.asked()) at = next.at();
            } else if (next.at().isAfter(end)) {
                if (upTo == null) upTo = next.before();
                newer = next.version();
            }
        }
        return new Counts(at, upTo, newer);
    }
}

package org.vastporch.core.access;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * What the access engine needs to know of names that are kept back around a post: its author's, and those of who
 * comments on it.
 *
 * @param until the first moment at which classmates read them again; null if they are not kept back
 * @param authorWorks whether its author works for the class
 * @param gathered whether it came from an outside blog, which names its author itself
 */
public record KeptNames(@Nullable Instant until, boolean authorWorks, boolean gathered) {

    public static final KeptNames NONE = new KeptNames(null, false, false);

    /** Stands for no end. */
    public static final Instant FOR_GOOD = Instant.parse("9999-12-31T00:00:00Z");

    /**
     * The later of two ends: a blog and a prompt may both keep names back.
     *
     * @return null if neither does
     */
    public static @Nullable Instant later(@Nullable Instant one, @Nullable Instant other) {
        if (one == null || other == null) return one == null ? other : one;
        return one.isAfter(other) ? one : other;
    }

    boolean isKept(Instant now) {
        return until != null && now.isBefore(until);
    }
}

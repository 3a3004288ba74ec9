package org.vastporch.server.writing;

import java.util.function.Supplier;
import org.vastporch.core.access.Viewer;

/**
 * Scores that students have seen: what changes one is noted with its reason, and the student reads it. Whoever keeps
 * the scores knows.
 */
public interface ScoresKept {

    /** Does something that may change scores for a prompt, in the transaction of the caller. */
    <T> T noting(Viewer viewer, long promptId, String reason, Supplier<T> change);
}

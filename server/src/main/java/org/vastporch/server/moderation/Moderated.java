package org.vastporch.server.moderation;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.moderation.Course;
import org.vastporch.core.moderation.Standing;
import org.vastporch.core.text.Revision;

/** A kind of text that can wait in the pile, such as posts and comments; each keeps its own texts. */
public interface Moderated {

    /**
     * A text as far as deciding goes. Every change of it raises {@code rev}.
     *
     * @param fromOutside whether it came in by a feed
     */
    record Text(long id, long classId, @Nullable Long authorId, int rev, Course course, boolean fromOutside) {

        Standing standing() {
            return course.standing();
        }
    }

    /** The name of the kind: "post", "comment", "header" or "review". */
    String subject();

    /** The text, its row locked until the transaction ends. */
    Optional<Text> lock(long id);

    /**
     * Puts the text where it stands now. The row is locked, so nobody can have been faster.
     *
     * @param by who decided that
     */
    void settle(Text before, Course after, long by);

    /**
     * What changed from a version that somebody saw to the one that a decision would be about now; empty if the earlier
     * one is not kept.
     */
    Optional<Revision> changesSince(long id, int version);

    /** Refuses whoever may not read the text as it is up now. */
    void requireReading(Viewer viewer, long id);

    /**
     * A text that waits.
     *
     * @param postId the post whose readers it would have; null for what is no part of one
     */
    record Waiting(
            String subject,
            long id,
            long classId,
            long authorId,
            @Nullable Long postId) {}

    /** What waits of one kind, and how each is shown once what they have in common is known. */
    record Batch(List<Waiting> texts, Function<PileDesk, List<PileItem>> items) {}

    /** What waits in some classes, the longest wait first, as far as a filter lets it through. */
    Batch waiting(Collection<Long> classIds, PileFilter filter);
}

package org.vastporch.server.reading;

import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What is around some posts for one reader: who commented on them, and which of them the reader has seen.
 *
 * @param reader 0 for a stranger
 * @param voices by the post; left out if it has no comments
 */
record Around(long reader, Map<Long, List<Voice>> voices, Set<Long> seen) {

    /**
     * The comments that one person, or all visitors together, have on a post.
     *
     * @param author null for visitors
     * @param newest of the last of them; of several at one moment the one with the highest number
     */
    record Voice(@Nullable Long author, int comments, Instant newest, long newestId) {}

    List<Voice> of(long post) {
        return voices.getOrDefault(post, List.of());
    }

    int comments(long post) {
        return of(post).stream().mapToInt(Voice::comments).sum();
    }

    /** Whether somebody else of the school commented on a post. */
    boolean isAnswered(long post, long author) {
        return of(post).stream().anyMatch(v -> v.author() != null && v.author() != author);
    }

    /** Who commented last; null for a visitor, or if nobody did. */
    @Nullable
    Long lastCommenter(long post) {
        return of(post).stream()
                .max(Comparator.comparing(Voice::newest).thenComparing(Voice::newestId))
                .map(Voice::author)
                .orElse(null);
    }

    /**
     * Whether a post is new to the reader; one's own never is.
     *
     * @param author 0 for nobody
     */
    boolean isUnread(long post, long author) {
        return (author == 0 || author != reader) && !seen.contains(post);
    }
}

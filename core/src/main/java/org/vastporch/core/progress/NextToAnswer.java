package org.vastporch.core.progress;

import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.Refusal;
import org.vastporch.core.access.BlogFacts.Commenters;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.blogs.Audience;

/** Which posts of classmates a student may answer next, so that each gets its turn. */
public final class NextToAnswer {

    /**
     * A post that the student may comment on.
     *
     * @param group in which its author is; null for none
     * @param comments how many classmates of its author commented on it
     * @param wanted whether staff put it up for an answer
     * @param answered whether the student commented on it already
     */
    public record Candidate(
            long post, long author, @Nullable Long group, int comments, Instant at, boolean wanted, boolean answered) {}

    private NextToAnswer() {}

    /**
     * The posts in the order in which the student is offered them: those that staff put up first, then those with the
     * fewest comments, of them those of the own group last, then the oldest. So nobody is offered a post that has an
     * answer while another waits for one. Own ones and those already answered are none.
     *
     * @param group of the student; null for none
     */
    public static List<Candidate> order(long student, @Nullable Long group, List<Candidate> posts) {
        return posts.stream()
                .filter(p -> p.author() != student && !p.answered())
                .sorted(Comparator.comparing(Candidate::wanted)
                        .reversed()
                        .thenComparing(Candidate::comments)
                        .thenComparing(p -> group != null && group.equals(p.group()))
                        .thenComparing(Candidate::at)
                        .thenComparing(Candidate::post))
                .toList();
    }

    /**
     * Why a post cannot be put up for an answer.
     *
     * @param byStudent whether a student of the class wrote it
     * @return empty if classmates can answer it
     */
    public static Optional<Refusal> unanswerable(PostFacts post, boolean byStudent) {
        if (!byStudent) return refused("not-a-student", "Only a student's post is put up for an answer.");
        if (!post.isUp()) return refused("not-up", "This post is not up, so nobody can answer it.");
        if (post.effectiveAudience() == Audience.STAFF_AND_ME)
            return refused(
                    "not-for-classmates", "Only its author and staff read this post, so no classmate can answer.");
        if (post.blog().commenters() == Commenters.NOBODY)
            return refused("comments-off", "Comments are switched off in this blog, so nobody can answer.");
        return Optional.empty();
    }

    private static Optional<Refusal> refused(String code, String sentence) {
        return Optional.of(new Refusal("", code, sentence));
    }
}

package org.vastporch.core.peers;

import java.util.List;
import java.util.OptionalLong;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.Refusal;
import org.vastporch.core.marking.Marks;
import org.vastporch.core.reviews.Apart;
import org.vastporch.core.rubrics.Rubric;

/**
 * Papers that a teacher marked beforehand, by which reviewers learn to judge: each gives steps of the own, and sees
 * then how near they come.
 */
public final class WarmUp {

    /** So many for one prompt at most. */
    public static final int MOST = 5;

    private static final int LONGEST_TITLE = 300;
    private static final int LONGEST_TEXT = 200_000;

    /** What becomes of a step of a reviewer. */
    public enum Answer {
        ALLOWED,
        /** The teacher's steps were shown: the own ones stay. */
        DONE,
        OUTDATED
    }

    /**
     * How far a reviewer has come.
     *
     * @param ready papers that are theirs to judge, in their order
     * @param done those for which they have seen the teacher's steps
     */
    public record Progress(List<Long> ready, Set<Long> done) {

        public Progress {
            ready = List.copyOf(ready);
            done = Set.copyOf(done);
        }

        /** Whether they may go on to papers of classmates. */
        public boolean isOver() {
            return done.containsAll(ready);
        }

        /** The first paper that is still to be judged; empty once it is over. */
        public OptionalLong next() {
            return ready.stream()
                    .filter(id -> !done.contains(id))
                    .mapToLong(Long::longValue)
                    .findFirst();
        }

        public int finished() {
            return (int) ready.stream().filter(done::contains).count();
        }
    }

    /**
     * Where the steps of many lie beside the teacher's on one criterion.
     *
     * @param criterion by its name
     */
    public record Near(String criterion, int lower, int same, int higher) {}

    private WarmUp() {}

    /** @throws Refusal if a paper has no title, or it or its text is too long */
    public static void requireText(String title, String html) {
        if (title.isBlank()) throw new Refusal("title", "title-missing", "Give the paper a title.");
        if (title.strip().length() > LONGEST_TITLE)
            throw new Refusal("title", "title-too-long", "A title has at most 300 characters.");
        if (html.length() > LONGEST_TEXT)
            throw new Refusal("html", "text-too-long", "This text is too long for a paper to warm up on.");
    }

    /**
     * @param plain the text without its marks
     * @throws Refusal if there is nothing to judge
     */
    public static void requireSaid(String plain) {
        if (plain.isBlank()) throw new Refusal("html", "text-missing", "A paper needs some text to judge.");
    }

    /**
     * Whether reviewers get a paper: once its teacher has chosen a step on all that they judge.
     *
     * @param isThere whether there is a text: the author of a post may not have given it, or taken it back
     */
    public static boolean isReady(Rubric asked, Marks teacher, boolean isThere) {
        return isThere && teacher.isWhole(asked);
    }

    /**
     * Whether a paper that is ready is for a reviewer: nobody judges an own text without a name.
     *
     * @param author of a post that is the paper; null if a teacher wrote it
     */
    public static boolean isFor(long reviewer, @Nullable Long author) {
        return author == null || author != reviewer;
    }

    public static Answer give(boolean isDone, boolean isAsSeen) {
        if (isDone) return Answer.DONE;
        return isAsSeen ? Answer.ALLOWED : Answer.OUTDATED;
    }

    /** @throws Refusal if a reviewer wants to see the teacher's steps before all own ones are chosen */
    public static void requireWhole(Rubric asked, Marks own) {
        if (!own.isWhole(asked)) throw new Refusal("marks", "steps-missing", "Choose a step on every stair first.");
    }

    /** How a class judged a paper, by criterion in the order of the rubric. */
    public static List<Near> near(Rubric asked, Marks teacher, List<Marks> readers) {
        List<List<Apart>> apart =
                readers.stream().map(own -> Apart.of(asked, own, teacher)).toList();
        return asked.criteria().stream()
                .map(c -> {
                    List<Integer> steps = apart.stream()
                            .flatMap(List::stream)
                            .filter(a -> a.criterion().equals(c.id()))
                            .map(Apart::steps)
                            .toList();
                    return new Near(
                            c.name(),
                            (int) steps.stream().filter(s -> s < 0).count(),
                            (int) steps.stream().filter(s -> s == 0).count(),
                            (int) steps.stream().filter(s -> s > 0).count());
                })
                .toList();
    }
}

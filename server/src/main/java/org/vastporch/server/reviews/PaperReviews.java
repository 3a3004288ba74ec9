package org.vastporch.server.reviews;

import java.time.Clock;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.marking.Marks;
import org.vastporch.core.prompts.Prompt;
import org.vastporch.core.reviews.ReviewKind;
import org.vastporch.core.rubrics.Rubric;

/**
 * Readings of papers by the steps of their prompts, besides the one whose marks count. Whoever asks has seen to the
 * right to do so.
 */
@Service
public class PaperReviews {

    /** A post in the version that was read. */
    public record Read(long post, int version) {}

    /**
     * One person's reading of one paper.
     *
     * @param id 0 while nothing of it is kept
     * @param studentId whose paper it is
     * @param finishedAt since when all criteria have points; null while some have none
     * @param isBlind whether a second reading is done without seeing the first marks
     * @param settled what counts in the end, where a teacher has said so; null before
     * @param rev raised by each step; 0 before the first
     */
    public record Review(
            long id,
            long promptId,
            long studentId,
            long readerId,
            ReviewKind kind,
            String word,
            @Nullable Instant updatedAt,
            @Nullable Instant finishedAt,
            boolean isBlind,
            @Nullable Settled settled,
            int rev) {

        public boolean isFinished() {
            return finishedAt != null;
        }
    }

    /**
     * What counts where two readings lay apart.
     *
     * @param takesSecond whether the second reading counts, else the first does
     * @param reason for those who mark
     */
    public record Settled(@Nullable Long byId, Instant at, boolean takesSecond, String reason) {}

    /** A reading with what it gives for criteria of the rubric as it is now. */
    public record Reading(Review review, Marks marks) {}

    /** Whose paper for which prompt. */
    public record Paper(long promptId, long studentId) {}

    private final ReviewStore store;
    private final Clock clock;

    PaperReviews(ReviewStore store, Clock clock) {
        this.store = store;
        this.clock = clock;
    }

    /**
     * The readings of one kind for prompts, by paper, the one that was begun first comes first; those by classmates as
     * far as they count.
     */
    public Map<Paper, List<Reading>> of(Collection<Prompt> prompts, ReviewKind kind) {
        Map<Long, Prompt> byId = prompts.stream().collect(Collectors.toMap(Prompt::id, Function.identity()));
        Map<Long, List<Marks.Mark>> given = store.given(byId.keySet(), kind).stream()
                .collect(Collectors.groupingBy(
                        ReviewStore.Given::reviewId, Collectors.mapping(ReviewStore.Given::mark, Collectors.toList())));
        return store.of(byId.keySet(), kind).stream()
                .map(review -> new Reading(
                        review,
                        marks(byId.get(review.promptId()).rubric(), given.getOrDefault(review.id(), List.of()))))
                .collect(Collectors.groupingBy(
                        r -> new Paper(r.review().promptId(), r.review().studentId())));
    }

    /** The reading as it stands, its row locked until the transaction ends; an empty one while nothing is kept. */
    @Transactional
    public Reading lock(Prompt prompt, long studentId, long readerId, ReviewKind kind) {
        store.lock(prompt.id(), studentId, readerId, kind);
        return find(prompt, studentId, readerId, kind);
    }

    /** The reading as it stands; an empty one while nothing is kept. */
    public Reading find(Prompt prompt, long studentId, long readerId, ReviewKind kind) {
        Review review = store.find(prompt.id(), studentId, readerId, kind)
                .orElse(new Review(0, prompt.id(), studentId, readerId, kind, "", null, null, false, null, 0));
        List<Marks.Mark> given =
                store.given(review.id()).stream().map(ReviewStore.Given::mark).toList();
        return new Reading(review, marks(prompt.rubric(), given));
    }

    /**
     * Keeps a reading whose row is locked.
     *
     * @param before as it stood
     * @param marks as they are now
     * @param read what was read
     */
    @Transactional
    public Reading keep(Prompt prompt, Reading before, Marks marks, String word, List<Read> read) {
        Review was = before.review();
        Instant now = clock.instant();
        long id = was.id() != 0 ? was.id() : store.begin(prompt.id(), was.studentId(), was.readerId(), was.kind(), now);
        for (Marks.Mark mark : marks.given().values())
            if (!mark.equals(before.marks().of(mark.criterion()).orElse(null))) store.setMark(id, mark);
        Instant finished = !marks.isWhole(prompt.rubric()) ? null : was.isFinished() ? was.finishedAt() : now;
        store.touch(id, word, finished, now);
        store.setRead(id, read);
        return new Reading(
                new Review(
                        id,
                        prompt.id(),
                        was.studentId(),
                        was.readerId(),
                        was.kind(),
                        word,
                        now,
                        finished,
                        was.isBlind(),
                        was.settled(),
                        was.rev() + 1),
                marks);
    }

    /**
     * Asks somebody for a second reading of a paper.
     *
     * @return false if they were asked before
     */
    @Transactional
    public boolean ask(long by, Prompt prompt, long studentId, long readerId, boolean blind) {
        if (store.find(prompt.id(), studentId, readerId, ReviewKind.SECOND).isPresent()) return false;
        long id = store.begin(prompt.id(), studentId, readerId, ReviewKind.SECOND, clock.instant());
        store.setAsked(id, by, blind);
        return true;
    }

    /** Takes back what was asked of somebody; false if they have begun. */
    @Transactional
    public boolean takeBack(Review review) {
        return store.removeUnbegun(review.id());
    }

    /** Keeps what counts of two readings. */
    @Transactional
    public void settle(Review second, long by, boolean takesSecond, String reason) {
        store.settle(second.id(), new Settled(by, clock.instant(), takesSecond, reason));
    }

    /** Keeps marks as they were before others count in place of them, if none are kept. */
    @Transactional
    public void keepFirst(Prompt prompt, long studentId, long markerId, Marks marks, String word, List<Read> read) {
        boolean isKept = of(List.of(prompt), ReviewKind.FIRST).containsKey(new Paper(prompt.id(), studentId));
        if (isKept) return;
        keep(prompt, lock(prompt, studentId, markerId, ReviewKind.FIRST), marks, word, read);
    }

    /** What readings of one kind give, whether they count or not, by the numbers of the readings. */
    public Map<Long, Marks> marks(Collection<Long> promptIds, ReviewKind kind) {
        return store.given(promptIds, kind).stream()
                .collect(Collectors.groupingBy(
                        ReviewStore.Given::reviewId,
                        Collectors.collectingAndThen(
                                Collectors.mapping(ReviewStore.Given::mark, Collectors.toList()), Marks::of)));
    }

    /** The papers that somebody reads without the first marks, and has not finished. */
    public Set<Paper> blindOf(long readerId) {
        return Set.copyOf(store.blindOf(readerId));
    }

    /** The prompts for which somebody was asked to read papers a second time, and has not finished all. */
    public List<Long> askedOf(long readerId) {
        return store.askedOf(readerId);
    }

    private static Marks marks(@Nullable Rubric rubric, List<Marks.Mark> given) {
        if (rubric == null) return Marks.NONE;
        return Marks.of(given.stream()
                .filter(m -> rubric.find(m.criterion()).isPresent())
                .toList());
    }
}

package org.vastporch.core.peers;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.peers.GivingOut.Review;

/**
 * One prompt's round of peer review: who takes part, who reads whom, and what becomes of that when somebody comes late,
 * leaves, or takes a paper back.
 *
 * @param participants those whose papers are there and up
 * @param students all students of the class at this moment
 * @param unreadable papers that a participant could not read
 * @param earlier who reviewed whom for other prompts of the class
 */
public record PeerRound(
        List<Participant> participants, Set<Long> students, Set<Review> unreadable, Set<Review> earlier) {

    /**
     * Somebody who reviews and is reviewed.
     *
     * @param group the group in the class; null for none
     * @param together who handed in the same paper, themselves among them
     */
    public record Participant(long id, @Nullable Long group, List<Long> together) {
        public Participant {
            together = together.stream().sorted().toList();
        }
    }

    /**
     * A review that stands.
     *
     * @param isBegun whether its reader has given anything yet
     */
    public record Given(long id, long reviewer, long author, boolean isBegun, boolean isSent) {}

    /**
     * What changes in a round.
     *
     * @param ended reviews that are taken from their readers
     * @param begun reviews that are given out
     */
    public record Change(List<Long> ended, List<Review> begun) {}

    public PeerRound {
        participants = participants.stream()
                .sorted(Comparator.comparingLong(Participant::id))
                .toList();
    }

    /**
     * A plan for giving papers out.
     *
     * @param each how many each reads
     * @param kept what was chosen by hand and stays
     * @param seed the same one makes the same plan
     */
    public GivingOut.Plan plan(int each, Set<Review> kept, long seed) {
        return GivingOut.of(
                new GivingOut.Wish(
                        participants.stream()
                                .map(p -> new GivingOut.Author(p.id(), p.group()))
                                .toList(),
                        each,
                        barred(),
                        earlier,
                        kept),
                seed);
    }

    /** Whether a paper may be given to somebody at all. */
    public boolean allows(Review review) {
        Participant author = find(review.author()).orElse(null);
        return author != null
                && find(review.reviewer()).isPresent()
                && !author.together().contains(review.reviewer())
                && !unreadable.contains(review);
    }

    /**
     * Whether reviews can be given out as they are: each may be, and nobody reads one paper twice. A paper of several
     * counts as one, whichever of them it is named by.
     */
    public boolean allows(List<Review> reviews) {
        Set<List<Long>> there = new HashSet<>();
        for (Review review : reviews) {
            if (!allows(review)) return false;
            long paper = find(review.author()).orElseThrow().together().get(0);
            if (!there.add(List.of(review.reviewer(), paper))) return false;
        }
        return true;
    }

    /**
     * What nobody can be given: a paper of one's own, one that one cannot read. A paper of several is given to each
     * reader by one of its authors, so that nobody gets it twice.
     */
    private Set<Review> barred() {
        Set<Review> barred = new HashSet<>(unreadable);
        for (int i = 0; i < participants.size(); i++)
            for (Participant author : participants) {
                Participant reviewer = participants.get(i);
                List<Long> together = author.together();
                boolean isOther = together.get(i % together.size()) != author.id();
                if (isOther || together.contains(reviewer.id())) barred.add(new Review(reviewer.id(), author.id()));
            }
        return barred;
    }

    /**
     * Fits in who came late and replaces who left; what stands with the others stays as it is. What somebody has begun
     * stays theirs while its paper is away: it may come back.
     *
     * @param standing what was given out, and is not ended
     * @param taken what somebody took from its reader by hand: they do not get that again, nor another in place of it
     */
    public Change fitted(int each, List<Given> standing, Set<Review> taken, long seed) {
        List<Long> ended = standing.stream()
                .filter(g -> !g.isSent() && !canGoOn(g))
                .map(Given::id)
                .toList();
        Set<Review> kept = standing.stream()
                .filter(g -> !ended.contains(g.id()))
                .map(PeerRound::review)
                .collect(Collectors.toCollection(LinkedHashSet::new));
        // Who left has no part in a plan; what they read before counts for its author all the same.
        Map<Long, Integer> done = new HashMap<>();
        for (Review review : kept) if (find(review.reviewer()).isEmpty()) done.merge(review.author(), 1, Integer::sum);
        Map<Long, Integer> relieved = new HashMap<>();
        for (Review review : taken) relieved.merge(review.reviewer(), 1, Integer::sum);
        Map<Long, Integer> readers = new HashMap<>();
        for (Review review : kept) readers.merge(review.author(), 1, Integer::sum);
        List<Review> begun = new ArrayList<>();
        for (Review review : without(taken).plan(each, kept, seed).reviews()) {
            if (kept.contains(review) || isReadBy(review, kept)) continue;
            boolean isNeeded = readers.getOrDefault(review.author(), 0) < each;
            if (isCounted(done, review.author()) || !isNeeded && isCounted(relieved, review.reviewer())) continue;
            begun.add(review);
            readers.merge(review.author(), 1, Integer::sum);
        }
        return new Change(ended, begun);
    }

    /** Takes one off a number, if it is above 0. */
    private static boolean isCounted(Map<Long, Integer> numbers, long of) {
        int left = numbers.getOrDefault(of, 0);
        if (left > 0) numbers.put(of, left - 1);
        return left > 0;
    }

    private PeerRound without(Set<Review> taken) {
        Set<Review> never = new HashSet<>(unreadable);
        never.addAll(taken);
        return new PeerRound(participants, students, never, earlier);
    }

    private boolean canGoOn(Given given) {
        boolean isThere = find(given.author()).isPresent() && !unreadable.contains(review(given));
        return students.contains(given.reviewer()) && (isThere || given.isBegun());
    }

    /** Whether its reader has the same paper already, by another of its authors. */
    private boolean isReadBy(Review review, Set<Review> kept) {
        return find(review.author()).orElseThrow().together().stream()
                .anyMatch(author -> kept.contains(new Review(review.reviewer(), author)));
    }

    /**
     * Who has time for a review that somebody else has not given: those who have sent all of theirs come first, then
     * who has fewest; a group-mate of its author only if there is nobody else.
     */
    public Optional<Long> whoHasTime(List<Given> standing, Given missing) {
        Set<Review> given = standing.stream().map(PeerRound::review).collect(Collectors.toSet());
        Long group = find(missing.author()).map(Participant::group).orElse(null);
        return participants.stream()
                .filter(p -> p.id() != missing.reviewer())
                .filter(p -> allows(new Review(p.id(), missing.author())))
                .filter(p -> !isReadBy(new Review(p.id(), missing.author()), given))
                .min(Comparator.comparing((Participant p) -> group != null && group.equals(p.group()))
                        .thenComparing(p -> open(standing, p.id()) > 0)
                        .thenComparing(p -> standing.stream()
                                .filter(g -> g.reviewer() == p.id())
                                .count())
                        .thenComparing(Participant::id))
                .map(Participant::id);
    }

    private static long open(List<Given> standing, long reviewer) {
        return standing.stream()
                .filter(g -> g.reviewer() == reviewer && !g.isSent())
                .count();
    }

    private Optional<Participant> find(long id) {
        return participants.stream().filter(p -> p.id() == id).findFirst();
    }

    private static Review review(Given given) {
        return new Review(given.reviewer(), given.author());
    }
}

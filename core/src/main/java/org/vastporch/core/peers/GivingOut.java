package org.vastporch.core.peers;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.SplittableRandom;
import org.jspecify.annotations.Nullable;

/**
 * Gives out papers for review: each author so many of others, each paper so many reviewers. Group-mates are avoided
 * first, then whom one has reviewed before, then that two review each other.
 */
public final class GivingOut {

    /**
     * Somebody who wrote a paper and reviews others'.
     *
     * @param group null for none
     */
    public record Author(long id, @Nullable Long group) {}

    /** One review: who gives it, and whose paper it is about. */
    public record Review(long reviewer, long author) {}

    /**
     * What is wanted.
     *
     * @param each how many reviews each gives and each paper gets, at least 1
     * @param barred what must never be given out: a paper that its reviewer may not read
     * @param earlier who has reviewed whom before
     * @param kept what stands already and stays: chosen by hand, or given out before somebody came or left
     */
    public record Wish(List<Author> authors, int each, Set<Review> barred, Set<Review> earlier, Set<Review> kept) {}

    /** A plan, and how often a wish had to give way in what was given out anew. */
    public record Plan(List<Review> reviews, GaveWay gaveWay) {}

    /**
     * @param each by how many reviews all get fewer, since there are too few papers
     * @param papers how many reviews papers have too few, for what is barred
     * @param more how many reviews somebody gives beyond their number, so that no paper is left out
     * @param group reviews of group-mates
     * @param repeated reviews by somebody who has reviewed that author before
     * @param mutual pairs who review each other
     */
    public record GaveWay(int each, int papers, int more, int group, int repeated, int mutual) {}

    private static final int TRIES = 400;
    private static final int PASSES = 6;
    private static final int SMALL = 40;
    private static final int BEGINNINGS = 60;

    private final List<Author> authors;
    private final int each;
    private final SplittableRandom random;
    private final Map<Long, Integer> indexOf = new HashMap<>();
    private final List<Set<Integer>> given = new ArrayList<>();
    private final Set<Long> barred;
    private final Set<Long> earlier;
    private final Set<Long> kept;
    private final int dear;

    private GivingOut(Wish wish, long seed) {
        authors = wish.authors().stream()
                .sorted(Comparator.comparingLong(Author::id))
                .toList();
        for (Author author : authors) indexOf.put(author.id(), indexOf.size());
        each = Math.min(wish.each(), Math.max(0, authors.size() - 1));
        random = new SplittableRandom(seed);
        barred = keys(wish.barred());
        earlier = keys(wish.earlier());
        kept = keys(wish.kept());
        // One group-mate weighs more than any number of repeats.
        dear = authors.size() * Math.max(1, each) + 1;
        for (int i = 0; i < authors.size(); i++) given.add(new HashSet<>());
        for (long key : kept) given.get((int) (key / authors.size())).add((int) (key % authors.size()));
    }

    /**
     * Makes a plan; with what is kept it is completed, and nobody's stays changed.
     *
     * @param wish whose kept reviews may name people who are no authors any more: these are left out
     */
    public static Plan of(Wish wish, long seed) {
        if (wish.each() < 1) throw new IllegalArgumentException("At least one review each: " + wish.each());
        int n = wish.authors().size();
        // So many mutual pairs there must be; in a small class another beginning may come nearer to that.
        int fewest = Math.max(0, n * Math.min(wish.each(), n - 1) - n * (n - 1) / 2);
        Plan best = null;
        for (int begun = 0; begun < (n <= SMALL ? BEGINNINGS : 1); begun++) {
            Plan plan = new GivingOut(wish, seed + begun * 0x9E3779B97F4A7C15L).plan(wish.each());
            if (best == null || plan.gaveWay().mutual() < best.gaveWay().mutual()) best = plan;
            if (best.gaveWay().mutual() <= fewest) break;
        }
        return best;
    }

    private Set<Long> keys(Set<Review> reviews) {
        Set<Long> keys = new HashSet<>();
        for (Review r : reviews) {
            Integer reviewer = indexOf.get(r.reviewer());
            Integer author = indexOf.get(r.author());
            if (reviewer != null && author != null && !reviewer.equals(author)) keys.add(key(reviewer, author));
        }
        return keys;
    }

    private long key(int reviewer, int author) {
        return (long) reviewer * authors.size() + author;
    }

    private int cost(int reviewer, int author) {
        if (reviewer == author || barred.contains(key(reviewer, author)) || kept.contains(key(reviewer, author)))
            return -1;
        return (isMate(reviewer, author) ? dear : 0) + (earlier.contains(key(reviewer, author)) ? 1 : 0);
    }

    private boolean isMate(int one, int other) {
        Long group = authors.get(one).group();
        return group != null && Objects.equals(group, authors.get(other).group());
    }

    private void giveOut() {
        int n = authors.size();
        int[] room = new int[n];
        int[] need = new int[n];
        for (int i = 0; i < n; i++) {
            room[i] = Math.max(0, each - given.get(i).size());
            need[i] = each;
        }
        for (Set<Integer> papers : given) for (int paper : papers) need[paper] = Math.max(0, need[paper] - 1);
        Flow flow = new Flow(room, need, this::cost, random);
        for (int i = 0; i < n; i++) given.get(i).addAll(flow.given().get(i));
    }

    /** Two who review each other change papers with two others, as long as nothing else gives way for it. */
    private void partMutual() {
        for (int pass = 0; pass < PASSES; pass++) {
            List<int[]> edges = new ArrayList<>();
            for (int r = 0; r < given.size(); r++)
                for (int p : given.get(r)) if (!kept.contains(key(r, p))) edges.add(new int[] {r, p});
            boolean changed = false;
            for (int[] edge : edges) {
                if (!isMutual(edge[0], edge[1])) continue;
                for (int i = 0; i < TRIES && isMutual(edge[0], edge[1]); i++)
                    changed |= exchanged(edge, edges.get(random.nextInt(edges.size())));
            }
            if (!changed) return;
        }
    }

    private boolean isMutual(int reviewer, int paper) {
        return given.get(reviewer).contains(paper) && given.get(paper).contains(reviewer);
    }

    private boolean exchanged(int[] one, int[] other) {
        int a = one[0];
        int p = one[1];
        int b = other[0];
        int q = other[1];
        if (a == b || p == q || given.get(a).contains(q) || given.get(b).contains(p)) return false;
        int first = cost(a, q);
        int second = cost(b, p);
        if (first < 0 || second < 0 || first + second > cost(a, p) + cost(b, q)) return false;
        if (mutualOf(a, q) + mutualOf(b, p) >= mutualOf(a, p) + mutualOf(b, q)) return false;
        given.get(a).remove(p);
        given.get(b).remove(q);
        given.get(a).add(q);
        given.get(b).add(p);
        one[1] = q;
        other[1] = p;
        return true;
    }

    /** Whether a review of one by the other would be, or is, answered by one the other way. */
    private int mutualOf(int reviewer, int paper) {
        return given.get(paper).contains(reviewer) ? 1 : 0;
    }

    /**
     * Papers that still lack reviewers get those who have fewest; who lacks papers gets those with fewest reviewers.
     */
    private int giveBeyond() {
        int n = authors.size();
        int more = 0;
        int[] readers = new int[n];
        for (Set<Integer> papers : given) for (int paper : papers) readers[paper]++;
        for (int paper : Flow.shuffled(n, random))
            while (readers[paper] < each) {
                int reviewer = least(paper, true, readers);
                if (reviewer < 0) break;
                if (given.get(reviewer).size() >= each) more++;
                given.get(reviewer).add(paper);
                readers[paper]++;
            }
        for (int reviewer : Flow.shuffled(n, random))
            while (given.get(reviewer).size() < each) {
                int paper = least(reviewer, false, readers);
                if (paper < 0) break;
                given.get(reviewer).add(paper);
                readers[paper]++;
            }
        return more;
    }

    /**
     * For a paper the reviewer with the fewest papers, for a reviewer the paper with the fewest readers; -1 for none.
     */
    private int least(int of, boolean isPaper, int[] readers) {
        int best = -1;
        long bestBy = Long.MAX_VALUE;
        for (int i : Flow.shuffled(authors.size(), random)) {
            int reviewer = isPaper ? i : of;
            int paper = isPaper ? of : i;
            int cost = cost(reviewer, paper);
            if (cost < 0 || given.get(reviewer).contains(paper)) continue;
            long by = (isPaper ? given.get(i).size() : readers[i]) * 2L * dear + cost;
            if (by < bestBy) {
                bestBy = by;
                best = i;
            }
        }
        return best;
    }

    private Plan plan(int wanted) {
        giveOut();
        partMutual();
        int more = giveBeyond();
        List<Review> reviews = new ArrayList<>();
        int group = 0;
        int repeated = 0;
        int mutual = 0;
        int[] readers = new int[authors.size()];
        for (int r = 0; r < given.size(); r++)
            for (int p : given.get(r).stream().sorted().toList()) {
                reviews.add(new Review(authors.get(r).id(), authors.get(p).id()));
                readers[p]++;
                if (r < p && given.get(p).contains(r)) mutual++;
                if (kept.contains(key(r, p))) continue;
                if (isMate(r, p)) group++;
                if (earlier.contains(key(r, p))) repeated++;
            }
        int papers = 0;
        for (int had : readers) papers += Math.max(0, each - had);
        return new Plan(reviews, new GaveWay(wanted - each, papers, more, group, repeated, mutual));
    }
}

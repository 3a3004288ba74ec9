package org.vastporch.core.peers;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.SplittableRandom;

/**
 * Reviews between reviewers and papers that have room for some each: as many as there can be, and of those the ones
 * that cost least in all. First as many as possible that cost nothing, along augmenting paths; then the rest one by one
 * along the cheapest path, which keeps the sum the least there is (successive shortest paths, Ahuja, Magnanti and
 * Orlin, "Network Flows", 1993, chapter 9.7).
 */
final class Flow {

    /** Up to so many every pair is looked at; of more, some for each reviewer, drawn by the seed. */
    private static final int WHOLE = 300;

    private static final int DRAWN = 24;

    /** What a review of a paper costs. */
    interface Cost {
        /** @return below 0 if the reviewer must not get the paper */
        int of(int reviewer, int paper);
    }

    private final int n;
    private final Cost cost;
    private final int[] room;
    private final int[] need;
    private final List<List<Integer>> given = new ArrayList<>();
    private final List<List<Integer>> readers = new ArrayList<>();
    private int[][] near;

    /**
     * @param room how many more papers each reviewer gets
     * @param need how many more reviewers each paper gets
     */
    Flow(int[] room, int[] need, Cost cost, SplittableRandom random) {
        n = room.length;
        this.room = room.clone();
        this.need = need.clone();
        this.cost = cost;
        for (int i = 0; i < n; i++) {
            given.add(new ArrayList<>());
            readers.add(new ArrayList<>());
        }
        near = drawn(random);
        for (int round = Arrays.stream(room).max().orElse(0); round > 0; round--)
            for (int reviewer : shuffled(n, random)) if (this.room[reviewer] > 0) giveNext(reviewer);
        boolean[] tried = new boolean[n];
        for (int reviewer = 0; reviewer < n; reviewer++)
            while (this.room[reviewer] > 0) {
                Arrays.fill(tried, false);
                if (!augment(reviewer, tried)) break;
                this.room[reviewer]--;
            }
        near = n <= WHOLE ? near : drawn(random);
        while (cheapest()) {}
    }

    /** The papers of each reviewer. */
    List<List<Integer>> given() {
        return given;
    }

    private int[][] drawn(SplittableRandom random) {
        int[][] all = new int[n][];
        for (int reviewer = 0; reviewer < n; reviewer++) {
            int[] order = n <= WHOLE ? shuffled(n, random) : some(random);
            int of = reviewer;
            all[reviewer] =
                    Arrays.stream(order).filter(p -> cost.of(of, p) >= 0).toArray();
        }
        return all;
    }

    private int[] some(SplittableRandom random) {
        return random.ints(DRAWN * 4L, 0, n).distinct().toArray();
    }

    static int[] shuffled(int n, SplittableRandom random) {
        int[] order = new int[n];
        for (int i = 0; i < n; i++) {
            int at = random.nextInt(i + 1);
            order[i] = order[at];
            order[at] = i;
        }
        return order;
    }

    private void giveNext(int reviewer) {
        for (int paper : near[reviewer])
            if (need[paper] > 0
                    && cost.of(reviewer, paper) == 0
                    && !given.get(reviewer).contains(paper)) {
                give(reviewer, paper);
                room[reviewer]--;
                need[paper]--;
                return;
            }
    }

    private void give(int reviewer, int paper) {
        given.get(reviewer).add(paper);
        readers.get(paper).add(reviewer);
    }

    private void take(int reviewer, int paper) {
        given.get(reviewer).remove((Integer) paper);
        readers.get(paper).remove((Integer) reviewer);
    }

    /** One more paper for a reviewer that costs nothing, if others can change theirs for that. */
    private boolean augment(int reviewer, boolean[] tried) {
        for (int paper : near[reviewer]) {
            if (tried[paper]
                    || cost.of(reviewer, paper) != 0
                    || given.get(reviewer).contains(paper)) continue;
            tried[paper] = true;
            if (need[paper] > 0) {
                need[paper]--;
                give(reviewer, paper);
                return true;
            }
            for (int other : List.copyOf(readers.get(paper)))
                if (augment(other, tried)) {
                    take(other, paper);
                    give(reviewer, paper);
                    return true;
                }
        }
        return false;
    }

    /** One more review by the cheapest way of changing others; false if there is none. */
    private boolean cheapest() {
        long[] toReviewer = new long[n];
        long[] toPaper = new long[n];
        int[] cameBy = new int[n];
        int[] leftPaper = new int[n];
        Arrays.fill(toReviewer, Long.MAX_VALUE);
        Arrays.fill(toPaper, Long.MAX_VALUE);
        Arrays.fill(leftPaper, -1);
        ArrayDeque<Integer> queue = new ArrayDeque<>();
        boolean[] queued = new boolean[n];
        for (int r = 0; r < n; r++)
            if (room[r] > 0) {
                toReviewer[r] = 0;
                queue.add(r);
                queued[r] = true;
            }
        while (!queue.isEmpty()) {
            int reviewer = queue.poll();
            queued[reviewer] = false;
            for (int paper : near[reviewer]) {
                if (given.get(reviewer).contains(paper)) continue;
                long by = toReviewer[reviewer] + cost.of(reviewer, paper);
                if (by >= toPaper[paper]) continue;
                toPaper[paper] = by;
                cameBy[paper] = reviewer;
                for (int other : readers.get(paper)) {
                    long back = by - cost.of(other, paper);
                    if (back >= toReviewer[other]) continue;
                    toReviewer[other] = back;
                    leftPaper[other] = paper;
                    if (!queued[other]) {
                        queue.add(other);
                        queued[other] = true;
                    }
                }
            }
        }
        int best = -1;
        for (int paper = 0; paper < n; paper++)
            if (need[paper] > 0 && toPaper[paper] < Long.MAX_VALUE && (best < 0 || toPaper[paper] < toPaper[best]))
                best = paper;
        if (best < 0) return false;
        need[best]--;
        int paper = best;
        while (true) {
            int reviewer = cameBy[paper];
            int left = leftPaper[reviewer];
            give(reviewer, paper);
            if (left < 0) {
                room[reviewer]--;
                return true;
            }
            take(reviewer, left);
            paper = left;
        }
    }
}

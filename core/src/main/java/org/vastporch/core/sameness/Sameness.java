package org.vastporch.core.sameness;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Finds the texts that share passages. Every run of five words of every text is put into one sorted list; texts meet in
 * it where they share a run, so that a short copy in a long text is found as surely as a whole one, and texts that
 * share nothing never meet: no estimate is needed. Runs that more than a third of the texts share (a poem that all
 * quote) lead to no pair; they are common, like those that more than a hundred share.
 */
public final class Sameness {

    /** So many words in a row are compared. */
    public static final int RUN = 5;

    /** A pair shares at least one passage of so many words, or as many runs as such a one has. */
    private static final int FEWEST_WORDS = 8;

    private static final int FEWEST_RUNS = FEWEST_WORDS - RUN + 1;
    private static final double COMMON = 1.0 / 3;
    private static final int FEWEST_COMMON = 6;
    /** Of so many texts all pairs of one run are counted; more would cost their square. */
    private static final int MOST_SHARING = 100;
    /** Of a run that one text says again and again so many places are compared. */
    private static final int MOST_PLACES = 20;
    /** So many words are compared for one pair; only texts that repeat themselves without end need more. */
    private static final int MOST_LOOKED = 2_000_000;
    /** The lower bits of a key hold the number of a text, the others the run. */
    private static final int TEXT_BITS = 20;

    /** No run. */
    private static final long NONE = 0;

    private static final long TEXT_MASK = (1L << TEXT_BITS) - 1;

    /**
     * Two texts that share something.
     *
     * @param sharedWords how many words of the first stand in passages of both
     * @param jaccard the share of their runs that both have, 0 to 1
     * @param containment the share of the runs of the one with fewer that the other has too, 0 to 1
     * @param passages the longest first; in neither text do two overlap
     */
    public record Pair(
            long first, long second, int sharedWords, double jaccard, double containment, List<Passage> passages) {}

    /**
     * @param commonRuns how many runs of words more than a third of the texts share
     * @param common where they stand, text by text
     */
    public record Found(List<Pair> pairs, int commonRuns, List<Common> common) {}

    private final List<Answer> texts;
    private final List<Words> words = new ArrayList<>();
    private final List<long[]> runs = new ArrayList<>();
    private final List<long[]> runsInOrder = new ArrayList<>();
    private final Set<Long> leftOut = new HashSet<>();

    private Sameness(List<Answer> texts, List<String> leftOut) {
        this.texts = texts.stream().sorted(Comparator.comparingLong(Answer::id)).toList();
        if (texts.size() > TEXT_MASK) throw new IllegalArgumentException("Too many texts: " + texts.size());
        for (String text : leftOut) for (long run : runsOf(Words.of(text), List.of())) this.leftOut.add(run);
        for (Answer text : this.texts) {
            Words of = Words.of(text.plain());
            words.add(of);
            long[] inOrder = runsOf(of, text.quoted());
            runsInOrder.add(inOrder);
            runs.add(Arrays.stream(inOrder)
                    .filter(r -> r != NONE && !this.leftOut.contains(r))
                    .sorted()
                    .distinct()
                    .toArray());
        }
    }

    /**
     * Compares all texts with each other, those with the most shared words first.
     *
     * @param leftOut what all may share without its being counted: a starter text, works that were used
     */
    public static Found among(List<Answer> texts, List<String> leftOut) {
        return new Sameness(texts, leftOut).found();
    }

    /**
     * Whether what two texts share is told of a prompt: one of them answers it, and what one paper says twice is
     * nobody's business.
     *
     * @param first the prompt that the first answers, {@code second} that of the other one
     * @param oneHand whether both are of one paper: by one author, or by some who hand in together
     */
    public static boolean isTold(long prompt, long first, long second, boolean oneHand) {
        boolean isOfBoth = first == prompt && second == prompt;
        return isOfBoth ? !oneHand : first == prompt || second == prompt;
    }

    private Found found() {
        long[] keys = new long[runs.stream().mapToInt(r -> r.length).sum()];
        int filled = 0;
        for (int text = 0; text < runs.size(); text++)
            for (long run : runs.get(text)) keys[filled++] = run & ~TEXT_MASK | text;
        Arrays.sort(keys);
        Map<Long, Integer> shared = new HashMap<>();
        Map<Long, Integer> common = new HashMap<>();
        double most = Math.min(MOST_SHARING, Math.max(FEWEST_COMMON - 1, texts.size() * COMMON));
        for (int begin = 0; begin < keys.length; ) {
            int end = begin + 1;
            while (end < keys.length && (keys[end] & ~TEXT_MASK) == (keys[begin] & ~TEXT_MASK)) end++;
            if (end - begin > most) common.put(keys[begin] & ~TEXT_MASK, end - begin);
            else
                for (int i = begin; i < end; i++)
                    for (int j = i + 1; j < end; j++)
                        shared.merge((keys[i] & TEXT_MASK) << TEXT_BITS | keys[j] & TEXT_MASK, 1, Integer::sum);
            begin = end;
        }
        List<Pair> pairs = new ArrayList<>();
        shared.forEach((key, many) -> {
            if (many >= FEWEST_RUNS) pairs.add(pair((int) (key >> TEXT_BITS), (int) (key & TEXT_MASK), many, common));
        });
        pairs.removeIf(p -> p.passages().isEmpty());
        pairs.sort(Comparator.comparingInt(Pair::sharedWords)
                .reversed()
                .thenComparingLong(Pair::first)
                .thenComparingLong(Pair::second));
        return new Found(pairs, common.size(), stretches(common));
    }

    /** What is common, as many words of it as stand in a row. */
    private List<Common> stretches(Map<Long, Integer> common) {
        List<Common> stretches = new ArrayList<>();
        for (int text = 0; text < texts.size() && !common.isEmpty(); text++) {
            long[] inOrder = runsInOrder.get(text);
            Words of = words.get(text);
            for (int from = 0; from < inOrder.length; ) {
                int most = 0;
                int to = from;
                while (to < inOrder.length && isCommon(inOrder[to], common))
                    most = Math.max(most, common.get(inOrder[to++] & ~TEXT_MASK));
                if (to > from) {
                    int last = to + RUN - 2;
                    stretches.add(new Common(
                            texts.get(text).id(),
                            List.copyOf(of.folded().subList(from, last + 1)),
                            most,
                            of.places().get(from).start(),
                            of.places().get(last).end()));
                }
                from = to + 1;
            }
        }
        return stretches;
    }

    private boolean isCommon(long run, Map<Long, Integer> common) {
        return run != NONE && !leftOut.contains(run) && common.containsKey(run & ~TEXT_MASK);
    }

    private Pair pair(int first, int second, int many, Map<Long, Integer> common) {
        int one = counting(first, common);
        int other = counting(second, common);
        List<Passage> passages = passages(first, second, common);
        return new Pair(
                texts.get(first).id(),
                texts.get(second).id(),
                passages.stream().mapToInt(Passage::words).sum(),
                (double) many / (one + other - many),
                (double) many / Math.min(one, other),
                passages);
    }

    private int counting(int text, Map<Long, Integer> common) {
        return (int) Arrays.stream(runs.get(text))
                .filter(r -> !common.containsKey(r & ~TEXT_MASK))
                .count();
    }

    /** The longest runs of equal words, as long as no two overlap; what is left out or common begins none. */
    private List<Passage> passages(int first, int second, Map<Long, Integer> common) {
        Words one = words.get(first);
        Words other = words.get(second);
        long[] ofOne = runsInOrder.get(first);
        long[] ofOther = runsInOrder.get(second);
        Map<Long, List<Integer>> there = new HashMap<>();
        for (int j = 0; j < ofOther.length; j++)
            if (counts(ofOther[j], common)) {
                List<Integer> places = there.computeIfAbsent(ofOther[j], r -> new ArrayList<>());
                if (places.size() < MOST_PLACES) places.add(j);
            }
        record Run(int words, int i, int j) {}
        List<Run> all = new ArrayList<>();
        int looked = 0;
        for (int i = 0; i < ofOne.length && looked < MOST_LOOKED; i++) {
            if (!counts(ofOne[i], common)) continue;
            for (int j : there.getOrDefault(ofOne[i], List.of())) {
                boolean goesOn = i > 0 && j > 0 && ofOne[i - 1] == ofOther[j - 1] && counts(ofOne[i - 1], common);
                if (goesOn) continue;
                int more = 0;
                while (i + more + 1 < ofOne.length
                        && j + more + 1 < ofOther.length
                        && ofOne[i + more + 1] == ofOther[j + more + 1]
                        && counts(ofOne[i + more + 1], common)) more++;
                looked += more + 1;
                all.add(new Run(more + RUN, i, j));
            }
        }
        all.sort(Comparator.comparingInt(Run::words)
                .reversed()
                .thenComparingInt(Run::i)
                .thenComparingInt(Run::j));
        boolean[] taken = new boolean[one.size()];
        boolean[] takenThere = new boolean[other.size()];
        List<Passage> passages = new ArrayList<>();
        for (Run run : all) {
            int from = 0;
            int to = run.words();
            while (from < to && (taken[run.i() + from] || takenThere[run.j() + from])) from++;
            while (to > from && (taken[run.i() + to - 1] || takenThere[run.j() + to - 1])) to--;
            if (to - from < RUN
                    || isTaken(taken, run.i() + from, run.i() + to)
                    || isTaken(takenThere, run.j() + from, run.j() + to)) continue;
            Arrays.fill(taken, run.i() + from, run.i() + to, true);
            Arrays.fill(takenThere, run.j() + from, run.j() + to, true);
            passages.add(new Passage(
                    to - from,
                    one.places().get(run.i() + from).start(),
                    one.places().get(run.i() + to - 1).end(),
                    other.places().get(run.j() + from).start(),
                    other.places().get(run.j() + to - 1).end()));
        }
        passages.sort(Comparator.comparingInt(Passage::words).reversed().thenComparingInt(Passage::start));
        return passages;
    }

    private static boolean isTaken(boolean[] taken, int from, int to) {
        for (int i = from; i < to; i++) if (taken[i]) return true;
        return false;
    }

    private boolean counts(long run, Map<Long, Integer> common) {
        return run != NONE && !leftOut.contains(run) && !common.containsKey(run & ~TEXT_MASK);
    }

    /** A number for each run of words, in their order; equal runs have equal numbers, those in a quotation none. */
    private static long[] runsOf(Words of, List<Answer.Span> quoted) {
        int n = of.size() - RUN + 1;
        if (n <= 0) return new long[0];
        long[] each = of.folded().stream().mapToLong(Sameness::numberOf).toArray();
        long[] runs = new long[n];
        for (int i = 0; i < n; i++) {
            long run = 1;
            for (int k = 0; k < RUN; k++) run = mixed(run * 31 + each[i + k]);
            runs[i] = run == NONE ? 1 : run;
        }
        int last = of.places().get(of.size() - 1).end();
        BitSet signs = new BitSet(last);
        for (Answer.Span span : quoted) signs.set(span.start(), Math.max(span.start(), span.end()));
        for (int word = 0; word < of.size(); word++)
            if (signs.get(of.places().get(word).start()))
                for (int i = Math.max(0, word - RUN + 1); i <= Math.min(word, n - 1); i++) runs[i] = NONE;
        return runs;
    }

    private static long numberOf(String word) {
        long number = 7;
        for (int i = 0; i < word.length(); i++) number = number * 1_000_003 + word.charAt(i);
        return mixed(number);
    }

    /** Spreads the bits (finaliser of SplitMix64, Steele, Lea and Flood 2014). */
    private static long mixed(long z) {
        long y = (z ^ z >>> 30) * 0xbf58476d1ce4e5b9L;
        long x = (y ^ y >>> 27) * 0x94d049bb133111ebL;
        return x ^ x >>> 31;
    }
}

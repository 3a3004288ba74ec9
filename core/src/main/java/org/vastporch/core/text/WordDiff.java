package org.vastporch.core.text;

import com.github.difflib.DiffUtils;
import com.github.difflib.patch.AbstractDelta;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedList;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The difference of two plain texts by words, for people. */
public final class WordDiff {

    /** What became of a stretch of text. */
    public enum Change {
        SAME,
        ADDED,
        REMOVED
    }

    /**
     * A stretch of text. Those that are SAME or ADDED, joined, give the new text; those SAME or REMOVED the old one.
     */
    public record Stretch(Change change, String text) {}

    private static final int NARROW = 3;
    private static final Pattern TOKEN = Pattern.compile("[\\p{L}\\p{N}\\p{M}'’-]+|\\s+|.", Pattern.DOTALL);

    private WordDiff() {}

    /**
     * Compares two texts. The stretches follow each other as they are read. The work grows with the length of the texts
     * and not with its square: long ones are first parted at words that stand once in each, and what cannot be told
     * apart within bounds is one change.
     */
    public static List<Stretch> of(String before, String after) {
        return joined(new Comparison(tokens(before), tokens(after)).compare());
    }

    /** Two texts while they are compared. Ranges are half open. */
    private static final class Comparison {

        /**
         * Two ranges of n and m words are compared word by word at a cost of up to ((n + m) / 2)²: what one range, and
         * all of them, may cost.
         */
        private static final long MOST_OF_RANGE = 250_000;

        private static final long MOST = 6_000_000;
        private static final int DEEPEST = 12;

        private final List<String> old;
        private final List<String> now;
        private final List<Stretch> stretches = new ArrayList<>();
        private final StringBuilder open = new StringBuilder();
        private Change change = Change.SAME;
        private long left = MOST;

        Comparison(List<String> old, List<String> now) {
            this.old = old;
            this.now = now;
        }

        List<Stretch> compare() {
            compare(0, old.size(), 0, now.size(), 0);
            add(change == Change.SAME ? Change.ADDED : Change.SAME, List.of(""));
            return stretches;
        }

        private void add(Change of, List<String> tokens) {
            if (tokens.isEmpty()) return;
            if (of != change) {
                if (open.length() > 0) stretches.add(new Stretch(change, open.toString()));
                open.setLength(0);
                change = of;
            }
            tokens.forEach(open::append);
        }

        private void compare(int oldFrom, int oldTo, int nowFrom, int nowTo, int depth) {
            int head = 0;
            while (oldFrom + head < oldTo
                    && nowFrom + head < nowTo
                    && old.get(oldFrom + head).equals(now.get(nowFrom + head))) head++;
            int tail = 0;
            while (oldFrom + head < oldTo - tail
                    && nowFrom + head < nowTo - tail
                    && old.get(oldTo - 1 - tail).equals(now.get(nowTo - 1 - tail))) tail++;
            add(Change.SAME, old.subList(oldFrom, oldFrom + head));
            middle(oldFrom + head, oldTo - tail, nowFrom + head, nowTo - tail, depth);
            add(Change.SAME, old.subList(oldTo - tail, oldTo));
        }

        private void middle(int oldFrom, int oldTo, int nowFrom, int nowTo, int depth) {
            boolean both = oldFrom < oldTo && nowFrom < nowTo;
            long half = (oldTo - oldFrom + nowTo - nowFrom + 1L) / 2;
            if (both && half * half <= Math.min(left, MOST_OF_RANGE)) {
                left -= half * half;
                exactly(oldFrom, oldTo, nowFrom, nowTo);
                return;
            }
            List<int[]> anchors = !both || depth == DEEPEST ? List.of() : anchors(oldFrom, oldTo, nowFrom, nowTo);
            if (anchors.isEmpty()) {
                add(Change.REMOVED, old.subList(oldFrom, oldTo));
                add(Change.ADDED, now.subList(nowFrom, nowTo));
                return;
            }
            for (int[] anchor : anchors) {
                compare(oldFrom, anchor[0], nowFrom, anchor[1], depth + 1);
                add(Change.SAME, old.subList(anchor[0], anchor[0] + 1));
                oldFrom = anchor[0] + 1;
                nowFrom = anchor[1] + 1;
            }
            compare(oldFrom, oldTo, nowFrom, nowTo, depth + 1);
        }

        private void exactly(int oldFrom, int oldTo, int nowFrom, int nowTo) {
            List<String> source = old.subList(oldFrom, oldTo);
            int at = 0;
            for (AbstractDelta<String> delta :
                    DiffUtils.diff(source, now.subList(nowFrom, nowTo)).getDeltas()) {
                int start = delta.getSource().getPosition();
                add(Change.SAME, source.subList(at, start));
                add(Change.REMOVED, delta.getSource().getLines());
                add(Change.ADDED, delta.getTarget().getLines());
                at = start + delta.getSource().size();
            }
            add(Change.SAME, source.subList(at, source.size()));
        }

        /** Places of words that stand once in each of the ranges, as many as stand in the same order in both. */
        private List<int[]> anchors(int oldFrom, int oldTo, int nowFrom, int nowTo) {
            Map<String, Integer> once = new HashMap<>();
            for (int i = nowFrom; i < nowTo; i++) once.merge(now.get(i), i, (a, b) -> -1);
            Map<String, Integer> inOld = new HashMap<>();
            for (int i = oldFrom; i < oldTo; i++) inOld.merge(old.get(i), i, (a, b) -> -1);
            List<int[]> pairs = new ArrayList<>();
            for (int i = oldFrom; i < oldTo; i++)
                if (inOld.get(old.get(i)) == i && once.getOrDefault(old.get(i), -1) >= 0)
                    pairs.add(new int[] {i, once.get(old.get(i))});
            return inOrder(pairs);
        }

        /** The longest run of pairs whose second numbers rise, by piles of cards (patience sorting, in n log n). */
        private static List<int[]> inOrder(List<int[]> pairs) {
            List<Integer> tops = new ArrayList<>();
            int[] under = new int[pairs.size()];
            for (int i = 0; i < pairs.size(); i++) {
                int low = 0;
                int high = tops.size();
                while (low < high) {
                    int mid = (low + high) >>> 1;
                    if (pairs.get(tops.get(mid))[1] < pairs.get(i)[1]) low = mid + 1;
                    else high = mid;
                }
                under[i] = low == 0 ? -1 : tops.get(low - 1);
                if (low == tops.size()) tops.add(i);
                else tops.set(low, i);
            }
            LinkedList<int[]> run = new LinkedList<>();
            for (int i = tops.isEmpty() ? -1 : tops.get(tops.size() - 1); i >= 0; i = under[i])
                run.addFirst(pairs.get(i));
            return run;
        }
    }

    /**
     * Joins changes that only a few characters keep apart: people read a changed phrase, not a hail of changed words.
     */
    private static List<Stretch> joined(List<Stretch> stretches) {
        List<Stretch> joined = new ArrayList<>();
        StringBuilder removed = new StringBuilder();
        StringBuilder added = new StringBuilder();
        for (int i = 0; i < stretches.size(); i++) {
            Stretch s = stretches.get(i);
            boolean between = s.change() == Change.SAME
                    && removed.length() + added.length() > 0
                    && i + 1 < stretches.size()
                    && s.text().length() <= NARROW
                    && !s.text().contains("\n");
            if (s.change() != Change.ADDED && (s.change() == Change.REMOVED || between)) removed.append(s.text());
            if (s.change() != Change.REMOVED && (s.change() == Change.ADDED || between)) added.append(s.text());
            if (s.change() == Change.SAME && !between) {
                flush(joined, removed, added);
                joined.add(s);
            }
        }
        flush(joined, removed, added);
        return joined;
    }

    private static void flush(List<Stretch> joined, StringBuilder removed, StringBuilder added) {
        if (removed.length() > 0) joined.add(new Stretch(Change.REMOVED, removed.toString()));
        if (added.length() > 0) joined.add(new Stretch(Change.ADDED, added.toString()));
        removed.setLength(0);
        added.setLength(0);
    }

    private static List<String> tokens(String text) {
        List<String> tokens = new ArrayList<>();
        Matcher matcher = TOKEN.matcher(text);
        while (matcher.find()) tokens.add(matcher.group());
        return tokens;
    }
}

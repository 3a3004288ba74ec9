package org.vastporch.core.text;

import com.github.difflib.DiffUtils;
import com.github.difflib.patch.AbstractDelta;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The difference of two plain texts by words, for people. */
public final class WordDiff {

    /** What became of a stretch of text. */
    public enum Change { SAME, ADDED, REMOVED }

    /** A stretch of text. Those that are SAME or ADDED, joined, give the new text; those SAME or REMOVED the old one. */
    public record Stretch(Change change, String text) {}

    private static final int NARROW = 3;
    private static final int MOST_TOKENS = 12_000;
    private static final Pattern TOKEN = Pattern.compile("[\\p{L}\\p{N}\\p{M}'’-]+|\\s+|.", Pattern.DOTALL);

    private WordDiff() {}

    /** Compares two texts. The stretches follow each other as they are read. */
    public static List<Stretch> of(String before, String after) {
        List<String> old = tokens(before);
        List<String> now = tokens(after);
        int most = Math.min(old.size(), now.size());
        int head = 0;
        while (head < most && old.get(head).equals(now.get(head))) head++;
        int tail = 0;
        while (tail < most - head && old.get(old.size() - 1 - tail).equals(now.get(now.size() - 1 - tail))) tail++;
        if (old.size() + now.size() - 2 * (head + tail) > MOST_TOKENS) return replaced(old, now, head, tail);
        List<Stretch> stretches = new ArrayList<>();
        int at = 0;
        for (AbstractDelta<String> delta : DiffUtils.diff(old, now).getDeltas()) {
            int start = delta.getSource().getPosition();
            add(stretches, Change.SAME, old.subList(at, start));
            add(stretches, Change.REMOVED, delta.getSource().getLines());
            add(stretches, Change.ADDED, delta.getTarget().getLines());
            at = start + delta.getSource().size();
        }
        add(stretches, Change.SAME, old.subList(at, old.size()));
        return joined(stretches);
    }

    /** For texts too long to compare: the same beginning and end, and what is between them as one change. */
    private static List<Stretch> replaced(List<String> old, List<String> now, int head, int tail) {
        List<Stretch> stretches = new ArrayList<>();
        add(stretches, Change.SAME, old.subList(0, head));
        add(stretches, Change.REMOVED, old.subList(head, old.size() - tail));
        add(stretches, Change.ADDED, now.subList(head, now.size() - tail));
        add(stretches, Change.SAME, now.subList(now.size() - tail, now.size()));
        return stretches;
    }

    /** Joins changes that only a few characters keep apart: people read a changed phrase, not a hail of changed words. */
    private static List<Stretch> joined(List<Stretch> stretches) {
        List<Stretch> joined = new ArrayList<>();
        StringBuilder removed = new StringBuilder();
        StringBuilder added = new StringBuilder();
        for (int i = 0; i < stretches.size(); i++) {
            Stretch s = stretches.get(i);
            boolean between = s.change() == Change.SAME && removed.length() + added.length() > 0 && i + 1 < stretches.size() && s.text().length() <= NARROW
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

    private static void add(List<Stretch> stretches, Change change, List<String> tokens) {
        if (!tokens.isEmpty()) stretches.add(new Stretch(change, String.join("", tokens)));
    }

    private static List<String> tokens(String text) {
        List<String> tokens = new ArrayList<>();
        Matcher matcher = TOKEN.matcher(text);
        while (matcher.find()) tokens.add(matcher.group());
        return tokens;
    }
}

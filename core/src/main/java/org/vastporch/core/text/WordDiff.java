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

    private static final Pattern TOKEN = Pattern.compile("[\\p{L}\\p{N}\\p{M}'’-]+|\\s+|.", Pattern.DOTALL);

    private WordDiff() {}

    /** Compares two texts. The stretches follow each other as they are read. */
    public static List<Stretch> of(String before, String after) {
        List<String> old = tokens(before);
        List<String> now = tokens(after);
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
        return stretches;
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

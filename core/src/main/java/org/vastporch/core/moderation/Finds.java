package org.vastporch.core.moderation;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.List;
import java.util.function.Predicate;
import java.util.regex.MatchResult;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.vastporch.core.text.Searchable;

/**
 * What the rules find in one text. They search in a copy made for searching; what they find are places and words of the
 * text itself.
 */
final class Finds {

    private final String plain;
    private final Searchable copy;
    private final Predicate<Hold> counts;
    private final int most;
    private final List<Hold> holds = new ArrayList<>();

    /**
     * @param counts whether a find counts
     * @param most so many are kept of each rule's
     */
    Finds(String plain, Predicate<Hold> counts, int most) {
        this.plain = plain;
        this.copy = Searchable.of(plain);
        this.counts = counts;
        this.most = most;
    }

    /** The copy in small letters. */
    String text() {
        return copy.text();
    }

    /** The copy with its capitals. */
    String cased() {
        return copy.cased();
    }

    /**
     * Adds what a pattern finds in a copy where nothing was found yet: its first group, else all of it.
     *
     * @param in the copy, of the length of {@link #text}
     * @param taken places of the copy in which something was found; they grow
     */
    void add(Hold.Rule rule, Pattern pattern, String in, BitSet taken, Predicate<MatchResult> really) {
        int kept = 0;
        Matcher matcher = pattern.matcher(in);
        while (kept <= most && matcher.find()) {
            int group = matcher.groupCount() > 0 && matcher.group(1) != null ? 1 : 0;
            int start = matcher.start(group);
            int end = matcher.end(group);
            int next = taken.nextSetBit(start);
            if (next >= 0 && next < end || start == end || !really.test(matcher)) continue;
            taken.set(start, end);
            Hold hold = hold(rule, start, end);
            if (!counts.test(hold)) continue;
            holds.add(hold);
            kept++;
        }
    }

    private Hold hold(Hold.Rule rule, int start, int end) {
        return new Hold(rule, copy.start(start), copy.end(end), plain.substring(copy.start(start), copy.end(end)));
    }

    /** In the order of their places, as many as are kept; then, if there were more, that there are. */
    List<Hold> inOrder() {
        holds.sort(Comparator.comparingInt(Hold::start));
        if (holds.size() <= most) return List.copyOf(holds);
        List<Hold> first = new ArrayList<>(holds.subList(0, most));
        first.add(Hold.ofWhole(Hold.Rule.MORE, ""));
        return first;
    }
}

package org.vastporch.core.sameness;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A piece of a text.
 *
 * @param text without the end of its line; one that folds away may go on over several lines
 * @param passage which passage of its pair it stands in, from 0 for the longest; null for none
 * @param quoted whether its author shows it as somebody else's words
 * @param common how many words it has, if it is what most texts share and folds away; else 0
 */
public record Piece(String text, @Nullable Integer passage, boolean quoted, int common) {

    /** What a sign of a text stands in, beside the passages, which are numbered from 1. */
    private static final int NOTHING = 0;

    private static final int QUOTED = -1;
    /** Each that folds has its own number, from here downwards. */
    private static final int FOLDED = -2;

    /**
     * Cuts the text of one side of a pair into its lines, and these where passages, quotations and what folds away
     * begin and end.
     *
     * @param common what of this text more than a third share; only where no passage lies, and five words at least,
     *     does it fold
     * @param isFirst whether it is the first text of the pair
     * @return lines that are not empty, in their order
     */
    public static List<List<Piece>> of(Answer answer, List<Passage> passages, List<Common> common, boolean isFirst) {
        String plain = answer.plain();
        int[] in = new int[plain.length()];
        for (int p = 0; p < passages.size(); p++) {
            Passage passage = passages.get(p);
            int from = isFirst ? passage.start() : passage.startThere();
            int to = isFirst ? passage.end() : passage.endThere();
            for (int i = from; i < to; i++) in[i] = p + 1;
        }
        for (Answer.Span span : answer.quoted())
            for (int i = span.start(); i < span.end(); i++) if (in[i] == NOTHING) in[i] = QUOTED;
        fold(in, plain, common);
        return cut(plain, in);
    }

    private static void fold(int[] in, String plain, List<Common> common) {
        List<Answer.Span> words = Words.of(plain).places();
        BitSet signs = new BitSet(in.length);
        for (Common one : common) signs.set(one.start(), one.end());
        int number = FOLDED;
        List<Answer.Span> row = new ArrayList<>();
        for (int w = 0; w <= words.size(); w++) {
            boolean goesOn = w < words.size()
                    && signs.get(words.get(w).start())
                    && in[words.get(w).start()] == NOTHING;
            if (goesOn) row.add(words.get(w));
            else {
                if (row.size() >= Sameness.RUN) fold(in, plain, row, number--);
                row.clear();
            }
        }
    }

    /** With the signs that touch its first and its last word, so that no full stop stays behind alone. */
    private static void fold(int[] in, String plain, List<Answer.Span> row, int number) {
        int from = row.get(0).start();
        int to = row.get(row.size() - 1).end();
        while (from > 0 && in[from - 1] == NOTHING && isSign(plain.charAt(from - 1))) from--;
        while (to < in.length && in[to] == NOTHING && isSign(plain.charAt(to))) to++;
        Arrays.fill(in, from, to, number);
    }

    private static boolean isSign(char c) {
        return !Character.isWhitespace(c) && !Character.isLetterOrDigit(c);
    }

    private static List<List<Piece>> cut(String plain, int[] in) {
        List<List<Piece>> lines = new ArrayList<>();
        List<Piece> line = new ArrayList<>();
        int begin = 0;
        for (int i = 0; i <= plain.length(); i++) {
            boolean endsLine = i == plain.length() || plain.charAt(i) == '\n' && in[i] > FOLDED;
            if (!endsLine && in[i] == in[begin]) continue;
            if (i > begin) line.add(piece(plain.substring(begin, i), in[begin]));
            begin = endsLine ? i + 1 : i;
            if (!endsLine) continue;
            if (line.stream().anyMatch(p -> !p.text().isBlank())) lines.add(line);
            line = new ArrayList<>();
        }
        return lines;
    }

    private static Piece piece(String text, int is) {
        int folds = is <= FOLDED ? Words.of(text).size() : 0;
        return new Piece(text, is > NOTHING ? Integer.valueOf(is - 1) : null, is == QUOTED, folds);
    }
}

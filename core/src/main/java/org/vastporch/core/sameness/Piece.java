package org.vastporch.core.sameness;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A piece of a text.
 *
 * @param passage which passage of its pair it stands in, from 0 for the longest; null for none
 * @param quoted whether its author shows it as somebody else's words
 */
public record Piece(String text, @Nullable Integer passage, boolean quoted) {

    /**
     * Cuts the text of one side of a pair into its lines, and these where passages and quotations begin and end.
     *
     * @param isFirst whether it is the first text of the pair
     * @return lines that are not empty, in their order
     */
    public static List<List<Piece>> of(Answer answer, List<Passage> passages, boolean isFirst) {
        String plain = answer.plain();
        int[] in = new int[plain.length()];
        for (int p = 0; p < passages.size(); p++) {
            Passage passage = passages.get(p);
            int from = isFirst ? passage.start() : passage.startThere();
            int to = isFirst ? passage.end() : passage.endThere();
            for (int i = from; i < to; i++) in[i] = p + 1;
        }
        for (Answer.Span span : answer.quoted())
            for (int i = span.start(); i < span.end(); i++) if (in[i] == 0) in[i] = -1;
        List<List<Piece>> lines = new ArrayList<>();
        int from = 0;
        for (String line : plain.split("\n", -1)) {
            if (!line.isBlank()) lines.add(cut(line, in, from));
            from += line.length() + 1;
        }
        return lines;
    }

    private static List<Piece> cut(String line, int[] in, int from) {
        List<Piece> pieces = new ArrayList<>();
        int begin = 0;
        for (int i = 1; i <= line.length(); i++) {
            if (i < line.length() && in[from + i] == in[from + begin]) continue;
            int is = in[from + begin];
            pieces.add(new Piece(line.substring(begin, i), is > 0 ? Integer.valueOf(is - 1) : null, is < 0));
            begin = i;
        }
        return pieces;
    }
}

package org.vastporch.server.search;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.apache.lucene.analysis.Analyzer;
import org.apache.lucene.analysis.TokenStream;
import org.apache.lucene.analysis.core.LowerCaseFilter;
import org.apache.lucene.analysis.en.EnglishPossessiveFilter;
import org.apache.lucene.analysis.en.PorterStemFilter;
import org.apache.lucene.analysis.miscellaneous.ASCIIFoldingFilter;
import org.apache.lucene.analysis.miscellaneous.PerFieldAnalyzerWrapper;
import org.apache.lucene.analysis.standard.StandardTokenizer;
import org.apache.lucene.analysis.tokenattributes.CharTermAttribute;
import org.apache.lucene.analysis.tokenattributes.OffsetAttribute;

/** How texts are taken apart for searching: case, accents and endings make no difference. */
public final class Words {

    /** @param folded without case and accents; {@code stem} without its ending besides */
    record Word(String folded, String stem) {}

    /** A stretch of a snippet; a hit is what was searched for. */
    public record Marked(String text, boolean hit) {}

    private static final int AROUND = 160;

    /** The field "raw" keeps endings, for words that are only begun. */
    static final Analyzer ANALYZER = new PerFieldAnalyzerWrapper(analyzer(true), Map.of("raw", analyzer(false)));

    private Words() {}

    private static Analyzer analyzer(boolean stems) {
        return new Analyzer() {
            @Override
            protected TokenStreamComponents createComponents(String field) {
                StandardTokenizer words = new StandardTokenizer();
                TokenStream folded = new ASCIIFoldingFilter(new LowerCaseFilter(new EnglishPossessiveFilter(words)));
                return new TokenStreamComponents(words, stems ? new PorterStemFilter(folded) : folded);
            }
        };
    }

    private record Token(String term, int start, int end) {}

    private static List<Token> tokens(String field, String text) {
        List<Token> tokens = new ArrayList<>();
        try (TokenStream stream = ANALYZER.tokenStream(field, text)) {
            CharTermAttribute term = stream.addAttribute(CharTermAttribute.class);
            OffsetAttribute offset = stream.addAttribute(OffsetAttribute.class);
            stream.reset();
            while (stream.incrementToken())
                tokens.add(new Token(term.toString(), offset.startOffset(), offset.endOffset()));
            stream.end();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return tokens;
    }

    /** The words of what somebody searches for; at most twelve count. */
    static List<Word> of(String typed) {
        List<Token> folded = tokens("raw", typed);
        List<Token> stems = tokens("text", typed);
        List<Word> words = new ArrayList<>();
        for (int i = 0; i < Math.min(12, Math.min(folded.size(), stems.size())); i++)
            words.add(new Word(folded.get(i).term(), stems.get(i).term()));
        return words;
    }

    /**
     * A stretch of a text with what was searched for marked: from a little before the first hit. Empty if there is no
     * hit.
     */
    static List<Marked> snippet(String text, List<Word> wanted) {
        List<Token> stems = tokens("text", text);
        List<Token> folded = tokens("raw", text);
        List<Token> hits = new ArrayList<>();
        for (int i = 0; i < stems.size(); i++)
            if (isHit(stems.get(i).term(), folded.get(i).term(), wanted)) hits.add(stems.get(i));
        if (hits.isEmpty()) return List.of();
        int from = cut(text, Math.max(0, hits.get(0).start() - AROUND / 3), true);
        int to = cut(text, Math.min(text.length(), from + 2 * AROUND), false);
        List<Marked> stretches = new ArrayList<>();
        int at = from;
        for (Token hit : hits) {
            if (hit.start() < at || hit.end() > to) continue;
            add(stretches, (at == from && from > 0 ? "…" : "") + text.substring(at, hit.start()), false);
            add(stretches, text.substring(hit.start(), hit.end()), true);
            at = hit.end();
        }
        add(stretches, text.substring(at, to) + (to < text.length() ? "…" : ""), false);
        return stretches;
    }

    private static boolean isHit(String stem, String folded, List<Word> wanted) {
        for (int i = 0; i < wanted.size(); i++) {
            Word word = wanted.get(i);
            if (stem.equals(word.stem())
                    || i == wanted.size() - 1 && word.folded().length() > 1 && folded.startsWith(word.folded()))
                return true;
        }
        return false;
    }

    /** A place between words near {@code at}. */
    private static int cut(String text, int at, boolean before) {
        if (at == 0 || at == text.length()) return at;
        int space = before ? text.indexOf(' ', at) : text.lastIndexOf(' ', at);
        return space < 0 || Math.abs(space - at) > 30 ? safe(text, at) : before ? space + 1 : space;
    }

    /** Not between the two halves of one sign. */
    private static int safe(String text, int at) {
        return at < text.length() && Character.isLowSurrogate(text.charAt(at)) ? at - 1 : at;
    }

    private static void add(List<Marked> stretches, String text, boolean hit) {
        if (!text.isEmpty()) stretches.add(new Marked(text.replaceAll("\\s+", " "), hit));
    }
}

package org.vastporch.core.sameness;

import static org.junit.jupiter.api.Assertions.*;

import java.util.List;
import org.junit.jupiter.api.Test;

class AnswerTest {

    private static List<String> quoted(String html) {
        Answer answer = Answer.of(1, html);
        return answer.quoted().stream()
                .map(s -> answer.plain().substring(s.start(), s.end()).strip())
                .toList();
    }

    @Test
    void linesAreParagraphs() {
        assertEquals(
                "One two.\nThree\nfour.\n",
                Answer.of(1, "<p>One <b>two</b>.</p><ul><li>Three</li><li>four.</li></ul>")
                        .plain());
        assertEquals("a\nb\n", Answer.of(1, "<p>a<br>b</p>").plain());
        assertEquals("", Answer.of(1, "").plain());
    }

    @Test
    void theNameOfAFileIsNoWord() {
        assertFalse(Answer.of(1, "<figure data-kind=\"sound\"><a href=\"/x\">hum.mp3</a></figure><p>Hum.</p>")
                .plain()
                .contains("mp3"));
    }

    @Test
    void whatIsQuotedIsKnownByItsElementOrItsMarks() {
        assertEquals(List.of("Be still."), quoted("<p>I say</p><blockquote><p>Be still.</p></blockquote>"));
        assertEquals(List.of("“be still”"), quoted("<p>He said “be still” twice.</p>"));
        assertEquals(List.of("«sei still»"), quoted("<p>Er sagt «sei still».</p>"));
        assertEquals(List.of("„sei still“"), quoted("<p>Er sagt „sei still“.</p>"));
        assertEquals(List.of("inner"), quoted("<blockquote><q>inner</q></blockquote>"));
        assertEquals(List.of(), quoted("<p>5\" of rain</p><p>and 6\" more</p>"), "marks of two paragraphs are no pair");
    }

    @Test
    void aTextIsCutWherePassagesAndQuotationsBegin() {
        Answer answer = Answer.of(1, "<p>One two three.</p><p>Four “five” six.</p>");
        Passage passage = new Passage(3, 8, 20, 0, 0);
        List<List<Piece>> lines = Piece.of(answer, List.of(passage), List.of(), true);
        assertEquals(
                List.of(
                        List.of(new Piece("One two ", null, false, 0), new Piece("three.", 0, false, 0)),
                        List.of(
                                new Piece("Four ", 0, false, 0),
                                new Piece("“five”", null, true, 0),
                                new Piece(" six.", null, false, 0))),
                lines);
        assertEquals(
                answer.plain().replace("\n", ""),
                lines.stream().flatMap(List::stream).map(Piece::text).reduce("", String::concat));
    }

    @Test
    void whatMostShareFoldsOverLinesWhereNoPassageLies() {
        Answer answer = Answer.of(1, "<p>I say: one two<br>three four<br>five six seven eight. Mine.</p>");
        Common common =
                new Common(1, List.of("one", "two", "three", "four", "five", "six", "seven", "eight"), 9, 7, 46);
        assertEquals("one two\nthree four\nfive six seven eight", answer.plain().substring(7, 46));
        assertEquals(
                List.of(List.of(
                        new Piece("I say: ", null, false, 0),
                        new Piece("one two\nthree four\nfive six seven eight.", null, false, 8),
                        new Piece(" Mine.", null, false, 0))),
                Piece.of(answer, List.of(), List.of(common), true));
        Passage over = new Passage(3, 35, 50, 0, 0);
        assertEquals(
                List.of("I say: /0", "one two\nthree four\nfive six/6", " /0", "seven eight. Mi/0", "ne./0"),
                pieces(Piece.of(answer, List.of(over), List.of(common), true)));
        Passage most = new Passage(4, 26, 50, 0, 0);
        assertEquals(
                List.of("I say: one two/0", "three four/0", "five six seven eight. Mi/0", "ne./0"),
                pieces(Piece.of(answer, List.of(most), List.of(common), true)),
                "four words that are left are no fold");
    }

    private static List<String> pieces(List<List<Piece>> lines) {
        return lines.stream()
                .flatMap(List::stream)
                .map(p -> p.text() + "/" + p.common())
                .toList();
    }

    @Test
    void whatIsSaidWithinALongerOneIsSaidOnce() {
        Common poem = new Common(1, List.of("a", "b", "c", "d", "e", "f"), 7, 0, 11);
        Common again = new Common(2, poem.words(), 7, 3, 14);
        Common part = new Common(3, List.of("b", "c", "d", "e", "f"), 8, 0, 9);
        Common another = new Common(3, List.of("f", "e", "d", "c", "b"), 6, 20, 29);
        assertEquals(List.of(poem, another), Common.once(List.of(part, another, again, poem)));
    }

    @Test
    void wordsAreComparedWithoutCaseAccentsAndSignsInside() {
        assertEquals(
                List.of("dont", "wellknown", "cafe", "3", "ae"),
                Words.of("Don’t well-known CAFÉ, 3 – Æ").folded().stream()
                        .map(w -> w.equals("æ") ? "ae" : w)
                        .toList());
    }
}

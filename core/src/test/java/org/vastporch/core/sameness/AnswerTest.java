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
        List<List<Piece>> lines = Piece.of(answer, List.of(passage), true);
        assertEquals(
                List.of(
                        List.of(new Piece("One two ", null, false), new Piece("three.", 0, false)),
                        List.of(
                                new Piece("Four ", 0, false),
                                new Piece("“five”", null, true),
                                new Piece(" six.", null, false))),
                lines);
        assertEquals(
                answer.plain().replace("\n", ""),
                lines.stream().flatMap(List::stream).map(Piece::text).reduce("", String::concat));
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

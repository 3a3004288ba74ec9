package org.vastporch.core.tables;

import static org.junit.jupiter.api.Assertions.*;

import java.util.List;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastporch.core.Refusal;

class TableTest {

    private static List<List<String>> cells(String text) {
        return Table.of(text).lines().stream().map(Table.Line::cells).toList();
    }

    @ParameterizedTest
    @CsvSource(delimiter = '!', quoteCharacter = '^', textBlock = """
        a,b~c,d               ! a/b c/d
        a;b~c,x;d             ! a/b c,x/d
        a|b~c|d               ! a/b c/d
        "a,b";c~d;e           ! a,b/c d/e
        sep=|~a|b,c           ! a/b,c
        a~b                   ! a b
        a,b~~c,d              ! a/b c/d
        """)
    void theSeparatorIsFoundByLooking(String text, String read) {
        String expected = read.strip();
        assertEquals(
                expected,
                cells(text.strip().replace('~', '\n')).stream()
                        .map(line -> String.join("/", line))
                        .collect(Collectors.joining(" ")));
    }

    @Test
    void aQuotationMarkIsWrittenTwiceWithinItsCell() {
        assertEquals(List.of(List.of("a \"b\"", "c")), cells("\"a \"\"b\"\"\",c"));
    }

    @Test
    void tabsAndAMarkAtTheBeginningAreRead() {
        assertEquals(List.of(List.of("a", "b,c"), List.of("d", "e")), cells("\uFEFFa\tb,c\nd\te"));
    }

    @Test
    void aLineKnowsItsPlaceAndEndsWhereItEnds() {
        Table table = Table.of("head,of it\n\n,\nWren,4,\n");
        assertEquals(List.of(1, 4), table.lines().stream().map(Table.Line::no).toList());
        Table.Line line = table.lines().get(1);
        assertEquals("Wren", line.cell(0));
        assertEquals("", line.cell(2));
        assertEquals("", line.cell(3));
        assertEquals("", line.cell(-1));
        assertFalse(line.isEmpty());
        assertTrue(new Table.Line(1, List.of("", "")).isEmpty());
    }

    @Test
    void whatHasNoWidthAndSeveralBlanksAreTidied() {
        assertEquals(List.of(List.of("Wren C", "é")), cells("Wren\u00a0\u00a0 C\u200b,e\u0301"));
    }

    @Test
    void aQuotationMarkThatIsNotClosedIsASign() {
        Table table = Table.of("name,note\nWren,\"so\nPia,tall\nIlka,x\nOdalys,y\nRowan,\"z\"\n");
        assertEquals(1, table.notes().size());
        assertEquals(List.of("Wren", "\"so"), table.lines().get(1).cells());
        assertEquals(List.of("Pia", "tall"), table.lines().get(2).cells());
        assertEquals(List.of("Rowan", "z"), table.lines().get(5).cells());
        assertEquals(List.of(), Table.of("a,\"b\nc\"\n").notes(), "a cell of two lines is one");
        assertEquals(
                List.of("a", "b c"), Table.of("a,\"b\nc\"\n").lines().get(0).cells());
    }

    /** "Family, Given" one to a line is no table of two columns, if whoever asks says that these are names. */
    @Test
    void namesWithACommaAreOneCellWhereTheyAreNames() {
        String names = "Castellane, Wren\nAurelio, Pia\n";
        assertEquals(1, Table.of(names, head -> true).lines().get(0).cells().size());
        assertEquals(2, Table.of(names, head -> false).lines().get(0).cells().size());
        assertEquals(2, Table.of(names).lines().get(0).cells().size());
        assertEquals(
                3,
                Table.of("a,b,c\nd,e,f\n", head -> true).lines().get(0).cells().size(),
                "two commas part three cells");
    }

    @Test
    void onlySoManyCellsOfALineAreRead() {
        assertEquals(200, Table.of("x,".repeat(500)).lines().get(0).cells().size());
    }

    @Test
    void whatIsLongerThanAnyClassIsRefused() {
        assertEquals(1, Table.of("x".repeat(1_000_000)).lines().size());
        assertEquals(
                "table-too-long",
                assertThrows(Refusal.class, () -> Table.of("x".repeat(1_000_001)))
                        .code());
    }
}

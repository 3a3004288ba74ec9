package org.vastporch.core.enrolment;

import static org.junit.jupiter.api.Assertions.*;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.vastporch.core.Refusal;
import org.vastporch.core.enrolment.RosterCheck.Checked;
import org.vastporch.core.enrolment.RosterCheck.Known;
import org.vastporch.core.enrolment.RosterCheck.Outcome;
import org.vastporch.core.enrolment.RosterReader.Row;

/** Row by row: what a file is made of, which column is which, what is said of each line, at the edges of each rule. */
class RosterRowsTest {

    private static final String LIST = "Surname,Forename\nCastellane,Wren\nBöhm,Liesel\n";

    private static List<Row> rows(String text) {
        return RosterReader.read(text, List.of()).rows();
    }

    private static List<String> names(List<Row> rows) {
        return rows.stream().map(r -> r.given() + "/" + r.family()).toList();
    }

    private static List<RosterReader.Column> columns(String text) {
        return RosterReader.read(text, List.of()).columns().stream()
                .map(RosterReader.ColumnTaken::as)
                .toList();
    }

    private static byte[] marked(int first, int second, byte[] text) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.write(first);
        out.write(second);
        out.writeBytes(text);
        return out.toByteArray();
    }

    @Test
    void readsEveryWayInWhichOfficesSaveText() {
        List<byte[]> files = List.of(
                LIST.getBytes(StandardCharsets.UTF_8),
                LIST.getBytes(StandardCharsets.ISO_8859_1),
                LIST.getBytes(StandardCharsets.UTF_16LE),
                LIST.getBytes(StandardCharsets.UTF_16BE),
                marked(0xff, 0xfe, LIST.getBytes(StandardCharsets.UTF_16LE)),
                marked(0xfe, 0xff, LIST.getBytes(StandardCharsets.UTF_16BE)),
                ("\uFEFF" + LIST).getBytes(StandardCharsets.UTF_8));
        for (byte[] file : files)
            assertEquals(
                    List.of("Wren/Castellane", "Liesel/Böhm"),
                    names(RosterReader.read(file, List.of()).rows()));
    }

    /** Text of two bytes a letter whose letters leave no zeros behind is known by its mark alone. */
    @Test
    void theMarkAtTheBeginningDecidesWhereLettersDoNot() {
        String list = "Surname,Forename\n" + "Ковалевская,Александра\n".repeat(12);
        List<byte[]> files = List.of(
                marked(0xff, 0xfe, list.getBytes(StandardCharsets.UTF_16LE)),
                marked(0xfe, 0xff, list.getBytes(StandardCharsets.UTF_16BE)));
        for (byte[] file : files)
            assertEquals(
                    "Александра/Ковалевская",
                    names(RosterReader.read(file, List.of()).rows()).get(11));
        byte[] half = marked(0xff, 'S', "urname,Forename\nCastellane,Wren\n".getBytes(StandardCharsets.ISO_8859_1));
        assertEquals(
                List.of("Wren/Castellane"),
                names(RosterReader.read(half, List.of()).rows()));
        byte[] other = marked(0xfe, 'S', "urname,Forename\nCastellane,Wren\n".getBytes(StandardCharsets.ISO_8859_1));
        assertEquals(
                List.of("Wren/Castellane"),
                names(RosterReader.read(other, List.of()).rows()));
    }

    @ParameterizedTest
    @CsvSource({
        "'Castellane, Wren', Wren/Castellane",
        "', Wren', Wren/",
        "Wren Castellane, Wren/Castellane",
        "Wren Ana Castellane, Wren Ana/Castellane",
        "Wren, /Wren",
        "'Castellane,', /Castellane"
    })
    void aWholeNameIsPartedAtItsCommaElseAtItsLastBlank(String full, String parted) {
        assertEquals(List.of(parted), names(rows("Name;E-mail\n" + full + ";w@school.example\n")));
    }

    @Test
    void namesOneToALineArePartedByNoComma() {
        assertEquals(
                List.of("Wren/Castellane", "Pia/Aurelio", "Tama/Kowhai"),
                names(rows("Castellane, Wren\nAurelio, Pia\nKowhai, Tama\n")));
        assertEquals(
                List.of("Wren/Castellane", "Pia/Aurelio"),
                names(rows("Surname,Forename\nCastellane,Wren\nAurelio,Pia\n")));
        assertEquals(
                List.of(RosterReader.Column.FAMILY, RosterReader.Column.GIVEN, RosterReader.Column.EMAIL),
                columns("Castellane,Wren,w@school.example\nAurelio,Pia,p@school.example\n"));
    }

    /** A head that names one column only is one if that column is an address, and a title if it is a group. */
    @Test
    void whatOfALoneWordIsAHead() {
        assertEquals(2, rows("Student\nWren Castellane\nPia Aurelio\n").size());
        assertEquals(
                2,
                rows("Group 4\nSurname,Forename\nCastellane,Wren\nAurelio,Pia\n")
                        .size());
    }

    @Test
    void aFileWithANothingInItIsNoText() {
        byte[] broken = LIST.getBytes(StandardCharsets.UTF_8);
        broken[20] = 0;
        assertEquals(
                "table-other-file",
                assertThrows(Refusal.class, () -> RosterReader.read(broken, List.of()))
                        .code());
        broken[20] = 'x';
        broken[21] = 0;
        assertThrows(Refusal.class, () -> RosterReader.read(broken, List.of()));
    }

    @ParameterizedTest
    @ValueSource(strings = {"PK\u0003\u0004", "\u00d0\u00cf\u0011\u00e0", "\u0089PNG", "\u00ff\u00d8", "%PDF-1.7"})
    void whatIsNoListIsSaidByItsKind(String start) {
        byte[] file = (start + " and more").getBytes(StandardCharsets.ISO_8859_1);
        Refusal refusal = assertThrows(Refusal.class, () -> RosterReader.read(file, List.of()));
        assertEquals("table-other-file", refusal.code());
        assertTrue(refusal.getMessage().startsWith("This is "), refusal.getMessage());
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '!',
            value = {
                "sep=;\\nSurname;Forename\\nA,B;C ! C/A,B",
                "Surname|Forename\\nCastellane|Wren ! Wren/Castellane",
                "Surname\\tForename\\nCastellane\\tWren ! Wren/Castellane",
                "\"Surname\";\"Forename\"\\n\"Castellane; née Eze\";\"Wren\" ! Wren/Castellane; née Eze",
                "Surname,Forename\\n\u200bCas\u00adtellane,Wren\u00a0\u00a0Ada ! Wren Ada/Castellane",
            })
    void cellsArePartedAsTheListPartsThem(String text, String name) {
        assertEquals(List.of(name.strip()), names(rows(text.replace("\\n", "\n").replace("\\t", "\t"))));
    }

    @Test
    void aCommaPartsANameOrTwoColumns() {
        assertEquals(List.of("Wren/Castellane"), names(rows("Castellane, Wren")));
        assertEquals(List.of("Wren/Castellane"), names(rows("Name, Vorname\nCastellane, Wren")));
        assertEquals(List.of("Wren/Castellane", "Ada/Eze"), names(rows("Castellane, Wren\nEze, Ada, Bed 1")));
        assertEquals(List.of("Wren/Castellane"), names(rows("Surname;Forename\nCastellane;Wren")));
    }

    @Test
    void lettersAreComposedAsTheyAreEverywhereElse() {
        assertEquals(List.of("Zoe\u0308/x".replace("e\u0308", "ë")), names(rows("Surname,Forename\nx,Zoe\u0308")));
    }

    @Test
    void anUnclosedQuotationMarkIsSaid() {
        RosterReader.Roster roster = RosterReader.read(
                "Surname,Forename\n\"Fox\",Bo\n\"Eze,Ada\nGale,Cy\nHall,Di\nIvy,Ed\nJay,Flo\n", List.of());
        assertEquals(6, roster.rows().size());
        assertEquals("\"Eze", roster.rows().get(1).family());
        assertEquals("Fox", roster.rows().get(0).family(), "what is closed is no part of the name");
        assertEquals(
                List.of("A quotation mark was opened and not closed, so quotation marks were read as any other sign."),
                roster.notes());
    }

    @Test
    void linesAboveTheHeadAreLeftAndTold() {
        assertEquals(
                List.of("A line above the names of the columns was left: “Marrowfield, autumn”."),
                RosterReader.read("Marrowfield, autumn\nSurname;Forename\nEze;Ada\n", List.of())
                        .notes());
        assertEquals(
                List.of("2 lines above the names of the columns were left: “Marrowfield”, “Autumn”."),
                RosterReader.read("Marrowfield\nAutumn\nSurname;Forename\nEze;Ada\n", List.of())
                        .notes());
    }

    private static final String SORTED = "Adair Bo\nBell Cy\nCrane Al\nDunn Xi\nEze Di\n";

    @Test
    void aListThatIsSortedByFirstWordsHasTheFamilyNameFirst() {
        RosterReader.Roster roster = RosterReader.read(SORTED, List.of());
        assertEquals("Bo/Adair", names(roster.rows()).get(0));
        assertEquals(
                List.of("The list is sorted by the first word of each name, so that was taken as the family name."),
                roster.notes());
        String four = SORTED.substring(0, SORTED.indexOf("Eze"));
        assertEquals("Adair/Bo", names(rows(four)).get(0), "four lines may stand in order by chance");
        assertEquals("Eze/Di", names(rows("Eze Di\n" + SORTED)).get(0), "not sorted");
    }

    @Test
    void twoColumnsOfNamesWithoutAHeadAreLookedAtForTheirOrder() {
        RosterReader.Roster plain = RosterReader.read("Wren;Castellane\nAda;Eze\n", List.of());
        assertEquals(
                List.of("No line says which name is which: look whether given and family names stand right."),
                plain.notes());
        String byFamily = "Xi;Adair\nBo;Bell\nAl;Crane\nDi;Dunn\nCy;Eze\n";
        assertEquals("Xi/Adair", names(rows(byFamily)).get(0), "the second column is in order: family names");
        assertEquals(
                "Adair/Xi",
                names(rows("Adair;Xi\nBell;Bo\nCrane;Al\nDunn;Di\nEze;Cy\n")).stream()
                        .map(n -> n.split("/")[1] + "/" + n.split("/")[0])
                        .toList()
                        .get(0));
    }

    @Test
    void addressesAndNumbersAreKnownByTheirLooks() {
        assertEquals(
                List.of(
                        RosterReader.Column.NUMBER,
                        RosterReader.Column.FULL,
                        RosterReader.Column.EMAIL,
                        RosterReader.Column.LEFT),
                columns("M-4101;Wren Castellane;wren@a.example;8\nM-4102;Ada Eze;ada@a.example;8\n"));
        assertEquals(
                List.of(RosterReader.Column.FULL, RosterReader.Column.LEFT),
                columns("Wren Castellane;4101\nAda Eze;4102\nBo Fox;4102\n"),
                "a number that two have is nobody's");
    }

    @Test
    void aHeadInWordsThatNobodyKnowsIsStillAHead() {
        String list = "Ainm;Ríomhphost\nWren Castellane;wren@a.example\nAda Eze;ada@a.example\n";
        assertEquals(List.of("Wren/Castellane", "Ada/Eze"), names(rows(list)));
        assertEquals("Ainm", RosterReader.read(list, List.of()).columns().get(0).head());
    }

    @Test
    void aNameBesideAGivenNameIsTheFamilys() {
        assertEquals(List.of("Wren/Castellane"), names(rows("Name;Vorname\nCastellane;Wren\n")));
        assertEquals(List.of("Wren/Castellane"), names(rows("Surname;Xyz\nCastellane;Wren\n")));
        assertEquals(
                List.of("Wren/Castellane"),
                names(rows("Name;Surname;Forename\nMiss Castellane;Castellane;Wren\n")),
                "with both, the whole name is left");
    }

    @Test
    void aLineWithAnotherNumberOfCellsSaysSo() {
        List<Row> rows = rows("Surname;Forename;E-mail\nEze;Ada\nFox;Bo;bo@a.example;x\nGale;Cy;;\nHall\n");
        assertEquals("This line ends after 2 cells; the head has 3", rows.get(0).note());
        assertEquals(
                "This line has 4 cells and the head has 3: look whether each stands in its place",
                rows.get(1).note());
        assertEquals("", rows.get(2).note(), "what is empty has moved nothing");
        assertEquals("This line ends after 1 cell; the head has 3", rows.get(3).note());
    }

    private static Row row(int line, String family, String given, String email, String number, String group) {
        return new Row(line, family, given, email, number, group, "");
    }

    private static Checked check(Row row, Known... known) {
        return RosterCheck.check(List.of(row), List.of(known)).get(0);
    }

    @ParameterizedTest
    @CsvSource({
        "100, 100, 60, 60, NEW",
        "101, 100, 60, 60, BAD",
        "100, 101, 60, 60, BAD",
        "100, 100, 61, 60, BAD",
        "100, 100, 60, 61, BAD"
    })
    void longCellsAreSaidNotCut(int family, int given, int number, int group, Outcome outcome) {
        Checked checked =
                check(row(2, "x".repeat(family), "y".repeat(given), "", "1".repeat(number), "z".repeat(group)));
        assertEquals(outcome, checked.outcome(), checked.message());
        assertEquals(outcome == Outcome.BAD, checked.message().contains("Shorten it."));
    }

    @Test
    void whatIsNoNameIsSaid() {
        assertEquals(
                "There is no name in this line",
                check(row(2, "", "", "a@b.example", "", "")).message());
        assertEquals(
                "This is not a name: 12 34",
                check(row(2, "34", "12", "", "", "")).message());
        assertEquals(Outcome.NEW, check(row(2, "", "Cher", "", "", "")).outcome());
        assertEquals(Outcome.NEW, check(row(2, "Cher", "", "", "", "")).outcome());
    }

    private static final Known WREN =
            new Known(7, "Castellane", "Wren", "w@a.example", "M-1", "Bed 1", true, true, true, false);

    private static Known wren(boolean inClass, boolean student, boolean care, boolean works) {
        return new Known(7, "Castellane", "Wren", "w@a.example", "M-1", "Bed 1", inClass, student, care, works);
    }

    @Test
    void whoIsHereAlreadyIsChangedAsTheListSaysAndOnlyBelowTheOwnCare() {
        assertEquals(
                "Already in this class",
                check(row(2, "Castellane", "Wren", "", "M-1", ""), WREN).message());
        Checked moved = check(row(2, "Castellane", "Ren", "r@a.example", "M-1", "Bed 2"), WREN);
        assertEquals(Outcome.CHANGES, moved.outcome());
        assertEquals(
                "Here already; name: Wren Castellane becomes Ren Castellane; e-mail: w@a.example becomes r@a.example;"
                        + " group: Bed 1 becomes Bed 2",
                moved.message());
        Known others = wren(true, true, false, false);
        assertEquals(
                Outcome.MOVES,
                check(row(2, "C", "Ren", "", "M-1", "Bed 2"), others).outcome());
        assertEquals(
                Outcome.ALREADY,
                check(row(2, "C", "Ren", "", "M-1", "Bed 1"), others).outcome());
        assertEquals(
                Outcome.ALREADY,
                check(row(2, "C", "Ren", "", "M-1", ""), others).outcome());
        assertEquals(
                Outcome.CHANGES,
                check(row(2, "Castellane", "Wren", "", "M-1", "Bed 2"), others).outcome(),
                "a group is changed by whoever teaches there");
    }

    @Test
    void aMarkSaysWhoItIs() {
        assertEquals(
                Outcome.JOINS,
                check(row(2, "X", "Y", "", "m-1", ""), wren(false, false, false, false))
                        .outcome());
        assertEquals(
                Outcome.JOINS,
                check(row(2, "X", "Y", "W@A.example", "", ""), wren(false, false, true, false))
                        .outcome());
        for (Known staff : List.of(wren(true, false, false, false), wren(false, false, false, true)))
            assertEquals(
                    "This is the number of somebody who is no student. Invite such people under Ways in",
                    check(row(2, "X", "Y", "", "M-1", ""), staff).message());
        assertEquals(
                "This is the e-mail address of somebody who is no student. Invite such people under Ways in",
                check(row(2, "X", "Y", "w@a.example", "", ""), wren(false, false, false, true))
                        .message());
        Known ada = new Known(8, "Eze", "Ada", "", "M-2", "", true, true, true, false);
        assertEquals(
                "The number and the e-mail address belong to two different people",
                check(row(2, "X", "Y", "w@a.example", "M-2", ""), WREN, ada).message());
    }

    @Test
    void theSameTwiceInAListIsSaidWithItsLine() {
        List<Row> rows = new ArrayList<>(List.of(
                row(2, "Eze", "Ada", "a@a.example", "", ""),
                row(3, "Fox", "Bo", "a@a.example", "", ""),
                row(4, "Gale", "Cy", "", "M-9", ""),
                row(5, "Hall", "Di", "", "M-9", ""),
                row(6, "Eze", "Ada", "other@a.example", "", ""),
                row(7, "Eze", "Ada", "", "", "")));
        List<Checked> checked = RosterCheck.check(rows, List.of());
        assertEquals("The same e-mail address as line 2", checked.get(1).message());
        assertEquals("The same number as line 4", checked.get(3).message());
        assertEquals(Outcome.NEW, checked.get(4).outcome());
        assertEquals(
                "Another person of this name stands in line 2", checked.get(4).message());
        assertEquals(Outcome.QUESTION, checked.get(5).outcome());
        assertEquals("The same name as line 2. Another person?", checked.get(5).message());
    }

    @Test
    void aNamesakeInTheClassIsAskedAboutUnlessBothAreToldApart() {
        assertEquals(
                Outcome.NEW,
                check(row(2, "Castellane", "Wren", "", "M-5", ""), WREN).outcome());
        assertEquals(
                Outcome.QUESTION,
                check(row(2, "Castellane", "Wren", "", "", ""), WREN).outcome());
        Known bare = new Known(7, "Castellane", "Wren", "", "", "", true, true, true, false);
        assertEquals(
                Outcome.QUESTION,
                check(row(2, "Castellane", "Wren", "", "M-5", ""), bare).outcome());
        Known elsewhere = new Known(7, "Castellane", "Wren", "", "", "", false, false, true, false);
        assertEquals(
                Outcome.NEW,
                check(row(2, "Castellane", "Wren", "", "", ""), elsewhere).outcome());
    }

    @Test
    void aNoteOfTheLineStandsBesideWhatIsSaidOfIt() {
        Row noted = new Row(2, "Eze", "Ada", "", "", "", "This line ends after 2 cells; the head has 3");
        assertEquals(
                "This line ends after 2 cells; the head has 3", check(noted).message());
        Row both = new Row(2, "", "", "", "", "", "It ends early");
        assertEquals("There is no name in this line. It ends early", check(both).message());
    }

    @Test
    void aSampleAndAHeadAreShortened() {
        String long80 = "x".repeat(80);
        List<RosterReader.ColumnTaken> columns = RosterReader.read("Surname;Note\nEze;" + long80 + "\n", List.of())
                .columns();
        assertEquals(long80, columns.get(1).sample());
        columns = RosterReader.read("Surname;Note\nEze;" + long80 + "y\n", List.of())
                .columns();
        assertEquals("x".repeat(79) + "…", columns.get(1).sample());
    }

    @Test
    void moreRowsThanAnySchoolHasAreRefused() {
        String row = "Castellane,Wren\n";
        int most = RosterReader.MOST_ROWS;
        assertEquals(most, rows("Surname,Forename\n" + row.repeat(most)).size());
        assertEquals(
                "roster-too-long",
                assertThrows(Refusal.class, () -> rows("Surname,Forename\n" + row.repeat(most + 1)))
                        .code());
    }
}

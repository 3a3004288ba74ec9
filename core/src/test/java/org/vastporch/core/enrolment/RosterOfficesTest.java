package org.vastporch.core.enrolment;

import static org.junit.jupiter.api.Assertions.*;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.vastporch.core.enrolment.RosterCheck.Outcome;
import org.vastporch.core.enrolment.RosterReader.Column;
import org.vastporch.core.enrolment.RosterReader.Roster;
import org.vastporch.core.enrolment.RosterReader.Row;

/**
 * Lists as offices, spreadsheets and colleagues really send them: whoever is on them comes out as who they are, and
 * what was left is said.
 */
class RosterOfficesTest {

    private static Roster read(String text) {
        return RosterReader.read(text, List.of());
    }

    /** The people of a list, in short. */
    private static String people(String text) {
        return read(text).rows().stream()
                .map(r -> r.given() + "/" + r.family() + (r.email().isEmpty() ? "" : "/" + r.email())
                        + (r.schoolNo().isEmpty() ? "" : "/" + r.schoolNo())
                        + (r.group().isEmpty() ? "" : "/" + r.group()))
                .collect(Collectors.joining(" "));
    }

    private static String columns(String text) {
        return read(text).columns().stream().map(c -> c.as().name()).collect(Collectors.joining(" "));
    }

    private static final String BOTH = "Wren/Castellane Pia/Aurelio";

    @ParameterizedTest
    @ValueSource(
            strings = {
                "Surname,Forename\nCastellane,Wren\nAurelio,Pia",
                "Marrowfield School\nClass 8Q, autumn term\n\nSurname,Forename\nCastellane,Wren\nAurelio,Pia",
                "Exported on 26/11/2026 by the office;;\n;;\nFamily name;Given "
                        + "name;House\nCastellane;Wren;Kestrel\nAurelio;Pia;Heron",
                "sep=;\nSurname;Forename\nCastellane;Wren\nAurelio;Pia",
                "\"sep=;\"\r\nSurname;Forename\r\nCastellane;Wren\r\nAurelio;Pia\r\n",
                "Legal Surname\tPreferred Forename\tReg Group\nCastellane\tWren\t8Q\nAurelio\tPia\t8Q",
                "Pupil's last name|Pupil's first name\nCastellane|Wren\nAurelio|Pia",
                "Nachname;Vorname;Klasse\nCastellane;Wren;8b\nAurelio;Pia;8b",
                "NOM,Prénom\nCastellane,Wren\nAurelio,Pia",
                "Name;Vorname\nCastellane;Wren\nAurelio;Pia",
                "Pupil name\nWren Castellane\nPia Aurelio",
                "Pupil name\n\"Castellane, Wren\"\n\"Aurelio, Pia\"",
                "Castellane, Wren\nAurelio, Pia",
                "Wren Castellane\nPia Aurelio",
                "  Wren   Castellane  \n\n\n Pia\u00a0Aurelio ",
                "Wr\u200ben Castellane\nPia Aure\u00adlio",
                "Row,Surname,Forename\n1,Castellane,Wren\n2,Aurelio,Pia",
                "Sobrenome,Nome próprio,Nome\nCastellane,,Wren\nAurelio,,Pia",
                "Surname,Forename,Username,Password\nCastellane,Wren,wcast01,secret\nAurelio,Pia,paure01,secret",
                "Surname,Forename,Date of birth\nCastellane,Wren,2013-04-01\nAurelio,Pia,2013-09-30",
            })
    void everybodyComesOutAsWhoTheyAre(String text) {
        assertEquals(BOTH, people(text), columns(text));
    }

    @Test
    void titlesAboveTheHeadAreLeftAndSaid() {
        Roster roster =
                read("Marrowfield School\nClass 8Q, autumn term\nSurname,Forename,House\nCastellane,Wren,Kestrel");
        assertEquals(
                List.of("2 lines above the names of the columns were left: “Marrowfield School”, "
                        + "“Class 8Q autumn term”."),
                roster.notes());
        assertEquals(4, roster.rows().get(0).line(), "lines are counted as in the file");
        assertEquals(
                List.of(Column.FAMILY, Column.GIVEN, Column.LEFT),
                roster.columns().stream().map(RosterReader.ColumnTaken::as).toList());
        assertEquals(
                "House Kestrel",
                roster.columns().get(2).head() + " " + roster.columns().get(2).sample(),
                "what is not used is named");
    }

    @Test
    void aQuotationMarkThatNobodyClosedTakesInNobodyElse() {
        Roster roster = read(
                "Surname,Forename,E-mail\n\"Castellane,Wren,w@post.example\nAurelio,Pia,p@post.example\nBöhm,Liesel,l@post.example\nEze,Chidi,c@post.example\nGull,Ida,i@post.example");
        assertEquals(5, roster.rows().size());
        assertEquals("Pia", roster.rows().get(1).given());
        assertTrue(roster.notes().get(0).startsWith("A quotation mark was opened and not closed"));
    }

    @Test
    void headsInWordsThatNobodyKnowsAreHeadsAllTheSame() {
        assertEquals(
                "Wren/Castellane/w@post.example Pia/Aurelio/p@post.example",
                people("Zuname X,Rufname,Elektropost\nCastellane,Wren,w@post.example\nAurelio,Pia,p@post.example"));
        assertEquals(
                2,
                read("Aaa,Bbb,Ccc\nCastellane,Wren,w@post.example\nAurelio,Pia,p@post.example")
                        .rows()
                        .size(),
                "a first line without an address where all others have one is no pupil");
    }

    /** Nothing says which name is which: a list is sorted by family names. */
    @Test
    void withoutAHeadTheSortedColumnIsTheFamilysName() {
        String familyFirst = "Aurelio;Pia\nBöhm;Liesel\nCastellane;Wren\nEze;Chidi\nGull;Anna";
        assertTrue(people(familyFirst).startsWith("Pia/Aurelio Liesel/Böhm Wren/Castellane"), people(familyFirst));
        String givenFirst = "Pia;Aurelio\nLiesel;Böhm\nWren;Castellane\nChidi;Eze\nAnna;Gull";
        assertTrue(people(givenFirst).startsWith("Pia/Aurelio Liesel/Böhm Wren/Castellane"), people(givenFirst));
        assertTrue(read(familyFirst).notes().get(0).contains("which name is which"));
        String whole = "Aurelio Pia\nBöhm Liesel\nCastellane Wren\nEze Chidi\nGull Anna";
        assertTrue(people(whole).startsWith("Pia/Aurelio Liesel/Böhm"), people(whole));
        assertTrue(read(whole).notes().get(0).contains("sorted by the first word"));
    }

    /** What was taken can be said otherwise. */
    @Test
    void columnsCanBeChanged() {
        String text = "Castellane;Wren;8Q\nAurelio;Pia;8Q";
        List<Row> rows = RosterReader.read(text, List.of(Column.GIVEN, Column.FAMILY, Column.GROUP))
                .rows();
        assertEquals(
                "Castellane Wren 8Q",
                rows.get(0).given() + " " + rows.get(0).family() + " "
                        + rows.get(0).group());
        assertEquals(
                "Wren",
                RosterReader.read("Castellane Wren", List.of(Column.FULL_FAMILY_FIRST))
                        .rows()
                        .get(0)
                        .given());
        assertThrows(
                RuntimeException.class,
                () -> RosterReader.read(text, List.of(Column.LEFT, Column.LEFT, Column.GROUP)),
                "a list has names");
    }

    @Test
    void linesWithTooManyOrTooFewCellsSaySo() {
        List<Row> rows =
                read("Surname,Forename,E-mail\nCastellane,Wren,w@post.example,extra\nAurelio,Pia\nEze,Chidi,c@post.example,,")
                        .rows();
        assertEquals(
                "This line has 4 cells and the head has 3: look whether each stands in its place",
                rows.get(0).note());
        assertEquals("This line ends after 2 cells; the head has 3", rows.get(1).note());
        assertEquals("", rows.get(2).note(), "empty cells at the end are nothing");
        assertTrue(RosterCheck.check(rows, List.of()).get(0).message().contains("4 cells"));
    }

    @Test
    void whatIsTooLongIsSaidAndNotCut() {
        String long_ = "W".repeat(300);
        RosterCheck.Checked checked = RosterCheck.check(
                        read("Surname,Forename\nCastellane," + long_).rows(), List.of())
                .get(0);
        assertEquals(Outcome.BAD, checked.outcome());
        assertEquals("The given name has 300 characters, and at most 100 fit. Shorten it.", checked.message());
        assertEquals(long_, checked.row().given());
    }

    @Test
    void oneNameIsOneNameHoweverItsLettersAreComposed() {
        List<Row> rows = read("Name\nZoë Müller\nZoe\u0308 Mu\u0308ller").rows();
        assertEquals(rows.get(0).given(), rows.get(1).given());
        assertEquals(
                List.of(Outcome.NEW, Outcome.QUESTION),
                RosterCheck.check(rows, List.of()).stream()
                        .map(RosterCheck.Checked::outcome)
                        .toList());
        var here = new RosterCheck.Known(
                4, "Mu\u0308ller", "Zoe\u0308", "z@post.example", "", "", true, true, true, false);
        assertEquals(
                Outcome.ALREADY,
                RosterCheck.check(read("Name,E-mail\nZoë Müller,z@post.example").rows(), List.of(here))
                        .get(0)
                        .outcome());
    }

    /** Joiners that a name needs stay in it. */
    @Test
    void namesOfAllScriptsStayWhole() {
        assertEquals(
                "علی‌رضا",
                read("Given name,Family name\nعلی‌رضا,حسینی").rows().get(0).given());
        assertEquals("小龙/李", people("Family name,Given name\n李,小龙"));
    }

    @Test
    void oldEncodingsAreRead() {
        for (String charset : List.of("windows-1252", "UTF-16LE", "UTF-16BE", "UTF-8")) {
            byte[] bytes = "Surname;Forename\nBöhm;Zoë\n".getBytes(Charset.forName(charset));
            assertEquals(
                    "Zoë Böhm",
                    RosterReader.read(bytes, List.of()).rows().stream()
                            .map(r -> r.given() + " " + r.family())
                            .collect(Collectors.joining()),
                    charset);
        }
        assertEquals(
                "Zoë",
                RosterReader.read("\ufeffSurname;Forename\nBöhm;Zoë".getBytes(StandardCharsets.UTF_8), List.of())
                        .rows()
                        .get(0)
                        .given());
    }
}

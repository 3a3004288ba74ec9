package org.vastporch.core.enrolment;

import static org.junit.jupiter.api.Assertions.*;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.vastporch.core.Refusal;
import org.vastporch.core.enrolment.RosterCheck.Outcome;
import org.vastporch.core.enrolment.RosterReader.Row;

class RosterTest {

    private static List<Row> demo(String name) throws IOException {
        return rows(Files.readAllBytes(Path.of("../demo/src/main/resources/rosters/roster-" + name + ".csv")));
    }

    private static List<Outcome> outcomes(List<Row> rows, List<RosterCheck.Known> known) {
        return RosterCheck.check(rows, known).stream()
                .map(RosterCheck.Checked::outcome)
                .toList();
    }

    private static String refusal(String text) {
        return assertThrows(Refusal.class, () -> rows(text.getBytes(StandardCharsets.UTF_8)))
                .code();
    }

    @Test
    void readsCommasInUtf8WithAMark() throws IOException {
        List<Row> rows = demo("plot-to-plate");
        assertEquals(24, rows.size());
        assertEquals(
                new Row(2, "Ainsworth-Bello", "Tunde", "t.bello@marrowfield.example", "M-4101", "Bed 1", ""),
                rows.get(0));
        assertEquals("Łukaszewicz", rows.get(13).family());
        assertTrue(outcomes(rows, List.of()).stream().allMatch(Outcome.NEW::equals), "two of one name are two people");
    }

    @Test
    void readsSemicolonsInLatin1AndFindsTheDouble() throws IOException {
        List<Row> rows = demo("sound-walks");
        assertEquals(new Row(3, "Böhm", "Liesel", "s12002@marrowfield.example", "12002", "", ""), rows.get(1));
        List<Outcome> outcomes = outcomes(rows, List.of());
        assertEquals(18, outcomes.stream().filter(Outcome.NEW::equals).count());
        assertEquals(Outcome.DOUBLE, outcomes.get(outcomes.size() - 1));
    }

    @Test
    void readsTabsInUtf16AndKeepsTheBadRow() throws IOException {
        List<Row> rows = demo("river-boats");
        assertEquals(12, rows.size());
        var checked = RosterCheck.check(rows, List.of());
        assertEquals(
                List.of("Gil"),
                checked.stream()
                        .filter(c -> c.outcome() == Outcome.BAD)
                        .map(c -> c.row().given())
                        .toList());
        assertEquals(
                "\"not-an-address\" is not an e-mail address. Mend it or leave it out.",
                checked.get(6).message());
    }

    @Test
    void theSameFileTwiceChangesNothing() throws IOException {
        List<Row> rows = demo("plot-to-plate");
        var known = rows.stream()
                .map(r -> new RosterCheck.Known(
                        1, r.family(), r.given(), r.email(), r.schoolNo(), r.group(), true, true, true, false))
                .toList();
        assertTrue(outcomes(rows, known).stream().allMatch(Outcome.ALREADY::equals));
    }

    @Test
    void aNameAloneIsAQuestion() {
        List<Row> rows = rows("Wren Castellane\nWren Castellane\nPia Aurelio");
        assertEquals(List.of(Outcome.NEW, Outcome.QUESTION, Outcome.NEW), outcomes(rows, List.of()));
        var here = new RosterCheck.Known(4, "Aurelio", "Pia", "", "", "", true, true, true, false);
        assertEquals(
                Outcome.QUESTION, RosterCheck.check(rows, List.of(here)).get(2).outcome());
    }

    @Test
    void pastedNamesNeedNoHeader() {
        assertEquals("Castellane", rows("Castellane, Wren\nAurelio, Pia").get(0).family());
        assertEquals("Wren", rows("Wren Castellane").get(0).given());
    }

    @Test
    void saysWhatIsWrongWithOtherFiles() {
        assertEquals("roster-empty", refusal("\n\n"));
        assertEquals("roster-empty", refusal("Surname,Forename\n"));
        assertEquals("roster-no-name", refusal("Form,E-mail\n8Q,a@b.example"));
        assertEquals("table-other-file", refusal("%PDF-1.7 x"));
        assertEquals("roster-too-long", refusal("Name\n" + "Wren Castellane\n".repeat(5000)));
    }

    private static List<RosterReader.Row> rows(String text) {
        return RosterReader.read(text, List.of()).rows();
    }

    private static List<RosterReader.Row> rows(byte[] file) {
        return RosterReader.read(file, List.of()).rows();
    }
}

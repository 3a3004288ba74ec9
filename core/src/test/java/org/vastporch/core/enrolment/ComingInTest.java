package org.vastporch.core.enrolment;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.vastporch.core.people.PersonName;

/** Coming into a class by its word or by a list: what is open, what is asked, what a list may change. */
class ComingInTest {

    private static final Instant NOW = Instant.parse("2026-11-25T10:00:00Z");

    @Test
    void classWordsAreReadAsTheyAreTyped() {
        Random random = new Random(5);
        for (int i = 0; i < 500; i++) {
            String word = ClassWord.make(random);
            assertTrue(word.matches("[a-z]{3,8} [a-z]{3,8}"), word);
            assertEquals(word, ClassWord.tidy("  " + word.toUpperCase().replace(" ", " - ") + "."));
            assertEquals(word, ClassWord.tidy(word.replace(" ", "")), "without the blank, too");
        }
        assertEquals("", ClassWord.tidy("?"));
        assertEquals("", ClassWord.tidy("x".repeat(1_000_000)));
        assertEquals("krtm 4v7w", ClassWord.tidy("KRTM-4V7W"), "what was given out before there were words");
    }

    @ParameterizedTest
    @CsvSource({
        ", , true",
        "2026-11-25T10:00:01Z, , true",
        "2026-11-25T10:00:00Z, , false",
        ", 1, true",
        ", 0, false",
        "2026-11-25T09:00:00Z, 5, false"
    })
    void aClassWordIsOpenUntilItsTimeOrItsNumberIsOver(Instant until, Integer left, boolean open) {
        assertEquals(open, new ClassWord("candle meadow", until, left).isOpen(NOW));
    }

    @Test
    void aClassWordCountsDownToNobody() {
        assertEquals(0, new ClassWord("candle meadow", null, 1).used().left());
        assertEquals(0, new ClassWord("candle meadow", null, 0).used().left());
        assertNull(new ClassWord("candle meadow", null, null).used().left());
    }

    @Test
    void aRosterSaysWhatItWouldChangeAndLeavesWhatItDoesNotName() {
        RosterCheck.Known wren = new RosterCheck.Known(
                4, "Castellane", "Wren", "w@post.example", "M-1", "Bed 1", true, true, true, false);
        List<RosterReader.Row> rows = rows("Surname,Forename,Student "
                + "no.,E-mail,Group\nCastellane,Wren,M-1,,\nCastellane,Wren,M-2,w@post.example,Bed 2");
        List<RosterCheck.Checked> checked = RosterCheck.check(rows, List.of(wren));
        assertEquals(RosterCheck.Outcome.ALREADY, checked.get(0).outcome());
        assertEquals(RosterCheck.Outcome.CHANGES, checked.get(1).outcome());
        assertEquals(
                "Here already; number: M-1 becomes M-2; group: Bed 1 becomes Bed 2",
                checked.get(1).message());
    }

    /** Whom others teach too is enrolled and moved by a list, and not renamed; who works here is no student. */
    @Test
    void aRosterChangesOnlyAccountsInTheCareOfItsTeacher() {
        String head = "Surname,Forename,Student no.,E-mail,Group\n";
        RosterCheck.Known shared = new RosterCheck.Known(
                4, "Castellane", "Wren", "w@post.example", "M-1", "Bed 1", true, true, false, false);
        RosterCheck.Known elsewhere =
                new RosterCheck.Known(5, "Aurelio", "Pia", "p@post.example", "M-3", "", false, false, false, false);
        RosterCheck.Known teacher =
                new RosterCheck.Known(6, "Quill", "Ottoline", "q@post.example", "", "", false, false, false, true);
        RosterCheck.Known helper =
                new RosterCheck.Known(7, "Crake", "Tobiah", "c@post.example", "", "", true, false, true, false);
        List<RosterCheck.Checked> checked = RosterCheck.check(
                rows(
                        head
                                + "Gull,Evil,M-1,,\nGull,Evil,,w@post.example,Bed "
                                + "2\nGull,Evil,M-3,,\nQuill,Ottoline,,q@post.example,\nCrake,Tobiah,,c@post.example,\nGull,Evil,M-3,w@post.example,"),
                List.of(shared, elsewhere, teacher, helper));
        assertEquals(
                List.of("ALREADY", "MOVES", "JOINS", "BAD", "BAD", "DOUBLE"),
                checked.stream().map(c -> c.outcome().name()).toList());
        assertEquals(
                "Here already, and in other classes too: the school keeper changes name, number and "
                        + "address; the group becomes Bed 2",
                checked.get(1).message());
        assertEquals(
                "BAD",
                RosterCheck.check(rows(head + "Gull,Evil,M-3,w@post.example,"), List.of(shared, elsewhere))
                        .get(0)
                        .outcome()
                        .name());
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "Quill|Ms|true",
                "Quill|Ottoline|true",
                "Castellane|Wren|true",
                "Wren|Castellane|true",
                "Саstеllаnе|W\u200bren|true",
                "Lind|Dr Ada|true",
                "Ms Quill||true",
                "Lind|Ada|false",
                "Castellane|Robin|false",
                "Misslin|Ada|false",
                "|Quill|true"
            })
    void aNameThatCouldBeSomebodyElsesIsAsked(String family, String given, boolean asked) {
        List<String> taken = List.of("Ms Quill", "Ottoline Quill", "Quill", "Wren Castellane");
        assertEquals(
                asked,
                NewcomerName.isAsked(
                        new PersonName(
                                family == null ? "" : family.translateEscapes(),
                                given == null ? "" : given.translateEscapes()),
                        taken));
    }

    private static List<RosterReader.Row> rows(String text) {
        return RosterReader.read(text, List.of()).rows();
    }

    /** The day ends on the clock of the class, wherever the teacher sits. */
    @ParameterizedTest
    @ValueSource(strings = {"Europe/London", "Asia/Tokyo", "America/Los_Angeles", "Pacific/Apia"})
    void aClassWordWorksToTheEndOfItsLastDayInTheClass(String zone) {
        ZoneId of = ZoneId.of(zone);
        LocalDate day = LocalDate.of(2026, 11, 27);
        ClassWord word = new ClassWord("dewdrop glade", ClassWord.endOf(day, of), null);
        assertEquals(day, word.lastDay(of));
        assertTrue(word.isOpen(day.atTime(23, 59, 59).atZone(of).toInstant()));
        assertFalse(word.isOpen(day.plusDays(1).atStartOfDay(of).toInstant()));
        assertNull(new ClassWord("dewdrop glade", null, null).lastDay(of));
    }
}

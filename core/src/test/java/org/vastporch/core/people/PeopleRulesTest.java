package org.vastporch.core.people;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.vastporch.core.access.Role;
import org.vastporch.core.enrolment.ClassWord;
import org.vastporch.core.enrolment.NewcomerName;
import org.vastporch.core.enrolment.RosterCheck;
import org.vastporch.core.enrolment.RosterReader;

class PeopleRulesTest {

    private static final Instant NOW = Instant.parse("2026-11-25T10:00:00Z");

    /** The words are said aloud, heard and typed by children: short, and no two that one could take for another. */
    @Test
    void wordsAreShortAndNoTwoAreMistaken() {
        List<String> words = FriendlyWords.ALL;
        assertTrue(words.size() >= 1024, () -> words.size() + " words are too few");
        assertEquals(words.size(), Set.copyOf(words).size());
        for (String word : words) assertTrue(word.matches("[a-z]{3,8}"), word);
        Map<String, String> sounds = new HashMap<>();
        for (String word : words)
            assertNull(sounds.putIfAbsent(sound(word), word), () -> word + " sounds like " + sounds.get(sound(word)));
        for (int i = 0; i < words.size(); i++)
            for (int j = i + 1; j < words.size(); j++)
                assertFalse(oneLetterApart(words.get(i), words.get(j)), words.get(i) + " and " + words.get(j));
    }

    /**
     * Roughly how a word sounds to somebody who does not listen closely: no vowel is told from another, no b from p, d
     * from t, v from f.
     */
    private static String sound(String word) {
        return word.replaceAll("ough", "o")
                .replaceAll("eigh|igh", "i")
                .replace("tch", "ch")
                .replace("ck", "k")
                .replace("ph", "f")
                .replace("wh", "w")
                .replace("kn", "n")
                .replaceAll("mb$", "m")
                .replaceAll("sc(?=[eiy])", "s")
                .replaceAll("c(?=[eiy])", "s")
                .replaceAll("[cq]", "k")
                .replace("x", "ks")
                .replace("z", "s")
                .replaceAll("dge|g(?=[ei])", "j")
                .replaceAll("ow", "o")
                .replace("y", "i")
                .replace("v", "f")
                .replace("d", "t")
                .replace("b", "p")
                .replaceAll("[aeiou]+", "a")
                .replaceAll("(.)\\1+", "$1")
                .replaceAll("a$", "");
    }

    private static boolean oneLetterApart(String a, String b) {
        if (a.length() > b.length()) return oneLetterApart(b, a);
        if (b.length() - a.length() > 1) return false;
        int same = 0;
        while (same < a.length() && a.charAt(same) == b.charAt(same)) same++;
        return a.substring(Math.min(a.length(), same + (a.length() == b.length() ? 1 : 0)))
                .equals(b.substring(same + 1));
    }

    @Test
    void aPassPhraseIsThreeWordsOfMany() {
        Random random = new Random(5);
        Set<String> words = new HashSet<>();
        for (int i = 0; i < 30_000; i++) {
            List<String> phrase = List.of(PassPhrases.make(random).split(" "));
            assertEquals(3, new HashSet<>(phrase).size(), phrase::toString);
            words.addAll(phrase);
        }
        assertEquals(Set.copyOf(FriendlyWords.ALL), words);
        assertTrue(Math.pow(words.size() - 2, 3) > Math.pow(2, 30), "more than 2^30 phrases");
    }

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
    void anEnrolmentIsTakenBackForThirtyDaysAndStaffAreNeverErased() {
        assertTrue(Leaving.canReturn(NOW.minus(Leaving.UNDO).plusSeconds(1), NOW));
        assertFalse(Leaving.canReturn(NOW.minus(Leaving.UNDO), NOW));
        assertTrue(Leaving.canErase(false, false, List.of(Role.STUDENT, Role.GUEST)));
        assertFalse(
                Leaving.canErase(false, false, List.of(Role.STUDENT, Role.MODERATOR)), "decisions keep their maker");
        assertFalse(Leaving.canErase(false, true, List.of()));
    }

    @Test
    void passPhrasesAreForThoseWhoAreStudentsOnly() {
        Set<Long> mine = Set.of(1L, 2L);
        AccountCare.Place here = new AccountCare.Place(1, Role.STUDENT);
        assertTrue(AccountCare.isWith(mine, false, List.of(here)));
        assertTrue(AccountCare.isWith(mine, false, List.of(here, new AccountCare.Place(2, Role.GUEST))));
        assertFalse(
                AccountCare.isWith(mine, false, List.of(here, new AccountCare.Place(3, Role.STUDENT))),
                "somebody else teaches her too");
        assertFalse(AccountCare.isWith(mine, false, List.of(here, new AccountCare.Place(2, Role.MODERATOR))));
        assertFalse(AccountCare.isWith(mine, true, List.of(here)));
        assertFalse(AccountCare.isWith(mine, false, List.of()));
        assertTrue(AccountCare.worksHere(true, List.of()));
        assertTrue(AccountCare.worksHere(false, List.of(here, new AccountCare.Place(3, Role.MODERATOR))));
        assertTrue(AccountCare.worksHere(false, List.of(new AccountCare.Place(3, Role.ASSISTANT))));
        assertFalse(AccountCare.worksHere(false, List.of(here, new AccountCare.Place(3, Role.GUEST))));
        assertTrue(Passwords.mayChangeOwn(List.of()));
        assertFalse(Passwords.mayChangeOwn(List.of(true, false)), "one class that keeps the pass phrases is enough");
        assertEquals("A password has at least 8 characters.", Passwords.fault(" short  "));
        assertEquals("", Passwords.fault("long enough"));
        assertTrue(Passwords.mayChangeOwn(List.of(true, true)));
        assertEquals("", Passwords.fault("8letters"));
        assertEquals("A password has at least 8 characters.", Passwords.fault("7letter"));
        assertEquals("", Passwords.fault("x".repeat(Passwords.LONGEST)));
        assertEquals(
                "A password has at most 72 characters, less if it has letters beyond a to z.",
                Passwords.fault("x".repeat(Passwords.LONGEST + 1)));
        assertTrue(Passwords.fits("ø".repeat(36)));
        assertFalse(Passwords.fits("ø".repeat(37)));
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

    @ParameterizedTest
    @CsvSource({
        "wren@a.example, true",
        "wren@a.x, false",
        "wren@a, false",
        "@a.example, false",
        "wren a@a.example, false",
        "wren@@a.example, false",
        "<wren@a.example>, false",
        "w.c+x@mail.a.example, true"
    })
    void anAddressHasANameAPlaceAndAnEnd(String address, boolean valid) {
        assertEquals(valid, EmailAddress.isValid(address));
    }

    @Test
    void anAddressHasAtMost254Signs() {
        String end = "@a.example";
        assertTrue(EmailAddress.isValid("x".repeat(254 - end.length()) + end));
        assertFalse(EmailAddress.isValid("x".repeat(255 - end.length()) + end));
    }
}

package org.vastporch.core.people;

import static org.junit.jupiter.api.Assertions.*;

import java.time.Instant;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastporch.core.access.Role;

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

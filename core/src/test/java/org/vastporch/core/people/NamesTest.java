package org.vastporch.core.people;

import static org.junit.jupiter.api.Assertions.*;

import java.util.HashSet;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastporch.core.Refusal;

/** Names of people: as usernames, and as others read them. */
class NamesTest {

    @ParameterizedTest
    @CsvSource({
        "Wren, Castellane, wren.c",
        "Bożena, Łukaszewicz, bozena.l",
        "Марина, Тихонова, marina.t",
        "Thora, Sørbye, thora.s",
        "Maeve, O'Shaughn, maeve.o",
        "'', Cher, cher",
        "Cum, Ming, writer2",
        "李, 王, member2"
    })
    void usernamesArePlainAndHarmless(String given, String family, String username) {
        assertEquals(username, Usernames.make(new PersonName(family, given), taken -> false));
    }

    @Test
    void usernamesAreUnique() {
        Set<String> taken = new HashSet<>();
        for (int i = 0; i < 50; i++)
            assertTrue(taken.add(Usernames.make(new PersonName("Fairweather", "Rowan"), taken::contains)));
        assertTrue(taken.stream().allMatch(Usernames::isValid));
    }

    @Test
    void aNameIsThereAndFits() {
        assertEquals(
                "name-missing",
                assertThrows(Refusal.class, () -> new PersonName(" ", "\n")).code());
        String longest = "x".repeat(200);
        assertEquals(longest + " " + longest, new PersonName(longest, longest).full());
        Refusal family = assertThrows(Refusal.class, () -> new PersonName(longest + "x", "Wren"));
        assertEquals("family name-too-long", family.field() + " " + family.code());
        Refusal given = assertThrows(Refusal.class, () -> new PersonName("Castellane", longest + "x"));
        assertEquals("given name-too-long", given.field() + " " + given.code());
    }

    @Test
    void aPenNameHidesTheOwnName() {
        PersonName name = new PersonName("Rosenkilde", "Agnethe");
        assertEquals("Heron", name.shownAs(PersonName.Shown.PEN_NAME, "Heron", false));
        assertEquals("Agnethe Rosenkilde", name.shownAs(PersonName.Shown.PEN_NAME, "Heron", true));
        assertEquals("Agnethe R.", name.shownAs(PersonName.Shown.FIRST_AND_INITIAL, null, false));
    }

    @Test
    void aUsernameIsShortEnoughToType() {
        String longest = Usernames.make(new PersonName("", "x".repeat(90)), taken -> false);
        assertEquals("x".repeat(24), longest);
        assertEquals("x".repeat(24), Usernames.make(new PersonName("", "x".repeat(24)), taken -> false));
        assertEquals("x".repeat(24) + "2", Usernames.make(new PersonName("", "x".repeat(24)), "x".repeat(24)::equals));
    }

    @ParameterizedTest
    @CsvSource({"wren.c, true", "w2, true", "w, false", ".wren, false", "Wren, false", "wren c, false", "wren_c, false"
    })
    void aTypedUsernameCanBeOne(String username, boolean valid) {
        assertEquals(valid, Usernames.isValid(username));
        assertTrue(Usernames.isValid("x".repeat(40)));
        assertFalse(Usernames.isValid("x".repeat(41)));
    }

    @Test
    void whoHasOneNameIsShownByIt() {
        PersonName cher = new PersonName("Cher", "");
        assertEquals("Cher", cher.shownAs(PersonName.Shown.OWN_NAME, null, false));
        assertEquals("Cher", cher.shownAs(PersonName.Shown.FIRST_AND_INITIAL, null, false));
        assertEquals("Wren", new PersonName("", "Wren").shownAs(PersonName.Shown.FIRST_AND_INITIAL, null, false));
    }
}

package org.vastporch.core.people;

import static org.junit.jupiter.api.Assertions.*;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.vastporch.core.access.Role;
import org.vastporch.core.people.AccountCare.Place;

class AccountCareTest {

    private static final Set<Long> MINE = Set.of(1L, 2L);

    @ParameterizedTest
    @EnumSource(Role.class)
    void studentsAndGuestsOfOnesOwnClassesAreLookedAfterColleaguesAreNot(Role role) {
        boolean learns = role == Role.STUDENT || role == Role.GUEST;
        assertEquals(learns, AccountCare.isWith(MINE, false, List.of(new Place(1, role))));
        assertEquals(
                learns,
                AccountCare.isWith(MINE, false, List.of(new Place(1, role), new Place(2, Role.STUDENT))),
                "in two classes of one's own");
        assertEquals(
                role != Role.STUDENT && role != Role.GUEST, AccountCare.worksHere(false, List.of(new Place(9, role))));
    }

    @Test
    void nobodyLooksAfterWhoHasNoPlaceNorAfterTheSchoolsOwn() {
        assertFalse(AccountCare.isWith(MINE, false, List.of()));
        assertFalse(
                AccountCare.isWith(MINE, true, List.of(new Place(1, Role.STUDENT))),
                "a teacher who sits in as a student");
        assertFalse(
                AccountCare.isWith(Set.of(), false, List.of(new Place(1, Role.STUDENT))),
                "by somebody who manages no class");
        assertTrue(AccountCare.worksHere(true, List.of()));
        assertFalse(AccountCare.worksHere(false, List.of()));
    }

    /**
     * Law: whoever enrols an account into a class of theirs has no more of it than before; a place elsewhere takes it
     * from everybody who does not manage that class too.
     */
    @Test
    void enrollingSomebodyGivesNoHoldOverTheAccount() {
        Random random = new Random(5);
        for (int world = 0; world < 5_000; world++) {
            Set<Long> managed = new HashSet<>();
            for (int i = random.nextInt(4); i > 0; i--) managed.add((long) random.nextInt(6));
            List<Place> places = new ArrayList<>();
            for (int i = 1 + random.nextInt(3); i > 0; i--)
                places.add(new Place(random.nextInt(6), Role.values()[random.nextInt(Role.values().length)]));
            boolean teaches = random.nextInt(5) == 0;
            boolean before = AccountCare.isWith(managed, teaches, places);
            List<Place> enrolled = new ArrayList<>(places);
            for (long own : managed) enrolled.add(new Place(own, Role.STUDENT));
            assertEquals(before, AccountCare.isWith(managed, teaches, enrolled), () -> managed + " of " + places);
            List<Place> elsewhere = new ArrayList<>(places);
            elsewhere.add(new Place(77, Role.STUDENT));
            assertFalse(AccountCare.isWith(managed, teaches, elsewhere));
            assertFalse(before && AccountCare.worksHere(teaches, places), "whoever works here is in nobody's care");
        }
    }
}

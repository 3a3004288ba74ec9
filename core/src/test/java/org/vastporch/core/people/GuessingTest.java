package org.vastporch.core.people;

import static org.junit.jupiter.api.Assertions.*;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastporch.core.people.Guessing.Failed;

class GuessingTest {

    @ParameterizedTest
    @CsvSource({
        "0, 0, 0, 0, false, 0",
        "2, 2, 2, 0, false, 0",
        "3, 3, 3, 0, false, 1",
        "4, 4, 4, 0, false, 2",
        "7, 7, 7, 0, false, 16",
        "8, 8, 8, 0, false, 30",
        "5000, 5000, 5000, 0, false, 30",
        "0, 29, 0, 0, false, 0",
        "0, 30, 0, 0, false, 2",
        "0, 100, 0, 0, false, 5",
        "0, 0, 99, 0, false, 0",
        "0, 0, 100, 0, false, 2",
        "0, 0, 300, 0, false, 5",
        "500, 500, 500, 0, true, 0",
        "500, 500, 500, 4, true, 0",
        "500, 500, 500, 5, true, 30"
    })
    void waitsLongerAndLongerButForAKnownDevice(
            int together, int account, int address, int device, boolean known, int seconds) {
        assertEquals(
                seconds,
                Guessing.beforePassword(new Failed(together, account, address, device), known)
                        .toSeconds());
    }

    @ParameterizedTest
    @CsvSource({"0, 0", "29, 0", "30, 1", "31, 2", "33, 8", "34, 10", "9000, 10"})
    void aClassThatMistypesIsNotSlowedDown(int failed, int seconds) {
        assertEquals(seconds, Guessing.beforeCode(failed).toSeconds());
    }

    /**
     * Law: whoever was never wrong waits at most a few seconds, whatever others do with the same name or behind the
     * same address.
     */
    @Test
    void nobodyIsLockedOutByOthers() {
        assertTrue(Guessing.beforePassword(new Failed(0, Integer.MAX_VALUE, Integer.MAX_VALUE, 0), false)
                        .toSeconds()
                <= 5);
    }
}

package org.vastporch.core.media;

import static org.junit.jupiter.api.Assertions.*;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class RoomTest {

    private static final long MEGABYTE = 1_048_576;

    @ParameterizedTest
    @CsvSource({
        "true,  0, 0,  2, FITS",
        "true,  1, 1,  1, FITS",
        "true,  1, 1,  2, STUDENT_FULL",
        "true,  0, 9,  2, CLASS_FULL",
        "true,  2, 10, 1, STUDENT_FULL",
        "false, 9, 9,  1, FITS",
        "false, 0, 9,  2, CLASS_FULL"
    })
    void aFileFitsUntilTheStudentOrTheClassIsFull(boolean student, long own, long used, long more, Room.Answer answer) {
        assertEquals(answer, new Room(2, 10).take(student, own * MEGABYTE, used * MEGABYTE, more * MEGABYTE));
    }

    @Test
    void theLastByteFitsAndTheNextDoesNot() {
        Room room = new Room(1, 2);
        assertEquals(Room.Answer.FITS, room.take(true, 0, 0, MEGABYTE));
        assertEquals(Room.Answer.STUDENT_FULL, room.take(true, 1, 1, MEGABYTE));
        assertEquals(
                Room.Answer.FITS,
                new Room(1_000_000, 1_000_000).take(true, 999_999 * MEGABYTE, 999_999 * MEGABYTE, MEGABYTE),
                "no number is too large for it");
        assertThrows(IllegalArgumentException.class, () -> new Room(0, 5));
    }
}

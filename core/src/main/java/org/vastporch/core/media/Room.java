package org.vastporch.core.media;

/**
 * How much room pictures and files may take in a class.
 *
 * @param student for each student, in megabytes of 1024² bytes
 * @param inAll for the whole class, its staff included, in the same
 */
public record Room(int student, int inAll) {

    /** What a new class has. */
    public static final Room USUAL = new Room(300, 6_000);

    private static final long MEGABYTE = 1024L * 1024;

    /** Whether one more file fits, and if not, whose room is full. */
    public enum Answer {
        FITS,
        STUDENT_FULL,
        CLASS_FULL
    }

    public Room {
        if (student < 1 || inAll < 1)
            throw new IllegalArgumentException("Room is at least one megabyte: " + student + ", " + inAll);
    }

    /**
     * Decides about one more file.
     *
     * @param isStudent whose files count for the student as well as for the class
     * @param own bytes that its sender has in the class
     * @param used bytes that the class has
     * @param more bytes of the file
     */
    public Answer take(boolean isStudent, long own, long used, long more) {
        if (isStudent && own + more > student * MEGABYTE) return Answer.STUDENT_FULL;
        return used + more > inAll * MEGABYTE ? Answer.CLASS_FULL : Answer.FITS;
    }
}

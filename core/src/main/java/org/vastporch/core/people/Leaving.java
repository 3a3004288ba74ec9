package org.vastporch.core.people;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.vastporch.core.access.Role;

/**
 * What becomes of a student's writing when the enrolment ends. Erasing a person is a third way, which cannot be undone.
 */
public enum Leaving {
    /** The posts stay where they are, for the readers they have. */
    KEEP,
    /** The posts go with the student: only their author and the staff of the class read them. */
    HAND_OVER;

    /** How long an ended enrolment can be taken up again. */
    public static final Duration UNDO = Duration.ofDays(30);

    /** Tells whether an enrolment that ended can be taken up again as it was. */
    public static boolean canReturn(Instant ended, Instant now) {
        return now.isBefore(ended.plus(UNDO));
    }

    /**
     * Tells whether a person can be erased: those who decided or marked as staff cannot, since decisions and marks must
     * keep their maker.
     *
     * @param roles all roles that the person has or had, in any class
     */
    public static boolean canErase(boolean keeper, boolean teacher, List<Role> roles) {
        return !keeper && !teacher && roles.stream().allMatch(role -> role == Role.STUDENT || role == Role.GUEST);
    }
}

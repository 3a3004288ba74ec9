package org.vastporch.core.people;

import java.util.List;
import org.vastporch.core.access.Role;

/** What a password must be, and who may change an own one. */
public final class Passwords {

    public static final int SHORTEST = 8;
    /** More does not count in the hash. */
    public static final int LONGEST = 72;

    private Passwords() {}

    /** What is wrong with a new password, in words; empty if nothing is. */
    public static String fault(String password) {
        if (password.strip().length() < SHORTEST) return "A password has at least " + SHORTEST + " characters.";
        return password.length() > LONGEST ? "A password has at most " + LONGEST + " characters." : "";
    }

    /**
     * Tells whether a person may change the own password: everybody but students of whom a class keeps it.
     *
     * @param classesAllow for each class in which the person is a student now, whether it lets its students
     */
    public static boolean mayChangeOwn(List<Boolean> classesAllow) {
        return classesAllow.stream().allMatch(allows -> allows);
    }

    /**
     * Tells whether staff of a class may give one of its students a new pass phrase: not to somebody who is more than a student anywhere,
     * or a teacher could sign in as a colleague.
     */
    public static boolean mayRenew(boolean keepsOrTeaches, List<Role> rolesNow) {
        return !keepsOrTeaches && rolesNow.stream().allMatch(role -> role == Role.STUDENT || role == Role.GUEST);
    }
}

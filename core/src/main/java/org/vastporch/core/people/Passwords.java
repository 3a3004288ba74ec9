package org.vastporch.core.people;

import java.nio.charset.StandardCharsets;
import java.util.List;

/** What a password must be, and who may change an own one. */
public final class Passwords {

    public static final int SHORTEST = 8;
    /** More bytes do not count in the hash. */
    public static final int LONGEST = 72;

    private Passwords() {}

    /** What is wrong with a new password, in words; empty if nothing is. */
    public static String fault(String password) {
        if (password.strip().length() < SHORTEST) return "A password has at least " + SHORTEST + " characters.";
        return fits(password)
                ? ""
                : "A password has at most " + LONGEST + " characters, less if it has letters beyond a to z.";
    }

    /**
     * Tells whether all of a text would count in the hash: by its bytes, of which letters beyond a to z have more than
     * one.
     */
    public static boolean fits(String password) {
        return password.length() <= LONGEST && password.getBytes(StandardCharsets.UTF_8).length <= LONGEST;
    }

    /**
     * Tells whether a person may change the own password: everybody but students of whom a class keeps it.
     *
     * @param classesAllow for each class in which the person is a student now, whether it lets its students
     */
    public static boolean mayChangeOwn(List<Boolean> classesAllow) {
        return classesAllow.stream().allMatch(allows -> allows);
    }
}

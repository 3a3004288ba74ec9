package org.vastporch.core.people;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.Refusal;
import org.vastporch.core.access.Role;

/** What can become of a person's place in a class, and who may erase a person. */
public final class PlaceRules {

    /** Who may erase a person. */
    public enum Eraser {
        YOU,
        KEEPER,
        /** Whoever decided or marked stays: decisions and marks keep their maker. */
        NOBODY
    }

    /**
     * A person as far as erasing goes.
     *
     * @param roles all roles that the person has or had, in any class
     * @param allLed whether the one who asks leads each of those classes now
     */
    public record Person(boolean keeper, boolean teacher, List<Role> roles, boolean allLed) {}

    private PlaceRules() {}

    /**
     * Students stay students, and a class keeps its lead.
     *
     * @throws Refusal if the role cannot become the other one
     */
    public static void checkRole(Role from, Role to) {
        if (from == Role.STUDENT || to == Role.STUDENT)
            throw new Refusal(
                    "role",
                    "student-stays",
                    "A student stays a student here. End the enrolment first, then invite the person "
                            + "as something else.");
        if (from == Role.LEAD || to == Role.LEAD)
            throw new Refusal("role", "lead-stays", "A class has one lead teacher, who stays.");
    }

    /**
     * @param own whether it is the place of the one who asks
     * @throws Refusal if the place cannot be ended by that person, whenever it is asked
     */
    public static void checkEnd(Role role, boolean own) {
        if (own) throw new Refusal("person", "own-place", "You cannot end your own place in the class.");
        if (role == Role.LEAD) throw new Refusal("person", "lead-stays", "A class has one lead teacher, who stays.");
    }

    /**
     * Whether a place that may have ended can be taken up again as it was.
     *
     * @param ended when it did; null if it has not
     */
    public static boolean canReturn(@Nullable Instant ended, Instant now) {
        return ended != null && Leaving.canReturn(ended, now);
    }

    /**
     * Whoever leads all classes of a person may erase them; the school keeper may always.
     *
     * @param asksKeeper whether the keeper asks
     */
    public static Eraser eraser(Person person, boolean asksKeeper) {
        if (!Leaving.canErase(person.keeper(), person.teacher(), person.roles())) return Eraser.NOBODY;
        return asksKeeper || person.allLed() ? Eraser.YOU : Eraser.KEEPER;
    }
}

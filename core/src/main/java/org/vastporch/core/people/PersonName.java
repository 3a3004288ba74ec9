package org.vastporch.core.people;

import org.jspecify.annotations.Nullable;
import org.vastporch.core.Refusal;
import org.vastporch.core.text.OneLine;

/** A person's name: family name and given name; one of them may be empty. */
public record PersonName(String family, String given) {

    private static final int LONGEST = 200;

    /** How a member appears to readers who are not staff. */
    public enum Shown {
        OWN_NAME,
        FIRST_AND_INITIAL,
        PEN_NAME
    }

    public PersonName {
        family = OneLine.of(family);
        given = OneLine.of(given);
        if (family.isEmpty() && given.isEmpty()) throw new Refusal("given", "name-missing", "A name is needed.");
        requireShort("family", family);
        requireShort("given", given);
    }

    private static void requireShort(String field, String name) {
        if (name.length() > LONGEST)
            throw new Refusal(
                    field,
                    "name-too-long",
                    "A " + field + " name has at most " + LONGEST + " characters; this one has " + name.length() + ".");
    }

    public String full() {
        return (given + " " + family).strip();
    }

    /**
     * What readers see.
     *
     * @param penName the pen name; the first name with an initial stands in while there is none
     * @param seesReal whether the reader may see the real name, from the access engine
     */
    public String shownAs(Shown shown, @Nullable String penName, boolean seesReal) {
        if (seesReal || shown == Shown.OWN_NAME) return full();
        if (shown == Shown.PEN_NAME && penName != null && !penName.isBlank()) return penName;
        if (given.isEmpty()) return family;
        return family.isEmpty() ? given : given + " " + family.substring(0, family.offsetByCodePoints(0, 1)) + ".";
    }
}

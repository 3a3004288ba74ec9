package org.vastporch.core.people;

import java.util.List;
import java.util.Set;
import java.util.function.Predicate;
import org.vastporch.core.text.Latin;

/** Makes usernames: from names in any script, in plain letters, unique, and never rude by accident of joining. */
public final class Usernames {

    private static final int LONGEST = 24;
    private static final List<String> RUDE = List.of(
            "anal", "arse", "ass", "bum", "cock", "crap", "cum", "damn", "dick", "fag", "fart", "fuck", "hell", "homo",
            "kkk", "nazi", "nob", "piss", "poo", "porn", "prick", "pube", "rape", "sex", "shit", "slut", "spic", "tit",
            "turd", "twat", "wank", "whore");

    private Usernames() {}

    /**
     * A username for a name: given name, dot, initial of the family name ("wren.c"); with a number if that is taken.
     *
     * @param isTaken tells whether somebody in the school has a username
     */
    public static String make(PersonName name, Predicate<String> isTaken) {
        String given = Latin.of(name.given().split("[ -]")[0]);
        String family = Latin.of(name.family());
        String initial = family.isEmpty() ? "" : family.substring(0, 1);
        String base = given.isEmpty() ? family : initial.isEmpty() ? given : given + "." + initial;
        if (base.length() > LONGEST) base = base.substring(0, LONGEST);
        if (base.isEmpty()) base = "member";
        if (isRude(given, initial)) base = given.isEmpty() || RUDE.contains(given) ? "writer" : given;
        if (!isTaken.test(base) && !base.equals("writer") && !base.equals("member")) return base;
        for (int number = 2; ; number++) {
            String candidate = base + number;
            if (!isTaken.test(candidate)) return candidate;
        }
    }

    /** Tells whether a typed username can be one: 2 to 40 of a–z, 0–9, dot, dash. */
    public static boolean isValid(String username) {
        return username.matches("[a-z0-9][a-z0-9.-]{1,39}");
    }

    private static boolean isRude(String given, String initial) {
        String joined = given + initial;
        return RUDE.contains(given)
                || RUDE.contains(joined)
                || Set.of("fuck", "shit", "cunt", "nigg").stream().anyMatch(joined::contains);
    }
}

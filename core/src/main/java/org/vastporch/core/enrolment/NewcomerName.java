package org.vastporch.core.enrolment;

import java.util.Collection;
import java.util.Set;
import java.util.stream.Collectors;
import org.vastporch.core.people.PersonName;
import org.vastporch.core.text.Searchable;

/**
 * The name under which somebody comes in by themselves: shown to the class at once, unless it could be taken for
 * somebody else's.
 */
public final class NewcomerName {

    /** What readers see until staff have looked at the name. */
    public static final String UNTIL_ASKED = "A new student";

    private static final Set<String> TITLES = Set.of(
            "mr",
            "mrs",
            "ms",
            "miss",
            "mx",
            "dr",
            "prof",
            "professor",
            "sir",
            "madam",
            "mister",
            "teacher",
            "headteacher",
            "principal",
            "herr",
            "frau",
            "monsieur",
            "madame",
            "senor",
            "senora",
            "admin",
            "administrator",
            "moderator",
            "keeper");

    private NewcomerName() {}

    /**
     * Tells whether staff are asked about a name before it shows.
     *
     * @param taken the names of staff of the school, with and without their titles, and of the members of the class
     */
    public static boolean isAsked(PersonName name, Collection<String> taken) {
        String full = plain(name.full());
        for (String word : full.split(" ")) if (TITLES.contains(word)) return true;
        return taken.stream().map(NewcomerName::plain).collect(Collectors.toSet()).stream()
                .anyMatch(t -> !t.isEmpty() && (t.equals(full) || t.equals(turned(full))));
    }

    /** The words of a name as they look, whatever signs they are made of. */
    private static String plain(String name) {
        return Searchable.of(name).text().replaceAll("[^\\p{L}\\p{N}]+", " ").strip();
    }

    private static String turned(String full) {
        int space = full.lastIndexOf(' ');
        return space < 0 ? full : full.substring(space + 1) + " " + full.substring(0, space);
    }
}

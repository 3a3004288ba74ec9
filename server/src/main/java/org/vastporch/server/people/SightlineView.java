package org.vastporch.server.people;

import java.text.Collator;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import org.vastporch.core.access.Role;
import org.vastporch.core.access.Sightline;

/**
 * A sightline for the screen: how many, of which kind, and by name.
 *
 * @param others    readers of the school who are not in the class
 * @param strangers whether anybody on the internet can read it
 */
public record SightlineView(String audience, boolean strangers, int readers, int students, int staff, int guests, int others,
                            int commenters, int writers, List<String> readerNames, List<String> writerNames) {

    public static SightlineView of(Sightline line, Names names) {
        List<Role> roles = line.readers().stream().map(id -> names.byId().get(id)).filter(Objects::nonNull).map(Names.Shown::role).toList();
        int students = (int) roles.stream().filter(r -> r == Role.STUDENT).count();
        int guests = (int) roles.stream().filter(r -> r == Role.GUEST).count();
        return new SightlineView(line.audience().name(), line.strangers(), line.readers().size(), students, roles.size() - students - guests, guests,
            line.readers().size() - roles.size(), line.commenters().size(), line.writers().size(), named(line.readers(), names), named(line.writers(), names));
    }

    private static List<String> named(List<Long> ids, Names names) {
        // In the order of the names that are shown: an order by hidden names would tell them.
        return ids.stream().filter(names.byId()::containsKey).map(names::of).sorted(Collator.getInstance(Locale.ENGLISH)::compare).toList();
    }
}

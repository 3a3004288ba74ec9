package org.vastporch.server.people;

import java.text.Collator;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.access.Role;
import org.vastporch.core.access.Sightline;
import org.vastporch.core.access.Sightline.Detail;
import org.vastporch.core.blogs.Audience;
import org.vastporch.server.http.Optionally;

/**
 * A sightline for the screen, as far as its viewer may know it: how far it reaches, how many of which kind, and by
 * name.
 *
 * @param strangers whether anybody on the internet can read it
 * @param heads left out for strangers and people from outside the class
 * @param names for students and staff of the class alone
 */
public record SightlineView(
        Audience audience,
        boolean strangers,
        @Optionally Heads heads,
        @Optionally ReaderNames names) {

    /** @param others readers of the school who are not in the class */
    public record Heads(int readers, int students, int staff, int guests, int others, int commenters, int writers) {}

    public record ReaderNames(List<String> readers, List<String> writers) {}

    public static SightlineView of(Sightline line, Names names, Detail detail) {
        return new SightlineView(
                line.audience(),
                line.strangers(),
                detail == Detail.AUDIENCE ? null : heads(line, names),
                detail == Detail.NAMES
                        ? new ReaderNames(named(line.readers(), names), named(line.writers(), names))
                        : null);
    }

    private static @Nullable Heads heads(Sightline line, Names names) {
        List<Role> roles = line.readers().stream()
                .map(id -> names.byId().get(id))
                .filter(Objects::nonNull)
                .map(Names.Shown::role)
                .toList();
        int students = (int) roles.stream().filter(r -> r == Role.STUDENT).count();
        int guests = (int) roles.stream().filter(r -> r == Role.GUEST).count();
        return new Heads(
                line.readers().size(),
                students,
                roles.size() - students - guests,
                guests,
                line.readers().size() - roles.size(),
                line.commenters().size(),
                line.writers().size());
    }

    private static List<String> named(List<Long> ids, Names names) {
        // In the order of the names that are shown: an order by hidden names would tell them.
        return ids.stream()
                .filter(names.byId()::containsKey)
                .map(names::of)
                .sorted(Collator.getInstance(Locale.ENGLISH)::compare)
                .toList();
    }
}

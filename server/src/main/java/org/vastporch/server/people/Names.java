package org.vastporch.server.people;

import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.access.Role;

/**
 * The names of a class's members as one viewer may see them.
 *
 * @param others people of other classes who commented in this one: each with the class they come from
 */
public record Names(Map<Long, Shown> byId, Map<Long, String> others) {

    /**
     * @param group the name of the group; null for none
     * @param place the number of the person's place in the class: what readers get instead of the account's
     */
    public record Shown(String name, Role role, @Nullable String group, long place) {}

    private static final Shown NOBODY = new Shown("Somebody who left", Role.STUDENT, null, 0);

    public Names {
        byId = Map.copyOf(byId);
        others = Map.copyOf(others);
    }

    public String of(long personId) {
        Shown member = byId.get(personId);
        return member != null ? member.name() : others.getOrDefault(personId, NOBODY.name());
    }

    public long placeOf(long personId) {
        return byId.getOrDefault(personId, NOBODY).place();
    }

    public @Nullable String groupOf(long personId) {
        return byId.getOrDefault(personId, NOBODY).group();
    }
}

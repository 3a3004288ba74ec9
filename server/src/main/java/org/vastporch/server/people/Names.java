package org.vastporch.server.people;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.access.Role;

/**
 * The names of a class's members as one viewer may see them.
 *
 * @param others people of other classes who commented in this one: each with the class they come from
 * @param nobody what stands for whoever has no name here
 */
public record Names(Map<Long, Shown> byId, Map<Long, String> others, String nobody) {

    /**
     * @param group the name of the group; null for none
     * @param place the number of the person's place in the class: what readers get instead of the account's
     */
    public record Shown(String name, Role role, @Nullable String group, long place) {}

    private static final String LEFT = "Somebody who left";
    private static final String KEPT_BACK = "Somebody in the class";

    public Names(Map<Long, Shown> byId, Map<Long, String> others) {
        this(byId, others, LEFT);
    }

    public Names {
        byId = Map.copyOf(byId);
        others = Map.copyOf(others);
    }

    public String of(long personId) {
        Shown member = byId.get(personId);
        return member != null ? member.name() : others.getOrDefault(personId, nobody);
    }

    public long placeOf(long personId) {
        Shown member = byId.get(personId);
        return member == null ? 0 : member.place();
    }

    public @Nullable String groupOf(long personId) {
        Shown member = byId.get(personId);
        return member == null ? null : member.group();
    }

    /** The same where names are kept back: of those who work for the class, and the reader's own. */
    public Names keptFrom(long reader) {
        Map<Long, Shown> left = new HashMap<>(byId);
        left.entrySet()
                .removeIf(e -> e.getKey() != reader && !e.getValue().role().works());
        return new Names(left, Map.of(), KEPT_BACK);
    }

    /**
     * The same in one thread, where those whose names are kept back are told apart.
     *
     * @param author who wrote the post
     * @param others who commented on it, each once, in the order in which they did
     */
    public Names inThread(long author, List<Long> others) {
        if (!nobody.equals(KEPT_BACK)) return this;
        Map<Long, Shown> told = new HashMap<>(byId);
        told.putIfAbsent(author, unnamed("The author"));
        int number = 0;
        for (long other : others) {
            Shown known = byId.get(other);
            if (other == author || known != null && known.role().works()) continue;
            // A reader's own place is counted too, so that all read the same numbers.
            number++;
            told.putIfAbsent(other, unnamed("Reader " + number));
        }
        return new Names(told, Map.of(), nobody);
    }

    private static Shown unnamed(String as) {
        return new Shown(as, Role.STUDENT, null, 0);
    }
}

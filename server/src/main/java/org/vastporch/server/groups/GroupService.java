package org.vastporch.server.groups;

import java.security.SecureRandom;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.groups.GroupSplit;
import org.vastporch.core.text.OneLine;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.people.PeopleService;

/** Groups inside a class. */
@Service
public class GroupService {

    /** Some students and the group they go to; without one they go to none. */
    public record Move(List<Long> people, @Optionally Long groupId) {}

    /**
     * A wish to split students into new groups, or into those that are there.
     *
     * @param people who is split; nobody named means all students
     * @param groups into how many
     * @param atRandom by chance, else in the order of the list
     */
    public record Split(List<Long> people, int groups, boolean atRandom) {}

    private static final int MOST_GROUPS = 60;
    private static final int LONGEST_NAME = 60;

    private final GroupStore store;
    private final PeopleService people;
    private final AccessService access;
    private final EventStore events;
    private final SecureRandom random = new SecureRandom();

    GroupService(GroupStore store, PeopleService people, AccessService access, EventStore events) {
        this.store = store;
        this.people = people;
        this.access = access;
        this.events = events;
    }

    @Transactional
    public PeopleService.Group add(Viewer viewer, long classId, String name) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        String free = free(classId, name, 0);
        if (people.groups(classId).size() >= MOST_GROUPS)
            throw Problem.invalid("name", "too-many-groups", "A class has at most " + MOST_GROUPS + " groups.");
        return people.group(classId, free);
    }

    @Transactional
    public void rename(Viewer viewer, long groupId, String name) {
        long classId = requireGroup(viewer, groupId);
        store.rename(groupId, free(classId, name, groupId));
        events.add(classId, "groups-changed", null, viewer.personId());
    }

    /** Dissolves a group; its students are in none then. One that has a blog, or to which a blog opens, stays. */
    @Transactional
    public void remove(Viewer viewer, long groupId) {
        long classId = requireGroup(viewer, groupId);
        if (store.isUsed(groupId))
            throw Problem.stale(
                    "group-used", "This group has a blog, or a blog opens to it alone. Change that blog first.");
        store.remove(groupId);
        events.add(classId, "group-removed", groupId, viewer.personId());
    }

    /** Moves students and says how to undo it: the moves that put everybody back. */
    @Transactional
    public List<Move> move(Viewer viewer, long classId, List<Move> moves) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        Map<Long, Optional<Long>> before = people.studentGroups(classId);
        Map<Long, List<Long>> back = new HashMap<>();
        for (Move move : moves) {
            if (move.groupId() != null
                    && store.classOf(move.groupId()).filter(c -> c == classId).isEmpty()) throw Problem.missing();
            for (long person : move.people()) {
                if (!before.containsKey(person))
                    throw Problem.invalid(
                            "people", "not-a-student", "Only students who are in the class now have a group.");
                back.computeIfAbsent(before.get(person).orElse(null), g -> new ArrayList<>())
                        .add(person);
            }
            people.setGroup(classId, move.people(), move.groupId());
        }
        events.add(classId, "groups-changed", null, viewer.personId());
        return back.entrySet().stream()
                .map(e -> new Move(e.getValue(), e.getKey()))
                .toList();
    }

    /**
     * Splits students into as many groups as wished, the first ones of the class and new ones if there are too few;
     * says how to undo it.
     */
    @Transactional
    public List<Move> split(Viewer viewer, long classId, Split wish) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        if (wish.groups() < 1 || wish.groups() > MOST_GROUPS)
            throw Problem.invalid("groups", "groups-range", "Students are split into 1 to " + MOST_GROUPS + " groups.");
        List<Long> who = people.students(classId).stream()
                .filter(s -> wish.people().isEmpty() || wish.people().contains(s))
                .toList();
        List<List<Long>> split = wish.atRandom()
                ? GroupSplit.atRandom(who, wish.groups(), random)
                : GroupSplit.inOrder(who, wish.groups());
        List<PeopleService.Group> groups = new ArrayList<>(people.groups(classId));
        for (int number = 1; groups.size() < wish.groups(); number++) {
            String name = "Group " + number;
            if (groups.stream().noneMatch(g -> g.name().equals(name))) groups.add(people.group(classId, name));
        }
        List<Move> moves = new ArrayList<>();
        for (int i = 0; i < split.size(); i++)
            moves.add(new Move(split.get(i), groups.get(i).id()));
        return move(viewer, classId, moves);
    }

    private String free(long classId, String wanted, long except) {
        String name = OneLine.of(wanted);
        if (name.isEmpty()) throw Problem.invalid("name", "name-missing", "Give the group a name.");
        if (name.length() > LONGEST_NAME)
            throw Problem.invalid(
                    "name", "name-too-long", "A group's name has at most " + LONGEST_NAME + " characters.");
        if (people.groups(classId).stream()
                .anyMatch(g -> g.id() != except && g.name().equalsIgnoreCase(name)))
            throw Problem.invalid("name", "name-taken", "There is a group of this name already.");
        return name;
    }

    private long requireGroup(Viewer viewer, long groupId) {
        long classId = store.classOf(groupId).orElseThrow(Problem::missing);
        access.require(viewer, Act.MANAGE_CLASS, classId);
        return classId;
    }
}

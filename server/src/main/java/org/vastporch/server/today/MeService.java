package org.vastporch.server.today;

import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Membership;
import org.vastporch.core.access.Reason;
import org.vastporch.core.access.Role;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.marking.MarkingDesk;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.people.PeopleService.TriesView;

/** Who is signed in, with their classes and what waits in each. */
@Service
public class MeService {

    /**
     * @param staff whether one reads what staff read
     * @param manages whether one may change the class itself
     * @param approves whether one decides what is published
     * @param waits what waits for approval, for those who approve
     * @param toMark posts ready to be marked, for staff
     * @param returned own posts that came back, for students
     */
    public record Place(
            long id,
            String name,
            String level,
            Role role,
            boolean staff,
            boolean manages,
            boolean approves,
            int waits,
            int toMark,
            int returned) {}

    /** @param tries tries at the own password that did not work, if there were more than slips of the fingers */
    public record Me(
            long id,
            String name,
            boolean keeper,
            boolean teacher,
            List<Place> classes,
            @Optionally TriesView tries) {}

    private final TodayStore store;
    private final PeopleService people;
    private final ClassService classes;
    private final MarkingDesk desk;
    private final AccessService access;
    private final Clock clock;

    MeService(
            TodayStore store,
            PeopleService people,
            ClassService classes,
            MarkingDesk desk,
            AccessService access,
            Clock clock) {
        this.store = store;
        this.people = people;
        this.classes = classes;
        this.desk = desk;
        this.access = access;
        this.clock = clock;
    }

    public Me of(Viewer viewer) {
        if (viewer.isStranger()) throw Problem.refused(Reason.SIGN_IN_FIRST);
        List<Membership> active = viewer.memberships().stream()
                .filter(m -> m.isActiveAt(clock.instant()))
                .toList();
        Map<Long, TodayStore.Waiting> waiting =
                store
                        .waiting(active.stream()
                                .filter(m -> m.role().approves())
                                .map(Membership::classId)
                                .toList())
                        .stream()
                        .collect(Collectors.toMap(TodayStore.Waiting::classId, Function.identity()));
        List<Place> places = new ArrayList<>();
        for (Membership member : active) {
            ClassService.ClassRecord in = classes.get(member.classId());
            TodayStore.Waiting waits = waiting.get(member.classId());
            int toMark = access.allows(viewer, Act.MARK, member.classId())
                    ? desk.of(member.classId()).stream()
                            .mapToInt(p -> p.waiting(member.role().managesClass()))
                            .sum()
                    : 0;
            places.add(new Place(
                    in.id(),
                    in.name(),
                    in.level(),
                    member.role(),
                    member.role().readsAsStaff(),
                    member.role().managesClass(),
                    member.role().approves(),
                    waits == null ? 0 : waits.all(),
                    toMark,
                    member.role() == Role.STUDENT ? store.returned(viewer.personId(), in.id()) : 0));
        }
        return new Me(
                viewer.personId(),
                people.ownName(viewer.personId()),
                viewer.keeper(),
                people.isTeacher(viewer.personId()),
                places,
                people.tries(viewer.personId()).orElse(null));
    }
}

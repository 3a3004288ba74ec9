package org.vastporch.server.media;

import java.time.Clock;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Membership;
import org.vastporch.core.access.Role;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.media.Room;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;

/** How much room pictures and files may take in a class, and what they take. */
@Service
public class RoomService {

    /** @param bytes what somebody's pictures and files take */
    public record RoomTaken(String name, long bytes) {}

    /**
     * @param student megabytes for each student; {@code inAll} for the class; {@code used} bytes of the class;
     *     {@code most} who takes the most, first
     */
    public record RoomView(int student, int inAll, long used, List<RoomTaken> most, int rev) {}

    public record RoomWish(int student, int inAll, int rev) {}

    private static final int NAMED = 5;
    private static final int MOST_MEGABYTES = 1_000_000;

    private final MediaStore store;
    private final PeopleService people;
    private final AccessService access;
    private final EventStore events;
    private final Clock clock;

    RoomService(MediaStore store, PeopleService people, AccessService access, EventStore events, Clock clock) {
        this.store = store;
        this.people = people;
        this.access = access;
        this.events = events;
        this.clock = clock;
    }

    public RoomView of(Viewer viewer, long classId) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        MediaStore.ClassRoom room = store.room(classId);
        Map<Long, Long> used = store.used(classId);
        Names names = people.names(viewer, classId);
        List<RoomTaken> most = used.entrySet().stream()
                .filter(e -> e.getKey() != 0 && e.getValue() > 0)
                .sorted(Map.Entry.comparingByValue(Comparator.reverseOrder()))
                .limit(NAMED)
                .map(e -> new RoomTaken(names.of(e.getKey()), e.getValue()))
                .toList();
        return new RoomView(room.room().student(), room.room().inAll(), sum(used), most, room.rev());
    }

    @Transactional
    public RoomView set(Viewer viewer, long classId, RoomWish wish) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        for (int size : new int[] {wish.student(), wish.inAll()})
            if (size < 1 || size > MOST_MEGABYTES)
                throw Problem.invalid(
                        size == wish.student() ? "student" : "inAll",
                        "room-range",
                        "Between 1 and " + MOST_MEGABYTES + " megabytes.");
        if (store.lockRoom(classId).rev() != wish.rev())
            throw Problem.stale(
                    "class-changed", "Somebody else changed this meanwhile. Look at it as it is now, then change it.");
        store.setRoom(classId, new Room(wish.student(), wish.inAll()));
        events.add(classId, "room-changed", null, viewer.personId());
        return of(viewer, classId);
    }

    /** Throws unless a file fits, as things are at this moment. */
    void requireRoom(Viewer viewer, long classId, String field, long bytes) {
        refuse(store.room(classId), viewer, classId, field, bytes);
    }

    /** The same within a transaction, in which nobody else takes room in the class. */
    void take(Viewer viewer, long classId, String field, long bytes) {
        refuse(store.lockRoom(classId), viewer, classId, field, bytes);
    }

    private void refuse(MediaStore.ClassRoom room, Viewer viewer, long classId, String field, long bytes) {
        Map<Long, Long> used = store.used(classId);
        boolean student = viewer.in(classId, clock.instant())
                .map(Membership::role)
                .filter(role -> role == Role.STUDENT)
                .isPresent();
        switch (room.room().take(student, used.getOrDefault(viewer.personId(), 0L), sum(used), bytes)) {
            case FITS -> {}
            case STUDENT_FULL ->
                throw Problem.invalid(
                        field,
                        "room-full",
                        "Your pictures and files take all of the " + room.room().student()
                                + " megabytes that you have in this class. Ask your teacher for more room.");
            case CLASS_FULL ->
                throw Problem.invalid(
                        field,
                        "room-full",
                        "The pictures and files of this class take all of its "
                                + room.room().inAll() + " megabytes. Its teacher can give it more room.");
        }
    }

    private static long sum(Map<Long, Long> used) {
        return used.values().stream().mapToLong(Long::longValue).sum();
    }
}

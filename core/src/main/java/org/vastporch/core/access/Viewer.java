package org.vastporch.core.access;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Who is looking: a signed-in person with their places in classes, or a stranger.
 *
 * @param personId the person; 0 for a stranger
 * @param keeper whether the person keeps the school (creates teachers); gives no right to read classes
 * @param answered the prompts that ask for an own answer first and to which the person has published one
 * @param lens the class whose pages staff look at through this viewer's eyes; null for the person in person
 */
public record Viewer(
        long personId,
        boolean keeper,
        List<Membership> memberships,
        Set<Long> answered,
        @Nullable Long lens) {

    public static final Viewer STRANGER = new Viewer(0, false, List.of());

    public Viewer {
        memberships = List.copyOf(memberships);
        answered = Set.copyOf(answered);
    }

    public Viewer(long personId, boolean keeper, List<Membership> memberships) {
        this(personId, keeper, memberships, Set.of(), null);
    }

    /**
     * The same person as staff of a class may borrow their eyes: with no place but the one in that class, and with
     * nothing to see outside of it.
     */
    public Viewer throughLens(long classId) {
        return new Viewer(
                personId,
                false,
                memberships.stream().filter(m -> m.classId() == classId).toList(),
                answered,
                classId);
    }

    public boolean isStranger() {
        return personId == 0;
    }

    /** Tells whether the person is here in person, and not somebody who borrows the eyes. */
    public boolean isInPerson() {
        return lens == null;
    }

    /** The place that the viewer has in a class at {@code now}, if any. */
    public Optional<Membership> in(long classId, Instant now) {
        return memberships.stream()
                .filter(m -> m.classId() == classId && m.isActiveAt(now))
                .findFirst();
    }

    /** Tells whether the viewer is one of the school's own at {@code now}: keeper, staff or student somewhere. */
    public boolean isOfSchool(Instant now) {
        return !isStranger()
                && (keeper
                        || memberships.stream()
                                .anyMatch(m -> m.isActiveAt(now) && m.role().isOfSchool()));
    }
}

package org.vastporch.core.access;

import java.time.Instant;
import java.util.List;
import java.util.Optional;

/**
 * Who is looking: a signed-in person with their places in classes, or a stranger.
 *
 * @param personId the person; 0 for a stranger
 * @param keeper   whether the person keeps the school (creates teachers); gives no right to read classes
 */
public record Viewer(long personId, boolean keeper, List<Membership> memberships) {

    public static final Viewer STRANGER = new Viewer(0, false, List.of());

    public Viewer {
        memberships = List.copyOf(memberships);
    }

    public boolean isStranger() {
        return personId == 0;
    }

    /** The place that the viewer has in a class at {@code now}, if any. */
    public Optional<Membership> in(long classId, Instant now) {
        return memberships.stream().filter(m -> m.classId() == classId && m.isActiveAt(now)).findFirst();
    }

    /** Tells whether the viewer is one of the school's own at {@code now}: keeper, staff or student somewhere. */
    public boolean isOfSchool(Instant now) {
        return !isStranger()
            && (keeper || memberships.stream().anyMatch(m -> m.isActiveAt(now) && m.role().isOfSchool()));
    }
}

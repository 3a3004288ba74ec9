package org.vastporch.core.access;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * One person's place in one class.
 *
 * @param groupId the group inside the class; null for none. Only students have one
 * @param endedAt the first moment at which the membership no longer counts; null while it lasts
 */
public record Membership(
        long classId,
        Role role,
        @Nullable Long groupId,
        @Nullable Instant endedAt) {

    public Membership {
        if (role != Role.STUDENT) groupId = null;
    }

    public boolean isActiveAt(Instant now) {
        return endedAt == null || now.isBefore(endedAt);
    }
}

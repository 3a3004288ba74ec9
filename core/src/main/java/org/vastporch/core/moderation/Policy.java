package org.vastporch.core.moderation;

import org.jspecify.annotations.Nullable;

/** When somebody looks at a text: before it is published, after, or not at all. */
public enum Policy {
    BEFORE, AFTER, NONE;

    /**
     * The policy in force: the nearest one that is set wins, student before blog before class. Earned trust turns BEFORE into NONE.
     *
     * @param trusted whether the author has earned trust
     */
    public static Policy inForce(@Nullable Policy student, @Nullable Policy blog, Policy ofClass, boolean trusted) {
        Policy nearest = student != null ? student : blog != null ? blog : ofClass;
        return nearest == BEFORE && trusted ? NONE : nearest;
    }

    /**
     * Counts towards earned trust.
     *
     * @param needed    approvals in a row that the class asks for; 0 = trust is never earned
     * @param approvals approvals in a row without return or hide since the last change of the rule
     */
    public static boolean isTrusted(int needed, int approvals) {
        return needed > 0 && approvals >= needed;
    }
}

package org.vastporch.core.moderation;

import org.jspecify.annotations.Nullable;

/** When somebody looks at a text: before it is published, after, or not at all. */
public enum Policy {
    BEFORE,
    AFTER,
    NONE;

    /** Who or what the policy in force comes from. */
    public enum Source {
        STUDENT,
        BLOG,
        CLASS,
        TRUST,
        STAFF
    }

    /** The policy in force, and what decided it. */
    public record InForce(Policy policy, Source source) {

        /** What visitors write is always looked at first, where a blog lets them write at all. */
        public static final InForce OF_VISITORS = new InForce(BEFORE, Source.BLOG);
    }

    /**
     * The policy in force: the nearest one that is set wins, student before blog before class. Earned trust turns
     * BEFORE into NONE, unless it was set for this very student.
     *
     * @param trusted whether the author has earned trust
     */
    public static InForce inForce(@Nullable Policy student, @Nullable Policy blog, Policy ofClass, boolean trusted) {
        if (student != null) return new InForce(student, Source.STUDENT);
        InForce nearest = blog != null ? new InForce(blog, Source.BLOG) : new InForce(ofClass, Source.CLASS);
        return nearest.policy() == BEFORE && trusted ? new InForce(NONE, Source.TRUST) : nearest;
    }

    /** Whether a text that is up by this policy is to be looked at afterwards. */
    public boolean looksAfter() {
        return this == AFTER;
    }

    /**
     * Counts towards earned trust.
     *
     * @param needed approvals in a row that the class asks for; 0 = trust is never earned
     * @param approvals approvals in a row without return or hide since the last change of the rule
     */
    public static boolean isTrusted(int needed, int approvals) {
        return needed > 0 && approvals >= needed;
    }
}

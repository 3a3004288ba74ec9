package org.vastporch.core.moderation;

/**
 * Where a post or comment stands. An approved version may be up besides, while a newer one is a draft, waits or was
 * returned.
 */
public enum State {
    DRAFT,
    WAITING,
    PUBLISHED,
    RETURNED,
    SCHEDULED,
    HIDDEN,
    BINNED;

    public boolean waits() {
        return this == WAITING;
    }
}

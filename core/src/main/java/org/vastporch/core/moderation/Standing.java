package org.vastporch.core.moderation;

import org.jspecify.annotations.Nullable;

/**
 * A text with numbered versions: at most one is live (what readers get), at most one is being worked on.
 *
 * @param live number of the version that is up; null for none
 * @param working number of the version that is a draft, waits or was returned; null when the live one is the newest
 */
public record Standing(
        State state, @Nullable Integer live, @Nullable Integer working) {

    /** A new text: its first version is being written. */
    public static Standing draft() {
        return new Standing(State.DRAFT, null, 1);
    }

    /**
     * A text that has one version: it is live or being worked on.
     *
     * @param wasUp whether readers ever got it
     */
    public static Standing ofOne(State state, boolean wasUp) {
        boolean live = state == State.PUBLISHED || state == State.HIDDEN && wasUp;
        return new Standing(state, live ? 1 : null, live ? null : 1);
    }

    /** The newest version there is. */
    public int newest() {
        if (working != null) return working;
        if (live != null) return live;
        throw new IllegalStateException("A text without any version");
    }

    /**
     * The version that a decision is about: the newest of a text that waits or never was up, else what is or was up.
     */
    public int judged() {
        return live != null && !state.waits() ? live : newest();
    }

    /** How it stands for whoever decides about it: it waits, is hidden, or is up whatever its author works on. */
    public State asJudged() {
        return state == State.WAITING || state == State.HIDDEN ? state : State.PUBLISHED;
    }

    /**
     * The version that is marked: the newest of a text that waits, came back or is up. A draft that was begun after
     * handing in is its author's.
     *
     * @param handedNo the version that was handed in last; null if that was not noted
     */
    public int marked(@Nullable Integer handedNo) {
        if (state != State.DRAFT) return newest();
        return live != null ? live : handedNo != null ? handedNo : newest();
    }

    /**
     * Tells whether it lies in the pile of those who approve: it waits, or it is up or came down and is to be looked
     * at.
     *
     * @param awaited whether somebody is asked to look at it
     */
    public boolean inPile(boolean awaited) {
        return state.waits() || awaited && live != null && state != State.BINNED;
    }
}

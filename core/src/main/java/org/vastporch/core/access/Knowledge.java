package org.vastporch.core.access;

/** How much of a post somebody may know, from nothing to all. */
public enum Knowledge {
    NOTHING,
    /** The version that is up. */
    LIVE,
    /** The version that lies in the pile, and what is new of it. */
    JUDGED,
    /** Every version, the margin, and what was decided. */
    ALL
}

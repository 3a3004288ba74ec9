package org.vastporch.core.reviews;

/** As what somebody reads a paper by its rubric, besides the one whose marks count. */
public enum ReviewKind {
    /** Its author. */
    SELF,
    /** A classmate. */
    PEER,
    /** Another of those who mark. */
    SECOND,
    /** The marker, before a teacher let a second reading count in place of it: kept as it was. */
    FIRST
}

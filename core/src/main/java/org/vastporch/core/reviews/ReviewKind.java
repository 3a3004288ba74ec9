package org.vastporch.core.reviews;

/** As what somebody reads a paper by its rubric, besides the one whose marks count. */
public enum ReviewKind {
    /** Its author. */
    SELF,
    /** A classmate. */
    PEER,
    /** Another of those who mark. */
    SECOND
}

package org.vastporch.core.blogs;

/** Who a post is for, from narrow to wide. The order of the constants is the order of width. */
public enum Audience {
    STAFF_AND_ME,
    MY_GROUP,
    MY_CLASS,
    SCHOOL,
    ANYONE;

    /** The narrower of two audiences: how a ceiling cuts what was asked for. */
    public Audience cutTo(Audience ceiling) {
        return compareTo(ceiling) <= 0 ? this : ceiling;
    }

    /** Tells whether this audience reaches at least as far as {@code other}. */
    public boolean reaches(Audience other) {
        return compareTo(other) >= 0;
    }
}

package org.vastporch.core.feeds;

/** Whether the students of a class register outside blogs of their own. */
public enum OwnSources {
    /** Staff alone add outside blogs. */
    STAFF_ONLY,
    /** Students may, and nothing comes in before staff have said yes. */
    ASKED,
    /** Students may, and it comes in at once; its posts are looked at as others are. */
    FREE;

    /** How many one student may have at a time. */
    public static final int MOST = 3;

    public boolean letStudents() {
        return this != STAFF_ONLY;
    }
}

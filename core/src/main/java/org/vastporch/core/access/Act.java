package org.vastporch.core.access;

/** What a viewer may want to do. */
public enum Act {
    /** Read the approved text of a post, and its published comments. */
    READ,
    COMMENT,
    EDIT,
    DELETE,
    /** Hand in what was written: with the right to write in the blog as it is at that moment. */
    HAND_IN,
    APPROVE,
    MARK,
    SEE_REAL_NAME,
    SEE_STAFF_THREAD,
    /** Change the class: people, groups, blogs, rules, prompts, sources. */
    MANAGE_CLASS,
    /** Read the pages of the class: the Porch, its blogs, its people as readers see them. Moderators do not. */
    READ_CLASS,
    /** Enter the class at all, as any kind of member. */
    ENTER_CLASS
}

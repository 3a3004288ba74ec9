package org.vastporch.core.access;

/** Why an act is allowed or refused; the screen turns it into a sentence. */
public enum Reason {
    IS_STAFF(true),
    IS_AUTHOR(true),
    IS_MODERATOR_OF_WAITING(true),
    AUDIENCE_REACHES(true),
    IS_MEMBER(true),
    BLOG_ALLOWS(true),
    IS_SELF(true),

    NOT_A_MEMBER(false),
    NOT_PUBLISHED(false),
    NOT_OPEN_YET(false),
    CLOSED(false),
    FOR_A_GROUP(false),
    AUDIENCE_TOO_NARROW(false),
    STAFF_ONLY(false),
    APPROVERS_ONLY(false),
    AUTHOR_ONLY(false),
    COMMENTS_OFF(false),
    COMMENTS_FOR_CLASS(false),
    COMMENTS_CLOSED(false),
    NOT_YOUR_BLOG(false),
    SIGN_IN_FIRST(false),
    /** Others' answers show once one's own is published. */
    ANSWER_FIRST(false),
    /** The time in which a student may change or delete what is published is over, or there is none. */
    EDIT_OVER(false),
    DELETE_OVER(false),
    /** One looks through somebody's eyes, and eyes only read. */
    ONLY_EYES(false);

    private final boolean allows;

    Reason(boolean allows) {
        this.allows = allows;
    }

    public boolean allows() {
        return allows;
    }
}

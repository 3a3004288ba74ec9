package org.vastporch.core.access;

import org.vastporch.core.blogs.Audience;

/** What a member of a class is there. All but {@link #STUDENT} and {@link #GUEST} work for the class. */
public enum Role {
    LEAD,
    CO_TEACHER,
    ASSISTANT,
    MODERATOR,
    STUDENT,
    GUEST;

    /** Tells whether the role reads what staff read: drafts, what waits, real names. */
    public boolean readsAsStaff() {
        return this == LEAD || this == CO_TEACHER || this == ASSISTANT;
    }

    /** Tells whether the role may change the class itself: people, blogs, rules, prompts. */
    public boolean managesClass() {
        return this == LEAD || this == CO_TEACHER;
    }

    /** Tells whether the role works for the class, and does not learn or look on in it. */
    public boolean works() {
        return this != STUDENT && this != GUEST;
    }

    public boolean approves() {
        return managesClass() || this == MODERATOR;
    }

    /** Tells whether the role belongs to the school's own community, for audience {@link Audience#SCHOOL}. */
    public boolean isOfSchool() {
        return readsAsStaff() || this == STUDENT;
    }
}

package org.vastporch.core.blogs;

/**
 * The five kinds of blog. The kind sets how far its posts can reach at the most, and how far they reach unless told
 * otherwise.
 */
public enum BlogKind {
    SHARED(Audience.ANYONE, Audience.MY_CLASS),
    ONE_EACH(Audience.ANYONE, Audience.MY_CLASS),
    GROUP(Audience.MY_CLASS, Audience.MY_GROUP),
    TEACHERS(Audience.ANYONE, Audience.MY_CLASS),
    JOURNAL(Audience.STAFF_AND_ME, Audience.STAFF_AND_ME);

    private final Audience widest;
    private final Audience usual;

    BlogKind(Audience widest, Audience usual) {
        this.widest = widest;
        this.usual = usual;
    }

    /** Tells whether every student has an own blog of this kind. */
    public boolean isForEach() {
        return this == ONE_EACH || this == JOURNAL;
    }

    /**
     * Tells whether a blog of this kind can become one of another without its posts losing their place: own blogs stay
     * own, common ones common.
     */
    public boolean canBecome(BlogKind other) {
        return isForEach() == other.isForEach();
    }

    public Audience widest() {
        return widest;
    }

    /** The audience of a new post unless its author chooses another. */
    public Audience usual() {
        return usual;
    }
}

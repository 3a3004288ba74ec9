package org.vastporch.core.access;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.blogs.BlogKind;
import org.vastporch.core.blogs.BlogRules;

/**
 * What the access engine needs to know of a blog and its class.
 *
 * @param classCeiling the widest audience of the class
 * @param classOpen whether strangers may come into the class at all
 * @param widest the widest audience that the blog allows, before kind and class cut it
 * @param commenters who may comment
 * @param ownerId the one author of a blog of one's own or a journal; null otherwise
 * @param groupId the group whose blog it is; null otherwise
 * @param onlyGroup the only group to which the blog is open; null for all
 * @param opensAt the moment from which readers get in; null for always
 * @param closesAt the first moment at which they no longer do; null for never
 * @param rules what students may do with what they published
 */
public record BlogFacts(
        long id,
        long classId,
        Audience classCeiling,
        boolean classOpen,
        BlogKind kind,
        Audience widest,
        Commenters commenters,
        @Nullable Long ownerId,
        @Nullable Long groupId,
        @Nullable Long onlyGroup,
        @Nullable Instant opensAt,
        @Nullable Instant closesAt,
        BlogRules rules) {

    /** A blog with the rules of a new one. */
    public BlogFacts(
            long id,
            long classId,
            Audience classCeiling,
            boolean classOpen,
            BlogKind kind,
            Audience widest,
            Commenters commenters,
            @Nullable Long ownerId,
            @Nullable Long groupId,
            @Nullable Long onlyGroup,
            @Nullable Instant opensAt,
            @Nullable Instant closesAt) {
        this(
                id,
                classId,
                classCeiling,
                classOpen,
                kind,
                widest,
                commenters,
                ownerId,
                groupId,
                onlyGroup,
                opensAt,
                closesAt,
                BlogRules.FREE);
    }

    /** Who may comment on the posts of a blog, as far as they may read them; each lets in those before it too. */
    public enum Commenters {
        NOBODY,
        /** The students and staff of its class. */
        CLASS,
        GUESTS_TOO,
        /** Who has a place in any class of the school. */
        SCHOOL,
        ANYONE
    }

    /** The widest audience that a post in this blog can have: what the blog says, cut by its kind and its class. */
    public Audience ceiling() {
        return widest.cutTo(kind.widest()).cutTo(classCeiling);
    }
}

package org.vastporch.core.access;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The posts that one viewer may read at one moment, as data by which a store narrows its query: a post is inside if any one
 * clause takes it in. Says the same as {@link AccessEngine#decide} with READ; a test holds the two against each other.
 */
public record Scope(Instant now, List<Clause> clauses) {

    public Scope {
        clauses = List.copyOf(clauses);
    }

    /**
     * One way for a post to be inside. All parts that are given must hold.
     *
     * @param classId    posts of this class only; null for any
     * @param authorId   posts of this author only; null for any
     * @param readers    null takes in every state; else only what is up, in a blog that is open, for these readers
     * @param waiting    only what waits for a decision
     */
    public record Clause(@Nullable Long classId, @Nullable Long authorId, @Nullable Readers readers, boolean waiting) {}

    /**
     * Readers who are neither staff nor the author.
     *
     * @param atLeast   how far the audience must reach, after the ceilings
     * @param inGroup   the viewer's group there, for blogs that are open to one group; null for none
     * @param sameGroup whether the post must be for the viewer's own group
     * @param classOpen whether the class must be open to strangers
     */
    public record Readers(Audience atLeast, @Nullable Long inGroup, boolean sameGroup, boolean classOpen) {}

    /** The scope of a viewer at a moment. */
    public static Scope of(Viewer viewer, Instant now) {
        List<Clause> clauses = new ArrayList<>();
        if (!viewer.isStranger()) clauses.add(new Clause(null, viewer.personId(), null, false));
        for (Membership member : viewer.memberships()) {
            if (!member.isActiveAt(now)) continue;
            clauses.addAll(ofMember(member));
        }
        if (viewer.isOfSchool(now)) clauses.add(new Clause(null, null, new Readers(Audience.SCHOOL, null, false, false), false));
        clauses.add(new Clause(null, null, new Readers(Audience.ANYONE, null, false, true), false));
        return new Scope(now, clauses);
    }

    private static List<Clause> ofMember(Membership member) {
        long classId = member.classId();
        Long group = member.groupId();
        if (member.role().readsAsStaff()) return List.of(new Clause(classId, null, null, false));
        if (member.role() == Role.MODERATOR) return List.of(new Clause(classId, null, null, true));
        List<Clause> clauses = new ArrayList<>();
        clauses.add(new Clause(classId, null, new Readers(Audience.MY_CLASS, group, false, false), false));
        if (member.role() == Role.STUDENT && group != null)
            clauses.add(new Clause(classId, null, new Readers(Audience.MY_GROUP, group, true, false), false));
        return clauses;
    }

    /** Tells whether a post is inside; the same reading of the clauses that a store writes in SQL. */
    public boolean contains(PostFacts post) {
        return clauses.stream().anyMatch(clause -> takesIn(clause, post));
    }

    private boolean takesIn(Clause clause, PostFacts post) {
        if (clause.classId() != null && clause.classId() != post.blog().classId()) return false;
        if (clause.authorId() != null && clause.authorId() != post.authorId()) return false;
        if (clause.waiting() && !post.state().waits()) return false;
        Readers readers = clause.readers();
        if (readers == null) return true;
        BlogFacts blog = post.blog();
        return post.isUp()
            && (blog.opensAt() == null || !now.isBefore(blog.opensAt()))
            && (blog.closesAt() == null || now.isBefore(blog.closesAt()))
            && (blog.onlyGroup() == null || blog.onlyGroup().equals(readers.inGroup()))
            && post.effectiveAudience().reaches(readers.atLeast())
            && (!readers.sameGroup() || (post.readersGroup() != null && post.readersGroup().equals(readers.inGroup())))
            && (!readers.classOpen() || blog.classOpen());
    }
}

package org.vastporch.core.access;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.blogs.Audience;

/**
 * The posts that one viewer may read at one moment, as data by which a store narrows its query: a post is inside if any
 * one clause takes it in. Says the same as {@link AccessEngine#decide} with READ; a test holds the two against each
 * other.
 *
 * @param reader whose names the viewer reads where names are kept back
 */
public record Scope(Instant now, List<Clause> clauses, Reader reader) {

    public Scope {
        clauses = List.copyOf(clauses);
    }

    /**
     * Who reads.
     *
     * @param personId 0 for a stranger
     * @param worksIn the classes in which the viewer reads all names
     */
    public record Reader(long personId, List<Long> worksIn) {
        public Reader {
            worksIn = List.copyOf(worksIn);
        }
    }

    /**
     * One way for a post to be inside. All parts that are given must hold.
     *
     * @param classId posts of this class only; null for any
     * @param authorId posts of this author only; null for any
     * @param readers null takes in every state; else only what is up, in a blog that is open, for these readers
     * @param waiting only what lies in the pile, and what is up with a comment that lies there
     */
    public record Clause(
            @Nullable Long classId,
            @Nullable Long authorId,
            @Nullable Readers readers,
            boolean waiting) {

        /** The same clause in one class only; none if it is about another. */
        Optional<Clause> inside(@Nullable Long lens) {
            if (lens == null) return Optional.of(this);
            return classId == null || classId.equals(lens)
                    ? Optional.of(new Clause(lens, authorId, readers, waiting))
                    : Optional.empty();
        }
    }

    /**
     * Readers who are neither staff nor the author.
     *
     * @param atLeast how far the audience must reach, after the ceilings
     * @param inGroup the viewer's group there, for blogs that are open to one group; null for none
     * @param sameGroup whether the post must be for the viewer's own group
     * @param classOpen whether the class must be open to strangers
     * @param answered the prompts of which a student may read others' answers although an own one comes first; null if
     *     that binds the viewer nowhere
     * @param notIn classes that this way does not lead into: the viewer is a student there and reads by the clauses of
     *     that class
     */
    public record Readers(
            Audience atLeast,
            @Nullable Long inGroup,
            boolean sameGroup,
            boolean classOpen,
            @Nullable Set<Long> answered,
            List<Long> notIn) {

        /** Readers from outside the class. */
        static Readers outside(Audience atLeast, boolean classOpen, List<Long> notIn) {
            return new Readers(atLeast, null, false, classOpen, null, notIn);
        }
    }

    /** The scope of a viewer at a moment. */
    public static Scope of(Viewer viewer, Instant now) {
        List<Clause> clauses = new ArrayList<>();
        if (!viewer.isStranger()) clauses.add(new Clause(null, viewer.personId(), null, false));
        List<Membership> active =
                viewer.memberships().stream().filter(m -> m.isActiveAt(now)).toList();
        for (Membership member : active) clauses.addAll(ofMember(member, viewer.answered()));
        List<Long> asStudent = active.stream()
                .filter(m -> m.role() == Role.STUDENT)
                .map(Membership::classId)
                .toList();
        if (viewer.isOfSchool(now))
            clauses.add(new Clause(null, null, Readers.outside(Audience.SCHOOL, false, asStudent), false));
        clauses.add(new Clause(null, null, Readers.outside(Audience.ANYONE, true, asStudent), false));
        return new Scope(
                now,
                clauses.stream()
                        .flatMap(clause -> clause.inside(viewer.lens()).stream())
                        .toList(),
                new Reader(
                        viewer.personId(),
                        active.stream()
                                .filter(m -> m.role().works())
                                .map(Membership::classId)
                                .toList()));
    }

    private static List<Clause> ofMember(Membership member, Set<Long> answered) {
        long classId = member.classId();
        Long group = member.groupId();
        if (member.role().readsAsStaff()) return List.of(new Clause(classId, null, null, false));
        if (member.role() == Role.MODERATOR) return List.of(new Clause(classId, null, null, true));
        boolean student = member.role() == Role.STUDENT;
        List<Clause> clauses = new ArrayList<>();
        clauses.add(new Clause(
                classId,
                null,
                new Readers(Audience.MY_CLASS, group, false, false, student ? answered : null, List.of()),
                false));
        if (student && group != null)
            clauses.add(new Clause(
                    classId, null, new Readers(Audience.MY_GROUP, group, true, false, answered, List.of()), false));
        return clauses;
    }

    /** Tells whether a post is inside; the same reading of the clauses that a store writes in SQL. */
    public boolean contains(PostFacts post) {
        return clauses.stream().anyMatch(clause -> takesIn(clause, post));
    }

    private boolean takesIn(Clause clause, PostFacts post) {
        if (clause.classId() != null && clause.classId() != post.blog().classId()) return false;
        if (clause.authorId() != null && clause.authorId() != post.authorId()) return false;
        if (clause.waiting() && !post.inPile() && !(post.isUp() && post.commentInPile())) return false;
        Readers readers = clause.readers();
        if (readers == null) return true;
        BlogFacts blog = post.blog();
        return post.isUp()
                && (blog.opensAt() == null || !now.isBefore(blog.opensAt()))
                && (blog.closesAt() == null || now.isBefore(blog.closesAt()))
                && (blog.onlyGroup() == null || blog.onlyGroup().equals(readers.inGroup()))
                && post.effectiveAudience().reaches(readers.atLeast())
                && (!readers.sameGroup()
                        || (post.readersGroup() != null && post.readersGroup().equals(readers.inGroup())))
                && (!readers.classOpen() || blog.classOpen())
                && (readers.answered() == null
                        || post.answerFirst() == null
                        || readers.answered().contains(post.answerFirst()))
                && !readers.notIn().contains(blog.classId());
    }
}

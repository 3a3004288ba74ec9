package org.vastporch.core.access;

import java.time.Instant;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.vastporch.core.access.BlogFacts.Commenters;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.blogs.BlogKind;
import org.vastporch.core.blogs.BlogRules;
import org.vastporch.core.moderation.State;

/**
 * The one place that knows who may do what. Every page, feed, count, attachment and sightline asks here, or narrows by
 * a {@link Scope} that is made here. All methods are pure: the moment is an argument.
 */
public final class AccessEngine {

    private AccessEngine() {}

    /**
     * Decides about an act on a post.
     *
     * @param act any of READ, COMMENT, EDIT, DELETE, HAND_IN, MARK, SEE_STAFF_THREAD
     * @throws IllegalArgumentException if the act is not about a post
     */
    public static Reason decide(Viewer viewer, Act act, PostFacts post, Instant now) {
        return switch (act) {
            case READ -> read(viewer, post, now);
            case COMMENT -> comment(viewer, post, now);
            case EDIT, DELETE -> change(viewer, act, post, now);
            case HAND_IN -> handIn(viewer, post, now);
            case MARK, SEE_STAFF_THREAD -> inClass(viewer, act, post.blog().classId(), now);
            default -> throw new IllegalArgumentException("Not an act on a post: " + act);
        };
    }

    /**
     * Decides about an act on a class: ENTER_CLASS, READ_CLASS, MANAGE_CLASS, APPROVE, MARK, SEE_STAFF_THREAD or
     * SEE_REAL_NAME.
     */
    public static Reason inClass(Viewer viewer, Act act, long classId, Instant now) {
        Optional<Role> role = viewer.in(classId, now).map(Membership::role);
        if (role.isEmpty()) return viewer.isStranger() ? Reason.SIGN_IN_FIRST : Reason.NOT_A_MEMBER;
        return switch (act) {
            case ENTER_CLASS -> Reason.IS_MEMBER;
            case READ_CLASS -> role.get() == Role.MODERATOR ? Reason.AUDIENCE_TOO_NARROW : Reason.IS_MEMBER;
            case MANAGE_CLASS -> role.get().managesClass() ? Reason.IS_STAFF : Reason.STAFF_ONLY;
            case APPROVE -> approve(viewer, classId, now);
            case MARK, SEE_STAFF_THREAD, SEE_REAL_NAME ->
                role.get().readsAsStaff() ? Reason.IS_STAFF : Reason.STAFF_ONLY;
            default -> throw new IllegalArgumentException("Not an act on a class: " + act);
        };
    }

    /**
     * Decides whether the viewer may register an outside blog as the own one: a student of the class may, where it lets
     * them.
     */
    public static Reason registerSource(Viewer viewer, long classId, boolean letsStudents, Instant now) {
        if (!viewer.isInPerson()) return Reason.ONLY_EYES;
        Reason member = inClass(viewer, Act.READ_CLASS, classId, now);
        if (!member.allows()) return member;
        boolean student =
                viewer.in(classId, now).filter(m -> m.role() == Role.STUDENT).isPresent();
        return student && letsStudents ? Reason.IS_MEMBER : Reason.STAFF_ONLY;
    }

    /**
     * Whether the names of those who learn in the class are kept from the viewer around a post: of its commenters, and
     * of its author as far as {@link #namesAuthor} says. Those who work for the class read all names.
     */
    public static boolean keepsNames(Viewer viewer, PostFacts post, Instant now) {
        boolean works = viewer.in(post.blog().classId(), now)
                .filter(m -> m.role().works())
                .isPresent();
        return post.names().isKept(now) && !works;
    }

    /**
     * Whether the viewer may know who wrote a post that they may read: everybody, if the post tells it itself; one's
     * own name one knows.
     */
    public static boolean namesAuthor(Viewer viewer, PostFacts post, Instant now) {
        return !keepsNames(viewer, post, now)
                || post.tellsAuthor()
                || !viewer.isStranger() && viewer.personId() == post.authorId();
    }

    /**
     * Decides whether the viewer may ask the author of a post to let it stand as an example: who marks in the class in
     * which it was written, of what is published there and belongs to somebody.
     */
    public static Reason askForExample(Viewer viewer, PostFacts post, Instant now) {
        if (!viewer.isInPerson()) return Reason.ONLY_EYES;
        Reason staff = inClass(viewer, Act.MARK, post.blog().classId(), now);
        if (!staff.allows()) return staff;
        return post.isUp() && post.authorId() != 0 ? staff : Reason.NOT_PUBLISHED;
    }

    /**
     * Decides whether the viewer may have a file that stands in no post. Staff have all of their class; who reads the
     * class has what its drawer offers and what its open prompts show, and a student the feedback given to them.
     */
    public static Reason readFile(Viewer viewer, FileFacts file, Instant now) {
        Reason member = inClass(viewer, Act.READ_CLASS, file.classId(), now);
        if (!member.allows()) return member;
        Reason staff = inClass(viewer, Act.SEE_REAL_NAME, file.classId(), now);
        if (staff.allows() || !(file.offered() || file.inOpenPrompt() || file.handed())) return staff;
        return Reason.IS_MEMBER;
    }

    /**
     * Decides whether a class has a front page: it is the same for everybody, a stranger's, and an open class has one.
     */
    public static Reason frontPage(boolean classOpen) {
        return classOpen ? Reason.AUDIENCE_REACHES : Reason.SIGN_IN_FIRST;
    }

    /**
     * Decides whether the viewer may start a new post in a blog. To whoever may not open the blog a refusal says no
     * more than that.
     */
    public static Reason write(Viewer viewer, BlogFacts blog, Instant now) {
        Reason may = mayWrite(viewer, blog, now);
        if (may.allows() || !viewer.isInPerson()) return may;
        Reason page = readBlog(viewer, blog, now);
        return page.allows() ? may : page;
    }

    private static Reason mayWrite(Viewer viewer, BlogFacts blog, Instant now) {
        if (!viewer.isInPerson()) return Reason.ONLY_EYES;
        Optional<Membership> member = viewer.in(blog.classId(), now);
        if (member.isEmpty()) return viewer.isStranger() ? Reason.SIGN_IN_FIRST : Reason.NOT_A_MEMBER;
        Role role = member.get().role();
        if (role.managesClass() && blog.kind() != BlogKind.JOURNAL) return Reason.IS_STAFF;
        if (role != Role.STUDENT) return Reason.NOT_YOUR_BLOG;
        Reason closed = open(member.get(), blog, now);
        if (!closed.allows()) return closed;
        return switch (blog.kind()) {
            case SHARED -> Reason.BLOG_ALLOWS;
            case ONE_EACH, JOURNAL ->
                Objects.equals(blog.ownerId(), viewer.personId()) ? Reason.BLOG_ALLOWS : Reason.NOT_YOUR_BLOG;
            case GROUP ->
                blog.groupId() != null && blog.groupId().equals(member.get().groupId())
                        ? Reason.BLOG_ALLOWS
                        : Reason.NOT_YOUR_BLOG;
            case TEACHERS -> Reason.STAFF_ONLY;
        };
    }

    /**
     * Decides whether the viewer may open the page of a blog: its owner, staff, and whoever the widest post in it would
     * reach.
     */
    public static Reason readBlog(Viewer viewer, BlogFacts blog, Instant now) {
        long owner = blog.ownerId() == null ? 0 : blog.ownerId();
        if (viewer.in(blog.classId(), now)
                .map(Membership::role)
                .filter(role -> role == Role.MODERATOR)
                .isPresent()) return Reason.AUDIENCE_TOO_NARROW;
        if (mayWrite(viewer, blog, now).allows()) return Reason.BLOG_ALLOWS;
        return read(viewer, new PostFacts(0, blog, owner, blog.groupId(), State.PUBLISHED, true, blog.widest()), now);
    }

    /**
     * The same for one who asks for the page now. An own blog in which its owner shows nothing yet is not there for
     * whoever is not of the class: it would say no more than who is in it.
     *
     * @param shows whether a post stands in it that the viewer may read
     */
    public static Reason openBlog(Viewer viewer, BlogFacts blog, boolean shows, Instant now) {
        Reason reason = readBlog(viewer, blog, now);
        boolean isOpen = shows
                || blog.ownerId() == null
                || blog.ownerId() == viewer.personId()
                || viewer.in(blog.classId(), now).isPresent();
        return reason.allows() && !isOpen ? Reason.NOT_A_MEMBER : reason;
    }

    /**
     * Decides whether the viewer may pin posts of a blog and put them into a series: staff, and the owner of an own
     * blog.
     */
    public static Reason arrange(Viewer viewer, BlogFacts blog, Instant now) {
        if (!viewer.isInPerson()) return Reason.ONLY_EYES;
        Optional<Role> role = viewer.in(blog.classId(), now).map(Membership::role);
        if (role.isEmpty()) return viewer.isStranger() ? Reason.SIGN_IN_FIRST : Reason.NOT_A_MEMBER;
        if (role.get().managesClass()) return Reason.IS_STAFF;
        return Objects.equals(blog.ownerId(), viewer.personId()) ? Reason.IS_AUTHOR : Reason.STAFF_ONLY;
    }

    /** Decides whether the viewer may delete a comment on a post. */
    public static Reason deleteComment(Viewer viewer, PostFacts post, long commentAuthor, Instant now) {
        if (!viewer.isInPerson()) return Reason.ONLY_EYES;
        Optional<Role> role = viewer.in(post.blog().classId(), now).map(Membership::role);
        if (viewer.isStranger()) return Reason.SIGN_IN_FIRST;
        if (role.isPresent() && role.get().managesClass()) return Reason.IS_STAFF;
        // Somebody of another class takes back own words as long as they can read where they stand.
        if (role.isEmpty() && !read(viewer, post, now).allows()) return Reason.NOT_A_MEMBER;
        if (viewer.personId() != commentAuthor) return role.isEmpty() ? Reason.NOT_A_MEMBER : Reason.AUTHOR_ONLY;
        return role.isPresent() && role.get().readsAsStaff()
                        || post.blog().rules().deleteComments()
                ? Reason.IS_AUTHOR
                : Reason.DELETE_OVER;
    }

    /**
     * Decides whether the viewer may read a private word that staff said to the author of something: that author and
     * the staff of the class, nobody else.
     */
    public static Reason readWord(Viewer viewer, long classId, long author, Instant now) {
        if (viewer.lens() != null && viewer.lens() != classId) return Reason.NOT_A_MEMBER;
        if (!viewer.isStranger() && viewer.personId() == author) return Reason.IS_AUTHOR;
        return inClass(viewer, Act.SEE_STAFF_THREAD, classId, now);
    }

    /** Decides whether the viewer may say a private word, or write in a thread of the staff: staff in person. */
    public static Reason writeAside(Viewer viewer, long classId, Instant now) {
        return viewer.isInPerson() ? inClass(viewer, Act.SEE_STAFF_THREAD, classId, now) : Reason.ONLY_EYES;
    }

    /**
     * Decides whether the viewer may look at the pages of a class through somebody's eyes: staff of that class, through
     * those of a student, a guest or a stranger. What a colleague sees is not theirs to see.
     *
     * @param whose the role of the person there; null for a stranger
     */
    public static Reason throughEyes(Viewer viewer, long classId, @Nullable Role whose, Instant now) {
        Reason staff = inClass(viewer, Act.SEE_REAL_NAME, classId, now);
        if (!staff.allows()) return staff;
        return whose == null || whose == Role.STUDENT || whose == Role.GUEST ? Reason.IS_STAFF : Reason.STAFF_ONLY;
    }

    /**
     * Decides whether the viewer may reach what is kept for one person alone, as an account, subscriptions or notes:
     * that person, in person.
     */
    public static Reason own(Viewer viewer) {
        return viewer.isStranger() ? Reason.SIGN_IN_FIRST : viewer.isInPerson() ? Reason.IS_SELF : Reason.ONLY_EYES;
    }

    /** Decides whether the viewer may know the real name of a member of a class: staff there, and the person alone. */
    public static Reason seeRealName(Viewer viewer, long personId, long classId, Instant now) {
        if (!viewer.isStranger() && viewer.personId() == personId) return Reason.IS_SELF;
        return inClass(viewer, Act.SEE_REAL_NAME, classId, now);
    }

    private static Reason read(Viewer viewer, PostFacts post, Instant now) {
        BlogFacts blog = post.blog();
        if (viewer.lens() != null && viewer.lens() != blog.classId()) return Reason.NOT_A_MEMBER;
        if (isAuthor(viewer, post)) return Reason.IS_AUTHOR;
        Optional<Membership> member = viewer.in(blog.classId(), now);
        if (member.isPresent() && member.get().role().readsAsStaff()) return Reason.IS_STAFF;
        if (member.isPresent()
                && member.get().role() == Role.MODERATOR
                && (post.inPile() || post.isUp() && post.commentInPile())) return Reason.IS_MODERATOR_OF_WAITING;
        // The audience comes first: whoever is outside of it learns neither of doors nor of rules.
        if (!reaches(viewer, post, member.orElse(null), now))
            return viewer.isStranger()
                    ? Reason.SIGN_IN_FIRST
                    : member.isEmpty() ? Reason.NOT_A_MEMBER : Reason.AUDIENCE_TOO_NARROW;
        if (!post.isUp()) return Reason.NOT_PUBLISHED;
        Reason open = open(member.orElse(null), blog, now);
        if (!open.allows()) return open;
        return mustAnswerFirst(viewer, post, member.orElse(null)) ? Reason.ANSWER_FIRST : Reason.AUDIENCE_REACHES;
    }

    /** How much of a post the viewer may know; a file is known with the versions in which it stands. */
    public static Knowledge knows(Viewer viewer, PostFacts post, Instant now) {
        return switch (read(viewer, post, now)) {
            case IS_AUTHOR, IS_STAFF -> Knowledge.ALL;
            case IS_MODERATOR_OF_WAITING -> post.inPile() ? Knowledge.JUDGED : Knowledge.LIVE;
            case AUDIENCE_REACHES -> Knowledge.LIVE;
            default -> Knowledge.NOTHING;
        };
    }

    /**
     * Decides whether a post may be given to a student of its class for review: one that is up, that its audience lets
     * them read, and never a journal's. That they answer first is not asked: whoever reviews has handed in.
     */
    public static Reason review(Viewer viewer, PostFacts post, Instant now) {
        Reason read = read(viewer, post.asIfUp(), now);
        if (!read.allows()) return read;
        boolean student = viewer.in(post.blog().classId(), now)
                .filter(m -> m.role() == Role.STUDENT)
                .isPresent();
        if (!student || read != Reason.AUDIENCE_REACHES) return Reason.NOT_A_MEMBER;
        if (post.blog().kind() == BlogKind.JOURNAL) return Reason.AUDIENCE_TOO_NARROW;
        return post.isUp() ? read : Reason.NOT_PUBLISHED;
    }

    /**
     * How much of a sightline the viewer may know who may see it: names for students and staff of the class, heads for
     * its other members, the audience for everybody else.
     */
    public static Sightline.Detail sightlineDetail(Viewer viewer, long classId, Instant now) {
        return viewer.in(classId, now)
                .map(Membership::role)
                .map(role ->
                        role == Role.STUDENT || role.readsAsStaff() ? Sightline.Detail.NAMES : Sightline.Detail.HEADS)
                .orElse(Sightline.Detail.AUDIENCE);
    }

    /**
     * Decides whether the viewer may read a comment.
     *
     * @param author 0 for a visitor without an account
     * @param up whether it is published
     * @param inPile whether it lies in the pile
     */
    public static Reason readComment(
            Viewer viewer, PostFacts post, long author, boolean up, boolean inPile, Instant now) {
        Reason read = read(viewer, post, now);
        if (!read.allows()) return read;
        if (!viewer.isStranger() && viewer.personId() == author) return Reason.IS_AUTHOR;
        Optional<Role> role = viewer.in(post.blog().classId(), now).map(Membership::role);
        if (role.isPresent() && role.get().readsAsStaff()) return Reason.IS_STAFF;
        // What a moderator may read of a thread is what lies there to be decided on.
        if (read == Reason.IS_MODERATOR_OF_WAITING) return inPile ? read : Reason.NOT_PUBLISHED;
        return up ? read : Reason.NOT_PUBLISHED;
    }

    private static boolean reaches(Viewer viewer, PostFacts post, @Nullable Membership member, Instant now) {
        Audience audience = post.effectiveAudience();
        if (audience == Audience.ANYONE && post.blog().classOpen()) return true;
        if (audience.reaches(Audience.SCHOOL) && viewer.isOfSchool(now)) return true;
        if (member == null || member.role() == Role.MODERATOR) return false;
        if (audience.reaches(Audience.MY_CLASS)) return true;
        return audience == Audience.MY_GROUP
                && member.role() == Role.STUDENT
                && post.readersGroup() != null
                && post.readersGroup().equals(member.groupId());
    }

    /** A student of the class reads others' answers only after the own one, if the prompt says so. */
    private static boolean mustAnswerFirst(Viewer viewer, PostFacts post, @Nullable Membership member) {
        return post.answerFirst() != null
                && member != null
                && member.role() == Role.STUDENT
                && !viewer.answered().contains(post.answerFirst());
    }

    /** Whether the doors of a blog are open for somebody who is neither staff nor the author. */
    private static Reason open(@Nullable Membership member, BlogFacts blog, Instant now) {
        if (blog.opensAt() != null && now.isBefore(blog.opensAt())) return Reason.NOT_OPEN_YET;
        if (blog.closesAt() != null && !now.isBefore(blog.closesAt())) return Reason.CLOSED;
        if (blog.onlyGroup() != null && (member == null || !blog.onlyGroup().equals(member.groupId())))
            return Reason.FOR_A_GROUP;
        return Reason.IS_MEMBER;
    }

    private static Reason comment(Viewer viewer, PostFacts post, Instant now) {
        if (!viewer.isInPerson()) return Reason.ONLY_EYES;
        Reason read = read(viewer, post, now);
        if (!read.allows()) return read;
        Optional<Role> role = viewer.in(post.blog().classId(), now).map(Membership::role);
        if (role.isPresent() && role.get().readsAsStaff()) return Reason.IS_STAFF;
        if (role.isPresent() && role.get() == Role.MODERATOR) return Reason.AUDIENCE_TOO_NARROW;
        if (!post.isUp()) return Reason.NOT_PUBLISHED;
        Commenters who = post.blog().commenters();
        if (who == Commenters.NOBODY) return Reason.COMMENTS_OFF;
        if (post.publishedAt() != null && post.blog().rules().comments().isOver(post.publishedAt(), now))
            return Reason.COMMENTS_CLOSED;
        if (who == Commenters.ANYONE) return Reason.BLOG_ALLOWS;
        if (role.isEmpty() && who == Commenters.SCHOOL && viewer.isOfSchool(now)) return Reason.BLOG_ALLOWS;
        if (role.isEmpty()) return viewer.isStranger() ? Reason.SIGN_IN_FIRST : Reason.NOT_A_MEMBER;
        return who != Commenters.CLASS || role.get() == Role.STUDENT ? Reason.BLOG_ALLOWS : Reason.COMMENTS_FOR_CLASS;
    }

    /**
     * Decides whether the viewer may change a comment: staff any, its author one that is published as long as the blog
     * lets what is published be changed.
     *
     * @param published when it went up; null if it is not up
     */
    public static Reason editComment(
            Viewer viewer, PostFacts post, long commentAuthor, @Nullable Instant published, Instant now) {
        boolean manages = viewer.isInPerson()
                && viewer.in(post.blog().classId(), now)
                        .filter(m -> m.role().managesClass())
                        .isPresent();
        if (manages && viewer.personId() != commentAuthor) return Reason.IS_STAFF;
        Reason may = comment(viewer, post, now);
        if (!may.allows()) return may;
        if (viewer.isStranger() || viewer.personId() != commentAuthor) return Reason.AUTHOR_ONLY;
        if (may == Reason.IS_STAFF
                || published == null
                || post.blog().rules().edit().isOpen(published, now)) return Reason.IS_AUTHOR;
        return Reason.EDIT_OVER;
    }

    private static Reason change(Viewer viewer, Act act, PostFacts post, Instant now) {
        if (!viewer.isInPerson()) return Reason.ONLY_EYES;
        Optional<Role> role = viewer.in(post.blog().classId(), now).map(Membership::role);
        if (role.isPresent() && role.get().managesClass()) return Reason.IS_STAFF;
        if (!isAuthor(viewer, post)) {
            Reason read = read(viewer, post, now);
            return !read.allows() ? read : role.isEmpty() ? Reason.NOT_A_MEMBER : Reason.AUTHOR_ONLY;
        }
        if (role.isEmpty()) return Reason.NOT_A_MEMBER;
        if (post.state() == State.HIDDEN) return Reason.STAFF_ONLY;
        if (role.get() != Role.STUDENT || !post.isUp() || post.publishedAt() == null) return Reason.IS_AUTHOR;
        BlogRules rules = post.blog().rules();
        if (act == Act.EDIT) return rules.edit().isOpen(post.publishedAt(), now) ? Reason.IS_AUTHOR : Reason.EDIT_OVER;
        return rules.delete().isOpen(post.publishedAt(), now) ? Reason.IS_AUTHOR : Reason.DELETE_OVER;
    }

    /** An author hands in by the right to write, as it is then; staff who mend a student's text need none. */
    private static Reason handIn(Viewer viewer, PostFacts post, Instant now) {
        Reason edit = change(viewer, Act.EDIT, post, now);
        return edit.allows() && isAuthor(viewer, post) ? mayWrite(viewer, post.blog(), now) : edit;
    }

    /**
     * Decides whether the viewer may decide about a text: those who manage the class about any, a moderator about what
     * lies in the pile at this moment.
     *
     * @param inPile see {@link org.vastporch.core.moderation.Standing#inPile}
     */
    public static Reason judge(Viewer viewer, long classId, boolean inPile, Instant now) {
        if (!viewer.isInPerson()) return Reason.ONLY_EYES;
        Reason approve = approve(viewer, classId, now);
        return !approve.allows() || manages(viewer, classId, now)
                ? approve
                : inPile ? Reason.IS_MODERATOR_OF_WAITING : Reason.NOT_PUBLISHED;
    }

    /**
     * Decides whether the viewer may take a decision back: those who manage the class any, a moderator the own ones.
     *
     * @param decidedBy who made it
     */
    public static Reason undo(Viewer viewer, long classId, long decidedBy, Instant now) {
        if (!viewer.isInPerson()) return Reason.ONLY_EYES;
        Reason approve = approve(viewer, classId, now);
        return !approve.allows() || manages(viewer, classId, now)
                ? approve
                : decidedBy == viewer.personId() ? Reason.IS_SELF : Reason.NOT_PUBLISHED;
    }

    private static boolean manages(Viewer viewer, long classId, Instant now) {
        return viewer.in(classId, now).filter(m -> m.role().managesClass()).isPresent();
    }

    private static Reason approve(Viewer viewer, long classId, Instant now) {
        Optional<Role> role = viewer.in(classId, now).map(Membership::role);
        if (role.isEmpty()) return viewer.isStranger() ? Reason.SIGN_IN_FIRST : Reason.NOT_A_MEMBER;
        return role.get().approves() ? Reason.IS_STAFF : Reason.APPROVERS_ONLY;
    }

    private static boolean isAuthor(Viewer viewer, PostFacts post) {
        return !viewer.isStranger() && viewer.personId() == post.authorId();
    }
}

package org.vastporch.server.moderation;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.vastporch.core.access.Role;
import org.vastporch.core.moderation.Hold;
import org.vastporch.core.moderation.HoldRules;
import org.vastporch.core.moderation.Policy;
import org.vastporch.server.people.ClassService;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;

/** What is looked at before it is published: the policy in force for an author, and the holds on a text. */
@Service
public class ReviewService {

    private final DecisionStore store;
    private final ClassService classes;
    private final PeopleService people;

    ReviewService(DecisionStore store, ClassService classes, PeopleService people) {
        this.store = store;
        this.classes = classes;
        this.people = people;
    }

    /**
     * The policy for a post or comment.
     *
     * @param role   the author's role in the class; staff need nobody's approval
     * @param ofBlog what the blog says; null if it leaves it to the class
     * @param posts  true for posts, false for comments
     */
    public Policy policy(long classId, long authorId, @Nullable Role role, @Nullable Policy ofBlog, boolean posts) {
        if (role != null && role.readsAsStaff()) return Policy.NONE;
        ClassService.Rules rules = classes.get(classId).rules();
        boolean trusted = posts && Policy.isTrusted(rules.trustAfter(), store.approvalsInRow(classId, authorId));
        return Policy.inForce(null, ofBlog, posts ? rules.postPolicy() : rules.commentPolicy(), trusted);
    }

    /** What holds a text. {@code approved} is the plain text of the version approved before; null for none. */
    public List<Hold> holds(long classId, long authorId, @Nullable Role role, String plain, @Nullable String approved) {
        if (role != null && role.readsAsStaff()) return List.of();
        ClassService.Rules of = classes.get(classId).rules();
        HoldRules rules = new HoldRules(of.heldWords(), people.fullNames(classId, authorId), of.holdLinks());
        List<Hold> holds = new ArrayList<>(approved == null ? rules.find(plain) : rules.findNew(plain, approved));
        if (role == Role.GUEST) holds.add(new Hold(Hold.Rule.GUEST, -1, -1, ""));
        return holds;
    }

    public void setHolds(String subject, long id, List<Hold> holds) {
        store.setHolds(subject, id, holds);
    }

    public List<Hold> holdsOf(String subject, long id) {
        return store.holds(subject, id);
    }

    /** What was decided about a text, the newest first. */
    public List<PileItem.Past> history(String subject, long id, Names names) {
        return store.about(subject, id).stream().map(d -> new PileItem.Past(d.step().name(), names.of(d.by()), d.at(), d.note(), d.version())).toList();
    }

    public int approvalsInRow(long classId, long authorId) {
        return store.approvalsInRow(classId, authorId);
    }
}

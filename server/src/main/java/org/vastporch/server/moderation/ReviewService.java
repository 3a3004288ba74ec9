package org.vastporch.server.moderation;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.vastporch.core.access.Role;
import org.vastporch.core.moderation.Hold;
import org.vastporch.core.moderation.HoldRules;
import org.vastporch.core.moderation.Policy;
import org.vastporch.core.moderation.UsualWait;
import org.vastporch.server.people.ClassService;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;

/** What is looked at before it is published: the policy in force for an author, and the holds on a text. */
@Service
public class ReviewService {

    /** What was set for one student; null where blog or class decide. */
    public record OfStudent(
            @Nullable Policy posts, @Nullable Policy comments) {}

    private static final int LATEST = 40;

    private final DecisionStore store;
    private final ReportStore reports;
    private final ClassService classes;
    private final PeopleService people;

    ReviewService(DecisionStore store, ReportStore reports, ClassService classes, PeopleService people) {
        this.store = store;
        this.reports = reports;
        this.classes = classes;
        this.people = people;
    }

    /**
     * The policy for a post or comment, and what decided it.
     *
     * @param role the author's role in the class; staff need nobody's approval
     * @param ofBlog what the blog says; null if it leaves it to the class
     * @param posts true for posts, false for comments
     */
    public Policy.InForce policy(
            long classId, long authorId, @Nullable Role role, @Nullable Policy ofBlog, boolean posts) {
        if (role != null && role.readsAsStaff()) return new Policy.InForce(Policy.NONE, Policy.Source.STAFF);
        ClassService.Rules rules = classes.get(classId).rules();
        boolean trusted = posts && Policy.isTrusted(rules.trustAfter(), store.approvalsInRow(classId, authorId));
        OfStudent own = store.ofStudent(classId, authorId);
        return Policy.inForce(
                posts ? own.posts() : own.comments(),
                ofBlog,
                posts ? rules.postPolicy() : rules.commentPolicy(),
                trusted);
    }

    /**
     * A text as holds are looked for in it.
     *
     * @param id of the post or comment; 0 if it is not there yet
     * @param approved the plain text of the version approved before; null for none
     * @param pictures how many pictures, sounds, videos and files are new in it
     */
    public record Looked(
            String subject, long id, String plain, @Nullable String approved, int pictures) {}

    /** What holds a text. */
    public List<Hold> holds(long classId, long authorId, @Nullable Role role, Looked text) {
        if (role != null && role.readsAsStaff()) return List.of();
        ClassService.Rules of = classes.get(classId).rules();
        HoldRules rules = new HoldRules(
                of.heldWords(),
                people.fullNames(classId, authorId),
                of.holdLinks(),
                of.holdPictures(),
                of.firstPosts());
        List<Hold> holds = new ArrayList<>(
                text.approved() == null ? rules.find(text.plain()) : rules.findNew(text.plain(), text.approved()));
        boolean first = text.subject().equals("post") && of.firstPosts() > 0 && text.approved() == null;
        holds.addAll(rules.findWhole(text.pictures(), first ? store.published(classId, authorId) : null));
        if (role == Role.GUEST) holds.add(Hold.ofWhole(Hold.Rule.GUEST, ""));
        if (text.id() > 0 && isReported(text.subject(), text.id())) holds.add(Hold.ofWhole(Hold.Rule.REPORT, ""));
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
        return store.about(subject, id).stream()
                .map(d -> new PileItem.Past(d.step().name(), names.of(d.by()), d.at(), d.note(), d.version()))
                .toList();
    }

    /** Whether a reader reported the text and nobody has decided about that yet. */
    public boolean isReported(String subject, long id) {
        return !reports.open(subject, id).isEmpty();
    }

    /** What readers reported about a text. */
    public List<PileItem.Report> reportsOn(String subject, long id, Names names) {
        return reports.open(subject, id).stream()
                .map(r -> new PileItem.Report(names.of(r.reporterId()), r.reason(), r.at()))
                .toList();
    }

    /** Within how long three of four texts of a class were decided on lately; empty if there were too few. */
    public Optional<Duration> usualWait(long classId) {
        return UsualWait.of(store.waits(classId, LATEST));
    }

    int trustAfter(long classId) {
        return classes.get(classId).rules().trustAfter();
    }

    public int approvalsInRow(long classId, long authorId) {
        return store.approvalsInRow(classId, authorId);
    }
}

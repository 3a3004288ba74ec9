package org.vastporch.server.moderation;

import java.time.Duration;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.moderation.Author;
import org.vastporch.core.moderation.Hold;
import org.vastporch.core.moderation.Policy;
import org.vastporch.core.moderation.TextToReview;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.classes.ClassService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.people.PeopleService;

/**
 * What is set about approving, apart from the rules of the class: for one student, and the box in which staff try the
 * holds.
 */
@Service
public class ApprovalService {

    /**
     * How texts of a student are looked at.
     *
     * @param posts what was set for the posts of this very student; left out where blog or class decide
     * @param postsNow what is in force outside blogs with a rule of their own
     */
    public record Approval(
            @Optionally Policy posts,
            @Optionally Policy comments,
            Policy.InForce postsNow,
            Policy.InForce commentsNow,
            int approvalsInRow,
            int trustAfter) {}

    /** @param hours within how many hours three of four texts are decided on here; left out if nobody can say yet */
    public record UsualWaitView(@Optionally Long hours) {}

    private final DecisionStore store;
    private final ReviewService reviews;
    private final ClassService classes;
    private final PeopleService people;
    private final AccessService access;
    private final EventStore events;

    ApprovalService(
            DecisionStore store,
            ReviewService reviews,
            ClassService classes,
            PeopleService people,
            AccessService access,
            EventStore events) {
        this.store = store;
        this.reviews = reviews;
        this.classes = classes;
        this.people = people;
        this.access = access;
        this.events = events;
    }

    public Approval of(Viewer viewer, long classId, long personId) {
        requireStudent(viewer, classId, personId);
        Author student = reviews.author(classId, personId);
        return new Approval(
                student.posts(),
                student.comments(),
                reviews.ofPosts(classId, student, null),
                reviews.ofComments(classId, student, null),
                student.approvals(),
                classes.get(classId).rules().trustAfter());
    }

    /** Sets what holds for one student; null leaves it to blog and class. */
    @Transactional
    public Approval set(Viewer viewer, long classId, long personId, @Nullable Policy posts, @Nullable Policy comments) {
        requireStudent(viewer, classId, personId);
        store.setOfStudent(classId, personId, posts, comments);
        events.add(classId, "approval-changed", personId, viewer.personId());
        return of(viewer, classId, personId);
    }

    /** What the rules of a class would hold in a text that staff try. */
    public List<Hold> tryOut(Viewer viewer, long classId, String text) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        if (text.length() > 10_000)
            throw Problem.invalid("text", "text-too-long", "Try a shorter text: at most 10,000 characters.");
        return reviews.holds(
                classId, 0, new Author(Author.Place.MEMBER, null, null, 0, 0), TextToReview.newComment(text));
    }

    public UsualWaitView usualWait(Viewer viewer, long classId) {
        access.require(viewer, Act.READ_CLASS, classId);
        return new UsualWaitView(
                reviews.usualWait(classId).map(ApprovalService::hours).orElse(null));
    }

    /** Started hours; at least one. */
    private static long hours(Duration wait) {
        return Math.max(1, (wait.toMinutes() + 59) / 60);
    }

    private void requireStudent(Viewer viewer, long classId, long personId) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        if (!people.students(classId).contains(personId)) throw Problem.missing();
    }
}

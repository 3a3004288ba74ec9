package org.vastporch.server.comments;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Membership;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.access.Role;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.moderation.Hold;
import org.vastporch.core.moderation.ModerationTable;
import org.vastporch.core.moderation.ModerationTable.Step;
import org.vastporch.core.moderation.Policy;
import org.vastporch.core.moderation.Standing;
import org.vastporch.core.moderation.State;
import org.vastporch.core.text.Sanitiser;
import org.vastporch.core.text.TextFacts;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.blogs.BlogService;
import org.vastporch.server.comments.CommentStore.CommentRow;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.moderation.PileItem;
import org.vastporch.server.moderation.ReviewService;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.posts.CommentsGiven;
import org.vastporch.server.prompts.PromptService.PromptRecord;

/** Comments and replies. */
@Service
public class CommentService implements CommentsGiven {

    private static final int LONGEST = 10_000;

    /**
     * @param place     the number of the author's place in the class
     * @param mayDelete whether the viewer may take it away, by the rules of the blog
     * @param note      what the author was told if it came back
     */
    public record CommentView(long id, @Optionally Long parentId, long place, String author, String html, String state, boolean own, boolean mayDelete, @Optionally String note, Instant at) {}

    private final CommentStore store;
    private final BlogService blogs;
    private final PeopleService people;
    private final ReviewService reviews;
    private final AccessService access;
    private final EventStore events;
    private final Clock clock;

    CommentService(CommentStore store, BlogService blogs, PeopleService people, ReviewService reviews, AccessService access, EventStore events, Clock clock) {
        this.store = store;
        this.blogs = blogs;
        this.people = people;
        this.reviews = reviews;
        this.access = access;
        this.events = events;
        this.clock = clock;
    }

    /** Adds a comment; it waits or is published as the rules for its author say. */
    @Transactional
    public CommentView add(Viewer viewer, long postId, String text, @Nullable Long parentId) {
        PostFacts post = access.requirePost(viewer, Act.COMMENT, postId);
        long classId = post.blog().classId();
        if (text.isBlank()) throw Problem.invalid("text", "comment-empty", "Write something first.");
        if (text.length() > LONGEST) throw Problem.invalid("text", "comment-too-long", "A comment has at most 10,000 characters; this one has " + text.length() + ".");
        if (parentId != null && store.find(parentId).filter(p -> p.postId() == postId).isEmpty())
            throw Problem.invalid("text", "parent-gone", "The comment that you answer is gone. You can still comment on the post.");
        String html = Sanitiser.commentFromPlain(text);
        Role role = viewer.in(classId, clock.instant()).map(Membership::role).orElse(null);
        String plain = TextFacts.of(html).plain();
        List<Hold> holds = reviews.holds(classId, viewer.personId(), role, plain, null);
        Policy policy = reviews.policy(classId, viewer.personId(), role, blogs.policies(post.blog().id()).comments(), false);
        Standing after = ModerationTable.after(Standing.draft(), Step.HAND_IN, policy, !holds.isEmpty()).orElseThrow();
        Instant now = clock.instant();
        CommentRow row = new CommentRow(0, classId, postId, viewer.personId(), parentId, after.state(), html, after.state().waits() ? now : null,
            after.state() == State.PUBLISHED ? now : null, now, 1);
        long id = store.add(row, TextFacts.countWords(plain));
        reviews.setHolds("comment", id, holds);
        events.add(classId, after.state().waits() ? "comment-waits" : "comment-published", id, viewer.personId());
        return view(store.find(id).orElseThrow(), post, viewer, people.names(viewer, classId));
    }

    /** The comments of a post: published ones for every reader, others for their author and staff. */
    public List<CommentView> ofPost(Viewer viewer, long postId) {
        PostFacts post = access.requirePost(viewer, Act.READ, postId);
        long classId = post.blog().classId();
        boolean staff = access.allows(viewer, Act.SEE_STAFF_THREAD, classId);
        Names names = people.names(viewer, classId);
        List<CommentView> views = new ArrayList<>();
        for (CommentRow row : store.ofPost(postId))
            if (row.state() == State.PUBLISHED || staff || row.authorId() == viewer.personId()) views.add(view(row, post, viewer, names));
        return views;
    }

    /** Takes a comment away; its author and staff can. */
    @Transactional
    public void bin(Viewer viewer, long id) {
        CommentRow row = store.lock(id).orElseThrow(Problem::missing);
        access.requireDeletingComment(viewer, access.requirePost(viewer, Act.READ, row.postId()), row.authorId());
        store.settle(id, State.BINNED, null, row.publishedAt());
        events.add(row.classId(), "comment-binned", id, viewer.personId());
    }

    /** Comments given to others for a prompt, by the time asked and long enough to count. */
    @Override
    public int given(long personId, PromptRecord prompt) {
        Instant by = prompt.commentsDue() == null ? Instant.MAX : prompt.commentsDue();
        return (int) store.given(personId, prompt.id()).stream().filter(c -> c.words() >= prompt.commentsWords() && !c.at().isAfter(by)).count();
    }

    private CommentView view(CommentRow row, PostFacts post, Viewer viewer, Names names) {
        List<PileItem.Past> history = row.state() == State.RETURNED ? reviews.history("comment", row.id(), names) : List.of();
        return new CommentView(row.id(), row.parentId(), names.placeOf(row.authorId()), names.of(row.authorId()), Sanitiser.comment(row.html()), row.state().name(),
            row.authorId() == viewer.personId(), access.mayDeleteComment(viewer, post, row.authorId()), history.isEmpty() ? null : history.get(0).note(), row.publishedAt() != null ? row.publishedAt() : row.createdAt());
    }
}

package org.vastporch.server.comments;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.access.Reason;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.moderation.Author;
import org.vastporch.core.moderation.Course;
import org.vastporch.core.moderation.Hold;
import org.vastporch.core.moderation.ModerationTable.Step;
import org.vastporch.core.moderation.Policy;
import org.vastporch.core.moderation.Standing;
import org.vastporch.core.moderation.State;
import org.vastporch.core.moderation.TextToReview;
import org.vastporch.core.text.Sanitiser;
import org.vastporch.core.text.TextFacts;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.blogs.BlogService;
import org.vastporch.server.comments.CommentStore.CommentRow;
import org.vastporch.server.http.Allowance;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.moderation.PileItem;
import org.vastporch.server.moderation.ReviewService;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;

/** Comments and replies. */
@Service
public class CommentService {

    private static final int LONGEST = 10_000;
    private static final int LONGEST_NAME = 60;

    /**
     * @param rev changes with every change of the comment; a change names it
     * @param place the number of the author's place in the class
     * @param mayEdit whether the viewer may change it: one's own by the rules of the blog, or anybody's as staff
     * @param mayDelete whether the viewer may take it away, by the rules of the blog
     * @param note what the author was told if it came back
     */
    public record CommentView(
            long id,
            int rev,
            @Optionally Long parentId,
            long place,
            String author,
            String html,
            State state,
            boolean own,
            boolean mayEdit,
            boolean mayDelete,
            @Optionally String note,
            Instant at,
            boolean edited,
            @Optionally String editedBy) {}

    private final CommentStore store;
    private final BlogService blogs;
    /** A few comments an hour from one network address. */
    private final Allowance visitors = new Allowance(6);

    private final PeopleService people;
    private final ReviewService reviews;
    private final AccessService access;
    private final EventStore events;
    private final Clock clock;

    CommentService(
            CommentStore store,
            BlogService blogs,
            PeopleService people,
            ReviewService reviews,
            AccessService access,
            EventStore events,
            Clock clock) {
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
        PostFacts post = access.requireLockedPost(viewer, Act.COMMENT, postId);
        Settled settled = settled(viewer, post, text, null);
        return keep(viewer, post, parentId, null, settled);
    }

    /**
     * Adds a comment of somebody without an account, where the blog lets anyone comment. It always waits. A program
     * that fills in the hidden field is told that all went well, and nothing is kept.
     */
    @Transactional
    public CommentView addByVisitor(
            long postId, String text, @Nullable Long parentId, String name, String hidden, String address) {
        PostFacts post = access.requireLockedPost(Viewer.STRANGER, Act.COMMENT, postId);
        String shown = name.replaceAll("[\\p{Cntrl}\\p{Cf}]", "")
                .replaceAll("\\s+", " ")
                .strip();
        if (shown.isEmpty())
            throw Problem.invalid("name", "name-missing", "Say who you are; it stands beside your comment.");
        if (shown.length() > LONGEST_NAME)
            throw Problem.invalid("name", "name-too-long", "A name has at most " + LONGEST_NAME + " characters here.");
        if (!visitors.take(address))
            throw Problem.tooMany("Many comments came from where you are. Please try again in an hour.");
        Settled settled = settled(Viewer.STRANGER, post, text, null);
        if (!hidden.isEmpty())
            return new CommentView(
                    0,
                    1,
                    parentId,
                    0,
                    shown,
                    settled.html(),
                    State.WAITING,
                    false,
                    false,
                    false,
                    null,
                    clock.instant(),
                    false,
                    null);
        return keep(Viewer.STRANGER, post, parentId, shown, settled);
    }

    private CommentView keep(
            Viewer viewer, PostFacts post, @Nullable Long parentId, @Nullable String visitor, Settled settled) {
        if (parentId != null
                && store.lock(parentId)
                        .filter(p -> p.postId() == post.id() && p.state() == State.PUBLISHED)
                        .isEmpty())
            throw Problem.invalid(
                    "text", "parent-gone", "The comment that you answer is gone. You can still comment on the post.");
        long classId = post.blog().classId();
        Instant now = clock.instant();
        State state = settled.state();
        CommentRow row = new CommentRow(
                0,
                classId,
                post.id(),
                viewer.personId(),
                visitor,
                parentId,
                state,
                settled.html(),
                settled.after().waitingSince(),
                settled.after().publishedAt(),
                now,
                null,
                null,
                null,
                1);
        long id = store.add(row, settled.words());
        if (!viewer.isStranger()) people.commented(classId, viewer.personId());
        reviews.setHolds("comment", id, settled.holds());
        events.add(
                classId,
                state.waits() ? "comment-waits" : "comment-published",
                id,
                viewer.isStranger() ? null : viewer.personId());
        return view(store.find(id).orElseThrow(), post, viewer, names(viewer, post));
    }

    /**
     * Changes a comment. One's own goes the way of a new one: where comments are looked at first, it waits again. One
     * that staff mend stays where it is, and says who mended it.
     *
     * @param rev the state of the comment that its changer had before them; an older one is refused, with what stands
     *     there now
     */
    @Transactional
    public CommentView change(Viewer viewer, long id, int rev, String text) {
        CommentRow row = locked(viewer, id);
        PostFacts post = access.requirePost(viewer, Act.READ, row.postId());
        access.requireEditingComment(
                viewer, post, row.authorId(), row.state() == State.PUBLISHED ? row.publishedAt() : null);
        if (row.state() == State.HIDDEN || row.state() == State.BINNED) throw Problem.missing();
        if (reviews.isReported("comment", id))
            throw Problem.stale(
                    "being-looked-at", "Somebody is looking at this just now. You can change it after that.");
        if (row.rev() != rev)
            throw Problem.stale(
                            "changed-elsewhere",
                            "This comment was changed in another window or by somebody else. Nothing was written over.")
                    .with("rev", row.rev())
                    .with("html", Sanitiser.comment(row.html()));
        Instant now = clock.instant();
        if (!isOwn(viewer, row)) return mend(viewer, row, post, text, now);
        Settled settled = settled(viewer, post, text, row.publishedAt());
        State state = settled.state();
        boolean wasSeen = row.state() == State.PUBLISHED || row.state() == State.RETURNED;
        store.setText(id, settled.html(), settled.words(), viewer.personId(), wasSeen ? row.html() : row.before(), now);
        store.settle(id, settled.after());
        reviews.setHolds("comment", id, settled.holds());
        events.add(row.classId(), state.waits() ? "comment-waits" : "comment-published", id, viewer.personId());
        return view(store.find(id).orElseThrow(), post, viewer, names(viewer, post));
    }

    private CommentView mend(Viewer viewer, CommentRow row, PostFacts post, String text, Instant now) {
        Viewer author = row.visitor() == null ? access.viewer(row.authorId()) : Viewer.STRANGER;
        Settled mended = settled(author, post, text, row.publishedAt());
        store.setText(row.id(), mended.html(), mended.words(), viewer.personId(), row.before(), now);
        store.settle(row.id(), row.course());
        if (row.state().waits()) reviews.setHolds("comment", row.id(), mended.holds());
        events.add(row.classId(), "comment-mended", row.id(), viewer.personId());
        return view(store.find(row.id()).orElseThrow(), post, viewer, names(viewer, post));
    }

    /** Who mended the words of another; null for nobody. */
    private static @Nullable String mender(CommentRow row, Names names) {
        return row.editedBy() == null || row.editedBy() == row.authorId() ? null : names.of(row.editedBy());
    }

    /** A text made fit to be kept, with where it stands by the rules for its author. */
    private record Settled(String html, int words, List<Hold> holds, Course after) {

        State state() {
            return after.standing().state();
        }
    }

    /** @param firstUp when it went up first; null if it never did */
    private Settled settled(Viewer viewer, PostFacts post, String text, @Nullable Instant firstUp) {
        if (text.isBlank()) throw Problem.invalid("text", "comment-empty", "Write something first.");
        if (text.length() > LONGEST)
            throw Problem.invalid(
                    "text",
                    "comment-too-long",
                    "A comment has at most 10,000 characters; this one has " + text.length() + ".");
        long classId = post.blog().classId();
        String html = Sanitiser.commentFromPlain(text);
        String plain = TextFacts.of(html).plain();
        Author author = viewer.isStranger() ? Author.OUTSIDE : reviews.author(classId, viewer.personId());
        List<Hold> holds = reviews.holds(classId, viewer.personId(), author, TextToReview.newComment(plain));
        Policy.InForce inForce = viewer.isStranger()
                ? Policy.InForce.OF_VISITORS
                : reviews.ofComments(
                        classId, author, blogs.approving(post.blog().id()).comments());
        Course after = new Course(Standing.draft(), null, firstUp, null, null)
                .handedIn(
                        null,
                        new Course.Circumstances(clock.instant(), inForce.policy(), !holds.isEmpty(), false, false))
                .orElseThrow();
        return new Settled(html, TextFacts.countWords(plain), holds, after);
    }

    /** The comments of a post: published ones for every reader, others for their author and staff. */
    public List<CommentView> ofPost(Viewer viewer, long postId) {
        PostFacts post = access.requirePost(viewer, Act.READ, postId);
        long classId = post.blog().classId();
        List<CommentRow> rows = store.ofPost(postId);
        Names names = names(viewer, post)
                .inThread(
                        post.authorId(),
                        rows.stream()
                                .filter(r -> r.state() == State.PUBLISHED && r.visitor() == null)
                                .map(CommentRow::authorId)
                                .distinct()
                                .toList());
        List<CommentView> views = new ArrayList<>();
        for (CommentRow row : rows) if (mayRead(viewer, row, post)) views.add(view(row, post, viewer, names));
        return views;
    }

    /** A comment as a feed carries it. */
    public record FeedComment(
            long id,
            long postId,
            String postTitle,
            String author,
            String html,
            Instant at,
            @Nullable Instant editedAt) {}

    /** The newest comments of a class that are up, of one blog of it, or on one post, as this reader may read them. */
    public List<FeedComment> feed(Viewer viewer, long classId, @Nullable Long blog, @Nullable Long post, int most) {
        Names names = people.names(viewer, classId);
        List<CommentStore.Published> found = store.newest(access.scope(viewer), classId, blog, post, most);
        Map<Long, PostFacts> posts = access.posts(
                found.stream().map(c -> c.row().postId()).distinct().toList());
        return found.stream()
                .filter(c -> posts.containsKey(c.row().postId())
                        && mayRead(viewer, c.row(), posts.get(c.row().postId())))
                .map(c -> new FeedComment(
                        c.row().id(),
                        c.row().postId(),
                        c.postTitle(),
                        c.row().visitor() == null
                                ? named(viewer, names, posts.get(c.row().postId()))
                                        .of(c.row().authorId())
                                : c.row().visitor(),
                        Sanitiser.comment(c.row().html()),
                        c.row().publishedAt() == null
                                ? c.row().createdAt()
                                : c.row().publishedAt(),
                        c.row().editedAt()))
                .toList();
    }

    /** The names by which this reader knows who wrote a post and who comments on it. */
    private Names names(Viewer viewer, PostFacts post) {
        return named(viewer, people.names(viewer, post.blog().classId()), post);
    }

    private Names named(Viewer viewer, Names all, PostFacts post) {
        return access.keepsNames(viewer, post) ? all.keptFrom(viewer.personId()) : all;
    }

    boolean mayRead(Viewer viewer, CommentRow row) {
        return mayRead(viewer, row, access.requirePost(viewer, Act.READ, row.postId()));
    }

    private boolean mayRead(Viewer viewer, CommentRow row, PostFacts post) {
        return access.mayReadComment(
                viewer,
                post,
                row.authorId(),
                row.state() == State.PUBLISHED,
                row.standing().inPile(row.waitingSince() != null));
    }

    /** The comment if the viewer may read it, its row locked; to others it is not there. */
    private CommentRow locked(Viewer viewer, long id) {
        CommentRow row = store.lock(id)
                .orElseThrow(() -> viewer.isStranger() ? Problem.refused(Reason.SIGN_IN_FIRST) : Problem.missing());
        if (!mayRead(viewer, row))
            throw viewer.isStranger() ? Problem.refused(Reason.SIGN_IN_FIRST) : Problem.missing();
        return row;
    }

    /** Where a comment stands and whose it is; 0 for a visitor's. */
    public record Placed(long classId, long authorId) {}

    /** The comment for somebody who may read its post and, while it is not up, for its author and the staff. */
    public Placed placed(Viewer viewer, long id) {
        CommentRow row = store.find(id).orElseThrow(Problem::missing);
        if (!mayRead(viewer, row)) throw Problem.missing();
        return new Placed(row.classId(), row.authorId());
    }

    /** Takes a comment away; its author and staff can. */
    @Transactional
    public void bin(Viewer viewer, long id) {
        CommentRow row = locked(viewer, id);
        access.requireDeletingComment(viewer, access.requirePost(viewer, Act.READ, row.postId()), row.authorId());
        store.settle(
                id,
                row.course()
                        .moved(Step.BIN, Course.Circumstances.at(clock.instant()))
                        .orElseThrow(Problem::missing));
        events.add(row.classId(), "comment-binned", id, viewer.personId());
    }

    static String author(CommentRow row, Names names) {
        return row.visitor() != null ? row.visitor() + " (visitor)" : names.of(row.authorId());
    }

    private static boolean isOwn(Viewer viewer, CommentRow row) {
        return !viewer.isStranger() && row.authorId() == viewer.personId();
    }

    private CommentView view(CommentRow row, PostFacts post, Viewer viewer, Names names) {
        boolean own = isOwn(viewer, row);
        List<PileItem.Past> history =
                row.state() == State.RETURNED ? reviews.history("comment", row.id(), names) : List.of();
        boolean mayEdit = access.mayEditComment(
                viewer, post, row.authorId(), row.state() == State.PUBLISHED ? row.publishedAt() : null);
        return new CommentView(
                row.id(),
                row.rev(),
                row.parentId(),
                names.placeOf(row.authorId()),
                author(row, names),
                Sanitiser.comment(row.html()),
                row.state(),
                own,
                row.state() != State.HIDDEN && mayEdit,
                access.mayDeleteComment(viewer, post, row.authorId()),
                history.isEmpty() ? null : history.get(0).note(),
                row.publishedAt() != null ? row.publishedAt() : row.createdAt(),
                row.editedAt() != null,
                mender(row, names));
    }
}

package org.vastporch.server.writing;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.BlogFacts;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.feeds.Excerpt;
import org.vastporch.core.moderation.Author;
import org.vastporch.core.moderation.Course;
import org.vastporch.core.moderation.Hold;
import org.vastporch.core.moderation.HoldRules;
import org.vastporch.core.moderation.ModerationTable.Step;
import org.vastporch.core.moderation.Policy;
import org.vastporch.core.moderation.State;
import org.vastporch.core.moderation.TextToReview;
import org.vastporch.core.prompts.PromptMatch;
import org.vastporch.core.text.Sanitiser;
import org.vastporch.core.text.TextFacts;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.blogs.BlogService;
import org.vastporch.server.http.Problem;
import org.vastporch.server.log.EventStore;
import org.vastporch.server.moderation.ReviewService;

/**
 * Takes in what outside blogs carry, as posts of the students whose blogs they are. They go the same way through
 * approval and holds as posts that are written here.
 */
@Service
public class GatheredPosts {

    /** So many characters close whatever tags a cut leaves open. */
    private static final int ROOM_TO_CLOSE = 2_000;

    /**
     * A post as its feed carries it.
     *
     * @param match the prompt that it answers, and by what that is known; null for none
     * @param excerpt what is known of it if its feed carries only the beginning; null if it is whole
     */
    public record Gathered(
            long sourceId,
            PromptMatch.@Nullable Match match,
            String link,
            String title,
            String html,
            List<String> tags,
            Instant date,
            @Nullable Excerpt excerpt) {}

    /**
     * Where the posts of one source stand, and what is the same for all of them within one transaction: it is read
     * once, not for each entry.
     *
     * @param viewer the author, as one who asks for access
     * @param author the same as one whose texts are looked at
     */
    public record Home(BlogFacts blog, Viewer viewer, Author author, Policy policy, HoldRules rules) {}

    private final PostStore store;
    private final GatheredPostStore gathered;
    private final DraftCheck check;
    private final BlogService blogs;
    private final ReviewService reviews;
    private final AccessService access;
    private final EventStore events;
    private final Clock clock;

    GatheredPosts(
            PostStore store,
            GatheredPostStore gathered,
            DraftCheck check,
            BlogService blogs,
            ReviewService reviews,
            AccessService access,
            EventStore events,
            Clock clock) {
        this.store = store;
        this.gathered = gathered;
        this.check = check;
        this.blogs = blogs;
        this.reviews = reviews;
        this.access = access;
        this.events = events;
        this.clock = clock;
    }

    /** Posts of a person that were brought in by hand, by those of some addresses from which they came. */
    public Map<String, Long> broughtIn(long classId, long personId, Collection<String> links) {
        return gathered.ofLinks(classId, personId, links);
    }

    public Home home(long classId, long blogId, long authorId) {
        Author author = reviews.author(classId, authorId);
        return new Home(
                access.blog(blogId),
                access.viewer(authorId),
                author,
                reviews.ofPosts(classId, author, blogs.approving(blogId).posts())
                        .policy(),
                reviews.rules(classId, authorId));
    }

    /**
     * Takes in a post: as a new version of the one that came before, or as a new one.
     *
     * @param postId the post that an earlier version of the entry made; null for the first
     */
    @Transactional
    public long takeIn(Home home, Gathered post, @Nullable Long postId) {
        String clean = Sanitiser.post(post.html());
        // Whoever mends it later can keep it whole.
        if (clean.length() > PostService.LONGEST_HTML)
            clean = Sanitiser.post(clean.substring(0, PostService.LONGEST_HTML - ROOM_TO_CLOSE));
        Content content = new Content(
                PostService.fitting(post.title(), clean), clean, post.tags(), Audience.MY_CLASS, null, List.of());
        if (postId == null) return add(home, post, content);
        PostRow row = store.lock(postId).orElseThrow();
        if (row.authorId() != null) change(homeOf(row, home), post, content, row);
        return postId;
    }

    /** What came while the source was somebody else's stays with that person, in the blog where it stands. */
    private Home homeOf(PostRow row, Home home) {
        return row.authorId() == home.viewer().personId()
                        && row.blogId() == home.blog().id()
                ? home
                : home(row.classId(), row.blogId(), row.authorId());
    }

    private long add(Home home, Gathered post, Content content) {
        Instant now = clock.instant();
        long author = home.viewer().personId();
        Course draft = Course.draft().writtenOn(post.date());
        Version version = new Version(draft.standing().newest(), content, author, now, now);
        TextFacts facts = TextFacts.of(content.html());
        PostFacts asDraft = new PostFacts(0, home.blog(), author, null, State.DRAFT, false, content.audience());
        List<Hold> holds = holds(home, asDraft, DraftCheck.review(version, facts, null, false));
        Course course = draft.handedIn(null, circumstances(home, !holds.isEmpty(), false))
                .orElseThrow();
        long id = gathered.add(home.blog(), author, post, course, version.no(), now);
        store.putVersion(id, version, facts);
        if (course.standing().live() != null) store.setTags(home.blog().classId(), id, content.tags());
        reviews.setHolds("post", id, holds);
        note(home, id, course);
        return id;
    }

    private void change(Home home, Gathered post, Content content, PostRow row) {
        // What its author brought in by hand is changed by its author alone.
        if (row.sourceId() == null) return;
        if (row.standing().state() == State.HIDDEN || row.standing().state() == State.BINNED) return;
        Instant now = clock.instant();
        Course draft = row.course().written(false, true, false).orElseThrow().writtenOn(post.date());
        Version version = new Version(draft.standing().newest(), content, row.authorId(), now, now);
        TextFacts facts = TextFacts.of(content.html());
        store.putVersion(row.id(), version, facts);
        gathered.setExcerpt(row.id(), post.excerpt());
        PostRow drafted = row.at(draft);
        boolean reported = reviews.isReported("post", row.id());
        List<Hold> holds =
                holds(home, access.post(row.id()), DraftCheck.review(version, facts, check.approved(row), reported));
        Course course = draft.handedIn(null, circumstances(home, !holds.isEmpty(), reported))
                .orElseThrow();
        store.settle(drafted, course, row.authorId(), now);
        store.setHanded(row, version.no(), now);
        reviews.setHolds("post", row.id(), holds);
        note(home, row.id(), course);
    }

    private List<Hold> holds(Home home, PostFacts post, TextToReview text) {
        List<Hold> holds = new ArrayList<>(home.rules().find(text, home.author()));
        if (!access.allows(home.viewer(), Act.HAND_IN, post)) holds.add(Hold.ofWhole(Hold.Rule.WRITING_OVER, ""));
        return holds;
    }

    private Course.Circumstances circumstances(Home home, boolean held, boolean reported) {
        return new Course.Circumstances(clock.instant(), home.policy(), held, reported, true);
    }

    private void note(Home home, long id, Course course) {
        events.add(
                home.blog().classId(),
                course.standing().state() == State.PUBLISHED ? "post-published" : "post-waits",
                id,
                home.viewer().personId());
    }

    /** Hides an outside post whose page is no longer there; what is out of sight anyway stays as it is. */
    @Transactional
    public void hideGone(long id) {
        PostRow row = store.lock(id).orElseThrow(Problem::missing);
        State state = row.standing().state();
        if (state == State.HIDDEN || state == State.BINNED) return;
        Instant now = clock.instant();
        Course after =
                row.course().moved(Step.HIDE, Course.Circumstances.at(now)).orElseThrow();
        store.settle(row, after, row.authorId(), now);
        events.add(row.classId(), "post-hidden", row.id(), null);
    }
}

package org.vastporch.server.access;

import java.time.Clock;
import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.vastporch.core.access.AccessEngine;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.BlogFacts;
import org.vastporch.core.access.FileFacts;
import org.vastporch.core.access.Knowledge;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.access.Reason;
import org.vastporch.core.access.Scope;
import org.vastporch.core.access.Sightline;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.http.Problem;

/** Asks the access engine on behalf of everything in the server, and refuses with its reason. */
@Service
public class AccessService {

    private final AccessStore store;
    private final Clock clock;

    AccessService(AccessStore store, Clock clock) {
        this.store = store;
        this.clock = clock;
    }

    public Viewer viewer(long personId) {
        return store.viewer(personId).orElse(Viewer.STRANGER);
    }

    /**
     * Who a sign-in belongs to; a stranger if it ended or there is none.
     *
     * @param token what is kept of its token
     * @param since when it must have begun after
     */
    public Viewer signedIn(String token, Instant since) {
        return store.signedIn(token, since).orElse(Viewer.STRANGER);
    }

    /** @throws Problem if the viewer may not do this in the class */
    public void require(Viewer viewer, Act act, long classId) {
        Problem.unlessAllowed(AccessEngine.inClass(viewer, act, classId, now()));
    }

    /** @throws Problem if the class has no front page, or is not there */
    public void requireFrontPage(long classId) {
        Problem.unlessAllowed(AccessEngine.frontPage(store.isOpen(classId)));
    }

    public boolean allows(Viewer viewer, Act act, long classId) {
        return AccessEngine.inClass(viewer, act, classId, now()).allows();
    }

    /**
     * The post if the viewer may do this with it.
     *
     * @throws Problem if not; a post that is not there is refused like one that may not be read
     */
    public PostFacts requirePost(Viewer viewer, Act act, long postId) {
        PostFacts post = store.post(postId)
                .orElseThrow(() -> viewer.isStranger() ? Problem.refused(Reason.SIGN_IN_FIRST) : Problem.missing());
        Reason reason = decide(viewer, act, post);
        // A stranger is led through sign-in, whatever the reason: it says nothing of what is there.
        Problem.unlessAllowed(viewer.isStranger() && !reason.allows() ? Reason.SIGN_IN_FIRST : reason);
        return post;
    }

    /**
     * The post if the viewer may do this with it, its row locked until the transaction ends: nobody can change it
     * between this answer and a write. What follows reads the row anew.
     */
    public PostFacts requireLockedPost(Viewer viewer, Act act, long postId) {
        store.lockPost(postId);
        return requirePost(viewer, act, postId);
    }

    /**
     * The post for its author and the staff, who know every version of it and its margin. To anybody else it is not
     * there.
     */
    public PostFacts requireAllOf(Viewer viewer, long postId) {
        PostFacts post = requirePost(viewer, Act.READ, postId);
        if (knows(viewer, post) != Knowledge.ALL)
            throw viewer.isStranger() ? Problem.refused(Reason.SIGN_IN_FIRST) : Problem.missing();
        return post;
    }

    public PostFacts post(long postId) {
        return store.post(postId).orElseThrow(Problem::missing);
    }

    /** How much of a post the viewer may know. */
    public Knowledge knows(Viewer viewer, PostFacts post) {
        return AccessEngine.knows(viewer, post, now());
    }

    /** Whether the names of those who learn in the class are kept from the viewer around a post. */
    public boolean keepsNames(Viewer viewer, PostFacts post) {
        return AccessEngine.keepsNames(viewer, post, now());
    }

    /** Whether the viewer may know who wrote a post that they may read. */
    public boolean namesAuthor(Viewer viewer, PostFacts post) {
        return AccessEngine.namesAuthor(viewer, post, now());
    }

    /** Whether the viewer may have a file that stands in no post. */
    public boolean readsFile(Viewer viewer, FileFacts file) {
        return AccessEngine.readFile(viewer, file, now()).allows();
    }

    public boolean mayJudge(Viewer viewer, long classId, boolean inPile) {
        return AccessEngine.judge(viewer, classId, inPile, now()).allows();
    }

    public boolean mayUndo(Viewer viewer, long classId, long decidedBy) {
        return AccessEngine.undo(viewer, classId, decidedBy, now()).allows();
    }

    public boolean mayReadComment(Viewer viewer, PostFacts post, long author, boolean up, boolean inPile) {
        return AccessEngine.readComment(viewer, post, author, up, inPile, now()).allows();
    }

    public Sightline.Detail sightlineDetail(Viewer viewer, long classId) {
        return AccessEngine.sightlineDetail(viewer, classId, now());
    }

    /** Why the viewer may do this with a post, or may not: for a page that says so. */
    public Reason decide(Viewer viewer, Act act, PostFacts post) {
        return AccessEngine.decide(viewer, act, post, now());
    }

    public boolean allows(Viewer viewer, Act act, PostFacts post) {
        return decide(viewer, act, post).allows();
    }

    public BlogFacts requireWriting(Viewer viewer, long blogId) {
        BlogFacts blog = store.blog(blogId).orElseThrow(Problem::missing);
        Problem.unlessAllowed(AccessEngine.write(viewer, blog, now()));
        return blog;
    }

    /** The blog if the viewer may open its page. */
    public BlogFacts requireBlog(Viewer viewer, long blogId) {
        BlogFacts blog = store.blog(blogId).orElseThrow(Problem::missing);
        Reason reason = AccessEngine.openBlog(
                viewer, blog, !showing(viewer, List.of(blog)).isEmpty(), now());
        Problem.unlessAllowed(viewer.isStranger() && !reason.allows() ? Reason.SIGN_IN_FIRST : reason);
        return blog;
    }

    /** Whether a post is there that the viewer may read. */
    public boolean mayRead(Viewer viewer, long postId) {
        return store.post(postId).filter(post -> allows(viewer, Act.READ, post)).isPresent();
    }

    /** Those of some blogs whose pages the viewer may open, by their ids. */
    public Map<Long, BlogFacts> openable(Viewer viewer, Collection<Long> blogIds) {
        Map<Long, BlogFacts> blogs = new HashMap<>(store.blogs(blogIds));
        Set<Long> showing = showing(viewer, blogs.values());
        blogs.values().removeIf(blog -> !AccessEngine.openBlog(viewer, blog, showing.contains(blog.id()), now())
                .allows());
        return blogs;
    }

    /** Those of some blogs in which something stands for the viewer, asked only where it matters for their pages. */
    private Set<Long> showing(Viewer viewer, Collection<BlogFacts> blogs) {
        return store.showing(
                scope(viewer),
                blogs.stream()
                        .filter(blog -> blog.ownerId() != null
                                && viewer.in(blog.classId(), now()).isEmpty())
                        .map(BlogFacts::id)
                        .toList());
    }

    /** The blog if the viewer may pin and order its posts. */
    public BlogFacts requireArranging(Viewer viewer, long blogId) {
        BlogFacts blog = store.blog(blogId).orElseThrow(Problem::missing);
        Problem.unlessAllowed(AccessEngine.arrange(viewer, blog, now()));
        return blog;
    }

    public boolean mayArrange(Viewer viewer, BlogFacts blog) {
        return AccessEngine.arrange(viewer, blog, now()).allows();
    }

    public void requireDeletingComment(Viewer viewer, PostFacts post, long commentAuthor) {
        Problem.unlessAllowed(AccessEngine.deleteComment(viewer, post, commentAuthor, now()));
    }

    public void requireEditingComment(Viewer viewer, PostFacts post, long commentAuthor, @Nullable Instant published) {
        Problem.unlessAllowed(AccessEngine.editComment(viewer, post, commentAuthor, published, now()));
    }

    public boolean mayEditComment(Viewer viewer, PostFacts post, long commentAuthor, @Nullable Instant published) {
        return AccessEngine.editComment(viewer, post, commentAuthor, published, now())
                .allows();
    }

    public boolean mayReadWord(Viewer viewer, long classId, long author) {
        return AccessEngine.readWord(viewer, classId, author, now()).allows();
    }

    public void requireAside(Viewer viewer, long classId) {
        Problem.unlessAllowed(AccessEngine.writeAside(viewer, classId, now()));
    }

    public boolean mayWriteAside(Viewer viewer, long classId) {
        return AccessEngine.writeAside(viewer, classId, now()).allows();
    }

    public boolean mayDelete(Viewer viewer, long postId) {
        return store.post(postId)
                .filter(post -> allows(viewer, Act.DELETE, post))
                .isPresent();
    }

    public boolean mayDeleteComment(Viewer viewer, PostFacts post, long commentAuthor) {
        return AccessEngine.deleteComment(viewer, post, commentAuthor, now()).allows();
    }

    /**
     * The viewer whose eyes staff may borrow in a class.
     *
     * @param placeId the person's place in the class; null for a stranger
     */
    public Viewer eyes(Viewer viewer, long classId, @Nullable Long placeId) {
        Optional<Viewer> whose = placeId == null
                ? Optional.empty()
                : store.personAt(classId, placeId).flatMap(store::viewer);
        if (placeId != null && whose.flatMap(w -> w.in(classId, now())).isEmpty()) throw Problem.missing();
        Problem.unlessAllowed(AccessEngine.throughEyes(
                viewer,
                classId,
                whose.flatMap(w -> w.in(classId, now())).map(m -> m.role()).orElse(null),
                now()));
        return whose.map(w -> w.throughLens(classId)).orElse(Viewer.STRANGER);
    }

    public boolean mayWrite(Viewer viewer, long blogId) {
        return AccessEngine.write(viewer, store.blog(blogId).orElseThrow(Problem::missing), now())
                .allows();
    }

    public boolean seesRealName(Viewer viewer, long personId, long classId) {
        return AccessEngine.seeRealName(viewer, personId, classId, now()).allows();
    }

    public ScopeSql scope(Viewer viewer) {
        return new ScopeSql(Scope.of(viewer, now()));
    }

    /** Those of some posts that are up and that the viewer may read now; at most a few thousand are asked about. */
    public Set<Long> readable(Viewer viewer, Collection<Long> posts) {
        return store.readable(scope(viewer), posts);
    }

    /** Whether a post may be given to the viewer for review. */
    public boolean mayReview(Viewer viewer, PostFacts post) {
        return AccessEngine.review(viewer, post, now()).allows();
    }

    /** Everybody who has or had a place in a class, by their ids, as far as reading in it goes. */
    public Map<Long, Viewer> membersOf(long classId) {
        return store.viewers(classId, false).stream().collect(Collectors.toMap(Viewer::personId, Function.identity()));
    }

    /** Who will read a post once it is up, for an audience that its author may be about to choose. */
    public Sightline sightline(PostFacts post) {
        return sightlines().of(post);
    }

    /** The sightline of a blog that may not have been saved yet. */
    public Sightline sightline(BlogFacts blog) {
        return sightlines().of(blog);
    }

    /** For the sightlines of many. */
    public Sightlines sightlines() {
        return new Sightlines(store, now());
    }

    /** Blogs by their ids; those that are not there are left out. */
    public Map<Long, BlogFacts> blogs(Collection<Long> blogIds) {
        return store.blogs(blogIds);
    }

    /** Posts by their ids; those that are not there are left out. */
    public Map<Long, PostFacts> posts(Collection<Long> postIds) {
        return store.posts(postIds);
    }

    public BlogFacts blog(long blogId) {
        return store.blog(blogId).orElseThrow(Problem::missing);
    }

    private Instant now() {
        return clock.instant();
    }
}

package org.vastporch.server.comments;

import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.moderation.Policy;
import org.vastporch.core.moderation.Standing;
import org.vastporch.core.moderation.State;
import org.vastporch.core.text.Revision;
import org.vastporch.core.text.Sanitiser;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.comments.CommentStore.CommentRow;
import org.vastporch.server.http.Problem;
import org.vastporch.server.moderation.Moderated;
import org.vastporch.server.moderation.PileFilter;
import org.vastporch.server.moderation.PileItem;
import org.vastporch.server.moderation.ReviewService;
import org.vastporch.server.people.ClassService;
import org.vastporch.server.people.Names;
import org.vastporch.server.people.PeopleService;
import org.vastporch.server.posts.PostHeadings;

/** Comments in the pile, each with the post that it answers. */
@Component
class CommentPile implements Moderated {

    private final CommentStore store;
    private final PostHeadings posts;
    private final ClassService classes;
    private final PeopleService people;
    private final ReviewService reviews;
    private final CommentService comments;
    private final AccessService access;

    CommentPile(
            CommentStore store,
            PostHeadings posts,
            ClassService classes,
            PeopleService people,
            ReviewService reviews,
            CommentService comments,
            AccessService access) {
        this.store = store;
        this.posts = posts;
        this.classes = classes;
        this.people = people;
        this.reviews = reviews;
        this.comments = comments;
        this.access = access;
    }

    @Override
    public String subject() {
        return "comment";
    }

    @Override
    public Optional<Text> lock(long id) {
        return store.lock(id)
                .map(c -> new Text(
                        c.id(),
                        c.classId(),
                        c.authorId() == 0 ? null : c.authorId(),
                        c.rev(),
                        c.standing(),
                        c.waitingSince(),
                        c.publishedAt(),
                        null));
    }

    @Override
    public void settle(
            Text before, Standing after, @Nullable Instant waitingSince, @Nullable Instant publishedAt, long by) {
        store.settle(before.id(), after.state(), waitingSince, publishedAt);
    }

    @Override
    public Optional<Revision> changesSince(long id, int version) {
        return Optional.empty();
    }

    @Override
    public void requireReading(Viewer viewer, long id) {
        CommentRow row =
                store.find(id).filter(c -> c.state() == State.PUBLISHED).orElseThrow(Problem::missing);
        if (!comments.mayRead(viewer, row)) throw Problem.missing();
    }

    @Override
    public List<PileItem> waiting(Viewer viewer, Collection<Long> classIds, PileFilter filter) {
        Known known = new Known(new HashMap<>(), new HashMap<>(), new HashMap<>(), new HashMap<>());
        return store.waiting(List.copyOf(classIds), filter).stream()
                .map(row -> item(viewer, row, known))
                .toList();
    }

    /** What many comments of a pile have in common, asked for once. */
    private record Known(
            Map<Long, Names> names,
            Map<Long, String> classes,
            Map<Long, PostHeadings.Heading> posts,
            Map<List<Long>, Policy.InForce> policies) {}

    private PileItem item(Viewer viewer, CommentRow row, Known known) {
        Names names = known.names().computeIfAbsent(row.classId(), id -> people.names(viewer, id));
        PostHeadings.Heading post = known.posts().computeIfAbsent(row.postId(), posts::of);
        String in = known.classes()
                .computeIfAbsent(row.classId(), id -> classes.get(id).name());
        Policy.InForce policy = known.policies()
                .computeIfAbsent(List.of(row.authorId(), post.blogId()), k -> comments.policy(row, post.blogId()));
        List<PileItem.Report> reported = reviews.reportsOn("comment", row.id(), names);
        Revision changes =
                row.before() == null || !reported.isEmpty() ? null : Revision.of(side(row.before()), side(row.html()));
        return new PileItem(
                "comment",
                row.id(),
                row.classId(),
                in,
                1,
                row.rev(),
                CommentService.author(row, names),
                names.placeOf(row.authorId()),
                names.groupOf(row.authorId()),
                "",
                Sanitiser.comment(row.html()),
                PileItem.Besides.NOTHING,
                row.waitingSince(),
                null,
                null,
                null,
                new PileItem.Under(row.postId(), post.title(), names.of(post.authorId())),
                reviews.holdsOf("comment", row.id()),
                changes,
                reviews.history("comment", row.id(), names),
                PileItem.Readers.of(post.line()),
                null,
                0,
                0,
                null,
                row.state().name(),
                policy,
                reported);
    }

    private static Revision.Side side(String html) {
        return new Revision.Side("", Sanitiser.comment(html), List.of());
    }
}

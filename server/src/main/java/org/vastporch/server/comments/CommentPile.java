package org.vastporch.server.comments;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.moderation.Standing;
import org.vastporch.core.moderation.State;
import org.vastporch.core.text.Sanitiser;
import org.vastporch.core.text.WordDiff;
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

    CommentPile(CommentStore store, PostHeadings posts, ClassService classes, PeopleService people, ReviewService reviews, CommentService comments, AccessService access) {
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
        return store.lock(id).map(c -> new Text(c.id(), c.classId(), c.authorId() == 0 ? null : c.authorId(), c.rev(), c.standing(), c.waitingSince(), c.publishedAt(), null));
    }

    @Override
    public void settle(Text before, Standing after, @Nullable Instant waitingSince, @Nullable Instant publishedAt) {
        store.settle(before.id(), after.state(), waitingSince, publishedAt);
    }

    @Override
    public Optional<List<WordDiff.Stretch>> changesSince(long id, int version) {
        return Optional.empty();
    }

    @Override
    public void requireReading(Viewer viewer, long id) {
        CommentRow row = store.find(id).filter(c -> c.state() == State.PUBLISHED).orElseThrow(Problem::missing);
        access.requirePost(viewer, Act.READ, row.postId());
    }

    @Override
    public List<PileItem> waiting(Viewer viewer, Collection<Long> classIds, PileFilter filter) {
        Map<Long, Names> names = new HashMap<>();
        List<PileItem> items = new ArrayList<>();
        for (CommentRow row : store.waiting(List.copyOf(classIds), filter))
            items.add(item(row, names.computeIfAbsent(row.classId(), id -> people.names(viewer, id)), classes.get(row.classId())));
        return items;
    }

    private PileItem item(CommentRow row, Names names, ClassService.ClassRecord in) {
        PostHeadings.Heading post = posts.of(row.postId());
        return new PileItem("comment", row.id(), row.classId(), in.name(), 1, row.rev(), CommentService.author(row, names), names.placeOf(row.authorId()), names.groupOf(row.authorId()), "",
            Sanitiser.comment(row.html()), row.waitingSince(), null, null, null, new PileItem.Under(row.postId(), post.title(), names.of(post.authorId())),
            reviews.holdsOf("comment", row.id()), null, reviews.history("comment", row.id(), names), post.readers(), 0, 0, null,
            row.state().name(), comments.policy(row, post.blogId()), reviews.reportsOn("comment", row.id(), names));
    }
}

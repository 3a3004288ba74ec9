package org.vastporch.server.comments;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.vastporch.core.access.PostFacts;
import org.vastporch.core.access.Viewer;
import org.vastporch.core.moderation.Author;
import org.vastporch.core.moderation.Course;
import org.vastporch.core.moderation.Policy;
import org.vastporch.core.moderation.State;
import org.vastporch.core.text.Revision;
import org.vastporch.core.text.Sanitiser;
import org.vastporch.server.comments.CommentStore.CommentRow;
import org.vastporch.server.comments.CommentStore.InPile;
import org.vastporch.server.http.Problem;
import org.vastporch.server.moderation.Moderated;
import org.vastporch.server.moderation.PileDesk;
import org.vastporch.server.moderation.PileFilter;
import org.vastporch.server.moderation.PileItem;
import org.vastporch.server.people.Names;

/** Comments in the pile, each with the post that it answers. */
@Component
class CommentPile implements Moderated {

    private final CommentStore store;
    private final CommentService comments;

    CommentPile(CommentStore store, CommentService comments) {
        this.store = store;
        this.comments = comments;
    }

    @Override
    public String subject() {
        return "comment";
    }

    @Override
    public Optional<Text> lock(long id) {
        return store.lock(id)
                .map(c -> new Text(
                        c.id(), c.classId(), c.authorId() == 0 ? null : c.authorId(), c.rev(), c.course(), false));
    }

    @Override
    public void settle(Text before, Course after, long by) {
        store.settle(before.id(), after);
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
    public Batch waiting(Collection<Long> classIds, PileFilter filter) {
        List<InPile> texts = store.waiting(List.copyOf(classIds), filter);
        return new Batch(texts.stream().map(t -> text(t.comment())).toList(), desk -> texts.stream()
                .filter(t -> desk.has(text(t.comment())))
                .map(t -> item(t, desk))
                .toList());
    }

    private Waiting text(CommentRow row) {
        return new Waiting(subject(), row.id(), row.classId(), row.authorId(), row.postId());
    }

    private PileItem item(InPile waits, PileDesk desk) {
        CommentRow row = waits.comment();
        PostFacts post = desk.post(row.postId());
        Waiting text = text(row);
        Names names = desk.names(row.classId());
        List<PileItem.Report> reported = desk.reports(text);
        Revision changes =
                row.before() == null || !reported.isEmpty() ? null : Revision.of(side(row.before()), side(row.html()));
        return new PileItem(
                subject(),
                row.id(),
                row.classId(),
                desk.in(row.classId()).name(),
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
                new PileItem.Under(row.postId(), waits.postTitle(), names.of(post.authorId())),
                desk.holds(text),
                changes,
                desk.history(text),
                desk.readers(post),
                null,
                0,
                0,
                null,
                row.state(),
                policy(row, waits.blog().comments(), desk),
                reported);
    }

    private static Policy.InForce policy(CommentRow row, @Nullable Policy ofBlog, PileDesk desk) {
        if (row.visitor() != null) return Policy.InForce.OF_VISITORS;
        Author author = desk.author(row.classId(), row.authorId());
        return desk.in(row.classId()).rules().forComments(author, ofBlog);
    }

    private static Revision.Side side(String html) {
        return new Revision.Side("", Sanitiser.comment(html), List.of());
    }
}
